import { MODELS } from '@/core/circuit';
import type { Line, Sheet, Stage } from '@/core/kit';
import { BURST, capacitor, electrolytic, look, ohms, places, resistor, supplyCurrent, typed, volts } from './parts';

/** Wind dial: a mast board with a reed switch and a comparator, a dial board with a regulator, a socketed controller and lamps; one lead between them. */
const DECK = `Wind dial: mast board and dial board
V1 vin 0 12
* Dial board
DD1 vin raw DRECT
CD1 raw 0 220u
XDU2 raw 0 v5 REGULATOR v=5
CD2 v5 0 10u
RD1 v5 reset 10k
CD3 reset 0 100n
RD2 v5 lamp 470
DD2 lamp 0 LEDGRN
RD3 v5 unit 22k
RD4 o1 la1 470
DD3 la1 0 LEDRED
XDU1 v5 0 reset sig unit o1 nc1 nc2 CONTROLLER
* Lead: supply, ground, pulse line
* Mast board
CM1 v5 0 100n
RM1 v5 reed 10k
RMS1 reed 0 1G
CM2 reed 0 10n
RM2 v5 ref 10k
RM3 ref 0 10k
XMU1 reed ref v5 0 sig COMPARATOR
RM4 v5 sig 4.7k
RM5 reed sig 1MEG
* A controller of which only the pins are known
.subckt CONTROLLER p1 p2 p3 p4 p5 p6 p7 p8
.ends CONTROLLER
${MODELS.openCollector.text}
${MODELS.regulator.text}
.model DRECT D(IS=7E-9 N=1.8 RS=0.04 BV=400 IBV=1E-5)
.model LEDGRN D(IS=2.3E-20 N=2 RS=3 BV=30 IBV=1E-5)
.model LEDRED D(IS=7.7E-18 N=2 RS=2 BV=30 IBV=1E-5)
.end
`;

const LINES: readonly Line[] = [
  resistor('m-10k', 10_000, '10 k', ['M:R1', 'M:R2', 'M:R3']),
  resistor('m-4k7', 4700, '4.7 k', ['M:R4']),
  resistor('m-1m', 1e6, '1 M', ['M:R5']),
  capacitor('m-100n', 1e-7, '100 nF', ['M:C1']),
  capacitor('m-10n', 1e-8, '10 nF', ['M:C2']),
  typed('m-u', 'opamp', 'Comparator, 8 pins', ['M:U1']),
  typed('m-reed', 'switch', 'Reed switch', ['M:S1']),
  typed('m-sk', 'socket', 'Socket, 8 pins', ['M:SK1']),
  resistor('d-10k', 10_000, '10 k', ['D:R1']),
  resistor('d-470', 470, '470 Ω', ['D:R2', 'D:R4']),
  resistor('d-22k', 22_000, '22 k', ['D:R3']),
  electrolytic('d-220u', 2.2e-4, '220 µF 25 V', ['D:C1'], 25),
  electrolytic('d-10u', 1e-5, '10 µF 25 V', ['D:C2'], 25),
  capacitor('d-100n', 1e-7, '100 nF', ['D:C3']),
  typed('d-4007', 'diode', '1N4007', ['D:D1'], { type: 'DRECT' }),
  typed('d-green', 'led', 'LED green', ['D:D2'], { colour: 'green' }),
  typed('d-red', 'led', 'LED red', ['D:D3'], { colour: 'red' }),
  typed('d-reg', 'regulator', '7805-like regulator', ['D:U2'], { package: 'TO-220' }),
  typed('d-ctl', 'microcontroller', 'Controller, programmed', ['D:U1'], { package: 'DIP-8' }),
  typed('d-sk', 'socket', 'Socket, 8 pins', ['D:SK1']),
  typed('lead', 'connector', 'Lead, 3 wires', ['D:J1', 'M:J1']),
];

/** Elements of the deck: a board's letter stands in front of the part's number. */
const ELEMENTS: Readonly<Record<string, string>> = {
  ...Object.fromEntries([1, 2, 3, 4, 5].map((i) => [`M:R${i}`, `RM${i}`])),
  'M:C1': 'CM1',
  'M:C2': 'CM2',
  'M:U1': 'XMU1',
  'M:S1': 'RMS1',
  ...Object.fromEntries([1, 2, 3, 4].map((i) => [`D:R${i}`, `RD${i}`])),
  'D:C1': 'CD1',
  'D:C2': 'CD2',
  'D:C3': 'CD3',
  'D:D1': 'DD1',
  'D:D2': 'DD2',
  'D:D3': 'DD3',
  'D:U1': 'XDU1',
  'D:U2': 'XDU2',
};

const CHIPS = ['M:U1', 'D:U1'];
const MAST = LINES.flatMap((l) => l.refs).filter((r) => r.startsWith('M:') && !CHIPS.includes(r));
const DIAL = LINES.flatMap((l) => l.refs).filter((r) => r.startsWith('D:') && !CHIPS.includes(r));
const SUPPLY = [{ source: 'V1', volts: 12, limit: 0.1 }];

const STAGES: readonly Stage[] = [
  {
    id: 'dial-look',
    title: 'Dial board: look it over',
    kind: 'look',
    fits: DIAL,
    supplies: [],
    checks: [
      look('bridges', 'solder side of the dial board', 'Hold it under a lens.', 'No bridges, no missed or grey joints.'),
      look(
        'polarity',
        'orientation on the dial board',
        'Compare D1 to D3, C1, C2 and U2 with the print.',
        'Stripes, long legs and the tab agree with the board.',
      ),
    ],
  },
  {
    id: 'dial-cold',
    title: 'Dial board, cold',
    kind: 'cold',
    note: 'Supply unplugged, lead not plugged in, socket empty.',
    fits: [],
    without: MAST,
    supplies: [],
    checks: [ohms('v5', '5 V rail to ground', 'v5', '0'), ohms('raw', 'reservoir to ground', 'raw', '0')],
  },
  {
    id: 'dial-power',
    title: 'Dial board at 12 V, socket empty',
    kind: 'power',
    note: 'Lead not plugged in. Pins of the empty socket are measured before the controller goes in.',
    fits: [],
    without: MAST,
    supplies: SUPPLY,
    cautions: [BURST],
    checks: [
      supplyCurrent('V1', 'vin'),
      volts('TP1', 'reservoir'),
      volts('TP2', 'socket pin 1, supply'),
      volts('TP3', 'socket pin 3, reset'),
      volts('TP4', 'socket pin 5, unit strap'),
      look('green', 'green lamp', 'Look at D2 on the dial board.', 'It is lit.', { ref: 'D:D2', amperes: 0.002 }),
    ],
  },
  {
    id: 'mast',
    title: 'Mast board on its lead, comparator in',
    kind: 'power',
    note: 'Supply off while the comparator goes in and the lead is plugged. The reed is open: no magnet near it.',
    fits: [...MAST, 'M:U1'],
    supplies: SUPPLY,
    settings: [{ ref: 'M:S1', value: 1e9, text: 'no magnet at the reed' }],
    checks: [
      supplyCurrent('V1', 'vin'),
      volts('TP2', 'supply, at the mast too'),
      volts('TP6', 'reed, open'),
      volts('TP7', 'reference'),
      volts('TP8', 'pulse line, high'),
    ],
  },
  {
    id: 'magnet',
    title: 'Magnet at the reed',
    kind: 'run',
    fits: [],
    supplies: SUPPLY,
    settings: [{ ref: 'M:S1', value: 0.2, text: 'magnet at the reed' }],
    checks: [volts('TP6', 'reed, closed'), volts('TP8', 'pulse line, low')],
  },
  {
    id: 'dial-run',
    title: 'Controller in',
    kind: 'run',
    note: 'Supply off while the controller goes in; notch to notch.',
    fits: ['D:U1'],
    supplies: SUPPLY,
    settings: [{ ref: 'M:S1', value: 1e9, text: 'no magnet at the reed' }],
    checks: [
      volts('TP2', 'socket pin 1, supply'),
      look('turns', 'dial', 'Turn the cups by hand.', 'The red lamp blinks with every turn, faster when you turn faster.'),
      look('unit', 'unit', 'Set the strap to the other unit.', 'The dial shows about a third or three times as much.'),
    ],
  },
];

export const WIND_DIAL: Sheet = {
  title: 'Wind dial',
  maker: 'Hollowmere garden kits',
  edition: 'boards rev A',
  note: 'Cups on a mast, a dial in the shed; three wires between them. 12 V only.',
  boards: [
    { id: 'M', name: 'Mast board', revision: 'A' },
    { id: 'D', name: 'Dial board', revision: 'A' },
  ],
  lines: LINES,
  needs: [{ id: 'psu', kind: 'supply', text: '12 V DC, at least 100 mA', volts: 12, amperes: 0.1 }],
  options: [{ id: 'unit', text: 'Unit of the dial', choices: ['km/h', 'm/s'], links: [{ choice: 'm/s', nets: ['unit', '0'] }] }],
  circuit: {
    deck: DECK,
    elements: ELEMENTS,
    neighbours: [
      ['vin', 'raw'],
      ['raw', 'v5'],
      ['v5', 'reset'],
      ['reset', 'unit'],
      ['reed', 'ref'],
      ['v5', 'sig'],
      ['ref', '0'],
      ['sig', 'reed'],
    ],
  },
  testPoints: [
    { id: 'TP1', net: 'raw', where: 'dial board, stripe end of D1', x: 100, y: 12 },
    { id: 'TP2', net: 'v5', where: 'dial board, socket pin 1', x: 130, y: 40 },
    { id: 'TP3', net: 'reset', where: 'dial board, socket pin 3', x: 135, y: 40 },
    { id: 'TP4', net: 'unit', where: 'dial board, socket pin 5', x: 138, y: 32 },
    { id: 'TP6', net: 'reed', where: 'mast board, upper end of the reed', x: 24, y: 12 },
    { id: 'TP7', net: 'ref', where: 'mast board, socket pin 2', x: 40, y: 30 },
    { id: 'TP8', net: 'sig', where: 'mast board, socket pin 1', x: 37, y: 30 },
  ],
  symbols: [],
  placement: places([
    ['M:J1', 6, 20, 90],
    ['M:S1', 20, 8, 0],
    ['M:R1', 20, 18, 0],
    ['M:C2', 20, 28, 0],
    ['M:R2', 34, 8, 0],
    ['M:R3', 34, 16, 0],
    ['M:U1', 40, 28, 0],
    ['M:C1', 54, 28, 0],
    ['M:R5', 52, 8, 0],
    ['M:R4', 52, 16, 0],
    ['D:J1', 84, 40, 90],
    ['D:D1', 94, 8, 0],
    ['D:C1', 94, 22, 0],
    ['D:U2', 110, 12, 0],
    ['D:C2', 122, 22, 0],
    ['D:R1', 134, 8, 0],
    ['D:C3', 148, 8, 0],
    ['D:R3', 134, 18, 0],
    ['D:U1', 134, 36, 0],
    ['D:R2', 106, 36, 0],
    ['D:D2', 106, 46, 0],
    ['D:R4', 154, 30, 0],
    ['D:D3', 154, 42, 0],
  ]),
  stages: STAGES,
  claims: [{ id: 'low', text: 'The pulse line goes below 0.5 V when the magnet passes.' }],
  typeCards: [],
  pads: [],
  photos: [],
  constraints: [],
  differences: [],
  functions: null,
};
