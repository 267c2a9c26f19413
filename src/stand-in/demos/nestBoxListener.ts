import { MODELS } from '@/core/circuit';
import type { Line, Sheet, Stage } from '@/core/kit';
import { BURST, capacitor, electrolytic, look, ohms, places, resistor, typed, volts } from './parts';

/** Nest-box listener: a winding, bridge and regulator; a microphone amplifier about half the supply; an earphone stage with a bias control. */
const DECK = `Nest-box listener: hears the brood from the kitchen
V1 sa sb SIN(0 12.7 50)
D1 sa raw DRECT
D2 sb raw DRECT
D3 0 sa DRECT
D4 0 sb DRECT
C1 raw 0 1000u
XU1 raw 0 v9 REGULATOR v=9
C2 v9 0 10u
R1 v9 lamp 2.2k
D5 lamp 0 LEDGRN
R2 v9 half 10k
R3 half 0 10k
C3 half 0 100u
R4 v9 mic 6.8k
RMIC1 mic 0 10k
C4 mic p 1u
R5 half p 100k
XU2 p m v9 0 amp OPAMP
R6 amp m 100k
R7 m g 2.2k
C5 g 0 10u
C6 amp b 1u
R8 v9 top 33k
RVR1a top b 5k
RVR1b b bot 5k
R9 bot 0 4.7k
R10 v9 col 1k
Q1 col b e NSMALL
R11 e 0 150
C7 col ear 47u
R12 ear 0 1k
${MODELS.regulator.text}
${MODELS.opamp.text}
.model DRECT D(IS=7E-9 N=1.8 RS=0.04 BV=400 IBV=1E-5)
.model LEDGRN D(IS=2.3E-20 N=2 RS=3 BV=30 IBV=1E-5)
.model NSMALL NPN(IS=1.5E-14 BF=250 NF=1 VAF=80 BR=4 RC=0.5 RE=0.1)
.end
`;

const LINES: readonly Line[] = [
  resistor('r-150', 150, '150 Ω', ['R11']),
  resistor('r-1k', 1000, '1 k', ['R10', 'R12']),
  resistor('r-2k2', 2200, '2.2 k', ['R1', 'R7']),
  resistor('r-4k7', 4700, '4.7 k', ['R9']),
  resistor('r-6k8', 6800, '6.8 k', ['R4']),
  resistor('r-10k', 10_000, '10 k', ['R2', 'R3']),
  resistor('r-33k', 33_000, '33 k', ['R8']),
  resistor('r-100k', 100_000, '100 k', ['R5', 'R6']),
  { id: 'vr-10k', kind: 'trimmer', label: '10 k trimmer', value: 10_000, tolerance: [-0.2, 0.2], quantity: 1, refs: ['VR1'] },
  capacitor('c-1u', 1e-6, '1 µF film', ['C4', 'C6']),
  electrolytic('c-10u', 1e-5, '10 µF 25 V', ['C2', 'C5'], 25),
  electrolytic('c-47u', 4.7e-5, '47 µF 16 V', ['C7'], 16),
  electrolytic('c-100u', 1e-4, '100 µF 16 V', ['C3'], 16),
  electrolytic('c-1000u', 1e-3, '1000 µF 25 V', ['C1'], 25),
  typed('d-4007', 'diode', '1N4007', ['D1', 'D2', 'D3', 'D4'], { type: 'DRECT' }),
  typed('led-green', 'led', 'LED green', ['D5'], { colour: 'green' }),
  typed('q-npn', 'npn', 'BC547', ['Q1'], { type: 'NSMALL', range: [110, 450] }),
  typed('u-reg', 'regulator', '7809-like regulator', ['U1'], { package: 'TO-220' }),
  typed('u-amp', 'opamp', 'Operational amplifier, single supply', ['U2']),
  typed('mic', 'other', 'Electret microphone', ['MIC1']),
  typed('sk-8', 'socket', 'Socket, 8 pins', ['SK1']),
  typed('j-2', 'connector', 'Screw block, 2 poles', ['J1']),
];

const WINDING = [{ source: 'V1', volts: 9, limit: 0.1, feed: 'winding' as const, ohms: 1.2, hertz: 50 }];
/** For the amplifier a bench supply stands in for the winding: the bridge does not mind which way round. */
const BENCH = [{ source: 'V1', volts: 14, limit: 0.05, feed: 'dc' as const }];
const POWER = ['D1', 'D2', 'D3', 'D4', 'C1', 'U1', 'C2', 'R1', 'D5', 'J1'];
const LATER = ['U2', 'MIC1'];
const REST = LINES.flatMap((l) => l.refs).filter((r) => !POWER.includes(r) && !LATER.includes(r));
const MAINS = 'The plug transformer stays closed. Above 50 V AC this is work for somebody licensed; local codes decide.';
const MIDDLE = [{ ref: 'VR1', value: 5000, text: 'VR1 in its middle' }];

const STAGES: readonly Stage[] = [
  {
    id: 'look',
    title: 'Supply corner: look it over',
    kind: 'look',
    fits: POWER,
    supplies: [],
    checks: [
      look('bridges', 'solder side', 'Hold the solder side under a lens.', 'No bridges, no missed or grey joints.'),
      look('polarity', 'orientation', 'Compare D1 to D5, C1, C2 and U1 with the print.', 'Stripes, flats and long legs agree with the board.'),
    ],
  },
  {
    id: 'cold',
    title: 'Cold: ohms on the rails',
    kind: 'cold',
    note: 'Transformer unplugged.',
    fits: [],
    supplies: [],
    checks: [ohms('raw', 'reservoir to ground', 'raw', '0'), ohms('v9', '9 V rail to ground', 'v9', '0')],
  },
  {
    id: 'winding',
    title: 'Winding on: the supply by itself',
    kind: 'power',
    note: 'Only the supply corner is fitted. A meter shows the average of the reservoir.',
    fits: [],
    supplies: WINDING,
    cautions: [BURST, MAINS],
    checks: [
      volts('TP1', 'reservoir'),
      volts('TP2', '9 V rail'),
      look('green', 'green lamp', 'Look at D5.', 'It is lit and steady.', { ref: 'D5', amperes: 0.001 }),
    ],
  },
  {
    id: 'empty',
    title: 'Amplifier corner, socket empty',
    kind: 'power',
    note: 'A bench supply with its limit takes the place of the transformer. The chip stays out until its supply is right.',
    fits: REST,
    supplies: BENCH,
    settings: MIDDLE,
    cautions: [BURST],
    checks: [volts('TP2', 'socket pin 8: 9 V rail'), volts('TP3', 'half supply'), volts('TP6', 'base of Q1'), volts('TP8', 'collector of Q1')],
  },
  {
    id: 'bias',
    title: 'Chip and microphone in, bias set',
    kind: 'adjust',
    note: 'Supply off while the chip goes in. The collector belongs near half the rail.',
    fits: LATER,
    supplies: BENCH,
    settings: MIDDLE,
    checks: [
      volts('TP2', '9 V rail'),
      volts('TP4', 'microphone'),
      volts('TP3', 'half supply'),
      volts('TP5', 'output of the amplifier'),
      volts('TP6', 'base of Q1'),
      volts('TP7', 'emitter of Q1'),
      volts('TP8', 'collector of Q1'),
    ],
  },
  {
    id: 'listen',
    title: 'On its transformer',
    kind: 'run',
    fits: [],
    supplies: WINDING,
    settings: MIDDLE,
    cautions: [MAINS],
    checks: [look('tap', 'earphone', 'Tap the microphone with a finger nail.', 'Each tap is heard clearly in the earphone, without hum.')],
  },
];

export const NEST_BOX_LISTENER: Sheet = {
  title: 'Nest-box listener',
  maker: 'Hollowmere garden kits',
  edition: 'board rev C',
  note: 'A microphone in the nest box, an earphone in the kitchen. Fed by a closed 9 V AC plug transformer.',
  boards: [{ id: 'A', name: 'Listener', revision: 'C' }],
  lines: LINES,
  needs: [{ id: 'psu', kind: 'supply', text: '9 V AC plug transformer, 200 mA', volts: 9, amperes: 0.2 }],
  options: [],
  circuit: {
    deck: DECK,
    elements: { MIC1: 'RMIC1' },
    neighbours: [
      ['raw', 'v9'],
      ['sa', 'raw'],
      ['v9', 'half'],
      ['half', 'p'],
      ['p', 'm'],
      ['amp', 'm'],
      ['b', 'e'],
      ['col', 'b'],
      ['mic', 'v9'],
      ['e', '0'],
    ],
  },
  testPoints: [
    { id: 'TP1', net: 'raw', where: 'plus of C1', x: 26, y: 30 },
    { id: 'TP2', net: 'v9', where: 'right-hand leg of U1', x: 46, y: 16 },
    { id: 'TP3', net: 'half', where: 'plus of C3', x: 60, y: 30 },
    { id: 'TP4', net: 'mic', where: 'upper microphone pad', x: 76, y: 12 },
    { id: 'TP5', net: 'amp', where: 'socket pin 1', x: 66, y: 46 },
    { id: 'TP6', net: 'b', where: 'base of Q1, middle leg', x: 88, y: 50 },
    { id: 'TP7', net: 'e', where: 'emitter of Q1', x: 92, y: 50 },
    { id: 'TP8', net: 'col', where: 'collector of Q1', x: 84, y: 50 },
  ],
  symbols: [],
  placement: places([
    ['J1', 6, 20, 90],
    ['D1', 16, 8, 0],
    ['D2', 16, 16, 0],
    ['D3', 16, 34, 0],
    ['D4', 16, 42, 0],
    ['C1', 28, 24, 0],
    ['U1', 42, 12, 0],
    ['C2', 50, 24, 0],
    ['R1', 42, 34, 0],
    ['D5', 42, 44, 0],
    ['R2', 62, 8, 0],
    ['R3', 62, 16, 0],
    ['C3', 62, 26, 0],
    ['R4', 80, 6, 0],
    ['MIC1', 94, 12, 0],
    ['C4', 82, 20, 0],
    ['R5', 82, 28, 0],
    ['U2', 66, 40, 0],
    ['R6', 66, 54, 0],
    ['R7', 52, 54, 0],
    ['C5', 40, 56, 0],
    ['C6', 82, 36, 0],
    ['R8', 100, 28, 90],
    ['VR1', 100, 40, 0],
    ['R9', 100, 54, 90],
    ['Q1', 88, 46, 0],
    ['R10', 82, 56, 0],
    ['R11', 90, 62, 0],
    ['C7', 72, 64, 0],
    ['R12', 54, 64, 0],
  ]),
  stages: STAGES,
  claims: [{ id: 'quiet', text: 'The collector of Q1 rests between 4 and 5 V when the bias is set.' }],
  typeCards: [],
  pads: [],
  photos: [],
  constraints: [],
  differences: [],
  functions: null,
};
