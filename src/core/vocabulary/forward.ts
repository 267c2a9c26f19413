type Range = readonly [number, number];

/** Forward volts of a LED: on a meter's diode test (about 1 mA) what most read and what a good one may read, and at 10 mA. */
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

/** Volts of a LED by its colour as people write it; null for a colour nobody knows. */
export function ledForward(colour: string): LedForward | null {
  const word = colour.trim().toLowerCase();
  const known: Readonly<Record<string, LedForward>> = LED_FORWARD;
  if (known[word]) return known[word];
  if (/^(?:true|pure|emerald|jade|ingan)\b.*|.*\bingan\b.*/.test(word) && /green|emerald|jade|ingan/.test(word)) return LED_FORWARD['pure green'];
  if (/^(?:old|gap|lime)\b.*green|yellow.?green|green.?yellow/.test(word)) return LED_FORWARD['yellow-green'];
  if (/^(?:uv|ultraviolet|purple|pink)$/.test(word)) return LED_FORWARD.violet;
  if (/^(?:warm|cool|cold|pure)[ -]?white$/.test(word)) return LED_FORWARD.white;
  if (/^(?:ir|infra-red)$/.test(word)) return LED_FORWARD.infrared;
  const last = word.split(/[ -]/).at(-1) ?? '';
  return known[last] ?? null;
}
/** A LED whose colour nobody said. */
export const ANY_LED: Range = [1.5, 3.3];
/** Volts on a meter's diode test of a silicon junction (common practice, no source). */
export const DIODE_FORWARD = { diode: [0.45, 0.8], zener: [0.55, 0.85] } as const satisfies Readonly<Record<string, Range>>;
