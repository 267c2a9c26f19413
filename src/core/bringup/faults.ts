import { GROUND } from '../circuit';
import type { RealBoard, RealPart } from './board';
import { D, R } from './parts';
import type { Change } from './read';

/** A usual fault of a new board, and whether first power can do harm with it. */
export interface UsualFault extends Change {
  readonly id: string;
  readonly text: string;
  readonly harm: boolean;
}

const SHORT = 0.1;
const BRIDGE = 0.1;
/** How often factors of ten are misread: both ways. */
const FACTORS = [10, 0.1];

const on = (ref: string, change: (p: RealPart) => RealPart | null) => (parts: readonly RealPart[]) =>
  parts.flatMap((p) => {
    if (p.ref !== ref) return [p];
    const to = change(p);
    return to ? [to] : [];
  });
const rewired = (p: RealPart, nodes: readonly string[]): RealPart => ({ ...p, nodes });

/** The faults that a ladder is judged by: what people solder wrong (handbook's list; common practice, no source). */
export function usualFaults({ parts, nets, feeds }: RealBoard): UsualFault[] {
  const faults: UsualFault[] = [];
  const fed = new Set(feeds.flatMap((f) => [f.net, f.back]));
  const rails = new Set([...fed, ...parts.filter((p) => p.kind === 'electrolytic').flatMap((p) => p.nodes)]);
  const add = (id: string, text: string, change: Partial<Change>, harm = false) => {
    faults.push({ id, text, harm, parts: change.parts ?? ((p) => p), extra: change.extra ?? [] });
  };
  for (const p of parts) {
    const { ref, kind, nodes } = p;
    if (p.chip) {
      add(`${ref} missing`, `${ref} missing or dead`, { parts: on(ref, () => null) });
      const half = nodes.length > 3 ? nodes.length / 2 : 0;
      add(
        `${ref} turned`,
        half ? `${ref} rotated 180°` : `${ref} back to front`,
        { parts: on(ref, (q) => rewired(q, half ? nodes.map((_, i) => nodes[(i + half) % nodes.length]!) : [...nodes].reverse())) },
        true,
      );
      nodes.forEach((_, i) => {
        add(`${ref} pin ${i + 1}`, `open joint at ${ref} pin ${i + 1}`, {
          parts: on(ref, (q) =>
            rewired(
              q,
              nodes.map((n, k) => (k === i ? `~open${ref}${i}` : n)),
            ),
          ),
        });
      });
      continue;
    }
    if (nodes.length === 2 && kind !== 'connector') {
      const [a, b] = nodes as [string, string];
      const two = kind === 'electrolytic' || kind === 'tantalum';
      const rectifies = kind === 'diode' && [a, b].some((n) => fed.has(n) || rails.has(n));
      add(`${ref} open`, `${ref} open or missing`, { parts: on(ref, () => null) });
      add(`${ref} short`, `${ref} shorted`, { extra: [R(`~short${ref}`, a, b, SHORT)] }, two || rectifies);
      if (two)
        add(
          `${ref} reversed`,
          `${ref} backwards`,
          { parts: on(ref, () => null), extra: [D(`~back${ref}`, a, b, { IS: 1e-9, N: 1.8, RS: 3 }), R(`~leak${ref}`, a, b, 5e4)] },
          true,
        );
      if (kind === 'diode' || kind === 'led' || kind === 'zener')
        add(`${ref} reversed`, `${ref} backwards`, { parts: on(ref, (q) => rewired(q, [b, a])) }, rectifies);
    }
    if (['resistor', 'trimmer', 'potentiometer', 'loudspeaker', 'relay'].includes(kind))
      for (const factor of FACTORS)
        add(`${ref} x${factor}`, `${ref} ${factor > 1 ? 'ten times too large' : 'a tenth of its value'}`, {
          parts: on(ref, (q) => ({ ...q, build: (n, draw, at, cold, by) => q.build(n, draw, at, cold, by * factor) })),
        });
    if (nodes.length === 3) {
      const transistor = ['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf'].includes(kind);
      if (transistor) {
        add(`${ref} missing`, `${ref} missing`, { parts: on(ref, () => null) });
        add(`${ref} turned`, `${ref} back to front`, { parts: on(ref, (q) => rewired(q, [...nodes].reverse())) });
        add(`${ref} short`, `${ref} shorted`, { extra: [R(`~short${ref}`, nodes[0]!, nodes[2]!, SHORT)] });
      } else {
        add(`${ref} wiper`, `wiper of ${ref} open`, { parts: on(ref, (q) => rewired(q, [nodes[0]!, `~open${ref}`, nodes[2]!])) });
        add(`${ref} open`, `${ref} missing`, { parts: on(ref, () => null) });
      }
    }
  }
  for (const [a, b] of beside(parts, nets))
    add(
      `bridge ${a}-${b}`,
      `solder bridge between ${named(a)} and ${named(b)}`,
      { extra: [R('~bridge', a, b, BRIDGE)] },
      [a, b].every((n) => n === GROUND || rails.has(n)),
    );
  return faults;
}

const named = (net: string) => (net === GROUND ? 'ground' : net);

/** Nets that may be bridged: those that a part has beside each other. */
function beside(parts: readonly RealPart[], nets: readonly string[]): [string, string][] {
  const found = new Map<string, [string, string]>();
  const known = new Set([GROUND, ...nets]);
  for (const { nodes } of parts)
    nodes.forEach((a, i) => {
      for (const b of [nodes[i + 1], ...(nodes.length === 3 ? [nodes[0]] : [])])
        if (b !== undefined && a !== b && known.has(a) && known.has(b)) found.set([a, b].sort().join(' '), [a, b]);
    });
  return [...found.values()];
}
