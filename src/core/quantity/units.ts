/** Units that the bench reads and prints. Values are always in the SI base unit named here. */
export type Unit = 'ohm' | 'F' | 'H' | 'V' | 'A' | 'W' | 'Hz' | 's' | 'degC' | 'percent' | 'ratio' | 'J';

export const UNIT_SYMBOL: Readonly<Record<Unit, string>> = {
  ohm: 'Ω',
  F: 'F',
  H: 'H',
  V: 'V',
  A: 'A',
  W: 'W',
  Hz: 'Hz',
  s: 's',
  degC: '°C',
  percent: '%',
  ratio: '',
  J: 'J',
};

/** How people write units, longest first so that `ohms` is not read as `o`. Compared in lower case. */
export const UNIT_WORDS: readonly (readonly [string, Unit])[] = [
  ['ohms', 'ohm'],
  ['ohm', 'ohm'],
  ['ω', 'ohm'],
  ['ом', 'ohm'],
  ['hertz', 'Hz'],
  ['hz', 'Hz'],
  ['°c', 'degC'],
  ['degc', 'degC'],
  ['volts', 'V'],
  ['volt', 'V'],
  ['v', 'V'],
  ['amps', 'A'],
  ['amp', 'A'],
  ['a', 'A'],
  ['farad', 'F'],
  ['f', 'F'],
  ['henry', 'H'],
  ['h', 'H'],
  ['watt', 'W'],
  ['w', 'W'],
  ['s', 's'],
  ['%', 'percent'],
];

/** Prefixes; case matters only between m (milli) and M (mega). */
export const PREFIX: Readonly<Record<string, number>> = {
  p: -12,
  P: -12,
  n: -9,
  N: -9,
  u: -6,
  U: -6,
  µ: -6,
  μ: -6,
  m: -3,
  k: 3,
  K: 3,
  M: 6,
  G: 9,
  g: 9,
  T: 12,
};
