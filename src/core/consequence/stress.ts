import { addParts, type Circuit, findPart, GROUND, isRunning, operatingPoint, type Part, replacePart, type Source, steadyState, transient } from '../circuit';
import type { Line, Ref } from '../kit';
import { elementOf, type Setup, wantedLines } from '../stage';
import { ratingsOf, type Ratings } from './ratings';

/** A part driven beyond what it stands. */
export interface Overload {
  readonly ref: Ref;
  readonly what: 'power' | 'voltage' | 'current';
  /** Watts, volts or amperes. */
  readonly value: number;
  readonly rating: number;
  readonly when: 'running' | 'switch-on';
}

/** What a part bears. Volts in the direction that its rating means, watts as a mean. */
interface Load {
  readonly volts: number;
  readonly amperes: number;
  readonly watts: number;
}

interface Rated {
  readonly ref: Ref;
  readonly part: Part;
  readonly ratings: Ratings;
}

/** Value of a net, or of `I(…)`, at one moment. */
type At = (name: string) => number;

const senseOf = (part: Part) => `~V${part.name}`;
const carries = (part: Part) => part.kind === 'D' || part.kind === 'Q' || part.kind === 'M' || part.kind === 'J';

/**
 * Parts beyond their ratings while a circuit works: at its operating point or, when it runs, over its steady course
 * (greatest volts, mean watts, mean current of diodes and greatest of others).
 * @throws UnsolvableError when the circuit has no solution.
 */
export function overloads(setup: Setup, circuit: Circuit): Overload[] {
  const rated = ratedParts(setup, circuit);
  return loads(circuit, rated).flatMap((load, i) => beyond(rated[i]!, load, 'running'));
}

/**
 * Watts in every part that can get warm, as a mean where the circuit runs.
 * @throws UnsolvableError when the circuit has no solution.
 */
export function loadsOf(setup: Setup, circuit: Circuit): { readonly ref: Ref; readonly watts: number }[] {
  const parts = partsOf(setup, circuit).map(({ ref, part }) => ({ ref, part, ratings: {} }));
  return loads(circuit, parts).map(({ watts }, i) => ({ ref: parts[i]!.ref, watts }));
}

function loads(circuit: Circuit, rated: readonly Rated[]): Load[] {
  if (rated.length === 0) return [];
  const sensed = withSenses(circuit, rated);
  return isRunning(circuit) ? runningLoads(sensed, rated) : restingLoads(sensed, rated);
}

/** Supply, leads and the capacitor itself between a socket and the charge, ohms, and how fast a plug makes contact, seconds (choices of this product). */
const SUPPLY_OHMS = 0.5;
const CONTACT_SECONDS = 1e-5;
/** A board's voltages have passed their peaks after this time, seconds. */
const WATCHED_SECONDS = 0.1;

/**
 * Parts beyond their ratings in the first moments after the supplies come on, capacitors empty: voltages of all, and the
 * surge of rectifiers whose card gives one. A transistor's brief current is not judged: cards give no pulse rating.
 * @throws UnsolvableError when a moment has no solution.
 */
export function switchOnOverloads(setup: Setup, circuit: Circuit, supplies: readonly string[]): Overload[] {
  const rated = ratedParts(setup, circuit);
  if (rated.length === 0 || isRunning(circuit)) return [];
  const rising = supplies.reduce(rise, withSenses(circuit, rated));
  const nets = rated.flatMap(({ part }) => tracesOf(part));
  const { times, volts } = transient(rising, { stop: WATCHED_SECONDS, nets: [...new Set(nets)] });
  const peaks = rated.map(({ part }) => {
    let [most, surge] = [0, 0];
    for (let k = 0; k < times.length; k++) {
      const { volts: u, amperes } = loadAt(part, (name) => volts[name]?.[k] ?? 0);
      most = Math.max(most, u);
      surge = Math.max(surge, amperes);
    }
    return { volts: most, surge };
  });
  return rated.flatMap(({ ref, part, ratings }, i): Overload[] => {
    const over: Overload[] = [];
    const { volts: u, surge } = peaks[i]!;
    if (ratings.volts !== undefined && u > ratings.volts) over.push({ ref, what: 'voltage', value: u, rating: ratings.volts, when: 'switch-on' });
    if (part.kind === 'D' && ratings.surge !== undefined && surge > ratings.surge)
      over.push({ ref, what: 'current', value: surge, rating: ratings.surge, when: 'switch-on' });
    return over;
  });
}

/** Watts in one resistor at the operating point; 0 when it is not fitted or the circuit has no solution. */
export function powerOf(setup: Setup, circuit: Circuit, ref: Ref): number {
  const element = elementOf(setup.sheet, circuit, ref);
  const part = element === null ? undefined : findPart(circuit, element);
  if (part?.kind !== 'R') return 0;
  try {
    const { nodes } = operatingPoint(circuit);
    return ((nodes[part.nodes[0]!] ?? 0) - (nodes[part.nodes[1]!] ?? 0)) ** 2 / part.value;
  } catch {
    return 0;
  }
}

function ratedParts(setup: Setup, circuit: Circuit): Rated[] {
  return partsOf(setup, circuit).flatMap(({ ref, part, line }) => {
    const ratings = ratingsOf(setup, line);
    return Object.keys(ratings).length === 0 ? [] : [{ ref, part, ratings }];
  });
}

/** Parts of the list that are one element of the circuit. */
function partsOf(setup: Setup, circuit: Circuit): { readonly ref: Ref; readonly part: Part; readonly line: Line }[] {
  return wantedLines(setup).flatMap((line) =>
    line.refs.flatMap((ref) => {
      const element = elementOf(setup.sheet, circuit, ref);
      const part = element === null ? undefined : findPart(circuit, element);
      return part ? [{ ref, part, line }] : [];
    }),
  );
}

/** The circuit with a source of 0 V in the first lead of every semiconductor, which tells its current. */
function withSenses(circuit: Circuit, rated: readonly Rated[]): Circuit {
  return rated
    .filter(({ part }) => carries(part))
    .reduce((c, { part }) => {
      const inner = `~n${part.name}`;
      const sense: Source = { name: senseOf(part), kind: 'V', nodes: [part.nodes[0]!, inner], dc: 0, wave: null };
      return addParts(replacePart(c, part.name, [{ ...part, nodes: [inner, ...part.nodes.slice(1)] }]), [sense]);
    }, circuit);
}

/** A supply that comes on at time 0, behind the resistance of its leads. */
function rise(circuit: Circuit, name: string): Circuit {
  const source = findPart(circuit, name);
  if (source?.kind !== 'V') return circuit;
  const inner = `~n${source.name}`;
  const [plus = GROUND, minus = GROUND] = source.nodes;
  return replacePart(circuit, source.name, [
    { ...source, nodes: [inner, minus], wave: { shape: 'pwl', times: [0, CONTACT_SECONDS], levels: [0, source.dc] } },
    { name: `~R${source.name}`, kind: 'R', nodes: [inner, plus], value: SUPPLY_OHMS },
  ]);
}

function tracesOf(part: Part): string[] {
  const current = carries(part) ? [`I(${senseOf(part)})`] : part.kind === 'L' ? [`I(${part.name})`] : [];
  return [...part.nodes.filter((n) => n !== GROUND), ...current];
}

function loadAt(part: Part, at: At): Load {
  const volts = (i: number) => (part.nodes[i] === GROUND ? 0 : at(part.nodes[i]!));
  const across = volts(0) - volts(1);
  switch (part.kind) {
    case 'R':
      return { volts: Math.abs(across), amperes: Math.abs(across / part.value), watts: across ** 2 / part.value };
    case 'L':
      return { volts: Math.abs(across), amperes: Math.abs(at(`I(${part.name})`)), watts: 0 };
    case 'D': {
      const current = at(`I(${senseOf(part)})`);
      return { volts: Math.max(0, -across), amperes: Math.max(0, current), watts: Math.max(0, across * current) };
    }
    case 'Q':
    case 'M':
    case 'J': {
      const main = volts(0) - volts(2);
      const current = at(`I(${senseOf(part)})`);
      return { volts: Math.abs(main), amperes: Math.abs(current), watts: Math.abs(main * current) };
    }
    default:
      return { volts: Math.abs(across), amperes: 0, watts: 0 };
  }
}

function restingLoads(circuit: Circuit, rated: readonly Rated[]): Load[] {
  const { nodes, branches } = operatingPoint(circuit);
  const at: At = (name) => nodes[name] ?? branches[name.slice(2, -1)] ?? 0;
  return rated.map(({ part }) => loadAt(part, at));
}

/** Behind this share of a steady run its start no longer shows. */
const SETTLED = 0.4;

function runningLoads(circuit: Circuit, rated: readonly Rated[]): Load[] {
  const nets = [...new Set(rated.flatMap(({ part }) => tracesOf(part)))];
  const { seconds } = steadyState(circuit, nets);
  const { times, volts } = transient(circuit, { stop: seconds, nets, from: SETTLED * seconds });
  return rated.map(({ part }) => {
    let [most, peak, charge, energy] = [0, 0, 0, 0];
    for (let k = 0; k < times.length; k++) {
      const load = loadAt(part, (name) => volts[name]?.[k] ?? 0);
      const dt = k === 0 ? 0 : times[k]! - times[k - 1]!;
      most = Math.max(most, load.volts);
      peak = Math.max(peak, load.amperes);
      charge += load.amperes * dt;
      energy += load.watts * dt;
    }
    const span = Math.max(times[times.length - 1]! - times[0]!, Number.MIN_VALUE);
    return { volts: most, amperes: part.kind === 'D' ? charge / span : peak, watts: energy / span };
  });
}

function beyond({ ref, ratings }: Rated, load: Load, when: Overload['when']): Overload[] {
  const found: Overload[] = [];
  const add = (what: Overload['what'], value: number, rating: number | undefined) => {
    if (rating !== undefined && value > rating) found.push({ ref, what, value, rating, when });
  };
  add('power', load.watts, ratings.watts);
  add('current', load.amperes, ratings.amperes);
  add('voltage', load.volts, ratings.volts);
  return found;
}
