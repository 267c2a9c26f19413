import type { EntryBody, KitState, ObserveCheck } from '../kit';

/** A moment of a long run at which the board is touched and looked at. */
export interface SoakMoment {
  readonly channel: string;
  readonly minutes: number;
}

const MINUTES = /^(?:after )?(\d+(?:\.\d+)?) ?min(?:utes)?$/i;

/** Moments of a check whose channels are times, such as `after 5 min`, in their order; empty for any other check. */
export function soakMoments(check: ObserveCheck): readonly SoakMoment[] {
  const moments = (check.channels ?? []).map((channel) => ({ channel, minutes: Number(MINUTES.exec(channel)?.[1] ?? Number.NaN) }));
  return moments.every((m) => m.minutes > 0) ? [...moments].sort((a, b) => a.minutes - b.minutes) : [];
}

const reasonOf = (check: ObserveCheck, { channel }: SoakMoment) => `${check.title}, ${channel}: touch it`;

/** Whether the clock of a long run is running: one of its moments is waited for. */
export const isSoaking = (kit: KitState, check: ObserveCheck): boolean =>
  soakMoments(check).some((m) => kit.waiting.some((w) => w.reason === reasonOf(check, m)));

/** The entries that start the clock of a long run: a timer for each of its moments. `now`: milliseconds since 1970. */
export const soakStarted = (check: ObserveCheck, now: number): EntryBody[] =>
  soakMoments(check).map((m) => ({ kind: 'waiting', reason: reasonOf(check, m), until: new Date(now + 60_000 * m.minutes).toISOString() }));
