import type { Line, RecordOf, Ref } from '../kit';
import { packageOf } from '../vocabulary';

type Placement = RecordOf<'placement'>;

/** Where a part sits as one would tell somebody: beside which larger part, at which edge, on which side of the board. */
export interface Whereabouts {
  readonly ref: Ref;
  readonly beside: { readonly ref: Ref; readonly side: 'left of' | 'right of' | 'above' | 'below' } | null;
  readonly edge: 'left' | 'right' | 'upper' | 'lower' | null;
  readonly copperSide: boolean;
}

/** Within this share of the board's width or height a part is at that edge (own choice). */
const EDGE = 0.15;
/** What one finds at a glance: bodies of this area and more, square millimetres (own choice). */
const LANDMARK = 45;

/** Null for a part without a place. A board whose parts all sit in one line has no edges. */
export function whereabouts({ lines, placement }: { readonly lines: readonly Line[]; readonly placement: readonly Placement[] }, ref: Ref): Whereabouts | null {
  const here = placement.find((p) => p.ref === ref);
  if (!here) return null;
  const boardOf = (r: Ref) => (r.includes(':') ? r.slice(0, r.indexOf(':')) : '');
  const same = placement.filter((p) => boardOf(p.ref) === boardOf(ref));
  const [xs, ys] = [same.map((p) => p.x), same.map((p) => p.y)];
  const area = (r: Ref) => {
    const line = lines.find((l) => l.refs.includes(r));
    if (!line) return 0;
    const { width, height } = packageOf(line);
    return width * height;
  };
  const near = same
    .filter((p) => p.ref !== ref && area(p.ref) >= LANDMARK)
    .map((p) => ({ ...p, apart: Math.hypot(p.x - here.x, p.y - here.y) }))
    // Two at one spot (one over the other, or on both sides) are beside each other in no direction.
    .filter((p) => p.apart > 0)
    .sort((a, b) => a.apart - b.apart)[0];
  return { ref, beside: near ? { ref: near.ref, side: sideOf(here, near) } : null, edge: edgeOf(here, xs, ys), copperSide: here.side === 'bottom' };
}

/** Places are seen from the component side, y downwards. */
function sideOf(here: Placement, of: Placement): NonNullable<Whereabouts['beside']>['side'] {
  const [dx, dy] = [here.x - of.x, here.y - of.y];
  if (Math.abs(dx) >= Math.abs(dy)) return dx < 0 ? 'left of' : 'right of';
  return dy < 0 ? 'above' : 'below';
}

function edgeOf({ x, y }: Placement, xs: readonly number[], ys: readonly number[]): Whereabouts['edge'] {
  const share = (v: number, all: readonly number[]) => (v - Math.min(...all)) / (Math.max(...all) - Math.min(...all));
  const [across, down] = [share(x, xs), share(y, ys)];
  const edges = [
    { edge: 'left', from: across },
    { edge: 'right', from: 1 - across },
    { edge: 'upper', from: down },
    { edge: 'lower', from: 1 - down },
  ] as const;
  const nearest = edges.filter((e) => e.from <= EDGE).sort((a, b) => a.from - b.from)[0];
  return nearest?.edge ?? null;
}
