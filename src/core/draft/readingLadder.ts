import type { Bench, Offered, Place, Proposal, ProposedStage } from '../bringup';
import { GROUND, type Source } from '../circuit';
import type { Check, MeasureCheck, ObserveCheck, ProbePoint, Stage, TestPoint } from '../kit';
import { hotEnd } from './rails';
import { windingVolts } from './listLadder';
import { measure, slug } from './stageParts';

/** Faults named beside a check; more are told as a number. */
const MOST_TOLD = 4;

/** What the readings of a ladder are put into words with. */
interface Told {
  readonly proposal: Proposal;
  readonly bench: Bench;
  readonly testPoints: readonly TestPoint[];
  /** Every check keeps its limits, not only those that the drawing alone would tell wrongly. */
  readonly allLimits: boolean;
}

/**
 * A ladder by rules of the trade with honest readings: a check keeps its place where healthy boards tell enough there, with their
 * limits where the drawing alone would mislead; what catches more faults comes beside it; a place inside a model goes.
 */
export function withReadings(stages: readonly Stage[], told: Told): Stage[] {
  const { proposal, bench } = told;
  const by = (kind: ProposedStage['kind']) => proposal.stages.filter((s) => s.kind === kind);
  const first = bench.sockets.length > 0 ? 'empty' : 'fed';
  const kinds: Readonly<Record<string, readonly ProposedStage['kind'][]>> = {
    'p-cold': ['cold', 'coldTurned'],
    'p-power': [first],
    'p-chips': ['fed'],
    'p-adjust': ['turned'],
  };
  const turned = by('turned').some((s) => s.offers.some((o) => o.chosen));
  const missing: Stage[] =
    turned && !stages.some((s) => s.id === 'p-adjust')
      ? [{ id: 'p-adjust', title: 'Other settings', kind: 'adjust', fits: [], supplies: stages.find((s) => s.supplies.length > 0)?.supplies ?? [], checks: [] }]
      : [];
  const load = stages.findIndex((s) => s.kind === 'load');
  const all = [...stages.slice(0, load < 0 ? stages.length : load), ...missing, ...(load < 0 ? [] : stages.slice(load))];
  return all
    .flatMap((s) => (s.id === 'p-signals' ? signals(s, told) : [s]))
    .map((stage): Stage => {
      const scenes = (kinds[stage.id] ?? []).flatMap(by);
      if (scenes.length === 0) return { ...stage, checks: stage.checks.filter((c) => c.what !== 'measure' || onBoard(c, told)) };
      const [scene] = scenes;
      const settings = scene!.settings.length > 0 ? { settings: [...scene!.settings] } : {};
      return { ...stage, ...settings, checks: checksOf(stage, scenes, told) };
    })
    .filter((s) => s.checks.length > 0 || s.fits.length > 0);
}

/** Frequencies and AC volts of a board that moves by its own drawing; a chip's stand-in moves as it was told, not as the chip does. */
function signals(stage: Stage, { proposal, bench: { modes }, allLimits }: Told): Stage[] {
  if (proposal.chips) return [];
  const has = (c: Check) => c.what !== 'measure' || (modes === null ? !allLimits : modes.includes(c.mode));
  return [{ ...stage, checks: stage.checks.filter(has) }];
}

function checksOf(stage: Stage, scenes: readonly ProposedStage[], told: Told): Check[] {
  const offers = scenes.flatMap((s) => s.offers);
  const used = new Set<Offered>();
  const kept = stage.checks.flatMap((c): Check[] => {
    if (c.what === 'observe' && c.sign) return signOf(c, c.sign.ref, offers);
    if (c.what !== 'measure') return [c];
    if (c.mode === 'acv') return windingCheck(c, told);
    // A control's ends are read where they tell something: by the offers of their own.
    const offer = c.settings ? undefined : offers.find((o) => o.settings.length === 0 && samePlace(o.place, placeOf(c, told)));
    // A supply's volts are read all the same; any other reading that no fault moves is none.
    if (!offer || used.has(offer) || (offer.catches.length === 0 && offer.place.mode !== 'dcv' && !scenes.some((s) => s.moving))) return [];
    used.add(offer);
    return [withWindow(c, offer, told)];
  });
  const more = offers
    .filter((o) => o.chosen && !used.has(o) && o.place.mode !== 'sign' && (told.allLimits || !isCold(o)))
    .map((o) =>
      withWindow(
        measure(idOf(o), titleOf(o.place), {
          mode: modeOf(o.place),
          ...probesOf(o.place, told),
          ...(o.settings.length > 0 ? { settings: [...o.settings] } : {}),
        }),
        o,
        told,
      ),
    );
  // Current first, then what burns is felt; the rest in its order.
  const rank = (c: Check) => (c.what === 'measure' ? (c.mode === 'dca' ? 0 : 2) : c.id === 'cool' ? 1 : 3);
  return [...kept, ...more]
    .map((c, i) => ({ c, i }))
    .sort((a, b) => rank(a.c) - rank(b.c) || a.i - b.i)
    .map(({ c }) => c);
}

/**
 * Through junctions and electrolytics the fault finder knows one meter and no leakage: it would call such readings unexplained, so that
 * a kit on the bench is not asked for more of them than the ohms of its rails.
 */
const isCold = ({ place: { mode } }: Offered): boolean => mode === 'ohms' || mode === 'diode';

/** AC volts of a winding, with what it gives without load; AC volts elsewhere are left to boards that move. */
function windingCheck(c: MeasureCheck, { bench, ...told }: Told): Check[] {
  const place = placeOf(c, { bench, ...told });
  const feed = bench.feeds.find((f) => f.kind === 'winding' && place !== null && [place.red, place.black].every((n) => same(n, f.net) || same(n, f.back)));
  if (!feed || (bench.modes !== null && !bench.modes.includes('acv'))) return [];
  const typed = windingVolts(feed, 0);
  return typed.what === 'measure' && typed.window ? [{ ...c, window: { ...typed.window, from: 'simulated' } }] : [c];
}

/** An LED that every healthy board has lit, or dark; none where boards differ, or where nobody computed it. */
function signOf(c: ObserveCheck, ref: string, offers: readonly Offered[]): Check[] {
  const offer = offers.find((o) => o.place.mode === 'sign' && o.settings.length === 0 && o.place.ref === ref);
  if (!offer) return [];
  const dark = offer.window.low === null;
  const amperes = (dark ? -1 : 1) * (offer.window.low ?? offer.window.high ?? 0);
  return [{ ...c, ...(dark ? { title: `${ref} dark`, expect: `${ref} is dark` } : {}), sign: { ref, amperes } }];
}

function withWindow(check: MeasureCheck, offer: Offered, { proposal, allLimits }: Told): MeasureCheck {
  const { window, catches } = offer;
  // Cold, a drawing knows neither leakage nor what another meter pushes through a junction.
  const keeps = allLimits || proposal.misleading || isCold(offer);
  const names = catches.slice(0, MOST_TOLD).map((f) => f.text);
  const rest = catches.length - names.length;
  const note = names.length === 0 ? undefined : `Detects: ${names.join(', ')}${rest > 0 ? ` and ${rest} more` : ''}.`;
  const round = (v: number | null) => (v === null ? null : rounded(v));
  const limits = { low: round(window.low), high: round(window.high), from: 'simulated' as const };
  return { ...check, ...(keeps ? { window: limits } : {}), ...(check.note !== undefined || note === undefined ? {} : { note }) };
}

/** Where a check is read, by its nets; null where one is not on the board. */
function placeOf(c: MeasureCheck, { bench, testPoints }: Told): Pick<Place, 'mode' | 'red' | 'black'> | null {
  const net = (p: ProbePoint | undefined): string | null => {
    if (!p) return null;
    if ('net' in p) return p.net;
    return 'testPoint' in p ? (testPoints.find((t) => t.id === p.testPoint)?.net ?? null) : null;
  };
  const [red, black] = [net(c.red), net(c.black)];
  if (red === null || black === null) return null;
  if (c.mode === 'dca') {
    const source = bench.circuit.parts.find((p): p is Source => p.kind === 'V' && p.name === c.source);
    return source ? { mode: 'dca', red: hotEnd(source), black: GROUND } : null;
  }
  return { mode: c.mode as Place['mode'], red, black };
}

const samePlace = (a: Place, b: Pick<Place, 'mode' | 'red' | 'black'> | null): boolean =>
  b !== null && a.mode === b.mode && same(a.red, b.red) && (a.mode === 'dca' || same(a.black, b.black));
const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase();

/** Whether both probes go to nets of the drawing. */
function onBoard(c: MeasureCheck, told: Told): boolean {
  const place = placeOf(c, told);
  const known = (net: string) => net === GROUND || told.proposal.nets.some((n) => same(n, net));
  return place === null || (known(place.red) && known(place.black));
}

function probesOf(place: Place, { bench, testPoints }: Told): Pick<MeasureCheck, 'red' | 'black' | 'source'> {
  const at = (net: string): ProbePoint => {
    const point = testPoints.find((t) => same(t.net, net));
    return net !== GROUND && point ? { testPoint: point.id } : { net };
  };
  const feed = place.mode === 'dca' ? bench.feeds[place.feed ?? 0] : undefined;
  const source = feed && bench.circuit.parts.find((p): p is Source => p.kind === 'V' && same(hotEnd(p), feed.net));
  return { red: at(place.red), black: at(place.black), ...(source ? { source: source.name } : {}) };
}

const modeOf = ({ mode }: Place): MeasureCheck['mode'] => (mode === 'sign' ? 'dca' : mode);

/** Ids are the same each time, so that edits can be told from proposals. */
function idOf({ place: { mode, red, black }, settings }: Offered): string {
  const where = red === GROUND ? `${slug(black)}-back` : slug(red);
  const set = settings.length > 0 ? `-${slug(settings.map((s) => s.text).join(' '))}` : '';
  const letter = { dcv: 'v', ohms: 'r', diode: 'd', dca: 'current', acv: 'ac', vmin: 'least', vmax: 'most', sign: 'lit' }[mode];
  return `${letter}-${where}${black !== GROUND && red !== GROUND ? `-${slug(black)}` : ''}${set}`;
}

function titleOf({ mode, red, black }: Place): string {
  const to = black === GROUND ? `${red} to ground` : red === GROUND ? `ground to ${black}, probes swapped` : `${red} to ${black}`;
  switch (mode) {
    case 'dca':
      return 'supply current';
    case 'diode':
      return `diode test, ${to}`;
    case 'ohms':
      return to;
    case 'vmin':
      return `least volts at ${red}`;
    case 'vmax':
      return `most volts at ${red}`;
    default:
      return red;
  }
}

/** Four figures: more than any window deserves. */
const rounded = (v: number) => Number(v.toPrecision(4));
