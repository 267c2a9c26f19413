import type { Look, Sample } from '../specimen';

/** One look in fifty is mistaken: bright sun, a wide-angle lens, the neighbour looked at (choice of this product). */
const MISTAKEN = 0.02;
/** Between dark and lit a part glows: about its threshold, by this factor to either side, one sees the one or the other. */
const GLOW = 2;

/** A look, and the column of a sample in which the current of its part stands. */
export interface Looked {
  readonly look: Look;
  readonly column: number;
}

/** log probability of what was seen, by the currents of a sample's specimens (amperes). */
export function logLooks({ values, rows, width }: Sample, looked: readonly Looked[]): number {
  let log = 0;
  for (const { look, column } of looked) {
    let lit = 0;
    for (let r = 0; r < rows; r++) lit += litAt(values[r * width + column]!, look.amperes);
    const share = (lit + 0.5) / (rows + 1);
    const seenLit = MISTAKEN + (1 - 2 * MISTAKEN) * share;
    log += Math.log(look.lit ? seenLit : 1 - seenLit);
  }
  return log;
}

/** Of what nobody listed it is not known what it shows. */
export const logAnyLooks = (looked: readonly Looked[]): number => -looked.length * Math.LN2;

/** Share of onlookers who call a part lit that carries a current. */
function litAt(current: number, threshold: number): number {
  if (current <= 0) return 0;
  return Math.min(1, Math.max(0, 0.5 + Math.log(current / threshold) / (2 * Math.log(GLOW))));
}
