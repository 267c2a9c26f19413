import { useMemo } from 'react';
import type { KitState, Sheet } from '@/core/kit';
import { useResult } from '../results/useResult';

/** What the map is drawn from: places that the kit tells, places laid out from the circuit, or none at all. */
export type MapSource = 'told' | 'circuit' | 'none';

/** The sheet with a place for every part that can have one. */
export function useMapSheet(kit: KitState): { readonly sheet: Sheet; readonly source: MapSource } {
  const { sheet } = kit;
  const told = sheet.placement.length > 0;
  const { value } = useResult('layout', kit, undefined, !told && sheet.circuit !== null);
  return useMemo(() => {
    if (told || !value || value.length === 0) return { sheet, source: told ? 'told' : 'none' };
    const known = new Set(sheet.lines.flatMap((l) => l.refs));
    return { sheet: { ...sheet, placement: value.filter((p) => known.has(p.ref)) }, source: 'circuit' };
  }, [sheet, told, value]);
}
