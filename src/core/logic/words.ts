import type { LogicBoard } from './board';
import { CARDS } from './cards';
import type { LogicFault } from './fault';
import { GROUND, PLUS } from './written';

/** A pin as the builder counts it, with its name where the card has one. */
const pinName = (board: LogicBoard, ref: string, pin: string): string => {
  const card = board.chips.find((c) => c.ref === ref)?.card;
  const name = card === undefined ? undefined : CARDS[card]?.pins[Number(pin) - 1];
  return `${ref} pin ${pin}${name ? ` (${name})` : ''}`;
};

/** Where a net is touched: a chip's pin, a part, plus or ground; never a name that is printed nowhere. */
export function placeOfNet(board: LogicBoard, net: string): string {
  if (net === GROUND) return 'ground';
  if (net === PLUS) return 'plus';
  for (const chip of board.chips) for (const [pin, n] of Object.entries(chip.pins)) if (n === net) return pinName(board, chip.ref, pin);
  const part = board.circuit.parts.find((p) => p.nodes.includes(net));
  return part ? `a leg of ${part.name}` : net;
}

/** A fault of a board round chips in plain words. */
export function logicFaultText(board: LogicBoard, { kind, parts, detail }: LogicFault): string {
  const [ref = ''] = parts;
  const d = detail as {
    readonly pin?: string;
    readonly level?: string;
    readonly nets?: readonly [string, string];
    readonly value?: number;
    readonly pins?: readonly string[];
  };
  const isChip = board.chips.some((c) => c.ref === ref);
  switch (kind) {
    case 'healthy':
      return 'Nothing is wrong';
    case 'open':
      return isChip ? `${ref} is missing` : `${ref} is missing or has an open joint`;
    case 'open-pin':
      return `${isChip ? pinName(board, ref, d.pin!) : `${ref}, leg ${d.pin!}`} is open`;
    case 'reversed':
      return `${ref} is backwards`;
    case 'turned':
      return isChip ? `${ref} is rotated 180°` : `${ref} is back to front`;
    case 'bridge':
      return `Solder bridge between ${placeOfNet(board, d.nets![0])} and ${placeOfNet(board, d.nets![1])}`;
    case 'stuck':
      return `${pinName(board, ref, d.pin!)} is stuck ${d.level!}`;
    case 'dead':
      return `${ref} is dead`;
    case 'blank':
      return `${ref} is not programmed`;
    case 'wrong-value':
      return `${ref} has a wrong value (ten times, or a tenth)`;
    case 'no-clock':
      return `The clock of ${ref} does not run`;
    case 'strap':
      return `${ref} is set the other way`;
    case 'swapped':
      return `${ref} and ${parts[1]} are swapped`;
    case 'crossed':
      return `Wires ${d.pins!.join(' and ')} of ${ref} are swapped`;
  }
}
