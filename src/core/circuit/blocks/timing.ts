import { as, type Block, field, GND, n, net, num, ohms, ref, s, text, two } from './block';
import { MODELS } from './library';

const TIMER = 1.44;
const RC_OSCILLATOR = 2.3;

/** What runs by itself, and what drives pins: flashers, oscillators, logic. */
export const TIMING_BLOCKS: readonly Block[] = [
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
