/** Specimens near the edge of switching: those that do otherwise are taken apart, so that neither kind blurs the other. */
import fc from 'fast-check';
import { clustersOf } from '@/core/diagnose/clusters';
import { randomStream } from '@/core/statistics';

const sampleOf = (rows: readonly (readonly number[])[]) => ({ rows: rows.length, width: rows[0]!.length, values: Float64Array.from(rows.flat()) });
/** Numbers about normal: the sum of twelve uniform ones less six has mean 0 and standard deviation 1 (central limit, textbook). */
const normals = (seed: number) => {
  const random = randomStream(seed);
  return () => Array.from({ length: 12 }, random).reduce((a, b) => a + b, -6);
};
const rowsOf = (count: number, seed: number, middle: readonly number[], sd = 0.02) => {
  const draw = normals(seed);
  return Array.from({ length: count }, () => middle.map((m) => m + sd * draw()));
};

test('specimens that behave alike stay together, whatever their spread (property)', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 16, max: 80 }), fc.double({ min: 1e-4, max: 1, noNaN: true }), (seed, count, sd) => {
      const sample = sampleOf(rowsOf(count, seed, [1, -2, 5], sd));
      expect(clustersOf(sample)).toEqual([{ sample, share: 1 }]);
    }),
    { numRuns: 100 },
  );
});
test('the few that switched are taken out; what is left is told by its own spread alone', () => {
  const rows = [...rowsOf(57, 3, [9.5, 0.7]), ...rowsOf(3, 4, [0.1, 0])];
  const clusters = clustersOf(sampleOf(rows));
  expect(clusters.map((c) => [c.sample.rows, c.share])).toEqual([[57, 57 / 60]]);
  const kept = clusters[0]!.sample;
  expect(Array.from(kept.values)).toEqual(rows.slice(0, 57).flat());
});
test('enough of them are a way of behaving of their own', () => {
  const clusters = clustersOf(sampleOf([...rowsOf(48, 5, [9.5]), ...rowsOf(12, 6, [0.1])]));
  expect(clusters.map((c) => c.sample.rows)).toEqual([48, 12]);
  expect(clusters.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 12);
});
test('shares never exceed the whole, rows are never made up (property)', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 30 }), (seed, usual, odd) => {
      const rows = [...rowsOf(usual, seed, [4, 4]), ...rowsOf(odd, seed + 1, [4, -3])];
      const clusters = clustersOf(sampleOf(rows));
      expect(clusters.reduce((sum, c) => sum + c.share, 0)).toBeLessThanOrEqual(1 + 1e-12);
      const known = new Set(rows.map((r) => r.join()));
      for (const { sample } of clusters)
        for (let r = 0; r < sample.rows; r++) expect(known.has(Array.from(sample.values.slice(2 * r, 2 * r + 2)).join())).toBe(true);
    }),
    { numRuns: 60 },
  );
});
test('two halves with nothing between them are two ways of behaving', () => {
  const clusters = clustersOf(sampleOf([...rowsOf(25, 7, [0]), ...rowsOf(35, 8, [5])]));
  expect(clusters.map((c) => [c.sample.rows, c.share])).toEqual([
    [35, 35 / 60],
    [25, 25 / 60],
  ]);
});
test('two halves near one another, a handful, and a step too small to matter are left as they are', () => {
  for (const rows of [[...rowsOf(30, 7, [0], 0.05), ...rowsOf(30, 8, [0.25], 0.05)], rowsOf(8, 9, [1]), [...rowsOf(40, 10, [1], 1e-6), [1.05]]])
    expect(clustersOf(sampleOf(rows))).toHaveLength(1);
});
