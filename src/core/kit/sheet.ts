import { type MeterMode } from '../meter';

/** A position on a board: `R7`, or `B:R7` when a kit has several boards. */
export type Ref = string;

export type LineKind =
  | 'resistor'
  | 'capacitor'
  | 'electrolytic'
  | 'inductor'
  | 'trimmer'
  | 'thermistor'
  | 'ldr'
  | 'lamp'
  | 'fuse'
  | 'relay'
  | 'diode'
  | 'zener'
  | 'led'
  | 'npn'
  | 'pnp'
  | 'nmos'
  | 'pmos'
  | 'njf'
  | 'pjf'
  | 'opamp'
  | 'ic'
  | 'crystal'
  | 'connector'
  | 'switch'
  | 'mechanical'
  | 'link'
  | 'other';

/** What should be on one row of the parts list. */
export interface Line {
  readonly id: string;
  readonly kind: LineKind;
  /** As the list prints it: `10k 1 %`, `1N4148`, `LED green 5 mm`. */
  readonly label: string;
  /** Nominal value in the SI unit of the kind; null for parts known by type only. */
  readonly value: number | null;
  /** Relative limits such as −0.05 and 0.05; null when the list gives none. */
  readonly tolerance: readonly [number, number] | null;
  readonly quantity: number;
  readonly refs: readonly Ref[];
  /** Type number: `1N4148`. */
  readonly type?: string | undefined;
  readonly package?: string | undefined;
  readonly colour?: string | undefined;
  /** hFE, or threshold volts of a field-effect transistor, among good parts. */
  readonly range?: readonly [number, number] | undefined;
  readonly rating?: { readonly volts?: number | undefined; readonly watts?: number | undefined; readonly amperes?: number | undefined } | undefined;
  /** Only fitted in this edition or with this option. */
  readonly option?: string | undefined;
  /** A place on the board that stays empty. */
  readonly notFitted?: boolean | undefined;
  /** Slip or message that changed the printed list, in words. */
  readonly amendment?: string | undefined;
  readonly note?: string | undefined;
}

export interface BoardSheet {
  readonly id: string;
  readonly name: string;
  readonly revision?: string | undefined;
}

/** Wanted but not supplied. */
export interface Need {
  readonly id: string;
  readonly kind: 'supply' | 'load' | 'battery' | 'firmware' | 'lead' | 'tool' | 'other';
  readonly text: string;
  readonly volts?: number | undefined;
  readonly amperes?: number | undefined;
  readonly ohms?: number | undefined;
  readonly watts?: number | undefined;
  readonly plug?: string | undefined;
  readonly polarity?: 'centre-plus' | 'centre-minus' | undefined;
}

/** An edition, a strap or an extra that changes what is fitted. */
export interface KitOption {
  readonly id: string;
  readonly text: string;
  readonly choices: readonly string[];
}

export interface CircuitSheet {
  /** SPICE deck. */
  readonly deck: string;
  /** Element of the deck for a ref, where the two names differ. */
  readonly elements?: Readonly<Record<Ref, string>> | undefined;
  /** Pairs of nets whose pads lie side by side. */
  readonly neighbours?: readonly (readonly [string, string])[] | undefined;
}

export interface TestPoint {
  readonly id: string;
  readonly net: string;
  /** Where to find it: `lead of R11 next to U1`. */
  readonly where: string;
  /** Place on the drawing of the board, millimetres. */
  readonly x?: number | undefined;
  readonly y?: number | undefined;
}

/** Place of a part on the drawing of its board, millimetres and degrees. */
export interface Placement {
  readonly ref: Ref;
  readonly x: number;
  readonly y: number;
  readonly rotation: number;
}

/** Where a probe goes. */
export type ProbePoint = { readonly testPoint: string } | { readonly net: string } | { readonly ref: Ref; readonly pin: string };

export interface TypedWindow {
  readonly low: number;
  readonly high: number;
}

interface CheckBase {
  readonly id: string;
  readonly title: string;
  readonly note?: string | undefined;
}
/** A measurement with its two points; `window` only when the kit's own instructions give one. */
export interface MeasureCheck extends CheckBase {
  readonly what: 'measure';
  readonly mode: Extract<MeterMode, 'dcv' | 'dca' | 'ohms' | 'diode' | 'frequency'>;
  readonly red: ProbePoint;
  readonly black: ProbePoint;
  /** `dca`: the supply whose display is read. */
  readonly source?: string | undefined;
  readonly window?: TypedWindow | undefined;
}
/** Do this, expect that; with channels each is tried by itself. */
export interface ObserveCheck extends CheckBase {
  readonly what: 'observe';
  readonly action: string;
  readonly expect: string;
  readonly channels?: readonly string[] | undefined;
  /** What shows it in the circuit: this part carries at least (or, when negative, less than) so many amperes. */
  readonly sign?: { readonly ref: Ref; readonly amperes: number } | undefined;
}
export type Check = MeasureCheck | ObserveCheck;

export interface StageSupply {
  /** Voltage source of the deck. */
  readonly source: string;
  readonly volts: number;
  /** Current limit to set, amperes. */
  readonly limit: number;
}

export interface Stage {
  readonly id: string;
  readonly title: string;
  readonly kind: 'look' | 'cold' | 'power' | 'adjust' | 'load' | 'run';
  readonly note?: string | undefined;
  /** Refs fitted before this stage, beyond those of the stages above. */
  readonly fits: readonly Ref[];
  /** Refs taken out or unplugged for this stage only. */
  readonly without?: readonly Ref[] | undefined;
  /** Positions and values to set: a control at 0..1, a jumper, a condition such as a sensor's ohms. */
  readonly settings?: readonly { readonly ref: Ref; readonly value: number; readonly text: string }[] | undefined;
  readonly supplies: readonly StageSupply[];
  readonly cautions?: readonly string[] | undefined;
  readonly checks: readonly Check[];
}

/** Something the kit promises, such as `output 1.25 to 15 V`. */
export interface Claim {
  readonly id: string;
  readonly text: string;
  readonly check?: string | undefined;
}

/** A data sheet, typed once. Each figure with its source. */
export interface TypeCard {
  readonly type: string;
  readonly pins: Readonly<Record<string, readonly string[]>>;
  readonly figures: readonly { readonly name: string; readonly value: number; readonly unit: string; readonly source: string }[];
}

export interface Photo {
  readonly id: string;
  readonly name: string;
  /** Data URL. */
  readonly data: string;
  readonly pins?: readonly { readonly ref: Ref; readonly x: number; readonly y: number }[] | undefined;
}

/** What should be. Edited rarely; `revision` grows with every edit. */
export interface Sheet {
  readonly revision: number;
  readonly title: string;
  readonly maker?: string | undefined;
  readonly edition?: string | undefined;
  readonly note?: string | undefined;
  readonly boards: readonly BoardSheet[];
  readonly lines: readonly Line[];
  readonly needs: readonly Need[];
  readonly options: readonly KitOption[];
  readonly circuit: CircuitSheet | null;
  readonly testPoints: readonly TestPoint[];
  readonly placement: readonly Placement[];
  readonly stages: readonly Stage[];
  readonly claims: readonly Claim[];
  readonly typeCards: readonly TypeCard[];
  readonly photos: readonly Photo[];
}
