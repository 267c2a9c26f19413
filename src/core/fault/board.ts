import type { Circuit } from '../circuit';
import { BIPOLAR_PINS, type BoardKind, FET_PINS } from '../vocabulary';

/**
 * The parts of a board as the fault finder sees them: what each is, what it should be, and how far good ones differ.
 */

export interface BoardPart {
  readonly ref: string;
  /** Name of its element in the deck: `R1`, or `XU1` for a part modelled by a sub-circuit. */
  readonly element: string;
  /** All its elements, where the deck holds one part as several: halves of a control, sections of a network. */
  readonly elements?: readonly string[] | undefined;
  /** A control, a row of resistors, or something that hangs on the board from outside: it fits no other part's place. */
  readonly body?: 'control' | 'network' | 'outside' | undefined;
  readonly kind: BoardKind;
  /** A chip does what a program in it says: it may be blank. */
  readonly programmed?: boolean | undefined;
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

/** An option that jumpers or straps set: its elements in the circuit begin with `element`. */
export interface BoardStrap {
  /** The option in words. */
  readonly option: string;
  readonly element: string;
  readonly choice: string;
  /** Pairs of nets that each choice connects. */
  readonly links: readonly { readonly choice: string; readonly nets: readonly (readonly [string, string])[] }[];
}

/** A track that may be broken: what ends beyond the break, and the refs there. */
export interface BoardTrack {
  readonly net: string;
  readonly beyond: readonly string[];
  readonly ends: readonly { readonly element: string; readonly node: number }[];
}

export interface Board {
  readonly parts: readonly BoardPart[];
  readonly straps?: readonly BoardStrap[] | undefined;
  /** Where tracks may be broken, by the map. */
  readonly tracks?: readonly BoardTrack[] | undefined;
  /** Ohms of pieces of the parcel that no line wants. */
  readonly strangers?: readonly number[] | undefined;
  /** Pairs of nets whose pads lie side by side, where solder can bridge. */
  readonly neighbours: readonly (readonly [string, string])[];
  /** The circuit of the finished board: where a piece sits in the place of one that is not fitted yet, it tells what that piece is. */
  readonly finished?: Circuit | undefined;
}

const TWO_TERMINAL = new Set<BoardKind>([
  'fuse',
  'contact',
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
const TRANSISTOR = new Set<BoardKind>(['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf']);

/** Elements of a part, one or several. */
export const elementsOfPart = (p: BoardPart): readonly string[] => p.elements ?? [p.element];

export const isTwoTerminal = (p: BoardPart) => TWO_TERMINAL.has(p.kind);
export const isTransistor = (p: BoardPart) => TRANSISTOR.has(p.kind);
export const isBipolar = (p: BoardPart) => p.kind === 'npn' || p.kind === 'pnp';
export const isFet = (p: BoardPart) => isTransistor(p) && !isBipolar(p);
export const pinsOf = (p: BoardPart): readonly [string, string, string] => (isBipolar(p) ? BIPOLAR_PINS : FET_PINS);
