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
    /^(qty\.?|q'ty|quantity|count|amount|number|numbers|no\.? ?off|pcs\.?|pieces|menge|anz\.?|anzahl|stück|stückzahl|stk\.?|cantidad|cant\.?|quantité|qté\.?|quantidade|qtd\.?|qtde\.?|quantità|q\.?tà|ilość|liczba|szt\.?|sztuk|кол-?во|количество|число|шт\.?|数量|個数|用量|数目|员数|員数)$/i,
  ],
  ['tolerance', /^(tol\.?|tolerance|toleranz|tolerancia|tolérance|tolerância|tolleranza|tolerancja|допуск|误差|精度|許容差)$/i],
  ['package', /^(package|footprint|case|gehäuse|bauform|encapsulado|boîtier|invólucro|encapsulamento|contenitore|obudowa|корпус|封装|パッケージ|外形)$/i],
  ['board', /^(boards?|pcb|platine|leiterplatte|placa|carte|scheda|плата|płytka|板|电路板|基板)$/i],
  [
    'note',
    /^(notes?|note|remarks?|comments?|bemerkung(en)?|anmerkung(en)?|hinweis|notas?|observaciones|observação|remarques?|observações|uwagi|примечани[ея]|备注|備考|说明)$/i,
  ],
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

/** Headings of columns that only number the lines. */
const NUMBERS = /^(#|№|nr\.?|no\.?|n[°º]|lp\.?|lfd\.?(?: ?nr\.?)?|serial|serial number|s\/?n|序号|番号)$/i;
export const isHeadingWord = (word: string): boolean => headingColumn(word) !== null || NUMBERS.test(word.trim());

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
