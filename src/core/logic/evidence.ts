import type { LogicCheck, SeenItem } from './board';
import type { Shown } from './simulate';

/** What a builder notes of one item: a word, the lit segments, volts. */
export type Noted = string | number;

/** Amperes from which a lamp is lit, and from which it is dim; a segment; a buzzer (choice of the contract). */
const LIT = 1e-3;
const DIM = 5e-5;
const SEGMENT = 3e-4;
const SOUND = 2e-3;
/** Eyes differ: each threshold by a factor up to this, either way, evenly in its logarithm. */
const SPREAD = 1.25;
const VOLTS_SIGMA = 0.02;
const VOLTS_SHARE = 0.01;
const STEP = 0.01;

const SEGMENTS = ['a', 'b', 'c', 'd', 'e', 'f', 'g'] as const;

/** Probability that a threshold, with its spread, lies below this current. */
function reaches(amperes: number, threshold: number): number {
  if (!(amperes > 0)) return 0;
  const at = Math.log(amperes / threshold) / Math.log(SPREAD);
  return Math.min(1, Math.max(0, (at + 1) / 2));
}

export const sigmaOf = (volts: number) => VOLTS_SIGMA + VOLTS_SHARE * Math.abs(volts);

/** Probabilities of the words of an item; of a digit, of each segment to be on. */
function chances(shown: Shown): Readonly<Record<string, number>> {
  switch (shown.what) {
    case 'look': {
      const lit = reaches(shown.amperes, LIT);
      const dim = reaches(shown.amperes, DIM);
      return { lit, dim: Math.max(0, dim - lit), dark: 1 - dim };
    }
    case 'sound': {
      const on = reaches(shown.amperes, SOUND);
      return { on, off: 1 - on };
    }
    case 'blink':
      return { [shown.rate]: 1 };
    case 'digit':
      return Object.fromEntries(shown.amperes.map((a, i) => [SEGMENTS[i]!, reaches(a, SEGMENT)]));
    case 'volts':
      return {};
  }
}

/** What an item shows without any spread, as it is noted. */
export function plainly(shown: Shown): Noted {
  switch (shown.what) {
    case 'look':
      return shown.amperes >= LIT ? 'lit' : shown.amperes >= DIM ? 'dim' : 'dark';
    case 'sound':
      return shown.amperes >= SOUND ? 'on' : 'off';
    case 'blink':
      return shown.rate;
    case 'digit':
      return SEGMENTS.filter((_, i) => shown.amperes[i]! >= SEGMENT).join('');
    case 'volts':
      return Number(shown.volts.toFixed(4));
  }
}

const WORDS: Readonly<Record<SeenItem['what'], readonly string[]>> = {
  look: ['lit', 'dim', 'dark'],
  sound: ['on', 'off'],
  blink: ['no', 'slow', 'normal', 'fast'],
  digit: [],
  volts: [],
};

/** Probability of what was noted: right with its spread, or (`wrong`, a rate) any other word of its kind. `span`: volts that a wrong figure may be anywhere in. */
export function likelihood(shown: Shown, noted: Noted, wrong: number, span: number): number {
  if (shown.what === 'volts') {
    const sigma = sigmaOf(shown.volts);
    const z = (Number(noted) - shown.volts) / sigma;
    return (1 - wrong) * (STEP / (sigma * Math.sqrt(2 * Math.PI))) * Math.exp(-0.5 * z * z) + (wrong * STEP) / span;
  }
  const p = chances(shown);
  if (shown.what === 'digit') {
    let all = 1;
    for (const s of SEGMENTS) {
      const on = p[s] ?? 0;
      all *= (1 - wrong) * (String(noted).includes(s) ? on : 1 - on) + wrong / 2;
    }
    return all;
  }
  return (1 - wrong) * (p[String(noted)] ?? 0) + wrong / WORDS[shown.what].length;
}

/** Probability that an item was wrongly noted, were this the board. */
export function doubtOf(shown: Shown, noted: Noted, wrong: number, span: number): number {
  if (shown.what !== 'digit') {
    const whole = likelihood(shown, noted, wrong, span);
    const right = likelihood(shown, noted, 0, span) * (1 - wrong);
    return whole > 0 ? Math.max(0, 1 - right / whole) : 1;
  }
  const p = chances(shown);
  let right = 1;
  for (const s of SEGMENTS) {
    const fits = String(noted).includes(s) ? (p[s] ?? 0) : 1 - (p[s] ?? 0);
    right *= ((1 - wrong) * fits) / ((1 - wrong) * fits + wrong / 2);
  }
  return 1 - right;
}

/** Differences below which two boards show the same. */
const SAME_CHANCE = 0.1;
const SAME_VOLTS = 0.07;

/** Whether two boards look the same in an item. */
export function alike(a: Shown, b: Shown): boolean {
  if (a.what === 'volts' || b.what === 'volts')
    return a.what === b.what && Math.abs((a as { volts: number }).volts - (b as { volts: number }).volts) <= SAME_VOLTS;
  const [p, q] = [chances(a), chances(b)];
  if (a.what === 'digit') return SEGMENTS.every((s) => Math.abs((p[s] ?? 0) - (q[s] ?? 0)) <= SAME_CHANCE);
  const keys = new Set([...Object.keys(p), ...Object.keys(q)]);
  return [...keys].reduce((sum, k) => sum + Math.abs((p[k] ?? 0) - (q[k] ?? 0)), 0) / 2 <= SAME_CHANCE;
}

/**
 * Checks what was noted against what can be noted.
 * @throws Error naming check and item.
 */
export function validateNoted(check: LogicCheck, saw: readonly unknown[]): asserts saw is readonly Noted[] {
  if (saw.length !== check.see.length) throw new Error(`check ${check.id}: ${saw.length} values for ${check.see.length} items`);
  check.see.forEach((item, i) => {
    const v = saw[i];
    const place = `check ${check.id}, item ${i + 1}`;
    if (item.what === 'volts') {
      if (typeof v !== 'number' || !Number.isFinite(v)) throw new Error(`${place}: “${String(v)}” is not volts`);
    } else if (typeof v !== 'string') throw new Error(`${place}: “${String(v)}” is not a word`);
    else if (item.what === 'digit' ? !/^[a-g]*$/.test(v) : !WORDS[item.what].includes(v))
      throw new Error(`${place}: “${v}” is not one of ${WORDS[item.what].join(', ') || 'segments a to g'}`);
  });
}
