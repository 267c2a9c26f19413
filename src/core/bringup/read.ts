import { type Circuit, GROUND, Newton, type OrderCache, type Part, System } from '../circuit';
import { hypercube } from '../statistics';
import { type Bench, realMeter, type RealMeter } from './bench';
import { feedParts, leaks, type RealBoard, type RealPart, type Settings } from './board';
import type { Draw } from './parts';

/** A reading under power or cold: where, in which setting, with which chips out. */
export interface Place {
  readonly mode: 'dcv' | 'dca' | 'ohms' | 'diode' | 'acv' | 'vmin' | 'vmax' | 'sign';
  readonly red: string;
  readonly black: string;
  /** Which supply of the bench a current is of. */
  readonly feed?: number;
  /** Of a sign: the LED or relay that shows it; `red` is its element. */
  readonly ref?: string;
}

/** The board in one state: what is set, whether it is fed, which parts are out. */
export interface Scene {
  readonly at: Settings;
  readonly cold: boolean;
  readonly without: readonly string[];
  readonly places: readonly Place[];
  /** Which peak windings stand at. */
  readonly peak?: 1 | -1;
}

/** One display: a number, or over-range; null where the board could not be solved. */
export type Shown = number | 'over' | null;

/** A change of the board, as a fault makes it. */
export interface Change {
  readonly parts: (parts: readonly RealPart[]) => readonly RealPart[];
  readonly extra: readonly Part[];
}
export const UNCHANGED: Change = { parts: (p) => p, extra: [] };

/** Volts and ohms behind which a diode test's milliampere stands. */
const DIODE = { volts: 100, ohms: 99.3e3 };
/** A meter that is not connected. */
const OFF = 1e13;

/** The readings of a scene on one board after another: `boards` of them, or the middle one alone. */
export function readScene(bench: Bench, board: RealBoard, scene: Scene, change: Change, boards: number | 'middle'): Shown[][] {
  const names = new Set<string>();
  const note: Draw = (name) => {
    names.add(name);
    return 0.5;
  };
  const parts = change.parts(board.parts).filter((p) => !scene.without.includes(p.ref));
  const elements = (draw: Draw): Part[] => [
    ...parts.flatMap((p) => p.build(p.nodes, draw, scene.at, scene.cold, 1)),
    ...(scene.cold ? [] : board.feeds.flatMap((f, k) => feedParts(f, k, draw, scene.peak))),
    ...change.extra,
    ...leaks(board.nets),
  ];
  const driven = scene.cold ? scene.places.filter((p) => p.mode === 'ohms' || p.mode === 'diode') : [];
  const ends = [...new Map(driven.map((p) => [pairOf(p), p.red === GROUND ? { red: p.black, black: GROUND } : p])).entries()].map(([pair, at]) => ({
    pair,
    ...at,
  }));
  const probes = ends.flatMap((p, i): Part[] => [
    { kind: 'V', name: `~M${i}`, nodes: [`~m${i}`, p.black], dc: 0, wave: null },
    { kind: 'R', name: `~S${i}`, nodes: [`~m${i}`, p.red], value: OFF },
  ]);
  const first = elements(note);
  realMeter(bench.meter, note);
  const circuit: Circuit = { title: '', parts: [...first, ...probes], initial: {} };
  const orders: OrderCache = new Map();
  const system = new System(circuit, { orders });
  const newton = new Newton(system, 'sample');
  const list = [...names];
  const index = new Map(list.map((n, i) => [n, i]));
  const rows: Draw[] =
    boards === 'middle'
      ? [() => 0.5]
      : hypercube(list.length, boards, SEED).map(
          (row): Draw =>
            (name) =>
              row[index.get(name)!] ?? 0.5,
        );
  let start: Float64Array | null = null;
  return rows.map((draw) => {
    for (const part of elements(draw)) system.take(part);
    const meter = realMeter(bench.meter, draw);
    if (scene.cold) {
      return scene.places.map((p) =>
        readCold(
          system,
          newton,
          ends.findIndex((e) => e.pair === pairOf(p)),
          p,
          meter,
        ),
      );
    }
    let solution = newton.solve(start);
    if (!solution.converged) solution = newton.solve(null);
    if (!solution.converged) return scene.places.map(() => null);
    if (!start) start = solution.x;
    const x = solution.x;
    return scene.places.map((p) => readFed(system, x, p, meter));
  });
}

export const SEED = 8117;
const pairOf = (p: Place) => (p.red === GROUND ? `${p.black}\n${GROUND}` : `${p.red}\n${p.black}`);

function readFed(system: System, x: Float64Array, p: Place, meter: RealMeter): Shown {
  if (p.mode === 'dca') return -(x[system.branchOf(`~V${p.feed ?? 0}`) ?? -1] ?? 0);
  if (p.mode === 'sign') {
    const amperes = system.ammeter(p.red);
    return amperes ? Math.abs(amperes(x)) : null;
  }
  const [red, black] = [system.unknownOf(p.red), system.unknownOf(p.black)];
  const resistance = system.lu.resistance(red, black);
  // A meter with a higher input resistance than its class has loads less.
  return (x[red]! - x[black]!) / (1 + (Math.max(0, resistance) * meter.load) / meter.profile.inputResistance);
}

function readCold(system: System, newton: Newton, k: number, p: Place, meter: RealMeter): Shown {
  const [volts, ohms] = [system.valueSetter(`~M${k}`)!, system.valueSetter(`~S${k}`)!];
  const sign = p.red === GROUND ? -1 : 1;
  const solve = (open: number, behind: number): number | null => {
    volts(sign * open);
    ohms(behind);
    const { converged, x } = newton.solve(null);
    ohms(OFF);
    volts(0);
    return converged ? sign * (x[system.unknownOf(p.red === GROUND ? p.black : p.red)]! - x[system.unknownOf(p.red === GROUND ? p.red : p.black)]!) : null;
  };
  if (p.mode === 'diode') {
    const v = solve(DIODE.volts, DIODE.ohms);
    return v === null ? null : v > meter.diodeLimit ? 'over' : Math.max(0, v);
  }
  const lead = meter.profile.leadResistance;
  for (const top of meter.ranges) {
    const behind = (meter.open * top) / meter.fullScale;
    const v = solve(meter.open, behind);
    if (v === null) return null;
    const shown = (v * behind) / Math.max(1e-12, meter.open - v) + lead;
    if (shown <= top) return Math.max(0, shown);
  }
  return 'over';
}
