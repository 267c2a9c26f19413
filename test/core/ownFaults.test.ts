/**
 * Faults of networks, tracks, chips, contacts and supplies: on a board that has one it stands first, on a healthy one and on one
 * with another fault it does not. Readings are those of the faulty circuit itself, solved at rest.
 */
import { operatingPoint, steadyState, statisticsOf } from '@/core/circuit';
import { diagnoserOf, findSuspects } from '@/core/diagnose';
import { applyFault, type Fault, faultKey, faultTitle } from '@/core/fault';
import { type KitState, type Line, sheetWith, type Stage } from '@/core/kit';
import { namingOf } from '@/core/loop';
import { boardOf, circuitAt, circuitOf, setupOf } from '@/core/stage';
import { FLASHER, PROGRAMMED, ROWS_OF_PINS } from '../support/decks';
import { investigationOf, kitOf, log } from '../support/kits';

const line = (kind: Line['kind'], value: number | null, ...refs: string[]): Line => ({
  id: refs.join(),
  refs,
  kind,
  value,
  tolerance: [-0.01, 0.01],
  label: refs.join(),
  quantity: refs.length,
});
const LINES: Line[] = [
  ...([1, 1, 2, 3, 10, 5, 4, 6, 8, 5, 4, 9, 4.7] as const).map((k, i) => line('resistor', 1000 * k, `R${i + 1}`)),
  line('network', null, 'RN1'),
  line('trimmer', 10000, 'RV1'),
  { ...line('ic', null, 'U1'), type: 'CHIP' },
  { ...line('ic', null, 'U2'), type: 'OTHER' },
  line('link', null, 'W1'),
  line('switch', null, 'S1'),
];
const NETS = ['vc', 'p', 'q1', 'q2', 'q3', 'vl', 'w', 'a', 's', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
const CHECKS: Stage['checks'] = [...NETS.map((net) => ({ id: net, what: 'measure', title: net, mode: 'dcv', red: { net }, black: { net: '0' } }) as const)];
const kit = (): KitState =>
  kitOf(
    sheetWith({
      title: 'rows of pins',
      lines: LINES,
      circuit: { deck: ROWS_OF_PINS, neighbours: [] },
      stages: [
        { id: 'on', title: 'On', kind: 'power', fits: LINES.flatMap((l) => l.refs), supplies: [{ source: 'V1', volts: 9, limit: 0.2 }], checks: CHECKS },
      ],
    }),
  );

/** What is suspected when a board (of one stage, volts of some nets) shows what this fault makes of it. */
function suspected(fault: Fault, k = kit(), nets = NETS) {
  const setup = setupOf(k);
  const whole = circuitOf(setup.sheet);
  const circuit = circuitAt(setup, whole, k.sheet.stages[0]!);
  const { nodes } = operatingPoint(applyFault(circuit, boardOf(setup, whole), fault).circuit);
  const read = log(k, ...nets.map((net) => ({ kind: 'read', stage: 'on', check: net, reading: nodes[net] ?? 0, meter: 'handheld' }) as const));
  const investigation = investigationOf(read)!;
  return findSuspects(investigation, diagnoserOf(investigation));
}

const one = (kind: 'open' | 'turned' | 'reversed-supply', part: string): Fault => ({ kind, parts: [part], detail: {} });
const OWN: Fault[] = [
  one('turned', 'RN1'),
  one('turned', 'RV1'),
  one('turned', 'U1'),
  one('open', 'U2'),
  { kind: 'swapped', parts: ['U1', 'U2'], detail: {} },
  { kind: 'open-pin', parts: ['RN1'], detail: { pin: '3' } },
  { kind: 'open-pin', parts: ['RV1'], detail: { pin: '3' } },
  { kind: 'open-pin', parts: ['U1'], detail: { pin: '8' } },
  one('reversed-supply', 'V1'),
  one('open', 'W1'),
  one('open', 'S1'),
];
const keys = new Set(OWN.map(faultKey));

test.each(OWN.map((f) => [faultKey(f), f] as const))('%s stands first on a board that has it', (key, fault) => {
  const { suspects, alike } = suspected(fault);
  const group = alike.find((g) => g.includes(0)) ?? [0];
  expect(group.map((i) => suspects[i]!.faults.map(faultKey).join())).toContain(key);
});
test('on a healthy board, and with a plain resistor open, none of them is', () => {
  for (const [fault, first] of [
    [{ kind: 'healthy', parts: [], detail: {} }, ''],
    [one('open', 'R3'), 'open|R3'],
  ] as const) {
    const { suspects } = suspected(fault);
    expect(suspects[0]!.faults.map(faultKey).join()).toBe(first);
    const own = suspects.filter((s) => s.faults.some((f) => keys.has(faultKey(f))));
    expect(own.reduce((sum, s) => sum + s.probability, 0)).toBeLessThan(0.1);
  }
});

describe('jumpers, links, loads and strangers', () => {
  const deck = `A board with a jumper
V1 vcc 0 9
R1 vcc a 1k
R2 a 0 2k
R3 a b 4.7k
R4 b 0 10k
R5 c 0 3.3k
R6 d 0 680
R7 e 0 5.6k
RLOAD b 0 22k
.end`;
  const lines = ([1000, 2000, 4700, 10000, 3300, 680, 5600] as const).map((ohms, i) => line('resistor', ohms, `R${i + 1}`));
  const nets = ['vcc', 'a', 'b', 'c', 'd', 'e'];
  const bare = kitOf(
    sheetWith({
      title: 'a jumper',
      lines,
      circuit: { deck, neighbours: [] },
      options: [
        {
          id: 'range',
          text: 'Range',
          choices: ['low', 'high', 'none'],
          links: [
            { choice: 'low', nets: ['b', 'c'] },
            { choice: 'high', nets: ['b', 'd'] },
          ],
        },
      ],
      stages: [
        {
          id: 'on',
          title: 'On',
          kind: 'power',
          fits: lines.flatMap((l) => l.refs),
          supplies: [{ source: 'V1', volts: 9, limit: 0.2 }],
          checks: nets.map((net) => ({ id: net, what: 'measure', title: net, mode: 'dcv', red: { net }, black: { net: '0' } })),
        },
      ],
    }),
  );
  const board = log(
    bare,
    { kind: 'modified', change: { what: 'strap', option: 'range', choice: 'low' } },
    { kind: 'modified', change: { what: 'link', nets: ['a', 'e'] } },
  );
  const stranger = log(board, { kind: 'loose', part: 'R', reading: 1500, marking: null, polarity: null, meter: 'handheld' });
  const strange = [...stranger.loose.keys()][0]!;
  const withStranger = log(stranger, { kind: 'sorted', pieces: [{ loose: strange, line: null }] });
  const first = (fault: Fault, k = board) => suspected(fault, k, nets).suspects[0]!.faults.map(faultKey).join();

  // Expected: what was put in comes out first; the volts are those of the faulty circuit.
  test.each<[string, Fault]>([
    ['the jumper sits in the other position', { kind: 'strap', parts: [], detail: { option: 'Range', choice: 'high' } }],
    ['the jumper is missing', { kind: 'strap', parts: [], detail: { option: 'Range', choice: 'none' } }],
    ['the link that was added has come off', one('open', 'Link from a to e')],
    ['the load does not hang on it', one('open', 'RLOAD')],
  ])('%s', (_, fault) => {
    expect(first(fault)).toBe(faultKey(fault));
    expect(faultTitle(fault)).toMatch(/Range|Link from a to e|RLOAD/);
  });
  test('a value that only a stranger of the parcel has is thought of once it turned up', () => {
    const fault: Fault = { kind: 'wrong-value', parts: ['R5'], detail: { value: 1500 } };
    expect(first(fault)).not.toBe(faultKey(fault));
    expect(first(fault, withStranger)).toBe(faultKey(fault));
  });
  test('on a healthy board none of them is suspected', () => {
    const { suspects } = suspected({ kind: 'healthy', parts: [], detail: {} }, withStranger, nets);
    expect(suspects[0]!.faults).toEqual([]);
    expect(suspects[0]!.probability).toBeGreaterThan(0.8);
  });
});

describe('a programmed chip', () => {
  const lines = [
    ...([10000, 1000, 2200, 4700, 10000] as const).map((ohms, i) => line('resistor', ohms, `R${i + 1}`)),
    { ...line('microcontroller', null, 'U1'), type: 'CONTROLLER' },
  ];
  const nets = ['vc', 'in', 'high', 'a', 'half', 'b'];
  const board = (chip: Line['kind']) =>
    kitOf(
      sheetWith({
        title: 'a programmed chip',
        lines: lines.map((l) => (l.refs[0] === 'U1' ? { ...l, kind: chip } : l)),
        circuit: { deck: PROGRAMMED, neighbours: [] },
        stages: [
          {
            id: 'on',
            title: 'On',
            kind: 'power',
            fits: lines.flatMap((l) => l.refs),
            supplies: [{ source: 'V1', volts: 5, limit: 0.2 }],
            checks: nets.map((net) => ({ id: net, what: 'measure', title: net, mode: 'dcv', red: { net }, black: { net: '0' } })),
          },
        ],
      }),
    );
  const blank: Fault = { kind: 'blank', parts: ['U1'], detail: {} };
  const stuck = (pin: string, level: 'high' | 'low'): Fault => ({ kind: 'stuck', parts: ['U1'], detail: { level, pin } });
  const ranked = (fault: Fault, chip: Line['kind'] = 'microcontroller') =>
    suspected(fault, board(chip), nets).suspects.map((s) => ({ key: s.faults.map(faultKey).join(), probability: s.probability }));

  // Without its program, and without its ground pin, nothing is driven: what draws current in the chip alone differs, and no volts tell.
  test('without its program it drives nothing: it stands first with what no volts tell from it', () => {
    const { suspects, alike } = suspected(blank, board('microcontroller'), nets);
    const group = (alike.find((g) => g.includes(0)) ?? [0]).map((i) => suspects[i]!.faults.map(faultKey).join());
    expect(group).toContain(faultKey(blank));
    expect(group.every((key) => /^(?:blank|open|open-pin)\|U1/.test(key))).toBe(true);
  });
  test('a chip that is no controller is never blank', () => {
    expect(ranked(blank, 'ic').map((s) => s.key)).not.toContain(faultKey(blank));
  });
  test.each([stuck('4', 'low'), stuck('5', 'high')].map((f) => [faultTitle(f), f] as const))('%s', (_, fault) => {
    expect(ranked(fault)[0]!.key).toBe(faultKey(fault));
  });
  test('on a healthy board, and with a resistor open, neither is suspected', () => {
    for (const fault of [{ kind: 'healthy', parts: [], detail: {} }, one('open', 'R3')] as const) {
      const own = ranked(fault).filter((s) => /^(?:blank|stuck)/.test(s.key));
      expect(own.reduce((sum, s) => sum + s.probability, 0)).toBeLessThan(0.1);
    }
  });
});

describe('a capacitor of a wrong decade', () => {
  const measures = [
    { id: 'f', mode: 'frequency', net: 'c1' },
    { id: 'c1', mode: 'dcv', net: 'c1' },
    { id: 'c2', mode: 'dcv', net: 'c2' },
  ] as const;
  const lines = [
    ...['R1', 'R2'].map((r) => line('resistor', 1000, r)),
    ...['R3', 'R4'].map((r) => line('resistor', 47000, r)),
    ...['C1', 'C2'].map((r) => line('capacitor', 1e-6, r)),
    ...['Q1', 'Q2'].map((r) => ({ ...line('npn', null, r), type: 'NS' })),
  ];
  const flasher = kitOf(
    sheetWith({
      title: 'flasher',
      lines,
      circuit: { deck: FLASHER, neighbours: [] },
      stages: [
        {
          id: 'run',
          title: 'Running',
          kind: 'run',
          fits: lines.flatMap((l) => l.refs),
          supplies: [{ source: 'V1', volts: 9, limit: 0.2 }],
          checks: measures.map(({ id, mode, net }) => ({ id, what: 'measure', title: id, mode, red: { net }, black: { net: '0' } })),
        },
      ],
    }),
  );
  const fault: Fault = { kind: 'wrong-value', parts: ['C1'], detail: { value: 1e-7 } };

  test('on a board that runs it is found by its beat, and said in farads', () => {
    const setup = setupOf(flasher);
    const whole = circuitOf(setup.sheet);
    const faulty = applyFault(circuitAt(setup, whole, flasher.sheet.stages[0]!), boardOf(setup, whole), fault).circuit;
    const { settled } = steadyState(faulty, ['c1', 'c2'], {});
    const of = (net: string) => statisticsOf(settled.times, settled.volts[net]!);
    const seen = { f: of('c1').frequency!, c1: of('c1').average, c2: of('c2').average };
    const read = log(flasher, ...measures.map(({ id }) => ({ kind: 'read', stage: 'run', check: id, reading: seen[id], meter: 'handheld' }) as const));
    const investigation = investigationOf(read)!;
    const { suspects } = findSuspects(investigation, diagnoserOf(investigation));
    expect(suspects[0]!.faults.map(faultKey)).toEqual([faultKey(fault)]);
    expect(namingOf(flasher)(fault).unit).toBe('F');
  });
  test('on a board at rest it is not thought of: nothing there would tell', () => {
    const resting = suspected(one('open', 'R13'));
    expect(resting.suspects.flatMap((s) => s.faults).filter((f) => f.kind === 'wrong-value' && f.parts[0].startsWith('C'))).toEqual([]);
  });
});

test('a short on a board that should run: the supply stands in its limit, nothing beats, and the capacitor across it is found', () => {
  const lines = [
    line('resistor', 1000, 'R1', 'R2'),
    line('resistor', 47000, 'R3', 'R4'),
    line('capacitor', 1e-6, 'C1', 'C2'),
    line('electrolytic', 1e-4, 'C3'),
    { ...line('npn', null, 'Q1', 'Q2'), type: 'NS' },
  ];
  const volts = (net: string, mode: 'dcv' | 'frequency' = 'dcv') =>
    ({ id: `${net} ${mode}`, what: 'measure', title: net, mode, red: { net }, black: { net: '0' } }) as const;
  const limit = 0.1;
  const flasher = kitOf(
    sheetWith({
      title: 'flasher with a reservoir',
      lines,
      circuit: { deck: FLASHER.replace('Q1 c1', 'C3 vcc 0 100u\nQ1 c1'), neighbours: [] },
      stages: [
        {
          id: 'run',
          title: 'Running',
          kind: 'run',
          fits: lines.flatMap((l) => l.refs),
          supplies: [{ source: 'V1', volts: 9, limit }],
          checks: [volts('vcc'), volts('c1'), volts('c1', 'frequency'), { ...volts('vcc'), id: 'current', mode: 'dca', source: 'V1' }],
        },
      ],
    }),
  );
  const seen = { current: limit, 'vcc dcv': limit / 10, 'c1 dcv': limit / 10, 'c1 frequency': 0 };
  const read = log(flasher, ...Object.entries(seen).map(([check, reading]) => ({ kind: 'read', stage: 'run', check, reading, meter: 'handheld' }) as const));
  const investigation = investigationOf(read)!;
  const { suspects } = findSuspects(investigation, diagnoserOf(investigation));
  expect(suspects[0]!.faults.map(faultKey)).toEqual([faultKey({ kind: 'short', parts: ['C3'], detail: {} })]);
  // With a healthy reservoir the same flasher beats: no short is thought of.
  const beating = log(
    flasher,
    ...Object.entries({ current: 0.0165, 'vcc dcv': 9, 'c1 frequency': 15.2 }).map(
      ([check, reading]) => ({ kind: 'read', stage: 'run', check, reading, meter: 'handheld' }) as const,
    ),
  );
  const healthy = investigationOf(beating)!;
  const shorted = findSuspects(healthy, diagnoserOf(healthy)).suspects.filter((s) => s.faults.some((f) => f.kind === 'short'));
  expect(shorted.reduce((sum, s) => sum + s.probability, 0)).toBeLessThan(0.01);
});
