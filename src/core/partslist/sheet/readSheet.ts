import type { Column } from '../columns';
import { type Laid, layOut } from './layout';
import { namedUnsupplied } from './notices';
import { readPart } from './part';
import type { Correction, Doubt, Entry, Question, SheetLine, SheetReading } from './reading';
import { LONGEST } from './rows';

/** Below this a line is asked about before it is taken. */
export const SURE = 0.8;

export type Read = SheetReading & Pick<Laid, 'way' | 'roles' | 'heading' | 'cells'> & { readonly entries: readonly Entry[] };

/**
 * Reads a seller's whole sheet: text, or the rows of a table. Every source line that is not empty ends as a line, as
 * ignored with a reason, or as a question; what the paper does not settle is asked and never guessed silently.
 * `columns` overrides what the columns of a table hold, `corrections` what was read of an entry.
 */
export function readSheet(
  source: string | readonly (readonly string[])[],
  columns: readonly (Column | null)[] | null = null,
  corrections: Readonly<Record<string, Correction>> = {},
): Read {
  const laid = layOut(source, columns);
  const taken = new Map<string, number>();
  const inLine = new Map<number, number>();
  const keyAt = (at: number): string => {
    const n = inLine.get(at) ?? 0;
    inLine.set(at, n + 1);
    return n === 0 ? String(at) : `${at}.${n}`;
  };
  const sourceOf = (sources: readonly number[]) => sources.map((n) => laid.printed.get(n) ?? '').join(' ');
  const entries: Entry[] = [];
  const put = (sources: readonly number[], is: Entry['is'], doubts: readonly Doubt[]) => {
    const key = keyAt(sources[0]!);
    const correction = corrections[key];
    const corrected = correction !== undefined;
    if (correction?.settled === 'no-part')
      return void entries.push({ key, sources, source: sourceOf(sources), is: { ignored: 'no part' }, doubts: [], corrected });
    const settled = correction
      ? { is: 'ignored' in is ? is : { line: amended('line' in is ? is.line : blankLine(sources, sourceOf(sources)), correction) }, doubts: [] }
      : { is, doubts };
    entries.push({ key, sources, source: sourceOf(sources), ...settled, corrected });
  };

  for (const { source: at, why } of laid.ignored) put([at], { ignored: why }, []);
  for (const { source: at, text } of laid.blank) put([at], { nothing: true }, [{ what: 'says-nothing', text }]);
  for (const item of laid.items) {
    const { line, doubts, marks } = readPart(item);
    const at = item.sources[0]!;
    if (saysNothing(line)) {
      put(item.sources, { nothing: true }, [{ what: 'says-nothing', text: line.label }]);
      continue;
    }
    const footnotes = marks.flatMap((m) => laid.footnotes.get(m) ?? []);
    const fitted = !footnotes.some((f) => !f.fitted) && !line.notFitted;
    const open: Doubt[] = fitted ? [...doubts] : doubts.filter((d) => d.what !== 'count');
    if (item.sources.some((n) => (laid.printed.get(n)?.length ?? 0) >= LONGEST)) open.push({ what: 'unreadable', text: line.label.slice(0, 60) });
    for (const ref of line.refs) {
      const before = taken.get(ref);
      if (before === undefined) taken.set(ref, at);
      else if (before !== at) open.push({ what: 'repeated', ref, before });
    }
    const whole: SheetLine = {
      ...line,
      supplied: line.supplied && !footnotes.some((f) => !f.supplied),
      notFitted: !fitted,
      quantity: fitted ? line.quantity : Math.max(1, line.refs.length),
      sure: open.length > 0 ? Math.min(line.sure, UNSURE) : line.sure,
    };
    put(item.sources, { line: whole }, open);
  }
  // The net under it all: what no rule took is asked about.
  const told = new Set(entries.flatMap((e) => e.sources));
  for (const [at, text] of laid.printed) if (!told.has(at)) put([at], { nothing: true }, [{ what: 'says-nothing', text }]);
  entries.sort((a, b) => a.sources[0]! - b.sources[0]!);
  return { title: laid.title, entries, ...parted(entries), way: laid.way, roles: laid.roles, heading: laid.heading, cells: laid.cells };
}

const UNSURE = 0.5;

function parted(entries: readonly Entry[]): Pick<SheetReading, 'lines' | 'ignored' | 'questions'> {
  const lines = entries.flatMap((e) => ('line' in e.is ? [e.is.line] : []));
  const ignored = entries.flatMap(({ is, sources, source }) => ('ignored' in is ? [{ source: sources[0]!, why: is.ignored, text: source }] : []));
  const questions = entries.flatMap((e) => e.doubts.map((doubt): Question => ({ source: e.sources[0]!, refs: 'line' in e.is ? e.is.line.refs : [], doubt })));
  return { lines, ignored, questions };
}

/** A reading as the builder corrected it: what was said holds, the rest stays. */
function amended(line: SheetLine, { settled: _, ...said }: Correction): SheetLine {
  return { ...line, ...said, sure: 1 };
}

const blankLine = (sources: readonly number[], text: string): SheetLine => ({
  kind: 'other',
  value: null,
  unit: null,
  tolerance: null,
  rating: null,
  type: null,
  package: null,
  color: null,
  pins: null,
  quantity: 1,
  refs: [],
  supplied: true,
  notFitted: false,
  note: null,
  label: text,
  printed: text,
  sources,
  sure: 1,
});

/** Neither a kind nor a position nor a type: nothing that could be a part. What is named as not supplied is wanted all the same. */
const saysNothing = (line: SheetLine) =>
  line.kind === 'other' && line.refs.length === 0 && line.type === null && line.value === null && !namedUnsupplied(line.printed);
