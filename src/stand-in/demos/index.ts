import { type Fault, HEALTHY } from '@/core/fault';
import { type KitState, newKit, type Sheet, type Stamp, type StandIn } from '@/core/kit';
import type { LogicFault } from '@/core/logic';
import { hideFault } from '../practice';
import { CROSSING_FLASHER } from './crossingFlasher';
import { FROST_SENTINEL } from './frostSentinel';
import { NEST_BOX_LISTENER } from './nestBoxListener';
import { SHOWN } from './shown';
import { TRAM_COUNTER } from './tramCounter';
import { WIND_DIAL } from './windDial';

/** A demo: a kit, its bag with troubles, and a board with a hidden fault for the simulated meter. */
interface Demo {
  readonly slug: string;
  readonly title: string;
  readonly about: string;
  kit: (stamp: Stamp) => KitState;
}

interface Hidden {
  readonly sheet: Sheet;
  readonly fault: Fault;
  readonly seed: number;
  /** Pieces of the bag that differ from their line; `…#count`: how many there are. */
  readonly pieces: StandIn['pieces'];
  /** What is wrong on a board round chips. */
  readonly functionFault?: LogicFault;
}

const HIDDEN: Readonly<Record<(typeof SHOWN)[number]['slug'], Hidden>> = {
  // One 47 k lies among the 4.7 k, and one 100 nF is missing.
  'frost-sentinel': {
    sheet: FROST_SENTINEL,
    fault: { kind: 'open', parts: ['R9'], detail: {} },
    seed: 7,
    pieces: { 'r-4k7': [4661, 46850, 4742], 'c-100n#count': [1] },
  },
  // A 4.7 k lies among the 47 k.
  'crossing-flasher': { sheet: CROSSING_FLASHER, fault: { kind: 'open', parts: ['R4'], detail: {} }, seed: 11, pieces: { 'r-47k': [46_700, 4690] } },
  // Only three of the four rectifiers are there, one 10 k is a 1 k.
  'nest-box-listener': {
    sheet: NEST_BOX_LISTENER,
    fault: { kind: 'open', parts: ['R3'], detail: {} },
    seed: 5,
    pieces: { 'd-4007#count': [3], 'r-10k': [9940, 1003] },
  },
  // A 10 k of the mast board is missing.
  'wind-dial': { sheet: WIND_DIAL, fault: { kind: 'open', parts: ['M:R2'], detail: {} }, seed: 3, pieces: { 'm-10k#count': [2] } },
  // One segment never lights, and one 330 Ω is missing.
  'tram-counter': {
    sheet: TRAM_COUNTER,
    fault: HEALTHY,
    functionFault: { kind: 'open-pin', parts: ['U3'], detail: { pin: '15' } },
    seed: 9,
    pieces: { 'r-330#count': [11] },
  },
};

export const DEMOS: readonly Demo[] = SHOWN.map((shown) => ({
  ...shown,
  kit: (stamp) => {
    const { sheet, fault, functionFault, seed, pieces } = HIDDEN[shown.slug];
    const functions = functionFault ? { functionFault: btoa(JSON.stringify(functionFault)) } : {};
    return newKit(sheet, stamp, { standIn: { seed, fault: hideFault(fault), ...functions, pieces } });
  },
}));
