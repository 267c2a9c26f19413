import type { Check, KitState, MeasureCheck, Stage } from '../kit';
import { dangerNear } from './nearby';
import type { KnownWindows } from './progress';

interface Place {
  readonly x: number;
  readonly y: number;
}

/**
 * The checks of a stage in the order of least moving and least risk: readings that follow one another on the same setting of
 * meter and board, each at a point whose place is known, go from the first of them to the nearest next one; points beside
 * which a slip would hurt come last. Everything else stays where its author put it.
 */
export function walkOrder<C extends { readonly check: Check }>(kit: KitState, stage: Stage, checks: readonly C[], windows: KnownWindows): C[] {
  const places = new Map(kit.sheet.testPoints.flatMap((t) => (t.x === undefined || t.y === undefined ? [] : [[t.id, { x: t.x, y: t.y }] as const])));
  const placeOf = (c: C): Place | null => (isPlain(c.check) && 'testPoint' in c.check.red ? (places.get(c.check.red.testPoint) ?? null) : null);
  const out: C[] = [];
  let run: { readonly c: C; readonly at: Place }[] = [];
  const close = () => {
    out.push(...walked(run, (c) => dangerNear(kit, stage, c.check as MeasureCheck, windows) !== null));
    run = [];
  };
  for (const c of checks) {
    const at = placeOf(c);
    if (at === null || (run.length > 0 && !alike(run[0]!.c.check, c.check))) close();
    if (at === null) out.push(c);
    else run.push({ c, at });
  }
  close();
  return out;
}

const isPlain = (c: Check): c is MeasureCheck => c.what === 'measure' && c.adjust === undefined;

const alike = (a: Check, b: Check): boolean =>
  a.what === 'measure' &&
  b.what === 'measure' &&
  a.mode === b.mode &&
  JSON.stringify([a.black, a.settings ?? []]) === JSON.stringify([b.black, b.settings ?? []]);

function walked<C>(run: readonly { readonly c: C; readonly at: Place }[], risky: (c: C) => boolean): C[] {
  const [first, ...rest] = run;
  if (!first) return [];
  const order = [first];
  let left = rest;
  while (left.length > 0) {
    const here = order.at(-1)!.at;
    const safe = left.filter((r) => !risky(r.c));
    const next = (safe.length > 0 ? safe : left).reduce((best, r) => (far(r.at, here) < far(best.at, here) ? r : best));
    order.push(next);
    left = left.filter((r) => r !== next);
  }
  return order.map((r) => r.c);
}

const far = (a: Place, b: Place) => Math.hypot(a.x - b.x, a.y - b.y);
