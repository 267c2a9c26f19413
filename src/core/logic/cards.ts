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

const HC = { roh: 40, rol: 40, vol: 0, min: 2, vil: 0.3, vih: 0.7, supply: 'VDD', ground: 'GND' } as const;
const C4 = { ...HC, roh: 400, rol: 400, min: 3 } as const;
const level = (on: boolean): Drive => (on ? 'high' : 'low');
const rises = (pin: string, now: Readings, was: Readings | null) => was !== null && was[pin] === 0 && now[pin] === 1;
const falls = (pin: string, now: Readings, was: Readings | null) => was !== null && was[pin] === 1 && now[pin] === 0;
const names = (text: string) => text.split(' ');
const none: ChipState = [];
const still = (state: ChipState) => state;

/** Four gates of two inputs. */
const gates = (pins: string, of: (a: number, b: number) => boolean): Card => ({
  ...HC,
  package: 'dip14',
  pins: names(pins),
  inputs: names('A1 B1 A2 B2 A3 B3 A4 B4'),
  outputs: names('Y1 Y2 Y3 Y4'),
  start: none,
  next: still,
  drive: (_, now) => Object.fromEntries([1, 2, 3, 4].map((i) => [`Y${i}`, level(of(now[`A${i}`]!, now[`B${i}`]!))])),
});
const GATES = 'A1 B1 Y1 A2 B2 Y2 GND Y3 A3 B3 Y4 A4 B4 VDD';

/** Segments of the digits 0 to 9. */
const LEGS = ['a', 'b', 'c', 'd', 'e', 'f', 'g'];
const SEGMENTS = ['abcdef', 'bc', 'abdeg', 'abcdg', 'bcfg', 'acdfg', 'acdefg', 'abc', 'abcdefg', 'abcdfg'];

export const CARDS: Readonly<Record<string, Card>> = {
  HC00: gates(GATES, (a, b) => !(a && b)),
  HC08: gates(GATES, (a, b) => Boolean(a && b)),
  HC02: gates('Y1 A1 B1 Y2 A2 B2 GND A3 B3 Y3 A4 B4 Y4 VDD', (a, b) => !(a || b)),
  HC32: gates(GATES, (a, b) => Boolean(a || b)),
  HC86: gates(GATES, (a, b) => a !== b),
  C4001: { ...gates('A1 B1 Y1 Y2 A2 B2 GND A3 B3 Y3 Y4 A4 B4 VDD', (a, b) => !(a || b)), ...C4 },
  C4011: { ...gates('A1 B1 Y1 Y2 A2 B2 GND A3 B3 Y3 Y4 A4 B4 VDD', (a, b) => !(a && b)), ...C4 },
  C4093: { ...gates('A1 B1 Y1 Y2 A2 B2 GND A3 B3 Y3 Y4 A4 B4 VDD', (a, b) => !(a && b)), ...C4 },
  HC04: {
    ...HC,
    package: 'dip14',
    pins: names('A1 Y1 A2 Y2 A3 Y3 GND Y4 A4 Y5 A5 Y6 A6 VDD'),
    inputs: names('A1 A2 A3 A4 A5 A6'),
    outputs: names('Y1 Y2 Y3 Y4 Y5 Y6'),
    start: none,
    next: still,
    drive: (_, now) => Object.fromEntries([1, 2, 3, 4, 5, 6].map((i) => [`Y${i}`, level(now[`A${i}`] === 0)])),
  },
  C4013: {
    ...C4,
    package: 'dip14',
    pins: names('QA NA CLKA RA DA SA GND SB DB RB CLKB NB QB VDD'),
    inputs: names('CLKA RA DA SA SB DB RB CLKB'),
    outputs: names('QA NA QB NB'),
    start: [0, 0],
    next: (state, now, was) =>
      ['A', 'B'].map((f, i) => {
        const clocked = rises(`CLK${f}`, now, was) ? now[`D${f}`]! : state[i]!;
        const reset = now[`R${f}`] === 1 ? 0 : clocked;
        return now[`S${f}`] === 1 ? 1 : reset;
      }),
    drive: (state, now) => ({
      QA: level(state[0] === 1),
      NA: level(state[0] === 0 || now['RA'] === 1),
      QB: level(state[1] === 1),
      NB: level(state[1] === 0 || now['RB'] === 1),
    }),
  },
  C4017: {
    ...C4,
    package: 'dip16',
    pins: names('Q5 Q1 Q0 Q2 Q6 Q7 Q3 GND Q8 Q4 Q9 CO ENA CLK RST VDD'),
    inputs: names('ENA CLK RST'),
    outputs: names('Q5 Q1 Q0 Q2 Q6 Q7 Q3 Q8 Q4 Q9 CO'),
    start: [0],
    next: ([n], now, was) => {
      if (now['RST'] === 1) return [0];
      const byClock = rises('CLK', now, was) && now['ENA'] === 0 && was!['ENA'] === 0;
      const byEnable = falls('ENA', now, was) && now['CLK'] === 1 && was!['CLK'] === 1;
      return [byClock || byEnable ? (n! + 1) % 10 : n!];
    },
    drive: ([n]) => ({ ...Object.fromEntries(Array.from({ length: 10 }, (_, i) => [`Q${i}`, level(i === n)])), CO: level(n! < 5) }),
  },
  C4518: {
    ...C4,
    package: 'dip16',
    pins: names('CLKA ENAA Q0A Q1A Q2A Q3A RSTA GND CLKB ENAB Q0B Q1B Q2B Q3B RSTB VDD'),
    inputs: names('CLKA ENAA RSTA CLKB ENAB RSTB'),
    outputs: names('Q0A Q1A Q2A Q3A Q0B Q1B Q2B Q3B'),
    start: [0, 0],
    next: (state, now, was) =>
      ['A', 'B'].map((f, i) => {
        if (now[`RST${f}`] === 1) return 0;
        const byClock = rises(`CLK${f}`, now, was) && now[`ENA${f}`] === 1 && was![`ENA${f}`] === 1;
        const byEnable = falls(`ENA${f}`, now, was) && now[`CLK${f}`] === 0 && was![`CLK${f}`] === 0;
        return byClock || byEnable ? (state[i]! + 1) % 10 : state[i]!;
      }),
    drive: (state) =>
      Object.fromEntries(['A', 'B'].flatMap((f, i) => [0, 1, 2, 3].map((bit) => [`Q${bit}${f}`, level(((state[i]! >> bit) & 1) === 1)] as const))),
  },
  C4511: {
    ...C4,
    roh: 60,
    package: 'dip16',
    pins: names('B C LT BI LE D A GND e d c b a g f VDD'),
    inputs: names('A B C D LT BI LE'),
    outputs: names('a b c d e f g'),
    start: [0],
    next: ([n], now) => [now['LE'] === 0 ? now['A']! + 2 * now['B']! + 4 * now['C']! + 8 * now['D']! : n!],
    drive: ([n], now) => {
      const lit = now['LT'] === 0 ? 'abcdefg' : now['BI'] === 0 ? '' : (SEGMENTS[n!] ?? '');
      return Object.fromEntries(LEGS.map((s) => [s, level(lit.includes(s))]));
    },
  },
  HC595: {
    ...HC,
    package: 'dip16',
    pins: names('Q1 Q2 Q3 Q4 Q5 Q6 Q7 GND Q7S MR SHCP STCP OE DS Q0 VDD'),
    inputs: names('MR SHCP STCP OE DS'),
    outputs: names('Q0 Q1 Q2 Q3 Q4 Q5 Q6 Q7 Q7S'),
    // Shift register, output register.
    start: [0, 0],
    next: ([shift, out], now, was) => [
      now['MR'] === 0 ? 0 : rises('SHCP', now, was) ? ((shift! << 1) | now['DS']!) & 255 : shift!,
      rises('STCP', now, was) ? shift! : out!,
    ],
    drive: ([shift, out], now) => ({
      ...Object.fromEntries(Array.from({ length: 8 }, (_, i) => [`Q${i}`, now['OE'] === 1 ? 'z' : level(((out! >> i) & 1) === 1)] as const)),
      Q7S: level(((shift! >> 7) & 1) === 1),
    }),
  },
  HC138: {
    ...HC,
    package: 'dip16',
    pins: names('A0 A1 A2 E1 E2 E3 Y7 GND Y6 Y5 Y4 Y3 Y2 Y1 Y0 VDD'),
    inputs: names('A0 A1 A2 E1 E2 E3'),
    outputs: names('Y0 Y1 Y2 Y3 Y4 Y5 Y6 Y7'),
    start: none,
    next: still,
    drive: (_, now) => {
      const on = now['E1'] === 0 && now['E2'] === 0 && now['E3'] === 1;
      const n = now['A0']! + 2 * now['A1']! + 4 * now['A2']!;
      return Object.fromEntries(Array.from({ length: 8 }, (_x, i) => [`Y${i}`, level(!(on && i === n))]));
    },
  },
  DA7: {
    ...HC,
    package: 'dip16',
    rol: 10,
    vol: 0.7,
    min: 0,
    absolute: true,
    vil: 1,
    vih: 2,
    pullDown: 10_000,
    supply: null,
    pins: names('I1 I2 I3 I4 I5 I6 I7 GND COM O7 O6 O5 O4 O3 O2 O1'),
    inputs: names('I1 I2 I3 I4 I5 I6 I7'),
    outputs: names('O1 O2 O3 O4 O5 O6 O7'),
    start: none,
    next: still,
    drive: (_, now) => Object.fromEntries([1, 2, 3, 4, 5, 6, 7].map((i) => [`O${i}`, now[`I${i}`] === 1 ? 'low' : 'z'])),
  },
  PE8: {
    ...HC,
    package: 'dip16',
    pins: names('A0 A1 A2 P0 P1 P2 P3 GND P4 P5 P6 P7 INT SCL SDA VDD'),
    inputs: names('A0 A1 A2 SCL SDA'),
    outputs: names('P0 P1 P2 P3 P4 P5 P6 P7'),
    start: [255],
    next: still,
    drive: ([byte]) => Object.fromEntries(Array.from({ length: 8 }, (_, i) => [`P${i}`, ((byte! >> i) & 1) === 1 ? 'weak' : 'low'])),
  },
  OSC8: {
    ...HC,
    min: 4,
    package: 'dip8',
    pins: names('GND TRG OUT RST CV THR DIS VDD'),
    inputs: ['RST'],
    outputs: ['OUT'],
    start: none,
    next: still,
    // What it drives follows the ticks that one waits: the simulation sets it.
    drive: () => ({ OUT: 'low' }),
  },
};

/** Ohms of a weakly high output of a port expander. */
export const WEAK_HIGH = 47_000;
