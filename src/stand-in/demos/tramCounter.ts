import type { Line, Sheet, Stage } from '@/core/kit';
import { capacitor, electrolytic, look, resistor, typed } from './parts';

/** What the instructions say of the board: it has chips that no deck describes. */
const SENTENCES = `supply 5 V
U1 programmed chip, 20 pins: plus 20, ground 10, reset 1, crystal Y1 at 4 and 5
R1 10k: U1 1 to plus
K1-K3: U1 2, 3, 6 to ground, pulled up inside
J1: U1 8 to plus (A) or ground (B), at A
D1-D5 red: U1 12-16 through R11-R15 330 to ground
BZ1 buzzer: U1 18 to ground
K4: step to plus
R2 10k: step to ground
U2 C4518: CLKA step, ENAA plus, RSTA ground, CLKB ground, ENAB ground, RSTB ground
U3 C4511: A U2 3, B U2 4, C U2 5, D U2 6, LT plus, BI plus, LE ground
DS1 display common cathode: a-g at U3 13 12 11 10 9 15 14 through R21-R27 330, common to ground
K1-K3 pressed: D1-D3 light
K1 and K2 pressed: D4 lights
K3 pressed and J1 at B: BZ1 sounds
J1 at B: D5 blinks
try tap K4 3 times
try tap K4 8 times`;

const LINES: readonly Line[] = [
  resistor('r-330', 330, '330 Ω', ['R11', 'R12', 'R13', 'R14', 'R15', 'R21', 'R22', 'R23', 'R24', 'R25', 'R26', 'R27']),
  resistor('r-10k', 10_000, '10 k', ['R1', 'R2']),
  capacitor('c-100n', 1e-7, '100 nF', ['C1', 'C2', 'C3']),
  electrolytic('c-100u', 1e-4, '100 µF 16 V', ['C4'], 16),
  typed('led-red', 'led', 'LED red, 3 mm', ['D1', 'D2', 'D3', 'D4', 'D5'], { colour: 'red' }),
  typed('ds-1', 'display', '7-segment digit, common cathode', ['DS1']),
  typed('k-6x6', 'switch', 'Key 6 × 6', ['K1', 'K2', 'K3', 'K4']),
  typed('j-3', 'connector', 'Jumper, 3 pins', ['J1']),
  typed('bz', 'buzzer', 'Buzzer 5 V, active', ['BZ1']),
  typed('y-8m', 'crystal', '8 MHz', ['Y1']),
  typed('u-prog', 'microcontroller', 'Programmed controller, 20 pins', ['U1']),
  typed('u-4518', 'ic', '4518, 16 pins', ['U2']),
  typed('u-4511', 'ic', '4511, 16 pins', ['U3']),
  typed('p-2', 'connector', 'Screw block, 2 poles', ['P1']),
];

const STAGES: readonly Stage[] = [
  {
    id: 'look',
    title: 'Look it over',
    kind: 'look',
    fits: LINES.flatMap((l) => l.refs),
    supplies: [],
    checks: [
      look('bridges', 'solder side', 'Hold the solder side under a lens, between the pins of the chips above all.', 'No bridges, no missed or grey joints.'),
      look(
        'notches',
        'orientation',
        'Compare U1 to U3, D1 to D5, C4, BZ1 and DS1 with the print.',
        'Notches, flats, stripes and the decimal point agree with the board.',
      ),
    ],
  },
  {
    id: 'functions',
    title: '5 V: what each key, lamp and digit does',
    kind: 'run',
    note: 'Go to Functions: every try there says what it proves.',
    fits: [],
    supplies: [],
    checks: [look('cool', 'nothing gets hot', 'Switch 5 V on for half a minute; hold the back of a finger near the chips.', 'Nothing gets hot, no smell.')],
  },
];

export const TRAM_COUNTER: Sheet = {
  title: 'Tram counter',
  maker: 'Lattice Lane models',
  edition: '1',
  boards: [],
  options: [],
  lines: LINES,
  needs: [{ id: 'supply', kind: 'supply', text: '5 V DC, at least 300 mA', volts: 5, amperes: 0.3 }],
  circuit: null,
  functions: { sentences: SENTENCES },
  testPoints: [],
  placement: [],
  symbols: [],
  pads: [],
  stages: STAGES,
  claims: [],
  constraints: [],
  typeCards: [],
  photos: [],
  differences: [],
};
