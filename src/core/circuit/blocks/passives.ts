import { as, type Block, field, n, net, num, ohms, ref, s, text, two } from './block';
import { ledModel, thermistorOhms } from './library';

/** Parts that only pass current: dividers, controls, sensors, loads, contacts. */
export const PASSIVE_BLOCKS: readonly Block[] = [
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
    id: 'light-sensor',
    title: 'Light-dependent resistor',
    about: 'Ohms at the light that the stage is set to.',
    fields: [ref('r', 'LDR1'), ohms('ohms', 'Ohms at this light', 10000), net('a', 'One side', 'vcc'), net('b', 'Other side', 'mid')],
    build: (v) => text([`${as('R', s(v, 'r'))} ${s(v, 'a')} ${s(v, 'b')} ${num(n(v, 'ohms'))}`]),
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
];
