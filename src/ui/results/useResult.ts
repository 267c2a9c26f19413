'use client';
import { useEffect, useSyncExternalStore } from 'react';
import type { KitState } from '@/core/kit';
import { type AskedOf, type ComputationName, inputsOf, NONE, type Result, type ResultOf, runner } from '@/store/results';

type Free = 'readDraft' | 'draftStages' | 'checkDeck' | 'walked';
type Kept = Exclude<ComputationName, Free | 'course'>;

/**
 * What a computation amounts to for the kit as it is now: asked for when it is needed, kept, recomputed when what it follows
 * from has changed. A `stale` value is of an older state: show it dimmed, never judge with it.
 */
export function useResult<N extends Kept>(name: N, kit: KitState, asked: AskedOf<N>, when = true): Result<ResultOf<N>> {
  const result = useSyncExternalStore(
    runner.subscribe,
    () => runner.result<N>(name, kit.id),
    () => NONE,
  );
  useEffect(() => {
    if (when) runner.want(name, inputsOf(name, kit, asked), kit.id);
  }, [name, kit, asked, when]);
  return when ? result : NONE;
}

/** The same for what belongs to no kit yet: a pasted list, a deck in the editor. */
export function useAnswer<N extends Free>(name: N, inputs: AskedOf<N>): Result<ResultOf<N>> {
  const result = useSyncExternalStore(
    runner.subscribe,
    () => runner.result<N>(name, 'free'),
    () => NONE,
  );
  useEffect(() => {
    runner.want(name, inputs, 'free');
  }, [name, inputs]);
  return result;
}
