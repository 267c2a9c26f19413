import { deriveExchanged, deriveTray, foundWay, isSeenTo, type KitState, type Line, type Ref } from '../kit';
import { fittingFacts } from '../plan';
import { print } from '../quantity';
import { CHIP_KINDS, factsOf } from '../vocabulary';
import { lineTitle } from './lineWords';
import type { LookItem } from './look';
import { hasWayRound, orientationCard } from './orientation';
import { fitTargets } from './fitTargets';
import type { TargetState } from './target';

const boardsOf = (kit: KitState): readonly (readonly [id: string, suffix: string])[] =>
  kit.sheet.boards.length > 1 ? kit.sheet.boards.map((b) => [b.id, `, board ${b.id}`] as const) : [['', '']];

/** The bare board, before anything is soldered (common practice, no source). */
export function bareBoardItems(kit: KitState): LookItem[] {
  const chips = kit.sheet.lines.some((l) => CHIP_KINDS.includes(l.kind));
  return boardsOf(kit).flatMap(([board, suffix]) => {
    const item = (name: string, title: string, good: string, remedy: string, weight: number): LookItem => ({
      id: `bare/${board}/${name}`,
      title: title + suffix,
      good,
      remedy,
      refs: [],
      weight,
    });
    return [
      item(
        'revision',
        'Revision of the board',
        'The revision printed on the board is the one that the instructions are for.',
        'Ask the maker what changed. Write it as an amendment in the sheet: list and circuit may differ.',
        5,
      ),
      item(
        'holes',
        'Holes are open',
        'Light comes through every hole that a lead needs; none is filled with mask or solder.',
        'Clear it by hand with a fine drill, or with wick where solder fills it. A blocked hole of an unused pin does no harm.',
        4,
      ),
      item(
        'pitch',
        'Holes fit the parts',
        'Connectors, controls and sockets drop in without force when tried dry.',
        'Never force it: form the leads, or ask for the right part. Tell the seller.',
        3,
      ),
      item(
        'vias',
        'Pads keep clear of open vias',
        'No pad is so near a bare via that solder could run across.',
        'Cover the via with a drop of lacquer, use little solder there, and look at it again in the second look.',
        2,
      ),
      item(
        'residue',
        'Board is clean',
        'No glue, flux or fingerprints on the pads.',
        'Wash with isopropyl alcohol and let it dry. Solder does not flow on dirty copper.',
        2,
      ),
      ...(chips
        ? [
            item(
              'legs',
              'Legs of chips are square',
              'Both rows of legs stand upright and fit the holes.',
              'Press each row on the table until it is square. Fine legs are bent once: they break the second time.',
              1,
            ),
          ]
        : []),
    ];
  });
}

/** Harm of a part that sits the wrong way round. */
function harmOf({ kind }: Line): number {
  if (kind === 'electrolytic' || kind === 'tantalum' || kind === 'bridge' || kind === 'regulator' || CHIP_KINDS.includes(kind)) return 6;
  if (kind === 'led') return 3;
  return 4;
}

const FINE = 2;

/** What is looked at once parts are in: what is likely and does harm first. Bridges inside one net are no bridges. */
export function secondLookItems(kit: KitState): LookItem[] {
  const { fitted } = kit.board;
  const lines = kit.sheet.lines.filter((l) => l.refs.some((r) => fitted.has(r)));
  if (lines.length === 0) return [];
  const fine = lines.some((l) => fittingFacts(l).finePitch);
  const bridges = (kit.sheet.circuit?.neighbours ?? []).map(([a, b]): LookItem => ({
    id: `bridge/${a}~${b}`,
    title: `No bridge between ${netName(a)} and ${netName(b)}`,
    good: 'A clear gap between their pads, against the light. A bridge inside one net does no harm.',
    remedy: 'Draw the solder off with wick, then trace between the two: no beep.',
    refs: [],
    weight: 7 * (fine ? FINE : 1),
  }));
  const ways = lines
    .filter((l) => hasWayRound(l.kind) && factsOf(l.kind).board !== null)
    .flatMap((l) =>
      l.refs
        .filter((r) => fitted.has(r))
        .map((r): LookItem => ({
          id: `way/${r}`,
          title: `${r} is the right way round`,
          good: [foundWay(kit, r), orientationCard(l.kind).rule].filter(Boolean).join(' '),
          remedy: 'Turn it before anything is switched on. Replace an electrolytic or a chip that was powered the wrong way round.',
          refs: [r],
          weight: harmOf(l),
        })),
    );
  const heavy = lines.filter((l) => fittingFacts(l).heavy).flatMap((l) => l.refs.filter((r) => fitted.has(r)));
  return [
    ...bridges,
    ...ways,
    joint(
      'joints',
      'No joint was missed',
      'Every lead has a joint that is filled and runs up it; none is a ball that only touches.',
      'Heat pad and lead together, a little solder, a second longer.',
      4.5,
      [],
    ),
    ...(heavy.length > 0
      ? [
          joint(
            'heavy',
            `Joints of ${heavy.slice(0, 5).join(', ')}`,
            'Thick leads and tabs are wetted all round: they take heat away and look done before they are.',
            'A larger tip, more heat, flux on tarnished metal.',
            3.5,
            heavy,
          ),
        ]
      : []),
    joint('vias', 'Open vias are clean', 'No solder has run into a via beside a pad.', 'Wick it off where it reaches another net.', 1.5, []),
  ].sort((a, b) => b.weight - a.weight);
}

const joint = (id: string, title: string, good: string, remedy: string, weight: number, refs: readonly Ref[]): LookItem => ({
  id: `look/${id}`,
  title,
  good,
  remedy,
  refs,
  weight,
});
const netName = (net: string) => (net === '0' ? 'ground' : net);

/** Something in the records that a second look should settle. */
export interface LookFinding {
  readonly id: string;
  readonly text: string;
  readonly refs: readonly Ref[];
}

/** Open positions up to which each is asked about by itself. */
const FEW = 4;

/** Positions that were not ticked, pieces that are left over, pieces that look exchanged. */
export function lookFindings(kit: KitState): LookFinding[] {
  if (kit.board.fitted.size === 0) return [];
  const open = fitTargets(kit).flatMap(({ target }) =>
    target.kind === 'fit' ? target.refs.filter((r) => !isSeenTo(kit.board, r)).map((r) => ({ ref: r, line: target.line })) : [],
  );
  const tray = deriveTray(kit);
  const empty = open.map(({ ref, line }): LookFinding => {
    const counted = tray.find((c) => c.line.id === line.id)?.counted ?? null;
    const used = line.refs.filter((r) => kit.board.fitted.has(r)).length;
    const left = counted === null ? null : counted - used;
    const bag =
      left === null
        ? ''
        : left > 0
          ? ` ${left} ${lineTitle(line)} ${left === 1 ? 'is' : 'are'} still in the tray.`
          : ' None is left in the tray: was it fitted in another place?';
    return { id: `empty/${ref}`, text: `${ref} (${lineTitle(line)}) is not ticked.${bag}`, refs: [ref] };
  });
  // While much is still to be fitted nothing was forgotten yet.
  const told =
    empty.length <= FEW
      ? empty
      : [{ id: 'open', text: `${empty.length} positions are not ticked yet: ${empty.map((e) => e.refs[0]).join(', ')}.`, refs: empty.flatMap((e) => e.refs) }];
  return [...told, ...exchanged(kit)];
}

/** Two pieces that were measured as each other's values and are both in. */
const exchanged = (kit: KitState): LookFinding[] =>
  deriveExchanged(kit)
    .filter(([a, b]) => kit.board.fitted.has(a.ref) && kit.board.fitted.has(b.ref))
    .map(([a, b]) => {
      const { unit } = factsOf(a.line.kind);
      return {
        id: `exchanged/${a.ref}/${b.ref}`,
        text: `${a.ref} and ${b.ref} look swapped: their pieces read ${print(a.reading, unit, 3)} and ${print(b.reading, unit, 3)}.`,
        refs: [a.ref, b.ref],
      };
    });

/** Looks as targets; what was looked at is done until it is asked for again. */
export const lookTargets = (kit: KitState, items: readonly LookItem[]): TargetState[] =>
  items.map((item) => ({ target: { kind: 'inspect', id: `inspect:${item.id}`, item }, done: kit.inspected.has(item.id) }));
