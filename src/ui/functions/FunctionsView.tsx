'use client';
import { Button } from 'antd';
import { useState } from 'react';
import { deriveTried, type EntryOf, type KitState } from '@/core/kit';
import type { FunctionTry } from '@/core/logic';
import { Nothing } from '../drawn/Nothing';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';
import { FunctionSuspects } from './FunctionSuspects';
import { Sentences } from './Sentences';
import { TryInHand } from './TryInHand';
import { TryList } from './TryList';

/** Functions of a board round chips: what was tried, what is tried now, and what explains it all. */
export function FunctionsView({ kit }: { kit: KitState }) {
  const [writing, setWriting] = useState(false);
  const [wanted, setWanted] = useState<string | null>(null);
  const result = useResult('functions', kit, undefined);
  const functions = result.state === 'fresh' || result.state === 'stale' ? result.value : null;
  const { value: simulated } = useResult('watchFunctions', kit, undefined, kit.settings.standIn?.functionFault !== undefined);
  const tried = deriveTried(kit);
  if (kit.sheet.functions === null && !writing)
    return (
      <div className={`${zones.zones} ${zones.one}`}>
        <section className={zones.card} aria-label="Functions">
          <Nothing say="For boards built around chips: keys, lamps, digits, jumpers. Write what the instructions say, one sentence a line. Each try then shows what works, and which joint, bridge, part or chip explains what does not.">
            <Button
              type="primary"
              onClick={() => {
                setWriting(true);
              }}
            >
              Write the functions
            </Button>
          </Nothing>
        </section>
      </div>
    );
  if (writing || (functions !== null && functions.tries.length === 0))
    return (
      <Sentences
        kit={kit}
        close={() => {
          setWriting(false);
        }}
      />
    );
  const tries = functions?.tries ?? [];
  const here = tries.find((t) => t.check === wanted) ?? nextTry(tries, tried, functions?.next ?? null);
  return (
    <div className={`${zones.zones} ${zones.listThingWhy}`}>
      <section className={zones.card} aria-label="Functions">
        <TryList tries={tries} tried={tried} here={here?.check ?? null} choose={setWanted} />
        <Button
          size="small"
          className={zones.section ?? ''}
          onClick={() => {
            setWriting(true);
          }}
        >
          Edit the sentences
        </Button>
      </section>
      <section className={zones.card} aria-label="The try in hand">
        {here ? (
          <TryInHand
            key={`${here.check} ${tried.get(here.check)?.id ?? ''}`}
            before={tried.get(here.check)}
            here={here}
            simulated={simulated?.find((s) => s.check === here.check)?.saw ?? null}
            move={(by) => {
              const at = tries.findIndex((t) => t.check === here.check);
              setWanted(tries[Math.min(Math.max(at + by, 0), tries.length - 1)]?.check ?? null);
            }}
            done={() => {
              setWanted(null);
            }}
          />
        ) : (
          <Nothing say={functions ? 'All tries are done. Choose one on the left to do it again.' : 'Working out what a healthy board shows…'} />
        )}
      </section>
      <aside className={`${zones.card} ${zones.why}`} aria-label="Why">
        <FunctionSuspects functions={functions} tried={tried} stale={result.state !== 'fresh'} choose={setWanted} />
      </aside>
    </div>
  );
}

/** What tells most now. First of all it is switched on; where nothing is told apart any more, what was not done comes in its order. */
const nextTry = (tries: readonly FunctionTry[], tried: ReadonlyMap<string, EntryOf<'tried'>>, next: string | null): FunctionTry | undefined =>
  (tried.size > 0 ? tries.find((t) => t.check === next && !tried.has(t.check)) : undefined) ??
  tries.find((t) => !tried.has(t.check) && t.items[0]?.what !== 'volts');
