import * as Comlink from 'comlink';
import type { ComputationName, InputsOf, Progress, ResultOf } from './contract';
import type { Outcome, run } from './engine';

/** A worker that was started: it computes one thing after another until it is stopped or dies. */
export interface Engine {
  run: <N extends ComputationName>(name: N, inputs: InputsOf<N>, progress: Progress) => Promise<Outcome<ResultOf<N>>>;
  stop: () => void;
}

/** Starts a worker. A call whose worker dies is rejected with what the browser says of it. */
export function startEngine(): Engine {
  const worker = new Worker(new URL('./engine.worker.ts', import.meta.url), { type: 'module', name: 'engine' });
  const died = new Promise<never>((_, reject) => {
    worker.onerror = (e) => {
      reject(new Error(e.message || 'The computation could not be started.'));
    };
    worker.onmessageerror = () => {
      reject(new Error('The computation sent an unreadable answer.'));
    };
  });
  died.catch(() => undefined);
  const api = Comlink.wrap<{ run: typeof run }>(worker);
  return {
    run: <N extends ComputationName>(name: N, inputs: InputsOf<N>, progress: Progress) =>
      Promise.race([api.run(name, inputs as never, Comlink.proxy(progress)) as unknown as Promise<Outcome<ResultOf<N>>>, died]),
    stop: () => {
      worker.terminate();
    },
  };
}
