import type { FirstPowerBy, Stage } from '../kit';
import { lampInSeries } from '../load';
import { print } from '../quantity';
import type { StageForecast, SupplyForecast } from './forecast';

/** What to set, what to watch in the first ten seconds, when to switch off; and what speaks against this way. */
export interface FirstPower {
  readonly set: readonly string[];
  readonly watch: readonly string[];
  readonly off: readonly string[];
  readonly against: readonly string[];
}

/** A limit leaves a healthy board this much room, and no bench supply is set finer (common practice, no source). */
const ROOM = 2;
const FINEST_LIMIT = 0.02;
/** Figures that a knob is set to. */
const STEPS = [1, 1.5, 2, 2.5, 3, 4, 5, 6, 8];

/** The next figure upwards that a knob is set to. */
function upTo(value: number, steps: readonly number[]): number {
  const decade = 10 ** Math.floor(Math.log10(value));
  const step = steps.find((s) => s * decade >= value * (1 - 1e-9));
  return Number((step === undefined ? 10 * decade : step * decade).toPrecision(3));
}

/** Amperes to set a bench supply to: twice what the hungriest healthy board draws, rounded up. */
export const limitFor = ({ amperes }: Pick<SupplyForecast, 'amperes'>): number =>
  upTo(Math.max(FINEST_LIMIT, ROOM * Math.max(...amperes.map(Math.abs))), STEPS);

/** What a stage's own limits do to a healthy board: in its limit a supply gives fewer volts, and every window is missed. */
export function starvedBy({ supplies }: Pick<StageForecast, 'supplies'>, stage: Pick<Stage, 'supplies'>): string[] {
  return supplies.flatMap((s) => {
    const limit = stage.supplies.find((x) => x.source.toLowerCase() === s.source.toLowerCase())?.limit;
    return limit === undefined || s.winding || limit >= most(s)
      ? []
      : [`${s.source}: a healthy board takes ${between(s)}; at the limit of ${amps(limit)} that this stage says its supply sags, and every voltage reads low.`];
  });
}

/** Seconds for which empty capacitors hold a supply in its limit. */
export const chargingTime = (charge: number, limit: number, drawn: number): number => (limit > drawn ? charge / (limit - drawn) : Infinity);

/** Rated currents of small fuses, amperes (preferred values of IEC 60127, from memory). */
const FUSES = [0.032, 0.04, 0.05, 0.063, 0.08, 0.1, 0.125, 0.16, 0.2, 0.25, 0.315, 0.4, 0.5, 0.63, 0.8, 1, 1.25, 1.6, 2, 2.5, 3.15, 4, 5, 6.3, 8, 10];
/** A fuse is not run above this share of its rating (common practice, no source). */
const FUSE_SHARE = 2 / 3;

export const fuseFor = (amperes: number): number | null => FUSES.find((f) => f * FUSE_SHARE >= amperes) ?? null;

/** What a USB port gives: volts within the limits of its standard, and the amperes at which a plain port may give up (USB 2.0, from memory). */
const USB = { least: 4.75, most: 5.25, amperes: 0.5 };
/** A charge that takes longer than this in the limit is seen on the display, seconds. */
const SEEN = 0.1;
/** Less of the volts lost than this is not worth a word. */
const LOST = 0.03;
/** Volts from which a lamp stands on the mains side of a transformer. */
const MAINS_LAMP = 60;
/** A lamp this many times the board's power lets a short have its way (common practice: about the unit's own power). */
const MUCH_LARGER = 4;
const LEAST_WATTS = 1e-6;
/** A battery that is off by more has other windows. */
const BATTERY_OFF = 0.1;
/** A charge that blows a quick fuse, coulombs (own figure). */
const SURGE = 1e-3;
/** Lamps that are sold, watts. */
const LAMPS = [5, 10, 15, 25, 40, 60, 100];

/** How a board gets its first power from what one owns, with the numbers of this board at this stage. */
export function firstPower(by: FirstPowerBy, forecast: StageForecast): FirstPower {
  const ways = forecast.supplies.map((s) => wayOf(by, s, forecast));
  const all = (key: keyof FirstPower) => [...new Set(ways.flatMap((w) => w[key]))];
  return {
    set: all('set'),
    watch: [...all('watch'), ...touches(forecast)],
    off: [...all('off'), ...ALWAYS_OFF],
    against: all('against'),
  };
}

/** Before anybody knows what a board draws: the least that can be given, and nothing more until it stays cool. */
export function firstPowerUnknown(by: FirstPowerBy): FirstPower {
  const least = amps(FINEST_LIMIT);
  const set: Readonly<Record<FirstPowerBy['by'], string>> = {
    bench: `The volts of the instructions, current limit ${least}; go up only while nothing gets warm`,
    usb: 'Only what runs from 5 V; watch the meter while it is plugged in',
    battery: by.by === 'battery' ? `The weak battery: into a short it gives no more than ${amps(by.volts / by.ohms)}` : '',
    lamp: by.by === 'lamp' ? `The lamp in the lead: into a short it lets no more than about ${amps(by.watts / by.volts)} through` : '',
    fuse: `The smallest fuse that you have, ${amps(FUSES[5]!)} or less`,
  };
  return {
    set: [set[by.by]],
    watch: ['What it draws: write it down, it is the figure for next time', 'Touch: nothing may get warm'],
    off: [by.by === 'lamp' ? 'The lamp stays bright' : 'The current stays at its limit', ...ALWAYS_OFF],
    against: by.by === 'fuse' ? ['A fuse saves tracks and leads, not semiconductors: they die first.'] : [],
  };
}

/** What always means off. */
const ALWAYS_OFF = ['Smell, smoke, a hiss, a power lamp that stays dark or blinks', 'Anything that cannot be touched for three seconds'];

function wayOf(by: FirstPowerBy, s: SupplyForecast, forecast: StageForecast): FirstPower {
  switch (by.by) {
    case 'bench':
      return byBench(s, forecast);
    case 'usb':
      return byUsb(s);
    case 'battery':
      return byBattery(by, s);
    case 'lamp':
      return byLamp(by, s, forecast);
    case 'fuse':
      return byFuse(s, forecast);
  }
}

const most = ({ amperes }: SupplyForecast) => Math.max(...amperes.map(Math.abs));
const amps = (a: number) => print(a, 'A', 2);
const between = ({ amperes: [a, b] }: SupplyForecast) => {
  const [low, high] = [Math.min(Math.abs(a), Math.abs(b)), Math.max(Math.abs(a), Math.abs(b))];
  return high < 1e-3 ? 'less than 1 mA' : amps(low) === amps(high) ? `about ${amps(high)}` : `${amps(low)} to ${amps(high)}`;
};
const settles = (s: SupplyForecast, after: string) => `${s.source}: ${between(s)} once it has settled${after}`;
const NOT_A_WINDING = (s: SupplyForecast) =>
  `${s.source} is a winding: it gives AC, which a DC supply does not. Feed it from its transformer, with a lamp or a fuse before it.`;

function byBench(s: SupplyForecast, { charge }: StageForecast): FirstPower {
  if (s.winding) return { set: [], watch: [settles(s, '')], off: [], against: [NOT_A_WINDING(s)] };
  const limit = limitFor(s);
  const time = chargingTime(charge, limit, most(s));
  const long = time > SEEN;
  return {
    set: [`${s.source}: ${print(s.volts, 'V', 3)}, current limit ${amps(limit)}`],
    watch: [settles(s, long ? `; the display shows the limit for about ${print(time, 's', 2)} while capacitors charge` : '')],
    off: [`The current stays at ${amps(limit)}${long ? ` for longer than ${print(2 * time, 's', 1)}` : ''}: a short, or a part put in backwards`],
    against: [],
  };
}

function byUsb(s: SupplyForecast): FirstPower {
  return {
    set: [`The meter between port and board; ${s.source} from its 5 V`],
    watch: [settles(s, '')],
    off: [`More than ${amps(limitFor(s))}, or the port switches off`],
    against: [
      ...(s.winding ? [NOT_A_WINDING(s)] : []),
      ...(s.volts < USB.least || s.volts > USB.most ? [`${s.source} needs ${print(s.volts, 'V', 3)}; a port gives 5 V. Take another way.`] : []),
      ...(most(s) > USB.amperes ? [`A healthy board takes up to ${amps(most(s))}: a plain port gives up at ${amps(USB.amperes)}.`] : []),
    ],
  };
}

function byBattery({ volts, ohms }: Extract<FirstPowerBy, { by: 'battery' }>, s: SupplyForecast): FirstPower {
  const lost = most(s) * ohms;
  const off = Math.abs(volts / s.volts - 1) > BATTERY_OFF;
  return {
    set: [`${s.source} from the weak battery of ${print(volts, 'V', 3)}: into a short it gives no more than ${amps(volts / ohms)}`],
    watch: [
      `Volts at its clips: about ${print(Math.max(0, volts - lost), 'V', 3)}`,
      ...(lost > LOST * volts ? [`${print(lost, 'V', 2)} are lost inside it: every rail reads that much lower`] : []),
    ],
    off: [`Less than ${print(volts / 2, 'V', 2)} at its clips: something takes far too much`],
    against: [
      ...(s.winding ? [NOT_A_WINDING(s)] : []),
      ...(off ? [`${s.source} needs ${print(s.volts, 'V', 3)}: at ${print(volts, 'V', 3)} the windows of this stage do not hold.`] : []),
    ],
  };
}

function byLamp({ volts, watts }: Extract<FirstPowerBy, { by: 'lamp' }>, s: SupplyForecast, { supplies }: StageForecast): FirstPower {
  const onMains = volts > MAINS_LAMP;
  const load = onMains ? supplies.reduce((sum, x) => sum + x.watts, 0) : s.watts;
  const source = { volts: onMains ? volts : s.volts, ohms: 0 };
  const lit = lampInSeries({ volts, watts }, source, { kind: 'watts', watts: Math.max(load, LEAST_WATTS) });
  const shorted = lampInSeries({ volts, watts }, source, { kind: 'short' });
  const advised = LAMPS.find((w) => w >= load) ?? LAMPS.at(-1)!;
  const lost = lit !== null && lit.lampVolts > LOST * source.volts;
  return {
    set: [
      `${onMains ? 'In the mains lead before the transformer' : `In the lead of ${s.source}`}: the lamp of ${print(volts, 'V', 3)}, ${print(watts, 'W', 2)}`,
    ],
    watch: [
      ...(lit ? [`The lamp flares up while capacitors charge, then is ${GLOW[lit.glow]}`] : []),
      ...(lost
        ? [
            `It keeps ${print(lit.lampVolts, 'V', 2)}: the board sees ${print(lit.loadVolts, 'V', 3)} instead of ${print(source.volts, 'V', 3)}, and its rails read lower`,
          ]
        : []),
    ],
    off: shorted ? [`The lamp stays ${GLOW[shorted.glow]}: a short, which gets only ${amps(shorted.amps)} through it`] : [],
    against: [
      ...(lit ? [] : [`A healthy board takes ${print(load, 'W', 2)}, more than this lamp lets through. Take one of ${advised} W or more.`]),
      ...(watts > MUCH_LARGER * Math.max(load, LAMPS[0]!)
        ? [`The lamp is much larger than the ${print(load, 'W', 2)} of the board: it would hardly hold a short back. One of ${advised} W does.`]
        : []),
      ...(onMains ? ['A lamp in the mains lead is work by or under somebody licensed. A transformer’s idle current adds to what the lamp shows.'] : []),
    ],
  };
}

function byFuse(s: SupplyForecast, { charge }: StageForecast): FirstPower {
  const rated = fuseFor(most(s));
  const slow = charge > SURGE ? ', slow (T): charging capacitors would blow a quick one' : '';
  return {
    set: rated === null ? [] : [`A fuse of ${amps(rated)}${slow} in the lead of ${s.source}`],
    watch: [settles(s, '')],
    off: ['The fuse blows: find out why before the next one goes in, and never take a larger one'],
    against: [
      rated === null
        ? `A healthy board takes up to ${amps(most(s))}: more than small fuses are made for.`
        : 'A fuse saves tracks and leads, not semiconductors: they die first.',
    ],
  };
}

const GLOW = { dark: 'dark', dim: 'dim', half: 'half bright', full: 'bright' } as const;

function touches({ warm }: StageForecast): string[] {
  if (warm.length === 0) return ['Touch: nothing may get warm'];
  return [`Touch: ${warm.map((w) => `${w.ref} (${print(w.watts, 'W', 2)})`).join(', ')} may get warm, nothing else`];
}
