import type { Unit } from '../quantity';

interface ModeFacts {
  readonly unit: Unit;
  /** As the meter's dial says it. */
  readonly words: string;
}

/** What an instrument measures, each told once: the unit of its readings (SI) and its name on the dial. */
export const MODES = {
  dcv: { unit: 'V', words: 'DC volts' },
  dca: { unit: 'A', words: 'supply display, amperes' },
  ohms: { unit: 'ohm', words: 'ohms' },
  diode: { unit: 'V', words: 'diode test' },
  capacitance: { unit: 'F', words: 'capacitance' },
  inductance: { unit: 'H', words: 'inductance' },
  hfe: { unit: 'ratio', words: 'transistor socket, hFE' },
  frequency: { unit: 'Hz', words: 'frequency' },
  acv: { unit: 'V', words: 'AC volts' },
  duty: { unit: 'percent', words: 'duty cycle' },
  vmin: { unit: 'V', words: 'DC volts, the least' },
  vmax: { unit: 'V', words: 'DC volts, the most' },
  temp: { unit: 'degC', words: 'temperature' },
} as const satisfies Readonly<Record<string, ModeFacts>>;

export type MeterMode = keyof typeof MODES;

/** Modes that measure a loose part. */
export const PART_MODES = ['ohms', 'capacitance', 'inductance', 'diode', 'hfe'] as const satisfies readonly MeterMode[];
export type PartMode = (typeof PART_MODES)[number];

/** Modes of a check on the board. */
export const CHECK_MODES = ['dcv', 'dca', 'acv', 'ohms', 'diode', 'frequency', 'duty', 'vmin', 'vmax', 'temp'] as const satisfies readonly MeterMode[];
export type CheckMode = (typeof CHECK_MODES)[number];

export const unitOf = (mode: MeterMode): Unit => MODES[mode].unit;
