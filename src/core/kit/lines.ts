import { type MeterMode } from '../meter';
import { type Unit } from '../quantity';
import { type BoardPartKind } from '../fault/board';
import { type Line, type LineKind } from './sheet';

interface KindFacts {
  readonly unit: Unit | null;
  /** How a loose piece is measured; null when it is only counted. */
  readonly mode: Extract<MeterMode, 'ohms' | 'capacitance' | 'inductance' | 'diode' | 'hfe'> | null;
  /** Tolerance of parts whose list gives none (common practice, no source). */
  readonly tolerance: readonly [number, number];
  /** What the fault finder takes it for; null when it has no place in the circuit. */
  readonly board: BoardPartKind | null;
  readonly word: string;
}

const about = (share: number): readonly [number, number] => [-share, share];

export const KIND_FACTS: Readonly<Record<LineKind, KindFacts>> = {
  resistor: { unit: 'ohm', mode: 'ohms', tolerance: about(0.05), board: 'resistor', word: 'resistor' },
  capacitor: { unit: 'F', mode: 'capacitance', tolerance: about(0.2), board: 'capacitor', word: 'capacitor' },
  electrolytic: { unit: 'F', mode: 'capacitance', tolerance: [-0.2, 0.8], board: 'electrolytic', word: 'electrolytic capacitor' },
  inductor: { unit: 'H', mode: 'inductance', tolerance: about(0.2), board: 'inductor', word: 'coil' },
  trimmer: { unit: 'ohm', mode: 'ohms', tolerance: about(0.2), board: 'resistor', word: 'trimmer' },
  thermistor: { unit: 'ohm', mode: 'ohms', tolerance: about(0.1), board: 'thermistor', word: 'thermistor' },
  ldr: { unit: 'ohm', mode: 'ohms', tolerance: about(0.5), board: 'ldr', word: 'light-dependent resistor' },
  lamp: { unit: 'ohm', mode: 'ohms', tolerance: about(0.3), board: 'lamp', word: 'lamp' },
  fuse: { unit: 'ohm', mode: 'ohms', tolerance: about(0.5), board: 'fuse', word: 'fuse' },
  relay: { unit: 'ohm', mode: 'ohms', tolerance: about(0.1), board: 'coil', word: 'relay' },
  diode: { unit: 'V', mode: 'diode', tolerance: about(0.2), board: 'diode', word: 'diode' },
  zener: { unit: 'V', mode: 'diode', tolerance: about(0.05), board: 'zener', word: 'zener diode' },
  led: { unit: 'V', mode: 'diode', tolerance: about(0.2), board: 'led', word: 'LED' },
  npn: { unit: 'ratio', mode: 'hfe', tolerance: about(0.5), board: 'npn', word: 'NPN transistor' },
  pnp: { unit: 'ratio', mode: 'hfe', tolerance: about(0.5), board: 'pnp', word: 'PNP transistor' },
  nmos: { unit: 'V', mode: null, tolerance: about(0.3), board: 'nmos', word: 'N-channel MOSFET' },
  pmos: { unit: 'V', mode: null, tolerance: about(0.3), board: 'pmos', word: 'P-channel MOSFET' },
  njf: { unit: 'V', mode: null, tolerance: about(0.5), board: 'njf', word: 'N-channel JFET' },
  pjf: { unit: 'V', mode: null, tolerance: about(0.5), board: 'pjf', word: 'P-channel JFET' },
  opamp: { unit: null, mode: null, tolerance: about(0), board: 'opamp', word: 'operational amplifier' },
  ic: { unit: null, mode: null, tolerance: about(0), board: null, word: 'chip' },
  crystal: { unit: 'Hz', mode: null, tolerance: about(0.0001), board: null, word: 'crystal' },
  connector: { unit: null, mode: null, tolerance: about(0), board: null, word: 'connector' },
  switch: { unit: null, mode: null, tolerance: about(0), board: null, word: 'switch' },
  mechanical: { unit: null, mode: null, tolerance: about(0), board: null, word: 'mechanical part' },
  link: { unit: null, mode: null, tolerance: about(0), board: null, word: 'wire link' },
  other: { unit: null, mode: null, tolerance: about(0), board: null, word: 'part' },
};

/** What a good piece of a line reads on the meter: limits in the unit of the mode; null when it is only counted. */
export interface LineExpectation {
  readonly mode: NonNullable<KindFacts['mode']>;
  readonly unit: Unit;
  readonly nominal: number;
  readonly tolerance: readonly [number, number];
  /** Where the limits come from, in words. */
  readonly from: string;
}

/** Forward volts on a meter's diode test (common practice, no source). */
const FORWARD: Readonly<Record<string, readonly [number, number]>> = { diode: [0.45, 0.8], zener: [0.55, 0.85] };
const LED_FORWARD: Readonly<Record<string, readonly [number, number]>> = {
  infrared: [0.95, 1.35],
  red: [1.55, 2.05],
  orange: [1.7, 2.1],
  yellow: [1.75, 2.2],
  green: [1.8, 2.4],
  blue: [2.5, 3.2],
  white: [2.5, 3.2],
};

export function expectationOf(line: Line): LineExpectation | null {
  const facts = KIND_FACTS[line.kind];
  if (!facts.mode) return null;
  if (facts.mode === 'diode')
    return byLimits(
      'diode',
      'V',
      line.kind === 'led' ? (LED_FORWARD[line.colour?.toLowerCase() ?? ''] ?? [1.5, 3.3]) : FORWARD[line.kind]!,
      'usual forward voltage',
    );
  if (facts.mode === 'hfe') return byLimits('hfe', 'ratio', line.range ?? [50, 800], line.range ? 'hFE range of the list' : 'usual small-signal hFE');
  if (line.value === null || line.value === 0) return null;
  return {
    mode: facts.mode,
    unit: facts.unit!,
    nominal: line.value,
    tolerance: line.tolerance ?? facts.tolerance,
    from: line.tolerance ? 'as listed' : `usual for a ${facts.word}`,
  };
}

function byLimits(mode: 'diode' | 'hfe', unit: Unit, [low, high]: readonly [number, number], from: string): LineExpectation {
  const nominal = (low + high) / 2;
  return { mode, unit, nominal, tolerance: [low / nominal - 1, high / nominal - 1], from };
}
