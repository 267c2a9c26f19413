import { ledModel, MODELS, zenerModel } from '../../circuit';
import { bridge, colour, farads, look, n, num, ohms, output, s, volts } from './feeds';
import { type Template, templateText } from './template';

const LED_ROLE = 'power light';

/** Circuits that make volts for others. */
export const SUPPLY_TEMPLATES: readonly Template[] = [
  {
    id: 'bridge-rectifier',
    title: 'Bridge rectifier with reservoir',
    about: 'AC from a winding becomes about √2 × Vac − 1.4 V across the reservoir; a bleeder empties it.',
    fields: [volts('ac', 'Winding, volts AC', 12), farads('reservoir', 'Reservoir', 1e-3), ohms('bleeder', 'Bleeder', 2200), output('raw')],
    build: (v) => {
      const { text, needs } = bridge(n(v, 'ac'), n(v, 'reservoir'), s(v, 'output'));
      return templateText(`${text}\nR1 ${s(v, 'output')} 0 ${num(n(v, 'bleeder'))} ; bleeder`, needs, {
        points: { [s(v, 'output')]: 'plus of the reservoir' },
      });
    },
  },
  {
    id: 'fixed-regulator-ac',
    title: 'Fixed regulator supply, fed by a winding',
    about: 'Bridge, reservoir, a three-legged regulator and a light; the reservoir must stay 2 V above the output.',
    fields: [
      volts('ac', 'Winding, volts AC', 9),
      farads('reservoir', 'Reservoir', 1e-3),
      volts('out', 'Output', 5),
      ohms('led', 'Resistor of the light', 680),
      output('v5'),
    ],
    build: (v) => {
      const { text, needs } = bridge(n(v, 'ac'), n(v, 'reservoir'));
      const out = s(v, 'output');
      return templateText(
        `${text}
XU1 raw 0 ${out} REGULATOR v=${num(n(v, 'out'))} ; regulator
C2 raw 0 1e-7 ; at the regulator's input
C3 ${out} 0 1e-5 ; at the regulator's output
R1 ${out} lit ${num(n(v, 'led'))} ; resistor of the light
D5 lit 0 LEDGREEN ; ${LED_ROLE}`,
        [...needs, MODELS.regulator, ledModel('green')],
        {
          points: { raw: 'plus of the reservoir, input of the regulator', [out]: 'output of the regulator' },
          looks: [look('the light is on', 'Look at the light', 'It is on', 'D5')],
        },
      );
    },
  },
  {
    id: 'fixed-regulator-dc',
    title: 'Fixed regulator supply, fed by DC',
    about: 'A guard diode, a three-legged regulator and a light.',
    fields: [volts('in', 'Input', 12), volts('out', 'Output', 5), ohms('led', 'Resistor of the light', 680), output('v5')],
    build: (v) => {
      const out = s(v, 'output');
      return templateText(
        `V1 vin 0 DC ${num(n(v, 'in'))}
D1 vin raw DRECTIFIER ; guard against reversed polarity
C1 raw 0 1e-4 ; at the regulator's input
XU1 raw 0 ${out} REGULATOR v=${num(n(v, 'out'))} ; regulator
C2 ${out} 0 1e-5 ; at the regulator's output
R1 ${out} lit ${num(n(v, 'led'))} ; resistor of the light
D2 lit 0 LEDGREEN ; ${LED_ROLE}`,
        [MODELS.rectifier, MODELS.regulator, ledModel('green')],
        {
          points: { raw: 'behind the guard diode', [out]: 'output of the regulator' },
          looks: [look('the light is on', 'Look at the light', 'It is on', 'D2')],
        },
      );
    },
  },
  {
    id: 'adjustable-regulator',
    title: 'Adjustable regulator supply with guard diodes',
    about: 'Vout = 1.25 V (1 + R2/R1) + 50 µA × R2; two diodes empty the capacitors past the regulator, a meter hangs on the output.',
    fields: [
      volts('ac', 'Winding, volts AC', 15),
      farads('reservoir', 'Reservoir', 2.2e-3),
      ohms('r1', 'R1, output to adjust', 240),
      ohms('r2', 'Control, adjust to ground', 2200),
      ohms('meter', 'Meter with its series resistor', 15000),
      output('vout'),
    ],
    build: (v) => {
      const { text, needs } = bridge(n(v, 'ac'), n(v, 'reservoir'));
      const out = s(v, 'output');
      const half = num(n(v, 'r2') / 2);
      return templateText(
        `${text}
XU1 raw adj ${out} ADJUSTABLE ; regulator
R1 ${out} adj ${num(n(v, 'r1'))} ; output to adjust
RV1a adj wiper ${half} ; control
RV1b wiper 0 ${half} ; control
R9w wiper 0 0.01
C2 adj 0 1e-5 ; quiets the adjust pin
D5 ${out} raw DRECTIFIER ; guard, output to input
D6 adj ${out} DRECTIFIER ; guard, adjust to output
C3 ${out} 0 1e-5 ; output
R3 ${out} 0 ${num(n(v, 'meter'))} ; meter`,
        [...needs, MODELS.adjustable],
        {
          points: { raw: 'plus of the reservoir', adj: 'adjust pin of the regulator', [out]: 'output' },
          looks: [look('the output follows the control', 'Turn the control from end to end', 'The output goes from about 1.25 V to its most, without a jump')],
        },
      );
    },
  },
  {
    id: 'zener-series',
    title: 'Zener and series transistor',
    about: 'A zener behind a resistor holds the base; the output is about 0.65 V below it.',
    fields: [
      volts('in', 'Input', 15),
      volts('zener', 'Zener voltage', 5.6),
      ohms('feed', 'Resistor of the zener', 680),
      ohms('load', 'Load', 470),
      output('vout'),
    ],
    build: (v) => {
      const zener = zenerModel(n(v, 'zener'));
      const out = s(v, 'output');
      return templateText(
        `V1 vin 0 DC ${num(n(v, 'in'))}
R1 vin vz ${num(n(v, 'feed'))} ; feeds the zener
D1 0 vz ${zener.name} ; zener
Q1 vin vz ${out} NPOWER ; series transistor
C1 ${out} 0 1e-4 ; output
R2 ${out} 0 ${num(n(v, 'load'))} ; load`,
        [zener, MODELS.npnPower],
        { points: { vz: 'zener and base', [out]: 'output' } },
      );
    },
  },
  {
    id: 'battery-lights',
    title: 'Battery badge with LEDs',
    about: 'A coin cell or battery, a switch, and LEDs each behind a resistor.',
    fields: [
      volts('cell', 'Battery', 3),
      ohms('inner', 'Inner resistance of the battery', 10),
      ohms('led', 'Resistor of each LED', 100),
      colour('colour', 'LEDs'),
    ],
    build: (v) => {
      const model = ledModel(s(v, 'colour'));
      const branch = (i: number) => `R${i} on a${i} ${num(n(v, 'led'))} ; resistor of an LED\nD${i} a${i} 0 ${model.name} ; LED`;
      return templateText(
        `V1 cell 0 DC ${num(n(v, 'cell'))}
R9 cell plus ${num(n(v, 'inner'))}
RS1 plus on 0.05 ; switch
${branch(1)}
${branch(2)}`,
        [model],
        {
          points: { plus: 'plus of the battery', on: 'behind the switch' },
          looks: [1, 2].map((i) => look(`LED ${i} glows`, 'Switch on and look', 'It glows', `D${i}`)),
        },
      );
    },
  },
];
