import { C4, type Card, falls, HC, level, names, none, rises, still } from './card';
import { REGISTERS } from './registers';

export type { Card, ChipState, Drive, Readings } from './card';

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
const GATES_4000 = 'A1 B1 Y1 Y2 A2 B2 GND A3 B3 Y3 Y4 A4 B4 VDD';

/** Six inverters. */
const INVERTERS: Card = {
  ...HC,
  package: 'dip14',
  pins: names('A1 Y1 A2 Y2 A3 Y3 GND Y4 A4 Y5 A5 Y6 A6 VDD'),
  inputs: names('A1 A2 A3 A4 A5 A6'),
  outputs: names('Y1 Y2 Y3 Y4 Y5 Y6'),
  start: none,
  next: still,
  drive: (_, now) => Object.fromEntries([1, 2, 3, 4, 5, 6].map((i) => [`Y${i}`, level(now[`A${i}`] === 0)])),
};

/** Darlington arrays: open collectors to ground, no supply pin of their own. */
const darlingtons = (n: number): Card => {
  const each = (letter: string) => Array.from({ length: n }, (_, i) => `${letter}${i + 1}`);
  return {
    ...HC,
    package: `dip${2 * n + 2}`,
    rol: 10,
    vol: 0.7,
    min: 0,
    absolute: true,
    vil: 1,
    vih: 2,
    pullDown: 10_000,
    supply: null,
    pins: [...each('I'), 'GND', 'COM', ...each('O').reverse()],
    inputs: each('I'),
    outputs: each('O'),
    start: none,
    next: still,
    drive: (_, now) => Object.fromEntries(each('I').map((input, i) => [`O${i + 1}`, now[input] === 1 ? 'low' : 'z'])),
  };
};

/** Segments of the digits 0 to 9. */
const LEGS = ['a', 'b', 'c', 'd', 'e', 'f', 'g'];
const SEGMENTS = ['abcdef', 'bc', 'abdeg', 'abcdg', 'bcfg', 'acdfg', 'acdefg', 'abc', 'abcdefg', 'abcdfg'];

export const CARDS: Readonly<Record<string, Card>> = {
  HC00: gates(GATES, (a, b) => !(a && b)),
  HC08: gates(GATES, (a, b) => Boolean(a && b)),
  HC02: gates('Y1 A1 B1 Y2 A2 B2 GND A3 B3 Y3 A4 B4 Y4 VDD', (a, b) => !(a || b)),
  HC32: gates(GATES, (a, b) => Boolean(a || b)),
  HC86: gates(GATES, (a, b) => a !== b),
  C4001: { ...gates(GATES_4000, (a, b) => !(a || b)), ...C4 },
  C4011: { ...gates(GATES_4000, (a, b) => !(a && b)), ...C4 },
  C4093: { ...gates(GATES_4000, (a, b) => !(a && b)), ...C4 },
  C4070: { ...gates(GATES_4000, (a, b) => a !== b), ...C4 },
  C4071: { ...gates(GATES_4000, (a, b) => Boolean(a || b)), ...C4 },
  C4081: { ...gates(GATES_4000, (a, b) => Boolean(a && b)), ...C4 },
  HC04: INVERTERS,
  HC14: INVERTERS,
  C4069: { ...INVERTERS, ...C4 },
  HC151: {
    ...HC,
    package: 'dip16',
    pins: names('D3 D2 D1 D0 Y N E GND C B A D7 D6 D5 D4 VDD'),
    inputs: names('D0 D1 D2 D3 D4 D5 D6 D7 A B C E'),
    outputs: names('Y N'),
    start: none,
    next: still,
    drive: (_, now) => {
      const on = now['E'] === 0 && now[`D${now['A']! + 2 * now['B']! + 4 * now['C']!}`] === 1;
      return { Y: level(on), N: level(!on) };
    },
  },
  HC157: {
    ...HC,
    package: 'dip16',
    pins: names('S A1 B1 Y1 A2 B2 Y2 GND Y3 B3 A3 Y4 B4 A4 E VDD'),
    inputs: names('S A1 B1 A2 B2 A3 B3 A4 B4 E'),
    outputs: names('Y1 Y2 Y3 Y4'),
    start: none,
    next: still,
    drive: (_, now) => Object.fromEntries([1, 2, 3, 4].map((i) => [`Y${i}`, level(now['E'] === 0 && now[`${now['S'] === 1 ? 'B' : 'A'}${i}`] === 1)])),
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
  DA7: darlingtons(7),
  DA8: darlingtons(8),
  ...REGISTERS,
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
