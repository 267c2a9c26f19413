import { type Fault, HEALTHY } from './fault';
import { faultTitle, type FaultUnit } from './title';

/** A fault in plain words: what is wrong, how it comes about, and what to do. */
export interface FaultWords {
  readonly title: string;
  readonly cause: string;
  readonly remedy: string;
}

/** Several faults at once in plain words; none is a healthy board. */
export function describeFaults(faults: readonly Fault[], unitOf: (fault: Fault) => FaultUnit): FaultWords {
  const words = faults.map((f) => describeFault(f, unitOf(f)));
  const [first = describeFault(HEALTHY)] = words;
  if (words.length < 2) return first;
  return {
    title: words.map((w) => w.title).join(', and '),
    cause: 'two faults at once: neither alone explains the readings',
    remedy: `${first.remedy} Then measure again before the second is looked for.`,
  };
}

/** One fault in plain words. */
export const describeFault = (fault: Fault, unit: FaultUnit = 'ohm'): FaultWords => ({ title: faultTitle(fault, unit), ...adviceOn(fault) });

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
        cause: 'each sits in the other’s place',
        remedy: 'Compare both markings with the list and exchange them.',
      };
    case 'reversed':
      return {
        cause: 'fitted against its mark',
        remedy: `Compare the mark of ${fault.parts[0]} with the board, turn it round. Fit a new one if it was an electrolytic.`,
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
            remedy: 'Read both type numbers with a lens and exchange them.',
          }
        : {
            cause: 'NPN and PNP look alike',
            remedy: `Read the type number of ${fault.parts[0]} with a lens.`,
          };
    case 'bridge':
      return {
        cause: 'two neighbouring pads touch',
        remedy: 'Look between the pads of the two nets with a lens; clear it with braid.',
      };
    case 'track':
      return {
        cause: 'a crack, a scratch, or a pad lifted with the iron',
        remedy: `Supply off. Ohms between ${fault.detail.beyond[0]} and the rest of its net; look along the track with a lens while the board is bent gently, and bridge the gap with a wire.`,
      };
    case 'weak':
      return {
        cause: 'damaged, counterfeit or out of its limits',
        remedy: `Exchange ${fault.parts[0]} for one that is known to be good.`,
      };
    case 'leaky':
      return {
        cause: 'old, overheated or fitted the wrong way round once',
        remedy: `Supply off. Lift one leg of ${fault.parts[0]} and measure its ohms; fit a new one if they do not rise to megohms.`,
      };
    case 'no-supply':
      return {
        cause: 'not switched on, a lead not plugged in, a fuse blown',
        remedy: `Measure at the terminals of ${fault.parts[0]}, then at the pads where it enters the board.`,
      };
    case 'reversed-supply':
      return {
        cause: 'a plug of the other polarity, exchanged leads, a battery the wrong way round',
        remedy: `Supply off. Measure the volts at the plug of ${fault.parts[0]} with their sign, then look for what the wrong polarity killed: chips and electrolytics first.`,
      };
    case 'low-supply':
      return {
        cause: 'a weak battery or source, its current limit reached, thin leads',
        remedy: `Measure at the terminals of ${fault.parts[0]} while the board hangs on it; look whether it stands in its limit.`,
      };
    case 'strap':
      return {
        cause: 'a jumper, strap or solder bridge in another position than was chosen',
        remedy: `Look where the jumper or strap of “${fault.detail.option}” sits, and set it as it was chosen; or note the choice that the board really has.`,
      };
    case 'blank':
      return {
        cause: 'supplied without its program, or with an old one',
        remedy: `Make sure of the supply, clock and reset of ${fault.parts[0]}; then ask the maker whether it comes programmed, or program it.`,
      };
    case 'stuck':
      return {
        cause: 'the chip is destroyed',
        remedy: `Supply off, then exchange ${fault.parts[0]}.`,
      };
  }
}
