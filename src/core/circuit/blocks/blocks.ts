import { writeSpiceNumber } from '../deck/number';
import { ledModel, type LibraryItem, MODELS, thermistorOhms, zenerModel } from './library';

/** What a field of a block takes. */
export type FieldType = 'net' | 'ref' | 'ohm' | 'F' | 'H' | 'V' | 'A' | 'Hz' | 'share' | 'count' | 'degC' | 'colour' | 'state';

export interface BlockField {
  readonly key: string;
  readonly label: string;
  readonly type: FieldType;
  readonly initial: string | number;
}

/** Lines of deck, and the shared pieces that they need. */
export interface BlockText {
  readonly lines: readonly string[];
  readonly needs: readonly LibraryItem[];
}

type Values = Readonly<Record<string, string | number>>;

/** A correct piece of circuit that somebody fills in with refs and net names. */
export interface Block {
  readonly id: string;
  readonly title: string;
  readonly about: string;
  readonly fields: readonly BlockField[];
  build: (v: Values) => BlockText;
}

const field = (key: string, label: string, type: FieldType, initial: string | number): BlockField => ({ key, label, type, initial });
const net = (key: string, label: string, initial: string) => field(key, label, 'net', initial);
const ref = (key: string, initial: string, label = initial) => field(key, label, 'ref', initial);
const ohms = (key: string, label: string, initial: number) => field(key, label, 'ohm', initial);
const n = (v: Values, key: string) => Number(v[key]);
const s = (v: Values, key: string) => String(v[key]);
const num = (value: number) => writeSpiceNumber(value);
const text = (lines: readonly string[], ...needs: LibraryItem[]): BlockText => ({ lines, needs });

/** A two-terminal line: name, nets, value. */
const two = (v: Values, name: string, a: string, b: string, value: number | string) =>
  `${s(v, name)} ${a} ${b} ${typeof value === 'number' ? num(value) : value}`;
/** Decks name parts by their letter; a ref with another first letter gets it in front. */
const as = (letter: string, name: string) => (name[0]?.toUpperCase() === letter ? name : `${letter}${name}`);

const GND = '0';
const TIMER = 1.44;
const RC_OSCILLATOR = 2.3;

export const BLOCKS: readonly Block[] = [
  {
    id: 'guarded-supply',
    title: 'Supply with guard diode',
    about: 'A bench supply behind a diode against reversed polarity: about 0.7 V less.',
    fields: [ref('source', 'V1'), field('volts', 'Volts', 'V', 12), ref('diode', 'D1'), net('input', 'Input net', 'vin'), net('rail', 'Rail net', 'vcc')],
    build: (v) =>
      text(
        [`${s(v, 'source')} ${s(v, 'input')} 0 DC ${num(n(v, 'volts'))}`, `${as('D', s(v, 'diode'))} ${s(v, 'input')} ${s(v, 'rail')} DRECTIFIER`],
        MODELS.rectifier,
      ),
  },
  {
    id: 'battery',
    title: 'Battery',
    about: 'A voltage behind its internal resistance.',
    fields: [ref('source', 'V1'), field('volts', 'Volts', 'V', 9), ohms('inner', 'Internal resistance', 1.5), net('plus', 'Plus net', 'vcc')],
    build: (v) =>
      text([
        `${s(v, 'source')} ${s(v, 'source')}_cell 0 DC ${num(n(v, 'volts'))}`,
        `R${s(v, 'source')}i ${s(v, 'source')}_cell ${s(v, 'plus')} ${num(n(v, 'inner'))}`,
      ]),
  },
  {
    id: 'rectifier',
    title: 'Winding, bridge and reservoir',
    about: 'AC from a transformer winding through a bridge: √2 × Vac − 1.4 V without load.',
    fields: [
      ref('source', 'V1', 'Winding'),
      field('volts', 'Volts AC (rms)', 'V', 12),
      field('frequency', 'Frequency', 'Hz', 50),
      ref('d1', 'D1'),
      ref('d2', 'D2'),
      ref('d3', 'D3'),
      ref('d4', 'D4'),
      ref('c', 'C1'),
      field('farads', 'Reservoir', 'F', 1e-3),
      net('rail', 'Rail net', 'raw'),
    ],
    build: (v) => {
      const [a, b] = [`${s(v, 'source')}_a`, `${s(v, 'source')}_b`];
      const rail = s(v, 'rail');
      return text(
        [
          `${s(v, 'source')} ${a}w ${b} SIN(0 ${num(n(v, 'volts') * Math.SQRT2)} ${num(n(v, 'frequency'))})`,
          `R${s(v, 'source')}w ${a}w ${a} 0.5`,
          `${as('D', s(v, 'd1'))} ${a} ${rail} DRECTIFIER`,
          `${as('D', s(v, 'd2'))} ${b} ${rail} DRECTIFIER`,
          `${as('D', s(v, 'd3'))} 0 ${a} DRECTIFIER`,
          `${as('D', s(v, 'd4'))} 0 ${b} DRECTIFIER`,
          two(v, 'c', rail, GND, n(v, 'farads')),
        ],
        MODELS.rectifier,
      );
    },
  },
  {
    id: 'fixed-regulator',
    title: 'Fixed regulator',
    about: 'In, ground, out; its output is its nominal voltage, or the input less its drop-out.',
    fields: [
      ref('u', 'U1'),
      net('input', 'Input net', 'raw'),
      net('output', 'Output net', 'v5'),
      field('volts', 'Output', 'V', 5),
      field('drop', 'Drop-out', 'V', 2),
      field('quiescent', 'Own current', 'A', 0.005),
      field('limit', 'Current limit', 'A', 1.5),
    ],
    build: (v) =>
      text(
        [
          `X${s(v, 'u')} ${s(v, 'input')} 0 ${s(v, 'output')} REGULATOR v=${num(n(v, 'volts'))} drop=${num(n(v, 'drop'))} iq=${num(n(v, 'quiescent'))} lim=${num(n(v, 'limit'))}`,
        ],
        MODELS.regulator,
      ),
  },
  {
    id: 'adjustable-regulator',
    title: 'Adjustable regulator',
    about: 'Vout = 1.25 V (1 + R2/R1) + Iadj R2. Without its least load it drifts up.',
    fields: [
      ref('u', 'U1'),
      net('input', 'Input net', 'raw'),
      net('output', 'Output net', 'vout'),
      net('adjust', 'Adjust net', 'adj'),
      ref('r1', 'R1'),
      ohms('ohms1', 'R1, output to adjust', 240),
      ref('r2', 'R2'),
      ohms('ohms2', 'R2, adjust to ground', 1500),
    ],
    build: (v) =>
      text(
        [
          `X${s(v, 'u')} ${s(v, 'input')} ${s(v, 'adjust')} ${s(v, 'output')} ADJUSTABLE`,
          two(v, 'r1', s(v, 'output'), s(v, 'adjust'), n(v, 'ohms1')),
          two(v, 'r2', s(v, 'adjust'), GND, n(v, 'ohms2')),
        ],
        MODELS.adjustable,
      ),
  },
  {
    id: 'shunt-reference',
    title: 'Shunt reference',
    about: 'Holds 2.495 V (1 + R1/R2) from a resistor.',
    fields: [
      ref('u', 'U1'),
      net('rail', 'Rail net', 'vcc'),
      net('output', 'Output net', 'vref'),
      ref('rs', 'R1', 'Series resistor'),
      ohms('ohmsS', 'Series resistor', 1000),
      ref('ra', 'R2', 'Upper divider'),
      ohms('ohmsA', 'Upper divider', 10000),
      ref('rb', 'R3', 'Lower divider'),
      ohms('ohmsB', 'Lower divider', 10000),
    ],
    build: (v) => {
      const mid = `${s(v, 'u')}_ref`;
      return text(
        [
          two(v, 'rs', s(v, 'rail'), s(v, 'output'), n(v, 'ohmsS')),
          `X${s(v, 'u')} ${s(v, 'output')} 0 ${mid} SHUNTREF`,
          two(v, 'ra', s(v, 'output'), mid, n(v, 'ohmsA')),
          two(v, 'rb', mid, GND, n(v, 'ohmsB')),
        ],
        MODELS.shunt,
      );
    },
  },
  {
    id: 'zener-reference',
    title: 'Zener reference',
    about: 'A zener diode fed through a resistor.',
    fields: [
      ref('r', 'R1'),
      ohms('ohms', 'Resistor', 680),
      ref('d', 'D1'),
      field('volts', 'Zener voltage', 'V', 5.6),
      net('rail', 'Rail net', 'vcc'),
      net('output', 'Output net', 'vz'),
    ],
    build: (v) => {
      const model = zenerModel(n(v, 'volts'));
      return text([two(v, 'r', s(v, 'rail'), s(v, 'output'), n(v, 'ohms')), `${as('D', s(v, 'd'))} 0 ${s(v, 'output')} ${model.name}`], model);
    },
  },
  {
    id: 'divider',
    title: 'Divider',
    about: 'Two resistors; the middle sits at V R2/(R1 + R2).',
    fields: [
      ref('r1', 'R1'),
      ohms('ohms1', 'Upper', 10000),
      ref('r2', 'R2'),
      ohms('ohms2', 'Lower', 10000),
      net('top', 'Top net', 'vcc'),
      net('middle', 'Middle net', 'mid'),
      net('bottom', 'Bottom net', '0'),
    ],
    build: (v) => text([two(v, 'r1', s(v, 'top'), s(v, 'middle'), n(v, 'ohms1')), two(v, 'r2', s(v, 'middle'), s(v, 'bottom'), n(v, 'ohms2'))]),
  },
  {
    id: 'potentiometer',
    title: 'Potentiometer or trimmer',
    about: 'A track with a wiper at a position from 0 (at its lower end) to 1.',
    fields: [
      ref('r', 'RV1'),
      ohms('ohms', 'Track', 10000),
      field('position', 'Position 0..1', 'share', 0.5),
      net('top', 'Upper end', 'vcc'),
      net('wiper', 'Wiper', 'w'),
      net('bottom', 'Lower end', '0'),
    ],
    build: (v) => {
      const name = as('R', s(v, 'r'));
      const p = Math.min(1, Math.max(0, n(v, 'position')));
      const least = 1;
      return text([
        `${name}a ${s(v, 'top')} ${s(v, 'wiper')} ${num((1 - p) * n(v, 'ohms') + least)}`,
        `${name}b ${s(v, 'wiper')} ${s(v, 'bottom')} ${num(p * n(v, 'ohms') + least)}`,
      ]);
    },
  },
  {
    id: 'switch',
    title: 'Switch, jumper or fuse',
    about: 'Nearly nothing when closed, nearly everything when open.',
    fields: [ref('r', 'SW1'), net('a', 'One side', 'a'), net('b', 'Other side', 'b'), field('closed', 'Closed', 'state', 'closed')],
    build: (v) => text([`${as('R', s(v, 'r'))} ${s(v, 'a')} ${s(v, 'b')} ${s(v, 'closed') === 'closed' ? '0.02' : '1E9'}`]),
  },
  {
    id: 'thermistor',
    title: 'Thermistor',
    about: 'R25 exp(B (1/T − 1/298.15 K)).',
    fields: [
      ref('r', 'TH1'),
      ohms('ohms', 'At 25 °C', 10000),
      field('beta', 'B, kelvin', 'count', 3950),
      field('celsius', 'Temperature', 'degC', 20),
      net('a', 'One side', 'a'),
      net('b', 'Other side', '0'),
    ],
    build: (v) =>
      text([`${as('R', s(v, 'r'))} ${s(v, 'a')} ${s(v, 'b')} ${num(Number(thermistorOhms(n(v, 'ohms'), n(v, 'beta'), n(v, 'celsius')).toPrecision(4)))}`]),
  },
  {
    id: 'led',
    title: 'LED with resistor',
    about: 'The resistor sets the current: (V − Vf)/R.',
    fields: [
      ref('r', 'R1'),
      ohms('ohms', 'Resistor', 1000),
      ref('d', 'LED1'),
      field('colour', 'Colour', 'colour', 'red'),
      net('top', 'From net', 'vcc'),
      net('bottom', 'To net', '0'),
    ],
    build: (v) => {
      const model = ledModel(s(v, 'colour'));
      const mid = `${s(v, 'd')}_a`;
      return text([two(v, 'r', s(v, 'top'), mid, n(v, 'ohms')), `${as('D', s(v, 'd'))} ${mid} ${s(v, 'bottom')} ${model.name}`], model);
    },
  },
  {
    id: 'transistor-switch',
    title: 'Transistor switch',
    about: 'An NPN that pulls its load down when the input is high.',
    fields: [ref('q', 'Q1'), ref('rb', 'R1'), ohms('ohms', 'Base resistor', 4700), net('input', 'Input net', 'in'), net('output', 'Collector net', 'out')],
    build: (v) =>
      text([two(v, 'rb', s(v, 'input'), `${s(v, 'q')}_b`, n(v, 'ohms')), `${as('Q', s(v, 'q'))} ${s(v, 'output')} ${s(v, 'q')}_b 0 NSMALL`], MODELS.npn),
  },
  {
    id: 'mosfet-switch',
    title: 'MOSFET switch',
    about: 'An N-channel MOSFET that pulls its load down; the resistor keeps its gate low.',
    fields: [ref('m', 'Q1'), ref('r', 'R1'), ohms('ohms', 'Gate to ground', 100000), net('input', 'Gate net', 'in'), net('output', 'Drain net', 'out')],
    build: (v) => text([two(v, 'r', s(v, 'input'), GND, n(v, 'ohms')), `${as('M', s(v, 'm'))} ${s(v, 'output')} ${s(v, 'input')} 0 0 NSWITCH`], MODELS.nmos),
  },
  {
    id: 'relay',
    title: 'Relay with free-wheel diode',
    about: 'Coil resistance and inductance, the diode across it.',
    fields: [
      ref('k', 'K1'),
      ohms('ohms', 'Coil', 320),
      field('henries', 'Inductance', 'H', 0.2),
      ref('d', 'D1'),
      net('rail', 'Rail net', 'vcc'),
      net('low', 'Switched net', 'out'),
    ],
    build: (v) =>
      text(
        [
          `${as('R', s(v, 'k'))} ${s(v, 'rail')} ${s(v, 'k')}_m ${num(n(v, 'ohms'))}`,
          `L${s(v, 'k')} ${s(v, 'k')}_m ${s(v, 'low')} ${num(n(v, 'henries'))}`,
          `${as('D', s(v, 'd'))} ${s(v, 'low')} ${s(v, 'rail')} DSIGNAL`,
        ],
        MODELS.signalDiode,
      ),
  },
  {
    id: 'emitter-follower',
    title: 'Emitter follower',
    about: 'The output follows the base, 0.6 to 0.7 V lower.',
    fields: [
      ref('q', 'Q1'),
      ref('r', 'R1'),
      ohms('ohms', 'Emitter resistor', 4700),
      net('input', 'Base net', 'in'),
      net('output', 'Emitter net', 'out'),
      net('rail', 'Rail net', 'vcc'),
    ],
    build: (v) =>
      text([`${as('Q', s(v, 'q'))} ${s(v, 'rail')} ${s(v, 'input')} ${s(v, 'output')} NSMALL`, two(v, 'r', s(v, 'output'), GND, n(v, 'ohms'))], MODELS.npn),
  },
  {
    id: 'common-emitter',
    title: 'Common-emitter stage',
    about: 'Base divider, collector and emitter resistor, emitter capacitor.',
    fields: [
      ref('q', 'Q1'),
      ref('r1', 'R1'),
      ohms('ohms1', 'Base, upper', 47000),
      ref('r2', 'R2'),
      ohms('ohms2', 'Base, lower', 10000),
      ref('rc', 'R3'),
      ohms('ohmsC', 'Collector', 2200),
      ref('re', 'R4'),
      ohms('ohmsE', 'Emitter', 470),
      ref('ce', 'C1'),
      field('farads', 'Emitter capacitor', 'F', 1e-4),
      net('rail', 'Rail net', 'vcc'),
      net('base', 'Base net', 'b'),
      net('output', 'Collector net', 'c'),
    ],
    build: (v) => {
      const e = `${s(v, 'q')}_e`;
      return text(
        [
          two(v, 'r1', s(v, 'rail'), s(v, 'base'), n(v, 'ohms1')),
          two(v, 'r2', s(v, 'base'), GND, n(v, 'ohms2')),
          two(v, 'rc', s(v, 'rail'), s(v, 'output'), n(v, 'ohmsC')),
          two(v, 're', e, GND, n(v, 'ohmsE')),
          two(v, 'ce', e, GND, n(v, 'farads')),
          `${as('Q', s(v, 'q'))} ${s(v, 'output')} ${s(v, 'base')} ${e} NSMALL`,
        ],
        MODELS.npn,
      );
    },
  },
  {
    id: 'push-pull',
    title: 'Push-pull output',
    about: 'NPN and PNP followers with two diodes against crossover.',
    fields: [
      ref('q1', 'Q1', 'NPN'),
      ref('q2', 'Q2', 'PNP'),
      ref('d1', 'D1'),
      ref('d2', 'D2'),
      ref('r1', 'R1'),
      ref('r2', 'R2'),
      ohms('ohms', 'Bias resistors', 2200),
      net('rail', 'Rail net', 'vcc'),
      net('input', 'Input net', 'in'),
      net('output', 'Output net', 'out'),
    ],
    build: (v) => {
      const [up, down] = [`${s(v, 'q1')}_b`, `${s(v, 'q2')}_b`];
      return text(
        [
          two(v, 'r1', s(v, 'rail'), up, n(v, 'ohms')),
          `${as('D', s(v, 'd1'))} ${up} ${s(v, 'input')} DSIGNAL`,
          `${as('D', s(v, 'd2'))} ${s(v, 'input')} ${down} DSIGNAL`,
          two(v, 'r2', down, GND, n(v, 'ohms')),
          `${as('Q', s(v, 'q1'))} ${s(v, 'rail')} ${up} ${s(v, 'output')} NPOWER`,
          `${as('Q', s(v, 'q2'))} 0 ${down} ${s(v, 'output')} PPOWER`,
        ],
        MODELS.signalDiode,
        MODELS.npnPower,
        MODELS.pnpPower,
      );
    },
  },
  {
    id: 'long-tailed-pair',
    title: 'Long-tailed pair',
    about: 'Two transistors share a tail current; equal bases share it in halves.',
    fields: [
      ref('q1', 'Q1'),
      ref('q2', 'Q2'),
      ref('r1', 'R1'),
      ref('r2', 'R2'),
      ohms('ohms', 'Collectors', 10000),
      ref('rt', 'R3'),
      ohms('tail', 'Tail', 10000),
      net('rail', 'Rail net', 'vcc'),
      net('minus', 'Tail to net', '0'),
      net('in1', 'Base 1', 'in1'),
      net('in2', 'Base 2', 'in2'),
      net('out1', 'Collector 1', 'c1'),
      net('out2', 'Collector 2', 'c2'),
    ],
    build: (v) => {
      const e = `${s(v, 'q1')}_e`;
      return text(
        [
          two(v, 'r1', s(v, 'rail'), s(v, 'out1'), n(v, 'ohms')),
          two(v, 'r2', s(v, 'rail'), s(v, 'out2'), n(v, 'ohms')),
          `${as('Q', s(v, 'q1'))} ${s(v, 'out1')} ${s(v, 'in1')} ${e} NSMALL`,
          `${as('Q', s(v, 'q2'))} ${s(v, 'out2')} ${s(v, 'in2')} ${e} NSMALL`,
          two(v, 'rt', e, s(v, 'minus'), n(v, 'tail')),
        ],
        MODELS.npn,
      );
    },
  },
  {
    id: 'op-amp-follower',
    title: 'Op-amp follower',
    about: 'The output equals the input, within its rails.',
    fields: [
      ref('u', 'U1'),
      net('rail', 'Plus supply', 'vcc'),
      net('minus', 'Minus supply', '0'),
      net('input', 'Input net', 'in'),
      net('output', 'Output net', 'out'),
    ],
    build: (v) => text([`X${s(v, 'u')} ${s(v, 'input')} ${s(v, 'output')} ${s(v, 'rail')} ${s(v, 'minus')} ${s(v, 'output')} OPAMP`], MODELS.opamp),
  },
  {
    id: 'op-amp-inverting',
    title: 'Op-amp, inverting',
    about: 'Gain −R2/R1 around its reference net.',
    fields: [
      ref('u', 'U1'),
      ref('r1', 'R1'),
      ohms('ohms1', 'Input resistor', 10000),
      ref('r2', 'R2'),
      ohms('ohms2', 'Feedback', 100000),
      net('reference', 'Reference net', 'half'),
      net('rail', 'Plus supply', 'vcc'),
      net('minus', 'Minus supply', '0'),
      net('input', 'Input net', 'in'),
      net('output', 'Output net', 'out'),
    ],
    build: (v) => {
      const m = `${s(v, 'u')}_n`;
      return text(
        [
          two(v, 'r1', s(v, 'input'), m, n(v, 'ohms1')),
          two(v, 'r2', m, s(v, 'output'), n(v, 'ohms2')),
          `X${s(v, 'u')} ${s(v, 'reference')} ${m} ${s(v, 'rail')} ${s(v, 'minus')} ${s(v, 'output')} OPAMP`,
        ],
        MODELS.opamp,
      );
    },
  },
  {
    id: 'op-amp-non-inverting',
    title: 'Op-amp, non-inverting',
    about: 'Gain 1 + R2/R1.',
    fields: [
      ref('u', 'U1'),
      ref('r1', 'R1'),
      ohms('ohms1', 'To reference', 10000),
      ref('r2', 'R2'),
      ohms('ohms2', 'Feedback', 10000),
      net('reference', 'Reference net', '0'),
      net('rail', 'Plus supply', 'vcc'),
      net('minus', 'Minus supply', '0'),
      net('input', 'Input net', 'in'),
      net('output', 'Output net', 'out'),
    ],
    build: (v) => {
      const m = `${s(v, 'u')}_n`;
      return text(
        [
          two(v, 'r1', m, s(v, 'reference'), n(v, 'ohms1')),
          two(v, 'r2', m, s(v, 'output'), n(v, 'ohms2')),
          `X${s(v, 'u')} ${s(v, 'input')} ${m} ${s(v, 'rail')} ${s(v, 'minus')} ${s(v, 'output')} OPAMP`,
        ],
        MODELS.opamp,
      );
    },
  },
  {
    id: 'comparator',
    title: 'Comparator with hysteresis',
    about: 'Open-collector output with a pull-up; the feedback resistor sets how far the thresholds lie apart.',
    fields: [
      ref('u', 'U1'),
      ref('ri', 'R1'),
      ohms('ohmsI', 'Input resistor', 10000),
      ref('rf', 'R2'),
      ohms('ohmsF', 'Feedback', 1e6),
      ref('rp', 'R3'),
      ohms('ohmsP', 'Pull-up', 4700),
      net('rail', 'Rail net', 'vcc'),
      net('input', 'Plus input', 'in'),
      net('reference', 'Minus input', 'ref'),
      net('output', 'Output net', 'out'),
    ],
    build: (v) => {
      const p = `${s(v, 'u')}_p`;
      return text(
        [
          two(v, 'ri', s(v, 'input'), p, n(v, 'ohmsI')),
          two(v, 'rf', p, s(v, 'output'), n(v, 'ohmsF')),
          two(v, 'rp', s(v, 'rail'), s(v, 'output'), n(v, 'ohmsP')),
          `X${s(v, 'u')} ${p} ${s(v, 'reference')} ${s(v, 'rail')} 0 ${s(v, 'output')} COMPARATOR`,
        ],
        MODELS.openCollector,
      );
    },
  },
  {
    id: 'half-supply',
    title: 'Half-supply reference',
    about: 'Two equal resistors and a capacitor.',
    fields: [
      ref('r1', 'R1'),
      ref('r2', 'R2'),
      ohms('ohms', 'Each', 10000),
      ref('c', 'C1'),
      field('farads', 'Capacitor', 'F', 1e-5),
      net('rail', 'Rail net', 'vcc'),
      net('output', 'Output net', 'half'),
    ],
    build: (v) =>
      text([
        two(v, 'r1', s(v, 'rail'), s(v, 'output'), n(v, 'ohms')),
        two(v, 'r2', s(v, 'output'), GND, n(v, 'ohms')),
        two(v, 'c', s(v, 'output'), GND, n(v, 'farads')),
      ]),
  },
  {
    id: 'flasher',
    title: 'Two-transistor flasher',
    about: 'Cross-coupled stages; each half lasts about 0.69 R C.',
    fields: [
      ref('q1', 'Q1'),
      ref('q2', 'Q2'),
      ref('rc1', 'R1'),
      ref('rc2', 'R2'),
      ohms('ohmsC', 'Collectors', 1000),
      ref('rb1', 'R3'),
      ref('rb2', 'R4'),
      ohms('ohmsB', 'Bases', 47000),
      ref('c1', 'C1'),
      ref('c2', 'C2'),
      field('farads', 'Capacitors', 'F', 1e-5),
      net('rail', 'Rail net', 'vcc'),
      net('out1', 'Collector 1', 'c1'),
      net('out2', 'Collector 2', 'c2'),
    ],
    build: (v) => {
      const [b1, b2] = [`${s(v, 'q1')}_b`, `${s(v, 'q2')}_b`];
      return text(
        [
          two(v, 'rc1', s(v, 'rail'), s(v, 'out1'), n(v, 'ohmsC')),
          two(v, 'rc2', s(v, 'rail'), s(v, 'out2'), n(v, 'ohmsC')),
          two(v, 'rb1', s(v, 'rail'), b1, n(v, 'ohmsB')),
          two(v, 'rb2', s(v, 'rail'), b2, n(v, 'ohmsB')),
          two(v, 'c1', s(v, 'out1'), b2, n(v, 'farads')),
          two(v, 'c2', s(v, 'out2'), b1, n(v, 'farads')),
          `${as('Q', s(v, 'q1'))} ${s(v, 'out1')} ${b1} 0 NSMALL`,
          `${as('Q', s(v, 'q2'))} ${s(v, 'out2')} ${b2} 0 NSMALL`,
          `.ic V(${s(v, 'out1')})=0 V(${b2})=-3`,
        ],
        MODELS.npn,
      );
    },
  },
  {
    id: 'rc-oscillator',
    title: 'RC oscillator with divider chain',
    about: 'f = 1/(2.3 R C) divided by 2ⁿ, as a square wave behind an output resistance.',
    fields: [
      ref('u', 'U1'),
      ohms('ohms', 'R', 100000),
      field('farads', 'C', 'F', 1e-7),
      field('stages', 'Binary stages', 'count', 4),
      field('volts', 'High level', 'V', 5),
      net('output', 'Output net', 'q'),
    ],
    build: (v) => {
      const frequency = 1 / (RC_OSCILLATOR * n(v, 'ohms') * n(v, 'farads')) / 2 ** n(v, 'stages');
      return text(driven(s(v, 'u'), s(v, 'output'), n(v, 'volts'), frequency, 0.5));
    },
  },
  {
    id: 'timer',
    title: 'Timer chip, running',
    about: 'f = 1.44/((R1 + 2 R2) C), high for (R1 + R2)/(R1 + 2 R2) of the time.',
    fields: [
      ref('u', 'U1'),
      ohms('ohms1', 'R1', 10000),
      ohms('ohms2', 'R2', 47000),
      field('farads', 'C', 'F', 1e-5),
      field('volts', 'Supply', 'V', 9),
      net('output', 'Output net', 'q'),
    ],
    build: (v) => {
      const [a, b] = [n(v, 'ohms1'), n(v, 'ohms2')];
      const dropOfOutput = 1.5;
      return text(driven(s(v, 'u'), s(v, 'output'), n(v, 'volts') - dropOfOutput, TIMER / ((a + 2 * b) * n(v, 'farads')), (a + b) / (a + 2 * b)));
    },
  },
  {
    id: 'current-sink',
    title: 'Current sink',
    about: 'About (Vbase − 0.65 V)/R through whatever hangs on the collector.',
    fields: [ref('q', 'Q1'), ref('r', 'R1'), ohms('ohms', 'Emitter resistor', 470), net('base', 'Base net', 'vz'), net('output', 'Collector net', 'out')],
    build: (v) =>
      text([`${as('Q', s(v, 'q'))} ${s(v, 'output')} ${s(v, 'base')} ${s(v, 'q')}_e NSMALL`, two(v, 'r', `${s(v, 'q')}_e`, GND, n(v, 'ohms'))], MODELS.npn),
  },
  {
    id: 'darlington-switch',
    title: 'Darlington switch',
    about: 'Two transistors as one: little base current, and a volt lost when it is on.',
    fields: [ref('q', 'Q1'), ref('rb', 'R1'), ohms('ohms', 'Base resistor', 22000), net('input', 'Input net', 'in'), net('output', 'Collector net', 'out')],
    build: (v) => {
      const [b, m] = [`${s(v, 'q')}_b`, `${s(v, 'q')}_m`];
      const name = as('Q', s(v, 'q'));
      return text(
        [two(v, 'rb', s(v, 'input'), b, n(v, 'ohms')), `${name}a ${s(v, 'output')} ${b} ${m} NSMALL`, `${name}b ${s(v, 'output')} ${m} 0 NPOWER`],
        MODELS.npn,
        MODELS.npnPower,
      );
    },
  },
  {
    id: 'schottky-guard',
    title: 'Schottky diode in a rail',
    about: 'A guard diode that costs only about 0.3 V.',
    fields: [ref('d', 'D1'), net('input', 'From net', 'raw'), net('output', 'To net', 'vcc')],
    build: (v) => text([`${as('D', s(v, 'd'))} ${s(v, 'input')} ${s(v, 'output')} DSCHOTTKY`], MODELS.schottky),
  },
  {
    id: 'jfet-follower',
    title: 'JFET source follower',
    about: 'Takes no input current; its source sits a little above its gate.',
    fields: [
      ref('j', 'Q1'),
      ref('rg', 'R1'),
      ohms('ohmsG', 'Gate to ground', 1e6),
      ref('rs', 'R2'),
      ohms('ohmsS', 'Source resistor', 2200),
      net('rail', 'Rail net', 'vcc'),
      net('input', 'Gate net', 'in'),
      net('output', 'Source net', 'out'),
    ],
    build: (v) =>
      text(
        [
          two(v, 'rg', s(v, 'input'), GND, n(v, 'ohmsG')),
          `${as('J', s(v, 'j'))} ${s(v, 'rail')} ${s(v, 'input')} ${s(v, 'output')} NJFET`,
          two(v, 'rs', s(v, 'output'), GND, n(v, 'ohmsS')),
        ],
        MODELS.njf,
      ),
  },
  {
    id: 'load',
    title: 'Loudspeaker, buzzer, lamp or motor',
    about: 'A load as its resistance; a loudspeaker hangs behind its coupling capacitor.',
    fields: [
      ref('r', 'LS1'),
      ohms('ohms', 'Resistance', 8),
      ref('c', 'C1', 'Coupling capacitor'),
      field('farads', 'Coupling capacitor', 'F', 4.7e-4),
      net('output', 'From net', 'out'),
    ],
    build: (v) => text([two(v, 'c', s(v, 'output'), `${s(v, 'r')}_p`, n(v, 'farads')), `${as('R', s(v, 'r'))} ${s(v, 'r')}_p 0 ${num(n(v, 'ohms'))}`]),
  },
  {
    id: 'light-sensor',
    title: 'Light-dependent resistor',
    about: 'Ohms at the light that the stage is set to.',
    fields: [ref('r', 'LDR1'), ohms('ohms', 'Ohms at this light', 10000), net('a', 'One side', 'vcc'), net('b', 'Other side', 'mid')],
    build: (v) => text([`${as('R', s(v, 'r'))} ${s(v, 'a')} ${s(v, 'b')} ${num(n(v, 'ohms'))}`]),
  },
  {
    id: 'relay-contact',
    title: 'Relay contact',
    about: 'Common, and one of two throws: pulled in or let go.',
    fields: [
      ref('k', 'K1'),
      net('common', 'Common', 'com'),
      net('open', 'Normally open', 'no'),
      net('closed', 'Normally closed', 'nc'),
      field('state', 'Coil', 'state', 'open'),
    ],
    build: (v) => {
      const pulled = s(v, 'state') === 'closed';
      const name = as('R', s(v, 'k'));
      return text([
        `${name}no ${s(v, 'common')} ${s(v, 'open')} ${pulled ? '0.05' : '1E9'}`,
        `${name}nc ${s(v, 'common')} ${s(v, 'closed')} ${pulled ? '1E9' : '0.05'}`,
      ]);
    },
  },
  {
    id: 'network',
    title: 'Resistor network, bussed',
    about: 'Equal resistors from one common pin (the dot) to the others.',
    fields: [
      ref('r', 'RN1'),
      ohms('ohms', 'Each', 10000),
      net('common', 'Common net', 'vcc'),
      net('a', 'Pin 2', 'n1'),
      net('b', 'Pin 3', 'n2'),
      net('c', 'Pin 4', 'n3'),
      net('d', 'Pin 5', 'n4'),
    ],
    build: (v) => text(['a', 'b', 'c', 'd'].map((k, i) => `${as('R', s(v, 'r'))}_${i + 2} ${s(v, 'common')} ${s(v, k)} ${num(n(v, 'ohms'))}`)),
  },
  {
    id: 'gate',
    title: 'Logic gate output',
    about: 'A CMOS output that is high or low: a few hundred ohms to one of its rails; its input takes nothing.',
    fields: [ref('u', 'U1'), net('rail', 'Supply net', 'v5'), net('output', 'Output net', 'q'), field('level', 'Output', 'state', 'high')],
    build: (v) => {
      const OUTPUT_OHMS = '300';
      const high = s(v, 'level') === 'high';
      return text([`R${s(v, 'u')}q ${s(v, 'output')} ${high ? s(v, 'rail') : GND} ${OUTPUT_OHMS}`]);
    },
  },
  {
    id: 'socket',
    title: 'Socketed chip',
    about: 'A microcontroller or logic chip seen from its socket: its supply pins draw a current, one pin drives a level.',
    fields: [
      ref('u', 'U1'),
      net('rail', 'Supply pin', 'v5'),
      field('volts', 'Supply', 'V', 5),
      field('amperes', 'Supply current', 'A', 0.01),
      net('pin', 'Driven pin', 'p1'),
      field('level', 'It drives', 'state', 'high'),
    ],
    build: (v) => {
      const high = s(v, 'level') === 'high' || s(v, 'level') === 'closed';
      const OUTPUT_OHMS = '40';
      return text([
        `R${s(v, 'u')}supply ${s(v, 'rail')} 0 ${num(n(v, 'volts') / n(v, 'amperes'))}`,
        `R${s(v, 'u')}pin ${s(v, 'pin')} ${high ? s(v, 'rail') : GND} ${OUTPUT_OHMS}`,
      ]);
    },
  },
];

/** A square wave behind the resistance of an output. */
function driven(name: string, output: string, volts: number, frequency: number, duty: number): string[] {
  const period = 1 / frequency;
  const edge = period / 1000;
  return [
    `V${name} ${name}_o 0 PULSE(0 ${num(volts)} 0 ${num(edge)} ${num(edge)} ${num(period * duty - edge)} ${num(period)})`,
    `R${name}o ${name}_o ${output} 100`,
  ];
}
