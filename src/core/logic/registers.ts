import { C4, type Card, falls, HC, level, names, rises } from './card';

const bits = (value: number, prefix: string, count: number) =>
  Object.fromEntries(Array.from({ length: count }, (_, i) => [`${prefix}${i}`, level(((value >> i) & 1) === 1)] as const));

/** Two counters of four bits in one body: the decade and the binary sister. */
const twoCounters = (steps: number): Card => ({
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
      return byClock || byEnable ? (state[i]! + 1) % steps : state[i]!;
    }),
  drive: (state) =>
    Object.fromEntries(['A', 'B'].flatMap((f, i) => [0, 1, 2, 3].map((bit) => [`Q${bit}${f}`, level(((state[i]! >> bit) & 1) === 1)] as const))),
});

/** Flip-flops, latches, shift registers and counters (truth tables as published for the 4000 and 74HC families; from memory). */
export const REGISTERS: Readonly<Record<string, Card>> = {
  C4518: twoCounters(10),
  C4520: twoCounters(16),
  HC74: {
    ...HC,
    package: 'dip14',
    pins: names('RA DA CLKA SA QA NA GND NB QB SB CLKB DB RB VDD'),
    inputs: names('RA DA CLKA SA SB CLKB DB RB'),
    outputs: names('QA NA QB NB'),
    start: [0, 0],
    // Set and reset are active low; with both low, both outputs are high.
    next: (state, now, was) =>
      ['A', 'B'].map((f, i) => {
        if (now[`R${f}`] === 0) return 0;
        return now[`S${f}`] === 0 ? 1 : rises(`CLK${f}`, now, was) ? now[`D${f}`]! : state[i]!;
      }),
    drive: (state, now) =>
      Object.fromEntries(
        ['A', 'B'].flatMap((f, i) => [
          [`Q${f}`, level(now[`S${f}`] === 0 || state[i] === 1)] as const,
          [`N${f}`, level(now[`R${f}`] === 0 || state[i] === 0)] as const,
        ]),
      ),
  },
  HC164: {
    ...HC,
    package: 'dip14',
    pins: names('A B Q0 Q1 Q2 Q3 GND CLK MR Q4 Q5 Q6 Q7 VDD'),
    inputs: names('A B CLK MR'),
    outputs: names('Q0 Q1 Q2 Q3 Q4 Q5 Q6 Q7'),
    start: [0],
    next: ([shift], now, was) => [now['MR'] === 0 ? 0 : rises('CLK', now, was) ? ((shift! << 1) | (now['A']! & now['B']!)) & 255 : shift!],
    drive: ([shift]) => bits(shift!, 'Q', 8),
  },
  HC165: {
    ...HC,
    package: 'dip16',
    pins: names('PL CLK D4 D5 D6 D7 N7 GND Q7 DS D0 D1 D2 D3 CE VDD'),
    inputs: names('PL CLK CE DS D0 D1 D2 D3 D4 D5 D6 D7'),
    outputs: names('Q7 N7'),
    start: [0],
    // Loaded while PL is low; shifted towards Q7 by a rising clock while CE is low.
    next: ([shift], now, was) => {
      if (now['PL'] === 0) return [[0, 1, 2, 3, 4, 5, 6, 7].reduce((sum, i) => sum | (now[`D${i}`]! << i), 0)];
      return [rises('CLK', now, was) && now['CE'] === 0 ? ((shift! << 1) | now['DS']!) & 255 : shift!];
    },
    drive: ([shift]) => ({ Q7: level(((shift! >> 7) & 1) === 1), N7: level(((shift! >> 7) & 1) === 0) }),
  },
  HC573: {
    ...HC,
    package: 'dip20',
    pins: names('OE D0 D1 D2 D3 D4 D5 D6 D7 GND LE Q7 Q6 Q5 Q4 Q3 Q2 Q1 Q0 VDD'),
    inputs: names('OE LE D0 D1 D2 D3 D4 D5 D6 D7'),
    outputs: names('Q0 Q1 Q2 Q3 Q4 Q5 Q6 Q7'),
    start: [0],
    next: ([held], now) => [now['LE'] === 1 ? [0, 1, 2, 3, 4, 5, 6, 7].reduce((sum, i) => sum | (now[`D${i}`]! << i), 0) : held!],
    drive: ([held], now) => (now['OE'] === 1 ? Object.fromEntries(Array.from({ length: 8 }, (_, i) => [`Q${i}`, 'z' as const])) : bits(held!, 'Q', 8)),
  },
  C4040: {
    ...C4,
    package: 'dip16',
    pins: names('Q11 Q5 Q4 Q6 Q3 Q2 Q1 GND Q0 CLK RST Q8 Q7 Q9 Q10 VDD'),
    inputs: names('CLK RST'),
    outputs: names('Q0 Q1 Q2 Q3 Q4 Q5 Q6 Q7 Q8 Q9 Q10 Q11'),
    start: [0],
    next: ([n], now, was) => [now['RST'] === 1 ? 0 : falls('CLK', now, was) ? (n! + 1) & 4095 : n!],
    drive: ([n]) => bits(n!, 'Q', 12),
  },
};
