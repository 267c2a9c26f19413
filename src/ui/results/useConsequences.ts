'use client';
import type { ConsequenceText } from '@/core/consequence';
import type { KitState } from '@/core/kit';
import { useResult } from './useResult';
import { useWindows } from './useWindows';

const NOTHING: Readonly<Record<string, ConsequenceText>> = {};

/** What deviating pieces would do where they are meant to go, by target; nothing while it is being worked out. */
export function useConsequences(kit: KitState): Readonly<Record<string, ConsequenceText>> {
  const windows = useWindows(kit);
  const { state, value } = useResult('consequences', kit, windows ?? NO_WINDOWS, windows !== null);
  return state === 'fresh' ? value : NOTHING;
}

const NO_WINDOWS = {};

/** How much each ref matters; empty until it is known. */
export function useInfluence(kit: KitState): Readonly<Record<string, number>> {
  const windows = useWindows(kit);
  const { value } = useResult('influence', kit, windows ?? NO_WINDOWS, windows !== null);
  return value ?? NO_INFLUENCE;
}

const NO_INFLUENCE: Readonly<Record<string, number>> = {};
