import { forecastHeat, lampInSeries, type LampLoad, ofCursors, regulationOf } from '@/core/load';
import { print } from '@/core/quantity';
import { CLAIM_SUMS } from './claimSums';
import { readRows } from './rows';
import { plain, type Sum, withValue } from './sum';

const CAUSES = {
  regulated: ['It holds its voltage over the whole load.', 'in'],
  'supply-limit': ['The supply’s own current limit was reached: raise it, or the load is too heavy for it.', 'doubtful'],
  'regulator-limit': ['The regulator’s current limit was reached, though it has headroom left.', 'out'],
  sag: ['The source sags under load until the regulator has no headroom: a stronger source or a larger reservoir.', 'doubtful'],
  'drop-out': ['The input holds, but is too close to the output: drop-out. Give it more input, or set a lower output.', 'doubtful'],
} as const;

const HEAT: Sum = {
  id: 'heat',
  title: 'Heat',
  about: 'Three or more temperatures of the sink tell where it will end, before it is there.',
  fields: [
    { key: 'rows', label: 'Seconds and °C, one reading a line', rows: '0 22.5\n60 34\n120 42\n240 52' },
    { key: 'watts', label: 'Power in it', unit: 'W', initial: '5' },
    { key: 'noise', label: 'Uncertainty of a reading, K', unit: null, initial: '0.5' },
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
          { text: 'Too early to tell: the readings are still on a straight line. Read on, and keep a finger near the switch.', tone: 'doubtful' },
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
    if (kind === 'ohms' && ohms === null) throw new Error('Enter the ohms of the board.');
    if (kind === 'watts' && watts === null) throw new Error('Enter the watts of the board.');
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

/** All that is reckoned beside the readings. */
export const SUMS: readonly Sum[] = [HEAT, LOAD, CURSORS, LAMP, ...CLAIM_SUMS];
