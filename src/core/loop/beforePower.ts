import { absentRefs, checkTaken, deriveExchanged, type EntryBody, isPowered, type KitState, type Ref, socketedChips, type Stage } from '../kit';
import { badPieces } from './fitting';
import { modificationText } from './logText';

/** One thing that is not as it should be before a stage is powered. */
export interface OpenPoint {
  readonly kind: 'bad-piece' | 'other-place' | 'empty' | 'left-out' | 'temporary' | 'socket' | 'look' | 'control';
  readonly refs: readonly Ref[];
  /** What is the matter, in few words: it stands in the probe bar and in the logbook too. */
  readonly text: string;
  /** What it may do, and what to do about it. */
  readonly advice: string;
  /** What is written when it was seen to; null where it is done elsewhere. */
  readonly done: { readonly label: string; readonly entries: readonly EntryBody[] } | null;
}

/** Parts named one by one; of more the number. */
const MOST_NAMED = 6;
const named = (refs: readonly Ref[]) =>
  refs.length <= MOST_NAMED ? refs.join(', ') : `${refs.slice(0, MOST_NAMED).join(', ')} and ${refs.length - MOST_NAMED} more`;

/** Everything that is open before a powered stage, what can do most harm first; nothing for a stage without power. */
export function openBeforePower(kit: KitState, stage: Stage): OpenPoint[] {
  if (!isPowered(stage)) return [];
  const fitting = kit.board.fitted.size > 0 || kit.board.removed.size > 0;
  return [
    ...badOnes(kit),
    ...otherPlaces(kit),
    ...sockets(kit, stage),
    // Who never ticks in Fit is not told that everything is missing.
    ...(fitting ? emptyPlaces(kit, stage) : []),
    ...temporary(kit, stage),
    ...secondLook(kit),
    ...controls(kit, stage),
  ];
}

function badOnes(kit: KitState): OpenPoint[] {
  const since = (ref: Ref) => !kit.board.renewed.has(ref) && !kit.board.values.has(ref);
  return badPieces(
    kit,
    [...kit.board.fitted].filter((r) => since(r)),
  ).map((p) => ({
    kind: 'bad-piece',
    refs: [p.ref],
    text: `${p.ref} is fitted and ${p.verdict === 'out' ? 'was out' : 'was doubtful'}`,
    advice: `${p.text} Exchange it, or measure a right one and fit that.`,
    done: null,
  }));
}

const otherPlaces = (kit: KitState): OpenPoint[] =>
  deriveExchanged(kit).flatMap(([a, b]): OpenPoint[] =>
    kit.board.fitted.has(a.ref) && kit.board.fitted.has(b.ref)
      ? [
          {
            kind: 'other-place',
            refs: [a.ref, b.ref],
            text: `${a.ref} and ${b.ref} measured as each other’s value`,
            advice: 'They may be swapped. Read their bands on the board; put them right before power.',
            done: null,
          },
        ]
      : [],
  );

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
  return [
    ...(empty.length > 0
      ? [
          {
            kind: 'empty' as const,
            refs: empty,
            text: `${empty.length === 1 ? 'one place is' : `${empty.length} places are`} not ticked off: ${named(empty)}`,
            advice: 'Fit them, or mark them as left out: readings would be judged as if they were in.',
            done: null,
          },
        ]
      : []),
    ...(left.length > 0
      ? [
          {
            kind: 'left-out' as const,
            refs: left,
            text: `left out: ${named(left)}`,
            advice: 'The limits of this stage are worked out without them. Fit them first if they should be in.',
            done: null,
          },
        ]
      : []),
  ];
}

/** Chips that sit in their sockets although this stage wants them out, or although their stage comes later. */
function sockets(kit: KitState, stage: Stage): OpenPoint[] {
  const inSocket = new Set(socketedChips(kit.sheet.lines));
  const unplugged = new Set(kit.board.modifications.flatMap(({ change }) => (change.what === 'unplugged' ? change.refs : [])));
  const at = kit.sheet.stages.findIndex((s) => s.id === stage.id);
  const later = new Set(kit.sheet.stages.slice(at + 1).flatMap((s) => s.fits));
  const early = [...inSocket].filter((r) => kit.board.fitted.has(r) && !unplugged.has(r) && (later.has(r) || (stage.without ?? []).includes(r)));
  if (early.length === 0) return [];
  const [verb, it] = early.length === 1 ? ['sits in its socket', 'it'] : ['sit in their sockets', 'them'];
  return [
    {
      kind: 'socket',
      refs: early,
      text: `${named(early)} ${verb} already`,
      advice: `This stage comes before ${it}. Pull ${it} out now: a wrong rail would destroy ${it}.`,
      done: {
        label: `${named(early)} ${early.length === 1 ? 'is' : 'are'} out`,
        entries: [{ kind: 'modified', change: { what: 'unplugged', refs: early }, temporary: true, why: `out for ${stage.title}` }],
      },
    },
  ];
}

/** What is there for a test only. A chip that is out until its own stage is meant to be out. */
function temporary(kit: KitState, stage: Stage): OpenPoint[] {
  const at = kit.sheet.stages.findIndex((s) => s.id === stage.id);
  const waits = (r: Ref) => kit.sheet.stages.findIndex((s) => s.fits.includes(r)) > at || (stage.without ?? []).includes(r);
  return kit.board.modifications.flatMap(({ change, temporary: forTest, entry }): OpenPoint[] => {
    if (!forTest || (change.what === 'unplugged' && change.refs.every(waits))) return [];
    const out = change.what === 'unplugged' ? change.refs : [];
    return [
      {
        kind: 'temporary',
        refs: 'ref' in change ? [change.ref] : out,
        text: `for a test only: ${modificationText(kit, change)}`,
        advice: 'Take it back, or leave it if this stage is the test.',
        done: {
          label: out.length > 0 ? `${named(out)} ${out.length === 1 ? 'is' : 'are'} in again` : 'Taken back',
          entries: [{ kind: 'restored', modification: entry }],
        },
      },
    ];
  });
}

/** Whether anybody has looked at the board: in the second look, or in a stage of the ladder that is one. */
function secondLook(kit: KitState): OpenPoint[] {
  const looked = kit.sheet.stages.some((s) => s.kind === 'look' && s.checks.length > 0 && s.checks.every((c) => checkTaken(kit, s, c.id).length > 0));
  if (looked || kit.inspected.size > 0 || kit.board.fitted.size === 0) return [];
  return [
    {
      kind: 'look',
      refs: [],
      text: 'no second look yet',
      advice: 'Turned parts, bridges and open joints are seen with a lens in five minutes; with power on they cost parts.',
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
      text: `${named(free)} turned to the safe end`,
      advice: 'Volume, output volts and current to their least before the first power.',
      done: null,
    },
  ];
}
