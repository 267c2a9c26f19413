import { type Circuit, Newton, type OrderCache, type Part, type ProbePair, System } from '../circuit';
import type { Board } from '../fault';
import type { MeterProfile } from '../meter';
import { hypercube } from '../statistics';
import { type Draws, type Piece, piecesOf, withOffsets } from './pieces';
import type { Observable, Scene } from './problem';
import { SceneReader, type SolveRig } from './reader';
import { fromScale, OVER, toScale } from './scale';

/** Made-up healthy boards: every part anywhere among good parts of its kind, whoever made it. */
export class HealthyBoards {
  private readonly names: readonly string[];
  private readonly pieces: readonly Piece[];
  /** The circuit with all that varies on it. */
  readonly circuit: Circuit;

  constructor(circuit: Circuit, board: Board) {
    this.circuit = withOffsets(circuit, board);
    this.pieces = piecesOf(this.circuit, board);
    const names = new Set<string>();
    const note: Draws = (name) => {
      names.add(name);
      return 0.5;
    };
    for (const piece of this.pieces) piece(note);
    this.names = [...names];
  }

  /** `count` boards as the parts that differ, stratified so that few of them cover each part's range. The seed makes them repeatable. */
  draw(count: number, seed: number): readonly (readonly Part[])[] {
    const index = new Map(this.names.map((name, i) => [name, i]));
    return hypercube(this.names.length, count, seed).map((row) => this.board((name) => row[index.get(name)!]!));
  }

  /** The board whose parts all lie in the middle of their ranges. */
  middle(): readonly Part[] {
    return this.board(() => 0.5);
  }

  private board(draw: Draws): readonly Part[] {
    return this.pieces.map((piece) => piece(draw));
  }
}

type HealthyRig = SolveRig<readonly Part[]>;

/** What the meter would show without error on healthy boards that rest: one list a board, `over` where it shows over-range. */
export function readHealthy(scene: Scene, board: Board, meter: MeterProfile, count: number, seed: number): (readonly (number | 'over')[])[] {
  const boards = new HealthyBoards(scene.circuit, board);
  const orders: OrderCache = new Map();
  const rig = (circuit: Circuit, probes: readonly ProbePair[]): HealthyRig => {
    const system = new System(circuit, { probes, orders });
    const put = (parts: readonly Part[]) => {
      for (const part of parts) system.take(part);
    };
    return { system, newton: new Newton(system, 'sample'), put, done: () => undefined };
  };
  const reader = new SceneReader({ ...scene, circuit: boards.circuit }, meter, rig, boards.middle(), { readings: 0, lamps: scene.observables.length });
  const row = new Float64Array(scene.observables.length);
  return boards.draw(count, seed).flatMap((drawn) => (reader.read(drawn, 0, row) ? [scene.observables.map((o, i) => shown(o, row[i]!, meter))] : []));
}

/** A reading off the comparison scale as the display of this meter has it. */
function shown(o: Observable, y: number, meter: MeterProfile): number | 'over' {
  if (y >= toScale(o.mode, OVER[o.mode]) - 1e-6) return 'over';
  const value = fromScale(o.mode, y);
  if (o.mode !== 'ohms') return value;
  const ohms = value + meter.leadResistance;
  const limit = meter.ranges.ohms?.at(-1)?.upTo ?? Infinity;
  return ohms > limit ? 'over' : ohms;
}
