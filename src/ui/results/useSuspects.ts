'use client';
import type { Findings } from '@/core/diagnose';
import type { KitState } from '@/core/kit';
import { type Result, runner } from '@/store/results';
import { useElsewhere } from '../fault/elsewhere';
import { useResult } from './useResult';

/** Share of a first ranking that goes into the rough predictions; the rest looks closely at those in question. */
const PREDICTING = 0.6;

export interface Suspects {
  readonly result: Result<Findings | null>;
  /** 0..1 over both parts of the work; null when none is going on. */
  readonly progress: number | null;
  /** Stopped by hand. */
  readonly stopped: boolean;
  stop: () => void;
  again: () => void;
}

/** The suspects: first what every fault would show, then who explains the readings. */
export function useSuspects(kit: KitState, when: boolean): Suspects {
  const elsewhere = useElsewhere((s) => s.kit === kit.id);
  const predictions = useResult('predictions', kit, elsewhere, when);
  const ready = predictions.state === 'fresh';
  const suspects = useResult('suspects', kit, elsewhere, when && ready);
  const kept = useResult('suspects', kit, elsewhere, false);
  const predicting = predictions.state === 'working' || predictions.state === 'stale';
  const ranking = ready && (suspects.state === 'working' || suspects.state === 'stale');
  const failed = predictions.state === 'failed' ? predictions : null;
  return {
    result: failed ?? (ready ? suspects : kept),
    progress: predicting ? PREDICTING * predictions.progress : ranking ? PREDICTING + (1 - PREDICTING) * suspects.progress : null,
    stopped: when && kit.sheet.circuit !== null && predictions.state === 'none',
    stop: () => {
      runner.stop('predictions');
    },
    again: () => {
      runner.again('predictions');
    },
  };
}
