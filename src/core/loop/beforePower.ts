import { absentRefs, checkTaken, deriveExchanged, type EntryOf, isPowered, type KitState, type Ref, socketedChips, type Stage } from '../kit';
import { badPieces } from './fitting';
import { modificationText } from './logText';
import type { OpenPoint } from './openPoint';
import { neededUnderPower } from './unlisted';

/** Parts named one by one; of more the number. */
const MOST_NAMED = 6;
const named = (refs: readonly Ref[]) =>
  refs.length <= MOST_NAMED ? refs.join(', ') : `${refs.slice(0, MOST_NAMED).join(', ')} and ${refs.length - MOST_NAMED} more`;

/** Whether a point was told when the stage was made ready: what is told of fewer parts than then is nothing new. */
export const wasTold = ({ kind, refs }: OpenPoint, told: EntryOf<'prepared'>['open'] = []): boolean =>
  told.some((t) => t.kind === kind && refs.every((r) => t.refs.includes(r)));

/** Everything that is open before a powered stage, what can do most harm first; nothing for a stage without power. */
export function openBeforePower(kit: KitState, stage: Stage): OpenPoint[] {
  if (!isPowered(stage)) return [];
  const fitting = kit.board.fitted.size > 0 || kit.board.removed.size > 0;
  return [
    ...badOnes(kit),
    ...otherPlaces(kit),
    ...sockets(kit, stage),
    // Who never ticks in Fit is not told that everything is missing.
    ...(fitting ? [...emptyPlaces(kit, stage), ...hardware(kit)] : []),
    ...temporary(kit),
    ...secondLook(kit),
    ...controls(kit, stage),
  ];
}

/** Places whose piece is the one that was measured: not exchanged, repaired or replaced since. */
const asMeasured = ({ board }: KitState, ref: Ref) => board.fitted.has(ref) && !board.renewed.has(ref) && !board.values.has(ref);

const swappedPairs = (kit: KitState) => deriveExchanged(kit).filter((pair) => pair.every((p) => asMeasured(kit, p.ref)));

function badOnes(kit: KitState): OpenPoint[] {
  const swapped = new Set(swappedPairs(kit).flatMap((pair) => pair.map((p) => p.ref)));
  const own = [...kit.board.fitted].filter((r) => asMeasured(kit, r) && !swapped.has(r));
  return badPieces(kit, own).map((p) => ({
    kind: 'bad-piece',
    refs: [p.ref],
    text: `${p.ref} is fitted and was ${p.verdict}`,
    advice: `${p.text} Replace it, or fit one that measures right.`,
    done: null,
  }));
}

const otherPlaces = (kit: KitState): OpenPoint[] =>
  swappedPairs(kit).map(([a, b]) => ({
    kind: 'other-place',
    refs: [a.ref, b.ref],
    text: `${a.ref} and ${b.ref} measured as each other’s value`,
    advice: 'They may be swapped. Read their bands on the board; put them right before power.',
    done: null,
  }));

/** Parts of this stage and of those before it. */
function dueUpTo({ sheet }: KitState, stage: Stage): Ref[] {
  const upTo = sheet.stages.slice(0, sheet.stages.findIndex((s) => s.id === stage.id) + 1);
  const out = new Set(stage.without ?? []);
  return [...new Set(upTo.flatMap((s) => s.fits))].filter((r) => !out.has(r));
}

function emptyPlaces(kit: KitState, stage: Stage): OpenPoint[] {
  const absent = absentRefs(kit, kit.board);
  const due = dueUpTo(kit, stage).filter((r) => !absent.has(r));
  const empty = due.filter((r) => !kit.board.fitted.has(r) && !kit.board.removed.has(r));
  const left = due.filter((r) => kit.board.removed.has(r));
  const chips = left.filter((r) => socketedChips(kit.sheet.lines).includes(r));
  const others = left.filter((r) => !chips.includes(r));
  const point = (kind: 'empty' | 'left-out', refs: readonly Ref[], text: string, advice: string, done: OpenPoint['done'] = null): OpenPoint[] =>
    refs.length === 0 ? [] : [{ kind, refs, text: `${text}: ${named(refs)}`, advice, done }];
  return [
    ...point(
      'empty',
      empty,
      `${empty.length === 1 ? 'one place is' : `${empty.length} places are`} not ticked off`,
      'Fit them, or mark them as left out: readings would be judged as if they were in.',
    ),
    ...point('left-out', chips, 'out of the socket', 'This stage needs it in. Notch to the notch, no leg bent under.', {
      label: `${named(chips)} ${chips.length === 1 ? 'is' : 'are'} in`,
      entries: [{ kind: 'fitted', refs: chips }],
    }),
    ...point('left-out', others, 'left out', 'The limits of this stage are worked out without them. Fit them first if they should be in.'),
  ];
}

/** What has no position on the list and is needed under power: it cools a part, insulates it, or keeps the board off the bench. */
function hardware(kit: KitState): OpenPoint[] {
  const open = neededUnderPower(kit);
  if (open.length === 0) return [];
  return [
    {
      kind: 'hardware',
      refs: [],
      text: `not ticked off: ${open.map((i) => i.title).join(', ')}`,
      advice: 'Without its sink a part overheats in seconds under load; a board without spacers lies on whatever is on the bench.',
      done: null,
    },
  ];
}

/** Chips that sit in their sockets although this stage wants them out, or although their stage comes later. */
function sockets(kit: KitState, stage: Stage): OpenPoint[] {
  const at = kit.sheet.stages.findIndex((s) => s.id === stage.id);
  const later = new Set([...kit.sheet.stages.slice(at + 1).flatMap((s) => s.fits), ...(stage.without ?? [])]);
  const early = socketedChips(kit.sheet.lines).filter((r) => later.has(r) && kit.board.fitted.has(r) && !unplugged(kit).has(r));
  if (early.length === 0) return [];
  const [verb, it] = early.length === 1 ? ['sits in its socket', 'it'] : ['sit in their sockets', 'them'];
  return [
    {
      kind: 'socket',
      refs: early,
      text: `${named(early)} ${verb} already`,
      advice: `This stage comes before ${it}. Pull ${it} out now: a wrong rail would destroy ${it}.`,
      // Taken out by plan, not for a test: what was read before stays read.
      done: { label: `${named(early)} ${early.length === 1 ? 'is' : 'are'} out`, entries: [{ kind: 'removed', refs: early }] },
    },
  ];
}

const unplugged = (kit: KitState): ReadonlySet<Ref> =>
  new Set(kit.board.modifications.flatMap(({ change }) => (change.what === 'unplugged' ? change.refs : [])));

/** What is there for a test only. */
const temporary = (kit: KitState): OpenPoint[] =>
  kit.board.modifications.flatMap(({ change, temporary: forTest, entry }): OpenPoint[] =>
    forTest
      ? [
          {
            kind: 'temporary',
            refs: change.what === 'unplugged' ? change.refs : 'ref' in change ? [change.ref] : [],
            text: `for a test only: ${modificationText(kit, change)}`,
            advice: 'Take it back, or leave it if this stage is the test.',
            done: { label: 'Put back', entries: [{ kind: 'restored', modification: entry }] },
          },
        ]
      : [],
  );

/** Whether anybody has looked at the board: in the second look, or in a stage of the ladder that is one. */
function secondLook(kit: KitState): OpenPoint[] {
  const looked = kit.sheet.stages.some((s) => s.kind === 'look' && s.checks.length > 0 && s.checks.every((c) => checkTaken(kit, s, c.id).length > 0));
  if (looked || kit.inspected.size > 0 || kit.board.fitted.size === 0) return [];
  return [
    {
      kind: 'look',
      refs: [],
      text: 'no second look yet',
      advice: 'Five minutes with a lens find turned parts, bridges and open joints; with power on they destroy parts.',
      done: null,
    },
  ];
}

/** Controls without a setting of this stage: outputs and volumes start at their least. */
function controls(kit: KitState, stage: Stage): OpenPoint[] {
  const set = new Set((stage.settings ?? []).map((s) => s.ref));
  const free = kit.sheet.lines
    .filter((l) => l.kind === 'potentiometer')
    .flatMap((l) => l.refs)
    .filter((r) => kit.board.fitted.has(r) && !set.has(r) && !kit.board.set.has(r));
  if (free.length === 0 || stage.kind !== 'power') return [];
  return [
    {
      kind: 'control',
      refs: free,
      text: `turn ${named(free)} to the safe end`,
      advice: 'Volume, output volts and current to their least before the first power.',
      done: null,
    },
  ];
}
