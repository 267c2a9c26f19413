import { deriveAbsent, isSeenTo, type KitState, type Line, socketedChips } from '../kit';
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
const WASHER = /washer|mica|insulat|silicone pad|thermal pad/i;

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

const socketItems = (kit: KitState): LookItem[] =>
  without(kit, 'socket').map((l) =>
    item(
      l.id,
      counted(l),
      'Soldered at its place, the notch as the print shows it, no leg bent under.',
      'A socket that was soldered the wrong way round may stay: mark it, and turn the chip by the print.',
      socketedChips(kit.sheet.lines),
    ),
  );

function lastItems(kit: KitState): LookItem[] {
  const { lines } = kit.sheet;
  const sink = lines.some((l) => /heat ?sink/i.test(l.label));
  const tabs = lines.filter((l) => packageOf(l).shape === 'to220').flatMap((l) => l.refs.filter((r) => kit.board.fitted.has(r)));
  const asks = sink && !lines.some((l) => WASHER.test(l.label) && l.refs.length > 0);
  return [
    ...(asks
      ? tabs.map((r) =>
          item(
            `tab/${r}`,
            `Between the tab of ${r} and the heat sink`,
            'A washer and a bush, where the instructions ask for them or the sink touches anything else; paste on both faces. Ohms between tab and sink tell.',
            'Without a washer the sink carries what the tab carries: take the screw out and fit one.',
            [r],
          ),
        )
      : []),
    ...without(kit, 'mechanical').map((l) =>
      item(l.id, counted(l), 'In its place, tight by hand, touching no track.', 'Find it: a loose screw or washer on a board is a bridge that moves about.'),
    ),
  ];
}

/**
 * What is fitted, in the order of the plan, with what the list names without a position or forgets: links first, sockets before
 * the chips that they carry, washers and screws last.
 */
export function everythingFitted(kit: KitState): TargetState[] {
  const parts = fitTargets(kit);
  const chips = new Set(socketedChips(kit.sheet.lines));
  const target = (i: LookItem, done = false): TargetState => ({
    target: { kind: 'inspect', id: `inspect:${i.id}`, item: i },
    done: done || kit.inspected.has(i.id),
  });
  const firstChip = parts.findIndex(({ target: t }) => t.kind === 'fit' && t.refs.some((r) => chips.has(r)));
  const at = firstChip < 0 ? parts.length : firstChip;
  const absent = deriveAbsent(kit);
  // A chip that sits in its socket says that the socket is there.
  const carried = [...chips].some((r) => !absent.has(r)) && [...chips].every((r) => absent.has(r) || isSeenTo(kit.board, r));
  return [
    ...linkItems(kit).map((i) => target(i)),
    ...parts.slice(0, at),
    ...socketItems(kit).map((i) => target(i, carried)),
    ...parts.slice(at),
    ...lastItems(kit).map((i) => target(i)),
  ];
}
