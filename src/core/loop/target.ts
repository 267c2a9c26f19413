import type { Check, Line, LineExpectation, Ref, Stage, TestPoint } from '../kit';
import type { LooseKind } from '../vocabulary';
import type { LookItem } from './look';
import type { OpenPoint } from './openPoint';

/** The thing under the probes. There is always exactly one, whatever the phase. */
export type Target =
  | { readonly kind: 'count'; readonly id: string; readonly line: Line }
  | { readonly kind: 'piece'; readonly id: string; readonly line: Line; readonly piece: number; readonly ref: Ref | null; readonly expected: LineExpectation }
  | { readonly kind: 'fit'; readonly id: string; readonly stage: Stage | null; readonly line: Line; readonly refs: readonly Ref[] }
  | { readonly kind: 'check'; readonly id: string; readonly stage: Stage; readonly check: Check; readonly channel: string | null }
  | { readonly kind: 'loose'; readonly id: string; readonly part: LooseKind; readonly number: number }
  | { readonly kind: 'probe'; readonly id: string; readonly stage: Stage; readonly testPoint: TestPoint }
  | { readonly kind: 'inspect'; readonly id: string; readonly item: LookItem }
  /** What is set and confirmed before a stage is begun. */
  | { readonly kind: 'prepare'; readonly id: string; readonly stage: Stage; readonly presets: readonly string[]; readonly open: readonly OpenPoint[] }
  /** Two pads, `ref.pin`, under the continuity tester; `drawn`: whether they should beep. */
  | {
      readonly kind: 'trace';
      readonly id: string;
      readonly pads: readonly [string, string];
      readonly nets: readonly [string, string];
      readonly drawn: boolean;
      /** Millimetres on the map; null where the board has no places. */
      readonly places: readonly [MapPlace, MapPlace] | null;
    };

/** Phases of the work in their order, then what stands beside it. */
export type Phase = 'unpack' | 'check' | 'fit' | 'power' | 'fault' | 'log' | 'sheet' | 'circuit' | 'functions' | 'instruments' | 'practice';

interface MapPlace {
  readonly x: number;
  readonly y: number;
}

/** A target and whether it is dealt with. */
export interface TargetState {
  readonly target: Target;
  readonly done: boolean;
}
