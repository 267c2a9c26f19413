import { type KitState, lackingFor, type Stage } from '@/core/kit';
import zones from '../shell/zones.module.css';
import { HaveNone } from '../sheet/HaveNone';

/** What a stage cannot be done without, and whether it is there. */
export function StageNeeds({ kit, stage }: { kit: KitState; stage: Stage }) {
  const needs = kit.sheet.needs.filter((n) => stage.needs?.includes(n.id));
  const lacking = new Set(lackingFor(kit, stage).map((n) => n.id));
  return needs.map((n) => (
    <div key={n.id} className={zones.row}>
      <span className={lacking.has(n.id) ? zones.note : ''}>
        {lacking.has(n.id) ? 'Waits for' : 'Needs'}: <b>{n.text}</b>
      </span>
      <HaveNone kit={kit} need={n} />
    </div>
  ));
}
