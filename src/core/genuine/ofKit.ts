import { deriveTray, type KitState, type Line } from '../kit';
import { print } from '../quantity';
import { factsOf } from '../vocabulary';
import { assessGenuine, type Examined, type Genuineness } from './genuine';
import { type Origin, ORIGINS } from './signs';

const DEFAULT_ORIGIN: Origin = 'unknown';
const isOrigin = (name: string): name is Origin => name in ORIGINS;

/** What the log tells of one line's parts: signs, figures, and what its pieces measured out of circuit. */
export function examinedOf(kit: KitState, line: Line): Examined {
  const entries = [...(kit.examined.get(line.id)?.values() ?? [])];
  const origin = entries.flatMap((e) => (e.sign.startsWith('origin/') ? [e.sign.slice('origin/'.length)] : [])).find(isOrigin) ?? DEFAULT_ORIGIN;
  const { unit } = factsOf(line.kind);
  const measured = (deriveTray(kit).find((c) => c.line.id === line.id)?.pieces ?? []).flatMap((p) =>
    p.reckoning && p.entry
      ? [
          {
            title: `${p.ref ?? 'a spare'} measured ${print(p.reckoning.corrected, unit)}`,
            reading: p.reckoning.corrected,
            low: p.reckoning.low,
            high: p.reckoning.high,
            standard: p.reckoning.standard,
          },
        ]
      : [],
  );
  return {
    origin,
    signs: new Map(entries.flatMap((e) => (e.figure || e.sign.startsWith('origin/') ? [] : [[e.sign, e.seen] as const]))),
    // Pieces of one packet come from one place: the worst of them tells what the packet is worth.
    figures: [...worstOf(measured), ...entries.flatMap((e) => (e.figure ? [{ ...e.figure, title: e.title }] : []))],
  };
}

const worstOf = (figures: Examined['figures']): Examined['figures'] => {
  const off = (f: Examined['figures'][number]) => Math.max((f.low ?? -Infinity) - f.reading, f.reading - (f.high ?? Infinity));
  const [worst] = [...figures].sort((a, b) => off(b) - off(a));
  return worst ? [worst] : [];
};

/** A line that somebody began to examine, and what came of it. */
export interface DoubtfulLine extends Genuineness {
  readonly line: Line;
}

/** All lines that were examined. */
export const doubtfulLines = (kit: KitState): DoubtfulLine[] =>
  kit.sheet.lines.flatMap((line) => (kit.examined.has(line.id) ? [{ line, ...assessGenuine(examinedOf(kit, line)) }] : []));

/** The kit as a whole, judged by the lines that were examined. */
export interface WholeKit {
  readonly examined: number;
  readonly copies: number;
  /** Probability that a further chip of this parcel is a copy. */
  readonly next: number;
}

/** The general suspicion counts like so many examined lines (own figure): one copy makes one wary, three make a case. */
const AS_LINES = 4;
/** From here on a line counts as a copy. */
const PROBABLY = 0.5;

/**
 * What the examined lines say of the others: parts of one parcel come from one hand. The share of copies, with the general
 * suspicion of their origin as prior (mean of a beta distribution, textbook). Null before two lines were examined.
 */
export function wholeKit(kit: KitState): WholeKit | null {
  const lines = doubtfulLines(kit).filter((d) => d.evidence.length > 0);
  if (lines.length < 2) return null;
  const origins = lines.map((d) => ORIGINS[examinedOf(kit, d.line).origin].fake);
  const prior = origins.reduce((sum, p) => sum + p, 0) / origins.length;
  const found = lines.reduce((sum, d) => sum + d.fake, 0);
  return { examined: lines.length, copies: lines.filter((d) => d.fake >= PROBABLY).length, next: (prior * AS_LINES + found) / (AS_LINES + lines.length) };
}

/** From this probability on a part counts as a copy and is stopped like one that measured out (own figure). */
const SURELY = 0.99;

/** Places whose part is a copy beyond doubt, with its line. */
export const copiedPlaces = (kit: KitState): { readonly ref: string; readonly line: Line }[] =>
  doubtfulLines(kit)
    .filter((d) => d.fake >= SURELY)
    .flatMap(({ line }) => line.refs.map((ref) => ({ ref, line })));
