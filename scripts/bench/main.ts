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
import { readDeck } from '../../src/core/circuit/deck/read';
import { writeDeck } from '../../src/core/circuit/deck/write';
import type { Circuit } from '../../src/core/circuit/netlist';
import { Newton } from '../../src/core/circuit/solve/newton';
import { type OrderCache, System } from '../../src/core/circuit/solve/system';
import { Diagnoser } from '../../src/core/diagnose/diagnoser';
import { atRest } from '../../src/core/specimen/problem';
import { boardFor } from '../../src/core/diagnose/request';
import type { Board } from '../../src/core/fault/board';
import type { Fault } from '../../src/core/fault/fault';
import { applyFault } from '../../src/core/fault/apply';
import { carryOver, type FaultLayout, FaultLayouts } from '../../src/core/fault/layouts';
import { meterOf } from '../../src/core/kit';
import { HANDHELD } from '../../src/core/meter';
import { type LoosePiece, type ParcelLine, sortParcel } from '../../src/core/parcel';
import { boardOf } from '../../src/core/stage/boardOf';
import { circuitOf } from '../../src/core/stage/elements';
import { sceneOf } from '../../src/core/stage/scene';
import { setupOf } from '../../src/core/stage/setup';
import { windowsOf } from '../../src/core/stage/windows';
import { benchBrowser } from './browser';
import { benchDocument } from './document';
import { benchPractice } from './practice';
import { FLASHER } from '../../test/support/decks';
import { DEMOS } from '../../src/stand-in/demos';

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

// Both simulators tell the console what they try; the results are all that counts here.
const say = console.log.bind(console);
for (const way of ['log', 'warn', 'error'] as const) console[way] = () => undefined;

async function referenceSolve(deck: string): Promise<void> {
  simulation.setNetList(`${deck.replace(/^\.end\s*$/im, '')}\n.op\n.end\n`);
  await simulation.runSim();
}

/** Operating points a second of the simulator in the dev dependencies over some decks, the best of three rounds. */
async function referenceRate(decks: readonly string[]): Promise<number> {
  await referenceSolve(decks[0]!);
  let best = 0;
  for (let round = 0; round < 3; round++) {
    const started = performance.now();
    for (const deck of decks) await referenceSolve(deck);
    best = Math.max(best, (1000 * decks.length) / (performance.now() - started));
  }
  return best;
}

/** Every fault of a board solved once, in layouts that they share. Returns how many found a solution. */
function solveFaultList(circuit: Circuit, board: Board, faults: readonly Fault[]): number {
  const orders: OrderCache = new Map();
  const layouts = new FaultLayouts(circuit, board, [], orders);
  const healthy = layouts.main.newton.solve(null);
  let solved = 0;
  for (const fault of faults) {
    const faulty = applyFault(circuit, board, fault).circuit;
    const borrowed = layouts.borrow([fault], faulty);
    const layout = borrowed?.layout ?? ownLayout(faulty, orders);
    borrowed?.change.enter(1);
    const start = layout === layouts.main ? healthy.x : carryOver(healthy.x, layouts.main.system, layout.system, layout.linked);
    if (layout.newton.solve(start).converged) solved++;
    borrowed?.change.leave();
  }
  return solved;
}

function ownLayout(circuit: Circuit, orders: OrderCache): FaultLayout {
  const system = new System(circuit, { orders });
  return { system, newton: new Newton(system, 'sample'), linked: new Map(), toGround: new Map() };
}

const BARE_POINTS = 5000;

/** Operating points a second of one ngspice process: every fault loaded and solved, and the healthy deck solved again and again. */
function nativeRates(circuit: Circuit, board: Board, faults: readonly Fault[]): { whole: number; bare: number } | null {
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
  const bare = time(`${healthy}\n.control\nrepeat ${BARE_POINTS}\nop\ndestroy all\nend\nquit\n.endc\n.end\n`) - start;
  rmSync(folder, { recursive: true });
  return { whole: faults.length / whole, bare: BARE_POINTS / bare };
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
  const reference = await referenceRate(faults.map((fault) => writeDeck(applyFault(circuit, board, fault).circuit)));
  const native = nativeRates(circuit, board, faults);
  const against = native ? `, native whole run ${times(ours / native.whole)}, bare points ${times(ours / native.bare)}` : '';
  say(padded(`  ${name}, ${solved}/${faults.length} faults`), `reference ${times(ours / reference)}${against}`);
  const newton = new Newton(new System(circuit), 'sample');
  const point = newton.solve(null);
  const healthy = rate(() => newton.solve(point.x)) / (await referenceRate(Array<string>(12).fill(deck)));
  say(padded('    healthy board from a neighbour'), `reference ${times(healthy)}`);
}

benchDocument(say, padded);
benchPractice(say, padded);
await benchBrowser(say, padded);

const kit = DEMOS[0]!.kit({ id: 'bench', at: '2026-01-01T00:00:00Z' });
const deck = kit.sheet.circuit!.deck;
const { circuit } = readDeck(deck);
const newton = new Newton(new System(circuit));
const healthy = newton.solve(null);
const reference = await referenceRate(Array<string>(12).fill(deck));
const one = 1000 / reference;
say(`operating points, ${circuit.parts.length} parts, against the reference simulator (${one.toFixed(1)} ms each)`);
say(padded('  layout and solve from nothing'), times(rate(() => new Newton(new System(circuit)).solve(null)) / reference));
say(padded('  solve from a neighbour'), times(rate(() => newton.solve(healthy.x)) / reference));

const whole = circuitOf(kit.sheet);
const stage = kit.sheet.stages.find((s) => s.id === 'warm')!;
const scene = atRest(sceneOf(setupOf(kit), whole, stage));
const board = boardOf(setupOf(kit), whole);
const flasher = {
  circuit: readDeck(FLASHER).circuit,
  observables: ['c1', 'c2', 'b1', 'b2'].map((net) => ({ id: net, mode: 'dcv' as const, red: net, black: '0' })),
};
/** One run of something slow, as milliseconds and as solves of the reference in that time. */
const once = (run: () => void) => {
  const start = performance.now();
  run();
  const ms = performance.now() - start;
  return `${ms.toFixed(0)} ms, the time of ${(ms / one).toFixed(0)} solves of the reference`;
};
say('windows of one stage');
say(
  padded('  a resting one of the demo'),
  once(() => windowsOf(sceneOf(setupOf(kit), whole, stage), board, HANDHELD)),
);
say(
  padded('  a two-transistor flasher that runs'),
  once(() => windowsOf(flasher, { parts: [], neighbours: [] }, HANDHELD)),
);

const drawing = () => {
  const diagnoser = new Diagnoser({ board, scenes: [scene], meter: HANDHELD });
  diagnoser.prepare();
  return diagnoser.faultCount;
};
const count = drawing();
const drawn = rate(drawing, 1);
say(padded(`  all ${count} single faults with spreads`), `${(1000 / drawn).toFixed(0)} ms, as long as ${(reference / drawn).toFixed(0)} reference points`);

const folder = process.argv[2];
if (folder) {
  say('fault lists, solves a second against');
  for (const name of readdirSync(folder).filter((n) => existsSync(join(folder, n, 'faults.jsonl')))) await benchBoard(folder, name);
}

say('loose piles, sorted anew after every piece');
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
  say(padded(`  ${pieces} pieces`), `${(1000 / rate(() => sortParcel(loose, lines, meter))).toFixed(1)} ms`);
}

say('cost of a solve against size, microseconds (ladder of n nets; a bar of double length costs ten times as much)');
const ladder = (n: number) => ['ladder', 'V1 n0 0 5', ...Array.from({ length: n }, (_, i) => `R${i} n${i} n${i + 1} 1k\nRG${i} n${i + 1} 0 10k`)].join('\n');
const costs = [10, 25, 50, 100, 200, 400].map((nets) => {
  const solver = new Newton(new System(readDeck(ladder(nets)).circuit));
  const first = solver.solve(null);
  return { nets, micros: 1e6 / rate(() => solver.solve(first.x), 0.2) };
});
const [least] = costs;
for (const { nets, micros } of costs) {
  const bar = '█'.repeat(Math.round(20 * (1 + Math.log10(micros / least!.micros))));
  say(`  ${String(nets).padStart(4)} nets ${micros.toFixed(1).padStart(7)}  ${bar}`);
}
const exponent = Math.log(costs.at(-1)!.micros / least!.micros) / Math.log(costs.at(-1)!.nets / least!.nets);
say(padded('  grows as the power of the size'), exponent.toFixed(2));
process.exit(0);
