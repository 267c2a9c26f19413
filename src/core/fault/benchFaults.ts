import { type Circuit, findPart, isRunning } from '../circuit';
import type { Board, BoardPart, BoardStrap } from './board';
import { drivenPorts, isDip, makesSomething, portNets, railsOf } from './chip';
import type { Fault } from './fault';
import { isFitted, listFaults } from './list';
import { commonNet, legPins } from './several';

/** A capacitor of a wrong decade: misread codes are off by ten (common practice, no source). */
const DECADES = [10, 0.1];
const LEAKY = new Set<BoardPart['kind']>(['capacitor', 'electrolytic']);

/**
 * All single faults of a board on a bench, healthy first: those of `listFaults`, and those that a parts list cannot tell of.
 * Supplies that are not connected, sag or are the wrong way round; leaky capacitors, and in circuits that move such of a wrong
 * decade; chips turned in their holes or in each other's sockets, with an output stuck, or without their program; legs of networks and ends of tracks; jumpers in another position, and on boards at rest broken tracks.
 */
export function listBenchFaults(circuit: Circuit, board: Board): Fault[] {
  const fitted = board.parts.filter((p) => isFitted(circuit, p));
  const moves = isRunning(circuit);
  return [
    ...listFaults(circuit, board),
    ...fitted.flatMap((part) => ownFaults(circuit, part, moves)),
    ...exchangedChips(circuit, fitted),
    ...(board.straps ?? []).flatMap(otherStraps),
    // A run in time is dear, and a crack is rare.
    ...(moves ? [] : (board.tracks ?? []).map(({ net, beyond }): Fault => ({ kind: 'track', parts: [], detail: { net, beyond } }))),
  ];
}

/** A jumper or strap in each position that connects something else than the chosen one. */
function otherStraps({ option, choice, links }: BoardStrap): Fault[] {
  const connects = (l: BoardStrap['links'][number] | undefined) => JSON.stringify((l?.nets ?? []).map((n) => [...n].sort()).sort());
  const chosen = connects(links.find((l) => l.choice === choice));
  return links.flatMap((l): Fault[] =>
    l.choice === choice || connects(l) === chosen ? [] : [{ kind: 'strap', parts: [], detail: { option, choice: l.choice } }],
  );
}

function ownFaults(circuit: Circuit, part: BoardPart, moves: boolean): Fault[] {
  const parts = [part.ref] as const;
  const plain = (...kinds: ('no-supply' | 'low-supply' | 'reversed-supply' | 'leaky' | 'turned' | 'blank')[]) =>
    kinds.map((kind): Fault => ({ kind, parts, detail: {} }));
  if (part.kind === 'supply') return plain('no-supply', 'low-supply', ...(isDirect(circuit, part) ? (['reversed-supply'] as const) : []));
  if (LEAKY.has(part.kind))
    return [
      ...plain('leaky'),
      ...(moves && part.value !== null
        ? DECADES.map((by): Fault => ({ kind: 'wrong-value', parts, detail: { value: Number((part.value! * by).toPrecision(12)) } }))
        : []),
    ];
  if (part.kind === 'chip')
    return [
      ...(isDip(circuit, part.element) ? plain('turned') : []),
      ...(part.programmed && makesSomething(circuit, part.element) ? plain('blank') : []),
      ...stuckOutputs(circuit, part),
    ];
  if (part.elements) {
    const legs = legPins(circuit, part).map((pin): Fault => ({ kind: 'open-pin', parts, detail: { pin } }));
    return [...legs, ...(commonNet(circuit, part) === null ? [] : plain('turned'))];
  }
  return [];
}

/** Each output of a chip destroyed: joined to what feeds it, or to ground. */
function stuckOutputs(circuit: Circuit, { element, ref }: BoardPart): Fault[] {
  if (railsOf(circuit, element) === null) return [];
  return drivenPorts(circuit, element).flatMap((port) =>
    (['high', 'low'] as const).map((level): Fault => ({ kind: 'stuck', parts: [ref], detail: { level, pin: String(port + 1) } })),
  );
}

/** A supply of DC volts: only such a one can be the wrong way round. */
function isDirect(circuit: Circuit, part: BoardPart): boolean {
  const source = findPart(circuit, part.element);
  return source?.kind === 'V' && source.dc !== 0 && source.wave === null;
}

/** Chips of different types with as many legs, each in the other's place. */
function exchangedChips(circuit: Circuit, parts: readonly BoardPart[]): Fault[] {
  const chips = parts.filter((p) => p.kind === 'chip' && p.model !== null);
  const legs = (p: BoardPart) => portNets(circuit, p.element).size;
  return chips.flatMap((a, i) =>
    chips
      .slice(i + 1)
      .flatMap((b): Fault[] => (a.model !== b.model && legs(a) === legs(b) && legs(a) > 0 ? [{ kind: 'swapped', parts: [a.ref, b.ref], detail: {} }] : [])),
  );
}
