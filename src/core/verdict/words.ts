import type { Verdict } from './conformity';

/** A verdict as every screen and paper says it. */
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = { in: 'OK', doubtful: 'borderline', out: 'out of range', none: 'not judged' };
