/** Volts on a meter's diode test (about 1 mA) by colour and kind (common practice, no source). */
export const LED_FORWARD: Readonly<Record<string, readonly [number, number]>> = {
  infrared: [0.95, 1.35],
  red: [1.55, 2.05],
  orange: [1.7, 2.1],
  yellow: [1.75, 2.2],
  green: [1.8, 2.4],
  blue: [2.5, 3.2],
  white: [2.5, 3.2],
};
/** A LED whose colour nobody said. */
export const ANY_LED: readonly [number, number] = [1.5, 3.3];
export const DIODE_FORWARD = { diode: [0.45, 0.8], zener: [0.55, 0.85] } as const satisfies Readonly<Record<string, readonly [number, number]>>;
