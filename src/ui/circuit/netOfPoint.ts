import { GROUND } from '@/core/circuit';
import type { KitState, MeasureCheck, ProbePoint } from '@/core/kit';

/** The net that a probe point lies on, in small letters; null for pins, which the circuit tells by itself. */
export function netOfPoint(kit: KitState, point: ProbePoint): string | null {
  const net = 'net' in point ? point.net : 'testPoint' in point ? kit.sheet.testPoints.find((t) => t.id === point.testPoint)?.net : undefined;
  return net?.toLowerCase() ?? null;
}

/** The net whose volts against ground a check reads; null for anything else: a difference of two nets stands at neither. */
export const voltsNetOf = (kit: KitState, check: MeasureCheck): string | null =>
  check.mode === 'dcv' && netOfPoint(kit, check.black) === GROUND ? netOfPoint(kit, check.red) : null;
