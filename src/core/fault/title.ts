import { printNominal } from '../quantity';
import { pinWord as pin } from '../vocabulary';
import type { Fault } from './fault';

/** What a wrong value is measured in: ohms, volts of a zener, farads. */
export type FaultUnit = 'ohm' | 'V' | 'F';

/** What is wrong, in a few words. */
export function faultTitle(fault: Fault, unit: FaultUnit = 'ohm'): string {
  switch (fault.kind) {
    case 'healthy':
      return 'Nothing wrong';
    case 'open':
      return `${fault.parts[0]} is not connected`;
    case 'short':
      return `${fault.parts[0]} is shorted`;
    case 'open-pin':
      return `${fault.parts[0]}: ${pin(fault.detail.pin)} not connected`;
    case 'short-pins':
      return `${fault.parts[0]}: ${pin(fault.detail.pins[0])} and ${pin(fault.detail.pins[1])} shorted`;
    case 'wrong-value':
      return `${fault.parts[0]} has ${printNominal(fault.detail.value, unit)}`;
    case 'swapped':
      return `${fault.parts[0]} and ${fault.parts[1]} exchanged`;
    case 'reversed':
      return `${fault.parts[0]} is the wrong way round`;
    case 'turned':
      return `${fault.parts[0]} is turned`;
    case 'bridge':
      return `Solder bridge from ${netName(fault.detail.nets[0])} to ${netName(fault.detail.nets[1])}`;
    case 'track':
      return `Track of ${netName(fault.detail.net)} broken before ${few(fault.detail.beyond)}`;
    case 'weak':
      return `${fault.parts[0]} is weak`;
    case 'leaky':
      return `${fault.parts[0]} is leaky`;
    case 'no-supply':
      return `${fault.parts[0]} does not reach the board`;
    case 'reversed-supply':
      return `${fault.parts[0]} is connected the wrong way round`;
    case 'low-supply':
      return `${fault.parts[0]} sags`;
    case 'strap':
      return `The jumper of “${fault.detail.option}” stands at “${fault.detail.choice}”`;
    case 'blank':
      return `${fault.parts[0]} is not programmed`;
    case 'stuck':
      return `${fault.parts[0]}${fault.detail.pin === undefined ? '' : `: ${pin(fault.detail.pin)}`} is stuck ${fault.detail.level}`;
    case 'wrong-type':
      return fault.parts.length === 2 ? `${fault.parts[0]} and ${fault.parts[1]} exchanged` : `${fault.parts[0]} is of the other polarity`;
  }
}

/** A few of them, and how many more. */
const few = (refs: readonly string[]): string =>
  `${refs.slice(0, MOST_NAMED).join(', ')}${refs.length > MOST_NAMED ? ` and ${refs.length - MOST_NAMED} more` : ''}`;
const MOST_NAMED = 3;

const netName = (net: string) => (net === '0' ? 'ground' : net);
