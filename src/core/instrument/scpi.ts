import type { MeterMode } from '../vocabulary';

/** What an instrument shows: a number in the SI unit of its mode, or over-range. */
export type Shown = number | 'over';

/** What sets each mode (SCPI-99, volume 2, MEASurement subsystem; from memory); null where meters have no such command. */
const CONFIGURE: Readonly<Record<MeterMode, string | null>> = {
  dcv: 'CONF:VOLT:DC',
  vmin: 'CONF:VOLT:DC',
  vmax: 'CONF:VOLT:DC',
  acv: 'CONF:VOLT:AC',
  dca: 'CONF:CURR:DC',
  ohms: 'CONF:RES',
  diode: 'CONF:DIOD',
  capacitance: 'CONF:CAP',
  frequency: 'CONF:FREQ',
  temp: 'CONF:TEMP',
  inductance: null,
  hfe: null,
  duty: null,
};

/** The command that sets a meter to a mode; null where it cannot be told to. */
export const configureCommand = (mode: MeterMode): string | null => CONFIGURE[mode];
export const ASK_IDENTITY = '*IDN?';
export const ASK_MODE = 'CONF?';
export const ASK_READING = 'READ?';

const FUNCTIONS: readonly (readonly [RegExp, MeterMode])[] = [
  [/^VOLT(AGE)?:AC/, 'acv'],
  [/^VOLT(AGE)?/, 'dcv'],
  [/^CURR(ENT)?(:DC)?/, 'dca'],
  [/^F?RES(ISTANCE)?/, 'ohms'],
  [/^DIOD(E)?/, 'diode'],
  [/^CAP(ACITANCE)?/, 'capacitance'],
  [/^FREQ(UENCY)?/, 'frequency'],
  [/^TEMP(ERATURE)?/, 'temp'],
];

/** The mode that a meter says it is in (`"VOLT +1.0E+01,+3.0E-06"`); null where the answer names none. */
export function modeOfAnswer(answer: string): MeterMode | null {
  const text = answer.trim().replace(/^"/, '').toUpperCase();
  return FUNCTIONS.find(([pattern]) => pattern.test(text))?.[1] ?? null;
}

/** Whether a mode that was answered serves a target's mode: the least and the most are read on DC volts. */
export const serves = (answered: MeterMode | null, wanted: MeterMode): boolean =>
  answered !== null && (answered === wanted || (answered === 'dcv' && (wanted === 'vmin' || wanted === 'vmax')));

/** SCPI-99: numbers beyond this mean infinity, which a meter sends for over-range. */
const INFINITY_FROM = 9.9e36;
const NUMBER = /^[+-]?\d+(?:\.\d*)?(?:E[+-]?\d+)?$/i;

/** The number of an answer to `READ?`; null where it is none: a cut or garbled line is no reading. */
export function readingOfAnswer(answer: string): Shown | null {
  const text = answer.trim();
  if (!NUMBER.test(text)) return null;
  const value = Number(text);
  return Math.abs(value) >= INFINITY_FROM ? 'over' : value;
}

/** What an instrument calls itself, shortened: maker, model; the whole line where it has no commas. */
export function identityOf(answer: string): string {
  const [maker = '', model = ''] = answer.trim().split(',');
  return `${maker} ${model}`.trim().slice(0, 60);
}
