import type { Unit } from '../quantity';
import type { PartMode } from './modes';

/** A loose part as the eye sorts a bag: what is counted by hand (trimmers, sensors, chips) is none of these. */
const LOOSE_KINDS = ['R', 'C', 'L', 'D', 'LED', 'Q'] as const;
export type LooseKind = (typeof LOOSE_KINDS)[number];
/** Kinds of pieces that are on no line; `X` is anything else, which only has a name. */
export const PIECE_KINDS = [...LOOSE_KINDS, 'X'] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];

/** What the fault finder takes a part for. */
export const BOARD_KINDS = [
  'supply',
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
  'npn',
  'pnp',
  'nmos',
  'pmos',
  'njf',
  'pjf',
  'opamp',
  'chip',
] as const;
export type BoardKind = (typeof BOARD_KINDS)[number];

interface KindFacts {
  readonly word: string;
  /** Unit of its value on the list; null for parts known by type only. */
  readonly unit: Unit | null;
  /** How a loose piece is measured; null when it is only counted. */
  readonly mode: PartMode | null;
  /** Tolerance of parts whose list gives none (common practice, no source). */
  readonly tolerance: readonly [number, number];
  /** Null when it has no place in a circuit. */
  readonly board: BoardKind | null;
  /** Null when nobody would take it for one of the loose pile's parts. */
  readonly loose: LooseKind | null;
}

const about = (share: number): readonly [number, number] => [-share, share];
const nothing = { unit: null, mode: null, tolerance: about(0), board: null, loose: null } as const;
const ohmic = { unit: 'ohm', mode: 'ohms', loose: null } as const;
const gained = { unit: 'ratio', mode: 'hfe', tolerance: about(0.5), loose: 'Q' } as const;
const gated = { unit: 'V', mode: null, loose: null } as const;

/** The kinds of part that a list can hold, each told once. */
export const KIND_FACTS = {
  resistor: { ...ohmic, word: 'resistor', tolerance: about(0.05), board: 'resistor', loose: 'R' },
  network: { ...ohmic, word: 'resistor network', tolerance: about(0.05), board: 'resistor' },
  capacitor: { word: 'capacitor', unit: 'F', mode: 'capacitance', tolerance: about(0.2), board: 'capacitor', loose: 'C' },
  electrolytic: { word: 'electrolytic capacitor', unit: 'F', mode: 'capacitance', tolerance: [-0.2, 0.8], board: 'electrolytic', loose: 'C' },
  tantalum: { word: 'tantalum capacitor', unit: 'F', mode: 'capacitance', tolerance: about(0.2), board: 'electrolytic', loose: 'C' },
  inductor: { word: 'coil', unit: 'H', mode: 'inductance', tolerance: about(0.2), board: 'inductor', loose: 'L' },
  trimmer: { ...ohmic, word: 'trimmer', tolerance: about(0.2), board: 'resistor' },
  potentiometer: { ...ohmic, word: 'potentiometer', tolerance: about(0.2), board: 'resistor' },
  varistor: { ...nothing, word: 'varistor' },
  thermistor: { ...ohmic, word: 'thermistor', tolerance: about(0.1), board: 'thermistor' },
  ldr: { ...ohmic, word: 'light-dependent resistor', tolerance: about(0.5), board: 'ldr' },
  lamp: { ...ohmic, word: 'lamp', tolerance: about(0.3), board: 'lamp' },
  fuse: { ...ohmic, word: 'fuse', tolerance: about(0.5), board: 'fuse' },
  // The direct-current resistance of a voice coil is a little below its impedance (common practice, no source).
  loudspeaker: { ...ohmic, word: 'loudspeaker', tolerance: [-0.3, 0.1], board: 'coil' },
  transformer: { ...nothing, word: 'transformer' },
  relay: { ...ohmic, word: 'relay', tolerance: about(0.1), board: 'coil' },
  diode: { word: 'diode', unit: 'V', mode: 'diode', tolerance: about(0.2), board: 'diode', loose: 'D' },
  zener: { word: 'zener diode', unit: 'V', mode: 'diode', tolerance: about(0.05), board: 'zener', loose: 'D' },
  bridge: { ...nothing, word: 'bridge rectifier', board: 'chip' },
  led: { word: 'LED', unit: 'V', mode: 'diode', tolerance: about(0.2), board: 'led', loose: 'LED' },
  npn: { ...gained, word: 'NPN transistor', board: 'npn' },
  pnp: { ...gained, word: 'PNP transistor', board: 'pnp' },
  nmos: { ...gated, word: 'N-channel MOSFET', tolerance: about(0.3), board: 'nmos' },
  pmos: { ...gated, word: 'P-channel MOSFET', tolerance: about(0.3), board: 'pmos' },
  njf: { ...gated, word: 'N-channel JFET', tolerance: about(0.5), board: 'njf' },
  pjf: { ...gated, word: 'P-channel JFET', tolerance: about(0.5), board: 'pjf' },
  opamp: { ...nothing, word: 'operational amplifier', board: 'opamp' },
  regulator: { ...nothing, word: 'voltage regulator', tolerance: about(0.04), board: 'chip' },
  timer: { ...nothing, word: 'timer chip', board: 'chip' },
  ic: { ...nothing, word: 'chip', board: 'chip' },
  microcontroller: { ...nothing, word: 'microcontroller', board: 'chip' },
  optocoupler: { ...nothing, word: 'optocoupler', board: 'chip' },
  display: { ...nothing, word: 'display' },
  module: { ...nothing, word: 'module', board: 'chip' },
  buzzer: { ...nothing, word: 'buzzer' },
  microphone: { ...nothing, word: 'microphone' },
  motor: { ...nothing, word: 'motor' },
  battery: { ...nothing, word: 'battery' },
  holder: { ...nothing, word: 'holder' },
  socket: { ...nothing, word: 'socket' },
  crystal: { ...nothing, word: 'crystal', unit: 'Hz', tolerance: about(0.0001) },
  connector: { ...nothing, word: 'connector' },
  switch: { ...nothing, word: 'switch', board: 'contact' },
  heatsink: { ...nothing, word: 'heat sink' },
  mechanical: { ...nothing, word: 'mechanical part' },
  case: { ...nothing, word: 'case' },
  board: { ...nothing, word: 'bare board' },
  wire: { ...nothing, word: 'wire' },
  consumable: { ...nothing, word: 'consumable' },
  document: { ...nothing, word: 'paper' },
  link: { ...nothing, word: 'wire link', board: 'contact' },
  other: { ...nothing, word: 'part' },
} as const satisfies Readonly<Record<string, KindFacts>>;

export type LineKind = keyof typeof KIND_FACTS;
export const LINE_KINDS = Object.keys(KIND_FACTS) as readonly LineKind[];

/** Chips with legs in rows; regulators look like transistors. */
export const CHIP_KINDS: readonly LineKind[] = ['opamp', 'timer', 'ic', 'microcontroller', 'optocoupler'];

/** Facts of a kind, in the general type. */
export const factsOf = (kind: LineKind): KindFacts => KIND_FACTS[kind];

export const LOOSE_FACTS = {
  R: { word: 'resistor', mode: 'ohms' },
  C: { word: 'capacitor', mode: 'capacitance' },
  L: { word: 'coil', mode: 'inductance' },
  D: { word: 'diode', mode: 'diode' },
  LED: { word: 'LED', mode: 'diode' },
  Q: { word: 'transistor', mode: 'hfe' },
  X: { word: 'part', mode: 'ohms' },
} as const satisfies Readonly<Record<PieceKind, { readonly word: string; readonly mode: PartMode }>>;
