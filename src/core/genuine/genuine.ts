import { normalCdf } from '../statistics';
import { ORIGINS, type Origin, type Sign, SIGNS } from './signs';

/** A figure read on a part, with the limits of its data sheet. */
export interface FigureRead {
  readonly reading: number;
  /** Null where the data sheet gives no limit on that side. */
  readonly low: number | null;
  readonly high: number | null;
  /** Standard uncertainty of the reading. */
  readonly standard: number;
}

/** What is known of a doubtful part. */
export interface Examined {
  readonly origin: Origin;
  /** Signs that were looked for: whether they were there. */
  readonly signs: ReadonlyMap<string, boolean>;
  readonly figures: readonly (FigureRead & { readonly title: string })[];
}

/** One piece of evidence: how far it moves the odds of a copy. */
export interface SignWeight {
  readonly title: string;
  readonly seen: boolean;
  /** Likelihood ratio copy : genuine, as it counts here: tempered where others of its group say the same. */
  readonly ratio: number;
  readonly source: string;
}

export interface Genuineness {
  /** Probability that the part is a copy or re-marked. */
  readonly fake: number;
  readonly evidence: readonly SignWeight[];
}

/** Beside the strongest sign of its group a further one counts this share of its weight (own figure, checked on simulated parts). */
const FURTHER = 0.4;

/** Share of copies whose figures lie within the data sheet all the same, and of genuine parts whose do not (own figures). */
const GOOD_COPIES = 0.6;
const BAD_GENUINE = 0.01;
/** How far a copy's figures scatter, in widths of the limits, and at least this share of their middle (own figures). */
const SCATTER = 1.5;
const LEAST_SCATTER = 0.3;

/** Likelihood ratio copy : genuine of a sign that was looked for. */
export const signRatio = ({ onFake, onGenuine }: Sign, seen: boolean): number => (seen ? onFake / onGenuine : (1 - onFake) / (1 - onGenuine));

/**
 * Likelihood ratio copy : genuine of a reading. A genuine part lies anywhere within its limits, one in a hundred does not; of
 * copies six in ten do as well, the others scatter widely. The reading's own uncertainty widens both.
 */
export function figureRatio({ reading, low, high, standard }: FigureRead): number {
  const known = [low, high].filter((v) => v !== null);
  if (known.length === 0) return 1;
  const middle = known.reduce((s, v) => s + v, 0) / known.length;
  const width = low !== null && high !== null ? high - low : LEAST_SCATTER * Math.abs(middle);
  // A limit on one side alone: good parts lie within one such width beyond it.
  const [from, to] = [low ?? high! - width, high ?? low! + width];
  const s = Math.max(standard, 1e-6 * Math.abs(middle), 1e-15);
  const within = width > 0 ? (normalCdf((reading - from) / s) - normalCdf((reading - to) / s)) / width : normal(reading, middle, s);
  const scattered = normal(reading, middle, Math.hypot(s, SCATTER * Math.max(width, LEAST_SCATTER * Math.abs(middle))));
  const genuine = (1 - BAD_GENUINE) * within + BAD_GENUINE * scattered;
  const copy = GOOD_COPIES * within + (1 - GOOD_COPIES) * scattered;
  return genuine > 0 ? copy / genuine : (1 - GOOD_COPIES) / BAD_GENUINE;
}

const normal = (x: number, mean: number, s: number) => Math.exp(-0.5 * ((x - mean) / s) ** 2) / (s * Math.sqrt(2 * Math.PI));

/** The probability that a part is a copy: odds of its origin times what every sign says, signs of one group tempered (Bayes). */
export function assessGenuine({ origin, signs, figures }: Examined): Genuineness {
  const looked = SIGNS.flatMap((sign) => {
    const seen = signs.get(sign.id);
    return seen === undefined ? [] : [{ sign, seen, weight: Math.log(signRatio(sign, seen)) }];
  });
  const counted = new Set<string>();
  const ofLooks = [...looked]
    .sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight))
    .map(({ sign, seen, weight }): SignWeight => {
      const first = !counted.has(sign.group);
      counted.add(sign.group);
      return { title: sign.title, seen, ratio: Math.exp(first ? weight : FURTHER * weight), source: 'rule of thumb' };
    });
  const ofFigures = figures.map((f): SignWeight => {
    const ratio = figureRatio(f);
    return { title: f.title, seen: ratio > 1, ratio, source: 'data sheet limits and the meter’s uncertainty' };
  });
  const evidence = [...ofLooks, ...ofFigures];
  const prior = ORIGINS[origin].fake;
  const odds = evidence.reduce((product, e) => product * e.ratio, prior / (1 - prior));
  return { fake: odds / (1 + odds), evidence: [...evidence].sort((a, b) => Math.abs(Math.log(b.ratio)) - Math.abs(Math.log(a.ratio))) };
}

/** Uses, and the probability of a copy up to which a part may go in (own figures: what a failure there costs). */
const USES = [
  { use: 'a toy or gadget', most: 0.5 },
  { use: 'a tool that you rely on', most: 0.15 },
  { use: 'something that must not fail', most: 0.02 },
] as const;

/** Advice by use. */
export const adviceFor = (fake: number): { readonly use: string; readonly fit: boolean }[] => USES.map(({ use, most }) => ({ use, fit: fake <= most }));
