import { judgePart } from '../../src/core/verdict';
import { arrayAt, numberAt, objectAt } from './fields';
import type { Request } from './main';

/** Conformity of one reading; tolerance in percent. */
export function verdict(request: Request): object {
  const rule = request['rule'];
  if (rule !== 'simple' && rule !== 'guarded') throw new Error('"rule" must be "simple" or "guarded"');
  const [low, high] = arrayAt(request, 'tolerance');
  if (typeof low !== 'number' || typeof high !== 'number') throw new Error('"tolerance" must be two numbers in percent');
  const meter = objectAt(request, 'meter');
  const range = { upTo: Infinity, percent: numberAt(meter, 'percent'), counts: numberAt(meter, 'counts'), resolution: numberAt(meter, 'resolution') };
  const offset = request['leadResistance'] === undefined ? 0 : numberAt(request, 'leadResistance');
  const judged = judgePart(
    { nominal: numberAt(request, 'nominal'), tolerance: [low / 100, high / 100], reading: numberAt(request, 'reading'), range, offset },
    rule,
  );
  return { verdict: judged.verdict, probabilityInTolerance: judged.probability };
}
