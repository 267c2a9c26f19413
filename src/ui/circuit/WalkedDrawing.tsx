import { useMemo } from 'react';
import type { Line } from '@/core/kit';
import { Nothing } from '../drawn/Nothing';
import { useAnswer } from '../results/useResult';
import { NOT_LIVE } from './live';
import { SchematicSheet } from './SchematicSheet';

const NO_VOLTS: Readonly<Record<string, number>> = {};
const NO_READINGS: ReadonlyMap<string, number> = new Map();

/** The schematic so far: it grows with every answer, and the part that is asked about is lit once it stands there. */
export function WalkedDrawing({ lines, deck, inHand }: { readonly lines: readonly Line[]; readonly deck: string; readonly inHand: string | null }) {
  const asked = useMemo(() => ({ lines, deck }), [lines, deck]);
  const { state, value: drawing } = useAnswer('walked', asked);
  const live = useMemo(() => ({ ...NOT_LIVE, suspected: new Set(inHand === null ? [] : [inHand]) }), [inHand]);
  if (drawing) return <SchematicSheet drawing={drawing} school="box" volts={NO_VOLTS} seen={NO_READINGS} live={live} />;
  if (state === 'failed') return <Nothing say="This cannot be drawn yet. The answers are kept; the table of connections lists them." />;
  return <Nothing say="The schematic grows here with every answer." />;
}
