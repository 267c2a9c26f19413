import * as Comlink from 'comlink';
import { type Engine, type Outcome } from './engine';

/** Thrown to callers whose work was overtaken by newer work. */
export class Cancelled extends Error {
  override readonly name = 'Cancelled';
}

interface Running {
  readonly worker: Worker;
  readonly api: Comlink.Remote<Engine>;
  readonly died: Promise<never>;
}

function start(): Running {
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
  return { worker, api: Comlink.wrap<Engine>(worker), died };
}

/**
 * One worker for one kind of work. A new job makes the running one stale: its worker is terminated
 * (there is no shared memory to signal it through) and its caller gets `Cancelled`.
 */
export class Lane {
  private running: Running | null = null;
  private cancel: (() => void) | null = null;

  async run<T>(job: (api: Comlink.Remote<Engine>) => Promise<Outcome<T>>): Promise<T> {
    this.stop();
    this.running ??= start();
    const { api, died } = this.running;
    const cancelled = new Promise<never>((_, reject) => {
      this.cancel = () => {
        reject(new Cancelled('overtaken'));
      };
    });
    const mine = this.cancel;
    try {
      const outcome = await Promise.race([job(api), died, cancelled]);
      if (!outcome.ok) throw new Error(outcome.message);
      return outcome.value;
    } finally {
      if (this.cancel === mine) this.cancel = null;
    }
  }

  /** Stops the work in hand, if any. */
  stop(): void {
    if (!this.cancel) return;
    this.cancel();
    this.cancel = null;
    this.running?.worker.terminate();
    this.running = null;
  }
}

export const proxy = Comlink.proxy;
