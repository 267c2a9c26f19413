import type { Line, Sheet, Stage } from '@/core/kit';
import { BURST, ohms, resistor, supplyCurrent, volts } from './parts';

/** Greenhouse frost sentinel: guard diode, zener follower, thermistor bridge, comparator with hysteresis, relay driver. */
const DECK = `Frost sentinel: switches a heater relay when the greenhouse nears freezing
V1 vin 0 12
D1 vin vcc DRECT
C1 vcc 0 220u
R1 vcc pl 1.5k
D4 pl 0 LEDGRN
R2 vcc z 680
D2 0 z Z5V6
Q1 vcc z v5 NSMALL
C2 v5 0 10u
R3 v5 0 4.7k
R4 v5 ts 10k
RTH1 ts 0 12.5k
C3 ts 0 100n
R5 v5 rf 3.3k
RVR1 rf rs 5k
R6 rs 0 4.7k
C4 rf 0 100n
R7 rf n 10k
R9 ts p 10k
R8 out p 1MEG
XU1 p n vcc 0 out COMPARE
R10 out b 4.7k
R11 b 0 10k
Q2 k b 0 NSMALL
RK1 vcc k 320
D3 k vcc DSMALL
R12 vcc la 2.2k
D5 la k LEDRED
* Single-supply comparator: high gain, output from near ground to 1.5 V below its supply
.subckt COMPARE inp inn vp vn out
Rbp vp inp 400MEG
Rbn vp inn 400MEG
Rin inp inn 5MEG
Rq vp vn 15k
G1 0 x inp inn 2E-5
Rx x 0 2E9
Eh hr 0 vp 0 1
Vh hr hl 1.5
Dh x hl DLIM
El lr 0 vn 0 1
Dl lr x DLIM
Eb bb 0 x 0 1
Qh vp bb o NOUT
Ql vn bb o POUT
Ro o out 80
.model DLIM D(IS=1E-14 N=1)
.model NOUT NPN(IS=1E-14 BF=200)
.model POUT PNP(IS=1E-14 BF=200)
.ends COMPARE
.model DRECT D(IS=7E-9 N=1.8 RS=0.04 BV=400 IBV=1E-5)
.model DSMALL D(IS=4E-9 N=1.9 RS=0.6 BV=100 IBV=1E-5)
.model Z5V6 D(IS=1E-14 N=1.1 RS=6 BV=5.6 IBV=5E-3)
.model LEDGRN D(IS=2.3E-20 N=2 RS=3 BV=30 IBV=1E-5)
.model LEDRED D(IS=7.7E-18 N=2 RS=2 BV=30 IBV=1E-5)
.model NSMALL NPN(IS=1.5E-14 BF=250 NF=1 VAF=80 BR=4 RC=0.5 RE=0.1)
.end
`;

const LINES: readonly Line[] = [
  resistor('r-680', 680, '680 Ω', ['R2']),
  resistor('r-1k5', 1500, '1.5 k', ['R1']),
  resistor('r-2k2', 2200, '2.2 k', ['R12']),
  resistor('r-3k3', 3300, '3.3 k', ['R5'], 1),
  resistor('r-4k7', 4700, '4.7 k', ['R3', 'R6', 'R10']),
  resistor('r-10k', 10000, '10 k', ['R4', 'R7', 'R9', 'R11']),
  resistor('r-1m', 1e6, '1 M', ['R8']),
  { id: 'vr-10k', kind: 'trimmer', label: '10 k trimmer', value: 10000, tolerance: [-0.2, 0.2], quantity: 1, refs: ['VR1'] },
  {
    id: 'th-10k',
    kind: 'thermistor',
    label: '10 k NTC',
    value: 12500,
    tolerance: [-0.15, 0.15],
    quantity: 1,
    refs: ['TH1'],
    note: '10 k at 25 °C; about 12.5 k at 20 °C',
  },
  { id: 'c-100n', kind: 'capacitor', label: '100 nF', value: 1e-7, tolerance: [-0.2, 0.2], quantity: 2, refs: ['C3', 'C4'] },
  { id: 'c-10u', kind: 'electrolytic', label: '10 µF 25 V', value: 1e-5, tolerance: [-0.2, 0.8], quantity: 1, refs: ['C2'], rating: { volts: 25 } },
  { id: 'c-220u', kind: 'electrolytic', label: '220 µF 25 V', value: 2.2e-4, tolerance: [-0.2, 0.8], quantity: 1, refs: ['C1'], rating: { volts: 25 } },
  { id: 'd-4007', kind: 'diode', label: '1N4007', type: 'DRECT', value: null, tolerance: null, quantity: 1, refs: ['D1'] },
  { id: 'd-4148', kind: 'diode', label: '1N4148', type: 'DSMALL', value: null, tolerance: null, quantity: 1, refs: ['D3'] },
  { id: 'd-5v6', kind: 'zener', label: 'Zener 5.6 V', value: 5.6, tolerance: [-0.05, 0.05], quantity: 1, refs: ['D2'] },
  { id: 'led-green', kind: 'led', label: 'LED green', colour: 'green', value: null, tolerance: null, quantity: 1, refs: ['D4'] },
  { id: 'led-red', kind: 'led', label: 'LED red', colour: 'red', value: null, tolerance: null, quantity: 1, refs: ['D5'] },
  { id: 'q-npn', kind: 'npn', label: 'BC547', type: 'NSMALL', value: null, tolerance: null, range: [110, 450], quantity: 2, refs: ['Q1', 'Q2'] },
  { id: 'u-cmp', kind: 'opamp', label: 'Comparator, 8 pins', value: null, tolerance: null, quantity: 1, refs: ['U1'] },
  { id: 'k-12v', kind: 'relay', label: 'Relay 12 V', value: 320, tolerance: [-0.1, 0.1], quantity: 1, refs: ['K1'] },
  { id: 'sk-8', kind: 'socket', label: 'Socket, 8 pins', value: null, tolerance: null, quantity: 1, refs: ['SK1'] },
  { id: 'j-2', kind: 'connector', label: 'Screw block, 2 poles', value: null, tolerance: null, quantity: 2, refs: ['J1', 'J2'] },
];

const current = supplyCurrent('V1', 'vin');

const SOLDERED = LINES.flatMap((l) => l.refs).filter((r) => r !== 'U1' && r !== 'TH1');

const STAGES: readonly Stage[] = [
  {
    id: 'look',
    title: 'Look it over',
    kind: 'look',
    fits: SOLDERED,
    supplies: [],
    checks: [
      { id: 'bridges', what: 'observe', title: 'solder side', action: 'Hold the solder side under a lens.', expect: 'No bridges, no missed or grey joints.' },
      {
        id: 'polarity',
        what: 'observe',
        title: 'orientation',
        action: 'Compare C1, C2, D1 to D5, Q1 and Q2 with the print.',
        expect: 'Stripes, flats and long legs agree with the board.',
      },
    ],
  },
  {
    id: 'cold',
    title: 'Cold: ohms on the rails',
    kind: 'cold',
    note: 'Supply unplugged, socket empty, sensor not connected.',
    fits: [],
    supplies: [],
    checks: [ohms('rail', '12 V rail to ground', 'vcc', '0'), ohms('rail5', '5 V rail to ground', 'v5', '0'), ohms('input', 'input, against D1', 'vcc', 'vin')],
  },
  {
    id: 'empty',
    title: '12 V, socket empty',
    kind: 'power',
    note: 'The chip stays out until its supply is right.',
    fits: [],
    supplies: [{ source: 'V1', volts: 12, limit: 0.05 }],
    cautions: [BURST, 'If the supply goes into its limit, switch off at once.'],
    checks: [
      current,
      volts('TP1', 'after guard diode'),
      volts('TP2', 'zener reference'),
      volts('TP3', '5 V rail'),
      { id: 'green', what: 'observe', title: 'green lamp', action: 'Look at D4.', expect: 'It is lit and steady.', sign: { ref: 'D4', amperes: 0.002 } },
    ],
  },
  {
    id: 'warm',
    title: 'Chip in, sensor warm',
    kind: 'power',
    note: 'Supply off while the chip goes in. Preset VR1 to 5 k with the ohmmeter before it is soldered.',
    fits: ['U1', 'TH1'],
    settings: [
      { ref: 'VR1', value: 5000, text: 'VR1 preset to 5 k' },
      { ref: 'TH1', value: 12500, text: 'sensor at about 20 °C' },
    ],
    supplies: [{ source: 'V1', volts: 12, limit: 0.1 }],
    cautions: ['Switch off before you fit or remove a part.'],
    checks: [
      current,
      volts('TP4', 'sensor'),
      volts('TP5', 'frost reference'),
      volts('TP6', 'comparator plus input'),
      volts('TP7', 'comparator output'),
      volts('TP9', 'relay coil, low side'),
    ],
  },
  {
    id: 'frost',
    title: 'Frost: relay pulls in',
    kind: 'adjust',
    note: 'Take the sensor off and clip 33 k across its terminals in its place: that is what it has at 0 °C.',
    fits: [],
    settings: [
      { ref: 'VR1', value: 5000, text: 'VR1 at 5 k' },
      { ref: 'TH1', value: 33000, text: '33 k in place of the sensor' },
    ],
    supplies: [{ source: 'V1', volts: 12, limit: 0.15 }],
    checks: [
      volts('TP4', 'sensor, simulated frost'),
      volts('TP7', 'comparator output'),
      volts('TP8', 'driver base'),
      volts('TP9', 'relay coil, low side'),
      current,
      {
        id: 'click',
        what: 'observe',
        title: 'relay',
        action: 'Listen while you clip the 33 k on.',
        expect: 'The relay clicks and the red lamp lights.',
        sign: { ref: 'K1', amperes: 0.02 },
      },
    ],
  },
  {
    id: 'release',
    title: 'Warm again: relay lets go',
    kind: 'run',
    fits: [],
    note: 'Remove the 33 k, connect the sensor again.',
    settings: [
      { ref: 'VR1', value: 5000, text: 'VR1 at 5 k' },
      { ref: 'TH1', value: 12500, text: 'sensor at about 20 °C' },
    ],
    supplies: [{ source: 'V1', volts: 12, limit: 0.15 }],
    checks: [
      {
        id: 'off',
        what: 'observe',
        title: 'relay',
        action: 'Wait ten seconds.',
        expect: 'The relay has let go, the red lamp is dark.',
        sign: { ref: 'K1', amperes: -0.005 },
      },
    ],
  },
];

/** Positions on the drawing, millimetres from the upper left corner. */
const PLACES: readonly (readonly [string, number, number, number])[] = [
  ['J1', 6, 16, 90],
  ['D1', 22, 8, 0],
  ['C1', 18, 22, 0],
  ['R1', 40, 8, 0],
  ['D4', 54, 8, 0],
  ['R2', 38, 16, 0],
  ['D2', 38, 24, 0],
  ['Q1', 54, 20, 0],
  ['C2', 66, 20, 0],
  ['R3', 66, 8, 0],
  ['R4', 84, 8, 0],
  ['TH1', 96, 14, 90],
  ['C3', 84, 16, 0],
  ['R5', 22, 38, 0],
  ['VR1', 38, 40, 0],
  ['R6', 22, 48, 0],
  ['C4', 52, 34, 0],
  ['R7', 52, 44, 0],
  ['R9', 84, 26, 0],
  ['R8', 70, 32, 0],
  ['U1', 70, 44, 0],
  ['R10', 90, 40, 0],
  ['R11', 90, 48, 0],
  ['Q2', 96, 56, 0],
  ['K1', 70, 62, 0],
  ['D3', 50, 60, 0],
  ['R12', 30, 60, 0],
  ['D5', 30, 70, 0],
  ['J2', 96, 72, 90],
];

export const FROST_SENTINEL: Sheet = {
  title: 'Frost sentinel',
  maker: 'Hollowmere greenhouse kits',
  edition: 'board rev B',
  note: 'Switches a small heater when the greenhouse nears freezing. 12 V only; the heater is wired by the relay’s contacts.',
  boards: [{ id: 'A', name: 'Main board', revision: 'B' }],
  lines: LINES,
  needs: [{ id: 'psu', kind: 'supply', text: '12 V DC, at least 200 mA, plug 5.5/2.1 mm', volts: 12, amperes: 0.2, plug: '5.5/2.1', polarity: 'centre-plus' }],
  options: [],
  circuit: {
    deck: DECK,
    neighbours: [
      ['vcc', 'z'],
      ['z', 'v5'],
      ['v5', 'rf'],
      ['ts', 'rf'],
      ['p', 'n'],
      ['n', '0'],
      ['vcc', 'out'],
      ['out', 'b'],
      ['b', '0'],
      ['b', 'k'],
      ['ts', 'p'],
      ['pl', 'vcc'],
    ],
  },
  testPoints: [
    { id: 'TP1', net: 'vcc', where: 'stripe end of D1', x: 24.6, y: 15 },
    { id: 'TP2', net: 'z', where: 'stripe end of D2', x: 29, y: 29.5 },
    { id: 'TP3', net: 'v5', where: 'emitter of Q1, right-hand leg', x: 58, y: 27 },
    { id: 'TP4', net: 'ts', where: 'upper sensor terminal', x: 90, y: 20.5 },
    { id: 'TP5', net: 'rf', where: 'R5, lead next to VR1', x: 28, y: 43.5 },
    { id: 'TP6', net: 'p', where: 'socket pin 3', x: 57, y: 50 },
    { id: 'TP7', net: 'out', where: 'socket pin 1', x: 75, y: 37 },
    { id: 'TP8', net: 'b', where: 'base of Q2, middle leg', x: 84, y: 54 },
    { id: 'TP9', net: 'k', where: 'collector of Q2', x: 84, y: 61 },
    { id: 'TP10', net: 'la', where: 'R12, lead next to D5', x: 38, y: 66.5 },
  ],
  symbols: [],
  placement: PLACES.map(([ref, x, y, rotation]) => ({ ref, x, y, rotation })),
  stages: STAGES,
  claims: [{ id: 'frost', text: 'Relay pulls in at about 1 °C and lets go at about 3 °C.' }],
  typeCards: [],
  pads: [],
  photos: [],
  constraints: [],
  differences: [],
  functions: null,
};
