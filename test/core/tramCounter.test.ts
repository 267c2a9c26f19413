/** The digital demo: its sentences are understood, a healthy board is called healthy, the hidden fault is found by the advised tries. */
import { FunctionBench, type LogicFault } from '@/core/logic';
import { DEMOS } from '@/stand-in';
import { COMPUTATIONS } from '@/workers/contract';
import { ENGINE } from '@/workers/engine';
import { at, log } from '../support/kits';

const kit = DEMOS.find((d) => d.slug === 'tram-counter')!.kit(at(0));
const { sentences } = kit.sheet.functions!;
const hidden = JSON.parse(atob(kit.settings.standIn!.functionFault!)) as LogicFault;
const NO_PROGRESS = () => undefined;

test('every sentence is understood, the digit counts as the data sheets of 4518 and 4511 say', () => {
  const bench = new FunctionBench();
  const { remarks, tries } = bench.of(sentences, []);
  expect(remarks).toEqual([]);
  const shown = (check: string) => tries.find((t) => t.check === check)!.items.find((i) => i.of === 'DS1')!.expected;
  expect([shown('Switch on, touch nothing'), shown('Tap K4 3 times'), shown('Tap K4 8 times')]).toEqual(['abcdef', 'abcdg', 'abcdefg']);
});

test.each([
  ['nothing wrong', { kind: 'healthy', parts: [], detail: {} } satisfies LogicFault, (s: string) => /Nothing is wrong/.test(s)],
  ['what is hidden', hidden, (s: string) => /U3 pin 15|R26|DS1/.test(s)],
])('%s is on top once the advised tries are done', (_, fault, told) => {
  const bench = new FunctionBench();
  const shows = bench.shows(sentences, fault);
  let seen = [shows.find((s) => s.check === 'Switch on, touch nothing')!];
  for (let n = 0; n < 30; n++) {
    const { next } = bench.of(sentences, seen);
    const more = shows.find((s) => s.check === next);
    if (!more || seen.includes(more)) break;
    seen = [...seen, more];
  }
  const [top] = bench.of(sentences, seen).suspects;
  expect(told([top!.text, ...top!.alike].join(' '))).toBe(true);
  expect(top!.probability).toBeGreaterThan(0.6);
  // What is repaired where no try tells them apart takes in the part that is really at fault.
  expect(top!.parts).toEqual(expect.arrayContaining([...fault.parts]));
});

test('the simulated board answers presses until the part behind it is repaired', () => {
  const digit = (k: typeof kit) => {
    const inputs = COMPUTATIONS.watchFunctions.inputs(k, undefined);
    return ENGINE.watchFunctions(inputs, NO_PROGRESS)
      .find((s) => s.check === 'Tap K4 8 times')!
      .saw.find((s) => s.of === 'DS1')!.saw;
  };
  expect(digit(kit)).toBe('abcdeg');
  expect(digit(log(kit, { kind: 'repaired', refs: ['R26'], note: 'soldered' }))).toBe('abcdeg');
  expect(digit(log(kit, { kind: 'repaired', refs: ['U3'], note: 'soldered' }))).toBe('abcdefg');
});
