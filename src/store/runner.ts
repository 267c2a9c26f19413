import { type ComputationName, COMPUTATIONS, type InputsOf, type LaneName, type ResultOf } from '@/workers/contract';
import type { Engine } from '@/workers/client';

/** A result as screens see it. `stale`: an older answer of the same kit, to be shown dimmed and never judged with. */
export type Result<T> =
  | { readonly state: 'none'; readonly value: null; readonly progress: 0; readonly message: null }
  | { readonly state: 'working'; readonly value: null; readonly progress: number; readonly message: null }
  | { readonly state: 'fresh'; readonly value: T; readonly progress: 1; readonly message: null }
  | { readonly state: 'stale'; readonly value: T; readonly progress: number; readonly message: null }
  | { readonly state: 'failed'; readonly value: null; readonly progress: number; readonly message: string };

export const NONE = { state: 'none', value: null, progress: 0, message: null } as const satisfies Result<never>;

/** Thrown to whoever asked for something that was overtaken or stopped. */
export class Cancelled extends Error {
  override readonly name = 'Cancelled';
}

interface Job {
  readonly slot: string;
  readonly name: ComputationName;
  readonly kit: string;
  readonly key: string;
  readonly inputs: unknown;
  readonly settle: ((result: Result<unknown>) => void) | null;
  readonly heard?: ((done: number) => void) | undefined;
  attempts: number;
}

interface Lane {
  engine: Engine | null;
  running: Job | null;
  queue: Job[];
  /** When the running one began, milliseconds. */
  since: number;
  /** Overtaken work that may still end. */
  spared: Job | null;
}

interface Slot {
  readonly name: ComputationName;
  readonly inputs: unknown;
  readonly kit: string;
  readonly key: string;
  readonly result: Result<unknown>;
}

/** Questions that no slot keeps share one place a computation: a new one overtakes the old. */
export const questionSlot = (name: ComputationName) => `?${name}`;

const CACHED = 24;
/** Work that took longer than this waits as long as it took, at most `MOST_PAUSE`, milliseconds: it takes the time of whoever types. */
const LONG = 300;
const MOST_PAUSE = 1000;
const MOST_ATTEMPTS = 2;

const plain = (_: string, v: unknown): unknown =>
  v instanceof Map ? { map: [...(v as Map<unknown, unknown>)] } : v instanceof Set ? { set: [...(v as Set<unknown>)] } : v;
const keys = new WeakMap<object, string>();

/** So deep parts of inputs keep their names: what did not change is not read again. */
const NAMED_DEPTH = 4;

/** Names inputs by their content; equal content, equal key. Parts that are one object are read once. */
function keyOf(inputs: unknown, depth = NAMED_DEPTH): string {
  if (typeof inputs !== 'object' || inputs === null) return `${typeof inputs} ${String(inputs)}`;
  const known = keys.get(inputs);
  if (known !== undefined) return known;
  const isPlain = Array.isArray(inputs) || Object.getPrototypeOf(inputs) === Object.prototype;
  const key =
    depth > 0 && isPlain
      ? `{${Object.entries(inputs)
          .map(([k, v]) => `${k}:${keyOf(v, depth - 1)}`)
          .join()}}`
      : JSON.stringify(inputs, plain);
  keys.set(inputs, key);
  return key;
}

/**
 * Runs computations in workers: answers from its cache, one job at a time in each lane, stops what nobody wants any more,
 * drops answers that are no longer current, starts a dead worker anew and tries once more.
 */
export class Runner {
  private readonly lanes = new Map<LaneName, Lane>();
  private readonly slots = new Map<string, Slot>();
  private readonly cache = new Map<string, unknown>();
  private readonly heard = new Set<() => void>();

  /** How long each took last, milliseconds. */
  private readonly took = new Map<ComputationName, number>();
  private readonly waiting = new Map<string, ReturnType<typeof setTimeout>>();

  /**
   * `pause`: how long what a slot wants waits before its work begins, milliseconds, unless it is long work. Whoever types gets the verdict first, and
   * what the next entry overtakes was never begun. `grace`: how long overtaken work may still take to end.
   */
  constructor(
    private readonly start: () => Engine,
    private readonly pause = 0,
    private readonly grace = 0,
  ) {}

  subscribe = (hear: () => void): (() => void) => {
    this.heard.add(hear);
    return () => this.heard.delete(hear);
  };

  /** The result in a slot, for this kit only: an answer of another kit is never shown. */
  result<N extends ComputationName>(slot: string, kit: string): Result<ResultOf<N>> {
    const found = this.slots.get(slot);
    return found?.kit === kit ? (found.result as Result<ResultOf<N>>) : NONE;
  }

  /** Says what a slot should hold; null inputs empty it. Equal inputs cost nothing. */
  want<N extends ComputationName>(name: N, inputs: InputsOf<N> | null, kit: string, slot: string = name): void {
    if (inputs === null) {
      this.drop(slot);
      return;
    }
    const key = keyOf(COMPUTATIONS[name].identity?.(inputs) ?? inputs);
    const held = this.slots.get(slot);
    if (held?.kit === kit && held.key === key) return;
    const cached = this.cache.get(`${name} ${key}`);
    if (cached !== undefined) {
      this.cancel(slot);
      this.slots.set(slot, { name, inputs, kit, key, result: fresh(cached) });
      this.tell();
      return;
    }
    const before = held?.kit === kit && (held.result.state === 'fresh' || held.result.state === 'stale') ? held.result.value : null;
    const result: Result<unknown> =
      before === null ? { state: 'working', value: null, progress: 0, message: null } : { state: 'stale', value: before, progress: 0, message: null };
    this.slots.set(slot, { name, inputs, kit, key, result });
    this.tell();
    const job = { slot, name, kit, key, inputs, settle: null, attempts: 0 };
    // The first answer is waited for: it begins at once.
    if (this.pause === 0 || before === null) {
      this.enqueue(job);
      return;
    }
    clearTimeout(this.waiting.get(slot));
    const took = this.took.get(name) ?? 0;
    this.waiting.set(
      slot,
      setTimeout(
        () => {
          this.waiting.delete(slot);
          this.enqueue(job);
        },
        took > LONG ? Math.min(took, MOST_PAUSE) : this.pause,
      ),
    );
  }

  /** Asks once for an answer that no slot keeps. Another question in the same lane's slot overtakes it. */
  ask<N extends ComputationName>(name: N, inputs: InputsOf<N>, heard?: (done: number) => void): Promise<ResultOf<N>> {
    const key = keyOf(inputs);
    return new Promise((resolve, reject) => {
      const settle = (result: Result<unknown>) => {
        if (result.state === 'fresh') resolve(result.value as ResultOf<N>);
        else reject(result.state === 'failed' ? new Error(result.message) : new Cancelled('overtaken'));
      };
      this.enqueue({ slot: questionSlot(name), name, kit: '', key, inputs, settle, heard, attempts: 0 });
    });
  }

  /** Stops the work for a slot and leaves it empty until other inputs come, or `again`. */
  stop(slot: string): void {
    this.cancel(slot);
    const held = this.slots.get(slot);
    if (held && held.result.state !== 'fresh') this.put(slot, NONE);
  }

  /** Once more what failed or was stopped. */
  again(slot: string): void {
    const held = this.slots.get(slot);
    if (!held) return;
    this.cancel(slot);
    this.slots.delete(slot);
    this.want(held.name, held.inputs as never, held.kit, slot);
  }

  private drop(slot: string): void {
    if (!this.slots.has(slot)) return;
    this.cancel(slot);
    this.slots.delete(slot);
    this.tell();
  }

  private put(slot: string, result: Result<unknown>): void {
    const held = this.slots.get(slot);
    if (held) this.slots.set(slot, { ...held, result });
    this.tell();
  }

  private tell(): void {
    for (const hear of this.heard) hear();
  }

  private laneOf(name: ComputationName): Lane {
    const id = COMPUTATIONS[name].lane;
    const lane = this.lanes.get(id) ?? { engine: null, running: null, queue: [], since: 0, spared: null };
    this.lanes.set(id, lane);
    return lane;
  }

  private enqueue(job: Job): void {
    const lane = this.laneOf(job.name);
    lane.queue = lane.queue.filter((j) => j.slot !== job.slot || (j.settle?.(NONE), false));
    const { running } = lane;
    if (running?.slot === job.slot && job.settle === null && running.key === job.key) {
      lane.spared = null;
      return;
    }
    if (running?.slot === job.slot && running.key !== job.key && COMPUTATIONS[job.name].long) this.overtake(lane, running);
    lane.queue.push(job);
    lane.queue.sort((a, b) => COMPUTATIONS[a.name].priority - COMPUTATIONS[b.name].priority);
    this.next(lane);
  }

  private cancel(slot: string): void {
    clearTimeout(this.waiting.get(slot));
    this.waiting.delete(slot);
    for (const lane of this.lanes.values()) {
      lane.queue = lane.queue.filter((j) => j.slot !== slot);
      if (lane.running?.slot === slot) {
        this.halt(lane);
        this.next(lane);
      }
    }
  }

  /** Stops work that nobody wants any more, unless it ends by itself in time. Whoever asked a question is told at once. */
  private overtake(lane: Lane, job: Job): void {
    if (this.grace === 0 || job.settle !== null) this.halt(lane);
    else if (lane.spared !== job) {
      lane.spared = job;
      setTimeout(() => {
        if (lane.running !== job || lane.spared !== job) return;
        this.halt(lane);
        this.next(lane);
      }, this.grace);
    }
  }

  /** Stops what a lane is doing; its worker goes with it. */
  private halt(lane: Lane): void {
    lane.engine?.stop();
    lane.engine = null;
    if (lane.running) this.took.set(lane.running.name, Math.max(this.took.get(lane.running.name) ?? 0, performance.now() - lane.since));
    lane.running?.settle?.(NONE);
    lane.running = null;
  }

  private next(lane: Lane): void {
    if (lane.running) return;
    const job = lane.queue.shift();
    if (!job) return;
    lane.running = job;
    lane.since = performance.now();
    lane.engine ??= this.start();
    const { engine } = lane;
    engine
      .run(job.name, job.inputs as never, (done) => {
        if (lane.running === job) this.progress(job, done);
      })
      .then(
        (outcome) => {
          this.settle(lane, job, outcome.ok ? fresh(outcome.value) : failed(outcome.message));
        },
        (error: unknown) => {
          this.died(lane, job, error as Error);
        },
      );
  }

  private progress(job: Job, done: number): void {
    job.heard?.(done);
    const held = this.slots.get(job.slot);
    if (!held || held.key !== job.key || held.kit !== job.kit) return;
    const { result } = held;
    if (result.state !== 'working' && result.state !== 'stale') return;
    this.put(job.slot, { ...result, progress: done });
  }

  private settle(lane: Lane, job: Job, result: Result<unknown>): void {
    if (lane.running !== job) return;
    this.took.set(job.name, performance.now() - lane.since);
    lane.running = null;
    if (result.state === 'fresh' && job.settle === null) this.remember(`${job.name} ${job.key}`, result.value);
    job.settle?.(result);
    const held = this.slots.get(job.slot);
    if (job.settle === null && held?.key === job.key && held.kit === job.kit) this.put(job.slot, result);
    this.next(lane);
  }

  /** A worker died: once more with a new one, then it has failed. */
  private died(lane: Lane, job: Job, error: Error): void {
    if (lane.running !== job) return;
    lane.engine?.stop();
    lane.engine = null;
    job.attempts++;
    if (job.attempts >= MOST_ATTEMPTS) {
      this.settle(lane, job, failed(error.message));
      return;
    }
    lane.running = null;
    lane.queue.unshift(job);
    this.next(lane);
  }

  private remember(key: string, value: unknown): void {
    this.cache.delete(key);
    this.cache.set(key, value);
    while (this.cache.size > CACHED) this.cache.delete(this.cache.keys().next().value!);
  }
}

const fresh = (value: unknown): Result<unknown> => ({ state: 'fresh', value, progress: 1, message: null });
const failed = (message: string): Result<unknown> => ({ state: 'failed', value: null, progress: 0, message });
