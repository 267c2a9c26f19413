/** Boards round chips. Truth tables: as published for the 4000 and 74HC families (from memory); circuits against the circuit core. */
import { operatingPoint, readDeck } from '@/core/circuit';
import { expectation, type LogicBoard, LogicDiagnoser, readBoard } from '@/core/logic';
import { CARDS, type ChipState, type Readings } from '@/core/logic/cards';
import { cardNamed, LIBRARY } from '@/core/logic/written';

const MODELS = '.model LR D(IS=1e-18 N=2)\n.end\n';
/** Two keys, each lighting its lamp through a black box; the third lamp follows both. */
const KEYS = (more: object = {}) => ({
  name: 'two-keys',
  deck: `* keys\nV1 vcc 0 5\nR1 vcc rst 10000\nR2 o1 a1 330\nD1 a1 0 LR\nR3 o2 a2 330\nD2 a2 0 LR\n${MODELS}`,
  parts: [
    { ref: 'V1', kind: 'supply' },
    { ref: 'R1', kind: 'resistor' },
    { ref: 'R2', kind: 'resistor' },
    { ref: 'D1', kind: 'led' },
    { ref: 'R3', kind: 'resistor' },
    { ref: 'D2', kind: 'led' },
    { ref: 'K1', kind: 'key', pins: ['k1', '0'] },
    { ref: 'K2', kind: 'key', pins: ['k2', '0'] },
  ],
  chips: [
    {
      ref: 'U1',
      card: 'box',
      package: 'dip8',
      pins: { 1: 'rst', 2: 'k1', 3: 'k2', 4: '0', 5: 'o1', 6: 'o2', 8: 'vcc' },
      supply: { vdd: '8', gnd: '4', min: 2.7 },
      roles: {
        1: { in: true },
        2: { in: true, pull: ['up', 40_000] },
        3: { in: true, pull: ['up', 40_000] },
        5: { out: 'push-pull', rest: 'low' },
        6: { out: 'push-pull', rest: 'low' },
      },
      electrical: { vil: 0.3, vih: 0.6, roh: 50, rol: 30 },
      needs: { high: ['1'] },
      programmed: true,
      functions: [
        { when: { 2: 'low' }, then: { 5: 'high' } },
        { when: { 3: 'low' }, then: { 6: 'high' } },
      ],
    },
  ],
  neighbours: [['k1', 'k2']],
  meters: ['o1'],
  checks: [
    {
      id: 'rest',
      do: [],
      see: [
        { what: 'look', part: 'D1' },
        { what: 'look', part: 'D2' },
      ],
      cost: 1,
    },
    {
      id: 'key1',
      do: [{ press: 'K1' }],
      see: [
        { what: 'look', part: 'D1' },
        { what: 'look', part: 'D2' },
      ],
      cost: 1,
    },
    {
      id: 'key2',
      do: [{ press: 'K2' }],
      see: [
        { what: 'look', part: 'D1' },
        { what: 'look', part: 'D2' },
      ],
      cost: 1,
    },
    { id: 'v-o1', do: [{ press: 'K1' }], see: [{ what: 'volts', net: 'o1' }], cost: 1.5 },
  ],
  ...more,
});
const board = (more: object = {}): LogicBoard => readBoard(KEYS(more));
const saw = (results: Readonly<Record<string, readonly (string | number)[]>>) => Object.entries(results).map(([check, s]) => ({ check, saw: s }));

describe('cards against their truth tables', () => {
  const after = (card: string, ...rounds: readonly Readings[]): { state: ChipState; drive: Readonly<Record<string, string>> } => {
    const c = CARDS[card]!;
    let state = c.start;
    let was: Readings | null = null;
    for (const now of rounds) {
      state = c.next(state, now, was);
      was = now;
    }
    return { state, drive: c.drive(state, rounds.at(-1)!) };
  };
  test.each([
    ['HC00', [0, 0], 'high'],
    ['HC00', [1, 1], 'low'],
    ['HC08', [1, 1], 'high'],
    ['HC08', [1, 0], 'low'],
    ['HC02', [0, 0], 'high'],
    ['HC02', [1, 0], 'low'],
    ['HC32', [0, 1], 'high'],
    ['HC86', [1, 1], 'low'],
    ['C4011', [1, 0], 'high'],
    ['C4001', [1, 1], 'low'],
  ] as const)('%s of %j is %s', (card, [a, b], out) => {
    expect(after(card, { A1: a, B1: b, A2: 0, B2: 0, A3: 0, B3: 0, A4: 0, B4: 0 }).drive['Y1']).toBe(out);
  });
  test('the decade counter steps on rising clocks, wraps after ten, and is held by its reset', () => {
    const low = { CLK: 0, ENA: 0, RST: 0 } as const;
    const clocks = (n: number) => Array.from({ length: n }, () => [{ ...low, CLK: 1 } as const, low]).flat();
    expect(after('C4017', low, ...clocks(3)).drive).toMatchObject({ Q3: 'high', Q0: 'low', CO: 'high' });
    expect(after('C4017', low, ...clocks(5)).drive['CO']).toBe('low');
    expect(after('C4017', low, ...clocks(10)).drive['Q0']).toBe('high');
    expect(after('C4017', low, ...clocks(3), { ...low, RST: 1 }).drive['Q0']).toBe('high');
  });
  test('the flip-flop takes its data by a rising clock; set and reset are active low', () => {
    const base = { RA: 1, SA: 1, DA: 1, CLKA: 0, RB: 1, SB: 1, DB: 0, CLKB: 0 } as const;
    expect(after('HC74', base).drive).toMatchObject({ QA: 'low', NA: 'high' });
    expect(after('HC74', base, { ...base, CLKA: 1 }).drive).toMatchObject({ QA: 'high', NA: 'low' });
    expect(after('HC74', base, { ...base, CLKA: 1 }, { ...base, RA: 0 }).drive).toMatchObject({ QA: 'low', NA: 'high' });
    expect(after('HC74', { ...base, RA: 0, SA: 0 }).drive).toMatchObject({ QA: 'high', NA: 'high' });
  });
  test('keys are loaded in parallel and come out one by one, the highest first', () => {
    const idle = { PL: 1, CLK: 0, CE: 0, DS: 0, D0: 0, D1: 0, D2: 0, D3: 0, D4: 0, D5: 1, D6: 0, D7: 1 } as const;
    const clock = [{ ...idle, CLK: 1 } as const, idle];
    const shown = [0, 1, 2, 3].map((n) => after('HC165', { ...idle, PL: 0 }, idle, ...Array.from({ length: n }, () => clock).flat()).drive['Q7']);
    expect(shown).toEqual(['high', 'low', 'high', 'low']);
    expect(after('HC165', { ...idle, PL: 0 }, { ...idle, CE: 1 }, { ...idle, CE: 1, CLK: 1 }).drive['Q7']).toBe('high');
  });
  test('the serial register shifts by rising clocks and is cleared by its reset', () => {
    const one = { A: 1, B: 1, CLK: 0, MR: 1 } as const;
    const zero = { ...one, B: 0 } as const;
    const rounds = [one, { ...one, CLK: 1 } as const, zero, { ...zero, CLK: 1 } as const];
    expect(after('HC164', ...rounds).drive).toMatchObject({ Q0: 'low', Q1: 'high', Q2: 'low' });
    expect(after('HC164', ...rounds, { ...zero, MR: 0 }).drive).toMatchObject({ Q1: 'low' });
  });
  test('the latch follows while its gate is high, holds then, and lets go by its enable', () => {
    const data = { OE: 0, LE: 1, D0: 1, D1: 0, D2: 1, D3: 0, D4: 0, D5: 0, D6: 0, D7: 0 } as const;
    expect(after('HC573', data, { ...data, LE: 0 }, { ...data, LE: 0, D0: 0 }).drive).toMatchObject({ Q0: 'high', Q1: 'low', Q2: 'high' });
    expect(after('HC573', data, { ...data, OE: 1 }).drive['Q0']).toBe('z');
  });
  test('binary counters: twelve bits by falling clocks, four bits to fifteen', () => {
    const low = { CLK: 0, RST: 0 } as const;
    const six = Array.from({ length: 6 }, () => [{ ...low, CLK: 1 } as const, low]).flat();
    expect(after('C4040', low, ...six).drive).toMatchObject({ Q0: 'low', Q1: 'high', Q2: 'high', Q3: 'low' });
    const idle = { CLKA: 0, ENAA: 1, RSTA: 0, CLKB: 0, ENAB: 1, RSTB: 0 } as const;
    const clocks = (n: number) => Array.from({ length: n }, () => [{ ...idle, CLKA: 1 } as const, idle]).flat();
    expect(after('C4520', idle, ...clocks(10)).drive).toMatchObject({ Q3A: 'high', Q1A: 'high', Q0A: 'low' });
    expect(after('C4518', idle, ...clocks(10)).drive).toMatchObject({ Q3A: 'low', Q1A: 'low' });
  });
  test('multiplexers: one of eight, four of two', () => {
    const eight = { D0: 0, D1: 0, D2: 0, D3: 0, D4: 0, D5: 1, D6: 0, D7: 0, A: 1, B: 0, C: 1, E: 0 } as const;
    expect(after('HC151', eight).drive).toEqual({ Y: 'high', N: 'low' });
    expect(after('HC151', { ...eight, E: 1 }).drive).toEqual({ Y: 'low', N: 'high' });
    const four = { S: 0, E: 0, A1: 1, B1: 0, A2: 0, B2: 1, A3: 0, B3: 0, A4: 0, B4: 0 } as const;
    expect(after('HC157', four).drive).toMatchObject({ Y1: 'high', Y2: 'low' });
    expect(after('HC157', { ...four, S: 1 }).drive).toMatchObject({ Y1: 'low', Y2: 'high' });
  });
  test('every card has its supply and ground among its pins, in a body with so many legs', () => {
    expect(Object.keys(CARDS).length).toBeGreaterThanOrEqual(30);
    for (const [name, c] of Object.entries(CARDS)) {
      expect([name, c.pins.length]).toEqual([name, Number(/\d+/.exec(c.package)![0])]);
      for (const pin of [...c.inputs, ...c.outputs, c.ground, ...(c.supply === null ? [] : [c.supply])])
        expect([name, c.pins]).toEqual([name, expect.arrayContaining([pin])]);
    }
  });
  test('every chip of the library is found by its printed name', () => {
    for (const { name, printed } of LIBRARY) expect([printed, cardNamed(printed.split(' ')[0]!)]).toEqual([printed, name]);
    expect(cardNamed('74HCT165N')).toBe('HC165');
    expect(cardNamed('CD4071BE')).toBe('C4071');
  });
  test('the shift register shows what was shifted when the latch rises, not before', () => {
    const base = { MR: 1, SHCP: 0, STCP: 0, OE: 0, DS: 1 } as const;
    const shifted = [base, { ...base, SHCP: 1 } as const, base];
    expect(after('HC595', ...shifted).drive['Q0']).toBe('low');
    expect(after('HC595', ...shifted, { ...base, STCP: 1 }).drive['Q0']).toBe('high');
    expect(after('HC595', ...shifted, { ...base, STCP: 1, OE: 1 }).drive['Q0']).toBe('z');
  });
  test('the seven-segment decoder: 2 is a b d e g, beyond 9 nothing, lamp test all', () => {
    const of = (n: number, more: Readings = {}) => {
      const { drive } = after('C4511', {
        A: (n & 1) as 0 | 1,
        B: ((n >> 1) & 1) as 0 | 1,
        C: ((n >> 2) & 1) as 0 | 1,
        D: ((n >> 3) & 1) as 0 | 1,
        LT: 1,
        BI: 1,
        LE: 0,
        ...more,
      });
      return ['a', 'b', 'c', 'd', 'e', 'f', 'g'].filter((s) => drive[s] === 'high').join('');
    };
    expect([of(2), of(7), of(11), of(3, { LT: 0 }), of(8, { BI: 0 })]).toEqual(['abdeg', 'abc', '', 'abcdefg', '']);
  });
});

describe('a healthy board', () => {
  test('does what its functions say, with volts as the circuit core solves them', () => {
    const { nodes } = operatingPoint(readDeck(`* lit\nV1 v 0 5\nRO v o1 50\nR2 o1 a1 330\nD1 a1 0 LR\nRM o1 0 10meg\n${MODELS}`).circuit);
    expect(expectation(board())).toEqual([
      { check: 'rest', saw: ['dark', 'dark'] },
      { check: 'key1', saw: ['lit', 'dark'] },
      { check: 'key2', saw: ['dark', 'lit'] },
      { check: 'v-o1', saw: [expect.closeTo(nodes['o1']!, 3)] },
    ]);
  });
  test('law: seen as expected, it is held healthy', () => {
    const d = new LogicDiagnoser(board());
    const { suspects, unexplained } = d.suspects(expectation(d.board));
    expect(suspects[0]!.fault.kind).toBe('healthy');
    expect(suspects.reduce((sum, s) => sum + s.probability, unexplained)).toBeCloseTo(1, 9);
  });
});

describe('what a key and a lamp prove', () => {
  const d = new LogicDiagnoser(board());
  test('one dark lamp whose pin has its volts: the lamp or its joint, not the chip', () => {
    const { suspects, groups } = d.suspects(saw({ rest: ['dark', 'dark'], key1: ['dark', 'dark'], key2: ['dark', 'lit'], 'v-o1': [5.0] }));
    const first = suspects.slice(0, 3).map((s) => `${s.fault.kind} ${s.fault.parts.join()}`);
    expect(first.sort()).toEqual(['open D1', 'open R2', 'reversed D1']);
    expect(groups.some((g) => g.length >= 3)).toBe(true);
  });
  test('both keys light both lamps: a bridge between the keys', () => {
    expect(d.suspects(saw({ rest: ['dark', 'dark'], key1: ['lit', 'lit'], key2: ['lit', 'lit'] })).suspects[0]!.fault).toMatchObject({ kind: 'bridge' });
  });
  test('nothing works: an unprogrammed chip stands among the first', () => {
    const kinds = d
      .suspects(saw({ rest: ['dark', 'dark'], key1: ['dark', 'dark'], key2: ['dark', 'dark'] }))
      .suspects.slice(0, 8)
      .map((s) => s.fault.kind);
    expect(kinds).toContain('blank');
  });
  test('one item wrongly noted is named as doubtful', () => {
    const told = saw({ rest: ['dark', 'dark'], key1: ['lit', 'dark'], key2: ['lit', 'lit'], 'v-o1': [5] });
    const { doubts } = d.suspects(told);
    expect(doubts.some((x) => x.check === 'key2' && x.item === 0 && x.probability > 0.02)).toBe(true);
  });
  test('what cannot be on one board is said to be unexplained', () => {
    expect(d.suspects(saw({ rest: ['lit', 'dim'], key1: ['dark', 'lit'], key2: ['dim', 'dark'], 'v-o1': [2.1] })).unexplained).toBeGreaterThan(0.5);
  });
  test('the next check is one that was not done and tells something; when all is told there is none', () => {
    expect(d.next([])).not.toBeNull();
    expect(d.next(expectation(d.board))).toBeNull();
  });
});

describe('what is wrong is said with its place', () => {
  const d = new LogicDiagnoser(board());
  test.each([
    [saw({ nope: [] }), /no check “nope”/],
    [saw({ rest: ['dark'] }), /check rest: 1 values for 2 items/],
    [saw({ rest: ['dark', 'bright'] }), /item 2: “bright”/],
    [saw({ 'v-o1': ['5 V'] }), /is not volts/],
    [[...saw({ rest: ['dark', 'dark'] }), ...saw({ rest: ['dark', 'dark'] })], /given twice/],
  ])('%j', (results, message) => {
    expect(() => d.suspects(results)).toThrow(message);
  });
  test.each([
    [{ deck: undefined }, /no “deck”/],
    [{ chips: [{ ref: 'U1', card: 'HC9999', pins: {} }] }, /card “HC9999” is not known/],
    [{ neighbours: [['k1', 'nowhere']] }, /no net is called nowhere/],
    [{ checks: [{ id: 'x', do: [{ press: 'K9' }], see: [], cost: 1 }] }, /no key K9/],
    [{ checks: [{ id: 'x', do: [], see: [{ what: 'smell', part: 'D1' }], cost: 1 }] }, /“smell” cannot be seen/],
  ])('%j', (more, message) => {
    expect(() => board(more)).toThrow(message);
  });
});
