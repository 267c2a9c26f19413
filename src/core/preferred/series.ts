/** Preferred numbers (IEC 60063, from memory). Three-figure mantissas, 100 to 999. */

const E24 = [100, 110, 120, 130, 150, 160, 180, 200, 220, 240, 270, 300, 330, 360, 390, 430, 470, 510, 560, 620, 680, 750, 820, 910];

/** E48, E96 and E192 follow the formula; 920 in place of the rounded 919 is the standard's one exception. */
function computed(count: number): number[] {
  return Array.from({ length: count }, (_, i) => {
    const exact = Math.round(100 * 10 ** (i / count));
    return exact === 919 ? 920 : exact;
  });
}

const every = (step: number) => E24.filter((_, i) => i % step === 0);

export const SERIES = { E6: every(4), E12: every(2), E24, E48: computed(48), E96: computed(96), E192: computed(192) } as const;
export type SeriesName = keyof typeof SERIES;

/** Three-figure mantissa of a value, 100 to 999; null when it needs more figures. */
function mantissa(value: number): number | null {
  const digits = value / 10 ** (Math.floor(Math.log10(value) + 1e-9) - 2);
  const rounded = Math.round(digits);
  return Math.abs(digits - rounded) < 1e-6 * rounded ? rounded : null;
}

export function isPreferred(value: number, names: readonly SeriesName[]): boolean {
  const m = mantissa(value);
  return m !== null && names.some((n) => (SERIES[n] as readonly number[]).includes(m));
}

/** Series in which resistors of this tolerance (percent) are made: common practice for E24 values at tight tolerances. */
export function seriesForTolerance(percent: number): readonly SeriesName[] {
  if (percent >= 20) return ['E6'];
  if (percent >= 10) return ['E12'];
  if (percent >= 5) return ['E24'];
  if (percent >= 2) return ['E24', 'E48'];
  return percent >= 1 ? ['E24', 'E96'] : ['E24', 'E192'];
}
