import { as, type Block, field, GND, n, net, num, ohms, ref, s, text, two } from './block';
import { MODELS, zenerModel } from './library';

/** Where the volts come from: supplies, rectifiers, regulators, references. */
export const SUPPLY_BLOCKS: readonly Block[] = [
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
    id: 'schottky-guard',
    title: 'Schottky diode in a rail',
    about: 'A guard diode that costs only about 0.3 V.',
    fields: [ref('d', 'D1'), net('input', 'From net', 'raw'), net('output', 'To net', 'vcc')],
    build: (v) => text([`${as('D', s(v, 'd'))} ${s(v, 'input')} ${s(v, 'output')} DSCHOTTKY`], MODELS.schottky),
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
];
