import { isPreferred, seriesForTolerance } from '../preferred';
import { type Colour, digitOf, isColour, multiplierExponent, TEMPCO_PPM, TOLERANCE_PERCENT } from './colours';
import { decide, type Decoded, INVALID, plainReading, type Ranked, scaled } from './decoded';

/** A band: one colour, or those that cannot be told apart. */
export type Band = string | readonly string[];

export interface BandOptions {
  readonly direction?: 'fixed' | undefined;
  /** Values that this kit contains, ohms: then only those count. */
  readonly partsList?: readonly number[] | undefined;
}

const MOST_COMBINATIONS = 20_000;
/** Values that are stocked (common practice). */
const STOCKED = [0.1, 22e6] as const;
/** Tolerances wider than this are common (common practice), percent. */
const COMMON_TOLERANCE = 0.1;
/** Three bands mean ±20 % (IEC 60062). */
const THREE_BAND_TOLERANCE = 20;

/** Resistor bands as read from left to right, either end first (IEC 60062, from memory). */
export function decodeResistorBands(bands: readonly Band[], options: BandOptions = {}): Decoded {
  const choices = bands.map((b) => (typeof b === 'string' ? [b] : b).map((c) => c.trim().toLowerCase()));
  if (choices.some((c) => c.length === 0 || !c.every(isColour))) return INVALID;
  const readings = combinations(choices as Colour[][]).flatMap((colours) => {
    const directions = options.direction === 'fixed' ? [colours] : [colours, [...colours].reverse()];
    return directions.flatMap((d) => readBands(d) ?? []);
  });
  const wanted = options.partsList;
  return decide('ohm', wanted ? readings.filter((r) => wanted.some((v) => Math.abs(v - Number(r.value)) <= 1e-6 * v)) : readings);
}

function combinations(choices: readonly (readonly Colour[])[]): Colour[][] {
  let all: Colour[][] = [[]];
  for (const choice of choices) {
    all = all.flatMap((head) => choice.map((c) => [...head, c]));
    if (all.length > MOST_COMBINATIONS) return [];
  }
  return all;
}

/** One direction; null when it is no legal marking. */
function readBands(bands: readonly Colour[]): Ranked | null {
  if (bands.length === 1 && bands[0] === 'black') return { ...plainReading(0), rank: [0, 0, 0] };
  if (bands.length < 3 || bands.length > 6 || bands[0] === 'black') return null;
  const figures = bands.length >= 5 ? 3 : 2;
  const digits = bands.slice(0, figures).map(digitOf);
  if (digits.includes(null)) return null;
  const value = scaled(digits.join(''), multiplierExponent(bands[figures]!));
  const percent = bands.length === 3 ? THREE_BAND_TOLERANCE : TOLERANCE_PERCENT[bands[figures + 1]!];
  const tempco = bands.length === 6 ? TEMPCO_PPM[bands[5]!] : null;
  if (percent === undefined || tempco === undefined) return null;
  const rank = [
    isPreferred(value, seriesForTolerance(percent)) ? 0 : 1,
    value >= STOCKED[0] && value <= STOCKED[1] ? 0 : 1,
    percent >= COMMON_TOLERANCE ? 0 : 1,
  ];
  return { ...plainReading(value, { tolerancePercent: [-percent, percent], tempco }), rank };
}

/** Bands of a small inductor, microhenries, first band known (common practice). */
export function decodeInductorBands(bands: readonly Band[]): Decoded {
  const decoded = decodeResistorBands(bands, { direction: 'fixed' });
  if (decoded.state !== 'clear' || bands.length !== 4) return INVALID;
  return { ...decoded, unit: 'H', reading: { ...decoded.reading, value: scaled(Number(decoded.reading.value), -6) } };
}
