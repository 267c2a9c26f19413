/** Circuits that every kit contains, against what one reckons by hand (any electronics textbook; figures of the cards used). */
import { readDeck } from '@/core/circuit/deck/read';
import { readDriven } from '@/core/circuit/meterDrive';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { VT } from '@/core/circuit/solve/junction';
import type { Circuit } from '@/core/circuit/netlist';

const MODELS = `.model NS NPN(IS=1.5E-14 BF=250)
.model PS PNP(IS=1.5E-14 BF=250)
.model NSAT NPN(IS=1.5E-14 BF=250 BR=4)
.model DS D(IS=4E-9 N=1.9)
.model DR D(IS=7E-9 N=1.8)
.model LR D(IS=7.7E-18 N=2)
.model ZA D(IS=1E-14 BV=5.6 IBV=5m)
.model MN NMOS(LEVEL=1 VTO=2 KP=0.1)
.model MP PMOS(LEVEL=1 VTO=-2 KP=0.1)`;
const circuitOf = (lines: string): Circuit => {
  const { circuit, diagnostics } = readDeck(`t\n${lines}\n${MODELS}\n.end`);
  expect(diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
  return circuit;
};
const solve = (lines: string) => operatingPoint(circuitOf(lines));
const at = (lines: string, net: string) => solve(lines).nodes[net]!;
const supply = (lines: string) => -solve(lines).branches['V1']!;

/** Base-emitter voltage at a collector current, of the cards above. */
const vbe = (amperes: number) => VT * Math.log(amperes / 1.5e-14);
/** Forward voltage of the LED's card at a current. */
const vLed = (amperes: number) => 2 * VT * Math.log(amperes / 7.7e-18);

describe('resistors', () => {
  test('divider under load: the load lies in parallel with the lower part', () => {
    expect(at('V1 a 0 12\nR1 a b 10k\nR2 b 0 10k\nR3 b 0 10k', 'b')).toBeCloseTo((12 * 5) / 15, 6);
  });
  test('bridge in balance reads nothing, out of balance by the share', () => {
    const bridge = (r: number) => {
      const { nodes } = solve(`V1 s 0 10\nR1 s a 1k\nR2 a 0 1k\nR3 s b 1k\nR4 b 0 ${r}`);
      return nodes['b']! - nodes['a']!;
    };
    expect(bridge(1000)).toBeCloseTo(0, 9);
    expect(bridge(1100)).toBeCloseTo(10 * (1100 / 2100 - 0.5), 6);
  });
  test('R-2R ladder: each bit counts half of the one before', () => {
    const ladder = (bits: readonly number[]) =>
      at(
        bits.map((b, i) => `V${i + 1} d${i} 0 ${b * 5}\nR${i + 1} d${i} n${i} 20k`).join('\n') +
          `\nR9 n0 0 20k\n${bits
            .slice(1)
            .map((_, i) => `RS${i} n${i} n${i + 1} 10k`)
            .join('\n')}`,
        `n${bits.length - 1}`,
      );
    expect(ladder([0, 0, 0, 1])).toBeCloseTo(5 / 2, 3);
    expect(ladder([0, 0, 1, 0])).toBeCloseTo(5 / 4, 3);
    expect(ladder([1, 0, 0, 0])).toBeCloseTo(5 / 16, 3);
    expect(ladder([1, 1, 1, 1])).toBeCloseTo((5 * 15) / 16, 3);
  });
  test('maximum power goes to a load equal to the source resistance', () => {
    const power = (r: number) => at(`V1 a 0 10\nR1 a b 50\nR2 b 0 ${r}`, 'b') ** 2 / r;
    expect(power(50)).toBeCloseTo(0.5, 6);
    expect(power(40)).toBeLessThan(0.5);
    expect(power(60)).toBeLessThan(0.5);
  });
});

describe('diodes', () => {
  test('an LED with its resistor: (U − UF)/R', () => {
    const i = supply('V1 a 0 9\nR1 a b 470\nD1 b 0 LR');
    expect(i).toBeCloseTo((9 - vLed(i)) / 470, 6);
    expect(i).toBeGreaterThan(0.014);
  });
  test('two LEDs in series share one current, two in parallel share it in halves', () => {
    const series = supply('V1 a 0 9\nR1 a b 470\nD1 b c LR\nD2 c 0 LR');
    expect(series).toBeCloseTo((9 - 2 * vLed(series)) / 470, 6);
    const parallel = supply('V1 a 0 9\nR1 a b 470\nD1 b 0 LR\nD2 b 0 LR');
    expect(parallel).toBeCloseTo((9 - vLed(parallel / 2)) / 470, 6);
  });
  test('an LED the wrong way round: nothing flows, the whole supply stands across it', () => {
    const { nodes } = solve('V1 a 0 9\nR1 a b 470\nD1 0 b LR');
    expect(nodes['b']).toBeCloseTo(9, 3);
  });
  test('bridge rectifier on DC: two forward voltages less, whichever way round', () => {
    const out = (v: number) => {
      const { nodes } = solve(`V1 p q ${v}\nR0 q 0 1MEG\nD1 p o DR\nD2 q o DR\nD3 m p DR\nD4 m q DR\nR1 o m 1k`);
      return nodes['o']! - nodes['m']!;
    };
    expect(out(12)).toBeCloseTo(out(-12), 4);
    expect(12 - out(12)).toBeCloseTo(2 * 1.8 * VT * Math.log(out(12) / 1000 / 7e-9), 3);
  });
  test('clamps: an input is held to a diode beyond either rail', () => {
    const clamp = (v: number) => at(`V1 v 0 5\nV2 s 0 ${v}\nR1 s i 1k\nD1 i v DS\nD2 0 i DS`, 'i');
    expect(clamp(2.5)).toBeCloseTo(2.5, 4);
    expect(clamp(12)).toBeGreaterThan(5.5);
    expect(clamp(12)).toBeLessThan(5.9);
    expect(clamp(-5)).toBeLessThan(-0.5);
    expect(clamp(-5)).toBeGreaterThan(-0.9);
  });
  test('diode OR: the higher supply feeds, the other is blocked', () => {
    const { nodes, branches } = solve('V1 a 0 9\nV2 b 0 5\nD1 a o DR\nD2 b o DR\nR1 o 0 1k');
    expect(nodes['o']).toBeCloseTo(9 - 1.8 * VT * Math.log(nodes['o']! / 1000 / 7e-9), 3);
    expect(Math.abs(branches['V2']!)).toBeLessThan(1e-7);
  });
  test('zener: holds until its resistor cannot feed both it and the load', () => {
    const out = (load: number) => at(`V1 a 0 12\nR1 a z 470\nD1 0 z ZA\nR2 z 0 ${load}`, 'z');
    expect(out(10_000)).toBeCloseTo(5.6, 1);
    expect(out(470)).toBeCloseTo(5.6, 1);
    expect(out(220)).toBeCloseTo((12 * 220) / 690, 2);
  });
});

describe('transistors', () => {
  test('a saturated switch: base current ten times what the load needs', () => {
    const { nodes } = solve('V1 v 0 12\nR1 v c 1k\nV2 i 0 5\nR2 i b 4.7k\nQ1 c b 0 NSAT');
    expect(nodes['c']).toBeLessThan(0.1);
    expect(nodes['b']).toBeCloseTo(vbe(11.9e-3), 1);
  });
  test('switched off: the collector at its supply, leakage alone', () => {
    expect(at('V1 v 0 12\nR1 v c 1k\nR2 b 0 10k\nQ1 c b 0 NS', 'c')).toBeCloseTo(12, 6);
  });
  test('common emitter with divider bias: VE = VB − VBE, IC = VE/RE, VC = V − IC RC', () => {
    const { nodes } = solve('V1 v 0 12\nR1 v b 47k\nR2 b 0 10k\nQ1 c b e NS\nR3 v c 4.7k\nR4 e 0 1k');
    const ie = nodes['e']! / 1000;
    expect(nodes['b']! - nodes['e']!).toBeCloseTo(vbe((ie * 250) / 251), 4);
    expect(nodes['c']).toBeCloseTo(12 - (ie * 250 * 4700) / 251, 3);
    // The divider, less the base current through its source resistance.
    expect(nodes['b']).toBeCloseTo((12 * 10) / 57 - (ie / 251) * ((47 * 10) / 57) * 1000, 3);
  });
  test('a current sink of zener and transistor: (UZ − UBE)/R, whatever the load', () => {
    const sink = (load: number) => (12 - at(`V1 v 0 12\nR1 v z 1k\nD1 0 z ZA\nQ1 c z e NS\nR2 e 0 470\nR3 v c ${load}`, 'c')) / load;
    expect(sink(100)).toBeCloseTo(sink(400), 5);
    expect(sink(100)).toBeCloseTo((5.6 - vbe(0.0105)) / 470, 3);
  });
  test('two-transistor current limiter: about 0.65 V over its resistor', () => {
    const i = supply('V1 v 0 12\nR1 v c 10\nQ1 c b s NS\nQ2 b s 0 NS\nR2 s 0 6.8\nR3 v b 4.7k');
    expect(i).toBeGreaterThan(0.6 / 6.8);
    expect(i).toBeLessThan(0.75 / 6.8);
  });
  test('push-pull without bias: dead zone of one UBE to either side', () => {
    const out = (v: number) => at(`V1 p 0 12\nV2 m 0 -12\nV3 i 0 ${v}\nQ1 p i o NS\nQ2 m i o PS\nR1 o 0 1k`, 'o');
    expect(out(0)).toBeCloseTo(0, 3);
    expect(Math.abs(out(0.3))).toBeLessThan(0.01);
    expect(out(5)).toBeCloseTo(5 - vbe(4.3e-3), 1);
    expect(out(-5)).toBeCloseTo(-out(5), 4);
  });
  test('transistor Schmitt trigger: two states, and which one depends on the input', () => {
    const out = (v: number) =>
      at(`V1 v 0 12\nV2 i 0 ${v}\nR1 i b1 1k\nQ1 c1 b1 e NS\nR2 v c1 4.7k\nR3 c1 b2 10k\nR4 b2 0 10k\nQ2 o b2 e NS\nR5 v o 1k\nR6 e 0 220`, 'o');
    expect(out(0.2)).toBeLessThan(4);
    expect(out(6)).toBeCloseTo(12, 1);
  });
  test('PNP high-side switch by an NPN: the load gets its supply', () => {
    const load = (v: number) => at(`V1 v 0 12\nV2 i 0 ${v}\nR1 i b 10k\nQ1 c b 0 NSAT\nR2 c g 4.7k\nR3 v g 47k\nQ2 o g v PS\nR4 o 0 1k`, 'o');
    expect(load(5)).toBeGreaterThan(11.5);
    expect(load(0)).toBeLessThan(0.01);
  });
  test('MOSFET switches: on with its gate past the threshold, off without', () => {
    const low = (v: number) => at(`V1 v 0 12\nV2 g 0 ${v}\nR1 v d 100\nM1 d g 0 0 MN`, 'd');
    expect(low(0)).toBeCloseTo(12, 4);
    expect(low(10)).toBeLessThan(0.3);
    const high = (v: number) => at(`V1 v 0 12\nV2 g 0 ${v}\nR1 d 0 100\nM1 d g v v MP`, 'd');
    expect(high(12)).toBeCloseTo(0, 4);
    expect(high(2)).toBeGreaterThan(11.7);
  });
  test('CMOS inverter: rails at its ends, half the supply where both threshold alike', () => {
    const out = (v: number) => at(`V1 v 0 10\nV2 i 0 ${v}\nM1 o i 0 0 MN\nM2 o i v v MP\nR1 o 0 100MEG`, 'o');
    expect(out(0)).toBeCloseTo(10, 2);
    expect(out(10)).toBeCloseTo(0, 2);
  });
});

describe('op-amps from controlled sources', () => {
  const ideal = (lines: string) => `${lines}\nE1 o 0 p n 1E6`;
  test('follower, inverting, non-inverting, adder, difference', () => {
    expect(at(ideal('V1 p 0 3\nR1 o n 1\nR2 n 0 1G'), 'o')).toBeCloseTo(3, 3);
    expect(at(ideal('V1 i 0 2\nR1 i n 10k\nR2 n o 47k\nR3 p 0 1k'), 'o')).toBeCloseTo(-9.4, 3);
    expect(at(ideal('V1 p 0 1\nR1 n 0 10k\nR2 n o 90k'), 'o')).toBeCloseTo(10, 3);
    expect(at(ideal('V1 a 0 1\nV2 b 0 2\nR1 a n 10k\nR2 b n 10k\nR3 n o 10k\nR4 p 0 1k'), 'o')).toBeCloseTo(-3, 3);
    expect(at(ideal('V1 a 0 2\nV2 b 0 5\nR1 a n 10k\nR2 n o 20k\nR3 b p 10k\nR4 p 0 20k'), 'o')).toBeCloseTo(6, 3);
  });
  test('comparator with hysteresis: it stays where it is between its thresholds', () => {
    // Output of ±10 V, divided by eleven to the plus input.
    const thresholds = (v: number) => at(`V1 n 0 ${v}\nR1 o p 10k\nR2 p 0 1k\nE1 x 0 p n 1E4\nR3 x o 100\nD1 o h DS\nV2 h 0 9.4\nD2 l o DS\nV3 l 0 -9.4`, 'o');
    expect(thresholds(2)).toBeLessThan(-9);
    expect(thresholds(-2)).toBeGreaterThan(9);
  });
});

describe('the meter as a source, in circuit and out of it', () => {
  const ohms = (lines: string, red: string, black: string) =>
    readDriven(circuitOf(lines), { type: 'ohms', red, black, testVoltage: 0.5, testResistance: 1e4 }, 'unplugged');
  const diode = (lines: string, red: string, black: string) =>
    readDriven(circuitOf(lines), { type: 'diode', red, black, testCurrent: 1e-3, compliance: 2.5 }, 'unplugged');
  test('in parallel it always reads low: R1 ∥ (R2 + R3)', () => {
    expect(ohms('R1 a 0 10k\nR2 a b 4.7k\nR3 b 0 5.3k', 'a', '0')).toBeCloseTo(5000, 1);
    expect(ohms('R1 a 0 10k', 'a', '0')).toBeCloseTo(10_000, 1);
  });
  test('an unplugged supply is no path; one that is off is a short', () => {
    expect(ohms('V1 v 0 9\nR1 v a 1k\nR2 a 0 1k', 'a', '0')).toBeCloseTo(1000, 2);
    expect(
      readDriven(circuitOf('V1 v 0 9\nR1 v a 1k\nR2 a 0 1k'), { type: 'ohms', red: 'a', black: '0', testVoltage: 0.5, testResistance: 1e4 }, 'off'),
    ).toBeCloseTo(500, 2);
  });
  test('half a volt opens no junction: a transistor in parallel is invisible on ohms', () => {
    expect(ohms('R1 a 0 10k\nQ1 a a 0 NS', 'a', '0')).toBeGreaterThan(9000);
  });
  test('nothing between the probes is over-range; a link is nothing', () => {
    expect(ohms('R1 a 0 100MEG', 'a', '0')).toBe('over');
    expect(ohms('R1 a 0 0', 'a', '0')).toBeLessThan(0.01);
  });
  test('a coil is its wire, a capacitor is open', () => {
    expect(ohms('L1 a b 1m\nR1 b 0 12', 'a', '0')).toBeCloseTo(12, 2);
    expect(ohms('C1 a 0 100u', 'a', '0')).toBe('over');
  });
  test('diode test: N VT ln(1 mA/IS) one way, over-range the other; an LED by its colour; two in series add up', () => {
    expect(diode('D1 a 0 DS', 'a', '0')).toBeCloseTo(1.9 * VT * Math.log(1e-3 / 4e-9), 3);
    expect(diode('D1 a 0 DS', '0', 'a')).toBe('over');
    expect(diode('D1 a 0 LR', 'a', '0')).toBeCloseTo(vLed(1e-3), 3);
    expect(diode('D1 a b DS\nD2 b 0 DS', 'a', '0')).toBeCloseTo(2 * 1.9 * VT * Math.log(1e-3 / 4e-9), 3);
  });
  test('a resistor across a diode hides it below its own voltage: 470 Ω takes the milliampere at 0.47 V', () => {
    expect(diode('D1 a 0 DS\nR1 a 0 470', 'a', '0')).toBeLessThan(0.47);
    expect(diode('D1 a 0 DS\nR1 a 0 470', '0', 'a')).toBeCloseTo(0.47, 2);
  });
  test('a transistor by diode test: two junctions from its base, none between the others', () => {
    for (const leg of ['c', 'e']) expect(diode('Q1 c b e NSAT', 'b', leg)).toBeGreaterThan(0.6);
    for (const leg of ['c', 'e']) expect(diode('Q1 c b e NSAT', leg, 'b')).toBe('over');
    expect(diode('Q1 c b e NSAT', 'c', 'e')).toBe('over');
  });
  test('law: on linear networks it does not matter which probe is where (reciprocity)', () => {
    const net = 'R1 a b 3.3k\nR2 b c 1k\nR3 a c 4.7k\nR4 c 0 10k\nR5 b 0 2.2k';
    for (const [p, q] of [
      ['a', 'b'],
      ['a', 'c'],
      ['b', '0'],
    ] as const)
      expect(ohms(net, p, q)).toBeCloseTo(ohms(net, q, p) as number, 1);
  });
});
