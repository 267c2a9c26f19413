import { type Fault, HEALTHY } from './fault';
import { type FaultNaming, faultTitle } from './title';

/** A fault in plain words: what is wrong, how it comes about, and what to do. */
export interface FaultWords {
  readonly title: string;
  readonly cause: string;
  readonly remedy: string;
}

/** Several faults at once in plain words; none is a healthy board. */
export function describeFaults(faults: readonly Fault[], namingOf: (fault: Fault) => FaultNaming): FaultWords {
  const words = faults.map((f) => describeFault(f, namingOf(f)));
  const [first = describeFault(HEALTHY)] = words;
  if (words.length < 2) return first;
  return {
    title: words.map((w) => w.title).join(', and '),
    cause: 'two faults at once: neither alone explains the readings',
    remedy: `${first.remedy} Then measure again before you look for the second.`,
  };
}

/** One fault in plain words. */
export const describeFault = (fault: Fault, naming?: FaultNaming): FaultWords => ({ title: faultTitle(fault, naming), ...adviceOn(fault) });

function adviceOn(fault: Fault): Omit<FaultWords, 'title'> {
  switch (fault.kind) {
    case 'healthy':
      return { cause: 'every reading fits a healthy board', remedy: 'Go on with the next stage.' };
    case 'open':
      return {
        cause: 'missed or dry joint, or never fitted',
        remedy: `Look at both joints of ${fault.parts[0]} with a lens and solder them again.`,
      };
    case 'short':
      return {
        cause: 'solder across it, or the part is destroyed',
        remedy: `Look for solder between the pads of ${fault.parts[0]}; lift one leg and measure it.`,
      };
    case 'open-pin':
      return {
        cause: 'missed joint, or a bent leg',
        remedy: `Look at that joint of ${fault.parts[0]} and solder it again.`,
      };
    case 'short-pins':
      return {
        cause: 'a solder bridge, or the junction is destroyed',
        remedy: `Clear the solder between the two legs of ${fault.parts[0]}; if they still beep, replace it.`,
      };
    case 'wrong-value':
      return {
        cause: 'a wrong value was fitted or supplied',
        remedy: `Read the marking of ${fault.parts[0]}, lift one leg and measure it.`,
      };
    case 'swapped':
      return {
        cause: 'each is in the other’s place',
        remedy: 'Compare both markings with the list and swap the two parts.',
      };
    case 'reversed':
      return {
        cause: 'fitted against its mark',
        remedy: `Compare the mark of ${fault.parts[0]} with the board and turn the part round. Replace it if it is an electrolytic.`,
      };
    case 'turned':
      return {
        cause: 'fitted back to front, or another pin order',
        remedy: `Compare the flat side of ${fault.parts[0]} with the board and its pins with the data sheet.`,
      };
    case 'wrong-type':
      return fault.parts.length === 2
        ? {
            cause: 'NPN and PNP look alike',
            remedy: 'Read both type numbers with a lens and swap the two parts.',
          }
        : {
            cause: 'NPN and PNP look alike',
            remedy: `Read the type number of ${fault.parts[0]} with a lens.`,
          };
    case 'bridge':
      return {
        cause: 'two neighbouring pads touch',
        remedy: 'Look between the pads of both places with a lens. Remove the solder with braid.',
      };
    case 'track':
      return {
        cause: 'a crack, a scratch, or a pad lifted with the iron',
        remedy: `Supply off. Measure ohms from ${fault.detail.beyond[0]} along its track. Look with a lens while you bend the board gently; bridge the gap with a wire.`,
      };
    case 'weak':
      return {
        cause: 'damaged, counterfeit or out of its limits',
        remedy: `Replace ${fault.parts[0]} with a known-good one.`,
      };
    case 'leaky':
      return {
        cause: 'old, overheated, or powered backwards once',
        remedy: `Supply off. Lift one leg of ${fault.parts[0]} and measure its ohms. Replace it unless they rise to megohms.`,
      };
    case 'no-supply':
      return {
        cause: 'not switched on, a lead not plugged in, a fuse blown',
        remedy: `Measure at the terminals of ${fault.parts[0]}, then at the pads where it enters the board.`,
      };
    case 'reversed-supply':
      return {
        cause: 'a plug of the opposite polarity, swapped leads, a battery put in backwards',
        remedy: `Supply off. Measure the volts at the plug of ${fault.parts[0]} with their sign. Then look for damaged parts: chips and electrolytics first.`,
      };
    case 'low-supply':
      return {
        cause: 'a weak battery or source, its current limit reached, thin leads',
        remedy: `Measure at the terminals of ${fault.parts[0]} with the board connected. Check whether its current limit is reached.`,
      };
    case 'strap':
      return {
        cause: 'a jumper, strap or solder bridge is not where it was chosen to be',
        remedy: `Set the jumper or strap of “${fault.detail.option}” as chosen, or record how the board is really set.`,
      };
    case 'blank':
      return {
        cause: 'supplied without its program, or with an old one',
        remedy: `Check supply, clock and reset of ${fault.parts[0]} first. Then ask the maker whether it comes programmed, or program it.`,
      };
    case 'stuck':
      return {
        cause: 'the chip is destroyed',
        remedy: `Supply off, then replace ${fault.parts[0]}.`,
      };
  }
}
