import { printNominal } from '../quantity';
import { pinWord as pin } from '../vocabulary';
import { type Fault } from './fault';

/** A fault in plain words: what is wrong, how it comes about, and what to do. */
export interface FaultWords {
  readonly title: string;
  readonly cause: string;
  readonly remedy: string;
}

/** `unit` tells what a wrong value is measured in: ohms, or volts for a zener. */
export function describeFault(fault: Fault, unit: 'ohm' | 'V' = 'ohm'): FaultWords {
  switch (fault.kind) {
    case 'healthy':
      return { title: 'Nothing wrong', cause: 'every reading fits a healthy board', remedy: 'Go on with the next stage.' };
    case 'open':
      return {
        title: `${fault.parts[0]} is not connected`,
        cause: 'missed or dry joint, or never fitted',
        remedy: `Look at both joints of ${fault.parts[0]} with a lens and solder them again.`,
      };
    case 'short':
      return {
        title: `${fault.parts[0]} is shorted`,
        cause: 'solder across it, or the part is destroyed',
        remedy: `Look for solder between the pads of ${fault.parts[0]}; lift one leg and measure it.`,
      };
    case 'open-pin':
      return {
        title: `${fault.parts[0]}: ${pin(fault.detail.pin)} not connected`,
        cause: 'missed joint, or a bent leg',
        remedy: `Look at that joint of ${fault.parts[0]} and solder it again.`,
      };
    case 'short-pins':
      return {
        title: `${fault.parts[0]}: ${pin(fault.detail.pins[0])} and ${pin(fault.detail.pins[1])} shorted`,
        cause: 'a solder bridge, or the junction is destroyed',
        remedy: `Clear the solder between the two legs of ${fault.parts[0]}; if they still beep, replace it.`,
      };
    case 'wrong-value':
      return {
        title: `${fault.parts[0]} has ${printNominal(fault.detail.value, unit)}`,
        cause: 'a wrong value was fitted or supplied',
        remedy: `Read the marking of ${fault.parts[0]}, lift one leg and measure it.`,
      };
    case 'swapped':
      return {
        title: `${fault.parts[0]} and ${fault.parts[1]} exchanged`,
        cause: 'each sits in the other’s place',
        remedy: 'Compare both markings with the list and exchange them.',
      };
    case 'reversed':
      return {
        title: `${fault.parts[0]} is the wrong way round`,
        cause: 'fitted against its mark',
        remedy: `Compare the mark of ${fault.parts[0]} with the board, turn it round. Fit a new one if it was an electrolytic.`,
      };
    case 'turned':
      return {
        title: `${fault.parts[0]} is turned`,
        cause: 'fitted back to front, or another pin order',
        remedy: `Compare the flat side of ${fault.parts[0]} with the board and its pins with the data sheet.`,
      };
    case 'wrong-type':
      return fault.parts.length === 2
        ? {
            title: `${fault.parts[0]} and ${fault.parts[1]} exchanged`,
            cause: 'NPN and PNP look alike',
            remedy: 'Read both type numbers with a lens and exchange them.',
          }
        : {
            title: `${fault.parts[0]} is of the other polarity`,
            cause: 'NPN and PNP look alike',
            remedy: `Read the type number of ${fault.parts[0]} with a lens.`,
          };
    case 'bridge':
      return {
        title: `Solder bridge from ${netName(fault.detail.nets[0])} to ${netName(fault.detail.nets[1])}`,
        cause: 'two neighbouring pads touch',
        remedy: 'Look between the pads of the two nets with a lens; clear it with braid.',
      };
    case 'weak':
      return {
        title: `${fault.parts[0]} is weak`,
        cause: 'damaged, counterfeit or out of its limits',
        remedy: `Exchange ${fault.parts[0]} for one that is known to be good.`,
      };
    case 'stuck':
      return {
        title: `${fault.parts[0]} is stuck ${fault.detail.level}`,
        cause: 'the chip is destroyed',
        remedy: `Supply off, then exchange ${fault.parts[0]}.`,
      };
  }
}

const netName = (net: string) => (net === '0' ? 'ground' : net);
