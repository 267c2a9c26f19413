import { findPart, GROUND, PINS } from '../circuit';
import type { Ref } from '../kit';
import { pinWord } from '../vocabulary';
import { circuitOf, elementsOf, partsInside } from './elements';
import type { Setup } from './setup';

type Sheet = Pick<Setup['sheet'], 'circuit' | 'lines' | 'testPoints'>;

/** Nets as the builder sees them. */
export interface PlaceNames {
  /** A test point, else a leg that has a name (`Q1 base`), else two parts that meet there; the net's own name where nothing else is known. */
  readonly of: (net: string) => string;
  /** A part with two legs, one on each of two nets: a bridge may lie across it. */
  readonly across: (a: string, b: string) => Ref | null;
}

/** Legs that are told apart by what they are, not by a number that no board shows. */
const NAMED_LEGS: readonly string[] = ['Q', 'M', 'J'];

export function placeNames(sheet: Sheet): PlaceNames {
  const circuit = circuitOf(sheet);
  const key = (net: string) => net.toLowerCase();
  const points = new Map([...sheet.testPoints].reverse().map((t) => [key(t.net), t.id]));
  const legs = new Map<string, string>();
  const parts = new Map<string, Ref[]>();
  const between = new Map<string, Ref>();
  for (const ref of sheet.lines.flatMap((l) => l.refs)) {
    const elements = elementsOf(sheet, circuit, ref);
    for (const element of elements) {
      const part = findPart(circuit, element);
      const inner = part ? [part] : partsInside(circuit, element).map((p) => ({ ...p, nodes: p.nodes.filter((_, i) => (p.ports?.[i] ?? -1) >= 0) }));
      for (const p of inner)
        for (const [i, net] of p.nodes.entries()) {
          const here = parts.get(key(net)) ?? [];
          if (!here.includes(ref)) parts.set(key(net), [...here, ref]);
          if (part && NAMED_LEGS.includes(p.kind) && !legs.has(key(net))) legs.set(key(net), `${ref} ${pinWord(PINS[p.kind][i] ?? '')}`);
        }
      if (part?.nodes.length === 2 && elements.length === 1) between.set(part.nodes.map(key).sort().join('\n'), ref);
    }
  }
  const met = (refs: readonly Ref[] | undefined) =>
    refs === undefined ? null : refs.length === 1 ? `a leg of ${refs[0]!}` : `the joint of ${refs[0]!} and ${refs[1]!}`;
  return {
    of: (net) => (net === GROUND ? 'ground' : (points.get(key(net)) ?? legs.get(key(net)) ?? met(parts.get(key(net))) ?? net)),
    across: (a, b) => between.get([key(a), key(b)].sort().join('\n')) ?? null,
  };
}
