import { type Circuit, findNet, findPart, isRunning, operatingPoint, setValues, UnsolvableError } from '../circuit';
import type { MeasureCheck, Ref, Stage } from '../kit';
import { circuitAt, circuitOf, controlOf, elementOf, sceneOf, type Setup } from '../stage';
import { checkObservableId } from '../vocabulary';

/** Limits that a reading is turned into. */
export interface Limits {
  readonly low: number;
  readonly high: number;
}

/** What turning a control does to the reading of a check, and where it has to stand. */
export interface Adjustment {
  readonly control: Ref;
  /** Volts at equal steps of the control's way, from its lower end (0) to its upper end (1). */
  readonly course: readonly number[];
  /** Share of the way at which the reading lies in the middle of its limits; null where it cannot be reached. */
  readonly at: number | null;
  /** Where the circuit takes the control to stand now. */
  readonly now: number;
  /** Ohms of a resistor that is turned alone; null where the log notes a share of the way. */
  readonly track: number | null;
  /** The measured parts that alone keep it from being reached: with their listed values it could be. */
  readonly because: readonly Ref[];
  /** Rounds in which this and the other controls of the stage, turned one after another, come to hold; null where they do not. */
  readonly rounds: number | null;
  /** Other controls of the stage that move this reading by more than its limits. */
  readonly movedBy: readonly Ref[];
}

const STEPS = 40;
const MOST_ROUNDS = 12;
/** A control as a share of its way: two halves of a track, or one resistor that is turned. */
interface Turned {
  readonly ref: Ref;
  readonly now: number;
  readonly track: number | null;
  readonly put: (circuit: Circuit, share: number) => Circuit;
}

interface Aim {
  readonly check: MeasureCheck;
  readonly control: Turned;
  readonly red: string;
  readonly black: string;
  readonly limits: Limits;
}

/**
 * What turning the control of an adjusting check does, at the operating point. Null where the check reads no DC volts, names no
 * control of the circuit, the circuit runs, or nothing can be solved.
 * @param limits by check; those of the other adjusting checks of the stage tell whether all can hold together
 */
export function forecastAdjustment(setup: Setup, stageId: string, checkId: string, limits: Readonly<Record<string, Limits>>): Adjustment | null {
  const stage = setup.sheet.stages.find((s) => s.id === stageId);
  if (!stage) return null;
  const circuit = measuredCircuit(setup, stage);
  // What runs has no operating point that a meter would read.
  if (isRunning(circuit)) return null;
  const aims = stage.checks.flatMap((c) => (c.what === 'measure' ? (aimOf(setup, circuit, stage, c, limits) ?? []) : []));
  const aim = aims.find((a) => a.check.id === checkId);
  if (!aim) return null;
  const others = aims.filter((a) => a !== aim && a.control.ref !== aim.control.ref);
  const course = courseOf(circuit, aim);
  if (!course) return null;
  const at = whereOn(course, aim.limits);
  const swing = (other: Aim) => spanOf(courseOf(circuit, { ...aim, control: other.control }) ?? []);
  const movedBy = others.filter((o) => swing(o) > aim.limits.high - aim.limits.low);
  return {
    control: aim.control.ref,
    course,
    at,
    now: aim.control.now,
    track: aim.control.track,
    because: at === null ? toBlame(setup, stage, checkId, limits) : [],
    rounds: alternate(circuit, [aim, ...movedBy]),
    movedBy: movedBy.map((o) => o.control.ref),
  };
}

/** The circuit of a stage with what its parts measured. */
function measuredCircuit(setup: Setup, stage: Stage): Circuit {
  const circuit = circuitAt(setup, circuitOf(setup.sheet), stage);
  const values = [...setup.measured].flatMap(([ref, { value }]): [string, number][] => {
    const element = elementOf(setup.sheet, circuit, ref);
    const kind = element === null ? undefined : findPart(circuit, element)?.kind;
    return element !== null && (kind === 'R' || kind === 'C' || kind === 'L') ? [[element, value]] : [];
  });
  return setValues(circuit, Object.fromEntries(values));
}

function aimOf(setup: Setup, circuit: Circuit, stage: Stage, check: MeasureCheck, limits: Readonly<Record<string, Limits>>): Aim | null {
  const wanted = limits[checkObservableId(stage.id, check.id)];
  if (check.adjust === undefined || check.mode !== 'dcv' || !wanted) return null;
  const control = turnedOf(setup, circuit, check.adjust);
  const observable = sceneOf(setup, circuitOf(setup.sheet), stage).observables.find((o) => o.id === checkObservableId(stage.id, check.id));
  if (!control || observable?.mode !== 'dcv') return null;
  const [red, black] = [findNet(circuit, observable.red) ?? '0', findNet(circuit, observable.black) ?? '0'];
  return { check, control, red, black, limits: wanted };
}

/** A control of the circuit as something that is turned. A resistor alone is turned from nothing to its value. */
function turnedOf(setup: Setup, circuit: Circuit, ref: Ref): Turned | null {
  const control = controlOf(setup.sheet, circuit, ref);
  if (control) return { ref, now: shareOf(circuit, control), track: null, put: (c, share) => setValues(c, Object.fromEntries(control.at(share))) };
  const element = elementOf(setup.sheet, circuit, ref);
  const part = element === null ? undefined : findPart(circuit, element);
  if (part?.kind !== 'R') return null;
  const line = setup.sheet.lines.find((l) => l.refs.includes(ref));
  const track = Math.max(line?.value ?? 0, part.value);
  return { ref, now: part.value / track, track, put: (c, share) => setValues(c, { [part.name]: Math.max(1, share * track) }) };
}

function shareOf(circuit: Circuit, { upper, lower }: { readonly upper: string; readonly lower: string }): number {
  const ohms = (name: string) => {
    const part = findPart(circuit, name);
    return part?.kind === 'R' ? part.value : 0;
  };
  return ohms(lower) / (ohms(upper) + ohms(lower));
}

type Probed = Pick<Aim, 'red' | 'black'> & { readonly control: Pick<Turned, 'put'> };

/** Null where a position has no solution. */
function readAt(circuit: Circuit, { control, red, black }: Probed, share: number): number | null {
  try {
    const { nodes } = operatingPoint(control.put(circuit, share));
    return (nodes[red] ?? 0) - (nodes[black] ?? 0);
  } catch (error) {
    if (error instanceof UnsolvableError) return null;
    throw error;
  }
}

function courseOf(circuit: Circuit, aim: Probed): number[] | null {
  const all = Array.from({ length: STEPS + 1 }, (_, i) => readAt(circuit, aim, i / STEPS));
  return all.every((v) => v !== null) ? all : null;
}

const spanOf = (course: readonly number[]) => Math.max(0, ...course) - Math.min(...course, Infinity) || 0;

/** The middle of the limits, or the end that is there. */
const middleOf = ({ low, high }: Limits) => (Number.isFinite(low) && Number.isFinite(high) ? (low + high) / 2 : Number.isFinite(low) ? low : high);

/** Share of the way at which a course passes a value, by straight lines between its points; null where it never does. */
export function shareAt(course: readonly number[], value: number): number | null {
  for (let i = 0; i + 1 < course.length; i++) {
    const [a, b] = [course[i]!, course[i + 1]!];
    if ((a - value) * (b - value) <= 0) return (i + (a === b ? 0 : (value - a) / (b - a))) / (course.length - 1);
  }
  return null;
}

/** Where a reading lies in its limits: their middle if it can be had, else what comes nearest to it. */
function whereOn(course: readonly number[], limits: Limits): number | null {
  const aim = middleOf(limits);
  const exact = shareAt(course, aim);
  if (exact !== null) return exact;
  const nearest = course.reduce((best, v, i) => (Math.abs(v - aim) < Math.abs(course[best]! - aim) ? i : best), 0);
  return course[nearest]! >= limits.low && course[nearest]! <= limits.high ? nearest / (course.length - 1) : null;
}

/** Parts whose measured value alone keeps the limits out of reach. */
function toBlame(setup: Setup, stage: Stage, checkId: string, limits: Readonly<Record<string, Limits>>): Ref[] {
  return [...setup.measured.keys()].filter((ref) => {
    const listed: Setup = { ...setup, measured: new Map([...setup.measured].filter(([r]) => r !== ref)) };
    const circuit = measuredCircuit(listed, stage);
    const check = stage.checks.find((c) => c.id === checkId);
    const aim = check?.what === 'measure' ? aimOf(listed, circuit, stage, check, limits) : null;
    const course = aim && courseOf(circuit, aim);
    return course !== null && aim !== null && whereOn(course, aim.limits) !== null;
  });
}

/** Turns one control after the other into its limits, round by round, until all hold; null where they never do. */
function alternate(circuit: Circuit, aims: readonly Aim[]): number | null {
  let turned = circuit;
  const holds = ({ red, black, limits }: Aim) => {
    const v = readAt(turned, { control: { put: (c) => c }, red, black }, 0);
    return v !== null && v >= limits.low && v <= limits.high;
  };
  for (let round = 1; round <= MOST_ROUNDS; round++) {
    for (const aim of aims) {
      const course = courseOf(turned, aim);
      const at = course && whereOn(course, aim.limits);
      if (at === null) return null;
      turned = aim.control.put(turned, at);
    }
    if (aims.every(holds)) return round;
  }
  return null;
}
