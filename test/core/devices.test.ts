/** Semiconductor models: their derivatives, and the textbook formulas that circuits built on them obey. */
import fc from 'fast-check';
import { readDeck } from '@/core/circuit/deck/read';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { GMIN, startingVoltage, VT } from '@/core/circuit/solve/junction';
import { Newton } from '@/core/circuit/solve/newton';
import { System } from '@/core/circuit/solve/system';

const solve = (lines: string) => operatingPoint(readDeck(`t\n${lines}\n.end`).circuit);
const volts = (lines: string, net: string) => solve(lines).nodes[net]!;
/** Amperes that a source delivers. */
const delivered = (lines: string, source: string) => -solve(lines).branches[source]!;

const NPN = '.model N NPN(IS=1E-15 BF=200 BR=5)';
const IDEAL = '.model N NPN(IS=1E-15 BF=1E6 BR=5)';

describe('law: the matrix that a model loads is the derivative of the currents that it loads', () => {
  const banks: readonly (readonly [string, string, string])[] = [
    ['diode', 'D1 a b X', '.model X D(IS=1E-12 N=1.7)'],
    ['zener', 'D1 a b X', '.model X D(IS=1E-12 N=1.1 BV=5.1 IBV=5E-3)'],
    ['NPN', 'Q1 a b c X', '.model X NPN(IS=1E-14 BF=150 BR=4 VAF=60 VAR=20 IKF=0.05 ISE=1E-13 ISC=1E-13)'],
    ['PNP', 'Q1 a b c X', '.model X PNP(IS=1E-14 BF=150 BR=4 VAF=60)'],
    ['NMOS', 'M1 a b c c X', '.model X NMOS(VTO=1.5 KP=0.02 LAMBDA=0.02)'],
    ['PMOS', 'M1 a b c c X', '.model X PMOS(VTO=-1.5 KP=0.02 LAMBDA=0.02)'],
    ['NJF', 'J1 a b c X', '.model X NJF(VTO=-2 BETA=1E-3 LAMBDA=0.01)'],
    ['PJF', 'J1 a b c X', '.model X PJF(VTO=-2 BETA=1E-3 LAMBDA=0.01)'],
  ];
  test.each(banks)('%s', (_, device, model) => {
    const loads = ['a', 'b', 'c'].map((n) => `R${n} ${n} 0 10k`).join('\n');
    const system = new System(readDeck(`t\n${loads}\n${device}\n${model}`).circuit);
    const at = (x: Float64Array) => system.linearise(x)!;
    // Between nets within ±0.33 V no junction is limited, so that the residual is the plain sum of currents.
    const volt = fc.double({ min: -0.33, max: 0.33, noNaN: true });
    fc.assert(
      fc.property(volt, volt, volt, (a, b, c) => {
        const x = new Float64Array(system.size + 1);
        x.set([a, b, c]);
        expect(at(x)).not.toBeNull();
        for (let j = 0; j < 3; j++) {
          const h = 1e-6;
          const [up, down] = [x.slice(), x.slice()];
          up[j]! += h;
          down[j]! -= h;
          const [fu, fd] = [at(up), at(down)];
          // The matrix applied to the unit vector, by solving for it: J e_j = ΔF / 2h, hence J⁻¹ ΔF / 2h = e_j.
          const column = Float64Array.from(fu, (v, i) => (v - fd[i]!) / (2 * h));
          at(x);
          system.lu.solve(column);
          for (let i = 0; i < 3; i++) expect(Math.abs(column[i]! - (i === j ? 1 : 0))).toBeLessThan(2e-3);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('junctions', () => {
  test('a warm start takes up no junction at a current that none carries', () => {
    expect(startingVoltage(0.65, VT, 0.7)).toBe(0.65);
    expect(startingVoltage(-9, VT, 0.7)).toBe(-9);
    expect(startingVoltage(12, VT, 0.7)).toBeCloseTo(0.7 + 10 * VT, 9);
  });
  test('a zener carries its test current at its nominal voltage (definition of BV and IBV)', () => {
    expect(volts('I1 0 k 5m\nD1 0 k Z\n.model Z D(IS=1E-14 BV=5.6 IBV=5m)', 'k')).toBeCloseTo(5.6, 3);
  });
  test('ten times the current takes N VT ln 10 more (59.5 mV at 27 °C for N = 1)', () => {
    const at = (amperes: string) => volts(`I1 0 a ${amperes}\nD1 a 0 X\n.model X D(IS=1E-14)`, 'a');
    expect(at('10m') - at('1m')).toBeCloseTo(VT * Math.LN10, 5);
  });
  test('backwards a junction leaks its saturation current and the least conductance', () => {
    const leak = -delivered('V1 a 0 -5\nD1 a 0 X\n.model X D(IS=1E-9)', 'V1');
    expect(leak).toBeCloseTo(1e-9 + 5 * GMIN, 11);
  });
  test('two equal diodes in parallel share a current; an area factor of 2 is the same', () => {
    const pair = volts('I1 0 a 1m\nD1 a 0 X\nD2 a 0 X\n.model X D(IS=1E-14)', 'a');
    const area = volts('I1 0 a 1m\nD1 a 0 X 2\n.model X D(IS=1E-14)', 'a');
    expect(pair).toBeCloseTo(area, 6);
  });
  test('series resistance adds I RS', () => {
    const plain = volts('I1 0 a 20m\nD1 a 0 X\n.model X D(IS=1E-14)', 'a');
    expect(volts('I1 0 a 20m\nD1 a 0 X\n.model X D(IS=1E-14 RS=5)', 'a') - plain).toBeCloseTo(0.1, 4);
  });
});

describe('bipolar transistors (Ebers & Moll 1954; Gray & Meyer)', () => {
  test('forward: IC = IS e^(VBE/VT), IB = IC / BF', () => {
    const deck = `V1 b 0 0.65\nV2 c 0 0.65\nQ1 c b 0 N\n${NPN}`;
    const ic = delivered(deck, 'V2');
    expect(ic).toBeCloseTo(1e-15 * Math.exp(0.65 / VT), 7);
    expect(delivered(deck, 'V1')).toBeCloseTo(ic / 200, 9);
  });
  test('Early: the collector current rises by VCB / VAF', () => {
    const at = (vc: number) => delivered(`V1 b 0 0.65\nV2 c 0 ${vc}\nQ1 c b 0 N\n.model N NPN(IS=1E-15 BF=200 VAF=50)`, 'V2');
    expect(at(10.65) / at(0.65)).toBeCloseTo(1 + 10 / 50, 2);
  });
  test('saturation: VCE = VT ln((1 + (1 + β)/BR) / (1 − β/BF)) for a forced gain β', () => {
    const forced = 10;
    const vce = volts(`I1 0 b 1m\nI2 0 c ${forced}m\nQ1 c b 0 N\n${NPN}`, 'c');
    expect(vce).toBeCloseTo(VT * Math.log((1 + (1 + forced) / 5) / (1 - forced / 200)), 3);
  });
  test('long-tailed pair: the currents part as 1/(1 + e^(−Vd/VT))', () => {
    for (const vd of [-0.05, 0, 0.02, 0.1]) {
      const deck = `V1 b1 0 ${vd}\nV2 b2 0 0\nVA c1 0 5\nVB c2 0 5\nI1 e 0 1m\nQ1 c1 b1 e N\nQ2 c2 b2 e N\n${IDEAL}`;
      expect(delivered(deck, 'VA') / 1e-3).toBeCloseTo(1 / (1 + Math.exp(-vd / VT)), 3);
    }
  });
  test('mirror: the output is the input times 1/(1 + 2/BF)', () => {
    const out = delivered(`I1 0 a 1m\nV2 c 0 0.7\nQ1 a a 0 N\nQ2 c a 0 N\n${NPN}`, 'V2');
    expect(out).toBeCloseTo(1e-3 / (1 + 2 / 200), 6);
  });
  test('Widlar source: I2 R = VT ln(I1/I2)', () => {
    const i2 = delivered(`I1 0 a 1m\nV2 c 0 5\nQ1 a a 0 N\nQ2 c a e N\nR1 e 0 1k\n${IDEAL}`, 'V2');
    expect(i2 * 1000).toBeCloseTo(VT * Math.log(1e-3 / i2), 4);
  });
  test('VBE multiplier: VCE = VBE (1 + R1/R2) for a large gain', () => {
    const { nodes } = solve(`I1 0 c 5m\nR1 c b 2k\nR2 b 0 1k\nQ1 c b 0 N\n${IDEAL}`);
    expect(nodes['c']! / nodes['b']!).toBeCloseTo(3, 2);
  });
  test('emitter follower: one VBE below its base; output resistance about VT/IC', () => {
    const at = (load: string) => volts(`V1 b 0 5\nV2 c 0 12\nQ1 c b e N\nR1 e 0 1k\nI1 e 0 ${load}\n${NPN}`, 'e');
    expect(5 - at('0')).toBeCloseTo(VT * Math.log(4.25e-3 / 1e-15), 2);
    const ohms = (at('0') - at('10u')) / 10e-6;
    expect(ohms).toBeCloseTo(VT / 4.25e-3, 0);
  });
  test('Darlington: the gains multiply', () => {
    const deck = `I1 0 b 1u\nV2 c 0 5\nQ1 c b m N\nQ2 c m 0 N\n.model N NPN(IS=1E-15 BF=100)`;
    expect(delivered(deck, 'V2') / 1e-6).toBeCloseTo(100 + 101 * 100, -2);
  });
  test('mirrored supplies and polarity give mirrored voltages (an NPN and a PNP of one card)', () => {
    const npn = volts(`V1 vc 0 9\nR1 vc c 2.2k\nR2 vc b 100k\nQ1 c b 0 X\n.model X NPN(IS=1E-14 BF=120)`, 'c');
    const pnp = volts(`V1 vc 0 -9\nR1 vc c 2.2k\nR2 vc b 100k\nQ1 c b 0 X\n.model X PNP(IS=1E-14 BF=120)`, 'c');
    expect(pnp).toBeCloseTo(-npn, 6);
  });
});

describe('field-effect transistors (Shichman & Hodges 1968)', () => {
  const fet = (vgs: number, vds: number, model = 'VTO=2 KP=0.02') =>
    delivered(`V1 g 0 ${vgs}\nV2 d 0 ${vds}\nM1 d g 0 0 X\n.model X NMOS(LEVEL=1 ${model})`, 'V2');
  test('saturation: ID = KP/2 (VGS − VTO)²', () => {
    expect(fet(3, 5)).toBeCloseTo(0.01, 5);
    expect(fet(4, 5)).toBeCloseTo(0.04, 5);
  });
  test('triode: ID = KP ((VGS − VTO) VDS − VDS²/2)', () => {
    expect(fet(5, 0.1)).toBeCloseTo(0.02 * (3 * 0.1 - 0.005), 6);
  });
  test('channel-length modulation multiplies by 1 + LAMBDA VDS', () => {
    expect(fet(3, 5, 'VTO=2 KP=0.02 LAMBDA=0.02') / fet(3, 5)).toBeCloseTo(1.1, 4);
  });
  test('below its threshold it is off', () => {
    expect(fet(1.9, 5)).toBeLessThan(1e-10);
  });
  test('W and L scale the current', () => {
    const wide = delivered('V1 g 0 3\nV2 d 0 5\nM1 d g 0 0 X W=20u L=10u\n.model X NMOS(LEVEL=1 VTO=2 KP=0.02)', 'V2');
    expect(wide / fet(3, 5)).toBeCloseTo(2, 3);
  });
  test('drain and source exchanged: the same channel, the other way', () => {
    const back = delivered('V1 g 0 3\nV2 s 0 5\nM1 0 g s 0 X\n.model X NMOS(LEVEL=1 VTO=2 KP=0.02)', 'V2');
    expect(back).toBeCloseTo(fet(3, 5), 5);
  });
  test('JFET: ID = BETA (VGS − VTO)²; with its gate at its source IDSS = BETA VTO²', () => {
    const id = (vgs: number) => delivered(`V1 g 0 ${vgs}\nV2 d 0 10\nJ1 d g 0 X\n.model X NJF(VTO=-2 BETA=1E-3)`, 'V2');
    expect(id(0)).toBeCloseTo(4e-3, 6);
    expect(id(-1)).toBeCloseTo(1e-3, 6);
    expect(id(-2.5)).toBeLessThan(1e-9);
  });
  test('self-bias of a JFET: ID RS = −VGS, on the square law', () => {
    const { nodes } = solve('V1 d 0 12\nJ1 d 0 s X\nR1 s 0 1k\n.model X NJF(VTO=-2 BETA=1E-3)');
    const vs = nodes['s']!;
    expect(vs / 1000).toBeCloseTo(1e-3 * (2 - vs) ** 2, 6);
  });
});

describe('nets held by leakage alone (every junction and every net carries 1e-12 S, as in SPICE 3)', () => {
  test('NPN: emitter and substrate junction, and two shunts, divide the voltage', () => {
    const { nodes } = solve('V1 e 0 9\nQ1 c b e X\nR1 b c 1k\n.model X NPN(IS=1E-19 BF=100)');
    expect(nodes['b']!).toBeCloseTo(9 / 4, 3);
  });
  test('PNP: the substrate of a lateral transistor meets its base', () => {
    const { nodes } = solve('V1 e 0 -9\nQ1 e b e X\n.model X PNP(IS=1E-19 BF=100)');
    expect(nodes['b']!).toBeCloseTo(-9 / 2, 3);
  });
  test('a result beside which a step of 25 mV is nothing is no result', () => {
    // A body diode that the start leaves in deep conduction: the voltage comes down by one nVT an iteration, from megavolts.
    const { nodes } = solve(
      `V1 vcc 0 5\nR0 n0 n4 100\nR1 n1 vcc 10k\nR2 n2 n1 4.7k\nR3 n3 n2 4.7k\nR4 n4 n2 100k\nM5 n3 n1 n0 n0 MN\nD6 0 n1 DL\nM7 n2 vcc 0 0 MN\nQ8 n2 0 vcc QP
.model DL D(IS=7.7E-18 N=2 RS=2)\n.model MN NMOS(LEVEL=1 VTO=2 KP=0.05)\n.model QP PNP(IS=2E-14 BF=220 VAF=60 BR=4 RC=0.5 RE=0.1)`,
    );
    for (const volts of Object.values(nodes)) expect(Math.abs(volts)).toBeLessThan(6);
  });
});

describe('transistors moved about in one layout', () => {
  const deck = (q: string) => `t\nV1 vc 0 9\nR1 vc c 2.2k\nR2 vc b 100k\nR3 b 0 22k\nR4 e 0 470\n${q}\n.model X NPN(IS=1E-14 BF=120 BR=4)`;
  const healthy = readDeck(deck('Q1 c b e X')).circuit;
  const q1 = healthy.parts.find((p) => p.name === 'Q1');
  test.each([
    ['turned', 'Q1 e b c X'],
    ['gone', '* none'],
  ])('%s: as solved in a layout of its own', (_, line) => {
    const faulty = readDeck(deck(line)).circuit;
    const moved = faulty.parts.find((p) => p.name === 'Q1') ?? null;
    const system = new System(healthy);
    const newton = new Newton(system);
    if (q1?.kind !== 'Q' || (moved && moved.kind !== 'Q')) throw new Error('no transistor');
    const before = newton.solve(null);
    const move = system.rewirer(q1, moved)!;
    move(true);
    const mine = newton.solve(before.x);
    move(false);
    const own = operatingPoint(faulty).nodes;
    expect(mine.converged).toBe(true);
    for (const net of ['c', 'b', 'e']) expect(mine.x[system.unknownOf(net)]).toBeCloseTo(own[net]!, 4);
    const after = newton.solve(mine.x);
    for (const net of ['c', 'b', 'e']) expect(after.x[system.unknownOf(net)]).toBeCloseTo(before.x[system.unknownOf(net)]!, 4);
  });
  test('what needs another layout is refused', () => {
    if (q1?.kind !== 'Q') throw new Error('no transistor');
    const system = new System(healthy);
    expect(system.rewirer(q1, { ...q1, nodes: ['c', 'loose', 'e'] })).toBeNull();
    expect(system.rewirer(q1, { ...q1, nodes: ['b', 'c', 'e'] })).toBeNull();
  });
});
