/** Circuits that nobody thought of, against the reference simulator: resting, under a meter, and in time. */
import { readDeck } from '@/core/circuit/deck/read';
import { writeDeck } from '@/core/circuit/deck/write';
import { meterCircuit, readDriven } from '@/core/circuit/meterDrive';
import { type Circuit, netsOf } from '@/core/circuit/netlist';
import { Newton } from '@/core/circuit/solve/newton';
import { System } from '@/core/circuit/solve/system';
import { statisticsOf } from '@/core/circuit/traceStatistics';
import { transient } from '@/core/circuit/transient';
import { randomStream } from '@/core/statistics/random';
import { referenceOp, referenceTransient } from '../support/simulator';

const CARDS = `.model DM D(IS=4E-9 N=1.9 RS=0.6 BV=100 IBV=1E-5)
.model DZ D(IS=1E-14 N=1.1 RS=6 BV=5.1 IBV=5E-3)
.model DL D(IS=7.7E-18 N=2 RS=2 BV=30 IBV=1E-5)
.model QN NPN(IS=1.5E-14 BF=250 VAF=80 BR=4 RC=0.5 RE=0.1)
.model QP PNP(IS=2E-14 BF=220 VAF=60 BR=4 RC=0.5 RE=0.1)
.model QX NPN(IS=1E-14 BF=120 BR=3 IKF=0.05 ISE=1E-13)
.model MN NMOS(LEVEL=1 VTO=2 KP=0.05 LAMBDA=0.01)
.model JN NJF(VTO=-2 BETA=1E-3 LAMBDA=0.01)`;

/** A choice-making stream: the same circuits in every run. */
function chooser(seed: number) {
  const random = randomStream(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  /** So many different ones. */
  const some = <T>(from: readonly T[], count: number): T[] => {
    const rest = [...from];
    return Array.from({ length: count }, () => rest.splice(Math.floor(random() * rest.length), 1)[0]!);
  };
  return { random, pick, some };
}

/**
 * Every net hangs on the supply or on ground through resistors, so that no current is absurd; gates and bases never lie on a
 * supply directly. `sources`: lines that bring signals in; `storing`: share of parts that are capacitors.
 */
function randomDeck(seed: number, sources: readonly string[], storing: number): string {
  const { random, pick, some } = chooser(seed);
  const inner = Array.from({ length: 3 + Math.floor(random() * 5) }, (_, i) => `n${i}`);
  const nets = ['0', 'vcc', ...inner];
  const lines = [`V1 vcc 0 ${pick([5, 9, 12])}`, ...sources];
  const name = (letter: string) => `${letter}${lines.length}`;
  for (const net of inner) {
    lines.push(`${name('R')} ${net} ${pick(nets.filter((other) => other !== net))} ${pick([470, 1e3, 4700, 1e4, 47e3])}`);
    lines.push(`${name('R')} ${net} ${pick(['0', 'vcc'])} ${pick([1e3, 1e4, 1e5])}`);
  }
  if (sources.length > 0) lines.push(`${name('R')} n0 in ${pick([1e3, 1e4])}`);
  for (let i = 0; i < 3 + random() * 5; i++) {
    const kind = random();
    const [control] = some(inner, 1);
    const [a, b] = some(
      nets.filter((net) => net !== control),
      2,
    );
    if (kind < storing) lines.push(`${name('C')} ${control!} ${a!} ${pick([1e-8, 1e-7, 1e-6])}`);
    else if (kind < storing + 0.3 * (1 - storing)) lines.push(`${name('D')} ${control!} ${a!} ${pick(['DM', 'DZ', 'DL'])}`);
    else if (kind < storing + 0.85 * (1 - storing)) lines.push(`${name('Q')} ${a!} ${control!} ${b!} ${pick(['QN', 'QP', 'QX'])}`);
    else if (kind < storing + 0.93 * (1 - storing)) {
      // Not with its body diode from the supply: two in a row would be a short.
      const [drain, source] = b === 'vcc' ? [b, a!] : [a!, b!];
      lines.push(`${name('M')} ${drain} ${control!} ${source} ${source} MN`);
    } else lines.push(`${name('J')} ${a!} ${control!} ${b!} JN`);
  }
  return `seed ${seed}\n${lines.join('\n')}\n${CARDS}`;
}

/**
 * Solves from the reference's own point: where several states are valid, the reference's must be one of ours too.
 * Returns the nets at which it is not, and how far off they are.
 */
async function disagreements(circuit: Circuit): Promise<string[]> {
  // What nothing but a junction's leakage holds hangs on the minimal conductance that each simulator lays across junctions.
  const held = new Set(circuit.parts.flatMap((p) => (p.kind === 'R' || p.kind === 'V' ? p.nodes : [])));
  // The meter's own net has a name that the reference would take apart.
  const nets = netsOf(circuit).filter((net) => net !== '0' && held.has(net) && /^\w+$/.test(net));
  const reference = await referenceOp(writeDeck(circuit), nets);
  const theirs = (net: string) => reference.get(`v(${net})`) ?? reference.get(net) ?? NaN;
  const system = new System(circuit);
  const newton = new Newton(system);
  const close = (x: Float64Array, net: string) => Math.abs(x[system.unknownOf(net)]! - theirs(net)) <= 1e-3 + 1e-3 * Math.abs(theirs(net));
  const cold = newton.solve(null);
  if (!cold.converged) return [`${circuit.title}: no solution`];
  if (nets.every((net) => close(cold.x, net))) return [];
  const start = newton.zeros();
  for (const net of nets) start[system.unknownOf(net)] = theirs(net);
  const near = newton.solve(start);
  if (!near.converged) return [`${circuit.title}: no solution near the reference`];
  return nets
    .filter((net) => !close(near.x, net))
    .map((net) => `${circuit.title}: ${net} is ${near.x[system.unknownOf(net)]!.toFixed(4)}, not ${theirs(net).toFixed(4)}`);
}

/** The reference simulates a few hundred of them a second, and has to start. */
const PATIENCE = 120_000;

const seeds = (count: number, from: number) => Array.from({ length: count }, (_, i) => from + i);

test(
  'at rest: 120 random circuits, every net within 1 mV or 0.1 %',
  async () => {
    const found: string[] = [];
    for (const seed of seeds(120, 1)) found.push(...(await disagreements(readDeck(randomDeck(seed, [], 0)).circuit)));
    expect(found).toEqual([]);
  },
  PATIENCE,
);

test(
  'under an ohm-meter with the supply unplugged: 60 random circuits',
  async () => {
    const found: string[] = [];
    for (const seed of seeds(60, 1001)) {
      const { circuit } = readDeck(randomDeck(seed, [], 0));
      const [red, black] = chooser(seed).some(
        netsOf(circuit).filter((net) => net !== '0'),
        2,
      );
      const drive = { type: 'ohms', red: red!, black: black!, testVoltage: 0.5, testResistance: 1e4 } as const;
      const driven = meterCircuit(circuit, drive, 'unplugged');
      found.push(...(await disagreements({ ...driven, title: `seed ${seed}` })));
      const reading = readDriven(circuit, drive, 'unplugged');
      expect(reading === 'over' || reading >= 0).toBe(true);
    }
    expect(found).toEqual([]);
  },
  PATIENCE,
);

test(
  'in time: 24 random circuits behind a sine or a square wave, averages and extremes within 1 % of the swing or 5 mV',
  async () => {
    const found: string[] = [];
    for (const seed of seeds(24, 2001)) {
      const { pick, random } = chooser(seed);
      const period = pick([1e-3, 1e-2]);
      const wave = random() < 0.5 ? `SIN(2 3 ${1 / period})` : `PULSE(0 5 0 ${period / 50} ${period / 50} ${period * 0.4} ${period})`;
      const deck = randomDeck(seed, [`V2 in 0 ${wave}`], 0.35);
      const stop = 12 * period;
      const net = pick(['n0', 'n1', 'n2']);
      const course = transient(readDeck(deck).circuit, { stop, nets: [net], from: stop / 2 });
      const ours = statisticsOf(course.times, course.volts[net]!);
      const { times, volts } = await referenceTransient(deck, net, stop);
      const settled = times.findIndex((t) => t >= stop / 2);
      const theirs = statisticsOf(times.slice(settled), volts.slice(settled));
      const allowed = Math.max(5e-3, 0.01 * (theirs.max - theirs.min));
      for (const what of ['average', 'rms', 'min', 'max'] as const)
        if (Math.abs(ours[what] - theirs[what]) > allowed) found.push(`seed ${seed}: ${net} ${what} is ${ours[what]}, not ${theirs[what]}`);
    }
    expect(found).toEqual([]);
  },
  PATIENCE,
);
