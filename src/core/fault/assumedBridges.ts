import { type Circuit, GROUND, netsOf } from '../circuit';

/** A bridge that nobody's list of neighbours names, and how likely it is beside an ordinary fault. */
export interface AssumedBridge {
  readonly nets: readonly [string, string];
  readonly weight: number;
}

/** Across the pads of one part, and between any other two nets, beside an ordinary fault (own choice, after the bench's figures). */
const ACROSS_A_PART = 0.3;
const ANYWHERE = 0.1;

/** Where nobody knows which nets lie side by side any two may be bridged: first those that share a part. Two feeds of supplies are not. */
export function assumedBridges(circuit: Circuit): AssumedBridge[] {
  const nets = netsOf(circuit).filter((n) => !n.includes('.'));
  const shared = new Set(circuit.parts.flatMap((p) => (p.name.includes('.') ? [] : p.nodes.flatMap((a) => p.nodes.map((b) => `${a} ${b}`)))));
  const feeds = new Set(circuit.parts.flatMap((p) => (p.kind === 'V' ? p.nodes.filter((n) => n !== GROUND) : [])));
  return nets.flatMap((a, i) =>
    nets.slice(i + 1).flatMap((b): AssumedBridge[] => {
      if (feeds.has(a) && feeds.has(b)) return [];
      return [{ nets: [a, b], weight: shared.has(`${a} ${b}`) ? ACROSS_A_PART : ANYWHERE }];
    }),
  );
}
