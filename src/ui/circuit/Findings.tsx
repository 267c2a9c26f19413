import type { KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import type { PlaceFinding } from '@/core/stage';
import { runner } from '@/store/results';
import { Working } from '../form/Working';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';

const UNIT = { power: 'W', voltage: 'V', current: 'A' } as const;

/** Where list, circuit and ratings do not meet. */
export function Findings({ kit, findings }: { kit: KitState; findings: readonly PlaceFinding[] }) {
  const { state, value: over, message } = useResult('overloads', kit, undefined);
  const title = (id: string) => kit.sheet.stages.find((s) => s.id === id)?.title ?? id;
  return (
    <>
      <h2 className={zones.label}>List and circuit</h2>
      {findings.length === 0 && <p>Every part of the list has its place, every place its part, and the values agree.</p>}
      <ul className={zones.remarks}>
        {findings.slice(0, 60).map((f) => (
          <li key={f.text} className={f.severity === 'warning' ? zones.error : ''}>
            {f.text}
          </li>
        ))}
      </ul>
      <h2 className={`${zones.label} ${zones.section}`}>Ratings, stage by stage</h2>
      {(state === 'working' || state === 'stale') && (
        <Working
          say="Solving every stage"
          stop={() => {
            runner.stop('overloads');
          }}
        />
      )}
      {message !== null && <p className="v-out">{message}</p>}
      {over?.length === 0 && <p>No part exceeds a rating from the list or a type card, in use or at switch-on (judged on steady boards only).</p>}
      <ul className={zones.remarks}>
        {over?.map((o) => (
          <li key={o.ref + o.what + o.stage + o.when} className={zones.error}>
            {o.ref} gets {print(o.value, UNIT[o.what], 3)} {o.when === 'switch-on' ? 'at switch-on in' : 'in'} “{title(o.stage)}”, rated{' '}
            {print(o.rating, UNIT[o.what], 3)}.
          </li>
        ))}
      </ul>
    </>
  );
}
