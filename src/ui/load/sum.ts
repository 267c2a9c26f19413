import type { ClaimMeans } from '@/core/load';
import type { Unit } from '@/core/quantity';

/** A value that a sum asks for. Choices are picked, texts pasted, all else is a quantity. */
export interface SumField {
  readonly key: string;
  readonly label: string;
  readonly unit?: Unit | null;
  readonly initial?: string;
  readonly optional?: true;
  /** May be nothing, or below it. */
  readonly least?: 0 | 'any';
  readonly choices?: readonly (readonly [value: string, label: string])[];
  readonly rows?: string;
}

export interface Said {
  readonly text: string;
  readonly tone: 'plain' | 'in' | 'doubtful' | 'out';
}

export interface Drawn {
  readonly xTitle: string;
  readonly yTitle: string;
  readonly label: string;
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** Single points: what was read. */
  readonly marks?: { readonly x: readonly number[]; readonly y: readonly number[] };
}

export interface Sum {
  readonly id: string;
  readonly title: string;
  readonly about: string;
  readonly fields: readonly SumField[];
  /** @throws Error that says what is wrong with what was given */
  readonly run: (given: Given) => Answer;
}

export interface Answer {
  readonly said: readonly Said[];
  readonly drawn?: Drawn;
  /** What was claimed, where the sum is about a claim. */
  readonly means?: ClaimMeans;
  /** Volts over amperes of a load test, to be held against the circuit. */
  readonly loaded?: { readonly amps: readonly number[]; readonly volts: readonly number[] };
}

/** What was given: quantities in SI (NaN where none), texts as they stand. */
export interface Given {
  readonly of: (key: string) => number;
  readonly maybe: (key: string) => number | null;
  readonly text: (key: string) => string;
}

export const plain = (text: string): Said => ({ text, tone: 'plain' });
/** A field only where there is a value. */
export const withValue = <T extends object>(value: number | null, of: (value: number) => T): T | Record<string, never> => (value === null ? {} : of(value));
