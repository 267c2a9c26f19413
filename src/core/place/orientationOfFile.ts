import { type EntryBody, type KitState, type LineKind, putAll, type RecordOf, type Ref } from '../kit';
import { turned } from './placed';

type Place = RecordOf<'placement'>;

/** Kinds whose turn in a file follows one convention, and how they are called. */
const FAMILIES: readonly { readonly name: string; readonly kinds: readonly LineKind[] }[] = [
  { name: 'diodes', kinds: ['diode', 'zener'] },
  { name: 'LEDs', kinds: ['led'] },
  { name: 'polarised capacitors', kinds: ['electrolytic'] },
  { name: 'tantalums', kinds: ['tantalum'] },
  { name: 'transistors', kinds: ['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf'] },
  { name: 'chips', kinds: ['opamp', 'timer', 'ic', 'microcontroller', 'optocoupler'] },
];

/** One part of a file shown as the map would draw it: is it like this on the board? The answer holds for all of its family. */
export interface OrientationQuestion {
  readonly family: string;
  readonly example: Place;
  readonly refs: readonly Ref[];
}

/**
 * What a file's rotations leave open. Libraries differ in where zero degrees and pin 1 are (cathode or anode, plus or minus;
 * common practice, no source); parts whose pads came along tell by themselves.
 */
export function orientationQuestions(kit: KitState, placed: readonly Place[], withPads: ReadonlySet<Ref>): OrientationQuestion[] {
  const kind = new Map(kit.sheet.lines.flatMap((l) => l.refs.map((r) => [r, l.kind] as const)));
  return FAMILIES.flatMap(({ name, kinds }): OrientationQuestion[] => {
    const own = placed.filter((p) => !withPads.has(p.ref) && kinds.includes(kind.get(p.ref) ?? 'other'));
    const [example] = own;
    return example ? [{ family: name, example, refs: own.map((p) => p.ref) }] : [];
  });
}

/** The entries that turn a family as it was answered, degrees clockwise on the map. */
export function familyTurned(kit: KitState, refs: readonly Ref[], by: number): EntryBody[] {
  const own = new Set(refs);
  return putAll(
    kit,
    'placement',
    kit.sheet.placement.filter((p) => own.has(p.ref)).map((p) => ({ ...p, rotation: turned(p.rotation + by) })),
  );
}
