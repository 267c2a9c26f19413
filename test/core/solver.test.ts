/** The linear and non-linear solver by themselves: laws of linear algebra, sensitivities, latches, sizes. */
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { readDeck } from '@/core/circuit/deck/read';
import { type Tenant, theKernel } from '@/core/circuit/kernel/kernel';
import { Newton } from '@/core/circuit/solve/newton';
import { limitJunction, criticalVoltage, safeExp, VT } from '@/core/circuit/solve/junction';
import { Pattern } from '@/core/circuit/solve/pattern';
import { SparseLu } from '@/core/circuit/solve/sparseLu';
import { System } from '@/core/circuit/solve/system';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { kernelSource } from '../../scripts/generate';

/** Dense Gaussian elimination with row pivoting: the plain reference. */
function solveDense(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const n = right.length;
  const a = matrix.map((row, i) => [...row, right[i]!]);
  for (let k = 0; k < n; k++) {
    let pivot = k;
    for (let i = k + 1; i < n; i++) if (Math.abs(a[i]![k]!) > Math.abs(a[pivot]![k]!)) pivot = i;
    [a[k], a[pivot]] = [a[pivot]!, a[k]!];
    for (let i = k + 1; i < n; i++) {
      const f = a[i]![k]! / a[k]![k]!;
      for (let j = k; j <= n; j++) a[i]![j]! -= f * a[k]![j]!;
    }
  }
  const x = new Array<number>(n).fill(0);
  for (let i = n - 1; i >= 0; i--) {
    let s = a[i]![n]!;
    for (let j = i + 1; j < n; j++) s -= a[i]![j]! * x[j]!;
    x[i] = s / a[i]![i]!;
  }
  return x;
}

/** Diagonally heavy sparse matrices: what a circuit with a path to ground everywhere gives. */
const sparse = fc.integer({ min: 2, max: 12 }).chain((n) =>
  fc.record({
    n: fc.constant(n),
    entries: fc.array(fc.tuple(fc.nat(n - 1), fc.nat(n - 1), fc.integer({ min: -50, max: 50 })), { maxLength: 3 * n }),
    right: fc.array(fc.integer({ min: -20, max: 20 }), { minLength: n, maxLength: n }),
  }),
);

function build({ n, entries }: { n: number; entries: readonly (readonly [number, number, number])[] }) {
  const matrix = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  for (const [i, j, v] of entries) matrix[i]![j]! += v;
  for (let i = 0; i < n; i++) matrix[i]![i] = 1 + matrix[i]!.reduce((s, v) => s + Math.abs(v), 0);
  const pattern = new Pattern(n);
  const slots = matrix.flatMap((row, i) => row.flatMap((v, j) => (v === 0 ? [] : [{ slot: pattern.slot(i, j), v }])));
  const values = new Float64Array(pattern.rows.length);
  for (const { slot, v } of slots) values[slot] = v;
  return { matrix, values, ...bare(n, pattern) };
}

/** A matrix alone in the kernel, without a circuit around it. */
function bare(size: number, pattern: Pattern) {
  const none = { conductances: 0, stamps: 0, diodes: 0, bipolars: 0, mosfets: 0, jfets: 0 };
  const entries = pattern.rows.length;
  const tenant: Tenant = {
    counts: { size, nodes: 0, entries, ...none },
    numbers: new Float64Array(entries + size + 1),
    places: new Int32Array(0),
    moved: false,
  };
  const lu = new SparseLu(tenant, pattern.rows, pattern.columns);
  const factor = (values: Float64Array) => {
    theKernel().enter(tenant);
    theKernel().matrix.set(values);
    return lu.factor();
  };
  return { lu, factor };
}

test('the compiled kernel is that of its sources', () => {
  expect(readFileSync('src/core/circuit/kernel/generated/wasm.ts', 'utf8')).toBe(kernelSource());
});

describe('sparse LU', () => {
  test('law: solves like dense elimination', () => {
    fc.assert(
      fc.property(sparse, (s) => {
        const { matrix, lu, factor, values } = build(s);
        expect(factor(values)).toBe(true);
        const x = Float64Array.from([...s.right, 0]);
        lu.solve(x);
        solveDense(matrix, s.right).forEach((v, i) => {
          expect(x[i]).toBeCloseTo(v, 8);
        });
      }),
    );
  });
  test('law: the transposed solve is the solve of the transposed matrix', () => {
    fc.assert(
      fc.property(sparse, (s) => {
        const { matrix, lu, factor, values } = build(s);
        factor(values);
        const z = Float64Array.from([...s.right, 0]);
        lu.solveTransposed(z);
        const transposed = matrix.map((row, i) => row.map((_, j) => matrix[j]![i]!));
        solveDense(transposed, s.right).forEach((v, i) => {
          expect(z[i]).toBeCloseTo(v, 8);
        });
      }),
    );
  });
  test('law: new values in the same pattern need no new search and give the new solution', () => {
    fc.assert(
      fc.property(sparse, fc.double({ min: 0.1, max: 10, noNaN: true }), (s, times) => {
        const { matrix, lu, factor, values } = build(s);
        factor(values);
        factor(values.map((v) => v * times));
        const x = Float64Array.from([...s.right, 0]);
        lu.solve(x);
        solveDense(matrix, s.right).forEach((v, i) => {
          expect(x[i]).toBeCloseTo(v / times, 7);
        });
      }),
    );
  });
  test('a singular matrix is refused and says where', () => {
    const pattern = new Pattern(2);
    const slots = [pattern.slot(0, 0), pattern.slot(0, 1), pattern.slot(1, 0), pattern.slot(1, 1)];
    const values = new Float64Array(pattern.rows.length);
    for (const slot of slots) values[slot] = 1;
    const { lu, factor } = bare(2, pattern);
    expect(factor(values)).toBe(false);
    expect(lu.singularAt).not.toBeNull();
  });
  test('the factors at hand are those of the circuit that was in last; another one is told so', () => {
    const one = new System(readDeck('t\nV1 a 0 5\nR1 a b 1k\nR2 b 0 1k').circuit);
    const two = new System(readDeck('t\nV1 a 0 5\nR1 a b 1k\nR2 b 0 3k').circuit);
    one.linearise(new Newton(one).solve(null).x);
    expect(() => one.lu.solve(new Float64Array(one.size + 1))).not.toThrow();
    new Newton(two).solve(null);
    expect(() => one.lu.solve(new Float64Array(one.size + 1))).toThrow('another circuit');
    expect(new Newton(one).solve(null).x[one.unknownOf('b')]).toBeCloseTo(2.5, 6);
  });
});

describe('junction limiting (SPICE 2, Nagel 1975)', () => {
  const critical = criticalVoltage(1e-14, VT);
  test('small steps pass unchanged; a leap across the exponential is cut to a few VT', () => {
    expect(limitJunction(0.61, 0.6, VT, critical, false)).toBe(0.61);
    expect(limitJunction(-3, 0.6, VT, critical, false)).toBe(-3);
    expect(limitJunction(12, 0.6, VT, critical, false)).toBeLessThan(0.6 + 10 * VT);
  });
  test('law: it never moves farther than was wanted, and never backwards', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 0.9, noNaN: true }), fc.double({ min: 0.9, max: 50, noNaN: true }), (before, wanted) => {
        const v = limitJunction(wanted, before, VT, critical, false);
        expect(v).toBeLessThanOrEqual(wanted);
        expect(v).toBeGreaterThanOrEqual(Math.min(before, critical) - 1e-12);
      }),
    );
  });
  test('law: a bold step down leaves the current that the tangent promised (i = IS e^(v / nVT))', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 0.9, noNaN: true }), fc.double({ min: 0.71, max: 0.999999, noNaN: true }), (before, loss) => {
        const v = limitJunction(before - loss * VT, before, VT, critical, true);
        expect(Math.exp((v - before) / VT)).toBeCloseTo(1 - loss, 9);
        expect(limitJunction(before - loss * VT, before, VT, critical, false)).toBe(before - loss * VT);
      }),
    );
  });
  test('the exponential stays finite', () => {
    expect(safeExp(1)).toBeCloseTo(Math.E, 12);
    expect(Number.isFinite(safeExp(1e6))).toBe(true);
    expect(safeExp(81)).toBeGreaterThan(safeExp(80));
  });
});

describe('Newton', () => {
  const bistable = 't\nV1 vcc 0 9\nR1 vcc c1 1k\nR2 vcc c2 1k\nR3 c1 b2 10k\nR4 c2 b1 10k\nQ1 c1 b1 0 N\nQ2 c2 b2 0 N\n.model N NPN(IS=1e-14 BF=200)';
  test('a latch has two states, and each is found from its own neighbourhood', () => {
    const system = new System(readDeck(bistable).circuit);
    const newton = new Newton(system);
    const from = (c1: number, c2: number) => {
      const x = newton.zeros();
      const set = (net: string, v: number) => {
        x[system.unknownOf(net)] = v;
      };
      set('vcc', 9);
      set('c1', c1);
      set('c2', c2);
      set('b1', c2 > 1 ? 0.7 : 0.05);
      set('b2', c1 > 1 ? 0.7 : 0.05);
      return newton.solve(x);
    };
    const [left, right] = [from(0.05, 8.2), from(8.2, 0.05)];
    expect([left.converged, right.converged]).toEqual([true, true]);
    expect(left.x[system.unknownOf('c1')]).toBeLessThan(0.3);
    expect(right.x[system.unknownOf('c2')]).toBeLessThan(0.3);
  });
  test('a solution says how it was reached: iterations, residual, converged', () => {
    const system = new System(readDeck('t\nV1 a 0 5\nR1 a b 1k\nD1 b 0 DX\n.model DX D(IS=1e-12)').circuit);
    const solution = new Newton(system).solve(null);
    expect(solution).toMatchObject({ converged: true, culprit: null });
    expect(solution.residual).toBeLessThan(1e-9);
    expect(solution.iterations).toBeGreaterThan(2);
  });
  test('from a neighbour it takes fewer steps than from nothing', () => {
    const system = new System(readDeck(bistable).circuit);
    const newton = new Newton(system);
    const cold = newton.solve(null);
    expect(newton.solve(cold.x).iterations).toBeLessThan(cold.iterations);
  });
  test('what did not converge does not carry the residual of what did before', () => {
    const system = new System(readDeck('t\nV1 a 0 5\nR1 a b 1k\nR2 b 0 1k').circuit);
    const newton = new Newton(system);
    expect(newton.solve(null).residual).toBeLessThan(1e-6);
    system.valueSetter('R1')!(NaN);
    expect(newton.solve(null)).toMatchObject({ converged: false, residual: Infinity });
  });
  test('law: sensitivity by the transposed solve equals the finite difference (Director & Rohrer 1969)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 100, max: 1e5 }), fc.integer({ min: 100, max: 1e5 }), (r1, r2) => {
        const volts = (a: number) =>
          operatingPoint(readDeck(`t\nV1 in 0 10\nR1 in b ${a}\nR2 b 0 ${r2}\nD1 b 0 DX\n.model DX D(IS=1e-15)`).circuit).nodes['b']!;
        const circuit = readDeck(`t\nV1 in 0 10\nR1 in b ${r1}\nR2 b 0 ${r2}\nD1 b 0 DX\n.model DX D(IS=1e-15)`).circuit;
        const system = new System(circuit);
        const { x } = new Newton(system).solve(null);
        system.linearise(x);
        const adjoint = new Float64Array(system.size + 1);
        adjoint[system.unknownOf('b')] = 1;
        system.lu.solveTransposed(adjoint);
        // dF/dR1: the current (vin − vb)/R1 leaves `in` and enters `b`.
        const dCurrent = -(x[system.unknownOf('in')]! - x[system.unknownOf('b')]!) / r1 ** 2;
        const sensitivity = -(adjoint[system.unknownOf('in')]! * dCurrent - adjoint[system.unknownOf('b')]! * dCurrent);
        const h = r1 * 1e-4;
        const difference = (volts(r1 + h) - volts(r1 - h)) / (2 * h);
        expect(Math.abs(sensitivity - difference)).toBeLessThan(1e-3 * Math.abs(difference) + 1e-10);
      }),
      { numRuns: 25 },
    );
  });
});

test('law: the resistance between two nets is that of a current driven through them (Thevenin)', () => {
  const ohms = fc.integer({ min: 10, max: 1e6 });
  fc.assert(
    fc.property(fc.array(ohms, { minLength: 5, maxLength: 5 }), fc.constantFrom('a', 'b', 'c', '0'), fc.constantFrom('a', 'b', 'c', '0'), (r, red, black) => {
      const bridge = `R1 a b ${r[0]}\nR2 b 0 ${r[1]}\nR3 a c ${r[2]}\nR4 c 0 ${r[3]}\nR5 b c ${r[4]}`;
      const system = new System(readDeck(`t\n${bridge}`).circuit);
      system.linearise(new Float64Array(system.size + 1));
      const found = system.lu.resistance(system.unknownOf(red), system.unknownOf(black));
      if (red === black) {
        expect(found).toBe(0);
        return;
      }
      const { nodes } = operatingPoint(readDeck(`t\n${bridge}\nI1 ${black} ${red} 1m`).circuit);
      const expected = ((nodes[red] ?? 0) - (nodes[black] ?? 0)) / 1e-3;
      expect(Math.abs(found - expected)).toBeLessThan(1e-6 * Math.abs(expected) + 1e-6);
    }),
  );
});

describe('sizes and hostile decks', () => {
  test('a ladder of 400 nets is solved to the closed form of an endless one', () => {
    const n = 400;
    const deck = ['ladder', 'V1 n0 0 5', ...Array.from({ length: n }, (_, i) => `R${i} n${i} n${i + 1} 1k\nRG${i} n${i + 1} 0 10k`)].join('\n');
    const { branches } = operatingPoint(readDeck(deck).circuit);
    // Input resistance of the endless ladder: R/2 (1 + √(1 + 4 G/R)) with R = 1 k, G = 10 k.
    const endless = 500 * (1 + Math.sqrt(1 + 40));
    expect(5 / -branches['V1']!).toBeCloseTo(endless, 0);
  });
  test('ten thousand lines are read and solved', () => {
    const deck = ['large', 'V1 a 0 1', ...Array.from({ length: 10_000 }, (_, i) => `R${i} a 0 ${1000 + i}`)].join('\n');
    const { circuit, diagnostics } = readDeck(deck);
    expect(diagnostics).toEqual([]);
    const siemens = Array.from({ length: 10_000 }, (_, i) => 1 / (1000 + i)).reduce((x, y) => x + y, 0);
    expect(-operatingPoint(circuit).branches['V1']!).toBeCloseTo(siemens, 4);
  });
  test.each([
    ['zero ohms are a wire', 't\nV1 a 0 5\nR1 a b 0\nR2 b 0 1k', 5],
    ['a negative resistor is solved as it stands', 't\nV1 a 0 5\nR1 a b 1k\nR2 b 0 -500', -5],
    ['names with markup stay text', 't\nV1 <b>a</b> 0 5\nR1 <b>a</b> b 1k\nR2 b 0 1k', 2.5],
  ])('%s', (_, deck, volts) => {
    expect(operatingPoint(readDeck(deck).circuit).nodes['b']).toBeCloseTo(volts, 2);
  });
  test.each([
    ['a capacitor of minus one farad', 't\nV1 a 0 5\nC1 a 0 -1', /C1 has the value -1/],
    ['a sub-circuit inside itself', 't\n.subckt A x\nX1 x A\n.ends\nX1 a A\nV1 a 0 5', /contains itself/],
    ['too few nodes', 't\nR1 a', /R1 needs 2 nodes/],
    ['the same name twice', 't\nR1 a 0 1k\nR1 a 0 2k\nV1 a 0 1', /R1 is there twice/],
    ['a text of nine million characters', `t\n${'*'.repeat(9_000_000)}`, /characters, more than/],
  ])('%s is named', (_, deck, message) => {
    expect(
      readDeck(deck)
        .diagnostics.map((d) => d.message)
        .join('\n'),
    ).toMatch(message);
  });
});
