import type { StageObservable } from './problem';

/** Readings are compared on an asinh scale: linear near zero, logarithmic above, so that millivolts and volts both count. */
const KNEE: Readonly<Record<StageObservable['mode'], number>> = {
  dcv: 0.05,
  dca: 5e-4,
  ohms: 10,
  diode: 0.05,
  frequency: 0.1,
  acv: 0.05,
  duty: 1,
  vmin: 0.05,
  vmax: 0.05,
};

/** What an over-range reading counts as on each scale. */
export const OVER: Readonly<Record<StageObservable['mode'], number>> = {
  dcv: 1000,
  dca: 20,
  ohms: 4e7,
  diode: 4,
  frequency: 1e9,
  acv: 1000,
  duty: 1000,
  vmin: 1000,
  vmax: 1000,
};

export const toScale = (mode: StageObservable['mode'], value: number) => Math.asinh(value / KNEE[mode]);
export const fromScale = (mode: StageObservable['mode'], y: number) => Math.sinh(y) * KNEE[mode];
/** d(scale)/d(value), to carry a meter's uncertainty over. */
export const scaleSlope = (mode: StageObservable['mode'], value: number) => 1 / Math.hypot(value, KNEE[mode]);
