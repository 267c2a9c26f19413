import { type Circuit, type Diagnostic, GROUND, netsOf, operatingPoint, readDeck } from '../circuit';
import type { CircuitSheet, Line, Need, Sheet, Stage, TestPoint } from '../kit';
import { linesFromCircuit, type PartsList, readList, type Settled } from '../partslist';
import { checkPlaces, type PlaceFinding } from '../stage';
import { proposeLadder } from './ladder';
import { observe, slug } from './stageParts';
import type { TemplateLook } from './templates';
import { isLoose } from './walk';

/** What a pasted list and deck amount to, before anything is made of them. */
export interface Draft {
  readonly lines: readonly Line[];
  readonly list: PartsList;
  readonly circuit: Circuit | null;
  readonly deckRemarks: readonly Diagnostic[];
  /** Nets that can carry a test point, the most useful first. */
  readonly nets: readonly string[];
  /** Places of list and circuit that do not meet, in words. */
  readonly mismatches: readonly string[];
  /** Why the circuit cannot be solved; null when it can. */
  readonly unsolvable: string | null;
}

const SUGGESTED_POINTS = 12;

/** Reads a pasted list and a deck, with what the builder said of the list. Without a list it is made from the deck. */
export function readDraft(text: string, deck: string, settled: Settled = {}): Draft {
  const hasDeck = deck.trim() !== '';
  const read = hasDeck ? readDeck(deck) : null;
  const circuit = read?.circuit ?? null;
  const list = readList(text, circuit, settled);
  const lines = text.trim() === '' && circuit ? linesFromCircuit(circuit) : list.lines;
  const nets = circuit ? usefulNets(circuit) : [];
  const solvable = circuit !== null && circuit.parts.length > 0 && !read!.diagnostics.some((d) => d.severity === 'error');
  return {
    lines,
    list,
    circuit,
    deckRemarks: read?.diagnostics ?? [],
    nets,
    mismatches: circuit ? checkPlaces({ lines, circuit: { deck, neighbours: [] } }, circuit).map((f) => f.text) : [],
    unsolvable: solvable ? whyUnsolvable(circuit) : null,
  };
}

/** A deck with its remarks, and where it does not meet the list. */
export interface DeckReading {
  readonly circuit: Circuit;
  readonly diagnostics: readonly Diagnostic[];
  readonly places: readonly PlaceFinding[];
}

export function readDeckAgainst(deck: string, lines: readonly Line[], elements: CircuitSheet['elements']): DeckReading {
  const { circuit, diagnostics } = readDeck(deck);
  return { circuit, diagnostics, places: checkPlaces({ lines, circuit: { deck, elements, neighbours: [] } }, circuit) };
}

function whyUnsolvable(circuit: Circuit): string | null {
  try {
    operatingPoint(circuit);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

/** Nets outside sub-circuits, by how many parts meet there. */
function usefulNets(circuit: Circuit): string[] {
  const meets = (net: string) => circuit.parts.filter((p) => !p.name.includes('.') && p.nodes.includes(net)).length;
  return netsOf(circuit)
    .filter((n) => n !== GROUND && !n.includes('.') && !isLoose(n))
    .sort((a, b) => meets(b) - meets(a));
}

/** The draft with what the builder said it runs from, beside what the list tells. */
export const withNeeds = (draft: Draft, needs: readonly Need[]): Draft =>
  needs.length === 0 ? draft : { ...draft, list: { ...draft.list, needs: [...draft.list.needs.filter((n) => needs.every((m) => m.id !== n.id)), ...needs] } };

/** The test points proposed: the busiest nets. */
export const suggestedNets = (draft: Draft) => draft.nets.slice(0, SUGGESTED_POINTS);

/** What is known of a new kit beside its list and deck. */
export interface Beside {
  /** Where nets are found, in words. */
  readonly where: Readonly<Record<string, string>>;
  readonly looks: readonly TemplateLook[];
}
export const NOTHING_BESIDE: Beside = { where: {}, looks: [] };

/** The sheet of a new kit, or of one that is built already: its boards, every chosen net as a test point, and the ladder of stages that is proposed for it. */
export function makeSheet(title: string, draft: Draft, deck: string, nets: readonly string[], { where, looks }: Beside = NOTHING_BESIDE, built = false): Sheet {
  const testPoints: TestPoint[] = nets.map((net, i) => ({ id: `TP${i + 1}`, net, where: where[net] ?? whereOf(draft, net) }));
  const circuit = draft.circuit && draft.circuit.parts.length > 0 ? { deck, neighbours: [] } : null;
  return {
    title,
    boards: boardsOf(draft.lines),
    lines: draft.lines,
    needs: draft.list.needs,
    options: draft.list.options,
    circuit,
    testPoints,
    placement: [],
    symbols: [],
    pads: [],
    stages: withLooks(proposeLadder({ title, lines: draft.lines, needs: draft.list.needs, circuit, testPoints, built }, draft.circuit), looks),
    claims: [],
    typeCards: [],
    photos: [],
    constraints: [],
    differences: [],
    functions: null,
  };
}

/** Looks join the last stage under power that is no load test: there everything is fitted. */
export function withLooks(stages: readonly Stage[], looks: readonly TemplateLook[]): Stage[] {
  const last = stages.findLast((s) => s.supplies.length > 0 && s.kind !== 'load') ?? stages.at(-1);
  // A circuit that was put in twice brings its looks once.
  const once = [...new Map(looks.map((l) => [slug(l.title), l])).values()];
  const checks = once.map(({ title, action, expect, shows }) => observe(`look-${slug(title)}`, title, action, expect, shows ? { sign: shows } : {}));
  return stages.map((s) => (s.id === last?.id ? { ...s, checks: [...s.checks, ...checks.filter((c) => !s.checks.some((k) => k.id === c.id))] } : s));
}

/** Boards named in refs such as `B:R7`; one board when none is. */
function boardsOf(lines: readonly Line[]): Sheet['boards'] {
  const ids = [...new Set(lines.flatMap((l) => l.refs.flatMap((r) => (r.includes(':') ? [r.split(':')[0]!] : []))))];
  return ids.length === 0 ? [{ id: 'A', name: 'Board' }] : ids.map((id) => ({ id, name: `Board ${id}` }));
}

/** A net in words: the parts of the list that meet there, and supplies; what stands in for the inside of a chip is nowhere on the board. */
function whereOf({ circuit, lines }: Draft, net: string): string {
  const refs = lines.flatMap((l) => l.refs.map((r) => r.toLowerCase()));
  const listed = (name: string) => refs.some((r) => new RegExp(`^[a-z]?${r.replace(/[^a-z0-9]/g, '\\$&')}[ab]?$`).test(name.toLowerCase()));
  const parts =
    circuit?.parts.filter((p) => p.nodes.includes(net) && !p.name.includes('.') && (listed(p.name) || /^V\d*$/i.test(p.name))).map((p) => p.name) ?? [];
  return parts.length === 0 ? `net ${net}` : `net ${net}, where ${parts.slice(0, 3).join(', ')} meet`;
}
