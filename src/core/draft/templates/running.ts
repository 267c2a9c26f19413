import { ledModel, MODELS } from '../../circuit';
import { colour, dcFeed, farads, feedFields, look, n, num, ohms, output, s } from './feeds';
import { type Template, templateText } from './template';

/** Formulas of the timer chip (data sheet, from memory), of an inverter oscillator with two inverters (common practice). */
const TIMER = { astable: 1.44, monostable: 1.1 } as const;
const INVERTERS = 2.3;
/** What a timer's output loses below its supply (from memory). */
const TIMER_DROP = 1.5;
const OUTPUT_OHMS = 50;

/** A square wave behind the resistance of an output: what stands for a chip that the circuit does not hold. */
function square(ref: string, out: string, high: number, period: number, duty: number): string {
  const edge = period / 1000;
  return `V${ref}q ${ref}o 0 PULSE(0 ${num(high)} 0 ${num(edge)} ${num(edge)} ${num(period * duty - edge)} ${num(period)})\nR${ref}o ${ref}o ${out} ${OUTPUT_OHMS}`;
}

/** Circuits that run by themselves. */
export const RUNNING_TEMPLATES: readonly Template[] = [
  {
    id: 'two-transistor-flasher',
    title: 'Two-transistor flasher with two LEDs',
    about: 'Cross-coupled stages light in turn; each half lasts about 0.69 R C.',
    fields: [
      ...feedFields(9),
      ohms('led', 'Resistors of the LEDs', 470),
      ohms('base', 'Base resistors', 47000),
      farads('c', 'Capacitors', 1e-5),
      colour('colour', 'LEDs'),
    ],
    build: (v) => {
      const model = ledModel(s(v, 'colour'));
      const rail = s(v, 'rail');
      const half = (i: number, other: number) => `
R${i} ${rail} l${i} ${num(n(v, 'led'))} ; resistor of LED ${i}
D${i} l${i} c${i} ${model.name} ; LED ${i}
R${i + 2} ${rail} b${i} ${num(n(v, 'base'))} ; base resistor ${i}
C${i} c${i} b${other} ${num(n(v, 'c'))} ; from collector ${i} to base ${other}
Q${i} c${i} b${i} 0 NSMALL ; transistor ${i}`;
      return templateText(`${dcFeed(v)}${half(1, 2)}${half(2, 1)}`, [MODELS.npn, model], {
        initial: 'V(c1)=0 V(b2)=-3',
        points: {
          c1: 'collector of the first transistor',
          c2: 'collector of the second transistor',
          b1: 'base of the first transistor',
          b2: 'base of the second transistor',
        },
        looks: [look('both LEDs flash in turn', 'Watch both LEDs for some seconds', 'They light one after the other, each as long')],
      });
    },
  },
  {
    id: 'timer-astable',
    title: 'Timer chip, running, with an LED',
    about: 'f = 1.44/((R1 + 2 R2) C). The chip itself is a square wave of that frequency at its output.',
    fields: [...feedFields(9), ohms('r1', 'R1', 10000), ohms('r2', 'R2', 47000), farads('c', 'C', 1e-5), ohms('led', 'Resistor of the LED', 680)],
    build: (v) => {
      const [a, b] = [n(v, 'r1'), n(v, 'r2')];
      const rail = s(v, 'rail');
      const period = ((a + 2 * b) * n(v, 'c')) / TIMER.astable;
      const high = (n(v, 'volts') || 9) - TIMER_DROP;
      return templateText(
        `${dcFeed(v)}
R1 ${rail} dis ${num(a)} ; supply to discharge
R2 dis thr ${num(b)} ; discharge to threshold
C1 thr 0 ${num(n(v, 'c'))} ; timing
C2 cv 0 1e-8 ; control pin
R5w ${rail} cv 5000
R6w cv 0 10000
${square('U1', 'q', high, period, (a + b) / (a + 2 * b))}
R3 q lit ${num(n(v, 'led'))} ; resistor of the LED
D1 lit 0 LEDRED ; LED`,
        [ledModel('red')],
        {
          points: { q: 'output, pin 3', dis: 'discharge, pin 7', thr: 'threshold and trigger, pins 6 and 2', cv: 'control, pin 5: two thirds of the supply' },
          looks: [look('the LED flashes', 'Watch the LED', `It flashes, about ${num(1 / period)} times a second`)],
        },
      );
    },
  },
  {
    id: 'timer-monostable',
    title: 'Timer chip, one shot, with a key',
    about: 'A key starts one pulse of 1.1 R C. At rest the output is low and the trigger pin high.',
    fields: [...feedFields(9), ohms('r', 'Timing resistor', 100000), farads('c', 'Timing capacitor', 1e-5), ohms('pull', 'Pull-up of the key', 10000)],
    build: (v) => {
      const rail = s(v, 'rail');
      const seconds = num(TIMER.monostable * n(v, 'r') * n(v, 'c'));
      return templateText(
        `${dcFeed(v)}
R1 ${rail} thr ${num(n(v, 'r'))} ; timing
C1 thr 0 ${num(n(v, 'c'))} ; timing
R2 ${rail} trig ${num(n(v, 'pull'))} ; pull-up of the trigger
C2 cv 0 1e-8 ; control pin
R5w ${rail} cv 5000
R6w cv 0 10000
R7w thr 0 20
R8w q 0 ${OUTPUT_OHMS}
R3 q lit 680 ; resistor of the LED
D1 lit 0 LEDRED ; LED`,
        [ledModel('red')],
        {
          points: {
            q: 'output, pin 3: low at rest',
            trig: 'trigger, pin 2: high at rest',
            thr: 'threshold and discharge, pins 6 and 7: held low at rest',
            cv: 'control, pin 5',
          },
          looks: [look('one pulse', 'Press the key shortly', `The LED lights for about ${seconds} s`)],
        },
      );
    },
  },
  {
    id: 'divider-chain',
    title: 'RC oscillator with divider chain and LED drivers',
    about: 'f = 1/(2.3 R C), divided; one output drives a transistor with an LED. The chip is a square wave at that output.',
    fields: [
      ...feedFields(9),
      ohms('r', 'Oscillator R', 100000),
      farads('c', 'Oscillator C', 1e-7),
      ohms('base', 'Base resistor', 10000),
      ohms('led', 'Resistor of the LED', 470),
    ],
    build: (v) => {
      const rail = s(v, 'rail');
      const STAGES = 4;
      const period = INVERTERS * n(v, 'r') * n(v, 'c') * 2 ** STAGES;
      return templateText(
        `${dcFeed(v)}
R1 osc1 osc2 ${num(n(v, 'r'))} ; sets the frequency
C1 osc1 osc3 ${num(n(v, 'c'))} ; sets the frequency
R7w osc2 0 1e6
R8w osc3 0 1e6
${square('U1', 'q', n(v, 'volts') || 9, period, 0.5)}
R2 q base ${num(n(v, 'base'))} ; base resistor
Q1 low base 0 NSMALL ; LED driver
D1 lit low LEDRED ; LED
R3 ${rail} lit ${num(n(v, 'led'))} ; resistor of the LED`,
        [MODELS.npn, ledModel('red')],
        {
          points: { q: 'output of the chain', base: 'base of the driver', low: 'collector of the driver' },
          looks: [look('the LED flashes', 'Watch the LED', 'It flashes evenly')],
        },
      );
    },
  },
  {
    id: 'phase-shift-oscillator',
    title: 'One-transistor oscillator with detector stage',
    about: 'Three RC sections turn the phase, the transistor makes up for them; a diode and capacitor turn the tone into a voltage.',
    fields: [
      ...feedFields(12),
      ohms('r', 'Sections, R', 10000),
      farads('c', 'Sections, C', 1e-8),
      ohms('collector', 'Collector resistor', 4700),
      output('det'),
    ],
    build: (v) => {
      const rail = s(v, 'rail');
      const r = num(n(v, 'r'));
      const c = num(n(v, 'c'));
      return templateText(
        `${dcFeed(v)}
R1 ${rail} b 100k ; upper bias
R2 b 0 10k ; lower bias
R3 ${rail} col ${num(n(v, 'collector'))} ; collector
R4 e 0 680 ; emitter
C4 e 0 4.7e-5 ; across the emitter resistor
Q1 col b e NSMALL ; oscillator
C1 col s1 ${c} ; first section
R5 s1 0 ${r} ; first section
C2 s1 s2 ${c} ; second section
R6 s2 0 ${r} ; second section
C3 s2 b ${c} ; third section
C5 col in 1e-7 ; to the detector
D2 0 in DSIGNAL ; detector
D1 in ${s(v, 'output')} DSIGNAL ; detector
C6 ${s(v, 'output')} 0 1e-6 ; detector
R7 ${s(v, 'output')} 0 100k ; detector`,
        [MODELS.npn, MODELS.signalDiode],
        {
          initial: 'V(s1)=1',
          points: {
            col: 'collector of the oscillator',
            e: 'emitter of the oscillator',
            b: 'base of the oscillator',
            [s(v, 'output')]: 'output of the detector',
          },
        },
      );
    },
  },
];
