/** Blinks and beeps counted by tapping: the rate is the number of intervals over their time. */
import fc from 'fast-check';
import { rateOf, tapped, type Taps } from '@/core/loop';

const run = (...times: readonly number[]): Taps => times.reduce<Taps>((taps, t) => tapped(taps, t), []);
/** Even taps of a rate, each off by up to so many milliseconds. */
const taps = (hertz: number, count: number, off: (i: number) => number = () => 0) =>
  run(...Array.from({ length: count }, (_, i) => 5000 + (1000 * i) / hertz + off(i)));

test('even taps give their rate; fewer than four tell none', () => {
  fc.assert(
    fc.property(fc.double({ min: 0.2, max: 6, noNaN: true }), fc.integer({ min: 4, max: 40 }), (hertz, count) => {
      expect(taps(hertz, count)).toHaveLength(count);
      expect(rateOf(taps(hertz, count))! / hertz).toBeCloseTo(1, 9);
    }),
  );
  expect([0, 1, 2, 3].map((n) => rateOf(taps(2, n)))).toEqual([null, null, null, null]);
});
test('a hand that is 60 ms early or late by turns tells 1.5 Hz within 2 % after eleven taps', () => {
  const rate = rateOf(taps(1.5, 11, (i) => (i % 2 === 0 ? 60 : -60)))!;
  expect(Math.abs(rate / 1.5 - 1)).toBeLessThan(0.02);
});
test('after a pause a new run begins: four usual intervals, or ten seconds', () => {
  expect(run(0, 500, 1000, 1500, 3400)).toHaveLength(5);
  expect(run(0, 500, 1000, 1500, 3600)).toEqual([3600]);
  expect(run(0, 9000)).toHaveLength(2);
  expect(run(0, 10_500)).toEqual([10_500]);
});
test('taps at one moment tell no rate', () => {
  expect(rateOf([7, 7, 7, 7])).toBeNull();
});
