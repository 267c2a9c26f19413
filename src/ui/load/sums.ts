import {
  type ClaimMeans,
  forecastHeat,
  judgeClaim,
  lampInSeries,
  type LampLoad,
  type Oscillator,
  ofCursors,
  readRecording,
  type Recording,
  regulationOf,
  waveformOf,
} from '@/core/load';
import { print, type Unit } from '@/core/quantity';
import { readRows } from './rows';

/** A value that a sum asks for. Choices are picked, texts pasted, all else is a quantity. */
export interface SumField {
  readonly key: string;
  readonly label: string;
  readonly unit?: Unit | null;
  readonly initial?: string;
  readonly optional?: true;
  /** May be nothing, or below it. */
  readonly least?: 0 | 'any';
  readonly choices?: readonly (readonly [value: string, label: string])[];
  readonly rows?: string;
}

export interface Said {
  readonly text: string;
  readonly tone: 'plain' | 'in' | 'doubtful' | 'out';
}

export interface Drawn {
  readonly xTitle: string;
  readonly yTitle: string;
  readonly label: string;
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** Single points: what was read. */
  readonly marks?: { readonly x: readonly number[]; readonly y: readonly number[] };
}

export interface Sum {
  readonly id: string;
  readonly title: string;
  readonly about: string;
  readonly fields: readonly SumField[];
  /** @throws Error that says what is wrong with what was given */
  readonly run: (given: Given) => Answer;
}

export interface Answer {
  readonly said: readonly Said[];
  readonly drawn?: Drawn;
  /** What was claimed, where the sum is about a claim. */
  readonly means?: ClaimMeans;
  /** Volts over amperes of a load test, to be held against the circuit. */
  readonly loaded?: { readonly amps: readonly number[]; readonly volts: readonly number[] };
  /** What was recorded, to be held against the circuit. */
  readonly recording?: Recording;
}

/** What was given: quantities in SI (NaN where none), texts as they stand. */
export interface Given {
  readonly of: (key: string) => number;
  readonly maybe: (key: string) => number | null;
  readonly text: (key: string) => string;
}

const plain = (text: string): Said => ({ text, tone: 'plain' });
/** A field only where there is a value. */
const withValue = <T extends object>(value: number | null, of: (value: number) => T): T | Record<string, never> => (value === null ? {} : of(value));

const CAUSES = {
  regulated: ['It holds its voltage over the whole load.', 'in'],
  'supply-limit': ['The supply’s own current limit was reached: raise it, or the load is too heavy for it.', 'doubtful'],
  'regulator-limit': ['The regulator’s current limit was reached, though it has headroom left.', 'out'],
  sag: ['The source sags under load until the regulator has no headroom: a stronger source or a larger reservoir.', 'doubtful'],
  'drop-out': ['The input holds, but lies too close to the output: drop-out. Give it more input, or set a lower output.', 'doubtful'],
} as const;

const HEAT: Sum = {
  id: 'heat',
  title: 'Heat',
  about: 'Three or more temperatures of the sink tell where it will end, before it is there.',
  fields: [
    { key: 'rows', label: 'Seconds and °C, one reading a line', rows: '0 22.5\n60 34\n120 42\n240 52' },
    { key: 'watts', label: 'Power in it', unit: 'W', initial: '5' },
    { key: 'noise', label: 'How far a reading is off, K', unit: null, initial: '0.5' },
    { key: 'ambient', label: 'Room, °C', unit: null, optional: true, least: 'any' },
    { key: 'touch', label: 'Finger’s limit, °C', unit: null, initial: '60' },
    { key: 'junction', label: 'Junction’s limit, °C', unit: null, initial: '125' },
    { key: 'junctionToCase', label: 'Junction to tab, K/W', unit: null, initial: '5', least: 0 },
  ],
  run: (given) => {
    const readings = readRows(given.text('rows'), 2).map(([t, celsius]) => ({ t: t!, celsius: celsius! }));
    if (new Set(readings.map((r) => r.t)).size < 3) throw new Error('Give at least three readings at different moments.');
    const [touch, junction] = [given.maybe('touch'), given.maybe('junction')];
    const forecast = forecastHeat({
      readings,
      noise: given.of('noise'),
      watts: given.of('watts'),
      ...withValue(given.maybe('ambient'), (ambient) => ({ ambient })),
      limits: { ...withValue(touch, (touch) => ({ touch })), ...withValue(junction, (junction) => ({ junction })) },
      ...withValue(given.maybe('junctionToCase'), (junctionToCase) => ({ junctionToCase })),
    });
    const needed =
      forecast.neededSinkToAmbient === null ? [] : [plain(`A sink of at most ${forecast.neededSinkToAmbient.toFixed(1)} K/W keeps every limit at this power.`)];
    const shown = { x: readings.map((r) => r.t), y: readings.map((r) => r.celsius) };
    const { final, tau } = forecast;
    if (final === null || tau === null)
      return {
        said: [
          { text: 'Too early to tell: the readings still lie on a straight line. Read on, and keep a finger near the switch.', tone: 'doubtful' },
          ...needed,
        ],
        drawn: { ...shown, xTitle: 'seconds', yTitle: '°C', label: 'Temperatures read' },
      };
    const hot = forecast.junction !== null && junction !== null && forecast.junction > junction;
    const end = 3 * tau + Math.max(...shown.x);
    const x = Array.from({ length: 100 }, (_, i) => (end * i) / 99);
    const start = forecast.start!;
    return {
      said: [
        {
          text: `It ends at ${final.toFixed(1)} °C, give or take ${forecast.sigma!.toFixed(1)} K; time constant ${print(tau, 's', 2)}.`,
          tone: hot ? 'out' : 'plain',
        },
        ...(hot ? [{ text: 'Stop now: the junction passes its limit.', tone: 'out' as const }] : []),
        ...(forecast.junction === null ? [] : [plain(`The junction then sits at ${forecast.junction.toFixed(0)} °C.`)]),
        ...(touch === null
          ? []
          : [
              forecast.touchAt === null
                ? { text: 'It never burns a finger.', tone: 'in' as const }
                : { text: `It burns a finger from ${print(forecast.touchAt, 's', 2)} on.`, tone: 'doubtful' as const },
            ]),
        plain(`This sink has ${forecast.sinkToAmbient!.toFixed(1)} K/W.`),
        ...needed,
      ],
      drawn: {
        x,
        y: x.map((t) => final - (final - start) * Math.exp(-t / tau)),
        marks: shown,
        xTitle: 'seconds',
        yTitle: '°C',
        label: `Forecast of the sink, ending at ${final.toFixed(0)} °C`,
      },
    };
  },
};

const LOAD: Sum = {
  id: 'load',
  title: 'Load test',
  about: 'Make the load heavier step by step and read the output: how stiff it is, and what gives way first.',
  fields: [
    {
      key: 'rows',
      label: 'Amperes, volts, and if you can the input’s volts and amperes, one step a line',
      rows: '0 5.01 12\n0.2 5.00 12\n0.4 4.99 12\n0.6 4.98 12',
    },
    { key: 'setVolts', label: 'Set to', unit: 'V', initial: '5' },
    {
      key: 'kind',
      label: 'Fed by',
      choices: [
        ['linear', 'a DC supply'],
        ['rectified', 'winding, rectifier, reservoir'],
      ],
      initial: 'linear',
    },
    { key: 'dropout', label: 'Drop-out of the type', unit: 'V', optional: true },
  ],
  run: (given) => {
    const points = readRows(given.text('rows'), 2).map(([amps, volts, inputVolts, inputAmps]) => ({
      amps: amps!,
      volts: volts!,
      ...withValue(inputVolts ?? null, (inputVolts) => ({ inputVolts })),
      ...withValue(inputAmps ?? null, (inputAmps) => ({ inputAmps })),
    }));
    if (points.some((p) => p.amps < 0)) throw new Error('A load draws no negative current: look at the signs.');
    if (points.length < 4 || new Set(points.map((p) => p.amps)).size < 2) throw new Error('Give at least four steps at different currents.');
    const kind = given.text('kind') === 'rectified' ? 'rectified' : 'linear';
    const r = regulationOf({ points, setVolts: given.of('setVolts'), kind, ...withValue(given.maybe('dropout'), (dropout) => ({ dropout })) });
    const [text, tone] = r.cause === null ? (['What gives way cannot be told without the input’s volts.', 'plain'] as const) : CAUSES[r.cause];
    const watts = r.watts.flatMap((w, i) => (w === null ? [] : [{ w, amps: points[i]!.amps }]));
    const worst = watts.sort((a, b) => b.w - a.w)[0];
    return {
      loaded: { amps: points.map((p) => p.amps), volts: points.map((p) => p.volts) },
      said: [
        { text, tone },
        ...(r.limitedFrom === null ? [] : [plain(`It no longer holds from ${print(r.limitedFrom, 'A', 3)} on.`)]),
        ...(r.outputOhms === null
          ? []
          : [plain(`Output resistance ${print(Math.max(0, r.outputOhms), 'ohm', 2)}, regulation ${r.regulationPercent!.toFixed(2)} %.`)]),
        ...(worst ? [plain(`Most heat: ${print(worst.w, 'W', 3)} in the regulator at ${print(worst.amps, 'A', 3)}.`)] : []),
      ],
      drawn: {
        x: points.map((p) => p.amps),
        y: points.map((p) => p.volts),
        marks: { x: points.map((p) => p.amps), y: points.map((p) => p.volts) },
        xTitle: 'amperes',
        yTitle: 'volts',
        label: 'Output over load',
      },
    };
  },
};

const MOST_DRAWN = 2000;

const WAVE: Sum = {
  id: 'wave',
  title: 'Waveform',
  about: 'A recording of an oscilloscope or a sound card: time and volts, or volts alone with “# sample rate: 48 kHz”.',
  fields: [{ key: 'rows', label: 'The file’s text', rows: 'time,volts\n0,0.1\n0.001,0.9' }],
  run: (given) => {
    const recording = readRecording(given.text('rows'));
    const w = waveformOf(recording);
    const step = Math.ceil(recording.t.length / MOST_DRAWN);
    const thin = (a: Float64Array) => Array.from(a).filter((_, i) => i % step === 0);
    return {
      recording,
      said: [
        plain(
          w.frequency === null
            ? 'No period was found: rest, noise, or fewer than three whole periods.'
            : `Frequency ${print(w.frequency, 'Hz', 4)}, duty ${(100 * w.duty!).toFixed(1)} %.`,
        ),
        plain(`Average ${print(w.average, 'V', 3)}, RMS ${print(w.rms, 'V', 3)}: a DC meter shows the first, a true-RMS one on DC + AC the second.`),
        plain(`From ${print(w.min, 'V', 3)} to ${print(w.max, 'V', 3)}, amplitude ${print(w.amplitude, 'V', 3)}.`),
      ],
      drawn: { x: thin(recording.t), y: thin(recording.v), xTitle: 'seconds', yTitle: 'volts', label: 'The recording' },
    };
  },
};

const CURSORS: Sum = {
  id: 'cursors',
  title: 'Two cursors',
  about: 'Without a file: one cursor at the start of a period on its lowest level, one at its end on the highest.',
  fields: [
    { key: 't1', label: 'First cursor, time', unit: 's', initial: '0', least: 'any' },
    { key: 'v1', label: 'First cursor, level', unit: 'V', initial: '0', least: 'any' },
    { key: 't2', label: 'Second cursor, time', unit: 's', initial: '1m', least: 'any' },
    { key: 'v2', label: 'Second cursor, level', unit: 'V', initial: '2', least: 'any' },
  ],
  run: (given) => {
    const { frequency, swing } = ofCursors({ from: { t: given.of('t1'), v: given.of('v1') }, to: { t: given.of('t2'), v: given.of('v2') } });
    return {
      said: [
        plain(`Frequency ${print(frequency, 'Hz', 3)}, from peak to peak ${print(swing, 'V', 3)}.`),
        plain(`A sine of this swing has ${print(swing / Math.sqrt(8), 'V', 3)} RMS, a square wave ${print(swing / 2, 'V', 3)}.`),
      ],
    };
  },
};

const GLOW = { dark: 'stays dark', dim: 'glows dimly', half: 'burns at half', full: 'burns fully' } as const;

const LAMP: Sum = {
  id: 'lamp',
  title: 'Series lamp',
  about: 'A lamp in series limits what a short can draw. On mains this is work by or under somebody licensed; local codes decide.',
  fields: [
    { key: 'volts', label: 'Lamp’s volts', unit: 'V', initial: '12' },
    { key: 'watts', label: 'Lamp’s watts', unit: 'W', initial: '21' },
    { key: 'source', label: 'Source', unit: 'V', initial: '12' },
    { key: 'inside', label: 'Its inner resistance', unit: 'ohm', optional: true, least: 0 },
    {
      key: 'load',
      label: 'The board',
      choices: [
        ['ohms', 'draws like a resistor'],
        ['watts', 'draws constant power'],
        ['short', 'is a short'],
      ],
      initial: 'ohms',
    },
    { key: 'ohms', label: 'Ohms of the board', unit: 'ohm', optional: true },
    { key: 'power', label: 'Watts of the board', unit: 'W', optional: true },
  ],
  run: (given) => {
    const kind = given.text('load');
    const [ohms, watts] = [given.maybe('ohms'), given.maybe('power')];
    if (kind === 'ohms' && ohms === null) throw new Error('How many ohms does the board draw like?');
    if (kind === 'watts' && watts === null) throw new Error('How many watts does the board draw?');
    const load: LampLoad = kind === 'short' ? { kind: 'short' } : kind === 'watts' ? { kind: 'watts', watts: watts! } : { kind: 'ohms', ohms: ohms! };
    const s = lampInSeries({ volts: given.of('volts'), watts: given.of('watts') }, { volts: given.of('source'), ohms: given.maybe('inside') ?? 0 }, load);
    if (!s) return { said: [{ text: 'The lamp cannot pass that much: the board will not start. A stronger lamp, after it ran cold.', tone: 'out' }] };
    return {
      said: [
        { text: `The lamp ${GLOW[s.glow]}: ${print(s.amps, 'A', 3)}, ${print(s.lampVolts, 'V', 3)} across it.`, tone: s.glow === 'full' ? 'out' : 'plain' },
        plain(`The board gets ${print(s.loadVolts, 'V', 3)}: readings are lower by that much, and no fault.`),
      ],
    };
  },
};

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
  about: 'A regulator wants more at its input than at its output: by its drop-out, at this load.',
  fields: [
    { key: 'volts', label: 'Output', unit: 'V', initial: '5' },
    { key: 'input', label: 'Claimed to work from', unit: 'V', initial: '6' },
    { key: 'dropout', label: 'Drop-out of the type', unit: 'V', initial: '2', least: 0 },
  ],
  run: (given) => judged({ kind: 'dropout', volts: given.of('volts'), inputVolts: given.of('input'), dropout: given.of('dropout') }),
};

export const SUMS: readonly Sum[] = [HEAT, LOAD, WAVE, CURSORS, LAMP, POWER, RANGE, CURRENT, DROPOUT, RC, TIMER, FLASHER];
