/** What makers of op-amps differ in: offset and limits of the output, as sources that are nothing until they are set. */
import { operatingPoint, readDeck } from '@/core/circuit';
import { Diagnoser } from '@/core/diagnose/diagnoser';
import { faultKey } from '@/core/fault';
import { atRest, withOpampMakers, type Problem } from '@/core/specimen';
import { HANDHELD } from '@/core/meter';

const deck = (wiring: string) => `an amplifier
V1 vcc 0 12
${wiring}
.subckt OPAMP p n vcc vee out
Rd p n 10MEG
G1 0 x p n 1E-5
Rx x 0 1E10
Eh h0 0 vcc 0 1
Vh h0 h 1.3
Dh x h DCLAMP
El l 0 vee 0 1
Dl l x DCLAMP
Eb b 0 x 0 1
Qh vcc b o NOUT
Ql vee b o POUT
Ro o out 100
.model DCLAMP D(IS=1E-14 N=1)
.model NOUT NPN(IS=1E-14 BF=200)
.model POUT PNP(IS=1E-14 BF=200)
.ends OPAMP
.end`;
const FOLLOWER = 'R1 vcc in 10k\nR2 in 0 10k\nXU1 in out vcc 0 out OPAMP\nR3 out 0 10k';
const COMPARATOR = (high: boolean) => `R1 vcc in 10k\nR2 in 0 ${high ? '20k' : '5k'}\nR4 vcc ref 10k\nR5 ref 0 10k\nXU1 in ref vcc 0 out OPAMP\nR3 out 0 10k`;

const part = (ref: string, kind: 'resistor' | 'opamp' | 'supply', value: number | null = null) =>
  ({
    ref,
    element: kind === 'opamp' ? `X${ref}` : ref,
    kind,
    value,
    model: kind === 'opamp' ? 'OPAMP' : null,
    tolerance: [0, 0] as const,
    range: null,
  }) as const;
function problemOf(wiring: string): Problem {
  const { circuit } = readDeck(deck(wiring));
  const board = {
    parts: [
      part('V1', 'supply', 12),
      ...circuit.parts.flatMap((p) => (/^R\d$/.test(p.name) && p.kind === 'R' ? [part(p.name, 'resistor', p.value)] : [])),
      part('U1', 'opamp'),
    ],
    neighbours: [],
  };
  return { board, meter: HANDHELD, scenes: [atRest({ circuit, observables: [{ id: 'out', mode: 'dcv', red: 'out', black: '0' }] })] };
}
/** Volts at the output, with sources set. */
function out(wiring: string, set: Readonly<Record<string, number>> = {}): number {
  const { circuit } = withOpampMakers(problemOf(wiring)).scenes[0]!;
  const parts = circuit.parts.map((p) => {
    const found = Object.entries(set).find(([suffix]) => p.name.endsWith(suffix));
    return found && (p.kind === 'V' || p.kind === 'I') ? { ...p, dc: found[1] } : p;
  });
  return operatingPoint({ ...circuit, parts }).nodes['out']!;
}

test('unset they change nothing', () => {
  for (const wiring of [FOLLOWER, COMPARATOR(true), COMPARATOR(false)])
    expect(out(wiring)).toBeCloseTo(operatingPoint(readDeck(deck(wiring)).circuit).nodes['out']!, 6);
});
test('5 mV of offset stand at the output of a follower (textbook: gain of one)', () => {
  // Between the pin and the input behind it.
  expect(out(FOLLOWER, { '.~offset': -0.005 }) - out(FOLLOWER)).toBeCloseTo(0.005, 4);
});
test('limits move the output where it lies against them, and only there', () => {
  expect(out(COMPARATOR(true), { '.Vh': 1.7 }) - out(COMPARATOR(true))).toBeCloseTo(-0.4, 2);
  expect(out(COMPARATOR(false), { '.~lower': 0.4 })).toBeGreaterThan(out(COMPARATOR(false)));
  expect(out(FOLLOWER, { '.Vh': 1.7, '.~lower': 0.4 })).toBeCloseTo(out(FOLLOWER), 4);
});
test('a healthy board whose op-amp is another maker’s is called healthy', () => {
  const problem = problemOf(COMPARATOR(true));
  const seen = out(COMPARATOR(true), { '.Vh': 1.6 });
  const diagnoser = new Diagnoser(problem);
  const { suspects } = diagnoser.diagnose([{ id: 'out', value: seen }]);
  expect(faultKey(suspects[0]!.fault)).toBe('healthy|');
});
