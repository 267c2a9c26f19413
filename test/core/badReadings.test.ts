/** A wrong reading among good ones is named, and the fault is found all the same; what nobody listed is called so. */
import { answer, diagnoserFor, type DiagnoseRequest, type RequestStage } from '@/core/diagnose/request';

const DECK = `Two dividers and a follower
V1 vcc 0 12
R1 vcc a 10k
R2 a 0 10k
R3 vcc b 22k
R4 b 0 10k
Q1 vcc a e QN
R5 e 0 1k
R6 e f 4.7k
R7 f 0 4.7k
.model QN NPN(IS=1.5E-14 BF=250 VAF=80 BR=4)
.end`;
const row = (ref: string, kind: string, value: string, tolerance: string, note = '') => ({ ref, kind, value, tolerance, note });
const BOM = [
  row('V1', 'supply', '12', '2%'),
  ...['R1:10k', 'R2:10k', 'R3:22k', 'R4:10k', 'R5:1k', 'R6:4.7k', 'R7:4.7k'].map((r) => row(r.split(':')[0]!, 'resistor', r.split(':')[1]!, '5%')),
  row('Q1', 'npn', 'QN', '', 'hfe 110..450'),
];
const POINTS = ['a', 'b', 'e', 'f', 'vcc'].map((node, i) => ({ name: `TP${i + 1}`, node }));
const BOARD = {
  deck: DECK,
  bom: BOM,
  testPoints: POINTS,
  neighbours: [['a', 'b']] as const,
  meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 },
};
const diagnoser = diagnoserFor(BOARD);
/** What the nominal board reads: dividers by their ratio, the follower one junction below (textbook). */
const GOOD: Readonly<Record<string, number>> = { TP1: 5.86, TP2: 3.75, TP3: 5.19, TP4: 2.6, TP5: 12.0 };
const ask = (change: Readonly<Record<string, number>>, leave: readonly string[] = []) => {
  const readings: DiagnoseRequest['readings'] = Object.entries({ ...GOOD, ...change })
    .filter(([at]) => !leave.includes(at))
    .map(([at, value]) => ({ at, mode: 'dcv', value }));
  return answer(diagnoser, { ...BOARD, readings });
};

test('a healthy board is healthy, and no reading is called bad', () => {
  const { suspects, badReadings, unexplained } = ask({});
  expect(suspects[0]!.kind).toBe('healthy');
  expect(badReadings.filter((b) => b.probability > 0.3)).toEqual([]);
  expect(unexplained).toBeLessThan(0.2);
});

describe('one wrong reading on a healthy board is named with what went wrong, and the board stays healthy', () => {
  test.each<[string, Record<string, number>, object]>([
    ['probes swapped', { TP2: -3.75 }, { at: 'TP2', why: 'sign' }],
    ['a decimal point', { TP1: 58.6 }, { at: 'TP1', why: 'decimal' }],
    ['another point', { TP1: 12.01 }, { at: 'TP1', why: 'other-point', as: 'TP5' }],
    ['no contact', { TP3: 0.004 }, { at: 'TP3', why: 'no-contact' }],
  ])('%s', (_, change, named) => {
    const { suspects, badReadings } = ask(change);
    expect(badReadings[0]).toMatchObject(named);
    expect(badReadings[0]!.probability).toBeGreaterThan(0.5);
    expect(suspects[0]!.kind).toBe('healthy');
  });
  test('also where the point that was really read has no reading of its own', () => {
    const { badReadings } = ask({ TP1: 12.01 }, ['TP5']);
    expect(badReadings[0]).toMatchObject({ at: 'TP1', why: 'other-point', as: 'TP5' });
  });
});

test('a fault and a wrong reading: both are found', () => {
  // R2 open: the follower goes up with its base; TP2 was read with the probes swapped.
  const { suspects, badReadings } = ask({ TP1: 11.6, TP3: 10.9, TP4: 5.45, TP2: -3.75 });
  expect(suspects[0]).toMatchObject({ kind: 'open', parts: ['R2'] });
  expect(badReadings[0]).toMatchObject({ at: 'TP2', why: 'sign' });
});

test('two places that nothing listed explains are something that is not on the list', () => {
  const { unexplained } = ask({ TP2: 2.9, TP4: 3.3, TP1: 6.9, TP3: 5.2 });
  expect(unexplained).toBeGreaterThan(0.5);
});

test('probabilities sum to one, with what is not listed', () => {
  for (const change of [{}, { TP2: -3.75 }, { TP2: 2.9, TP4: 3.3 }]) {
    const readings = Object.entries({ ...GOOD, ...change }).map(([at, value]) => ({ id: `|${at}|dcv|`, value }));
    const { suspects, pairs, unexplained } = diagnoser.diagnose(readings);
    expect([...suspects, ...pairs].reduce((s, x) => s + x.probability, 0) + unexplained).toBeCloseTo(1, 9);
  }
});

test('the order of the readings does not matter', () => {
  const entries = Object.entries({ ...GOOD, TP2: -3.75 }).map(([at, value]) => ({ id: `|${at}|dcv|`, value }));
  const [one, other] = [diagnoser.diagnose(entries), diagnoser.diagnose([...entries].reverse())];
  expect(other.suspects[0]!.fault).toEqual(one.suspects[0]!.fault);
  expect(other.suspects[0]!.probability).toBeCloseTo(one.suspects[0]!.probability, 6);
  expect(other.badReadings[0]!.id).toBe(one.badReadings[0]!.id);
});

describe('evidence of other kinds', () => {
  const full = (readings: DiagnoseRequest['readings'], stages: readonly RequestStage[] = []) =>
    answer(diagnoserFor({ ...BOARD, readings, stages }), { ...BOARD, readings, stages });
  test('cold ohms tell what few volts do not: 4.7 k over 4.7 k + 1 k read 2.6 k, without R7 5.7 k', () => {
    const few: DiagnoseRequest['readings'] = [{ at: 'TP2', mode: 'dcv', value: 3.75 }];
    const cold: DiagnoseRequest['readings'] = [...few, { at: 'TP4', to: '0', mode: 'ohms', value: 5700 }];
    const rank = (r: DiagnoseRequest['readings']) => full(r).suspects.findIndex((s) => s.kind === 'open' && s.parts[0] === 'R7');
    expect(rank(few)).toBeGreaterThan(3);
    expect(rank(cold)).toBeLessThan(3);
  });
  test('a stage before the transistor was fitted is solved without it', () => {
    const stages: RequestStage[] = [
      { id: 'bare', absent: ['Q1'], supply: { V1: 9 } },
      { id: 'all', absent: [], supply: { V1: 12 } },
    ];
    // Half of 9 V at the divider, nothing behind the missing follower.
    const good = full(
      [
        { at: 'TP1', mode: 'dcv', value: 4.5, stage: 'bare' },
        { at: 'TP3', mode: 'dcv', value: 0, stage: 'bare' },
        { at: 'TP1', mode: 'dcv', value: 5.88, stage: 'all' },
      ],
      stages,
    );
    expect(good.suspects[0]!.kind).toBe('healthy');
    const bad = full([{ at: 'TP1', mode: 'dcv', value: 9, stage: 'bare' }], stages);
    expect(bad.suspects.slice(0, 3).map((s) => (s.kind === 'pair' ? s.kind : `${s.kind} ${s.parts.join()}`))).toContain('open R2');
  });
  test('a reading at a point that the board lacks is left out, in words; the rest is used', () => {
    const { remarks, suspects } = full([
      { at: 'TP1', mode: 'dcv', value: 5.88 },
      { at: 'TP77', mode: 'dcv', value: 3 },
      { at: 'TP2', mode: 'dcv', value: 3.75, stage: 'nowhere' },
    ]);
    expect(remarks).toHaveLength(2);
    expect(remarks![0]).toMatch(/TP77/);
    expect(suspects.length).toBeGreaterThan(10);
  });
});

test('where nothing explains the readings the nearest suspects are named all the same; where something does, none are', () => {
  const readings = Object.entries({ ...GOOD, TP2: 2.9, TP4: 3.3, TP1: 6.9, TP3: 5.2 }).map(([at, value]) => ({ id: `|${at}|dcv|`, value }));
  const strange = diagnoser.diagnose(readings);
  expect(strange.unexplained).toBeGreaterThan(0.5);
  expect(strange.nearest).toHaveLength(3);
  expect(diagnoser.diagnose(Object.entries(GOOD).map(([at, value]) => ({ id: `|${at}|dcv|`, value }))).nearest).toEqual([]);
});
