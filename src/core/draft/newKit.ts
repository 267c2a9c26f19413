import { type Circuit, type Diagnostic, GROUND, netsOf, operatingPoint, readDeck } from '../circuit';
import { type Check, type CircuitSheet, type Line, type Sheet, type Stage, type TestPoint } from '../kit';
import { type Columns, linesFromCircuit, type PartsList, readList, type TableRow, toRows } from '../partslist';
import { checkPlaces, type PlaceFinding } from '../stage';

/** What a pasted list and deck amount to, before anything is made of them. */
export interface Draft {
  /** The list as it was cut into cells. */
  readonly rows: readonly TableRow[];
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

/** Reads a pasted list and a deck. Without a list it is made from the deck. */
export const readDraft = (list: string, deck: string, columns: Columns | null = null): Draft => draftOf(toRows(list), deck, columns);

/** Reads a parts table and a deck. */
export function draftOf(rows: readonly TableRow[], deck: string, columns: Columns | null = null): Draft {
  const hasDeck = deck.trim() !== '';
  const read = hasDeck ? readDeck(deck) : null;
  const circuit = read?.circuit ?? null;
  const list = readList(rows, circuit, columns);
  const lines = rows.length === 0 && circuit ? linesFromCircuit(circuit) : list.lines;
  const nets = circuit ? usefulNets(circuit) : [];
  const solvable = circuit !== null && circuit.parts.length > 0 && !read!.diagnostics.some((d) => d.severity === 'error');
  return {
    rows,
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
    .filter((n) => n !== GROUND && !n.includes('.'))
    .sort((a, b) => meets(b) - meets(a));
}

/** The test points proposed: the busiest nets. */
export const suggestedNets = (draft: Draft) => draft.nets.slice(0, SUGGESTED_POINTS);

/** The sheet of a new kit: one board, a cold stage and a powered stage with every chosen net as a test point. */
export function makeSheet(title: string, draft: Draft, deck: string, nets: readonly string[]): Sheet {
  const testPoints: TestPoint[] = nets.map((net, i) => ({ id: `TP${i + 1}`, net, where: whereOf(draft.circuit, net) }));
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
    pads: [],
    stages: draft.circuit && circuit ? stagesFor(draft.circuit, draft.lines, testPoints) : [],
    claims: [],
    typeCards: [],
    photos: [],
    constraints: [],
  };
}

/** Boards named in refs such as `B:R7`; one board when none is. */
function boardsOf(lines: readonly Line[]): Sheet['boards'] {
  const ids = [...new Set(lines.flatMap((l) => l.refs.flatMap((r) => (r.includes(':') ? [r.split(':')[0]!] : []))))];
  return ids.length === 0 ? [{ id: 'A', name: 'Board' }] : ids.map((id) => ({ id, name: `Board ${id}` }));
}

/** A net in words: the parts that meet there. */
function whereOf(circuit: Circuit | null, net: string): string {
  const parts = circuit?.parts.filter((p) => p.nodes.includes(net) && !p.name.includes('.')).map((p) => p.name) ?? [];
  return `net ${net}, where ${parts.slice(0, 3).join(', ')} meet`;
}

const FIRST_LIMIT = 0.1;

function stagesFor(circuit: Circuit, lines: readonly Line[], testPoints: readonly TestPoint[]): Stage[] {
  const supplies = circuit.parts.filter((p) => p.kind === 'V' && !p.name.includes('.'));
  const onGround = supplies.filter((p) => p.nodes[1] === GROUND || p.nodes[0] === GROUND);
  const ground = { net: GROUND };
  const cold = onGround.map((p): Check => ({
    id: `ohms-${p.name}`,
    what: 'measure',
    title: `${p.name} input to ground`,
    mode: 'ohms',
    red: { net: p.nodes[0] === GROUND ? p.nodes[1]! : p.nodes[0]! },
    black: ground,
  }));
  const currents = supplies.map((p): Check => ({
    id: `current-${p.name}`,
    what: 'measure',
    title: `current of ${p.name}`,
    mode: 'dca',
    red: { net: p.nodes[0]! },
    black: ground,
    source: p.name,
  }));
  const volts = testPoints.map((t): Check => ({ id: t.id.toLowerCase(), what: 'measure', title: t.net, mode: 'dcv', red: { testPoint: t.id }, black: ground }));
  // What the deck starts by hand is what oscillates.
  const frequencies = testPoints
    .filter((t) => t.net in circuit.initial)
    .map((t): Check => ({
      id: `hz-${t.id.toLowerCase()}`,
      what: 'measure',
      title: `frequency at ${t.net}`,
      mode: 'frequency',
      red: { testPoint: t.id },
      black: ground,
    }));
  const stages: Stage[] = [
    {
      id: 'cold',
      title: 'Cold: ohms at the supply',
      kind: 'cold',
      note: 'Supply unplugged, capacitors discharged.',
      fits: lines.flatMap((l) => l.refs),
      supplies: [],
      checks: cold,
    },
    {
      id: 'power',
      title: 'Limited power',
      kind: 'power',
      note: 'From a supply with a current limit, or a weak battery first.',
      fits: [],
      supplies: supplies.map((p) => ({ source: p.name, volts: p.kind === 'V' ? p.dc : 0, limit: FIRST_LIMIT })),
      cautions: [
        'Wear eye protection at first power: a reversed electrolytic can burst.',
        'Above 50 V AC or 120 V DC this is work for somebody licensed; local codes decide.',
      ],
      checks: [...currents, ...volts, ...frequencies],
    },
  ];
  return stages.filter((s) => s.checks.length > 0);
}
