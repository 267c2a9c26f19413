import { type Look, type Sample, type Signal, SIGNS } from '../specimen';

/** One look in fifty is mistaken: bright sun, a wide-angle lens, the neighbour looked at (choice of this product). */
const MISTAKEN = 0.02;
/** Between dark and lit a part glows: about its threshold, by this factor to either side, one sees the one or the other. */
const GLOW = 2;

/** A look, and the column of a sample in which the current of its part stands. */
export interface Looked {
  readonly look: Look | Signal;
  readonly column: number;
}

/** log probability of what was seen, by the currents of a sample's specimens (amperes). */
export function logLooks({ values, rows, width }: Sample, looked: readonly Looked[]): number {
  let log = 0;
  for (const { look, column } of looked) {
    if ('sign' in look) {
      log += Math.log(signShare(look, (r) => values[r * width + column]!, rows));
      continue;
    }
    let lit = 0;
    for (let r = 0; r < rows; r++) lit += litAt(values[r * width + column]!, look.amperes);
    const share = (lit + 0.5) / (rows + 1);
    const seenLit = MISTAKEN + (1 - 2 * MISTAKEN) * share;
    log += Math.log(look.lit ? seenLit : 1 - seenLit);
  }
  return log;
}

/** How likely a sign is where some of a fault's specimens show it; one that glows in between shows any. */
function signShare({ sign }: Signal, of: (row: number) => number, rows: number): number {
  const seen = SIGNS.indexOf(sign);
  let share = 0;
  for (let r = 0; r < rows; r++) share += of(r) === seen ? 1 : of(r) < 0 ? 1 / SIGNS.length : 0;
  return MISTAKEN + (1 - SIGNS.length * MISTAKEN) * ((share + 1 / SIGNS.length) / (rows + 1));
}

/** Of what nobody listed it is not known what it shows. */
export const logAnyLooks = (looked: readonly Looked[]): number => -looked.reduce((sum, { look }) => sum + Math.log('sign' in look ? SIGNS.length : 2), 0);

/** Share of onlookers who call a part lit that carries a current. */
function litAt(current: number, threshold: number): number {
  if (current <= 0) return 0;
  return Math.min(1, Math.max(0, 0.5 + Math.log(current / threshold) / (2 * Math.log(GLOW))));
}
