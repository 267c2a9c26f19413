import type { Ref } from '../kit';

/** One thing to look at, with what to do when it is not good. */
export interface LookItem {
  readonly id: string;
  readonly title: string;
  /** What is seen when it is good. */
  readonly good: string;
  readonly remedy: string;
  readonly refs: readonly Ref[];
  /** Likelihood times harm: what comes first (own figures, after common practice). */
  readonly weight: number;
}
