type Range = readonly [number, number];

/** Forward volts of a LED: on a meter's diode test (about 1 mA) what most read and what a good one may read, and at 10 mA. */
interface LedForward {
  readonly usual: Range;
  readonly limits: Range;
  readonly at10mA: number;
}

/** By colour (common practice, no source). */
export const LED_FORWARD: Readonly<Record<string, LedForward>> = {
  infrared: { usual: [1.0, 1.3], limits: [0.95, 1.35], at10mA: 1.2 },
  red: { usual: [1.65, 2.0], limits: [1.55, 2.05], at10mA: 1.9 },
  orange: { usual: [1.75, 2.05], limits: [1.7, 2.1], at10mA: 2.0 },
  yellow: { usual: [1.85, 2.15], limits: [1.75, 2.2], at10mA: 2.1 },
  green: { usual: [1.95, 2.4], limits: [1.8, 2.4], at10mA: 2.2 },
  blue: { usual: [2.6, 3.1], limits: [2.5, 3.2], at10mA: 3.0 },
  white: { usual: [2.6, 3.1], limits: [2.5, 3.2], at10mA: 3.0 },
};
/** A LED whose colour nobody said. */
export const ANY_LED: Range = [1.5, 3.3];
/** Volts on a meter's diode test of a silicon junction (common practice, no source). */
export const DIODE_FORWARD = { diode: [0.45, 0.8], zener: [0.55, 0.85] } as const satisfies Readonly<Record<string, Range>>;
