import { deriveTray, expectationOf, type KitState, type Line, type LineKind, type MeasuringSchool, type Ref, type Stage } from '../kit';
import { checkObservableId, type LooseKind, placeOf, probeObservableId } from '../vocabulary';
import type { Target, TargetState } from './target';
import { openBeforePower, wasTold } from './beforePower';
import { isPrepared, presetsOf } from './presets';
import { walkOrder } from './walkOrder';
import { currentStage, deriveStages, isMeasure, isTurning, type KnownWindows, type StageProgress } from './progress';

export function countTargets(kit: KitState): TargetState[] {
  return deriveTray(kit).map(({ line, counted }) => ({ target: { kind: 'count', id: `count:${line.id}`, line }, done: counted !== null }));
}

/** The next piece of the loose pile: there is always one more. */
export function looseTargets(kit: KitState, part: LooseKind): TargetState[] {
  const number = kit.loose.size;
  return [{ target: { kind: 'loose', id: `loose:${number}`, part, number }, done: false }];
}

/** How much each ref matters, as far as it is known. */
export type Influence = Readonly<Record<Ref, number>>;

/** Pieces worth measuring by the school in force; those that matter most come first when that is the school. */
export function pieceTargets(kit: KitState, influence: Influence = {}): TargetState[] {
  const { skipped } = kit;
  const states = deriveTray(kit).flatMap(({ line, pieces, markings }): TargetState[] => {
    const expected = expectationOf(line);
    if (!expected) return [];
    return pieces
      .filter((p) => isWanted(kit.settings.measure, line, p.index, markings))
      .map((p) => {
        const id = `piece:${line.id}:${p.index}`;
        return { target: { kind: 'piece', id, line, piece: p.index, ref: p.ref, expected }, done: p.entry !== null || skipped.has(id) };
      });
  });
  if (kit.settings.measure === 'all') return states;
  return states
    .map((s, i) => ({ s, i }))
    .sort((a, b) => weight(a.s, influence) - weight(b.s, influence) || a.i - b.i)
    .map(({ s }) => s);
}

/** Kinds whose print is no help to the eye, or missing (common practice, no source). */
const HARD_TO_READ = new Set<LineKind>(['trimmer', 'potentiometer', 'thermistor', 'relay', 'zener', 'led', 'diode']);
const FIVE_BANDS_FROM = 0.02;

function isWanted(school: MeasuringSchool, line: Line, piece: number, markings: ReadonlyMap<number, string>): boolean {
  switch (school) {
    case 'one-per-packet':
      return piece === 0;
    case 'unreadable':
      return !markings.has(piece) && (HARD_TO_READ.has(line.kind) || (line.kind === 'resistor' && (line.tolerance?.[1] ?? 1) <= FIVE_BANDS_FROM));
    default:
      return true;
  }
}

const ORDER: readonly LineKind[] = [
  'resistor',
  'zener',
  'trimmer',
  'potentiometer',
  'thermistor',
  'loudspeaker',
  'relay',
  'diode',
  'led',
  'npn',
  'pnp',
  'electrolytic',
  'tantalum',
  'capacitor',
];

/** Smaller comes first: parts by how much they move a check, then, where the circuit tells nothing, by kind. */
function weight(s: TargetState, influence: Influence): number {
  if (s.target.kind !== 'piece') return Infinity;
  const moves = s.target.ref === null ? undefined : influence[s.target.ref];
  if (moves !== undefined) return -moves;
  const at = ORDER.indexOf(s.target.line.kind);
  return at < 0 ? ORDER.length : at;
}

/** Checks of the stage in hand, one target per channel of an observation; of another stage where one of its checks is asked for. */
export function checkTargets(kit: KitState, windows: KnownWindows, asked: readonly string[] = []): TargetState[] {
  const stages = deriveStages(kit, windows);
  const wanted =
    asked.length > 0 ? stages.find((s) => [...prepareTargets(kit, s.stage), ...checkTargetsOf(s)].some((t) => asked.includes(t.target.id))) : undefined;
  const stage = wanted ?? currentStage(stages);
  return stage ? [...prepareTargets(kit, stage.stage), ...checkTargetsOf({ ...stage, checks: walkOrder(kit, stage.stage, stage.checks, windows) })] : [];
}

function prepareTargets(kit: KitState, stage: Stage): TargetState[] {
  const open = openBeforePower(kit, stage);
  const presets = presetsOf(stage);
  // What has opened since it was confirmed is asked again.
  const told = kit.prepared.get(stage.id)?.entry.open;
  const done = isPrepared(kit, stage) && open.every((p) => wasTold(p, told));
  return presets.length === 0 ? [] : [{ target: { kind: 'prepare', id: `prepare:${stage.id}`, stage, presets, open }, done }];
}

export function checkTargetsOf({ stage, checks }: StageProgress): TargetState[] {
  return checks.flatMap((p): TargetState[] => {
    const id = `check:${stage.id}:${p.check.id}`;
    if (isMeasure(p)) return [{ target: { kind: 'check', id, stage, check: p.check, channel: null }, done: p.entry !== null && !isTurning(p) }];
    return p.results.map((r) => ({ target: { kind: 'check', id: `${id}:${r.channel}`, stage, check: p.check, channel: r.channel }, done: r.entry !== null }));
  });
}

/** The target that reads an observable: `stage/check`, or `stage/@test point`. */
export function targetOfObservable(kit: KitState, id: string): Target | null {
  const place = placeOf(id);
  const stage = kit.sheet.stages.find((s) => s.id === place.stage);
  if (!stage) return null;
  if (place.testPoint !== null) {
    const testPoint = kit.sheet.testPoints.find((t) => t.id === place.testPoint);
    return testPoint ? { kind: 'probe', id: `probe:${id}`, stage, testPoint } : null;
  }
  const check = stage.checks.find((c) => c.id === place.check);
  return check ? { kind: 'check', id: `check:${stage.id}:${check.id}`, stage, check, channel: null } : null;
}

/** Observable that a target reads; null for anything but a measurement on the board. */
export function observableOfTarget(target: Target): string | null {
  if (target.kind === 'probe') return probeObservableId(target.stage.id, target.testPoint.id);
  return target.kind === 'check' && target.check.what === 'measure' ? checkObservableId(target.stage.id, target.check.id) : null;
}

/** What is read while a fault is looked for: what was asked for by hand, then what tells most. */
export function faultTargets(kit: KitState, next: string | null, asked: readonly string[]): TargetState[] {
  const byHand = asked.flatMap((id): Target[] => {
    const probe = id.startsWith('probe:') ? targetOfObservable(kit, id.slice('probe:'.length)) : null;
    const checks = kit.sheet.stages
      .flatMap((stage) => stage.checks.map((check) => ({ stage, check })))
      .filter(({ stage, check }) => id === `check:${stage.id}:${check.id}`);
    return probe ? [probe] : checks.map(({ stage, check }) => ({ kind: 'check', id, stage, check, channel: null }));
  });
  const told = next === null ? null : targetOfObservable(kit, next);
  const all = [...byHand, ...(told ? [told] : [])];
  return all.filter((t, i) => all.findIndex((o) => o.id === t.id) === i).map((target) => ({ target, done: false }));
}

/** The first target that a typed name means: a ref, a line's label, a test point, a check's title. */
export function findTarget(states: readonly TargetState[], name: string): Target | null {
  const wanted = name.trim().toLowerCase();
  if (wanted === '') return null;
  const all = states.map((s) => s.target);
  return (
    all.find((t) => namesOf(t).some((n) => n.toLowerCase() === wanted)) ?? all.find((t) => namesOf(t).some((n) => n.toLowerCase().startsWith(wanted))) ?? null
  );
}

function namesOf(t: Target): string[] {
  switch (t.kind) {
    case 'count':
      return [...t.line.refs, t.line.label];
    case 'piece':
      return [...(t.ref ? [t.ref] : []), t.line.label];
    case 'fit':
      return [...t.refs, t.line.label];
    case 'check':
      return [t.check.id, t.check.title, ...(t.check.what === 'measure' && 'testPoint' in t.check.red ? [t.check.red.testPoint] : [])];
    case 'probe':
      return [t.testPoint.id, t.testPoint.net];
    case 'inspect':
      return [...t.item.refs, t.item.title];
    case 'trace':
      return [...t.pads];
    case 'loose':
    case 'prepare':
      return [];
  }
}

/** The target in hand: the one asked for when it exists, else the first that is not dealt with. */
export function currentTarget(states: readonly TargetState[], wanted: string | null): Target | null {
  return (states.find((s) => s.target.id === wanted) ?? states.find((s) => !s.done))?.target ?? null;
}
