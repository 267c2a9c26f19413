import { expandRefs } from './refs';

/** A row of a list, cut into cells, with its line in the source text (from 1). */
export interface TableRow {
  readonly line: number;
  readonly cells: readonly string[];
}

export type Column = 'refs' | 'board' | 'kind' | 'value' | 'tolerance' | 'quantity' | 'package' | 'note';
/** What each column holds; null for columns that are passed over. */
export type Columns = readonly (Column | null)[];

/** Headings in English, German, Spanish, French, Portuguese, Italian, Polish, Russian, Chinese and Japanese. */
const HEADINGS: readonly (readonly [Column, RegExp])[] = [
  [
    'refs',
    /^(refs?|references?|designators?|ref\.? ?des\.?|part ?no\.?|parts? ?numbers?|positions?|pos\.?|place|placement|bit ?numbers?|location|bezeichner|bezeichnung ?nr|best[üu]ckung|position|referenz(en)?|bauteil-?nr\.?|referencias?|référence|repères?|referências?|riferiment[oi]|oznaczeni[ea]|обозначени[ея]|поз\.?|позици[яи]|позиционн.*|位号|标号|编号|位置|序位|部品番号|記号|参照)$/i,
  ],
  [
    'quantity',
    /^(qty\.?|q'ty|quantity|count|amount|number|numbers|no\.? ?off|pcs\.?|pieces|menge|anzahl|stück|stückzahl|stk\.?|cantidad|cant\.?|quantité|qté\.?|quantidade|qtd\.?|qtde\.?|quantità|q\.?tà|ilość|liczba|szt\.?|sztuk|кол-?во|количество|число|шт\.?|数量|個数|用量|数目|员数|員数)$/i,
  ],
  ['tolerance', /^(tol\.?|tolerance|toleranz|tolerancia|tolérance|tolerância|tolleranza|tolerancja|допуск|误差|精度|許容差)$/i],
  ['package', /^(package|footprint|case|gehäuse|bauform|encapsulado|boîtier|invólucro|encapsulamento|contenitore|obudowa|корпус|封装|パッケージ|外形)$/i],
  ['board', /^(boards?|pcb|platine|leiterplatte|placa|carte|scheda|плата|płytka|板|电路板|基板)$/i],
  ['note', /^(notes?|note|remarks?|comments?|bemerkung(en)?|anmerkung(en)?|hinweis|notas?|observaciones|observação|remarques?|observações|uwagi|примечани[ея]|备注|備考|说明)$/i],
  [
    'value',
    /^(values?|val|rating|specifications?|specs?|model specifications?|spec\.?|type|typ|parameters?|wert|werte?|valor|valeur|valore|wartość|номинал|значение|параметр\p{L}*|тип|规格|参数|型号|数值|值|型号规格|値|定数|仕様|規格|型番|tipo|modell?o?|especificación|especificação|caractéristiques?|specyfikacja)$/iu,
  ],
  [
    'kind',
    /^(kind|category|components?|parts?|description|desc\.?|name|names?|name of article|article|item|items|designation|art|bauteil|bauteile|benennung|bezeichnung|beschreibung|komponente|componente|descripción|denominación|composant|désignation|nom|descrição|denominação|descrizione|element|opis|nazwa|компонент|наименование|элемент|описание|название|类型|类别|元件|名称|描述|元器件|元件名称|品名|種類|部品|部品名|名前)$/i,
  ],
];

/** What a column under this heading holds; null for a heading that is not known. */
export const headingColumn = (cell: string): Column | null => HEADINGS.find(([, pattern]) => pattern.test(cell.trim().replace(/[:：*]$/, '')))?.[0] ?? null;

const EITHER = /^(type|typ|tipo|тип|art)$/i;

/** What the columns of a heading row hold, each at most once. A column of types is the kind where another one holds the values. */
export function headingColumns(cells: readonly string[]): (Column | null)[] {
  const valued = cells.filter((c) => headingColumn(c) === 'value').length > 1;
  const taken = new Set<Column>();
  return cells.map((cell) => {
    const named = headingColumn(cell);
    const name = valued && named === 'value' && EITHER.test(cell.trim()) ? 'kind' : named;
    if (name === null || taken.has(name)) return null;
    taken.add(name);
    return name;
  });
}

const SEARCHED_ROWS = 12;

/** The heading row among the first rows, and what its columns hold; null when no row names at least two columns. */
export function findHeading(rows: readonly TableRow[]): { readonly row: number; readonly columns: Columns } | null {
  for (let r = 0; r < Math.min(rows.length, SEARCHED_ROWS); r++) {
    const columns = headingColumns(rows[r]!.cells);
    const taken = new Set(columns);
    taken.delete(null);
    if (taken.size >= 2 && (taken.has('refs') || taken.has('value') || taken.has('kind'))) return { row: r, columns };
  }
  return null;
}

const MOSTLY = 0.6;

/** What the columns of a table without a heading hold, judged by their cells; null when none holds refs. */
export function guessColumns(rows: readonly TableRow[]): Columns | null {
  const width = Math.max(0, ...rows.map((r) => r.cells.length));
  if (width < 2) return null;
  const share = (c: number, fits: (cell: string) => boolean) => {
    const cells = rows.map((r) => (r.cells[c] ?? '').trim()).filter((cell) => cell !== '');
    return cells.length === 0 ? 0 : cells.filter(fits).length / Math.max(cells.length, rows.length / 2);
  };
  const columns: (Column | null)[] = Array.from({ length: width }, () => null);
  const give = (name: Column, fits: (cell: string) => boolean) => {
    const free = columns.flatMap((c, i) => (c === null ? [i] : []));
    const best = free.map((i) => ({ i, s: share(i, fits) })).sort((a, b) => b.s - a.s)[0];
    if (best && best.s >= MOSTLY) columns[best.i] = name;
  };
  give('refs', (cell) => (expandRefs(cell)?.length ?? 0) > 0 && /\d/.test(cell));
  if (!columns.includes('refs')) return null;
  give('quantity', (cell) => /^\d{1,4}\s*(x|pcs\.?|stk\.?|шт\.?|个|个|szt\.?)?$/i.test(cell));
  give('tolerance', (cell) => /^[±+]?[-/\d.,\s]+%$/.test(cell));
  const rest = columns.flatMap((c, i) => (c === null ? [i] : []));
  const valued = rest.find((i) => share(i, (cell) => /\d/.test(cell)) >= MOSTLY / 2) ?? rest[0];
  return columns
    .map((c, i) => c ?? (i === valued ? 'value' : share(i, (cell) => /[\p{L}]/u.test(cell)) > 0 ? 'kind' : null))
    .map((c, i, all) => (c === 'kind' && all.indexOf('kind') !== i ? 'note' : c));
}
