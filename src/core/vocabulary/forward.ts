type Range = readonly [number, number];

/** Forward volts of an LED: on a meter's diode test (about 1 mA) what most read and what a good one may read, and at 10 mA. */
interface LedForward {
  readonly usual: Range;
  readonly limits: Range;
  readonly at10mA: number;
}

/** By colour and chemistry, 0.1 to 0.3 V below the volts at 5 to 10 mA (common practice, no source). */
export const LED_FORWARD = {
  infrared: { usual: [1.0, 1.3], limits: [0.9, 1.4], at10mA: 1.2 },
  red: { usual: [1.65, 2.0], limits: [1.5, 2.1], at10mA: 1.9 },
  orange: { usual: [1.75, 2.05], limits: [1.65, 2.2], at10mA: 2.0 },
  amber: { usual: [1.75, 2.05], limits: [1.65, 2.2], at10mA: 2.0 },
  yellow: { usual: [1.85, 2.15], limits: [1.65, 2.2], at10mA: 2.1 },
  green: { usual: [1.95, 2.4], limits: [1.75, 3.4], at10mA: 2.2 },
  'yellow-green': { usual: [1.85, 2.2], limits: [1.75, 2.4], at10mA: 2.1 },
  'pure green': { usual: [2.5, 3.0], limits: [2.4, 3.4], at10mA: 3.0 },
  blue: { usual: [2.6, 3.1], limits: [2.4, 3.4], at10mA: 3.0 },
  white: { usual: [2.6, 3.1], limits: [2.4, 3.4], at10mA: 3.0 },
  violet: { usual: [2.9, 3.5], limits: [2.7, 3.8], at10mA: 3.4 },
} as const satisfies Readonly<Record<string, LedForward>>;

/** Words for a chemistry or a shade, and the colour whose volts they mean; the first that is found counts. */
const SHADES: readonly (readonly [RegExp, keyof typeof LED_FORWARD])[] = [
  [/\b(?:true|pure) green\b|emerald|jade|ingan/, 'pure green'],
  [/\b(?:old|gap|lime)\b.*green|yellow.?green|green.?yellow/, 'yellow-green'],
  [/\b(?:uv|ultraviolet|purple|pink)\b/, 'violet'],
  [/\b(?:ir|infra-?red)\b/, 'infrared'],
];

/** Volts of an LED by its colour as people write it (`warm white`, `red 5 mm`); null for an unknown colour, or for several. */
export function ledForward(colour: string): LedForward | null {
  const word = colour.trim().toLowerCase();
  const shade = SHADES.find(([reads]) => reads.test(word))?.[1];
  if (shade) return LED_FORWARD[shade];
  const named = (Object.keys(LED_FORWARD) as (keyof typeof LED_FORWARD)[]).filter((c) => new RegExp(`\\b${c}\\b`).test(word));
  return named.length === 1 ? LED_FORWARD[named[0]!] : null;
}
/** An LED whose colour nobody said. */
export const ANY_LED: Range = [1.5, 3.3];
/** Volts on a meter's diode test of a silicon junction (common practice, no source). */
export const DIODE_FORWARD = { diode: [0.45, 0.8], zener: [0.55, 0.85] } as const satisfies Readonly<Record<string, Range>>;
