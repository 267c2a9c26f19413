import { as, type Block, field, GND, n, net, num, ohms, ref, s, text, two } from './block';
import { MODELS } from './library';

/** Stages around one to four transistors. */
export const TRANSISTOR_BLOCKS: readonly Block[] = [
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
    id: 'current-sink',
    title: 'Current sink',
    about: 'About (Vbase − 0.65 V)/R through whatever hangs on the collector.',
    fields: [ref('q', 'Q1'), ref('r', 'R1'), ohms('ohms', 'Emitter resistor', 470), net('base', 'Base net', 'vz'), net('output', 'Collector net', 'out')],
    build: (v) =>
      text([`${as('Q', s(v, 'q'))} ${s(v, 'output')} ${s(v, 'base')} ${s(v, 'q')}_e NSMALL`, two(v, 'r', `${s(v, 'q')}_e`, GND, n(v, 'ohms'))], MODELS.npn),
  },
];
