import { ledModel, MODELS } from '../../circuit';
import { dcFeed, feedFields, look, n, num, ohms, s, volts } from './feeds';
import { type Template, templateText } from './template';

/** A relay pulls from about this share of its rated current on (common practice, no source). */
const PULLS = 0.02;

/** Circuits that switch, and the chips that tell them to. */
export const SWITCHING_TEMPLATES: readonly Template[] = [
  {
    id: 'light-switch',
    title: 'Light or temperature switch with comparator and relay',
    about: 'A sensor and a control make two voltages; the comparator compares them and a transistor pulls the relay.',
    fields: [
      ...feedFields(12),
      ohms('sensor', 'Sensor as it is now', 10000),
      ohms('fixed', 'Resistor beside the sensor', 10000),
      ohms('control', 'Threshold control', 10000),
      ohms('coil', 'Relay coil', 400),
    ],
    build: (v) => {
      const rail = s(v, 'rail');
      const half = num(n(v, 'control') / 2);
      return templateText(
        `${dcFeed(v)}
R1 ${rail} sense ${num(n(v, 'fixed'))} ; beside the sensor
RLD1 sense 0 ${num(n(v, 'sensor'))} ; sensor
R2 ${rail} top 4.7k ; above the control
RV1a top ref ${half} ; threshold control
RV1b ref 0 ${half} ; threshold control
XU1 sense ref ${rail} 0 cmp COMPARATOR ; comparator
R3 ${rail} cmp 4.7k ; pull-up of the comparator
R4 sense cmp 1e6 ; hysteresis
R5 cmp base 10k ; base resistor
Q1 low base 0 NSMALL ; relay driver
RK1 ${rail} low ${num(n(v, 'coil'))} ; relay
D1 low ${rail} DSIGNAL ; across the relay
R6 ${rail} lit 1k ; resistor of the light
D2 lit low LEDRED ; shows the relay`,
        [MODELS.openCollector, MODELS.npn, MODELS.signalDiode, ledModel('red')],
        {
          points: { sense: 'sensor', ref: 'threshold', cmp: 'output of the comparator', base: 'base of the driver', low: 'collector of the driver' },
          looks: [look('the relay answers', 'Cover and uncover (or warm) the sensor', 'The relay clicks and the light changes', 'K1', PULLS)],
        },
      );
    },
  },
  {
    id: 'mosfet-dimmer',
    title: 'MOSFET switch or dimmer',
    about: 'A control sets the gate, the MOSFET carries the lamp.',
    fields: [...feedFields(12), ohms('control', 'Control', 100000), ohms('gate', 'Gate resistor', 1000), ohms('lamp', 'Lamp or load', 47)],
    build: (v) => {
      const rail = s(v, 'rail');
      const half = num(n(v, 'control') / 2);
      return templateText(
        `${dcFeed(v)}
RV1a ${rail} set ${half} ; control
RV1b set 0 ${half} ; control
R1 set g ${num(n(v, 'gate'))} ; gate resistor
R2 g 0 1e6 ; holds the gate low
M1 d g 0 0 NSWITCH ; switch
RLA1 ${rail} d ${num(n(v, 'lamp'))} ; lamp or load`,
        [MODELS.nmos],
        {
          points: { set: 'wiper of the control', g: 'gate', d: 'drain' },
          looks: [look('the lamp follows the control', 'Turn the control from end to end', 'The lamp goes from dark to bright')],
        },
      );
    },
  },
  {
    id: 'microcontroller',
    title: 'Microcontroller board with regulator, keys and LEDs',
    about: 'The socket is measured empty first: supply pins, reset, keys, then the chip goes in. The chip has no model.',
    fields: [volts('in', 'Input', 9), volts('core', 'Supply of the chip', 5), ohms('pull', 'Pull-ups', 10000), ohms('led', 'Resistors of the LEDs', 470)],
    build: (v) => {
      const pull = num(n(v, 'pull'));
      const led = num(n(v, 'led'));
      return templateText(
        `V1 vin 0 DC ${num(n(v, 'in'))}
D1 vin raw DRECTIFIER ; guard against reversed polarity
XU2 raw 0 vcc REGULATOR v=${num(n(v, 'core'))} ; regulator
C1 raw 0 1e-4 ; at the regulator's input
C2 vcc 0 1e-5 ; at the regulator's output
C3 vcc 0 1e-7 ; at the chip's supply pins
R1 vcc reset ${pull} ; pull-up of reset
C4 reset 0 1e-7 ; reset
R2 vcc key ${pull} ; pull-up of the key
R3 p1 lit1 ${led} ; resistor of the first LED
D2 lit1 0 LEDRED ; first LED
R4 vcc litp ${led} ; resistor of the power light
D3 litp 0 LEDGREEN ; power light
R8w p1 0 1e6`,
        [MODELS.rectifier, MODELS.regulator, ledModel('red'), ledModel('green')],
        {
          points: {
            raw: 'behind the guard diode',
            vcc: 'supply pin of the socket',
            reset: 'reset pin of the socket',
            key: 'pin of the key',
            p1: 'pin of the first LED',
          },
          looks: [look('the power light is on', 'Look at the power light', 'It is on', 'D3')],
        },
      );
    },
  },
];
