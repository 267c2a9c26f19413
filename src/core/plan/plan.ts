import { type FittingSchool, type KitState, type Line, type Ref, socketedChips, type Stage } from '../kit';
import { CHIP_KINDS, packageOf } from '../vocabulary';
import { circuitBlocks } from './blocks';
import { fittingFacts } from './bodies';
import { isFastener, isSink } from './hardware';
import { type Edge, inOrder, type Node } from './order';
import { compareRanks, rankOf } from './schools';

export type PlanStep =
  | { readonly kind: 'fit'; readonly id: string; readonly line: Line; readonly stage: Stage | null; readonly refs: readonly Ref[]; readonly minutes: number }
  | { readonly kind: 'stage'; readonly id: string; readonly stage: Stage; readonly minutes: number }
  /** Supply volts at empty sockets, where no stage of the kit asks for them. */
  | { readonly kind: 'rails'; readonly id: string; readonly chips: readonly Ref[]; readonly minutes: number };

export interface Plan {
  readonly school: FittingSchool;
  readonly steps: readonly PlanStep[];
  /** Rules that contradict one another, with what was given up. */
  readonly contradictions: readonly string[];
  /** What this order makes impossible to test by itself. */
  readonly remarks: readonly string[];
}

export interface Advice {
  readonly school: FittingSchool;
  readonly why: string;
}

type Sheet = KitState['sheet'];

/** Minutes of one reading, of one with the power off, of one observation (handbook figures, common practice, no source). */
const MINUTES = { powered: 0.35, unpowered: 0.5, observed: 0.5, rail: 0.35 };

/** Stages with something to fit of their own. */
const fittingStages = (sheet: Sheet) => sheet.stages.filter((s) => s.fits.length > 0);
/** Whether the stages part the board into blocks that are tested one after another. */
const isLadder = (sheet: Sheet): boolean => fittingStages(sheet).length > 1;

/** The school that suits a kit, and why. */
export function advisedSchool(sheet: Sheet): Advice {
  const facts = sheet.lines.filter((l) => l.refs.length > 0).map(fittingFacts);
  const chips = new Set(socketedChips(sheet.lines));
  const soldered = fittingStages(sheet).filter((s) => s.fits.some((r) => !chips.has(r)));
  if (soldered.length > 1)
    return { school: 'blocks', why: `The ladder tests ${soldered.length} blocks one after another: a fault then shows in the block that was fitted last.` };
  if (facts.some((f) => f.finePitch))
    return { school: 'least-harm', why: 'There is a fine-pitch chip: it is soldered best while the board is flat and empty.' };
  return { school: 'lowest', why: 'Nothing falls out when the board is turned over, and everything can be reached.' };
}

const STAGE = 'stage ';
const RAILS = 'rails';

/** Order in which everything on the list goes in, with the stages between. Refs that the board does not have are left out. */
export function planOf(
  { sheet, settings }: Pick<KitState, 'sheet' | 'settings'>,
  absent: ReadonlySet<Ref>,
  chosen: FittingSchool | null = settings.fitting,
): Plan {
  const school = chosen ?? advisedSchool(sheet).school;
  const parts = sheet.lines.flatMap((line, i) => line.refs.filter((r) => !absent.has(r)).map((ref) => ({ line, ref, index: i })));
  const stageOf = new Map<Ref, number>();
  sheet.stages.forEach((s, i) =>
    s.fits.forEach((r) => {
      if (!stageOf.has(r)) stageOf.set(r, i);
    }),
  );
  const blocks = blocksOf(sheet, stageOf);
  const own = new Map(settings.order.map((r, i) => [r, i]));
  const held = heldChips(
    sheet,
    parts.map((p) => p.ref),
  );
  const byLadder = isLadder(sheet);
  // What no stage fits is on the board from the first one on; a part without a place in the circuit is fitted last.
  const elsewhere = byLadder ? -1 : Infinity;
  const nodes: Node[] = parts.map((p) => ({ id: p.ref, rank: rankOf(school, { ...p, block: blocks.get(p.ref) ?? elsewhere }, own) }));
  // Stages come when nothing more can go in before them.
  const late = (i: number): readonly number[] => (school === 'blocks' && byLadder ? [i - 0.5] : [Infinity, Infinity, i]);
  nodes.push(...sheet.stages.map((s, i) => ({ id: STAGE + s.id, rank: late(i) })));
  if ([...held.values()].includes(RAILS)) nodes.push({ id: RAILS, rank: [Infinity, Infinity] });
  const edges = [
    ...stageEdges(
      sheet,
      school,
      stageOf,
      held,
      parts.map((p) => p.ref),
    ),
    ...railEdges(
      sheet,
      parts.map((p) => p.ref),
      stageOf,
      held,
    ),
    ...carried(sheet, held),
    ...rules(sheet),
  ];
  const { ids, given } = inOrder(nodes, edges, compareRanks);
  const lines = new Map(parts.map((p) => [p.ref, p.line]));
  return {
    school,
    steps: grouped(sheet, ids, lines, stageOf, held),
    contradictions: given.map(
      ({ rule, ring }) => `“${rule}” cannot hold together with the rest of this ring: ${ring.map((id) => named(sheet, id)).join(' before ')}. It was left out.`,
    ),
    remarks: remarksOf(sheet, ids, stageOf, school),
  };
}

const named = (sheet: Sheet, id: string): string => {
  const stage = sheet.stages.find((s) => STAGE + s.id === id);
  return stage ? `the stage “${stage.title}”` : id === RAILS ? 'the rails at the empty sockets' : id;
};

/** Block of each ref: the stage that fits it, else where it hangs in the circuit. */
function blocksOf(sheet: Sheet, stageOf: ReadonlyMap<Ref, number>): ReadonlyMap<Ref, number> {
  if (isLadder(sheet)) return stageOf;
  return sheet.circuit ? circuitBlocks(sheet, sheet.circuit) : new Map<Ref, number>();
}

/** A stage whose rails must have passed, by its place, or the readings at empty sockets that the plan adds. */
type RailTest = number | typeof RAILS;

const isPowered = (s: Stage) => s.kind !== 'look' && s.kind !== 'cold';

/** Socketed chips and what must have passed before they go in: the last stage with power before theirs. */
function heldChips(sheet: Sheet, refs: readonly Ref[]): ReadonlyMap<Ref, RailTest> {
  const present = new Set(refs);
  return new Map(
    socketedChips(sheet.lines)
      .filter((r) => present.has(r))
      .map((r): [Ref, RailTest] => {
        const own = sheet.stages.findIndex((s) => s.fits.includes(r));
        // Power on another board of the kit says nothing about this one's rails.
        const tests = (s: Stage, i: number) => isPowered(s) && sheet.stages.slice(0, i + 1).some((b) => b.fits.some((f) => boardOf(f) === boardOf(r)));
        const before = own < 0 ? sheet.stages.findIndex(tests) : sheet.stages.findLastIndex((s, i) => i < own && tests(s, i));
        return [r, before < 0 ? RAILS : before];
      }),
  );
}

/** Stages in their order, each after what it is measured with; what waits for a stage after it. */
function stageEdges(sheet: Sheet, school: FittingSchool, stageOf: ReadonlyMap<Ref, number>, held: ReadonlyMap<Ref, RailTest>, refs: readonly Ref[]): Edge[] {
  const id = (i: number) => STAGE + sheet.stages[i]!.id;
  const edge = (before: string, after: string): Edge => ({ before, after, rule: null });
  // Stages follow one another, each after its own parts, whatever else has to give.
  const firm = (before: string, after: string): Edge => ({ ...edge(before, after), firm: true });
  return sheet.stages.flatMap((_, i) => [
    ...(i > 0 ? [firm(id(i - 1), id(i))] : []),
    ...refs.flatMap((r): Edge[] => {
      const own = stageOf.get(r);
      if (held.get(r) === i) return [edge(id(i), r)];
      if (own === i) return [firm(r, id(i))];
      return school === 'blocks' && own === i + 1 && !held.has(r) ? [edge(id(i), r)] : [];
    }),
  ]);
}

/** Readings at empty sockets come when all is in that is measured with them, and before the chips. */
function railEdges(sheet: Sheet, refs: readonly Ref[], stageOf: ReadonlyMap<Ref, number>, held: ReadonlyMap<Ref, RailTest>): Edge[] {
  const chips = refs.filter((r) => held.get(r) === RAILS);
  if (chips.length === 0) return [];
  const own = Math.min(...chips.map((r) => stageOf.get(r) ?? sheet.stages.length));
  const before = refs.filter((r) => !held.has(r) && (stageOf.get(r) ?? 0) <= own);
  return [
    ...chips.map((r): Edge => ({ before: RAILS, after: r, rule: null })),
    ...before.map((r): Edge => ({ before: r, after: RAILS, rule: null })),
    ...(own > 0 && own <= sheet.stages.length ? [{ before: STAGE + sheet.stages[own - 1]!.id, after: RAILS, rule: null }] : []),
  ];
}

const boardOf = (ref: Ref) => (ref.includes(':') ? ref.split(':')[0]! : '');

/** What carries comes before what it carries: a socket before the chips of its board, a sink and its screws before the tab is soldered. */
function carried(sheet: Sheet, held: ReadonlyMap<Ref, RailTest>): Edge[] {
  const refsOf = (is: (l: Line) => boolean) => sheet.lines.filter(is).flatMap((l) => l.refs);
  const sockets = refsOf((l) => l.kind === 'socket');
  const sinks = refsOf(isSink);
  const tabs = refsOf((l) => packageOf(l).shape === 'to220');
  const screws = refsOf(isFastener);
  const pairs = (before: readonly Ref[], after: readonly Ref[]) =>
    before.flatMap((b) => after.filter((a) => boardOf(a) === boardOf(b)).map((a): Edge => ({ before: b, after: a, rule: null })));
  return [...pairs(sockets, [...held.keys()]), ...pairs(sinks, screws), ...pairs([...sinks, ...screws], sinks.length > 0 ? tabs : [])];
}

const rules = (sheet: Sheet): Edge[] =>
  sheet.constraints.map((c) => ({ before: c.ref, after: c.before, rule: `${c.ref} before ${c.before}${c.why ? `: ${c.why}` : ''}` }));

/** Neighbours in the order that belong to one line and one stage are one step. */
function grouped(
  sheet: Sheet,
  ids: readonly string[],
  lines: ReadonlyMap<Ref, Line>,
  stageOf: ReadonlyMap<Ref, number>,
  held: ReadonlyMap<Ref, RailTest>,
): PlanStep[] {
  const steps: PlanStep[] = [];
  const parts = new Map<string, number>();
  const railed = [...held].flatMap(([r, by]) => (by === RAILS ? [r] : []));
  for (const id of ids) {
    const line = lines.get(id);
    if (!line) {
      const stage = sheet.stages.find((s) => STAGE + s.id === id);
      steps.push(
        stage
          ? { kind: 'stage', id: stage.id, stage, minutes: minutesOf(stage) }
          : { kind: 'rails', id: RAILS, chips: railed, minutes: MINUTES.rail * railed.length },
      );
      continue;
    }
    const own = stageOf.get(id);
    const stage = own === undefined ? null : sheet.stages[own]!;
    const last = steps.at(-1);
    const { minutes } = fittingFacts(line);
    if (last?.kind === 'fit' && last.line === line && last.stage === stage && boardOf(last.refs[0]!) === boardOf(id)) {
      steps[steps.length - 1] = { ...last, refs: [...last.refs, id], minutes: last.minutes + minutes };
      continue;
    }
    // The first part of a line in a stage keeps the short name; what comes again is counted.
    const name = `fit:${stage?.id ?? '~'}:${line.id}`;
    const times = parts.get(name) ?? 0;
    parts.set(name, times + 1);
    steps.push({ kind: 'fit', id: times === 0 ? name : `${name}:${times + 1}`, line, stage, refs: [id], minutes });
  }
  return steps;
}

function minutesOf(stage: Stage): number {
  return stage.checks.reduce((sum, c) => {
    if (c.what === 'observe') return sum + MINUTES.observed * Math.max(1, c.channels?.length ?? 0);
    return sum + (c.mode === 'ohms' || c.mode === 'diode' ? MINUTES.unpowered : MINUTES.powered);
  }, 0);
}

/** Tests that the plan puts before a step and that have not passed: stages, and rails at empty sockets. */
export function testsBefore(plan: Plan, id: string, passed: ReadonlySet<string>): readonly Exclude<PlanStep, { kind: 'fit' }>[] {
  const at = plan.steps.findIndex((s) => s.id === id);
  return plan.steps.slice(0, Math.max(0, at)).flatMap((s) => (s.kind === 'fit' || (s.kind === 'stage' && passed.has(s.stage.id)) ? [] : [s]));
}

/** Stages that meet parts of later ones: what is wrong there can no longer be told from what is wrong here. */
function remarksOf(sheet: Sheet, ids: readonly string[], stageOf: ReadonlyMap<Ref, number>, school: FittingSchool): string[] {
  const at = new Map(ids.map((id, i) => [id, i]));
  const remarks = sheet.stages.flatMap((s, i) => {
    const early = [...stageOf].filter(([ref, own]) => own > i && (at.get(ref) ?? Infinity) < at.get(STAGE + s.id)!).map(([ref]) => ref);
    if (early.length === 0 || s.kind === 'look') return [];
    return [`“${s.title}” is then measured with ${someOf(early)} already on the board: a fault there looks like one here.`];
  });
  if (school === 'blocks' && !isLadder(sheet))
    return [
      'The stages of this kit fit everything at once: the blocks follow one another, and nothing is tested between them. Give each block a stage of its own.',
    ];
  const chips = new Set(socketedChips(sheet.lines));
  const soldered = school === 'blocks' ? [] : sheet.lines.filter((l) => CHIP_KINDS.includes(l.kind)).flatMap((l) => l.refs.filter((r) => !chips.has(r)));
  return soldered.length === 0
    ? remarks
    : [
        ...remarks,
        `${someOf(soldered)} ${soldered.length === 1 ? 'is' : 'are'} soldered without a socket: the rails cannot be tested before ${soldered.length === 1 ? 'it is' : 'they are'} in.`,
      ];
}

const someOf = (refs: readonly Ref[]) => (refs.length > 4 ? `${refs.slice(0, 3).join(', ')} and ${refs.length - 3} more` : refs.join(', '));
