import { deriveTray, type EntryBody, expectationOf, type KitState, type Ref } from '../kit';
import { print } from '../quantity';
import { lineTitle } from './lineWords';

/** A piece that is meant for a place, and that Check did not call good. */
export interface BadPiece {
  readonly ref: Ref;
  readonly verdict: 'out' | 'doubtful';
  /** Key of its consequence, as the supposed changes are named. */
  readonly key: string;
  readonly text: string;
}

/** Pieces for these places that were found out or doubtful: they are asked about before they go in. */
export function badPieces(kit: KitState, refs: readonly Ref[]): BadPiece[] {
  return deriveTray(kit).flatMap(({ line, pieces }) =>
    pieces.flatMap((p): BadPiece[] => {
      if (p.ref === null || !refs.includes(p.ref) || (p.verdict !== 'out' && p.verdict !== 'doubtful')) return [];
      const unit = expectationOf(line)?.unit ?? null;
      const reads = p.reckoning
        ? `reads ${print(p.reckoning.corrected, unit)}`
        : p.entry?.reading === 'over'
          ? 'reads over-range'
          : 'has a figure that is not good';
      return [
        {
          ref: p.ref,
          verdict: p.verdict,
          key: `piece:${line.id}:${p.index}`,
          text: `The piece for ${p.ref} ${reads}, listed as ${lineTitle(line)}: ${p.verdict === 'out' ? 'out' : 'doubtful'}.`,
        },
      ];
    }),
  );
}

/** What is written when a place stays empty on purpose. */
export const leftOut = (refs: readonly Ref[]): EntryBody => ({ kind: 'removed', refs: [...refs] });

/** What is written when another value goes in than the list wants; SI. */
export const otherValue = (ref: Ref, value: number): EntryBody[] => [
  { kind: 'fitted', refs: [ref] },
  { kind: 'modified', change: { what: 'value-replaced', ref, value }, why: 'another value was at hand' },
];

/** What is written when the piece for one place was soldered into another: that place has its value now, its own stays open. */
export function inOtherPlace(kit: KitState, ref: Ref, place: Ref): EntryBody[] {
  const value = kit.sheet.lines.find((l) => l.refs.includes(ref))?.value ?? null;
  const other = kit.sheet.lines.find((l) => l.refs.includes(place))?.value ?? null;
  const fitted: EntryBody = { kind: 'fitted', refs: [place] };
  if (value === null || value <= 0 || value === other) return [fitted];
  return [fitted, { kind: 'modified', change: { what: 'value-replaced', ref: place, value }, why: `the piece for ${ref} sits here` }];
}
