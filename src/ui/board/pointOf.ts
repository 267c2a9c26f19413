import type { MeasureCheck } from '@/core/kit';

/** Where a probe is drawn: at a point, at a part, at ground; null where its net has no point. */
export const pointOf = (at: MeasureCheck['red']): string | null => ('testPoint' in at ? at.testPoint : 'ref' in at ? at.ref : at.net === '0' ? 'GND' : null);
