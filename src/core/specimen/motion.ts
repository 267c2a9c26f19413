import { type Circuit, operatingPoint, UnsolvableError } from '../circuit';
import { applyFaults, type Board, type Fault } from '../fault';
import { readRunning, type RunningReadings } from './running';
import { MODEL_SPREADS, type RunningObservable } from './problem';
import { toScale } from './scale';
import { NOMINAL_SPECIMEN, specimenOf, specimenSteps } from './specimen';

/** Healthy specimens that are run to learn how far running signals spread. */
const RUNS = 8;
const FIRST_RUN = 7000;

/**
 * Running signals of a circuit with its faults. A run in time costs as much as a thousand operating points, so each fault is
 * run once, with parts in the middle of their ranges; the spread about it is that of the healthy board's specimens.
 */
export class FaultyMotion {
  private nominal: Float64Array | null | undefined;
  private deviations: readonly Float64Array[] | undefined;
  private seconds: number | undefined;
  private inLimit: boolean | undefined;

  constructor(
    private readonly circuit: Circuit,
    private readonly observables: readonly RunningObservable[],
    private readonly board: Board,
    private readonly faults: readonly Fault[],
    /** First column of a sample's row that is written. */
    private readonly offset: number,
    private readonly healthy: FaultyMotion | null,
    /** What a specimen reads at its operating point (volts and currents, on the comparison scale); null without one. */
    private readonly atRest: (specimen: number) => ReadonlyMap<string, number> | null,
  ) {}

  /** Writes one specimen's readings into `row`, on the comparison scale; false when the circuit could not be run. */
  read(specimen: number, row: Float64Array): boolean {
    const nominal = this.middle();
    if (!nominal) return false;
    const spread = (this.healthy ?? this).spread();
    const deviation = spread[Math.abs(specimen) % spread.length];
    nominal.forEach((v, i) => {
      row[this.offset + i] = v + (deviation?.[i] ?? 0);
    });
    return true;
  }

  /** Readings of the nominal board with the fault; null where they cannot be computed. A fault elsewhere changes nothing. */
  private middle(): Float64Array | null {
    if (this.nominal === undefined) {
      const elsewhere = this.healthy !== null && applyFaults(this.circuit, this.board, this.faults).circuit === this.circuit;
      this.nominal = elsewhere ? this.healthy.middle() : this.run(NOMINAL_SPECIMEN);
    }
    return this.nominal;
  }

  /** Readings of healthy specimens less those of the nominal board. */
  private spread(): readonly Float64Array[] {
    const nominal = this.middle();
    this.deviations ??= nominal
      ? Array.from({ length: RUNS }, (_, k) => this.run(FIRST_RUN + k)?.map((v, i) => v - nominal[i]!)).filter((d) => d !== undefined)
      : [];
    return this.deviations;
  }

  private run(specimen: number): Float64Array | null {
    const faulty = applyFaults(this.circuit, this.board, this.faults);
    const seconds = this.healthy?.seconds ?? this.seconds;
    try {
      // A healthy board that would stand in its limit at rest runs all the same: there the limit tells nothing.
      if (this.healthy && !this.healthy.limited() && standsInLimit(faulty.circuit)) return this.resting(specimen);
      const run: RunningReadings = readRunning(faulty.circuit, this.observables, {
        ...(seconds === undefined ? {} : { seconds }),
        prepare: (system) => {
          const values = specimenOf(this.board, specimen + 1);
          for (const step of specimenSteps(system, faulty.circuit, this.board, this.faults, faulty.pieceAt)) step(values, MODEL_SPREADS[1]!);
        },
      });
      this.seconds ??= run.seconds;
      if (run.stalled) return this.resting(specimen);
      return Float64Array.from(this.observables, (o) => toScale(o.mode, run.readings.get(o.id) ?? 0));
    } catch (error) {
      if (error instanceof UnsolvableError) return null;
      throw error;
    }
  }

  /** Whether a supply stands in its limit where this board rests. */
  private limited(): boolean {
    this.inLimit ??= standsInLimit(this.circuit);
    return this.inLimit;
  }

  private resting(specimen: number): Float64Array | null {
    const resting = this.atRest(specimen);
    return resting && Float64Array.from(this.observables, (o) => resting.get(o.id) ?? 0);
  }
}

/** A supply that stands in its limit with the board at rest feeds nothing that could run (choice of this product). */
function standsInLimit(circuit: Circuit): boolean {
  const limited = circuit.parts.flatMap((p) => (p.kind === 'V' && p.limit !== undefined ? [{ name: p.name, limit: p.limit }] : []));
  if (limited.length === 0) return false;
  try {
    const { branches } = operatingPoint(circuit);
    return limited.some(({ name, limit }) => Math.abs(branches[name]!) >= limit * (1 - AT_LIMIT));
  } catch (error) {
    // What never rests may run all the same.
    if (error instanceof UnsolvableError) return false;
    throw error;
  }
}
/** So near its limit a supply stands in it, relative. */
const AT_LIMIT = 1e-6;
