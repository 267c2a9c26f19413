import { type Bench, type Condition, type Feed, type MeterKind, propose, type Proposal } from '../bringup';
import { connectionsOf, UnsolvableError } from '../circuit';
import type { MeasureCheck, Sheet, Stage } from '../kit';
import { deckFromConnections, withFeeds } from './fromConnections';
import { listLadder } from './listLadder';
import { makeSheet, NOTHING_BESIDE, readDraft } from './newKit';
import { stagesOf } from './readingLadder';
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

export interface DraftRequest {
  readonly title: string;
  readonly list: string;
  readonly circuit: ToldCircuit | null;
  readonly feeds: readonly Feed[];
  readonly probes: readonly string[] | null;
  readonly meter: MeterKind;
  readonly modes: readonly string[] | null;
  readonly conditions: readonly Condition[];
  readonly sockets: readonly string[];
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
  if (!circuit) return { sheet: { ...base, stages: withFeedsTyped(listLadder(base), request.feeds) }, proposal: null };
  const bench: Bench = { ...request, lines: draft.lines, circuit, deck, probes };
  const sheet: Sheet = { ...base, circuit: { deck, neighbours: [] }, testPoints: nets.map((net, i) => ({ id: `TP${i + 1}`, net, where: `net ${net}` })) };
  try {
    const proposal = propose(bench);
    return { sheet: { ...sheet, stages: stagesOf(proposal, bench, sheet.testPoints) }, proposal };
  } catch (error) {
    if (!(error instanceof UnsolvableError)) throw error;
    return { sheet: { ...sheet, stages: listLadder(base) }, proposal: null };
  }
}

function deckOf({ list, circuit, feeds }: DraftRequest): string {
  if (circuit === null) return '';
  const drawn = feeds.map((f) => ({ net: f.net, back: f.back, winding: f.kind === 'winding', volts: f.volts }));
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

/** A ladder by rules of the trade with the supplies that the builder named: windings are AC, and nothing is set that does not exist. */
function withFeedsTyped(stages: readonly Stage[], feeds: readonly Feed[]): Stage[] {
  const winding = feeds.find((f) => f.kind === 'winding');
  const feed = feeds[0];
  return stages.map((stage) => ({
    ...stage,
    checks: stage.checks.flatMap((check) => {
      if (check.what !== 'measure' || check.id !== 'v-in' || !feed) return [check];
      if (!winding) return [{ ...check, window: { low: rounded(feed.volts * 0.85), high: rounded(feed.volts * 1.14) } }];
      const peak = winding.volts * Math.SQRT2;
      const behind: MeasureCheck = {
        ...check,
        title: `volts behind the rectifier`,
        window: { low: rounded(peak * 1.05 * 0.94 * 0.9 - 2.2), high: rounded(peak * 1.32 * 1.06 - 1) },
      };
      const ac: MeasureCheck = {
        ...check,
        id: 'ac-in',
        mode: 'acv',
        title: `AC volts of the winding, ${winding.volts} V under its full load`,
        red: { net: winding.net },
        black: { net: winding.back },
        window: { low: rounded(winding.volts * 0.91 - 0.5), high: rounded(winding.volts * 1.42 + 1.5) },
      };
      return [ac, behind];
    }),
  }));
}

const rounded = (v: number) => Number(v.toPrecision(4));
