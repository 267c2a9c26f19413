import { type ClaimMeans, judgeClaim, type Oscillator } from '@/core/load';
import type { Answer, Given, Said, Sum, SumField } from './sum';

const claimed: readonly SumField[] = [
  { key: 'low', label: 'Claimed from', unit: null, initial: '1', least: 0 },
  { key: 'high', label: 'Claimed to', unit: null, initial: '10' },
];
/** A claim judged, in words. */
const verdictOf = (means: ClaimMeans): Said => {
  const { possible, text } = judgeClaim(means);
  return { text: `${possible ? 'Possible' : 'Impossible'}: ${text}.`, tone: possible ? 'in' : 'out' };
};
const judged = (means: ClaimMeans): Answer => ({ said: [verdictOf(means)], means });
const spanOf = (given: Given): [number, number] => {
  const span: [number, number] = [given.of('low'), given.of('high')];
  if (span[0] > span[1]) throw new Error('The claim ends below where it begins.');
  return span;
};

const POWER: Sum = {
  id: 'power',
  title: 'Claimed power',
  about: 'The greatest sine power that a supply can bring into a loudspeaker, whatever the box says.',
  fields: [
    {
      key: 'topology',
      label: 'Output',
      choices: [
        ['single-ended', 'one supply, capacitor'],
        ['bridge', 'bridge-tied'],
        ['split', 'split supply'],
      ],
      initial: 'single-ended',
    },
    {
      key: 'class',
      label: 'Class',
      choices: [
        ['ab', 'AB'],
        ['d', 'D, switching'],
      ],
      initial: 'ab',
    },
    { key: 'supply', label: 'Supply (one rail)', unit: 'V', initial: '15' },
    { key: 'amps', label: 'What it can give', unit: 'A', optional: true },
    { key: 'ohms', label: 'Load', unit: 'ohm', initial: '4' },
    { key: 'saturation', label: 'Kept by each device', unit: 'V', optional: true, least: 0 },
    { key: 'watts', label: 'Claimed', unit: 'W', initial: '30' },
    {
      key: 'as',
      label: 'Claimed as',
      choices: [
        ['rms', 'sine power'],
        ['peak', 'peak power'],
      ],
      initial: 'rms',
    },
  ],
  run: (given) => {
    return judged({
      kind: 'power',
      topology: given.text('topology') as 'single-ended' | 'bridge' | 'split',
      outputClass: given.text('class') as 'ab' | 'd',
      supplyVolts: given.of('supply'),
      supplyAmps: given.maybe('amps'),
      loadOhms: given.of('ohms'),
      saturationVolts: given.maybe('saturation') ?? 0,
      claimedWatts: given.of('watts'),
      claimedAs: given.text('as') as 'rms' | 'peak',
    });
  },
};

const RANGE: Sum = {
  id: 'range',
  title: 'Claimed range',
  about: 'Output of an adjustable regulator: Vref · (1 + R2/R1) + Iadj · R2, and no higher than the input less its drop-out.',
  fields: [
    { key: 'vref', label: 'Reference', unit: 'V', initial: '1.25' },
    { key: 'iadj', label: 'Current of its adjust pin', unit: 'A', initial: '50u', least: 0 },
    { key: 'r1', label: 'R1, output to adjust', unit: 'ohm', initial: '240' },
    { key: 'r2', label: 'R2 at most, adjust to ground', unit: 'ohm', initial: '5k' },
    { key: 'input', label: 'Input', unit: 'V', initial: '30' },
    { key: 'dropout', label: 'Drop-out', unit: 'V', initial: '2', least: 0 },
    { key: 'low', label: 'Claimed from', unit: 'V', initial: '1.25', least: 0 },
    { key: 'high', label: 'Claimed to', unit: 'V', initial: '25' },
  ],
  run: (given) => {
    return judged({
      kind: 'range',
      vref: given.of('vref'),
      iadj: given.of('iadj'),
      rTop: given.of('r1'),
      rBottom: [0, given.of('r2')],
      inputVolts: given.of('input'),
      dropout: given.of('dropout'),
      claimed: spanOf(given),
    });
  },
};

const oscillator = (id: string, title: string, about: string, fields: readonly SumField[], of: (given: Given) => Oscillator): Sum => ({
  id,
  title,
  about,
  fields: [
    ...fields,
    { key: 'stages', label: 'Stages that halve it', unit: null, initial: '0', least: 0 },
    ...claimed.map((f) => ({ ...f, unit: 'Hz' as const })),
  ],
  run: (given) => {
    return judged({ kind: 'frequency', of: of(given), stages: Math.round(given.of('stages')), claimed: spanOf(given) });
  },
});

const one = (v: number): [number, number] => [v, v];

const RC = oscillator(
  'rc',
  'RC oscillator',
  'CMOS divider chips: 1/(2.3 R C).',
  [
    { key: 'rLeast', label: 'R at least', unit: 'ohm', initial: '10k' },
    { key: 'rMost', label: 'R at most', unit: 'ohm', initial: '210k' },
    { key: 'c', label: 'C', unit: 'F', initial: '1u' },
  ],
  (g) => ({ form: 'rc-2.3', r: [g.of('rLeast'), Math.max(g.of('rLeast'), g.of('rMost'))], c: one(g.of('c')) }),
);
const TIMER = oscillator(
  'timer',
  'Timer chip',
  'Astable: 1/(ln 2 · (Ra + 2 Rb) · C).',
  [
    { key: 'ra', label: 'Ra', unit: 'ohm', initial: '1k' },
    { key: 'rb', label: 'Rb', unit: 'ohm', initial: '10k' },
    { key: 'c', label: 'C', unit: 'F', initial: '1u' },
  ],
  (g) => ({ form: '555-astable', ra: one(g.of('ra')), rb: one(g.of('rb')), c: one(g.of('c')) }),
);
const FLASHER = oscillator(
  'flasher',
  'Two transistors',
  'Two-transistor flasher: 1/(ln 2 · (R1 C1 + R2 C2)).',
  [
    { key: 'r1', label: 'R1', unit: 'ohm', initial: '47k' },
    { key: 'c1', label: 'C1', unit: 'F', initial: '10u' },
    { key: 'r2', label: 'R2', unit: 'ohm', initial: '47k' },
    { key: 'c2', label: 'C2', unit: 'F', initial: '10u' },
  ],
  (g) => ({ form: 'two-transistor', r1: one(g.of('r1')), c1: one(g.of('c1')), r2: one(g.of('r2')), c2: one(g.of('c2')) }),
);

const CURRENT: Sum = {
  id: 'current',
  title: 'Claimed current',
  about: 'What a linear regulator gives for good is set by its heat: (input − output) · amperes through everything between junction and room.',
  fields: [
    { key: 'volts', label: 'Output', unit: 'V', initial: '5' },
    { key: 'amps', label: 'Claimed', unit: 'A', initial: '1.5' },
    { key: 'input', label: 'Input', unit: 'V', initial: '12' },
    { key: 'kw', label: 'Junction to room with its sink, K/W', unit: null, initial: '20' },
    { key: 'ambient', label: 'Room, °C', unit: null, initial: '25', least: 'any' },
    { key: 'junction', label: 'Junction’s limit, °C', unit: null, initial: '125' },
  ],
  run: (given) =>
    judged({
      kind: 'current',
      volts: given.of('volts'),
      amps: given.of('amps'),
      inputVolts: given.of('input'),
      junctionToAmbient: given.of('kw'),
      ambient: given.of('ambient'),
      junction: given.of('junction'),
    }),
};

const DROPOUT: Sum = {
  id: 'dropout',
  title: 'Claimed lowest input',
  about: 'A regulator needs more at its input than at its output: its drop-out at this load.',
  fields: [
    { key: 'volts', label: 'Output', unit: 'V', initial: '5' },
    { key: 'input', label: 'Claimed to work from', unit: 'V', initial: '6' },
    { key: 'dropout', label: 'Drop-out of the type', unit: 'V', initial: '2', least: 0 },
  ],
  run: (given) => judged({ kind: 'dropout', volts: given.of('volts'), inputVolts: given.of('input'), dropout: given.of('dropout') }),
};

/** What the seller promises. */
export const CLAIM_SUMS: readonly Sum[] = [POWER, RANGE, CURRENT, DROPOUT, RC, TIMER, FLASHER];
