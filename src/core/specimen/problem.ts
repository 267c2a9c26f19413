import { MAKERS } from './makers';
import { type Circuit, isRunning, type SupplyState } from '../circuit';
import type { Board } from '../fault';
import type { MeterProfile } from '../meter';

/** One thing that can be read on a board, in one state of it. `dca` reads the current that `source` delivers. */
export type Observable =
  | { readonly id: string; readonly mode: 'dcv'; readonly red: string; readonly black: string }
  | { readonly id: string; readonly mode: 'dca'; readonly source: string }
  | { readonly id: string; readonly mode: 'ohms' | 'diode'; readonly red: string; readonly black: string };

/** A part that lights up, is heard or pulls when enough current runs through it. Looked at, not read. */
export interface Lamp {
  readonly id: string;
  readonly element: string;
}

/** A board is switched on with everything at rest: its supplies rise, and from `settle` on it is read for `window`. Seconds. */
export interface SwitchOn {
  readonly rise: number;
  readonly settle: number;
  readonly window: number;
  /** What AC volts mean to the meter. */
  readonly acResponse: 'true-rms' | 'average';
}

/** The board in one state (as fitted, as set, as powered) and what can be read on it. */
export interface Scene {
  readonly circuit: Circuit;
  /** What the board's supplies are while a meter drives it: taken off, unless told otherwise. */
  readonly supplies?: SupplyState;
  readonly observables: readonly Observable[];
  /** What takes a run in time, on a circuit that never rests; read after the others. */
  readonly motion?: readonly RunningObservable[];
  /** The board is switched on and read in a window of time, its motion and its lamps with it; otherwise it is read once it is steady. */
  readonly run?: SwitchOn;
  /** What is looked at while the board is powered. */
  readonly lamps?: readonly Lamp[];
  /** A known-good twin (another channel, a finished board): it has no fault, pieces of its own, and the lots of this board. */
  readonly twin?: true;
}

/** What only a circuit that runs shows: frequency and duty of a net against ground, volts that alternate about their average. */
export type MovingObservable =
  | { readonly id: string; readonly mode: 'frequency' | 'duty'; readonly net: string }
  | { readonly id: string; readonly mode: 'acv' | 'vmin' | 'vmax'; readonly red: string; readonly black: string };
export type StageObservable = Observable | MovingObservable;

/** Whether an operating point can tell it. */
export const isObservable = <T extends StageObservable>(o: T): o is Extract<T, Observable> =>
  o.mode === 'dcv' || o.mode === 'dca' || o.mode === 'ohms' || o.mode === 'diode';

/** Everything that a stage reads, running signals too. */
export interface StageScene {
  readonly circuit: Circuit;
  readonly supplies?: SupplyState;
  readonly observables: readonly StageObservable[];
}

/** The least and the most of what rests are its volts. */
export const resting = (o: StageObservable): StageObservable => (o.mode === 'vmin' || o.mode === 'vmax' ? { ...o, mode: 'dcv' } : o);

/** What of a scene an operating point can tell: volts and currents of a circuit that never rests are left out. */
export function atRest({ observables, ...scene }: StageScene): Scene {
  const running = isRunning(scene.circuit);
  return {
    ...scene,
    observables: (running ? observables : observables.map(resting)).filter(isObservable).filter((o) => o.mode === 'ohms' || o.mode === 'diode' || !running),
  };
}

export type RunningObservable = Extract<Observable, { mode: 'dcv' | 'dca' }> | MovingObservable;

/** A stage as the fault finder takes it: what rests and what runs told apart. */
export const toScene = (scene: StageScene): Scene => ({ ...atRest(scene), motion: inMotion(scene) });

/** What of a scene takes a run in time: averages, frequencies and what alternates of a circuit that never rests. */
export function inMotion({ circuit, observables }: StageScene): RunningObservable[] {
  return isRunning(circuit) ? observables.filter((o): o is RunningObservable => o.mode !== 'ohms' && o.mode !== 'diode') : [];
}

/** A spread of all pieces of one lot together, and of each piece within it. */
export interface LotSpread {
  readonly lot: number;
  readonly piece: number;
}
/** Least and most of a factor. */
export type FactorRange = readonly [number, number];

/** How far device models differ between makers; ranges are factors of the card, volts lie either way. */
export interface ModelSpread {
  readonly id: 'as-carded' | 'other-maker';
  readonly weight: number;
  /** Saturation currents of junctions lie between 1/factor and factor times the card. */
  readonly saturation: LotSpread;
  /** Forward volts of LEDs either way; null where their junctions vary like those of other diodes. */
  readonly ledVolts: LotSpread | null;
  /** Emission coefficient of diodes. */
  readonly diodeEmission: FactorRange;
  /** Reverse current gain of bipolar transistors: sets how deep they saturate without load. */
  readonly reverseGainFactor: number;
  /** Emission coefficient of bipolar transistors, and their Early voltage. */
  readonly bipolarEmission: FactorRange;
  readonly early: FactorRange;
  /** Series resistances. */
  readonly resistance: Readonly<Record<'diode' | 'zener' | 'bipolar', FactorRange>>;
  /** Added to a zener's tolerance; a field effect transistor's threshold moves by up to this many volts, and its transconductance. */
  readonly zenerShare: number;
  readonly thresholdVolts: number;
  readonly transconductance: FactorRange;
  readonly jfetTransconductance: FactorRange;
  /** Volts by which an op-amp's input is off either way, and its output's limits lie elsewhere. */
  readonly opampOffset: number;
  readonly opampUpper: readonly [number, number];
  readonly opampLower: readonly [number, number];
}

const SAME: FactorRange = [1, 1];
const NONE = [0, 0] as const;

/**
 * Two worlds, weighed against each other by the readings themselves: parts as the deck's cards say, and parts of
 * another maker (common practice, figures of the product's methods notes).
 */
export const MODEL_SPREADS: readonly ModelSpread[] = [
  {
    id: 'as-carded',
    weight: 0.5,
    saturation: { lot: 1, piece: 2 },
    ledVolts: null,
    diodeEmission: SAME,
    reverseGainFactor: 1,
    bipolarEmission: SAME,
    early: SAME,
    resistance: { diode: SAME, zener: SAME, bipolar: SAME },
    zenerShare: 0,
    thresholdVolts: 0,
    transconductance: SAME,
    jfetTransconductance: SAME,
    opampOffset: 0,
    opampUpper: NONE,
    opampLower: NONE,
  },
  {
    id: 'other-maker',
    weight: 0.5,
    saturation: MAKERS.saturation,
    ledVolts: MAKERS.led,
    diodeEmission: MAKERS.diode.emission,
    reverseGainFactor: 2.5,
    bipolarEmission: MAKERS.bipolar.emission,
    early: MAKERS.bipolar.early,
    resistance: { diode: MAKERS.diode.resistance, zener: MAKERS.zener.resistance, bipolar: MAKERS.bipolar.resistance },
    zenerShare: MAKERS.zener.piece,
    thresholdVolts: 0.25,
    transconductance: MAKERS.mosfet.transconductance,
    jfetTransconductance: MAKERS.jfet.transconductance,
    opampOffset: MAKERS.opamp.offset,
    opampUpper: MAKERS.opamp.upper,
    opampLower: MAKERS.opamp.lower,
  },
];

/** Everything that a diagnosis is computed from. */
export interface Problem {
  readonly board: Board;
  readonly scenes: readonly Scene[];
  readonly meter: MeterProfile;
}

/** What was found out about a board: by a meter, or by looking. */
export type Evidence = Reading | Look | Signal;

/** A part was looked at: whether it does what it does from so many amperes on. */
export interface Look {
  readonly id: string;
  readonly lit: boolean;
  readonly amperes: number;
}

/** What a lamp does on a board that runs. */
export const SIGNS = ['dark', 'lit', 'blinks', 'flickers'] as const;
export type Sign = (typeof SIGNS)[number];

/** A part was looked at on a board that was switched on and runs. */
export interface Signal {
  readonly id: string;
  readonly sign: Sign;
}

export const isReading = (e: Evidence): e is Reading => 'value' in e;

/** A reading of one observable: a number, or over-range. */
export interface Reading {
  readonly id: string;
  readonly value: number | 'over';
  /** The meter that took it, where it is another one than the problem's. */
  readonly meter?: MeterProfile | undefined;
}

/** Everything that a problem's scenes read, in the order of a sample's columns; their lamps follow. */
export const observablesOf = (problem: Problem): StageObservable[] => problem.scenes.flatMap((s) => [...s.observables, ...(s.motion ?? [])]);
export const lampsOf = (problem: Problem): Lamp[] => problem.scenes.flatMap((s) => s.lamps ?? []);
