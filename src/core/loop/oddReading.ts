import type { KitState, Stage } from '../kit';
import { print } from '../quantity';
import { computedWindow } from '../stage';
import { checkObservableId, type MeterMode, placeOf, probeObservableId, unitOf } from '../vocabulary';
import { freshTaken, type KnownWindows } from './progress';

/** A reading that is more likely wrong itself than a sign of a wrong part. The fault finder knows the same ways (`diagnose/badReadings`). */
export interface OddReading {
  readonly why: 'sign' | 'decimal' | 'no-contact' | 'other-point' | 'supply-limit' | 'all-alike';
  readonly text: string;
  /** What was probably meant, where that can be said. */
  readonly as: number | null;
}

interface Asked {
  readonly mode: MeterMode;
  readonly reading: number;
  readonly low: number;
  readonly high: number;
  /** The observable that was meant. */
  readonly observable: string;
}

const DECADES = [0.001, 0.01, 0.1, 10, 100, 1000];
/** Without contact a meter shows less, volts; it is odd only where more than this should be (common practice, no source). */
const OPEN_VOLTS = 0.03;
const EXPECTED_VOLTS = 0.3;
/** A display that shows the limit that was set, to this share. */
const AT_LIMIT = 0.03;

/** What may be wrong with a reading that lies outside its window, the likeliest first; null where nothing explains it. */
export function oddReading(kit: KitState, stage: Stage, asked: Asked, windows: KnownWindows): OddReading | null {
  const { mode, reading, low, high } = asked;
  const unit = unitOf(mode);
  const isIn = (value: number) => value >= low && value <= high;
  if (reading < 0 && isIn(-reading)) return { why: 'sign', text: 'The right size with the wrong sign: your probes are swapped.', as: -reading };
  const limit = mode === 'dca' ? stage.supplies.find((s) => Math.abs(reading / s.limit - 1) <= AT_LIMIT) : undefined;
  if (limit)
    return {
      why: 'supply-limit',
      text: `${limit.source} is in its current limit of ${print(limit.limit, 'A', 2)}: what it feeds reads too low. Switch off.`,
      as: null,
    };
  if (mode === 'dcv' && Math.abs(reading) < OPEN_VOLTS && low > EXPECTED_VOLTS)
    return { why: 'no-contact', text: 'Next to nothing: no contact at the tip, the output switched off, or the meter on AC. Try once more.', as: null };
  const alike = mode === 'dcv' ? allAlike(kit, stage, asked, windows) : null;
  if (alike !== null) return { why: 'all-alike', text: alike, as: null };
  const elsewhere = mode === 'dcv' ? otherPoints(kit, stage, asked, windows) : [];
  const [only] = elsewhere;
  if (only !== undefined && elsewhere.length === 1) return { why: 'other-point', text: `It would fit ${only}: was the probe there?`, as: null };
  const decade = DECADES.find((d) => isIn(reading * d));
  if (decade !== undefined && reading !== 0)
    return {
      why: 'decimal',
      text: `With the decimal point elsewhere it would fit: ${print(reading * decade, unit)}?`,
      as: Number((reading * decade).toPrecision(6)),
    };
  return null;
}

/** Volts from here on tell a common factor, readings that far off are off, and so near each other they are off alike (own choice). */
const ALIKE = { volts: 0.5, off: 0.025, apart: 0.012 };

/** Whether all volts of the stage are off by one factor: what they share is to blame, not a part. Null where they are not, or this is the first. */
function allAlike(kit: KitState, stage: Stage, { reading, observable }: Asked, windows: KnownWindows): string | null {
  const factorOf = (id: string, value: number) => {
    const middle = computedWindow(windows?.[id])?.middle ?? 0;
    return Math.abs(middle) >= ALIKE.volts ? value / middle : null;
  };
  const mine = factorOf(observable, reading);
  if (mine === null || mine <= 0 || Math.abs(mine - 1) < ALIKE.off) return null;
  const others = stage.checks.flatMap((check) => {
    const id = checkObservableId(stage.id, check.id);
    if (check.what !== 'measure' || check.mode !== 'dcv' || id === observable) return [];
    const last = freshTaken(kit, stage, check.id).at(-1)?.entry;
    const factor = last?.kind === 'read' && typeof last.reading === 'number' ? factorOf(id, last.reading) : null;
    return factor === null ? [] : [factor];
  });
  if (others.length === 0 || others.some((f) => Math.abs(f / mine - 1) > ALIKE.apart)) return null;
  const by = `${Math.round(100 * Math.abs(mine - 1))} % ${mine > 1 ? 'high' : 'low'}`;
  const meter = mine > 1 ? ' (a weak battery makes many read high)' : '';
  return `${others.length === 1 ? 'Both volts' : `All ${others.length + 1} volts`} of this stage read ${by}: suspect what they share. Measure the supply at its terminals. If it is right there, compare the meter with another${meter}, then look at what feeds them.`;
}

/** Points of the stage at which just this would be read, and nothing like it here. */
function otherPoints(kit: KitState, stage: Stage, { reading, observable }: Asked, windows: KnownWindows): string[] {
  const mine = netOf(kit, stage, observable);
  const points = new Map<string, string>();
  for (const check of stage.checks)
    if (check.what === 'measure' && check.mode === 'dcv')
      points.set(checkObservableId(stage.id, check.id), 'testPoint' in check.red ? check.red.testPoint : check.title);
  for (const t of kit.sheet.testPoints) points.set(probeObservableId(stage.id, t.id), t.id);
  const found = [...points].flatMap(([id, name]) => {
    const window = computedWindow(windows?.[id]);
    const net = netOf(kit, stage, id);
    return window && id !== observable && (net === null || net !== mine) && reading >= window.low && reading <= window.high ? [name] : [];
  });
  return [...new Set(found)];
}

/** The net that an observable reads against ground; null where it is read otherwise. */
function netOf(kit: KitState, stage: Stage, observable: string): string | null {
  const place = placeOf(observable);
  const point = (id: string) => kit.sheet.testPoints.find((t) => t.id === id)?.net ?? null;
  if (place.testPoint !== null) return point(place.testPoint);
  const check = stage.checks.find((c) => c.id === place.check);
  if (check?.what !== 'measure') return null;
  return 'testPoint' in check.red ? point(check.red.testPoint) : 'net' in check.red ? check.red.net : null;
}
