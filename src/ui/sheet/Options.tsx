import { Flex, Segmented } from 'antd';
import { choiceOn, type KitState } from '@/core/kit';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';

/** Editions, straps and extras that change what is fitted. */
export function Options({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  if (kit.sheet.options.length === 0) return null;
  return (
    <>
      <h2 className={`${zones.label} ${zones.section}`}>Edition and options</h2>
      {kit.sheet.options.map((o) => {
        const chosen = choiceOn(kit, o.id, kit.board);
        return (
          <Flex key={o.id} gap="small" align="center" wrap>
            <span>
              {o.text}
              {chosen === undefined && <small className="soft"> not decided: counts as fitted</small>}
            </span>
            <Segmented
              aria-label={o.text}
              options={[...o.choices]}
              {...(chosen === undefined ? { value: '' } : { value: chosen })}
              onChange={(choice) => {
                void append({ kind: 'modified', change: { what: 'strap', option: o.id, choice } });
              }}
            />
          </Flex>
        );
      })}
    </>
  );
}
