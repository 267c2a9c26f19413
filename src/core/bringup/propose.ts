import { GROUND, type Source } from '../circuit';
import type { Stage, StageSupply } from '../kit';
import { type Bench, classesOf, type Feed } from './bench';
import { feedsAt, realBoard, type RealBoard, type Settings } from './board';
import { choose } from './choose';
import { type UsualFault, usualFaults } from './faults';
import { readMoving } from './moving';
import { type Change, type Place, readScene, type Scene, type Shown, UNCHANGED } from './read';
import { isOut, type Window, windowOf } from './windows';

type Setting = NonNullable<Stage['settings']>[number];

/** Told how much is done, 0..1. */
export type Progress = (done: number) => void;

/** Healthy boards that windows are drawn from: fed, and cold, where each place is solved for itself. */
const FED = 160;
const COLD = 60;
/** Boards that a moving one is run for: each takes a transient of its own. */
const RUNS = 20;
/** Checks that catch a fault before it is looked for on the moving board. */
const ENOUGH = 1;

/** One state of controls, switches and sensors, in words and as numbers. */
interface State {
  readonly settings: readonly Setting[];
  readonly at: Settings;
}

/** A reading that could be made a check: its honest window, what it would catch, and whether it is among those that catch most. */
export interface Offered {
  readonly place: Place;
  readonly window: Window;
  readonly settings: readonly Setting[];
  readonly catches: readonly UsualFault[];
  readonly chosen: boolean;
}
export interface ProposedStage {
  readonly kind: 'cold' | 'coldTurned' | 'empty' | 'fed' | 'turned';
  readonly settings: readonly Setting[];
  readonly offers: readonly Offered[];
  /** It never rests in this state. */
  readonly moving: boolean;
}
export interface Proposal {
  /** Nets of the drawing: what is inside a model is none. */
  readonly nets: readonly string[];
  /** Whether there are chips on it. */
  readonly chips: boolean;
  /** What the drawing alone would tell wrongly: chips by stand-ins, windings as ideal ones, boards that move. */
  readonly misleading: boolean;
  readonly stages: readonly ProposedStage[];
  readonly faults: readonly UsualFault[];
  /** Faults that no check of the ladder catches. */
  readonly missed: readonly UsualFault[];
}

interface StageScene extends Pick<ProposedStage, 'kind' | 'settings'> {
  readonly state: State;
  readonly scene: Scene;
  /** It never rests in this state: a run in time reads it. */
  readonly moving: boolean;
}

/**
 * The ladder of readings for a board: what healthy boards show at every place that can be reached, in every state, and of those
 * readings the ones that catch most of the usual faults.
 * @throws UnsolvableError where the drawing contradicts itself.
 */
export function propose(bench: Bench, progress: Progress = () => undefined): Proposal {
  const board = realBoard(bench);
  const meters = classesOf(bench.meter);
  const scenes = scenesOf(bench, board);
  const faults = usualFaults(board);
  const rails = new Set(bench.feeds.map((f) => f.net));
  const most = Math.max(...bench.feeds.map((f) => f.volts));
  const runs = new Map<StageScene, ReturnType<typeof readMoving>['run']>();
  const readings = (s: StageScene, change: Change, boards: number | 'middle'): readonly (readonly Shown[])[] => {
    if (!s.moving) {
      const upper = readScene(bench, board, s.scene, change, boards);
      if (s.scene.cold || !bench.feeds.some((f) => f.kind === 'winding')) return upper;
      const lower = readScene(bench, board, { ...s.scene, peak: -1 }, change, boards);
      return upper.flatMap((row, b) => bothPeaks(row, lower[b]!));
    }
    const found = readMoving(bench, board, s.scene, change, boards, change === UNCHANGED ? null : (runs.get(s) ?? null));
    if (change === UNCHANGED) runs.set(s, found.run);
    return found.rows;
  };
  const offers = scenes.flatMap((s, stage) => {
    const out = new Set(s.scene.without);
    const drawn = new Set(board.parts.filter((p) => p.chip?.family === 'unknown' && !out.has(p.ref)).flatMap((p) => p.nodes));
    const chips = new Set(board.parts.filter((p) => p.chip && !out.has(p.ref)).flatMap((p) => p.nodes));
    const rows = readings(s, UNCHANGED, s.scene.cold ? COLD : s.moving ? RUNS : FED);
    return s.scene.places.flatMap((place, k) => {
      const shown = rows.map((r) => r[k]!);
      const window = windowOf(place, shown, meters, {
        chip: chips.has(place.red === GROUND ? place.black : place.red),
        pulsed: s.moving && chips.size > 0,
        moving: s.moving,
        unsure: drawn.has(place.red) && !rails.has(place.red) ? UNSURE * most : 0,
      });
      return window && tells(place, window, bench) ? [{ stage, k, place, window }] : [];
    });
  });
  progress(0.5);
  const caught = faults.map((fault, f) => {
    progress(0.5 + (0.5 * f) / faults.length);
    const found = offers.map(() => false);
    scenes.forEach((s, stage) => {
      // A run in time is dear: a fault that a resting check catches needs none.
      if (s.moving && found.filter(Boolean).length >= ENOUGH) return;
      const rows = readings(s, fault, 'middle');
      offers.forEach((o, i) => {
        // Of a slow display both ends lie outside, or it may be met inside.
        if (o.stage === stage) found[i] = rows.every((row) => isOut(o.place, row[o.k]!, o.window, meters));
      });
    });
    return found;
  });
  const harm = new Set(faults.flatMap((f, i) => (f.harm ? [i] : [])));
  const weighed = offers.map((o, i) => ({ stage: o.stage, catches: new Set(faults.flatMap((_, f) => (caught[f]![i] ? [f] : []))) }));
  const chosen = new Set(choose(weighed, harm));
  const stages = scenes.map((s, stage): ProposedStage => ({
    kind: s.kind,
    settings: s.settings,
    moving: s.moving,
    offers: offers.flatMap((o, i): Offered[] =>
      o.stage !== stage
        ? []
        : [
            {
              place: o.place,
              window: o.window,
              settings: isTurned(s.kind) ? s.state.settings : [],
              catches: [...weighed[i]!.catches].map((f) => faults[f]!),
              chosen: chosen.has(i),
            },
          ],
    ),
  }));
  const all = new Set([...chosen].flatMap((i) => [...weighed[i]!.catches]));
  const chips = board.parts.some((p) => p.chip);
  const misleading = chips || bench.feeds.some((f) => f.kind !== 'dc') || scenes.some((s) => s.moving);
  return { nets: board.nets, chips, misleading, stages, faults, missed: faults.filter((_, f) => !all.has(f)) };
}

/**
 * What a reservoir holds of a winding's two peaks, as the least and the most that may be read. Where both give the same it is charged
 * twice a period; where one gives nothing, once: more ripple. Anything else a resting circuit cannot tell.
 */
function bothPeaks(upper: readonly Shown[], lower: readonly Shown[]): [Shown[], Shown[]] {
  const pairs = upper.map((a, i): [Shown, Shown] => {
    const b = lower[i]!;
    if (typeof a !== 'number' || typeof b !== 'number') return [null, null];
    const [large, small] = Math.abs(a) >= Math.abs(b) ? [a, b] : [b, a];
    if (Math.abs(large - small) <= SAME_PEAK * Math.abs(large) + 0.05) return [a, b];
    return Math.abs(small) <= SAME_PEAK * Math.abs(large) ? [large, HALF_WAVE * large] : [null, null];
  });
  return [pairs.map((p) => p[0]), pairs.map((p) => p[1])];
}
const SAME_PEAK = 0.08;
/** What the ripple of a reservoir that is charged once a period leaves at least, as usual ones are chosen (common practice, no source). */
const HALF_WAVE = 0.82;

/** Whether its checks are set one by one, against the usual setting of their stage. */
const isTurned = (kind: ProposedStage['kind']): boolean => kind === 'turned' || kind === 'coldTurned';

/** Share of the supply that a chip's output may lie beside what a deck says of it (own choice). */
const UNSURE = 0.05;

/** A window of volts that takes in most of what the supply can give tells nothing. */
function tells(place: Place, { low, high }: Window, { feeds }: Bench): boolean {
  if (place.mode !== 'dcv' || low === null || high === null) return true;
  const most = Math.max(...feeds.map((f) => (f.kind === 'winding' ? f.volts * Math.SQRT2 : f.volts)));
  return high - low < (feeds.some((f) => f.kind === 'winding') ? MOST_OF_WINDING : MOST_OF_SUPPLY) * most;
}
const MOST_OF_SUPPLY = 0.6;
/** A winding's own volts differ by a half: its reservoir is read all the same. */
const MOST_OF_WINDING = 0.85;

function scenesOf(bench: Bench, board: RealBoard): StageScene[] {
  const { sockets, probes, feeds } = bench;
  const states = statesOf(bench, board);
  const windings = new Set(feeds.filter((f) => f.kind === 'winding').flatMap((f) => [f.net, f.back]));
  const reach = board.nets.filter((n) => probes === null || probes.some((p) => p.toLowerCase() === n.toLowerCase()));
  const cold = reach.flatMap((net): Place[] =>
    (['ohms', 'diode'] as const)
      .filter((mode) => bench.modes === null || bench.modes.includes(mode))
      .flatMap((mode) => [
        { mode, red: net, black: GROUND },
        { mode, red: GROUND, black: net },
      ]),
  );
  const outputs = board.parts.flatMap((p): Place[] => {
    const { out1, out2 } = p.chip?.family === 'bridge' ? p.chip.pins : {};
    return out1 !== undefined && out2 !== undefined ? [{ mode: 'ohms', red: out1, black: out2 }] : [];
  });
  cold.push(...outputs.filter((p) => [p.red, p.black].every((n) => reach.includes(n)) && (bench.modes === null || bench.modes.includes('ohms'))));
  const fed: Place[] = [
    ...feeds.flatMap((f, feed): Place[] => (f.kind === 'winding' ? [] : [{ mode: 'dca', red: f.net, black: f.back, feed }])),
    ...reach.filter((n) => !windings.has(n)).map((red): Place => ({ mode: 'dcv', red, black: GROUND })),
  ].filter((p) => bench.modes === null || bench.modes.includes(p.mode));
  const [first, ...others] = states;
  const moving = isMoving(bench, board);
  const lamps = board.parts.flatMap((p): Place[] => (p.lamp === null ? [] : [{ mode: 'sign', red: p.lamp, black: GROUND, ref: p.ref }]));
  // Least and most, as a meter with memory keeps them; AC volts of what moves slowly no meter shows steadily.
  const swings = reach
    .filter((n) => !windings.has(n) && moving && (bench.modes === null || bench.modes.includes('dcv')))
    .flatMap((red) => (['vmin', 'vmax'] as const).map((mode): Place => ({ mode, red, black: GROUND })));
  const scene = (kind: ProposedStage['kind'], state: State, without: readonly string[], places: readonly Place[]): StageScene => ({
    kind,
    settings: isTurned(kind) ? [] : state.settings,
    state,
    scene: { at: state.at, cold: kind === 'cold' || kind === 'coldTurned', without, places },
    moving: (kind === 'fed' || kind === 'turned') && moving,
  });
  return [
    scene('cold', first!, sockets, cold),
    ...others.slice(0, 1).map((s) => scene('coldTurned', s, sockets, cold)),
    ...(sockets.length > 0 ? [scene('empty', first!, sockets, [...fed, ...lamps])] : []),
    scene('fed', first!, [], [...fed, ...(moving ? swings : lamps)]),
    ...others.map((s) => scene('turned', s, [], [...fed, ...(moving ? swings : lamps)])),
  ];
}

/** Whether a board never rests once it is whole: start values of the drawing, or a timer that may oscillate. */
const isMoving = ({ circuit }: Bench, board: RealBoard): boolean =>
  Object.keys(circuit.initial).length > 0 || board.parts.some((p) => p.chip?.family === 'timer');

/** What is set by hand: a control at its ends and its middle, each state of a switch or sensor; the safe end and the usual state first. */
function statesOf({ conditions }: Bench, board: RealBoard): State[] {
  const controls = board.parts.filter((p) => p.kind === 'trimmer' || p.kind === 'potentiometer').map((p) => p.ref);
  const usual = conditions.map((c) => setting(c.ref, Object.values(c.states)[0]!, `${c.text}: ${Object.keys(c.states)[0]!}`));
  const state = (settings: readonly Setting[]): State => ({ settings, at: Object.fromEntries(settings.map((s) => [s.ref, s.value])) });
  const low = controls.map((ref) => setting(ref, 0, `${ref} at the end of pin 3`));
  const turned = controls.flatMap((ref) =>
    POSITIONS.map(([p, words]) => state([...usual, ...low.filter((s) => s.ref !== ref), setting(ref, p, `${ref} ${words}`)])),
  );
  const other = conditions.flatMap((c) =>
    Object.entries(c.states)
      .slice(1)
      .map(([name, ohms]) => state([...usual.filter((s) => s.ref !== c.ref), setting(c.ref, ohms, `${c.text}: ${name}`), ...low])),
  );
  return [state([...usual, ...low]), ...turned, ...other];
}
const POSITIONS = [
  [1, 'at the end of pin 1'],
  [0.5, 'in the middle'],
] as const;

const setting = (ref: string, value: number, text: string): Setting => ({ ref, value, text });

/** A supply of the bench as a stage sets it; null where the drawing has no source for it. */
export function stageSupply(feed: Feed, sources: readonly Source[]): StageSupply | null {
  const source = sources.find((s) => feedsAt(s, feed));
  return source
    ? { source: source.name, volts: feed.volts, limit: feed.limit ?? FIRST_LIMIT, ...(feed.kind === 'winding' ? { feed: 'winding' as const } : {}) }
    : null;
}
/** Amperes above what a healthy small board draws at first power (common practice, no source). */
const FIRST_LIMIT = 0.1;
