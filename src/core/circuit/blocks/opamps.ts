import { type Block, n, net, ohms, ref, s, text, two } from './block';
import { MODELS } from './library';

interface FeedbackStage {
  readonly id: string;
  readonly title: string;
  readonly about: string;
  /** Label of the first resistor. */
  readonly first: string;
  /** Feedback resistor offered, ohms; reference net offered. */
  readonly feedback: number;
  readonly reference: string;
  /** Where the first resistor lies, and what the plus input hangs on; `m` is the minus input. */
  readonly wire: (input: string, m: string, reference: string) => { readonly first: readonly [string, string]; readonly plus: string };
}

/** An op-amp with two resistors around its minus input. */
function feedbackStage({ id, title, about, first, feedback, reference, wire }: FeedbackStage): Block {
  return {
    id,
    title,
    about,
    fields: [
      ref('u', 'U1'),
      ref('r1', 'R1'),
      ohms('ohms1', first, 10000),
      ref('r2', 'R2'),
      ohms('ohms2', 'Feedback', feedback),
      net('reference', 'Reference net', reference),
      net('rail', 'Plus supply', 'vcc'),
      net('minus', 'Minus supply', '0'),
      net('input', 'Input net', 'in'),
      net('output', 'Output net', 'out'),
    ],
    build: (v) => {
      const m = `${s(v, 'u')}_n`;
      const wired = wire(s(v, 'input'), m, s(v, 'reference'));
      return text(
        [
          two(v, 'r1', ...wired.first, n(v, 'ohms1')),
          two(v, 'r2', m, s(v, 'output'), n(v, 'ohms2')),
          `X${s(v, 'u')} ${wired.plus} ${m} ${s(v, 'rail')} ${s(v, 'minus')} ${s(v, 'output')} OPAMP`,
        ],
        MODELS.opamp,
      );
    },
  };
}

/** Op-amps and comparators. */
export const OPAMP_BLOCKS: readonly Block[] = [
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
  feedbackStage({
    id: 'op-amp-inverting',
    title: 'Op-amp, inverting',
    about: 'Gain −R2/R1 around its reference net.',
    first: 'Input resistor',
    feedback: 100000,
    reference: 'half',
    wire: (input, m, reference) => ({ first: [input, m], plus: reference }),
  }),
  feedbackStage({
    id: 'op-amp-non-inverting',
    title: 'Op-amp, non-inverting',
    about: 'Gain 1 + R2/R1.',
    first: 'To reference',
    feedback: 10000,
    reference: '0',
    wire: (input, m, reference) => ({ first: [m, reference], plus: input }),
  }),
  {
    id: 'comparator',
    title: 'Comparator with hysteresis',
    about: 'Open-collector output with a pull-up; the feedback resistor sets how far apart the thresholds are.',
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
];
