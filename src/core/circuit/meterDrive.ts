import { addParts } from './edit';
import { type Circuit, GROUND, type Part } from './netlist';
import { checkSolved } from './operatingPoint';
import { Newton } from './solve/newton';
import { System } from './solve/system';

/** Ohms above which a display shows over-range. */
const OHMS_LIMIT = 4e7;

export interface OhmsDrive {
  readonly type: 'ohms';
  readonly red: string;
  readonly black: string;
  /** Open-circuit voltage of the meter and the resistance behind it. */
  readonly testVoltage: number;
  readonly testResistance: number;
}
export interface DiodeDrive {
  readonly type: 'diode';
  readonly red: string;
  readonly black: string;
  /** Amperes pushed through, and the voltage at which the meter gives up. */
  readonly testCurrent: number;
  readonly compliance: number;
}
export type MeterDrive = OhmsDrive | DiodeDrive;

/** State of the board's own supplies while the meter drives: disconnected, or connected and switched off (0 V). */
export type SupplyState = 'unplugged' | 'off';

const METER = '~meter';
const METER_NODE = '~meter+';

/** The circuit without its own power, the meter connected in its place. */
export function meterCircuit(circuit: Circuit, drive: MeterDrive, supplies: SupplyState): Circuit {
  const quiet = circuit.parts.flatMap((p): Part[] => {
    if (p.kind === 'I') return [];
    if (p.kind !== 'V' || p.name.includes('.')) return [p];
    return supplies === 'off' ? [{ ...p, dc: 0, wave: null }] : [];
  });
  const source: Part[] =
    drive.type === 'ohms'
      ? [
          { name: METER, kind: 'V', nodes: [METER_NODE, drive.black], dc: drive.testVoltage, wave: null },
          { name: `${METER}R`, kind: 'R', nodes: [METER_NODE, drive.red], value: drive.testResistance },
        ]
      : [
          // A current source with a compliance: the voltage limit behind the resistance that gives the current into a short.
          { name: METER, kind: 'I', nodes: [drive.black, drive.red], dc: drive.testCurrent, wave: null },
          { name: `${METER}limit`, kind: 'D', nodes: [drive.red, METER_NODE], model: { name: METER, kind: 'D', params: LIMITER }, scale: 1, multiple: 1 },
          { name: `${METER}V`, kind: 'V', nodes: [METER_NODE, drive.black], dc: drive.compliance - LIMITER_DROP, wave: null },
        ];
  return addParts({ ...circuit, parts: anchored(quiet, drive.black) }, source);
}

/** A function that lets the meter of a compiled meter circuit drive otherwise: other volts, ohms, amperes in the same mode. */
export function driveSetter(system: System): (drive: MeterDrive) => void {
  const set = (name: string) => system.valueSetter(name) ?? (() => undefined);
  const [source, behind, limit] = [set(METER), set(`${METER}R`), set(`${METER}V`)];
  return (drive) => {
    if (drive.type === 'ohms') {
      source(drive.testVoltage);
      behind(drive.testResistance);
    } else {
      source(drive.testCurrent);
      limit(drive.compliance - LIMITER_DROP);
    }
  };
}

/** An almost ideal diode that takes over at the compliance voltage: about 6 mV at 1 mA. */
const LIMITER = { IS: 1e-12, N: 0.01, RS: 0, BV: 0, IBV: 1e-3 };
const LIMITER_DROP = 0.01 * 0.025865 * Math.log(1e-3 / 1e-12);

/** A board that floats gets its black probe as reference, through a resistor that carries nothing else. */
function anchored(parts: readonly Part[], black: string): readonly Part[] {
  return black === GROUND ? parts : [...parts, { name: `${METER}ref`, kind: 'R', nodes: [black, GROUND], value: 1e9 }];
}

/**
 * What the meter shows: ohms (V/I at the probes) or volts (diode test); `over` above the display's limit.
 * @throws UnsolvableError when no operating point was found.
 */
export function readDriven(circuit: Circuit, drive: MeterDrive, supplies: SupplyState): number | 'over' {
  const system = new System(meterCircuit(circuit, drive, supplies));
  const solution = new Newton(system).solve(null);
  checkSolved(solution);
  return drivenReading(system, solution.x, drive);
}

/** The reading from a solved meter circuit. */
export function drivenReading(system: System, x: Float64Array, drive: MeterDrive): number | 'over' {
  const volts = x[system.unknownOf(drive.red)]! - x[system.unknownOf(drive.black)]!;
  if (drive.type === 'diode') return volts >= drive.compliance - 0.002 ? 'over' : volts;
  const amperes = -x[system.branchOf(METER)!]!;
  const ohms = volts / amperes;
  return !(ohms <= OHMS_LIMIT) || amperes <= 0 ? 'over' : Math.max(0, ohms);
}
