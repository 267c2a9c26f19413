import { kindByWords } from './kinds';
import { saysNotSupplied } from './notices';
import { isRefList, takeRefs } from './refs';
import { type Role, type Row, runs, share } from './rows';
import { CELL } from './text';

type PrefixClass = 'dot' | 'bracket' | 'two' | 'one' | 'count' | 'times' | 'star' | 'dash' | 'refs' | 'other';

/** How lines of running text begin, and which of their leading numbers only count the lines. */
export class Prefixes {
  readonly usual: PrefixClass;
  /** The first number of a line is a running number. */
  readonly running: boolean;
  readonly counted: boolean;
  /** The parts themselves are indented, below headings: an indent carries nothing on. */
  readonly indents: boolean;

  constructor(rows: readonly Row[]) {
    const indented = rows.filter((r) => r.indented).length;
    const bare = rows.filter((r) => !r.indented && !/[:：]\s*$/u.test(r.cells[0]!)).length;
    this.indents = indented >= 2 && bare <= MOST_BARE * indented;
    const lines = rows.filter((r) => this.indents || !r.indented).map((r) => r.cells[0]!);
    const tally = new Map<PrefixClass, number>();
    for (const l of lines) tally.set(prefixOf(l), (tally.get(prefixOf(l)) ?? 0) + 1);
    if (tally.has('one') && tally.has('two')) {
      tally.set('two', tally.get('two')! + tally.get('one')!);
    }
    this.usual = [...tally].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'other';
    const numbered = lines.filter((l) => ['one', 'two'].includes(prefixOf(l)));
    this.running = numbered.length >= 2 && runs(numbered.map((l) => /^\d+/.exec(l)![0])) && !agreesWithRefs(numbered);
    this.counted =
      share(
        lines.filter((l) => isRefList(l.split(/\s/)[0]!)),
        (l) => TRAILING_COUNT.test(l),
      ) > 0.7;
  }

  /** Whether a line that does not begin as the others do carries the one above on. */
  carriesOn(row: Row, above: string): boolean {
    const text = row.cells[0]!;
    if ((above.match(/\(/g)?.length ?? 0) > (above.match(/\)/g)?.length ?? 0) && /\)/.test(text)) return true;
    if (/^(?:pezzi|pezz[io]|pcs|pieces|stück|stk\.?|шт\.?|szt\.?|peças|piezas|pièces|off)$/iu.test(text)) return true;
    if (row.indented && !this.indents) return true;
    if (/[,/(]$/.test(above) && !/^[-*\d]+[.)x]/.test(text)) return true;
    const mine = prefixOf(text);
    if (mine === this.usual || /^\d/.test(text)) return false;
    // `Transformer 9 V AC, not supplied` under the last number names a thing of its own.
    if (namesUnsupplied(text)) return false;
    // With positions of its own behind a line that has its own, it begins a part.
    if (hasRefs(text) && hasRefs(above)) return false;
    if (!['refs', 'other'].includes(this.usual)) return mine === 'other' && !kindAlone(text, this.usual);
    return this.usual === 'refs' && this.counted && mine === 'other' && !TRAILING_COUNT.test(above) && TRAILING_COUNT.test(text);
  }
}

/** So many lines without an indent (a title, a remark) leave the indent a habit of the sheet, as a share of those with one (own choice). */
const MOST_BARE = 0.25;

/** A notice with the name of what is not supplied before it, in the same line. */
const namesUnsupplied = (text: string) => saysNotSupplied(text) && /^\p{Lu}\p{L}{2,}/u.test(text) && !saysNotSupplied(text.split(/\s+/).slice(0, 2).join(' '));

/** `Gehäuse`: a part without count among counted ones begins with its own name and holds nothing else. */
const hasRefs = (text: string) => takeRefs(text, () => false).refs.length > 0;
const kindAlone = (text: string, usual: PrefixClass) => usual === 'dash' && kindByWords(text) !== null;
const TRAILING_COUNT =
  /\d+\s*(?:pz\.?|pezzi|pcs?\.?|pieces|st(?:k|ück)?\.?|szt\.?|шт\.?|un\.?|uds?\.?|peças|個|本|个|只|off|x)\s*(?:\([^)]*\))?\s*\**$|[x×*]\s*\d+\s*(?:\([^)]*\))?$/iu;
const agreesWithRefs = (lines: readonly string[]) => {
  const told = lines.flatMap((l) => {
    const first = Number(/^\d+/.exec(l)![0]);
    const refs = l
      .split(/\s+/)
      .filter((w) => /^[A-Z]{1,4}\d{1,3}(?:,[A-Z]{1,4}\d{1,3})*$/.test(w))
      .flatMap((w) => w.split(','));
    return refs.length > 0 ? [first === refs.length] : [];
  });
  return told.length >= 3 && share(told, Boolean) >= 0.8;
};

const UNIT_NEXT = /^\d+(?:[.,]\d+)?\s*(?:m|cm|mm|V|W|A|mA|k|K|M|R|Ω|ohm|pin|p|P)(?![\p{L}])/u;
export function prefixOf(line: string): PrefixClass {
  if (/^\d{1,3}\.(?:\s+(?=\S)|(?=[^\d\s]))/.test(line)) return 'dot';
  if (/^\(?\d{1,3}\)/.test(line)) return 'bracket';
  if (/^[-–—•·]\s/.test(line)) return 'dash';
  if (/^\*\d/.test(line)) return 'star';
  if (/^[x×]\s?\d/.test(line)) return 'times';
  if (UNIT_NEXT.test(line)) return 'other';
  if (/^\d{1,3}\s?(?:[x×]|st(?:k|ück|\.)|pcs?\b|szt|шт|uds?\b|un\b|pz|pièces?|个|個|只|本)/iu.test(line)) return 'count';
  if (/^\d{1,3}\s+\d{1,4}\s+(?=\D)/.test(line)) return 'two';
  if (/^\d{1,3}\s+(?=\S)/.test(line)) return 'one';
  const first = /^[^\s:]+(?::|(?=\s|$))/.exec(line)?.[0].replace(/:$/, '') ?? '';
  return isRefList(first.replace(/,$/, '')) ? 'refs' : 'other';
}

/** Several parts in one line, parted by semicolons, or by commas where each begins with its positions: `R1 1k, R2, R3 10k`. */
export const splitInline = (line: string): string[] => {
  const parts = line.split(/;\s*/).filter((p) => p.trim() !== '');
  return parts.length > 1 ? parts.flatMap(valuedPositions) : valuedPositions(line.replace(/;\s*$/, ''));
};

/** `4 x M3 screws, 4 x nuts`, `2x BC547, 2x 10k`: each with its count; the line as it stands otherwise. */
function countedKinds(line: string): string[] {
  const parts = line.slice(HEAD.exec(line)![0].length).split(/,\s+/);
  const isCounted = (part: string) => /^\d{1,3}\s?[x×]\s?\S/u.test(part) || (/^\d{1,3}\s+(?!x\d)\S*\p{L}{3}/u.test(part) && kindByWords(part) !== null);
  return parts.length > 1 && parts.every(isCounted) ? parts : [line];
}

/** Words in front (`Resistors:`) name the kind of each. */
const HEAD = /^\s*[-–—•·*]?\s*(?:([^:\d]{2,30}):\s+)?/u;

/** Each position with what it is; the line as it stands where some of its words are neither. */
function valuedPositions(line: string): string[] {
  const head = HEAD.exec(line)!;
  const parts: string[] = [];
  let bare = '';
  for (const word of line.slice(head[0].length).split(/,\s+/)) {
    const [position, what] = /^(\S+?)\s*(?:[=:]\s*|\s)(.+)$/.exec(word)?.slice(1) ?? [word];
    if (!isRefList(position!)) return countedKinds(line);
    if (what === undefined || isRefList(what)) bare += `${word}, `;
    else {
      parts.push(`${bare}${word}`);
      bare = '';
    }
  }
  if (parts.length < 2 || bare !== '') return [line];
  return parts.map((part) => (head[1] ? `${head[1]} ${part}` : part));
}

/** Cells of a line of running text: its number and count in front, leaders and dashes between. */
export function cellsOfText(line: string, prefixes: Prefixes): { role: Role | null; text: string }[] {
  const cells: { role: Role | null; text: string }[] = [];
  let rest = line.replace(/^[-–—•·]\s+/, '');
  const ordinal = /^\(?(\d{1,3})[.)]\s*(?=[^\d\s]|\d)/.exec(rest);
  if (ordinal && (prefixes.usual === 'dot' || prefixes.usual === 'bracket')) rest = rest.slice(ordinal[0].length);
  else if (prefixes.running && /^\d{1,3}\s/.test(rest)) {
    rest = rest.replace(/^\d{1,3}\s+/, '');
    const count = /^(\d{1,4})\s+(?=\D|\d+\S*\p{L})/u.exec(rest);
    if (count && prefixes.usual === 'two') {
      cells.push({ role: 'quantity', text: count[1]! });
      rest = rest.slice(count[0].length);
    }
  } else if (/^\d{1,3}\s+\S/.test(rest) && !UNIT_NEXT.test(rest) && prefixOf(rest) === 'one' && (prefixes.usual === 'one' || prefixes.usual === 'two')) {
    cells.push({ role: 'quantity', text: /^\d+/.exec(rest)![0] });
    rest = rest.replace(/^\d+\s+/, '');
  }
  const leaders = rest.replace(/\s*\.{4,}\s*|\s*…{2,}\s*|\s*_{4,}\s*/g, CELL);
  const dashed = leaders.replace(/(?<![A-Z]\d{1,3})\s+[-–—]\s+|\s+[-–—]\s+(?![A-Z]{1,4}\d)|\s+[-–—]$/g, CELL);
  const labelled = dashed.replace(/^([^:¦]{1,200}?):\s+/, (all, head: string) => (isRefList(head) ? `${head}${CELL}` : all));
  for (const text of labelled.split(CELL.trim())) if (text.trim() !== '') cells.push({ role: null, text: text.trim() });
  return cells.length > 0 ? cells : [{ role: null, text: line }];
}
