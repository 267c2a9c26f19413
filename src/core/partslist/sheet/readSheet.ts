import type { Column } from '../columns';
import { type Laid, layOut } from './layout';
import { readPart } from './part';
import type { Doubt, Question, SheetLine, SheetReading } from './reading';

/** Below this a line is asked about before it is taken. */
export const SURE = 0.8;

/**
 * Reads a seller's whole sheet: text, or the rows of a table. Every source line that is not empty ends as a line, as
 * ignored with a reason, or as a question; what the paper does not settle is asked and never guessed silently.
 * `columns` overrides what the columns of a table hold.
 */
export function readSheet(
  source: string | readonly (readonly string[])[],
  columns: readonly (Column | null)[] | null = null,
): SheetReading & Pick<Laid, 'way' | 'roles' | 'heading'> {
  const laid = layOut(source, columns);
  const lines: SheetLine[] = [];
  const questions: Question[] = laid.blank.map(({ source: at, text }) => ({ source: at, refs: [], doubt: { what: 'says-nothing', text } }));
  const ignored = [...laid.ignored];
  const taken = new Map<string, number>();
  for (const item of laid.items) {
    const { line, doubts, marks } = readPart(item);
    const at = item.sources[0]!;
    const footnotes = marks.flatMap((m) => laid.footnotes.get(m) ?? []);
    const open: Doubt[] = [...doubts];
    if (saysNothing(line)) {
      questions.push({ source: at, refs: [], doubt: { what: 'says-nothing', text: line.text } });
      continue;
    }
    const fitted = !footnotes.some((f) => !f.fitted) && !line.notFitted;
    for (const ref of line.refs) {
      const before = taken.get(ref);
      if (before === undefined) taken.set(ref, at);
      else if (before !== at) open.push({ what: 'repeated', ref, before });
    }
    const kept = fitted ? open : open.filter((d) => d.what !== 'count');
    for (const doubt of kept) questions.push({ source: at, refs: line.refs, doubt });
    lines.push({
      ...line,
      supplied: line.supplied && !footnotes.some((f) => !f.supplied),
      notFitted: !fitted,
      quantity: fitted ? line.quantity : Math.max(1, line.refs.length),
      sure: kept.length > 0 ? Math.min(line.sure, 0.5) : line.sure,
    });
  }
  // The net under it all: what no rule took is asked about.
  const told = new Set([...lines.flatMap((l) => l.sources), ...ignored.map((x) => x.source), ...questions.map((q) => q.source)]);
  for (const { source: at, text } of laid.source) if (!told.has(at)) questions.push({ source: at, refs: [], doubt: { what: 'says-nothing', text } });
  return { title: laid.title, lines, ignored, questions, way: laid.way, roles: laid.roles, heading: laid.heading };
}

/** Neither a kind nor a position nor a type: nothing that could be a part. */
const saysNothing = (line: SheetLine) => line.kind === 'other' && line.refs.length === 0 && line.type === null && line.value === null;
