import { type Circuit, UnsolvableError } from '../circuit';
import { applyFaults, type Board, type Fault } from '../fault';
import { type Lamp, MODEL_SPREADS, type RunningObservable, SIGNS, type SwitchOn } from './problem';
import { toScale } from './scale';
import { NOMINAL_SPECIMEN, specimenOf, specimenSteps } from './specimen';
import { readSwitchedOn } from './switchOn';

/** Specimens that are switched on: of the healthy board, whose spread all share, and for a closer look of a fault itself. */
export const SWITCHED_ON = { healthy: 16, faulty: 8 };
const FIRST_RUN = 7000;
/** The specimen that is run where the one with all parts in the middle never starts: two equal halves may hold each other. */
const UNEQUAL = FIRST_RUN - 1;

/** One specimen's row: readings on the comparison scale, and the number of each lamp's sign (−1: nothing certain). */
interface Ran {
  readonly readings: Float64Array;
  readonly signs: readonly number[];
  /** Whether anything of it alternates. */
  readonly alive: boolean;
}

/** What is read of a scene that is switched on. */
interface Watched {
  readonly circuit: Circuit;
  readonly observables: readonly RunningObservable[];
  readonly lamps: readonly Lamp[];
  readonly run: SwitchOn;
}

/**
 * A board that is switched on, with its faults. At first one specimen of each fault is run, with the spread of healthy ones about
 * it; faults that stay in question are run with specimens of their own.
 */
export class FaultySwitchedOn {
  private first: Ran | null | undefined;
  private own: readonly (Ran | null)[] | undefined;
  private closely = false;
  private unequal = false;

  constructor(
    private readonly watched: Watched,
    private readonly board: Board,
    private readonly faults: readonly Fault[],
    /** First columns of a sample's row that are written. */
    private readonly offsets: { readonly readings: number; readonly lamps: number },
    private readonly healthy: FaultySwitchedOn | null,
  ) {}

  private get count(): number {
    return this.healthy === null ? SWITCHED_ON.healthy : SWITCHED_ON.faulty;
  }

  /** From now on specimens of the fault itself are read. */
  lookCloser(): void {
    this.closely = true;
  }

  /** Writes one specimen's row; false where it could not be run, or did not start although most do. */
  read(specimen: number, row: Float64Array): boolean {
    const ran = this.closely ? this.specimens()[Math.abs(specimen) % this.count] : this.spreadAbout(specimen);
    if (!ran) return false;
    row.set(ran.readings, this.offsets.readings);
    ran.signs.forEach((sign, i) => {
      row[this.offsets.lamps + i] = sign;
    });
    return true;
  }

  /** The fault's first specimen, as far from its middle as a healthy one is from its own. What does not alternate does so in none. */
  private spreadAbout(specimen: number): Ran | null {
    const first = this.middle();
    const healthy = this.healthy ?? this;
    const middle = healthy.middle();
    const other = healthy.specimens()[Math.abs(specimen) % healthy.count];
    if (!first || !middle || !other || healthy === this) return healthy === this ? (other ?? first) : first;
    const readings = first.readings.map((y, i) => (y === 0 ? 0 : y + other.readings[i]! - middle.readings[i]!));
    return { ...first, readings };
  }

  private middle(): Ran | null {
    if (this.first === undefined) {
      const elsewhere = this.healthy !== null && applyFaults(this.watched.circuit, this.board, this.faults).circuit === this.watched.circuit;
      const nominal = elsewhere ? this.healthy.middle() : this.switchOn(NOMINAL_SPECIMEN);
      // Where the healthy board has to be unequal to start, so has every other.
      const unequal = nominal?.alive === false && (this.healthy === null || this.healthy.unequal) ? this.switchOn(UNEQUAL) : null;
      this.unequal = unequal?.alive === true;
      this.first = unequal?.alive ? unequal : nominal;
    }
    return this.first;
  }

  /** Specimens of the fault; those that did not start are left out where most do: such a board is switched on again. */
  private specimens(): readonly (Ran | null)[] {
    if (this.own === undefined) {
      const ran = Array.from({ length: this.count }, (_, k) => this.switchOn(FIRST_RUN + k));
      const most = ran.filter((r) => r?.alive).length > this.count / 2;
      this.own = ran.map((r) => (most && r?.alive === false ? null : r));
    }
    return this.own;
  }

  private switchOn(specimen: number): Ran | null {
    const { circuit, observables, lamps, run } = this.watched;
    const faulty = applyFaults(circuit, this.board, this.faults);
    try {
      const { readings, signs } = readSwitchedOn(faulty.circuit, observables, lamps, run, (system) => {
        const values = specimenOf(this.board, specimen + 1);
        for (const step of specimenSteps(system, faulty.circuit, this.board, this.faults, faulty.pieceAt)) step(values, MODEL_SPREADS[0]!);
      });
      return {
        readings: Float64Array.from(observables, (o, i) => toScale(o.mode, readings[i]!)),
        signs: signs.map((s) => (s === null ? -1 : SIGNS.indexOf(s))),
        alive: observables.some((o, i) => (o.mode === 'acv' || o.mode === 'frequency') && readings[i]! > 0),
      };
    } catch (error) {
      if (error instanceof UnsolvableError) return null;
      throw error;
    }
  }
}
