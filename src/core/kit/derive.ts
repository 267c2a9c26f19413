import { rangeFor } from '../meter';
import { judgePart, type PartVerdict, type Verdict } from '../verdict';
import { type KitDocument, standing } from './document';
import { type Entry, type EntryOf } from './entry';
import { expectationOf } from './lines';
import { meterOf, offsetOf } from './meters';
import { type Line, type Ref, type Sheet, type Stage } from './sheet';

/** One piece of a line: its place and the last reading that stands. */
export interface Piece {
  readonly index: number;
  /** The ref it is meant for; null for spares. */
  readonly ref: Ref | null;
  readonly entry: EntryOf<'measured'> | null;
  readonly verdict: Verdict;
  /** Null without a reading, or when it was over-range. */
  readonly reckoning: PartVerdict | null;
}

/** A compartment of the tray. */
export interface Compartment {
  readonly line: Line;
  /** Null until counted. */
  readonly counted: number | null;
  readonly pieces: readonly Piece[];
  readonly verdict: Verdict;
  readonly skipped: boolean;
  /** The last marking read on each piece, by its index. */
  readonly markings: ReadonlyMap<number, string>;
}

/** The tray: one compartment a line, in the order of the sheet. */
export function deriveTray(doc: KitDocument): Compartment[] {
  const entries = standing(doc.log);
  const known = withSortedPieces(doc, entries);
  return wantedLines(doc.sheet, chosenOptions(entries)).map((line) => compartment(doc, line, known));
}

/** Choice made for every option, by its id. */
const chosenOptions = (entries: readonly Entry[]) =>
  new Map(entries.flatMap((e) => (e.kind === 'modified' && e.change.what === 'strap' ? [[e.change.option, e.change.choice] as const] : [])));

/** Lines that this edition has: those of an option that was decided otherwise are left out. */
function wantedLines(sheet: Sheet, chosen: ReadonlyMap<string, string>): Line[] {
  return sheet.lines.filter((line) => {
    const [option, choice] = line.option?.split('=') ?? [];
    const made = option === undefined ? undefined : chosen.get(option);
    return made === undefined || made === choice;
  });
}

const PART_MODE = { R: 'ohms', C: 'capacitance', L: 'inductance', D: 'diode', LED: 'diode', Q: 'hfe' } as const;

/** A pile that was sorted counts as counted and measured, piece by piece. */
function withSortedPieces(doc: KitDocument, entries: readonly Entry[]): Entry[] {
  const loose = new Map(entries.flatMap((e) => (e.kind === 'loose' ? [[e.id, e] as const] : [])));
  return entries.flatMap((e): Entry[] => {
    if (e.kind !== 'sorted') return [e];
    const stamp = { id: e.id, at: e.at };
    return doc.sheet.lines.flatMap((line): Entry[] => {
      const pieces = e.pieces.flatMap((p) => (p.line === line.id ? (loose.get(p.loose) ?? []) : []));
      if (pieces.length === 0) return [];
      const measured = pieces.flatMap((p, i): Entry[] => {
        const ref = line.refs[i];
        if (p.reading === null) return [];
        return [
          {
            kind: 'measured',
            line: line.id,
            piece: i,
            ...(ref === undefined ? {} : { ref }),
            mode: PART_MODE[p.part],
            reading: p.reading,
            meter: p.meter,
            ...stamp,
          },
        ];
      });
      return [{ kind: 'counted', line: line.id, quantity: pieces.length, ...stamp }, ...measured];
    });
  });
}

function compartment(doc: KitDocument, line: Line, entries: readonly Entry[]): Compartment {
  const counted = lastOf(entries, 'counted', (e) => e.line === line.id)?.quantity ?? null;
  const known = line.notFitted ? 0 : Math.max(line.quantity, line.kind === 'link' ? 0 : line.refs.length);
  const present = counted === null ? known : Math.min(counted, Math.max(known, 1));
  const pieces = Array.from({ length: present }, (_, i) => piece(doc, line, i, entries));
  return {
    line,
    counted,
    pieces,
    verdict: worst(pieces.map((p) => p.verdict)),
    skipped: entries.some((e) => e.kind === 'skipped' && e.target === line.id),
    markings: new Map(entries.flatMap((e) => (e.kind === 'marked' && e.line === line.id ? [[e.piece, e.text] as const] : []))),
  };
}

function piece(doc: KitDocument, line: Line, index: number, entries: readonly Entry[]): Piece {
  const entry = lastOf(entries, 'measured', (e) => e.line === line.id && e.piece === index);
  const reckoning = entry ? judgeMeasured(doc, line, entry) : null;
  return {
    index,
    ref: line.refs[index] ?? null,
    entry,
    verdict: !entry ? 'none' : entry.reading === 'over' ? 'out' : (reckoning?.verdict ?? 'none'),
    reckoning,
  };
}

/** The reckoning behind one measured piece; null for over-range or when the line has no limits. */
export function judgeMeasured(doc: KitDocument, line: Line, entry: EntryOf<'measured'>): PartVerdict | null {
  const expected = expectationOf(line);
  const meter = meterOf(doc, entry.meter);
  if (!expected || entry.reading === 'over') return null;
  const range = rangeFor(meter, expected.mode, entry.reading);
  if (!range) return null;
  const offset = offsetOf(meter, expected.mode);
  return judgePart({ nominal: expected.nominal, tolerance: expected.tolerance, reading: entry.reading, range, offset }, doc.settings.school);
}

/** The worst verdict of some, `none` when nothing was judged. */
export function worst(verdicts: readonly Verdict[]): Verdict {
  for (const v of ['out', 'doubtful', 'in'] as const) if (verdicts.includes(v)) return v;
  return 'none';
}

function lastOf<K extends Entry['kind']>(entries: readonly Entry[], kind: K, fits: (e: EntryOf<K>) => boolean): EntryOf<K> | null {
  for (let i = entries.length - 1; i >= 0; i--) {
    const e = entries[i]!;
    if (e.kind === kind && fits(e as EntryOf<K>)) return e as EntryOf<K>;
  }
  return null;
}

/** Values of measured pieces by the ref they are meant for; a piece that was judged out is expected to be replaced and is left out. */
export function deriveMeasuredValues(doc: KitDocument): Map<Ref, { value: number; standard: number }> {
  const values = new Map<Ref, { value: number; standard: number }>();
  for (const { line, pieces } of deriveTray(doc)) {
    const mode = expectationOf(line)?.mode;
    if (mode !== 'ohms' || line.kind === 'trimmer' || line.kind === 'thermistor' || line.kind === 'ldr') continue;
    for (const p of pieces)
      if (p.ref && p.reckoning && p.verdict !== 'out') values.set(p.ref, { value: p.reckoning.corrected, standard: p.reckoning.standard });
  }
  return values;
}

/** The board as it was at some moment: what the log says beyond the plan of the stages. */
export interface BoardState {
  readonly fitted: ReadonlySet<Ref>;
  readonly removed: ReadonlySet<Ref>;
  readonly set: ReadonlyMap<Ref, number>;
  readonly modifications: readonly EntryOf<'modified'>['change'][];
}

/** State of the board after the first `upTo` entries of the log (all by default). */
export function deriveBoardState(doc: KitDocument, upTo = doc.log.length): BoardState {
  const fitted = new Set<Ref>();
  const removed = new Set<Ref>();
  const set = new Map<Ref, number>();
  const modifications: EntryOf<'modified'>['change'][] = [];
  const counting = new Set(standing(doc.log).map((e) => e.id));
  for (const e of doc.log.slice(0, upTo)) {
    if (!counting.has(e.id)) continue;
    if (e.kind === 'fitted') move(e.refs, removed, fitted);
    else if (e.kind === 'removed') move(e.refs, fitted, removed);
    else if (e.kind === 'set') set.set(e.ref, e.value);
    else if (e.kind === 'modified') modifications.push(e.change);
  }
  return { fitted, removed, set, modifications };
}

function move(refs: readonly Ref[], from: Set<Ref>, to: Set<Ref>): void {
  for (const ref of refs) {
    from.delete(ref);
    to.add(ref);
  }
}

export type CheckEntry = EntryOf<'read'> | EntryOf<'observed'>;

/** Readings of a stage that still count: a repair or modification voids what was out before it. */
export function checkEntries(doc: KitDocument, stage: Stage, checkId: string): CheckEntry[] {
  return standing(doc.log).filter((e): e is CheckEntry => (e.kind === 'read' || e.kind === 'observed') && e.stage === stage.id && e.check === checkId);
}

/** Position in the log of the last change of the board (repair or modification); −1 without one. */
export function lastBoardChange(doc: KitDocument): number {
  const counting = new Set(standing(doc.log).map((e) => e.id));
  for (let i = doc.log.length - 1; i >= 0; i--) {
    const e = doc.log[i]!;
    if ((e.kind === 'repaired' || e.kind === 'modified') && counting.has(e.id)) return i;
  }
  return -1;
}

/** The last `waiting` that was not resumed: where the work stopped. */
export function deriveWaiting(doc: KitDocument): EntryOf<'waiting'> | null {
  const entries = standing(doc.log);
  const resumed = new Set(entries.flatMap((e) => (e.kind === 'resumed' ? [e.waited] : [])));
  return lastOf(entries, 'waiting', (e) => !resumed.has(e.id));
}

/** Pieces of a sorted pile that belong to no line. */
export function deriveStrangers(doc: KitDocument): EntryOf<'loose'>[] {
  const entries = standing(doc.log);
  const ids = new Set(entries.flatMap((e) => (e.kind === 'sorted' ? e.pieces.filter((p) => p.line === null).map((p) => p.loose) : [])));
  return entries.filter((e): e is EntryOf<'loose'> => e.kind === 'loose' && ids.has(e.id));
}
