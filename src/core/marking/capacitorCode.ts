import { decide, type Decoded, INVALID, plainReading, type Reading, scaled, unranked } from './decoded';
import { TOLERANCE_LETTERS, toleranceOf } from './tolerance';
import { matchesUnreadable } from './unreadable';

/** Voltage code: digit = power of ten, letter = figure (EIA, from memory). */
const VOLTAGE_FIGURE: Readonly<Record<string, number>> = { A: 1, C: 1.6, D: 2, E: 2.5, G: 4, H: 5, J: 6.3, K: 8, V: 3.5, W: 4.5 };
const PREFIX: Readonly<Record<string, number>> = { p: -12, n: -9, u: -6, µ: -6, m: -3 };

/** Last figure of a three-figure code: 8 and 9 stand for 10⁻² and 10⁻¹ (EIA-198 / IEC 60062, from memory). */
const multiplier = (figure: string) => (figure === '8' ? -2 : figure === '9' ? -1 : Number(figure));

const VOLTAGE = '(?:\\s*(\\d+(?:\\.\\d+)?)\\s*V)?';
const SHAPE = new RegExp(
  `^([0-3][ACDEGHJKVW](?=\\d{3}))?(\\d*\\.\\d+|\\d+[pnuµm]\\d*|[pnuµm]\\d+|\\d{1,3})([${TOLERANCE_LETTERS}])?${VOLTAGE}(?:\\s+(NP0|C0G|[NP]\\d{2,4}))?$`,
);

/** Print on a capacitor. `?` stands for a figure that cannot be read; then only codes of `partsList` count. */
export function decodeCapacitorCode(text: string, partsList: readonly string[] = []): Decoded {
  const code = text
    .trim()
    .replace('μ', 'µ')
    .replace(/\bNPO\b/, 'NP0');
  if (code.includes('?')) {
    const codes = partsList.filter((c) => matchesUnreadable(c.toUpperCase(), code.toUpperCase()));
    return decide('F', unranked(codes.flatMap((c) => readCapacitor(c, true))));
  }
  return decide('F', unranked(readCapacitor(code, partsList.includes(code))));
}

/** All readings of one code; `byList`: the list writes codes, so a plain number is no picofarad count. */
function readCapacitor(code: string, byList: boolean): Reading[] {
  const match = SHAPE.exec(code);
  if (!match) return [];
  const [, voltageCode, body, letter, volts, drift] = match as unknown as [string, string?, string?, string?, string?, string?];
  if (body === undefined) return [];
  const ratedVoltage =
    volts !== undefined ? Number(volts) : voltageCode !== undefined ? scaled(VOLTAGE_FIGURE[voltageCode[1]!]!, Number(voltageCode[0])) : null;
  const tempco = drift === undefined ? null : /^(NP0|C0G)$/.test(drift) ? 0 : Number(drift.slice(1)) * (drift.startsWith('N') ? -1 : 1);
  const bare = letter === undefined && ratedVoltage === null && drift === undefined && !byList;
  return valuesOf(body, bare).map((value) => plainReading(value, { tolerancePercent: toleranceOf(letter, 'C', value), tempco, ratedVoltage }));
}

function valuesOf(body: string, bare: boolean): number[] {
  const point = /^(\d*)([pnuµm])(\d*)$/.exec(body);
  if (point) return [scaled(`${point[1]! || '0'}.${point[3]! || '0'}`, PREFIX[point[2]!]!)];
  if (body.includes('.')) return [scaled(body, -6)];
  if (body.length < 3) return [scaled(body, -12)];
  const byCode = scaled(body.slice(0, 2), multiplier(body[2]!) - 12);
  // "470" without anything behind: 47 pF by the code, 470 pF where a maker prints plain picofarads.
  return bare && body.endsWith('0') && !body.startsWith('0') ? [byCode, scaled(body, -12)] : [byCode];
}

/** Figure letters of ceramic chips (EIA-198, from memory). */
const CHIP_FIGURE: Readonly<Record<string, number>> = {
  A: 1.0,
  B: 1.1,
  C: 1.2,
  D: 1.3,
  E: 1.5,
  F: 1.6,
  G: 1.8,
  H: 2.0,
  J: 2.2,
  K: 2.4,
  L: 2.7,
  M: 3.0,
  N: 3.3,
  P: 3.6,
  Q: 3.9,
  R: 4.3,
  S: 4.7,
  T: 5.1,
  U: 5.6,
  V: 6.2,
  W: 6.8,
  X: 7.5,
  Y: 8.2,
  Z: 9.1,
  a: 2.5,
  b: 3.5,
  d: 4.0,
  e: 4.5,
  f: 5.0,
  m: 6.0,
  n: 7.0,
  t: 8.0,
  y: 9.0,
};
/** Voltage letters of tantalum chips (common practice). */
const TANTALUM_VOLTS: Readonly<Record<string, number>> = { J: 6.3, A: 10, C: 16, D: 20, E: 25, V: 35 };

export type ChipPackage = 'ceramic-chip' | 'tantalum' | 'aluminium-can';

/** Print on a surface-mount capacitor. */
export function decodeChipCapacitor(text: string, chip: ChipPackage): Decoded {
  const reading = readChipCapacitor(text.trim(), chip);
  return reading ? decide('F', unranked([reading])) : INVALID;
}

function readChipCapacitor(code: string, chip: ChipPackage): Reading | null {
  if (chip === 'ceramic-chip') {
    const figure = CHIP_FIGURE[code[0] ?? ''];
    if (figure === undefined || !/^.\d$/.test(code)) return null;
    return plainReading(scaled(figure, (code[1] === '9' ? -1 : Number(code[1])) - 12));
  }
  if (chip === 'tantalum') {
    const match = /^([A-Z]?)(\d{3})([A-Z]?)$/.exec(code);
    const volts = match ? TANTALUM_VOLTS[match[1]! || match[3]!] : undefined;
    if (!match || volts === undefined || (match[1] !== '' && match[3] !== '')) return null;
    return plainReading(scaled(match[2]!.slice(0, 2), multiplier(match[2]![2]!) - 12), { ratedVoltage: volts });
  }
  const can = /^(\d+(?:\.\d+)?)\s*(?:[uµ]F)?\s+(\d+(?:\.\d+)?)\s*V$/i.exec(code.replace('μ', 'µ'));
  return can ? plainReading(scaled(can[1]!, -6), { ratedVoltage: Number(can[2]) }) : null;
}
