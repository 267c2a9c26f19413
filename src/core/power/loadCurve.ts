import { type Circuit, findNet, GROUND, isRunning, operatingPoint, UnsolvableError } from '../circuit';
import { circuitAt, circuitOf, type Setup } from '../stage';

/** A load on a net: what a healthy board should put out at each current. */
export interface LoadCurve {
  /** Volts at each of the currents asked for; null where no operating point was found. */
  readonly volts: readonly (number | null)[];
}

/**
 * Volts of a net of a stage's circuit while a constant current is drawn from it to ground, at the operating point.
 * @param amps amperes drawn, zero or more
 * @returns null where the circuit has no such net or runs
 */
export function loadCurve(setup: Setup, stageId: string, net: string, amps: readonly number[]): LoadCurve | null {
  const stage = setup.sheet.stages.find((s) => s.id === stageId);
  if (!stage) return null;
  const circuit = circuitAt(setup, circuitOf(setup.sheet), stage);
  const name = findNet(circuit, net);
  if (name === undefined || name === GROUND || isRunning(circuit)) return null;
  return { volts: amps.map((a) => voltsAt(drawing(circuit, name, a), name)) };
}

/** The circuit with a source that draws a current from a net to ground. */
const drawing = (circuit: Circuit, net: string, amps: number): Circuit => ({
  ...circuit,
  parts: [...circuit.parts, { kind: 'I', name: 'ILOADTEST', nodes: [net, GROUND], dc: amps, wave: null }],
});

function voltsAt(circuit: Circuit, net: string): number | null {
  try {
    return operatingPoint(circuit).nodes[net] ?? null;
  } catch (error) {
    if (error instanceof UnsolvableError) return null;
    throw error;
  }
}
