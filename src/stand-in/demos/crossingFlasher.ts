import type { Line, Sheet, Stage } from '@/core/kit';
import { BURST, electrolytic, hertz, look, ohms, places, resistor, supplyCurrent, typed, volts } from './parts';

/** Level-crossing flasher for a model railway: a guard diode and two stages that light their lamps in turn. */
const DECK = `Crossing flasher: two red lamps in turn
V1 vin 0 9
D3 vin vcc DSMALL
C3 vcc 0 100u
R1 vcc l1 470
D1 l1 c1 LEDRED
R3 vcc b1 47k
C1 c1 b2 10u
Q1 c1 b1 0 NSMALL
R2 vcc l2 470
D2 l2 c2 LEDRED
R4 vcc b2 47k
C2 c2 b1 10u
Q2 c2 b2 0 NSMALL
.ic V(c1)=0 V(b2)=-3
.model DSMALL D(IS=4E-9 N=1.9 RS=0.6 BV=100 IBV=1E-5)
.model LEDRED D(IS=7.7E-18 N=2 RS=2 BV=30 IBV=1E-5)
.model NSMALL NPN(IS=1.5E-14 BF=250 NF=1 VAF=80 BR=4 RC=0.5 RE=0.1)
.end
`;

const LINES: readonly Line[] = [
  resistor('r-470', 470, '470 Ω', ['R1', 'R2']),
  resistor('r-47k', 47_000, '47 k', ['R3', 'R4']),
  electrolytic('c-10u', 1e-5, '10 µF 25 V', ['C1', 'C2'], 25),
  electrolytic('c-100u', 1e-4, '100 µF 16 V', ['C3'], 16),
  typed('d-4148', 'diode', '1N4148', ['D3'], { type: 'DSMALL' }),
  typed('led-red', 'led', 'LED red, 3 mm', ['D1', 'D2'], { colour: 'red' }),
  typed('q-npn', 'npn', 'BC547', ['Q1', 'Q2'], { type: 'NSMALL', range: [110, 450] }),
  typed('j-2', 'connector', 'Screw block, 2 poles', ['J1']),
];

const STAGES: readonly Stage[] = [
  {
    id: 'look',
    title: 'Look it over',
    kind: 'look',
    fits: LINES.flatMap((l) => l.refs),
    supplies: [],
    checks: [
      look('bridges', 'solder side', 'Hold the solder side under a lens.', 'No bridges, no missed or grey joints.'),
      look('polarity', 'orientation', 'Compare C1 to C3, D1 to D3, Q1 and Q2 with the print.', 'Stripes, flats and long legs agree with the board.'),
    ],
  },
  {
    id: 'cold',
    title: 'Cold: ohms on the rail',
    kind: 'cold',
    note: 'Battery off, capacitors discharged.',
    fits: [],
    supplies: [],
    checks: [ohms('rail', 'rail to ground', 'vcc', '0'), ohms('guard', 'input against the guard diode', 'vcc', 'vin')],
  },
  {
    id: 'run',
    title: '9 V: it runs',
    kind: 'run',
    note: 'A meter shows averages on a board that runs: wait until the display has settled.',
    fits: [],
    supplies: [{ source: 'V1', volts: 9, limit: 0.05, feed: 'dc' }],
    cautions: [BURST],
    checks: [
      supplyCurrent('V1', 'vin'),
      volts('TP1', 'behind the guard diode'),
      volts('TP2', 'collector of Q1, average'),
      volts('TP3', 'collector of Q2, average'),
      volts('TP4', 'base of Q1, average'),
      volts('TP5', 'base of Q2, average'),
      hertz('TP2', 'flashes'),
      look('turn', 'lamps', 'Watch both lamps for ten seconds.', 'They light in turn, each about half a second.'),
    ],
  },
];

export const CROSSING_FLASHER: Sheet = {
  title: 'Crossing flasher',
  maker: 'Hollowmere railway kits',
  edition: 'board rev A',
  note: 'Two lamps for a level crossing in H0. 9 V battery or adapter.',
  boards: [{ id: 'A', name: 'Flasher', revision: 'A' }],
  lines: LINES,
  needs: [{ id: 'psu', kind: 'supply', text: '9 V battery or adapter, 100 mA', volts: 9, amperes: 0.1 }],
  options: [],
  circuit: {
    deck: DECK,
    neighbours: [
      ['c1', 'b2'],
      ['c2', 'b1'],
      ['b1', 'b2'],
      ['vcc', 'l1'],
      ['l2', 'vcc'],
      ['c1', '0'],
    ],
  },
  testPoints: [
    { id: 'TP1', net: 'vcc', where: 'stripe end of D3', x: 16, y: 12 },
    { id: 'TP2', net: 'c1', where: 'collector of Q1, left-hand leg', x: 22, y: 40 },
    { id: 'TP3', net: 'c2', where: 'collector of Q2, left-hand leg', x: 52, y: 40 },
    { id: 'TP4', net: 'b1', where: 'base of Q1, middle leg', x: 26, y: 42 },
    { id: 'TP5', net: 'b2', where: 'base of Q2, middle leg', x: 56, y: 42 },
  ],
  symbols: [],
  placement: places([
    ['J1', 6, 24, 90],
    ['D3', 16, 8, 0],
    ['C3', 16, 22, 0],
    ['R1', 32, 8, 0],
    ['R3', 32, 16, 0],
    ['R4', 48, 16, 0],
    ['R2', 48, 8, 0],
    ['C1', 32, 28, 0],
    ['C2', 48, 28, 0],
    ['Q1', 26, 38, 0],
    ['Q2', 56, 38, 0],
    ['D1', 66, 12, 0],
    ['D2', 66, 34, 0],
  ]),
  stages: STAGES,
  claims: [{ id: 'rate', text: 'Each lamp flashes about 65 to 90 times a minute.' }],
  typeCards: [],
  pads: [],
  photos: [],
  constraints: [],
  differences: [],
  functions: null,
};
