/** What is seen tells what a meter cannot: which of two like branches is dead. Currents are those of the divider formula. */
import { readDeck } from '@/core/circuit';
import { System } from '@/core/circuit/solve/system';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { diagnoserOf, findSuspects, type Findings, WORK_FACTORS, workOf, workReasons } from '@/core/diagnose';
import { answer, diagnoserFor, type RequestObservation } from '@/core/diagnose/request';
import { type KitState, type Line, sheetWith } from '@/core/kit';
import { investigationOf, kitOf, log } from '../support/kits';

const DECK = `Two like branches
V1 vcc 0 9
R1 vcc a 1k
D1 a 0 LRED
R2 vcc b 1k
D2 b 0 LRED
.model LRED D(IS=1E-18 N=2)
.end`;
const row = (ref: string, kind: string, value: string, tolerance = '5%') => ({ ref, kind, value, tolerance, note: '' });
const BOARD = {
  deck: DECK,
  bom: [row('V1', 'supply', '9'), row('R1', 'resistor', '1k'), row('R2', 'resistor', '1k'), row('D1', 'led', 'LRED', ''), row('D2', 'led', 'LRED', '')],
  testPoints: [{ name: 'TP1', node: 'vcc' }],
  neighbours: [],
  meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 },
};
const diagnoser = diagnoserFor(BOARD);
/** One branch of two carries current. */
const HALF = [
  { at: 'V1', mode: 'dca', value: 0.00718 },
  { at: 'TP1', mode: 'dcv', value: 9.0 },
];
const ask = (...observations: RequestObservation[]) => answer(diagnoser, { ...BOARD, readings: HALF, observations });
const massOf = (part: string, { suspects }: ReturnType<typeof ask>) =>
  suspects.reduce((sum, s) => sum + ('parts' in s && s.parts.some((p) => p === part) ? s.probability : 0), 0);

test('half the current: either branch; the dark one is the dead one', () => {
  const blind = ask();
  expect(massOf('R1', blind) + massOf('D1', blind)).toBeCloseTo(massOf('R2', blind) + massOf('D2', blind), 1);
  const seen = ask({ part: 'D1', what: 'dark' }, { part: 'D2', what: 'lit' });
  expect(massOf('R1', seen) + massOf('D1', seen)).toBeGreaterThan(0.85);
  expect(massOf('R2', seen) + massOf('D2', seen)).toBeLessThan(0.05);
});
test('probabilities stay probabilities, and one look is not believed blindly', () => {
  const seen = ask({ part: 'D1', what: 'dark' }, { part: 'D2', what: 'dark' });
  const sum = seen.suspects.reduce((s, x) => s + x.probability, seen.unexplained);
  expect(sum).toBeCloseTo(1, 6);
  expect(massOf('R1', seen) + massOf('D1', seen) + massOf('R2', seen) + massOf('D2', seen) + seen.unexplained).toBeGreaterThan(0.9);
});
test('a part that shows nothing is named, the rest is used', () => {
  const { remarks } = ask({ part: 'R1', what: 'lit' }, { part: 'D9', what: 'dark' });
  expect(remarks).toHaveLength(2);
  expect(remarks![0]).toContain('R1');
});

test('the current through a part is what the circuit has (Ohm; the branch equation of the source)', () => {
  const { circuit } = readDeck(DECK);
  const system = new System(circuit);
  const { nodes, branches } = operatingPoint(circuit);
  const x = Float64Array.from([...system.unknowns.map((u) => nodes[u] ?? branches[/^I\((.*)\)$/.exec(u)?.[1] ?? ''] ?? 0), 0]);
  const through = (part: string) => system.ammeter(part)!(x);
  expect(through('R1')).toBeCloseTo((9 - nodes['a']!) / 1000, 9);
  expect(through('D1')).toBeCloseTo(through('R1'), 8);
  expect(-through('V1')).toBeCloseTo(through('R1') + through('R2'), 8);
  expect(system.ammeter('Q7')).toBeNull();
});

describe('on the bench', () => {
  const line = (id: string, kind: Line['kind'], value: number | null): Line => ({
    id,
    refs: [id],
    kind,
    value,
    tolerance: null,
    label: id,
    quantity: 1,
  });
  const lines = [line('R1', 'resistor', 1000), line('R2', 'resistor', 1000), line('D1', 'led', null), line('D2', 'led', null)];
  const look = (ref: string) =>
    ({ id: `look-${ref}`, what: 'observe', title: `${ref} glows`, action: 'look', expect: 'light', sign: { ref, amperes: 1e-3 } }) as const;
  const measured = { id: 'i', what: 'measure', title: 'supply current', mode: 'dca', red: { net: 'vcc' }, black: { net: '0' }, source: 'V1' } as const;
  const base = (): KitState =>
    kitOf(
      sheetWith({
        title: 'two lights',
        lines,
        circuit: { deck: DECK, neighbours: [] },
        stages: [
          {
            id: 'on',
            title: 'power on',
            kind: 'power',
            fits: ['R1', 'R2', 'D1', 'D2'],
            supplies: [{ source: 'V1', volts: 9, limit: 0.1 }],
            checks: [measured, look('D1'), look('D2')],
          },
        ],
      }),
    );
  const find = (kit: KitState): Findings => {
    const investigation = investigationOf(kit)!;
    return findSuspects(investigation, diagnoserOf(investigation));
  };
  const read = { kind: 'read', stage: 'on', check: 'i', reading: 0.00718, meter: 'handheld' } as const;
  const saw = (ref: string, asExpected: boolean) => ({ kind: 'observed', stage: 'on', check: `look-${ref}`, asExpected }) as const;

  test('an observation that says which part shows it weighs in, and stands in the table', () => {
    const { suspects, rows } = find(log(base(), read, saw('D1', false), saw('D2', true)));
    expect(suspects[0]!.faults.flatMap((f) => [...f.parts]).some((p) => p === 'R1' || p === 'D1')).toBe(true);
    const rowOf = rows.find((r) => r.id === 'on/look-D1')!;
    expect(rowOf).toMatchObject({ mode: 'look', seen: 'off', healthy: { fits: false } });
    expect(rowOf.suspects[0]).toMatchObject({ fits: true });
  });
  test('the last look counts', () => {
    const { suspects } = find(log(base(), read, saw('D1', true), saw('D2', true), saw('D1', false)));
    expect(suspects[0]!.faults.flatMap((f) => [...f.parts]).some((p) => p === 'R1' || p === 'D1')).toBe(true);
  });

  describe('what the work told besides its readings', () => {
    const odds = (kit: KitState, kind: string, part: string) => {
      const of = (k: string, p: string) =>
        find(kit).suspects.find((x) => x.faults.length === 1 && x.faults[0]!.kind === k && x.faults[0]!.parts.some((q) => q === p))!.probability;
      return of(kind, part) / of('open', 'R2');
    };
    const dark = (...more: Parameters<typeof log>[1][]) => log(base(), read, ...more);

    test.each([
      ['a look that found a diode the right way round', { kind: 'inspected', item: 'way/D1', good: true }, 'reversed', 'D1', WORK_FACTORS.lookedGood],
      ['a look that found it turned', { kind: 'inspected', item: 'way/D1', good: false }, 'reversed', 'D1', WORK_FACTORS.lookedBad],
      ['a look in vain', { kind: 'ruled-out', fault: { kind: 'reversed', parts: ['D1'], detail: {} } }, 'reversed', 'D1', WORK_FACTORS.ruledOut],
    ] as const)('%s moves its odds by the documented factor, and nothing else', (_, entry, kind, part, factor) => {
      expect(odds(dark(entry), kind, part) / odds(dark(), kind, part) / factor).toBeCloseTo(1, 1);
    });

    test('a tester that was silent between two nets all but rules a bridge there out; the reason is told', () => {
      const kit = log(base(), { kind: 'traced', pads: ['D1.A', 'D2.A'], nets: ['a', 'B'], drawn: false, beep: false });
      const bridge = { kind: 'bridge', parts: [], detail: { nets: ['a', 'b'] } } as const;
      expect(workReasons(bridge, workOf(kit))).toEqual([{ factor: WORK_FACTORS.silent, why: expect.stringContaining('silent') as string }]);
      expect(workReasons(bridge, workOf(base()))).toEqual([]);
    });

    test('a position that was forgotten counts, one of many that were never ticked does not', () => {
      const many = kitOf(sheetWith({ title: 'many', lines: Array.from({ length: 10 }, (_, i) => line(`R${i}`, 'resistor', 1000)), circuit: null, stages: [] }));
      const ticked = (n: number) => workOf(log(many, { kind: 'fitted', refs: Array.from({ length: n }, (_, i) => `R${i}`) })).unticked;
      expect(ticked(9)).toEqual(['R9']);
      expect(ticked(3)).toEqual([]);
    });
  });
});
