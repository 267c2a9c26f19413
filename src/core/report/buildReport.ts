import { deriveTray, deriveTried, type Entry, expectationOf, type KitState, type Ref, stands } from '../kit';
import { deriveStages, entryText, isMeasure, isPrepared, type KnownWindows, lineTitle, modificationText, openMatters } from '../loop';
import { print, printWindow } from '../quantity';
import { type Verdict, VERDICT_WORDS } from '../verdict';
import { factsOf, unitOf } from '../vocabulary';

/** A piece of a report, free of any markup. */
export type ReportBlock =
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | { readonly kind: 'table'; readonly head: readonly string[]; readonly rows: readonly (readonly string[])[] };

/** Sections of a report, in their order. */
export const REPORT_SECTIONS = ['built', 'parts', 'stages', 'functions', 'faults', 'changes', 'notes', 'open'] as const;
export type ReportSection = (typeof REPORT_SECTIONS)[number];

export interface ReportPart {
  readonly section: ReportSection;
  readonly title: string;
  readonly blocks: readonly ReportBlock[];
}

const said = (v: Verdict) => (v === 'none' ? 'not read' : VERDICT_WORDS[v]);
const day = (at: string) => at.slice(0, 10);

/** What a builder shows of a kit: as built, measured, powered up, mended; sections without content are left out. */
export function buildReport(kit: KitState, windows: KnownWindows): ReportPart[] {
  const made: readonly ReportPart[] = [
    { section: 'built', title: 'As built', blocks: asBuilt(kit) },
    { section: 'parts', title: 'Parts', blocks: parts(kit) },
    { section: 'stages', title: 'Powered up in stages', blocks: stages(kit, windows) },
    { section: 'functions', title: 'Functions', blocks: functions(kit) },
    { section: 'faults', title: 'Faults, and how they were found', blocks: faults(kit) },
    { section: 'changes', title: 'Changes of the board', blocks: changes(kit) },
    { section: 'notes', title: 'Notes', blocks: notes(kit) },
    { section: 'open', title: 'Still open', blocks: open(kit, windows) },
  ];
  return made.filter((p) => p.blocks.length > 0);
}

const list = (items: readonly string[]): ReportBlock[] => (items.length > 0 ? [{ kind: 'list', items }] : []);

function asBuilt(kit: KitState): ReportBlock[] {
  const { maker, edition, note } = kit.sheet;
  const tray = deriveTray(kit);
  const pieces = tray.flatMap((c) => c.pieces);
  const measured = pieces.filter((p) => p.entry !== null);
  const places = kit.sheet.lines.filter((l) => !l.notFitted).flatMap((l) => l.refs);
  const finished = kit.finished && kit.finished.at > (kit.change?.at ?? -1) ? kit.finished.entry.at : null;
  return list([
    ...(maker || edition ? [[maker, edition].filter(Boolean).join(', ')] : []),
    ...(note ? [note] : []),
    `Begun ${day(kit.created)}${finished ? `, finished ${day(finished)}` : ', not called finished yet'}.`,
    ...(tray.length > 0
      ? [`Counted ${tray.filter((c) => c.counted !== null).length} of ${tray.length} lines, measured ${measured.length} of ${pieces.length} pieces.`]
      : []),
    ...(places.length > 0 ? [`Fitted ${places.filter((r) => kit.board.fitted.has(r)).length} of ${places.length} places.`] : []),
    ...[...kit.board.straps].map(([option, choice]) => `${kit.sheet.options.find((o) => o.id === option)?.text ?? option}: ${choice}.`),
    ...[...kit.board.set].map(([ref, value]) => `${ref}: ${positionText(kit, ref, value)}.`),
  ]);
}

/** A position as a stage words it, else in its unit: a control's travel, or the value of what was set. */
function positionText({ sheet }: KitState, ref: Ref, value: number): string {
  const worded = sheet.stages.flatMap((s) => s.settings ?? []).find((s) => s.ref === ref && s.value === value);
  if (worded) return worded.text;
  const line = sheet.lines.find((l) => l.refs.includes(ref));
  const isControl = line !== undefined && (line.kind === 'trimmer' || line.kind === 'potentiometer');
  return isControl && value <= 1 ? `${Math.round(100 * value)} % of its travel` : print(value, (line && factsOf(line.kind).unit) ?? null, 3);
}

function parts(kit: KitState): ReportBlock[] {
  const rows = deriveTray(kit).flatMap(({ line, pieces }) => {
    const unit = expectationOf(line)?.unit ?? null;
    const told = line.refs.length > 0 ? line.refs : [''];
    return told.map((ref): string[] => {
      const piece = pieces.find((p) => p.ref === ref);
      const value = kit.board.values.get(ref);
      const what = value === undefined ? '' : `${print(value, unit, 3)} in its place`;
      const state = kit.board.removed.has(ref) ? 'left out' : what;
      const read = piece?.reckoning ? print(piece.reckoning.corrected, unit) : piece?.entry ? 'over-range' : '–';
      return [ref === '' ? `${line.quantity} ×` : ref, lineTitle(line), read, piece?.entry ? said(piece.verdict) : '–', state];
    });
  });
  return rows.length > 0 ? [{ kind: 'table', head: ['where', 'what', 'measured', 'verdict', ''], rows }] : [];
}

function stages(kit: KitState, windows: KnownWindows): ReportBlock[] {
  return deriveStages(kit, windows).flatMap(({ stage, checks, status, reason }): ReportBlock[] => {
    const begun = isPrepared(kit, stage) || checks.some((c) => c.verdict !== 'none');
    if (!begun) return [];
    const rows = checks.map((c): string[] => {
      if (!isMeasure(c)) {
        const seen = c.results.map((r) => (r.entry ? `${r.channel ? `${r.channel}: ` : ''}${r.entry.asExpected ? 'as expected' : 'not so'}` : '–'));
        return [c.check.title, c.check.expect, seen.join(', '), said(c.verdict)];
      }
      const unit = unitOf(c.check.mode);
      const window = c.window ? (c.window.over ? 'over-range' : printWindow(c.window.low, c.window.high, unit, 3)) : '–';
      const read = c.entry ? (c.entry.reading === 'over' ? 'over-range' : print(c.entry.reading, unit)) : '–';
      return [c.check.title, window, read, c.window ? said(c.verdict) : c.entry ? 'noted' : 'not read'];
    });
    const word = {
      passed: 'passed',
      overridden: 'continued anyway',
      postponed: 'postponed',
      doubtful: 'doubtful',
      failed: 'failed',
      current: 'under way',
      waiting: 'waiting',
    }[status];
    return [
      { kind: 'text', text: `${stage.title}: ${word}${reason ? ` (${reason})` : ''}` },
      { kind: 'table', head: ['check', 'expected', 'read', 'verdict'], rows },
    ];
  });
}

function functions(kit: KitState): ReportBlock[] {
  const rows = [...deriveTried(kit).values()].map((e): string[] => [e.check, e.asExpected ? 'as expected' : e.saw.map((s) => `${s.of} ${s.saw}`).join(', ')]);
  return rows.length > 0 ? [{ kind: 'table', head: ['tried', 'seen'], rows }] : [];
}

const STORY: ReadonlySet<string> = new Set(['found', 'repaired', 'ruled-out', 'symptom', 'gated']);
const standing = (kit: KitState): Entry[] => kit.log.filter((e): e is Entry => stands(kit, e));

/** What was seen, suspected, done, and how it ended, in the order in which it happened. */
function faults(kit: KitState): ReportBlock[] {
  const log = standing(kit);
  if (!log.some((e) => e.kind === 'found' || e.kind === 'repaired')) return [];
  return list(log.filter((e) => STORY.has(e.kind)).map((e) => `${day(e.at)}: ${entryText(kit, e)}`));
}

const changes = (kit: KitState): ReportBlock[] =>
  list(kit.board.modifications.map((m) => [modificationText(kit, m.change), m.temporary ? 'for a test' : '', m.why ?? ''].filter(Boolean).join(', ')));

const notes = (kit: KitState): ReportBlock[] =>
  list(standing(kit).flatMap((e) => (e.kind === 'noted' && e.text.trim() !== '' ? [`${day(e.at)}: ${e.text}`] : [])));

const open = (kit: KitState, windows: KnownWindows): ReportBlock[] => list(openMatters(kit, windows));

/** A report as Markdown (CommonMark with tables). */
export function reportMarkdown(title: string, report: readonly ReportPart[]): string {
  const cell = (text: string) => text.replace(/\|/g, '\\|').replace(/\s+/g, ' ');
  const row = (cells: readonly string[]) => `| ${cells.map(cell).join(' | ')} |`;
  const block = (b: ReportBlock): string => {
    if (b.kind === 'text') return `**${cell(b.text)}**`;
    if (b.kind === 'list') return b.items.map((i) => `- ${cell(i)}`).join('\n');
    return [row(b.head), row(b.head.map(() => '---')), ...b.rows.map(row)].join('\n');
  };
  return `${[`# ${cell(title)}`, ...report.flatMap((p) => [`## ${p.title}`, ...p.blocks.map(block)])].join('\n\n')}\n`;
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

const STYLE =
  'body{font:16px/1.45 sans-serif;max-width:60rem;margin:2rem auto;padding:0 1rem;color:#222}table{border-collapse:collapse;margin:0 0 1rem}td,th{border-bottom:1px solid #ccc;padding:.2rem .8rem .2rem 0;text-align:left;vertical-align:top}h2{margin-top:2rem}@media print{body{margin:0;max-width:none}tr{break-inside:avoid}h2,p{break-after:avoid}}';

/** A report as one HTML file that needs nothing else. Everything from the kit is escaped. */
export function reportHtml(title: string, report: readonly ReportPart[]): string {
  const block = (b: ReportBlock): string => {
    if (b.kind === 'text') return `<p><b>${escaped(b.text)}</b></p>`;
    if (b.kind === 'list') return `<ul>${b.items.map((i) => `<li>${escaped(i)}</li>`).join('')}</ul>`;
    const cells = (tag: 'td' | 'th', row: readonly string[]) => `<tr>${row.map((c) => `<${tag}>${escaped(c)}</${tag}>`).join('')}</tr>`;
    return `<table><thead>${cells('th', b.head)}</thead><tbody>${b.rows.map((r) => cells('td', r)).join('')}</tbody></table>`;
  };
  const body = report.map((p) => `<h2>${escaped(p.title)}</h2>\n${p.blocks.map(block).join('\n')}`).join('\n');
  return `<!doctype html>\n<html lang="en">\n<meta charset="utf-8">\n<meta name="viewport" content="width=device-width">\n<title>${escaped(title)}</title>\n<style>${STYLE}</style>\n<h1>${escaped(title)}</h1>\n${body}\n</html>\n`;
}
