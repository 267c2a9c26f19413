import { printNominal } from '../quantity';
import { pinWord as pin } from '../vocabulary';
import type { Fault } from './fault';

/** What a wrong value is measured in: ohms, volts of a zener, farads. */
export type FaultUnit = 'ohm' | 'V' | 'F';

/** How the things of a fault are named on the board at hand. */
export interface FaultNaming {
  readonly unit: FaultUnit;
  /** A net as the builder sees it. */
  readonly net: (net: string) => string;
  /** The part whose two legs lie on these nets, if there is one. */
  readonly across: (a: string, b: string) => string | null;
}

/** Names of the deck, for a board of which nothing else is known. */
export const PLAIN_NAMING: FaultNaming = { unit: 'ohm', net: (net) => (net === '0' ? 'ground' : net), across: () => null };

/** What is wrong, in a few words. */
export function faultTitle(fault: Fault, { unit, net, across }: FaultNaming = PLAIN_NAMING): string {
  switch (fault.kind) {
    case 'healthy':
      return 'Nothing wrong';
    case 'open':
      return `${fault.parts[0]} has an open joint`;
    case 'short':
      return `${fault.parts[0]} is shorted`;
    case 'open-pin':
      return `${fault.parts[0]}: ${pin(fault.detail.pin)} has an open joint`;
    case 'short-pins':
      return `${fault.parts[0]}: ${pin(fault.detail.pins[0])} and ${pin(fault.detail.pins[1])} shorted`;
    case 'wrong-value':
      return `${fault.parts[0]} has ${printNominal(fault.detail.value, unit)}`;
    case 'swapped':
      return `${fault.parts[0]} and ${fault.parts[1]} are swapped`;
    case 'reversed':
      return `${fault.parts[0]} is backwards`;
    case 'turned':
      return `${fault.parts[0]} is back to front`;
    case 'bridge':
      return bridge(...fault.detail.nets, net, across);
    case 'track':
      return `Broken track at ${net(fault.detail.net)}, before ${few(fault.detail.beyond)}`;
    case 'weak':
      return `${fault.parts[0]} is weak`;
    case 'leaky':
      return `${fault.parts[0]} is leaky`;
    case 'no-supply':
      return `${fault.parts[0]} is not reaching the board`;
    case 'reversed-supply':
      return `${fault.parts[0]} is connected backwards`;
    case 'low-supply':
      return `${fault.parts[0]} sags`;
    case 'strap':
      return `The jumper of “${fault.detail.option}” is set to “${fault.detail.choice}”`;
    case 'blank':
      return `${fault.parts[0]} is not programmed`;
    case 'stuck':
      return `${fault.parts[0]}${fault.detail.pin === undefined ? '' : `: ${pin(fault.detail.pin)}`} is stuck ${fault.detail.level}`;
    case 'wrong-type':
      return fault.parts.length === 2 ? `${fault.parts[0]} and ${fault.parts[1]} are swapped` : `${fault.parts[0]} is the opposite type (NPN or PNP)`;
  }
}

/** A few of them, and how many more. */
const few = (refs: readonly string[]): string =>
  `${refs.slice(0, MOST_NAMED).join(', ')}${refs.length > MOST_NAMED ? ` and ${refs.length - MOST_NAMED} more` : ''}`;
const MOST_NAMED = 3;

function bridge(a: string, b: string, net: FaultNaming['net'], across: FaultNaming['across']): string {
  const part = across(a, b);
  return `Solder bridge between ${net(a)} and ${net(b)}${part === null ? '' : `, perhaps across ${part}`}`;
}
