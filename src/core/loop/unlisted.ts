import { deriveAbsent, isSeenTo, type KitState, type Line, type Ref, socketedChips } from '../kit';
import { isFastener, isSink, isWasher } from '../plan';
import { packageOf } from '../vocabulary';
import { lineTitle } from './lineWords';
import type { LookItem } from './look';
import { fitTargets } from './fitTargets';
import type { TargetState } from './target';

/** Things of a list that go on no board. */
const PAPER = /\bpcb\b|circuit board|printed|solder\b|manual|instruction|\bbag\b|\bbox\b|sticker/i;
/** A wire link as decks hold it, by the names that drawings give it (common practice, no source). */
const LINK_LINE = /^R?((?:J|JP|W|LK|LINK)\d+)\s+(\S+)\s+(\S+)\s+(\d\S*)/gim;
/** A link as decks write it, ohms. */
const LINK_OHMS = 0.1;

/** Whether a look is a step of its own, for something without a position. */
export const isUnlisted = ({ id }: LookItem): boolean => id.startsWith('extra/');

const item = (id: string, title: string, good: string, remedy: string, refs: readonly string[] = []): LookItem => ({
  id: `extra/${id}`,
  title,
  good,
  remedy,
  refs,
  weight: 1,
});

/** Wire links go in while the board is flat: those of the list without positions, and those that only the circuit names. */
function linkItems(kit: KitState): LookItem[] {
  const listed = new Set(kit.sheet.lines.flatMap((l) => l.refs.map((r) => r.toLowerCase())));
  const drawn = linksDrawn(kit.sheet.circuit?.deck ?? '').filter(({ name }) => !listed.has(name.toLowerCase()));
  return [
    ...without(kit, 'link').map((l) =>
      item(
        l.id,
        counted(l),
        'Every link that the print shows is in: a straight piece of clipped lead, flat on the board.',
        'Fit the missing one now: under a chip or a socket nobody reaches it later.',
      ),
    ),
    ...drawn.map(({ name, nets }) =>
      item(
        `link/${name}`,
        `Wire link ${name}, which is on no list`,
        `A piece of clipped lead joins ${nets.map((n) => (n === '0' ? 'ground' : n)).join(' and ')}.`,
        'Fit it, or say in the sheet that the circuit has none.',
      ),
    ),
  ];
}

/** Links of a deck. Read by its lines: this is asked at the start, long before the reader of decks is loaded. */
const linksDrawn = (deck: string): { name: string; nets: [string, string] }[] =>
  Array.from(deck.matchAll(LINK_LINE)).flatMap(([, name, a, b, ohms]) => (Number(ohms) <= LINK_OHMS ? [{ name: name!, nets: [a!, b!] }] : []));

/** `2 × wire link`, however the list wrote its number. */
const counted = (l: Line) => `${l.quantity} × ${lineTitle(l).replace(/\s*[x×]\s*\d+$/i, '')}`;

/** Lines of a kind that name no position. */
const without = (kit: KitState, kind: Line['kind']) =>
  kit.sheet.lines.filter((l) => l.kind === kind && l.refs.length === 0 && l.quantity > 0 && !l.notFitted && !PAPER.test(l.label));

/** When something without a position goes in: before everything, before some parts, after everything. */
type Moment = 'first' | { readonly before: readonly Ref[] } | 'last';
interface Extra {
  readonly item: LookItem;
  readonly at: Moment;
  readonly done?: boolean;
}

/** Parts that a line's own words name: “heat sink for IC2”. */
const namedIn = ({ label, note }: Line, refs: readonly Ref[]): Ref[] => {
  const words = new Set(`${label} ${note ?? ''}`.toUpperCase().split(/[^A-Z0-9:]+/));
  return refs.filter((r) => words.has(r.toUpperCase()));
};

/** What the words name, else all that it may be for. */
const meant = (line: Line, refs: readonly Ref[]): readonly Ref[] => {
  const named = namedIn(line, refs);
  return named.length > 0 ? named : refs;
};

function socketExtras(kit: KitState): Extra[] {
  const chips = socketedChips(kit.sheet.lines);
  const absent = deriveAbsent(kit);
  // A chip that sits in its socket says that the socket is there.
  const carried = chips.some((r) => !absent.has(r)) && chips.every((r) => absent.has(r) || isSeenTo(kit.board, r));
  return without(kit, 'socket').map((l) => ({
    item: item(
      l.id,
      counted(l),
      'Soldered at its place, the notch as the print shows it, no leg bent under.',
      'A socket that was soldered the wrong way round may stay: mark it, and turn the chip by the print.',
      meant(l, chips),
    ),
    at: { before: meant(l, chips) },
    done: carried,
  }));
}

/** Words of lists in several languages. */
const SPACER = /spacer|stand-?off|pillar|\bfeet\b|\bfoot\b|abstand|distanz|entretoise|separador|distanzial|dystans|стойк|铜柱|スペーサ/iu;
const CASE = /\bcase\b|enclosure|housing|\blid\b|panel|knob|gehäuse|deckel|knopf|boîtier|caja|scatola|obudow|корпус|外壳|ケース/iu;

/** Sinks, what lies between them and a tab, and their screws: before the tab is soldered, so that no joint carries them. */
function sinkExtras(kit: KitState): Extra[] {
  const { lines } = kit.sheet;
  const tabs = lines.filter((l) => packageOf(l).shape === 'to220').flatMap((l) => l.refs);
  if (!lines.some(isSink)) return [];
  const washers = lines.filter(isWasher);
  const before = (l: Line): Moment => (tabs.length === 0 ? 'last' : { before: meant(l, tabs) });
  const sinks = lines.filter((l) => isSink(l) && l.refs.length === 0 && l.quantity > 0 && !l.notFitted);
  return [
    ...sinks.map((l): Extra => ({
      item: item(
        l.id,
        counted(l),
        `Screwed to ${meant(l, tabs).join(', ') || 'its part'} first, then soldered: the joints must not carry it. Paste or a pad between the faces.`,
        'Unsolder the part, screw it to its sink, and solder it again: a joint that carries a sink cracks.',
        meant(l, tabs),
      ),
      at: before(l),
    })),
    ...(washers.length > 0
      ? []
      : tabs.map((r): Extra => ({
          item: item(
            `tab/${r}`,
            `Between the tab of ${r} and the heat sink`,
            'A washer and a bush, where the instructions ask for them or the sink touches anything else; paste on both faces. Check with ohms between tab and sink.',
            'Without a washer the sink carries what the tab carries: take the screw out and fit one.',
            [r],
          ),
          at: { before: [r] },
        }))),
    ...without(kit, 'mechanical')
      .filter((l) => !CASE.test(l.label) && isFastener(l))
      .map((l): Extra => ({
        item: item(
          l.id,
          counted(l),
          isWasher(l)
            ? 'Between tab and sink, a bush in the hole, paste on both faces where the washer is bare. Check with ohms between tab and sink.'
            : 'Tight by hand before anything is soldered there, touching no track.',
          LOOSE_SCREW,
          meant(l, tabs),
        ),
        at: before(l),
      })),
  ];
}

const LOOSE_SCREW = 'Find it: a loose screw or washer on a board is a bridge that moves about.';

/** Holders and clips, before the fuse or the cell that they hold. */
function holderExtras(kit: KitState): Extra[] {
  const held = kit.sheet.lines.filter((l) => l.kind === 'fuse' || l.kind === 'battery').flatMap((l) => l.refs);
  return without(kit, 'holder').map((l) => ({
    item: item(
      l.id,
      counted(l),
      'Flat on the board, the stops of fuse clips outwards, contacts clean.',
      'A clip that was soldered the wrong way round lets the fuse slip: turn it now.',
    ),
    at: held.length === 0 ? 'last' : { before: meant(l, held) },
  }));
}

/** What is left over: spacers, and what belongs to the case. */
function lastExtras(kit: KitState, taken: ReadonlySet<string>): Extra[] {
  const goodOf = ({ label }: Line) =>
    SPACER.test(label)
      ? 'Screwed under the board before the first power: nothing on the bench may touch a joint from below.'
      : CASE.test(label)
        ? 'When everything works: a closed case hides what is still to be measured.'
        : 'In its place, tight by hand, touching no track.';
  const others = without(kit, 'mechanical')
    .filter((l) => !taken.has(`extra/${l.id}`))
    .map((l) => item(l.id, counted(l), goodOf(l), LOOSE_SCREW));
  return others.map((i) => ({ item: i, at: 'last' }));
}

function extrasOf(kit: KitState): Extra[] {
  const early: Extra[] = [...linkItems(kit).map((i): Extra => ({ item: i, at: 'first' })), ...socketExtras(kit), ...sinkExtras(kit), ...holderExtras(kit)];
  return [...early, ...lastExtras(kit, new Set(early.map((e) => e.item.id)))];
}

/** What is open of it and must be there under power: all but what belongs to the case. */
export const neededUnderPower = (kit: KitState): LookItem[] =>
  extrasOf(kit)
    .filter(({ item: i, done }) => done !== true && !kit.inspected.has(i.id) && !CASE.test(i.title))
    .map((e) => e.item);

/** Minutes for one thing without a position (own figure, common practice). */
const MINUTES_EACH = 1.5;

/** Minutes for what is still open of it. */
export const minutesUnlisted = (kit: KitState): number =>
  MINUTES_EACH * everythingFitted(kit).filter(({ target, done }) => target.kind === 'inspect' && !done).length;

/**
 * What is fitted, in the order of the plan, with what the list names without a position or forgets: links first, sockets before
 * the chips that they carry, sinks, washers and their screws before the tab is soldered, the rest last.
 */
export function everythingFitted(kit: KitState): TargetState[] {
  const parts = fitTargets(kit);
  const extras = extrasOf(kit);
  const target = ({ item: i, done = false }: Extra): TargetState => ({
    target: { kind: 'inspect', id: `inspect:${i.id}`, item: i },
    done: done || kit.inspected.has(i.id),
  });
  const firstOf = (refs: readonly Ref[]) => parts.findIndex(({ target: t }) => t.kind === 'fit' && t.refs.some((r) => refs.includes(r)));
  const placeOf = ({ at }: Extra): number => {
    if (at === 'first') return 0;
    const found = at === 'last' ? -1 : firstOf(at.before);
    return found < 0 ? parts.length : found;
  };
  const placed = extras.map((e) => ({ at: placeOf(e), state: target(e) }));
  const before = (i: number) => placed.filter((p) => p.at === i).map((p) => p.state);
  return [...parts.flatMap((p, i) => [...before(i), p]), ...before(parts.length)];
}
