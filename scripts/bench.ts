/**
 * Speed as ratios against a reference in the same run. `npm run bench [-- FOLDER]`: with a folder of boards (board.cir,
 * bom.csv, neighbours.csv, faults.jsonl in each) their fault lists too; ngspice, where Debian's package is installed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Simulation } from 'eecircuit-engine';
import Papa from 'papaparse';
import { readDeck } from '../src/core/circuit/deck/read';
import { writeDeck } from '../src/core/circuit/deck/write';
import { type Circuit } from '../src/core/circuit/netlist';
import { Newton } from '../src/core/circuit/solve/newton';
import { type OrderCache, System } from '../src/core/circuit/solve/system';
import { Diagnoser } from '../src/core/diagnose/posterior';
import { atRest } from '../src/core/diagnose/problem';
import { boardFor } from '../src/core/diagnose/request';
import { type Board } from '../src/core/fault/board';
import { type Fault } from '../src/core/fault/fault';
import { applyFault } from '../src/core/fault/apply';
import { faultPairs, pairKey, valueChange } from '../src/core/fault/valueChange';
import { deriveBoardState, meterOf } from '../src/core/kit';
import { HANDHELD } from '../src/core/meter';
import { type LoosePiece, type ParcelLine, sortParcel } from '../src/core/parcel';
import { boardOf, circuitOf, sceneOf } from '../src/core/stage/scene';
import { DEMOS } from '../src/stand-in/demos';

/** Runs a second, in the best of five windows: on both sides of a ratio, what else the machine does counts for little. */
function rate(run: () => void, seconds = 0.6): number {
  run();
  return Math.max(
    ...Array.from({ length: 5 }, () => {
      const start = performance.now();
      let count = 0;
      while (count === 0 || performance.now() - start < seconds * 200) {
        run();
        count++;
      }
      return (1000 * count) / (performance.now() - start);
    }),
  );
}

const times = (value: number) => `${value >= 100 ? value.toFixed(0) : value.toFixed(1)} ×`;
const padded = (text: string) => text.padEnd(44);

const simulation = new Simulation();
await simulation.start();

/** Operating points a second of the simulator in the dev dependencies, on one deck. */
async function referenceRate(deck: string): Promise<number> {
  simulation.setNetList(`${deck.replace(/^\.end\s*$/im, '')}\n.op\n.end\n`);
  await simulation.runSim();
  let best = 0;
  for (let window = 0; window < 5; window++) {
    const started = performance.now();
    for (let i = 0; i < 6; i++) await simulation.runSim();
    best = Math.max(best, 6000 / (performance.now() - started));
  }
  return best;
}

/** Every fault of a board solved once, on one layout where values alone change. Returns how many found a solution. */
function solveFaultList(circuit: Circuit, board: Board, faults: readonly Fault[]): number {
  const orders: OrderCache = new Map();
  const pairs = faultPairs(circuit, board);
  const probes = pairs.map(([red, black]) => ({ red, black }));
  const extras = new Map(pairs.map(([a, b], i) => [pairKey(a, b), i]));
  const system = new System(circuit, { probes, orders, loosePins: true });
  const newton = new Newton(system, 'sample');
  const healthy = newton.solve(null);
  let solved = 0;
  for (const fault of faults) {
    const faulty = applyFault(circuit, board, fault).circuit;
    const change = valueChange(system, circuit, faulty, extras);
    if (change) {
      change.enter();
      if (newton.solve(healthy.x).converged) solved++;
      change.leave();
      continue;
    }
    const own = new System(faulty, { orders });
    const start = new Float64Array(own.size + 1);
    own.unknowns.forEach((net, i) => {
      const k = system.unknowns.indexOf(net);
      if (k >= 0) start[i] = healthy.x[k]!;
    });
    if (new Newton(own, 'sample').solve(start).converged) solved++;
  }
  return solved;
}

/** Seconds in which one ngspice process loads and solves every fault, and in which it solves the healthy deck as often. */
function nativeSeconds(circuit: Circuit, board: Board, faults: readonly Fault[]): { whole: number; bare: number } | null {
  if (!existsSync('/usr/bin/ngspice')) return null;
  const folder = mkdtempSync(join(tmpdir(), 'faults-'));
  const time = (script: string): number => {
    writeFileSync(join(folder, 'run.cir'), script);
    const seconds = Array.from({ length: 3 }, () => {
      const started = performance.now();
      spawnSync('/usr/bin/ngspice', ['-b', join(folder, 'run.cir')], { stdio: 'ignore' });
      return (performance.now() - started) / 1000;
    });
    return Math.min(...seconds);
  };
  const decks = faults.map((fault, i) => {
    const name = join(folder, `f${i}.cir`);
    writeFileSync(name, writeDeck(applyFault(circuit, board, fault).circuit).replace('.end', '.options rshunt=1e12\n.end'));
    return name;
  });
  const healthy = writeDeck(circuit).replace('.end', '.options rshunt=1e12');
  const start = time(`start\nV1 a 0 1\nR1 a 0 1\n.control\nquit\n.endc\n.end\n`);
  const whole = time(`faults\n.control\n${decks.map((d) => `source ${d}\nop\nremcirc`).join('\n')}\nquit\n.endc\n.end\n`) - start;
  const bare = time(`${healthy}\n.control\nrepeat ${faults.length}\nop\ndestroy all\nend\nquit\n.endc\n.end\n`) - start;
  rmSync(folder, { recursive: true });
  return { whole, bare };
}

async function benchBoard(folder: string, name: string): Promise<void> {
  const text = (file: string) => readFileSync(join(folder, name, file), 'utf8').trim();
  const table = (file: string) => Papa.parse<Record<string, string>>(text(file), { header: true }).data;
  const deck = text('board.cir');
  const { circuit } = readDeck(deck);
  const board = boardFor(
    circuit,
    table('bom.csv'),
    table('neighbours.csv').map((r) => [r['netA']!, r['netB']!] as const),
  );
  const faults = text('faults.jsonl')
    .split('\n')
    .map((line) => JSON.parse(line) as Fault);
  const solved = solveFaultList(circuit, board, faults);
  const ours = rate(() => solveFaultList(circuit, board, faults), 1) * faults.length;
  const reference = await referenceRate(deck);
  const native = nativeSeconds(circuit, board, faults);
  const against = native
    ? `, native whole run ${times((ours * native.whole) / faults.length)}, bare points ${times((ours * native.bare) / faults.length)}`
    : '';
  console.log(padded(`  ${name}, ${solved}/${faults.length} faults`), `reference ${times(ours / reference)}${against}`);
}

const kit = DEMOS[0]!.kit({ id: 'bench', at: '2026-01-01T00:00:00Z' });
const deck = kit.sheet.circuit!.deck;
const { circuit } = readDeck(deck);
const newton = new Newton(new System(circuit));
const healthy = newton.solve(null);
const reference = await referenceRate(deck);
const one = 1000 / reference;
console.log(`operating points, ${circuit.parts.length} parts, against the reference simulator (${one.toFixed(1)} ms each)`);
console.log(padded('  layout and solve from nothing'), times(rate(() => new Newton(new System(circuit)).solve(null)) / reference));
console.log(padded('  solve from a neighbour'), times(rate(() => newton.solve(healthy.x)) / reference));

const whole = circuitOf(kit.sheet);
const stage = kit.sheet.stages.find((s) => s.id === 'warm')!;
const scene = atRest(sceneOf(kit, whole, stage, deriveBoardState(kit)));
const board = boardOf(kit, whole);
const drawing = () => {
  const diagnoser = new Diagnoser({ board, scenes: [scene], meter: HANDHELD });
  diagnoser.prepare();
  return diagnoser.faultCount;
};
const count = drawing();
const drawn = rate(drawing, 1);
console.log(
  padded(`  all ${count} single faults with spreads`),
  `${(1000 / drawn).toFixed(0)} ms, as long as ${(reference / drawn).toFixed(0)} reference points`,
);

const folder = process.argv[2];
if (folder) {
  console.log('fault lists, solves a second against');
  for (const name of readdirSync(folder).filter((n) => existsSync(join(folder, n, 'faults.jsonl')))) await benchBoard(folder, name);
}

console.log('loose piles, sorted anew after every piece');
for (const pieces of [60, 300]) {
  const lines = Array.from({ length: pieces / 10 }, (_, k): ParcelLine => ({
    number: k + 1,
    kind: 'R',
    value: Math.round(100 * 1.35 ** k),
    type: null,
    tolerance: [-5, 5],
    quantity: 10,
  }));
  const loose = lines.flatMap((l) =>
    Array.from({ length: 10 }, (_, i): LoosePiece => ({
      id: `${l.number}-${i}`,
      kind: 'R',
      quantity: 'resistance',
      value: l.value! * (1 + 0.02 * Math.sin(i)),
      polarity: null,
      marking: null,
    })),
  );
  const meter = { leadResistance: 0.2, accuracy: { resistance: meterOf(kit).ranges.ohms! } };
  console.log(padded(`  ${pieces} pieces`), `${(1000 / rate(() => sortParcel(loose, lines, meter))).toFixed(1)} ms`);
}

console.log('cost of a solve against size (ladder of n nets, per net, relative to the smallest)');
const ladder = (n: number) => ['ladder', 'V1 n0 0 5', ...Array.from({ length: n }, (_, i) => `R${i} n${i} n${i + 1} 1k\nRG${i} n${i + 1} 0 10k`)].join('\n');
let smallest = 0;
for (const n of [10, 25, 50, 100, 200, 400]) {
  const solver = new Newton(new System(readDeck(ladder(n)).circuit));
  const first = solver.solve(null);
  const perNet = 1 / rate(() => solver.solve(first.x), 0.2) / n;
  smallest ||= perNet;
  console.log(`  ${String(n).padStart(4)} nets  ${(perNet / smallest).toFixed(2)}`);
}
process.exit(0);
