import { Cancelled, NONE, Runner } from '@/store/runner';
import type { Engine } from '@/workers/client';
import type { ComputationName } from '@/workers/contract';

/** A worker under the test's thumb: it answers when told, and remembers what it was asked. */
interface Asked {
  readonly name: ComputationName;
  readonly inputs: unknown;
  readonly engine: number;
  readonly answer: (value: unknown) => void;
  readonly fail: (message: string) => void;
  readonly die: () => void;
  readonly progress: (done: number) => void;
}

function bench(pause = 0, grace = 0) {
  const asked: Asked[] = [];
  const stopped: number[] = [];
  let engines = 0;
  const start = (): Engine => {
    const engine = engines++;
    return {
      run: (name, inputs, progress) =>
        new Promise((resolve, reject) => {
          asked.push({
            name,
            inputs,
            engine,
            answer: (value) => {
              resolve({ ok: true, value: value as never });
            },
            fail: (message) => {
              resolve({ ok: false, message });
            },
            die: () => {
              reject(new Error('The worker ran out of memory.'));
            },
            progress,
          });
        }),
      stop: () => {
        stopped.push(engine);
      },
    };
  };
  return { runner: new Runner(start, pause, grace), asked, stopped };
}

/** Lets the runner hear what was answered. */
const settled = () => new Promise((resolve) => setImmediate(resolve));
const inputs = (n: number) => ({ deck: `R${n}`, net: 'a', seconds: n });
const want = (runner: Runner, n: number, kit = 'k') => {
  runner.want('course', inputs(n), kit);
};
const shown = (runner: Runner, kit = 'k') => {
  const { state, value } = runner.result('course', kit);
  return [state, value];
};

describe('the runner', () => {
  test('equal inputs are computed once, whoever made them; answers are kept', async () => {
    const { runner, asked } = bench();
    want(runner, 1);
    want(runner, 1);
    asked[0]!.answer('one');
    await settled();
    expect(shown(runner)).toEqual(['fresh', 'one']);
    want(runner, 2);
    asked[1]!.answer('two');
    await settled();
    want(runner, 1);
    expect(shown(runner)).toEqual(['fresh', 'one']);
    expect(asked).toHaveLength(2);
  });
  test('a Map or a Set among the inputs tells one question from another', () => {
    const { runner, asked, stopped } = bench();
    const holding = (n: number) => ({ ...inputs(1), measured: new Map([['R1', n]]) });
    runner.want('course', holding(1), 'k');
    runner.want('course', holding(1), 'k');
    expect([asked.length, stopped.length]).toEqual([1, 0]);
    runner.want('course', holding(2), 'k');
    expect(asked).toHaveLength(2);
  });
  test('an older answer of the same kit is stale while the new one is on its way, of another kit it is nothing', async () => {
    const { runner, asked } = bench();
    want(runner, 1);
    expect(shown(runner)).toEqual(['working', null]);
    asked[0]!.answer('one');
    await settled();
    want(runner, 2);
    expect(shown(runner)).toEqual(['stale', 'one']);
    want(runner, 3, 'other');
    expect(shown(runner, 'other')).toEqual(['working', null]);
    expect(runner.result('course', 'k')).toBe(NONE);
  });
  test('the answer to a question that nobody asks any more is dropped, even when it comes', async () => {
    const { runner, asked, stopped } = bench();
    want(runner, 1);
    want(runner, 2);
    expect(stopped).toEqual([0]);
    asked[0]!.answer('one');
    await settled();
    expect(shown(runner)).toEqual(['working', null]);
    asked[1]!.answer('two');
    await settled();
    expect(shown(runner)).toEqual(['fresh', 'two']);
  });
  test('a worker that dies is started anew, and the question is asked once more; after that it has failed and can be asked again', async () => {
    const { runner, asked, stopped } = bench();
    want(runner, 1);
    asked[0]!.die();
    await settled();
    expect(asked.map((a) => a.engine)).toEqual([0, 1]);
    expect(stopped).toEqual([0]);
    expect(shown(runner)).toEqual(['working', null]);
    asked[1]!.die();
    await settled();
    expect(runner.result('course', 'k')).toMatchObject({ state: 'failed', message: 'The worker ran out of memory.' });
    runner.again('course');
    asked[2]!.answer('one');
    await settled();
    expect(shown(runner)).toEqual(['fresh', 'one']);
  });
  test('a failure says why, is not kept as an answer, and leaves no older answer to judge with', async () => {
    const { runner, asked } = bench();
    want(runner, 1);
    asked[0]!.answer('one');
    await settled();
    want(runner, 2);
    asked[1]!.fail('The circuit has no ground.');
    await settled();
    expect(runner.result('course', 'k')).toEqual({ state: 'failed', value: null, progress: 0, message: 'The circuit has no ground.' });
  });
  test('progress reaches the slot; stopping empties it and stops the worker', async () => {
    const { runner, asked, stopped } = bench();
    want(runner, 1);
    asked[0]!.progress(0.4);
    expect(runner.result('course', 'k').progress).toBe(0.4);
    runner.stop('course');
    expect(shown(runner)).toEqual(['none', null]);
    expect(stopped).toEqual([0]);
    asked[0]!.answer('late');
    await settled();
    expect(shown(runner)).toEqual(['none', null]);
  });
  test('a question that is overtaken is rejected as cancelled; the newer one is answered', async () => {
    const { runner, asked } = bench();
    const first = runner.ask('course', inputs(1)).catch((e: unknown) => e);
    const second = runner.ask('course', inputs(2));
    expect(await first).toBeInstanceOf(Cancelled);
    asked[1]!.answer('two');
    expect(await second).toBe('two');
  });
  test('no inputs empty the slot; who listens hears every change', async () => {
    const { runner, asked } = bench();
    let heard = 0;
    const unsubscribe = runner.subscribe(() => heard++);
    want(runner, 1);
    asked[0]!.answer('one');
    await settled();
    expect(heard).toBe(2);
    runner.want('course', null, 'k');
    expect(heard).toBe(3);
    expect(shown(runner)).toEqual(['none', null]);
    unsubscribe();
    want(runner, 2);
    expect(heard).toBe(3);
  });
  test('short work in a lane ends before what is longer and less urgent begins', async () => {
    const { runner, asked } = bench();
    runner.want('suspects', { sittings: [], setup: {} } as never, 'k');
    runner.want('suspects', { sittings: [1], setup: {} } as never, 'k');
    runner.want('predictions', { sittings: [], setup: {} } as never, 'k');
    // Suspects are not halted for newer ones: their worker holds what every fault would show.
    expect(asked.map((a) => a.name)).toEqual(['suspects']);
    asked[0]!.answer('older');
    await settled();
    expect(asked.map((a) => a.name)).toEqual(['suspects', 'predictions']);
    expect(runner.result('suspects', 'k').state).toBe('working');
  });
});

describe('work waits until the hand rests', () => {
  const PAUSE = 40;
  const rested = () => new Promise((resolve) => setTimeout(resolve, PAUSE + 30));
  const first = async () => {
    const b = bench(PAUSE);
    want(b.runner, 1);
    b.asked[0]!.answer('one');
    await settled();
    return b;
  };
  test('the first answer is waited for and begins at once; a later one begins after the pause', async () => {
    const { runner, asked } = await first();
    want(runner, 2);
    expect(asked).toHaveLength(1);
    expect(shown(runner)).toEqual(['stale', 'one']);
    await rested();
    expect(asked.map((a) => a.inputs)).toEqual([inputs(1), inputs(2)]);
    asked[1]!.answer('two');
    await settled();
    expect(shown(runner)).toEqual(['fresh', 'two']);
  });
  test('what is overtaken within the pause is never begun', async () => {
    const { runner, asked } = await first();
    for (const n of [2, 3, 4, 5]) want(runner, n);
    await rested();
    expect(asked.map((a) => a.inputs)).toEqual([inputs(1), inputs(5)]);
  });
  test('back to a known state within the pause: the kept answer, and nothing is begun', async () => {
    const { runner, asked } = await first();
    want(runner, 2);
    want(runner, 1);
    expect(shown(runner)).toEqual(['fresh', 'one']);
    await rested();
    expect(asked).toHaveLength(1);
  });
  test('an answer that comes while its successor waits is not taken for the successor’s', async () => {
    const { runner, asked } = await first();
    want(runner, 2);
    await rested();
    want(runner, 3);
    asked[1]!.answer('two');
    await settled();
    expect(shown(runner)[0]).toBe('stale');
    await rested();
    asked[2]!.answer('three');
    await settled();
    expect(shown(runner)).toEqual(['fresh', 'three']);
  });
  test('stopped while it waits, it is not begun', async () => {
    const { runner, asked } = await first();
    want(runner, 2);
    runner.stop('course');
    await rested();
    expect(asked).toHaveLength(1);
    expect(shown(runner)).toEqual(['none', null]);
  });
  describe('long work', () => {
    const PAUSE = 90;
    beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate'] }));
    afterEach(() => jest.useRealTimers());

    test.each([
      [200, PAUSE],
      [700, 700],
      [5000, 1000],
    ])('that took %d ms waits %d ms the next time', async (took, waits) => {
      const { runner, asked } = bench(PAUSE);
      want(runner, 1);
      jest.advanceTimersByTime(took);
      asked[0]!.answer('one');
      await settled();
      want(runner, 2);
      jest.advanceTimersByTime(waits - 1);
      expect(asked).toHaveLength(1);
      jest.advanceTimersByTime(1);
      expect(asked).toHaveLength(2);
    });
  });
  describe('what is overtaken while it runs', () => {
    const GRACE = 400;
    beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate'] }));
    afterEach(() => jest.useRealTimers());

    test('may end in its time: its worker stays, its answer is not shown, the newest question is next', async () => {
      const { runner, asked, stopped } = bench(0, GRACE);
      want(runner, 1);
      want(runner, 2);
      jest.advanceTimersByTime(GRACE - 1);
      want(runner, 3);
      expect([asked.length, stopped.length]).toEqual([1, 0]);
      asked[0]!.answer('one');
      await settled();
      expect(shown(runner)).toEqual(['working', null]);
      expect([asked.length, asked[1]!.inputs, asked[1]!.engine]).toEqual([2, inputs(3), 0]);
      jest.advanceTimersByTime(GRACE);
      expect(stopped).toEqual([]);
    });
    test('is stopped when it does not end, counted from the first that overtook it', () => {
      const { runner, asked, stopped } = bench(0, GRACE);
      want(runner, 1);
      want(runner, 2);
      jest.advanceTimersByTime(GRACE - 1);
      want(runner, 3);
      jest.advanceTimersByTime(1);
      expect(stopped).toEqual([0]);
      expect([asked[1]!.inputs, asked[1]!.engine]).toEqual([inputs(3), 1]);
    });
    test('goes on when it is wanted after all, and is asked once', async () => {
      const { runner, asked, stopped } = bench(0, GRACE);
      want(runner, 1);
      want(runner, 2);
      want(runner, 1);
      jest.advanceTimersByTime(2 * GRACE);
      expect(stopped).toEqual([]);
      asked[0]!.answer('one');
      await settled();
      expect(shown(runner)).toEqual(['fresh', 'one']);
      expect(asked).toHaveLength(1);
    });
    test('is stopped at once when somebody waits for the answer to another question', async () => {
      const { runner, stopped } = bench(0, GRACE);
      const first = runner.ask('course', inputs(1));
      void runner.ask('course', inputs(2));
      await expect(first).rejects.toBeInstanceOf(Cancelled);
      expect(stopped).toEqual([0]);
    });
  });
});
