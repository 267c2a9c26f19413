/** The matrix of the linear parts and the order in which it is eliminated: laws of bookkeeping and of sparse elimination. */
import fc from 'fast-check';
import { SHUNT } from '@/core/circuit/kernel/shared';
import { LinearLayout, type LinearNumbers, LinearParts } from '@/core/circuit/solve/linearParts';
import { Pattern } from '@/core/circuit/solve/pattern';
import { PivotSearch } from '@/core/circuit/solve/pivotSearch';

const NETS = 5;

/** Conductances between nets (the last index is ground), and one constant entry. */
function compile(edges: readonly (readonly [number, number, number])[]) {
  const pattern = new Pattern(NETS);
  const layout = new LinearLayout(pattern, NETS);
  const entries = edges.map(([a, b, siemens]) => layout.conductance(a, b, siemens));
  layout.stamp(0, 1, 0.5);
  layout.drive(2, -1e-3);
  const numbers: LinearNumbers = [
    new Float64Array(pattern.rows.length),
    new Float64Array(NETS + 1),
    new Float64Array(entries.length),
    new Float64Array(layout.stamps.length),
  ];
  const parts = new LinearParts(layout, numbers);
  const { rows, columns } = pattern;
  /** Entry of the matrix, 0 where it has none. */
  const at = (row: number, column: number) => {
    const slot = rows.findIndex((r, i) => i > 0 && r === row && columns[i] === column);
    return slot < 0 ? 0 : numbers[0][slot]!;
  };
  return { parts, entries, numbers, at };
}

/** From a short to what leaks through a board. */
const siemens = fc.constantFrom(0, 1e-12, 1e-9, 1e-4, 1, 20, 1e5);
const net = fc.integer({ min: 0, max: NETS });
const edge = fc.tuple(net, net, siemens).filter(([a, b]) => a !== b);

describe('the matrix of the linear parts', () => {
  test('law: every row adds up to what goes to ground (Kirchhoff), and the matrix is symmetrical', () => {
    fc.assert(
      fc.property(fc.array(edge, { maxLength: 12 }), (edges) => {
        const { at } = compile(edges);
        for (let row = 0; row < NETS; row++) {
          const toGround = edges.reduce((sum, [a, b, g]) => sum + ((a === row && b === NETS) || (b === row && a === NETS) ? g : 0), SHUNT);
          let sum = row === 0 ? -0.5 : 0;
          let largest = 1;
          for (let column = 0; column < NETS; column++) {
            sum += at(row, column);
            largest = Math.max(largest, Math.abs(at(row, column)));
            if (row > 1 && column > 1) expect(at(row, column)).toBe(at(column, row));
          }
          expect(Math.abs(sum - toGround)).toBeLessThan(1e-14 * largest);
        }
      }),
    );
  });
  test('law: after any changes it is what it would be if laid out so: shorts that come and go leave no trace beside leakage', () => {
    fc.assert(
      fc.property(fc.array(edge, { minLength: 1, maxLength: 8 }), fc.array(fc.tuple(fc.nat(), siemens), { maxLength: 20 }), (edges, changes) => {
        const { parts, entries, numbers } = compile(edges);
        const last = edges.map(([, , g]) => g);
        for (const [which, g] of changes) {
          last[which % edges.length] = g;
          parts.setConductance(entries[which % edges.length]!, g);
        }
        const fresh = compile(edges.map(([a, b], i) => [a, b, last[i]!] as const));
        expect(Array.from(numbers[0])).toEqual(Array.from(fresh.numbers[0]));
        expect(Array.from(numbers[2])).toEqual(last);
      }),
    );
  });
  test('a constant entry can be changed and put back; sources stand on the right', () => {
    const { parts, numbers, at } = compile([[0, 1, 1e-3]]);
    expect(at(0, 1)).toBeCloseTo(0.5 - 1e-3, 12);
    parts.setStamp(0, -2);
    expect(at(0, 1)).toBeCloseTo(-2 - 1e-3, 12);
    expect(numbers[3][0]).toBe(-2);
    parts.setStamp(0, 0.5);
    expect(at(0, 1)).toBeCloseTo(0.5 - 1e-3, 12);
    expect(parts.right[2]).toBe(-1e-3);
  });
});

describe('the order of elimination', () => {
  /** Order found for a symmetrical pattern of nets joined by 1 S, each with 1 S to ground. */
  function orderOf(size: number, joined: readonly (readonly [number, number])[]) {
    const pattern = new Pattern(size);
    const at = new Map<number, number>();
    const add = (row: number, column: number, value: number) => {
      const slot = pattern.slot(row, column);
      at.set(slot, (at.get(slot) ?? 0) + value);
    };
    for (let i = 0; i < size; i++) add(i, i, 1);
    for (const [a, b] of joined) {
      add(a, a, 1);
      add(b, b, 1);
      add(a, b, -1);
      add(b, a, -1);
    }
    const { rows, columns } = pattern;
    const entries = Float64Array.from(rows, (_, slot) => at.get(slot) ?? 0);
    return { order: new PivotSearch(size, rows, columns, entries).run()!, entries: entries.length };
  }

  test('law: every row and every column is a pivot once', () => {
    const pair = fc.tuple(fc.nat(11), fc.nat(11)).filter(([a, b]) => a !== b);
    fc.assert(
      fc.property(fc.array(pair, { maxLength: 30 }), (joined) => {
        const { order } = orderOf(12, joined);
        const all = Array.from({ length: 12 }, (_, i) => i);
        expect(Array.from(order.pivotRow).sort((a, b) => a - b)).toEqual(all);
        expect(Array.from(order.pivotColumn).sort((a, b) => a - b)).toEqual(all);
      }),
    );
  });
  test('law: a tree is eliminated from its leaves, without a single new entry (Parter 1961)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.nat(), { minLength: 1, maxLength: 40 }).map((parents) => parents.map((p, i) => [i + 1, p % (i + 1)] as const)),
        (branches) => {
          const { order, entries } = orderOf(branches.length + 1, branches);
          expect(order.slots).toBe(entries);
          expect(order.target.length).toBe(branches.length);
        },
      ),
    );
  });
  test('a ring needs new entries, but few: three a net at the most', () => {
    const ring = Array.from({ length: 60 }, (_, i) => [i, (i + 1) % 60] as const);
    const { order, entries } = orderOf(60, ring);
    expect(order.slots).toBeGreaterThan(entries);
    expect(order.slots - entries).toBeLessThanOrEqual(3 * 60);
  });
});
