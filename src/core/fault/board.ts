/**
 * The parts of a board as the fault finder sees them: what each is, what it should be, and how far good ones differ.
 */

export type BoardPartKind =
  | 'supply'
  | 'fuse'
  | 'resistor'
  | 'capacitor'
  | 'electrolytic'
  | 'inductor'
  | 'thermistor'
  | 'ldr'
  | 'lamp'
  | 'coil'
  | 'diode'
  | 'zener'
  | 'led'
  | 'npn'
  | 'pnp'
  | 'nmos'
  | 'pmos'
  | 'njf'
  | 'pjf'
  | 'opamp';

export interface BoardPart {
  readonly ref: string;
  /** Name of its element in the deck: `R1`, or `XU1` for a part modelled by a sub-circuit. */
  readonly element: string;
  readonly kind: BoardPartKind;
  /** Nominal value, SI; null for parts that have a model instead. */
  readonly value: number | null;
  /** Model name for semiconductors. */
  readonly model: string | null;
  /** Relative limits of the value, such as −0.05 and 0.05. */
  readonly tolerance: readonly [number, number];
  /** Range of hFE (bipolar) or threshold volts (field effect) among good parts; null when unknown. */
  readonly range: readonly [number, number] | null;
  /** Measured value of the very piece that is fitted, with its standard uncertainty; replaces value and tolerance. */
  readonly measured?: { readonly value: number; readonly standard: number } | undefined;
}

export interface Board {
  readonly parts: readonly BoardPart[];
  /** Pairs of nets whose pads lie side by side, where solder can bridge. */
  readonly neighbours: readonly (readonly [string, string])[];
}

const TWO_TERMINAL = new Set<BoardPartKind>([
  'fuse',
  'resistor',
  'capacitor',
  'electrolytic',
  'inductor',
  'thermistor',
  'ldr',
  'lamp',
  'coil',
  'diode',
  'zener',
  'led',
]);
const TRANSISTOR = new Set<BoardPartKind>(['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf']);

export const isTwoTerminal = (p: BoardPart) => TWO_TERMINAL.has(p.kind);
export const isTransistor = (p: BoardPart) => TRANSISTOR.has(p.kind);
export const isBipolar = (p: BoardPart) => p.kind === 'npn' || p.kind === 'pnp';
export const isFet = (p: BoardPart) => isTransistor(p) && !isBipolar(p);
