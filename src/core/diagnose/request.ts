import { addParts, type Circuit, describe, findNet, findPart, GROUND, type Part, readDeck, readSpiceNumber, removeParts, setValues } from '../circuit';
import { assumedBridges, type Board, type BoardPart, type Fault } from '../fault';
import { BOARD_KINDS, type BoardKind } from '../vocabulary';
import { decadeRanges, HANDHELD, type MeterProfile } from '../meter';
import { readTolerance } from '../quantity';
import { type BenchCause, benchCause, withoutGain } from './benchCauses';
import { ALL_ALIKE, Diagnoser } from './diagnoser';
import { readingToRepeat } from './repeat';
import { symptomFactors } from './symptoms';
import type { Evidence, Lamp, Observable, RunningObservable, Scene, Sign, SwitchOn } from '../specimen';

/** A state of the build in which readings were taken: what was not fitted yet, and what fed it. */
export interface RequestStage {
  readonly id: string;
  readonly absent: readonly string[];
  readonly supply: Readonly<Record<string, number>>;
}

export interface RequestReading {
  readonly at: string;
  readonly mode: string;
  readonly value: number | 'over';
  /** Black probe of ohms and diode tests: a test point, or `0`. */
  readonly to?: string | undefined;
  readonly stage?: string | undefined;
  /** Read again, with care: it counts in place of the first. */
  readonly again?: boolean | undefined;
}

/** A lamp, LED or relay that was looked at. */
export interface RequestObservation {
  readonly part: string;
  readonly what: Sign;
}

/** Between what counts as dark and as lit, amperes. */
const LIT_FROM = 0.55e-3;

/** One request of `zesty diagnose`, already known to be an object. */
export interface DiagnoseRequest {
  readonly id: string;
  readonly deck: string;
  readonly bom: readonly Readonly<Record<string, string>>[];
  readonly testPoints: readonly { readonly name: string; readonly node: string }[];
  /** Neighbouring nets; null where nobody knows: any two may be bridged. */
  readonly neighbours: readonly (readonly [string, string])[] | null;
  /** Current limits of bench supplies, amperes. */
  readonly limit?: Readonly<Record<string, number>> | undefined;
  /** All supplies at a factor of their volts; 1 where it is absent. */
  readonly supplyFactor?: number | undefined;
  readonly meter: {
    readonly inputResistance: number;
    readonly percent: number;
    readonly counts: number;
    readonly displayCounts: number;
    /** Test volts and currents of ohms and diode tests are not known. */
    readonly coldTest?: 'unknown' | undefined;
    /** What AC volts mean; average-responding unless told otherwise. */
    readonly acResponse?: 'true-rms' | 'average' | undefined;
  };
  /** The board is switched on at rest and read in a window, seconds; without it, it is read at rest. */
  readonly run?: Omit<SwitchOn, 'acResponse'> | undefined;
  readonly readings: readonly RequestReading[];
  /** In the order of the build, the finished board last. */
  readonly stages?: readonly RequestStage[] | undefined;
  /** What was seen on the finished board. */
  readonly observations?: readonly RequestObservation[] | undefined;
  /** Volts and currents of a known-good twin: another channel, a finished board of the same lots. */
  readonly twin?: readonly RequestReading[] | undefined;
  /** Symptoms of the whole board, by their ids: whether they are seen. */
  readonly symptoms?: Readonly<Record<string, boolean>> | undefined;
}

export interface DiagnoseResponse {
  /** Single faults and pairs, most probable first. */
  readonly suspects: readonly ((Fault | { readonly kind: 'pair'; readonly faults: readonly [Fault, Fault] }) & { readonly probability: number })[];
  readonly unexplained: number;
  readonly badReadings: readonly (
    { readonly at: string; readonly why: string; readonly as?: string; readonly probability: number } | ({ readonly kind: 'bench' } & BenchCause)
  )[];
  readonly next: { readonly at: string; readonly mode: string; readonly bits: number } | null;
  /** Readings that could not be used, in words. */
  readonly remarks?: readonly string[];
}

/** So many single suspects are answered at least, and all that are not less likely than this. */
const ANSWERED_SUSPECTS = 40;
const LEAST_ANSWERED = 1e-5;

/** Name of a reading among the observables: its stage (none for the finished board), place, mode and black probe. */
const nameOf = (r: Pick<RequestReading, 'at' | 'mode' | 'to' | 'stage'>, last: string | null) =>
  [r.stage === undefined || r.stage === last ? '' : r.stage, r.at, r.mode, r.to ?? ''].join('|');

/** What is read with the supplies off; these readings need a scene of their own and are part of what is computed. */
const isCold = (r: Pick<RequestReading, 'mode'>): boolean => r.mode === 'ohms' || r.mode === 'diode';

/**
 * A diagnoser for the board of a request, with all that its readings name.
 * @throws Error naming the line of the deck or the row of the parts list that cannot be used.
 */
export function diagnoserFor(request: Omit<DiagnoseRequest, 'id' | 'readings'> & Partial<Pick<DiagnoseRequest, 'readings'>>): Diagnoser {
  const { circuit: unlimited, diagnostics } = readDeck(request.deck);
  const error = diagnostics.find((d) => d.severity === 'error');
  if (error) throw new Error(`deck ${describe(error)}`);
  const circuit = atFactor(withLimits(unlimited, request.limit ?? {}), request.supplyFactor ?? 1);
  const assumed = request.neighbours === null ? assumedBridges(circuit) : [];
  const board = boardFor(circuit, request.bom, request.neighbours ?? assumed.map((a) => a.nets));
  const nets = new Map(request.testPoints.map((t) => [t.name, netAt(circuit, t)]));
  nets.set('0', GROUND);
  const { stages = [], readings = [], twin = [] } = request;
  const last = stages.at(-1)?.id ?? null;
  const places = (stage: string | undefined): Observable[] => [
    ...board.parts.flatMap((p): Observable[] =>
      p.kind === 'supply'
        ? [
            { id: nameOf({ at: p.ref, mode: 'dca', stage }, last), mode: 'dca', source: p.element },
            ...terminalOf(circuit, p, nameOf({ at: p.ref, mode: 'dcv', stage }, last), readings),
          ]
        : [],
    ),
    ...request.testPoints.map((t): Observable => ({
      id: nameOf({ at: t.name, mode: 'dcv', stage }, last),
      mode: 'dcv',
      red: nets.get(t.name)!,
      black: GROUND,
    })),
  ];
  const read = new Set(readings.map((r) => nameOf(r, last)));
  const early = stages
    .slice(0, -1)
    .map((s): Scene => ({ circuit: circuitOfStage(circuit, board, s), observables: places(s.id).filter((o) => read.has(o.id)) }));
  const cold = readings.flatMap((r): Observable[] => {
    const [red, black] = [nets.get(r.at), nets.get(r.to ?? '0')];
    return isCold(r) && red !== undefined && black !== undefined ? [{ id: nameOf(r, last), mode: r.mode as 'ohms' | 'diode', red, black }] : [];
  });
  const finished = stages.length > 0 ? circuitOfStage(circuit, board, stages.at(-1)!) : circuit;
  const scenes: Scene[] = [
    ...early.filter((s) => s.observables.length > 0),
    ...(cold.length > 0 ? [{ circuit, observables: cold }] : []),
    request.run
      ? runScene(finished, request, places(undefined), lampsOf(finished, board))
      : { circuit: finished, observables: places(undefined), lamps: lampsOf(finished, board) },
    ...(twin.length > 0 ? [twinScene(finished, places(undefined), twin)] : []),
  ];
  const problem = { board, scenes, meter: autorangingMeter(request.meter) };
  const diagnoser = new Diagnoser(problem, request.run ? { ...ALL_ALIKE, healthy: RUNNING_HEALTHY } : ALL_ALIKE);
  const { symptoms = {} } = request;
  const bridges = new Map(assumed.map((a) => [a.nets.join(' '), a.weight]));
  diagnoser.weigh((fault) => {
    const near = fault.kind === 'bridge' ? (bridges.get(fault.detail.nets.join(' ')) ?? 1) : 1;
    return symptomFactors(fault, symptoms).reduce((product, s) => product * s.factor, near);
  });
  return diagnoser;
}

/** Of boards that run, healthy ones are about as likely as all their faults together (contract of boards that run). */
const RUNNING_HEALTHY = 0.5;
/** Ohms of the meter that stands from every test point to ground while the board runs (contract of boards that run). */
const WATCHING = 1e7;

/** The finished board switched on: everything is read in its window of time, with the meter at every point. */
function runScene(
  circuit: Circuit,
  { run, meter, testPoints }: Pick<DiagnoseRequest, 'run' | 'meter' | 'testPoints'>,
  places: readonly Observable[],
  lamps: readonly Lamp[],
): Scene {
  const points = testPoints.map((t) => ({ name: t.name, net: netAt(circuit, t) }));
  const watched = points.map(({ name, net }): Part => ({ name: `~at${name}`, kind: 'R', nodes: [net, GROUND], value: WATCHING }));
  const id = (at: string, mode: string) => nameOf({ at, mode }, null);
  const moving = points.flatMap(({ name, net }): RunningObservable[] => [
    { id: id(name, 'acv'), mode: 'acv', red: net, black: GROUND },
    { id: id(name, 'frequency'), mode: 'frequency', net },
    { id: id(name, 'min'), mode: 'vmin', red: net, black: GROUND },
    { id: id(name, 'max'), mode: 'vmax', red: net, black: GROUND },
  ]);
  const still = places.flatMap((o): RunningObservable[] => (o.mode === 'dcv' || o.mode === 'dca' ? [o] : []));
  return {
    circuit: addParts(circuit, watched),
    observables: [],
    motion: [...still, ...moving],
    lamps,
    run: { ...run!, acResponse: meter.acResponse ?? 'average' },
  };
}

/** Bench supplies with their current limits: beyond them their volts sag. */
const withLimits = (circuit: Circuit, limits: Readonly<Record<string, number>>): Circuit =>
  Object.keys(limits).length === 0
    ? circuit
    : { ...circuit, parts: circuit.parts.map((p) => (p.kind === 'V' && limits[p.name] !== undefined ? { ...p, limit: limits[p.name] } : p)) };

/** All direct supplies at a factor of their volts. */
const atFactor = (circuit: Circuit, factor: number): Circuit =>
  factor === 1 ? circuit : { ...circuit, parts: circuit.parts.map((p) => (p.kind === 'V' && p.wave === null ? { ...p, dc: p.dc * factor } : p)) };

/** The supply's own terminals, where they were read. */
function terminalOf(circuit: Circuit, supply: BoardPart, id: string, readings: readonly RequestReading[]): Observable[] {
  const part = findPart(circuit, supply.element);
  return part && readings.some((r) => r.at === supply.ref && r.mode === 'dcv') ? [{ id, mode: 'dcv', red: part.nodes[0]!, black: GROUND }] : [];
}

/** A supply that stands in its limit gives just that current. */
const asCurrent = (r: RequestReading): RequestReading => (r.mode === 'limit' ? { ...r, mode: 'dca' } : r);

const TWIN = '~twin';
const twinId = (r: Pick<RequestReading, 'at' | 'mode'>) => nameOf({ at: r.at, mode: r.mode, stage: TWIN }, null);

/** What was read of the twin, at the places of the finished board. */
function twinScene(circuit: Circuit, places: readonly Observable[], twin: readonly RequestReading[]): Scene {
  const observables = twin.flatMap((r) =>
    places.filter((o) => o.id === nameOf({ at: r.at, mode: r.mode }, null)).map((o): Observable => ({ ...o, id: twinId(r) })),
  );
  return { circuit, observables, twin: true };
}

/** Every part that can be seen or heard to carry current. */
const lampsOf = (circuit: Circuit, board: Board): Lamp[] =>
  board.parts.flatMap((p) => (SIGNALLING.has(p.kind) && findPart(circuit, p.element) ? [{ id: lampId(p.ref), element: p.element }] : []));

const SIGNALLING: ReadonlySet<BoardKind> = new Set<BoardKind>(['led', 'lamp', 'coil']);
const lampId = (ref: string) => `look|${ref}`;

function netAt(circuit: Circuit, t: DiagnoseRequest['testPoints'][number]): string {
  const net = findNet(circuit, t.node);
  if (net === undefined) throw new Error(`test point ${t.name}: the deck has no node ${t.node}`);
  return net;
}

function circuitOfStage(circuit: Circuit, board: Board, { absent, supply }: RequestStage): Circuit {
  const element = (ref: string) => board.parts.find((p) => p.ref === ref)?.element ?? ref;
  const values = Object.fromEntries(Object.entries(supply).flatMap(([ref, volts]) => (findPart(circuit, element(ref)) ? [[element(ref), volts]] : [])));
  return removeParts(setValues(circuit, values), absent.map(element));
}

/** What makes the diagnoser of a request: readings change it only where they need scenes of their own. */
export const diagnoserKey = ({ readings, stages = [], observations: _, twin = [], ...board }: Omit<DiagnoseRequest, 'id'>): string => {
  const last = stages.at(-1)?.id ?? null;
  const own = readings
    .filter((r) => (r.mode === 'dcv' && board.bom.some((row) => row['ref']?.trim() === r.at)) || isCold(r) || (r.stage !== undefined && r.stage !== last))
    .map((r) => nameOf(r, last));
  return JSON.stringify([board, stages, own, twin.map(twinId)]);
};

/**
 * The board that a deck, its parts list and its neighbouring nets describe.
 * @throws Error naming the row of the parts list that cannot be used.
 */
export function boardFor(circuit: Circuit, bom: DiagnoseRequest['bom'], neighbours: Board['neighbours']): Board {
  return { parts: bom.map((row, i) => readRow(row, i, (name) => findPart(circuit, name) !== undefined)), neighbours, finished: circuit };
}

/** Diagnosers of a board with its supplies at other volts: made when a common cause is thought of, kept with the board's own. */
const atOtherVolts = new WeakMap<Diagnoser, Map<number, Diagnoser>>();

/** Answers the readings and observations of a request. `board`: what made the diagnoser; with it a common cause on the bench is thought of too. */
export function answer(
  own: Diagnoser,
  {
    readings: given,
    stages = [],
    observations = [],
    twin = [],
    bom,
    testPoints,
    run,
  }: Omit<DiagnoseRequest, 'id' | 'deck' | 'neighbours' | 'meter' | 'symptoms'>,
  board: Omit<DiagnoseRequest, 'id'> | null = null,
): DiagnoseResponse {
  const last = stages.at(-1)?.id ?? null;
  const readings = lastOfEach(given.map(asCurrent), last);
  const evidence: Evidence[] = [
    ...readings.map((r) => ({ id: nameOf(r, last), value: r.value })),
    ...observations.map((o) => (run ? { id: lampId(o.part), sign: o.what } : { id: lampId(o.part), lit: o.what === 'lit', amperes: LIT_FROM })),
    ...twin.map((r) => ({ id: twinId(r), value: r.value })),
  ];
  const isVolts = (id: string) => id.split('|')[2] === 'dcv';
  const cause =
    board === null || run || stages.length > 0 || twin.length > 0 ? null : benchCause(own, (factor) => otherVolts(own, board, factor), evidence, isVolts);
  const unused = readings.filter((r) => !own.knows(nameOf(r, last)));
  const remarks = [
    ...unused.map((r) => `${r.at}${r.stage === undefined ? '' : ` at stage ${r.stage}`}: the board has no such ${r.mode} reading; it was left out`),
    ...twin.filter((r) => !own.knows(twinId(r))).map((r) => `${r.at} of the twin: the board has no such ${r.mode} reading; it was left out`),
    ...observations.flatMap((o) => (own.knows(lampId(o.part)) ? [] : [`${o.part} does not show whether it carries current; what was seen of it was left out`])),
  ];
  const judge = board !== null && cause?.what === 'supply-set' ? otherVolts(own, board, cause.factor) : own;
  const told = cause?.what === 'meter-gain' ? withoutGain(evidence, isVolts, cause.factor) : evidence;
  const { suspects, pairs, unexplained, badReadings, next } = judge.diagnose(told, readable({ readings, bom, testPoints }));
  const part = (id: string, i: number) => id.split('|')[i]!;
  return {
    suspects: [
      ...suspects.filter((s, i) => i < ANSWERED_SUSPECTS || s.probability >= LEAST_ANSWERED).map(({ fault, probability }) => ({ ...fault, probability })),
      ...pairs.map(({ pair, probability }) => ({ kind: 'pair' as const, faults: pair, probability })),
    ].sort((a, b) => b.probability - a.probability),
    unexplained,
    badReadings: [
      ...(cause ? [{ kind: 'bench' as const, ...cause }] : []),
      ...badReadings.map((b) => ({ at: part(b.id, 1), why: b.why, ...(b.as === null ? {} : { as: part(b.as, 1) }), probability: b.probability })),
    ],
    next:
      repeatOf(readings, last, { badReadings, unexplained, bits: next?.bits ?? 0 }) ??
      (next ? { at: part(next.id, 1), mode: part(next.id, 2), bits: next.bits } : unreadOf(own, { readings, bom, testPoints }, last)),
    ...(remarks.length > 0 ? { remarks } : {}),
  };
}

/** Of readings of one place the last counts. */
function lastOfEach(readings: readonly RequestReading[], last: string | null): RequestReading[] {
  const kept = new Map<string, RequestReading>();
  for (const r of readings) kept.set(nameOf(r, last), r);
  return [...kept.values()];
}

/** The reading to take again, volts and currents of the finished board only. */
function repeatOf(
  readings: readonly RequestReading[],
  last: string | null,
  told: Pick<Parameters<typeof readingToRepeat>[0], 'badReadings' | 'unexplained' | 'bits'>,
) {
  const once = readings.filter((r) => r.again !== true && (r.mode === 'dcv' || r.mode === 'dca') && r.stage === undefined).map((r) => nameOf(r, last));
  const id = readingToRepeat({ once, readings: readings.length, ...told });
  return id === null ? null : { at: id.split('|')[1]!, mode: id.split('|')[2]!, bits: 0 };
}

/** While a point is unread there is a next reading. */
function unreadOf(own: Diagnoser, asked: Pick<DiagnoseRequest, 'readings' | 'bom' | 'testPoints'>, last: string | null): DiagnoseResponse['next'] {
  const read = new Set(asked.readings.map((r) => nameOf(r, last)));
  const open = readable(asked).find((id) => !read.has(id) && own.knows(id));
  return open === undefined ? null : { at: open.split('|')[1]!, mode: open.split('|')[2]!, bits: 0 };
}

function otherVolts(own: Diagnoser, board: Omit<DiagnoseRequest, 'id'>, supplyFactor: number): Diagnoser {
  const known = atOtherVolts.get(own) ?? new Map<number, Diagnoser>();
  atOtherVolts.set(own, known);
  const made = known.get(supplyFactor) ?? diagnoserFor({ ...board, supplyFactor });
  known.set(supplyFactor, made);
  return made;
}

/**
 * What can be read on the bench of a request: its test points, and supply currents that have a display: those among the readings,
 * or where there are none the first supply's.
 */
function readable({ readings, bom, testPoints }: Pick<DiagnoseRequest, 'readings' | 'bom' | 'testPoints'>): string[] {
  const shown = new Set(readings.flatMap((r) => (r.mode === 'dca' ? [r.at] : [])));
  const first = bom.find((row) => row['kind']?.trim().toLowerCase() === 'supply')?.['ref']?.trim();
  const displays = shown.size > 0 || first === undefined ? [...shown] : [first];
  return [...displays.map((at) => nameOf({ at, mode: 'dca' }, null)), ...testPoints.map((t) => nameOf({ at: t.name, mode: 'dcv' }, null))];
}

/** Errors of AC volts and of a counter (contract of boards that run). */
const RUNNING_AC = { percent: 1, counts: 4 };
const COUNTER = { percent: 0.1, counts: 1 };

function autorangingMeter(m: DiagnoseRequest['meter']): MeterProfile {
  const dcv = decadeRanges(0.4, 400, m.percent, m.counts, m.displayCounts);
  const dca = decadeRanges(4e-4, 4000, m.percent, m.counts, m.displayCounts);
  const acv = decadeRanges(0.4, 400, RUNNING_AC.percent, RUNNING_AC.counts, m.displayCounts);
  const frequency = decadeRanges(40, 4e6, COUNTER.percent, COUNTER.counts, m.displayCounts);
  const ranges = { ...HANDHELD.ranges, dcv, dca, acv, frequency };
  const profile = { ...HANDHELD, id: 'request', name: 'meter of the request', inputResistance: m.inputResistance, ranges };
  if (m.coldTest !== 'unknown') return profile;
  const diode = [{ upTo: 4, percent: m.percent, counts: m.counts, resolution: 4 / m.displayCounts }];
  return { ...profile, coldTest: 'unknown', ranges: { ...ranges, ohms: decadeRanges(400, 4e7, m.percent, m.counts, m.displayCounts), diode } };
}

const KINDS: readonly string[] = BOARD_KINDS;

function readRow(row: Readonly<Record<string, string>>, index: number, inDeck: (name: string) => boolean): BoardPart {
  const ref = (row['ref'] ?? '').trim();
  const kind = (row['kind'] ?? '').trim().toLowerCase();
  if (!ref) throw new Error(`parts list row ${index + 1}: no ref`);
  if (!KINDS.includes(kind)) throw new Error(`parts list row ${index + 1} (${ref}): kind "${kind}" is not known`);
  const text = (row['value'] ?? '').trim();
  const note = row['note'] ?? '';
  return {
    ref,
    element: inDeck(ref) ? ref : `X${ref}`,
    kind: kind as BoardKind,
    value: readSpiceNumber(text),
    model: readSpiceNumber(text) === null ? text : null,
    tolerance: readTolerance(row['tolerance'] ?? '') ?? [0, 0],
    range: readRange(note),
  };
}

/** The `hfe a..b` or `vto a..b` at the beginning of a note. */
function readRange(note: string): [number, number] | null {
  const match = /^\s*(?:hfe|vto)\s+(-?[\d.]+?)\.\.(-?[\d.]+)/i.exec(note);
  return match ? [Number(match[1]), Number(match[2])] : null;
}
