import { type Fault } from '@/core/fault';
import { type KitState, newKit, type Stamp } from '@/core/kit';
import { hideFault } from '../board';
import { FROST_SENTINEL } from './frostSentinel';

/** A demo: a kit, its bag with troubles, and a board with a hidden fault for the simulated meter. */
interface Demo {
  readonly slug: string;
  readonly title: string;
  readonly about: string;
  kit: (stamp: Stamp) => KitState;
}

const FAULT: Fault = { kind: 'open', parts: ['R9'], detail: {} };

export const DEMOS: readonly Demo[] = [
  {
    slug: 'frost-sentinel',
    title: 'Frost sentinel',
    about:
      'A greenhouse board with 30 parts. One wrong part and one short count in the bag, and a board that does not behave. A simulated meter measures it for you.',
    kit: (stamp) =>
      newKit(FROST_SENTINEL, stamp, {
        // One 47 k lies among the 4.7 k, and one 100 nF is missing.
        standIn: { seed: 7, fault: hideFault(FAULT), pieces: { 'r-4k7': [4661, 46850, 4742], 'c-100n#count': [1] } },
      }),
  },
];
