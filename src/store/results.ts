import type { KitState } from '@/core/kit';
import { startEngine } from '@/workers/client';
import { type AskedOf, type ComputationName, COMPUTATIONS, type InputsOf, type ResultOf } from '@/workers/contract';
import { questionSlot, Runner } from './runner';

export { Cancelled, NONE, type Result } from './runner';
export { type AskedOf, type ComputationName, type Course, type ResultOf } from '@/workers/contract';

/** Long enough for a verdict to be painted, too short to be noticed in a window, milliseconds. */
const AFTER_TYPING = 90;

/** To load and warm a worker anew takes as long, milliseconds. */
const RESTART = 400;

export const runner = new Runner(startEngine, AFTER_TYPING, RESTART);

/** What a computation follows from now; null when there is nothing to compute. */
export const inputsOf = <N extends ComputationName>(name: N, kit: KitState, asked: AskedOf<N>): InputsOf<N> | null => COMPUTATIONS[name].inputs(kit, asked);

/** Asks the workers one question about a kit. Rejects with `Cancelled` when another one overtakes it. */
export function ask<N extends ComputationName>(name: N, kit: KitState, asked: AskedOf<N>): Promise<ResultOf<N>> {
  const inputs = inputsOf(name, kit, asked);
  return inputs === null ? Promise.reject(new Error('A circuit is needed for this.')) : runner.ask(name, inputs);
}

/** Asks about something that belongs to no kit yet. */
export const askFree = <N extends 'course' | 'recorded' | 'readDraft' | 'draftStages' | 'checkDeck'>(
  name: N,
  inputs: InputsOf<N>,
  progress?: (done: number) => void,
): Promise<ResultOf<N>> => runner.ask(name, inputs, progress);

/** Stops a question; whoever asked gets `Cancelled`. */
export const stopAsking = (name: ComputationName): void => {
  runner.stop(questionSlot(name));
};
