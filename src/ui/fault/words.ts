import type { TableRow } from '@/core/diagnose';
import { type Fault, faultKey } from '@/core/fault';
import type { KitState } from '@/core/kit';
import { targetOfObservable } from '@/core/loop';

export const percent = (p: number) => (p > 0.995 ? '> 99 %' : p < 0.01 ? '< 1 %' : `${Math.round(100 * p)} %`);

/** Title of a row; with the stage where the same title is there twice. */
export function rowTitle(kit: KitState, id: string, rows: readonly TableRow[] = []): string {
  const own = plainTitle(kit, id);
  const twice = rows.filter((r) => plainTitle(kit, r.id) === own).length > 1;
  const stage = kit.sheet.stages.find((s) => id.startsWith(`${s.id}/`));
  return twice && stage ? `${own} (${stage.title})` : own;
}

function plainTitle(kit: KitState, id: string): string {
  const target = targetOfObservable(kit, id);
  if (!target) return id;
  if (target.kind === 'probe') return `${target.testPoint.id} ${target.testPoint.where}`;
  if (target.kind !== 'check') return id;
  const point = target.check.what === 'measure' && 'testPoint' in target.check.red ? `${target.check.red.testPoint} ` : '';
  return `${point}${target.check.title}`;
}

/** Names one suspect, of one fault or two. */
export const keyOf = (faults: readonly Fault[]): string => faults.map(faultKey).sort().join(' & ');
