'use client';
import type { KitState } from '@/core/kit';
import type { Windows } from '@/core/loop';
import { useResult } from './useResult';

const NO_CIRCUIT: Windows = {};

/** The windows to judge by: null while they are being worked out, empty for a kit without a circuit. */
export function useWindows(kit: KitState): Windows | null {
  const { state, value } = useResult('windows', kit, undefined);
  if (!kit.sheet.circuit || state === 'failed') return NO_CIRCUIT;
  return state === 'fresh' ? value : null;
}
