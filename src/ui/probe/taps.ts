import { create } from 'zustand';
import { rateOf, type Target, tapped, type Taps } from '@/core/loop';

interface Tapping {
  /** What is tapped along with, and the taps so far. */
  readonly target: string;
  readonly taps: Taps;
}

/** Blinks and beeps that are counted by tapping a key: apart from the rest, so that a tap draws the count and nothing else. */
export const useTaps = create<Tapping>(() => ({ target: '', taps: [] }));

/** Whether a target can be tapped along with: a frequency, or something that is looked at or listened to. */
export const canTap = (target: Target | null): boolean => target?.kind === 'check' && (target.check.what === 'observe' || target.check.mode === 'frequency');

const DIGITS = 3;
/** The rate as it is typed, hertz; empty while the taps are too few. */
export function tappedText(): string {
  const rate = rateOf(useTaps.getState().taps);
  return rate === null ? '' : String(Number(rate.toPrecision(DIGITS)));
}

/** One more tap for a target, and the rate into the field where there is one. */
export function tap(id: string, setText: ((text: string) => void) | null): void {
  useTaps.setState(({ target, taps }) => ({ target: id, taps: tapped(target === id ? taps : [], performance.now()) }));
  setText?.(tappedText());
}

/** Another target is in the hand: what was tapped for the one before is no text of its field. */
export function forgetTaps(id: string): void {
  useTaps.setState((was) => (was.target === id ? was : { target: '', taps: [] }));
}
