import { type Decoded, INVALID } from './decoded';

/** Tolerance letters, percent (IEC 60062, from memory). */
const LETTER: Readonly<Record<string, readonly [number, number]>> = (() => {
  const even = (p: number): [number, number] => [-p, p];
  return {
    B: even(0.1),
    C: even(0.25),
    D: even(0.5),
    F: even(1),
    G: even(2),
    H: even(3),
    J: even(5),
    K: even(10),
    M: even(20),
    N: even(30),
    Q: [-10, 30],
    T: [-10, 50],
    S: [-20, 50],
    Z: [-20, 80],
  };
})();

/** Below this, B, C and D on capacitors are picofarads (IEC 60062). */
const SMALL_CAPACITOR = 10e-12;
const PICOFARAD_LETTERS: Readonly<Record<string, number>> = { B: 0.1e-12, C: 0.25e-12, D: 0.5e-12 };

export const TOLERANCE_LETTERS = Object.keys(LETTER).join('');

/** Percent limits that a letter means on a part of this value; null for no tolerance letter. */
export function toleranceOf(letter: string | undefined, kind: 'R' | 'C' | 'L', value: number): readonly [number, number] | null {
  if (letter === undefined || letter === '') return null;
  const absolute = kind === 'C' && value < SMALL_CAPACITOR * (1 - 1e-9) ? PICOFARAD_LETTERS[letter] : undefined;
  if (absolute !== undefined) {
    const percent = (100 * absolute) / value;
    return [-percent, percent];
  }
  return LETTER[letter] ?? null;
}

/** What a single letter says about a part whose value is known. */
export function decodeToleranceLetter(
  letter: string,
  kind: 'R' | 'C' | 'L',
  nominal: number,
): { readonly tolerancePercent: readonly [number, number] } | Extract<Decoded, { state: 'invalid' }> {
  const tolerance = toleranceOf(letter.trim().toUpperCase(), kind, nominal);
  return tolerance ? { tolerancePercent: tolerance } : (INVALID as { state: 'invalid' });
}
