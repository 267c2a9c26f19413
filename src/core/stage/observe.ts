import { type Circuit, currentThrough } from '../circuit';
import type { ObserveCheck } from '../kit';
import { elementOf } from './elements';
import type { Setup } from './setup';

/**
 * Whether a circuit does what an observation expects: its part carries enough current, or little enough. True when nothing
 * shows it. `currentOf`: at rest, or on average where the circuit runs and the time for that is there.
 */
export function showsSign(sheet: Setup['sheet'], circuit: Circuit, check: ObserveCheck, currentOf = currentThrough): boolean {
  if (!check.sign) return true;
  const element = elementOf(sheet, circuit, check.sign.ref);
  const amperes = element === null ? 0 : Math.abs(currentOf(circuit, element));
  return check.sign.amperes >= 0 ? amperes >= check.sign.amperes : amperes < -check.sign.amperes;
}
