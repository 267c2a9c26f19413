import { MODELS } from '../../circuit';
import { DUAL, hollow } from '../elementCards';
import { dcFeed, farads, feedFields, look, n, num, ohms, output, s } from './feeds';
import { type Template, templateText } from './template';

/** Own current of an amplifier chip, and what holds its output at half supply (common types, from memory). */
const CHIP_OHMS = 1500;

/** A chip of which only the pins are known. */
const HOLLOW = hollow(8);

/** Circuits that amplify or shape a signal. */
export const SIGNAL_TEMPLATES: readonly Template[] = [
  {
    id: 'op-amp-preamp',
    title: 'Op-amp preamplifier with half-supply reference',
    about: 'Two resistors make half the supply; the op-amp’s output rests there. Gain 1 + Rf/Rg for the signal.',
    fields: [
      ...feedFields(9),
      ohms('half', 'Half-supply resistors, each', 10000),
      ohms('rf', 'Feedback', 100000),
      ohms('rg', 'To ground through a capacitor', 10000),
      output('out'),
    ],
    build: (v) => {
      const rail = s(v, 'rail');
      const half = num(n(v, 'half'));
      const out = s(v, 'output');
      return templateText(
        `${dcFeed(v)}
R1 ${rail} half ${half} ; upper half-supply
R2 half 0 ${half} ; lower half-supply
C1 half 0 1e-5 ; quiets the half supply
R3 half p 100k ; bias of the input
C2 sig p 1e-7 ; input
R7w sig 0 1e6
XU1 p m ${rail} 0 amp OPAMP ; op-amp
R4 amp m ${num(n(v, 'rf'))} ; feedback
R5 m g ${num(n(v, 'rg'))} ; sets the gain
C3 g 0 1e-5 ; sets the gain
C4 amp ${out} 1e-5 ; output
R6 ${out} 0 10k ; discharges the output`,
        [MODELS.opamp],
        { points: { half: 'half supply', p: 'plus input', m: 'minus input', amp: 'output of the op-amp, before its capacitor' } },
      );
    },
  },
  {
    id: 'chip-power-amplifier',
    title: 'Chip power amplifier, one loudspeaker behind a capacitor',
    about: 'Its output rests at half the supply. The chip is an op-amp that rests there; its power is not computed.',
    fields: [...feedFields(12), farads('out', 'Output capacitor', 4.7e-4), ohms('speaker', 'Loudspeaker', 8)],
    build: (v) => {
      const rail = s(v, 'rail');
      return templateText(
        `${dcFeed(v)}
C1 ${rail} 0 4.7e-4 ; across the supply
R1w ${rail} half 20k
R2w half 0 20k
XU1 half m ${rail} 0 amp OPAMP ; amplifier chip
R3w amp m 20k
R4w ${rail} 0 ${CHIP_OHMS}
C2 amp sp ${num(n(v, 'out'))} ; output
R1 amp zob 10 ; against oscillation
C3 zob 0 1e-7 ; against oscillation
RLS1 sp 0 ${num(n(v, 'speaker'))} ; loudspeaker
C4 half 0 4.7e-5 ; bypass`,
        [MODELS.opamp],
        {
          points: { amp: 'output of the chip: half the supply', half: 'bypass pin', sp: 'loudspeaker' },
          looks: [look('a touch hums', 'Touch the input with a wet finger', 'The loudspeaker hums')],
        },
      );
    },
  },
  {
    id: 'bridged-amplifier',
    title: 'Chip power amplifier, bridged: loudspeaker between two outputs',
    about: 'Both outputs rest at half the supply, across the loudspeaker about zero. The chip is two op-amps that rest there.',
    fields: [...feedFields(12), ohms('speaker', 'Loudspeaker', 8)],
    build: (v) => {
      const rail = s(v, 'rail');
      return templateText(
        `${dcFeed(v)}
C1 ${rail} 0 4.7e-4 ; across the supply
R1w ${rail} half 20k
R2w half 0 20k
XU1 outa ma half 0 half mb outb ${rail} DUALOPAMP ; amplifier chip
R3w outa ma 20k
R4w outb mb 20k
R5w ${rail} 0 ${CHIP_OHMS}
C2 half 0 4.7e-5 ; bypass
RLS1 outa outb ${num(n(v, 'speaker'))} ; loudspeaker`,
        [MODELS.opamp, DUAL],
        {
          points: { outa: 'one output', outb: 'other output', half: 'bypass pin' },
          looks: [look('a touch hums', 'Touch the input with a wet finger', 'The loudspeaker hums')],
        },
      );
    },
  },
  {
    id: 'transistor-amplifier',
    title: 'Transistor amplifier with bias control',
    about: 'A control sets the base, and with it the collector, which belongs near half the supply.',
    fields: [
      ...feedFields(12),
      ohms('upper', 'Upper bias resistor', 47000),
      ohms('control', 'Bias control', 22000),
      ohms('collector', 'Collector resistor', 2200),
      ohms('emitter', 'Emitter resistor', 330),
    ],
    build: (v) => {
      const rail = s(v, 'rail');
      const half = num(n(v, 'control') / 2);
      return templateText(
        `${dcFeed(v)}
R1 ${rail} top ${num(n(v, 'upper'))} ; upper bias
RV1a top b ${half} ; bias control
RV1b b 0 ${half} ; bias control
C1 sig b 1e-5 ; input
R7w sig 0 1e6
R2 ${rail} col ${num(n(v, 'collector'))} ; collector
Q1 col b e NSMALL ; transistor
R3 e 0 ${num(n(v, 'emitter'))} ; emitter
C2 e 0 1e-4 ; across the emitter resistor
C3 col out 1e-5 ; output
R4 out 0 10k ; discharges the output`,
        [MODELS.npn],
        { points: { b: 'base', e: 'emitter', col: 'collector: near half the supply when adjusted' } },
      );
    },
  },
  {
    id: 'function-generator',
    title: 'Function-generator chip board',
    about: 'Half-supply reference, timing parts and an output divider around a chip without a model: its outputs need typed limits.',
    fields: [
      ...feedFields(12),
      ohms('half', 'Half-supply resistors, each', 4700),
      ohms('timing', 'Timing control', 100000),
      farads('c', 'Timing capacitor', 1e-8),
    ],
    build: (v) => {
      const rail = s(v, 'rail');
      const each = num(n(v, 'half'));
      const track = num(n(v, 'timing') / 2);
      return templateText(
        `${dcFeed(v)}
R1 ${rail} half ${each} ; upper half-supply
R2 half 0 ${each} ; lower half-supply
C1 half 0 1e-5 ; half supply
XU1 ${rail} tc1 tc2 tr out half 0 sq NOMODEL8 ; function-generator chip
C2 tc1 tc2 ${num(n(v, 'c'))} ; timing
R3 tr low 1k ; least timing resistance
RV1a low wiper ${track} ; frequency control
RV1b wiper 0 ${track} ; frequency control
R9w wiper 0 0.01
R4 out half 4.7k ; output level
R5 ${rail} sq 10k ; pull-up of the square wave
C3 ${rail} 0 1e-4 ; across the supply`,
        [HOLLOW],
        { points: { half: 'half supply', out: 'output of the chip', sq: 'square-wave output' } },
      );
    },
  },
  {
    id: 'melody-chip',
    title: 'Voice or melody chip with a transistor and loudspeaker',
    about: 'The chip has no model; its transistor rests off. A light shows that it plays.',
    fields: [...feedFields(3), ohms('base', 'Base resistor', 1000), ohms('speaker', 'Loudspeaker', 8)],
    build: (v) => {
      const rail = s(v, 'rail');
      return templateText(
        `${dcFeed(v)}
XU1 ${rail} 0 trig osc q nc1 nc2 nc3 NOMODEL8 ; melody chip
R1 ${rail} osc 220k ; sets its speed
R2 q base ${num(n(v, 'base'))} ; base resistor
R8w q 0 1e5
Q1 low base 0 NSMALL ; drives the loudspeaker
RLS1 ${rail} low ${num(n(v, 'speaker'))} ; loudspeaker
R3 trig 0 100k ; holds the trigger low
C1 ${rail} 0 1e-4 ; across the supply`,
        [HOLLOW, MODELS.npn],
        {
          points: { low: 'collector of the transistor: the supply at rest', base: 'base of the transistor', trig: 'trigger: low at rest' },
          looks: [look('it plays', 'Press the key', 'The melody plays to its end, clearly')],
        },
      );
    },
  },
];
