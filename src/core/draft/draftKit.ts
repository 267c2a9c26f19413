import { type Bench, type Feed, type Proposal, stageSupply } from '../bringup';
import { connectionsOf, readDeck, type Source } from '../circuit';
import { type Sheet, type Stage, withLimitsKeys } from '../kit';
import { deckFromConnections, withFeeds } from './fromConnections';
import { listLadder } from './listLadder';
import { makeSheet, NOTHING_BESIDE, readDraft } from './newKit';
import { proposeStages } from './proposeStages';
import { matchRoles, placeTemplate, rolesOf, TEMPLATES, type TemplateValues } from './templates';

/** A circuit as somebody tells it: as a deck, pin by pin, or as templates with the list's parts in their roles. */
export type ToldCircuit =
  { readonly deck: string } | { readonly connections: Readonly<Record<string, string>> } | { readonly templates: readonly ToldTemplate[] };
export interface ToldTemplate {
  readonly template: string;
  /** Role of the template → ref of the list. */
  readonly parts: Readonly<Record<string, string>>;
  readonly figures: TemplateValues;
}

export interface DraftRequest extends Omit<Bench, 'lines' | 'circuit' | 'deck'> {
  readonly title: string;
  readonly list: string;
  readonly circuit: ToldCircuit | null;
}

export interface DraftedKit {
  readonly sheet: Sheet;
  /** What the ladder's readings tell; null without a circuit. */
  readonly proposal: Proposal | null;
}

/**
 * A whole kit from what a builder has: list, circuit, supplies, meter.
 * @throws Error naming the line of the deck or the template that cannot be used.
 */
export function draftKit(request: DraftRequest): DraftedKit {
  const deck = deckOf(request);
  const draft = readDraft(request.list, deck);
  const probes = request.probes ?? draft.nets;
  const nets = probes.filter((net) => draft.nets.some((n) => n.toLowerCase() === net.toLowerCase()));
  const base = makeSheet(request.title, { ...draft, circuit: null }, '', [], NOTHING_BESIDE);
  const circuit = draft.circuit && draft.circuit.parts.length > 0 ? draft.circuit : null;
  if (!circuit) {
    // What is not drawn yet begins with its supplies: stages switch them on by their names.
    const drawn = request.feeds.length > 0 ? withFeeds('', drawnFeeds(request.feeds)) : '';
    return {
      sheet: {
        ...base,
        circuit: drawn === '' ? null : { deck: drawn, neighbours: [] },
        stages: withSupplies(listLadder({ ...base, feeds: request.feeds }), drawn, request.feeds),
      },
      proposal: null,
    };
  }
  const sheet: Sheet = { ...base, circuit: { deck, neighbours: [] }, testPoints: nets.map((net, i) => ({ id: `TP${i + 1}`, net, where: `net ${net}` })) };
  const { stages, proposal } = proposeStages(sheet, circuit, { ...request, probes, allLimits: true });
  return { sheet: { ...sheet, stages: withLimitsKeys(sheet, withSupplies(stages, deck, request.feeds)) }, proposal };
}

/** Every stage under power is fed by the supplies that there are. */
function withSupplies(stages: readonly Stage[], deck: string, feeds: readonly Feed[]): Stage[] {
  const sources = readDeck(deck).circuit.parts.filter((p): p is Source => p.kind === 'V');
  const supplies = feeds.flatMap((f) => {
    const supply = stageSupply(f, sources);
    return supply ? [supply] : [];
  });
  return stages.map((s) => (s.kind === 'look' || s.kind === 'cold' ? s : { ...s, supplies }));
}

const drawnFeeds = (feeds: readonly Feed[]) => feeds.map((f) => ({ net: f.net, back: f.back, winding: f.kind === 'winding', volts: f.volts }));

function deckOf({ list, circuit, feeds }: DraftRequest): string {
  if (circuit === null) return '';
  const drawn = drawnFeeds(feeds);
  const { lines } = readDraft(list, '');
  if ('connections' in circuit) return deckFromConnections(lines, circuit.connections, drawn);
  if ('deck' in circuit) {
    const has = connectionsOf(circuit.deck)
      .filter((c) => /^V/i.test(c.name))
      .map((c) => c.pins.map((p) => p.net.toLowerCase()));
    return withFeeds(
      circuit.deck,
      drawn.filter((f) => !has.some((pins) => pins.includes(f.net.toLowerCase()) && pins.includes(f.back.toLowerCase()))),
    );
  }
  return circuit.templates.reduce((deck, told) => {
    const template = TEMPLATES.find((t) => t.id === told.template);
    if (!template) throw new Error(`there is no template ${told.template}`);
    const defaults = Object.fromEntries(template.fields.map((f) => [f.key, f.initial]));
    const text = template.build({ ...defaults, ...told.figures });
    const roles = rolesOf(text);
    const proposed = matchRoles(roles, lines, new Set());
    const filled = Object.fromEntries(roles.map((r) => [r.ref, told.parts[r.ref] ?? proposed[r.ref] ?? null]));
    const shared = new Set(drawn.flatMap((f) => [f.net, f.back]).map((n) => n.toLowerCase()));
    return placeTemplate(deck, text, lines, { filled, absent: new Set(), shared }).deck;
  }, '');
}
