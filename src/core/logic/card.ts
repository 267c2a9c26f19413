/** Levels of a chip's pins by name; a reading is 0 or 1. */
export type Readings = Readonly<Record<string, 0 | 1>>;
export type Drive = 'low' | 'high' | 'z' | 'weak';

/** What a chip keeps between rounds: numbers only. */
export type ChipState = readonly number[];

/** A chip of the library: pins, electrical data, behaviour. Behaviour as in the public truth tables of the families. */
export interface Card {
  /** Names of the pins, from pin 1 on; '' for one without use. */
  readonly pins: readonly string[];
  readonly package: string;
  /** Ohms of a high and of a low output. */
  readonly roh: number;
  readonly rol: number;
  /** Volts in series with a low output. */
  readonly vol: number;
  /** Least supply, volts. */
  readonly min: number;
  /** Thresholds as shares of the supply, or (`volts`) above ground. */
  readonly vil: number;
  readonly vih: number;
  readonly absolute?: boolean;
  readonly supply: string | null;
  readonly ground: string;
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  /** Ohms that pull each input down. */
  readonly pullDown?: number;
  readonly start: ChipState;
  /** State after a round: `was` are the readings of the round before, null when they were forgotten. */
  readonly next: (state: ChipState, now: Readings, was: Readings | null) => ChipState;
  readonly drive: (state: ChipState, now: Readings) => Readonly<Record<string, Drive>>;
}

export const HC = { roh: 40, rol: 40, vol: 0, min: 2, vil: 0.3, vih: 0.7, supply: 'VDD', ground: 'GND' } as const;
export const C4 = { ...HC, roh: 400, rol: 400, min: 3 } as const;
export const level = (on: boolean): Drive => (on ? 'high' : 'low');
export const rises = (pin: string, now: Readings, was: Readings | null) => was !== null && was[pin] === 0 && now[pin] === 1;
export const falls = (pin: string, now: Readings, was: Readings | null) => was !== null && was[pin] === 1 && now[pin] === 0;
export const names = (text: string) => text.split(' ');
export const none: ChipState = [];
export const still = (state: ChipState) => state;
