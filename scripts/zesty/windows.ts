import { foldDocument } from '../../src/core/kit';
import { allWindows, windowInputs, type Windows } from '../../src/core/stage/index';
import { checkObservableId } from '../../src/core/vocabulary';
import { documentAt } from './kit';
import type { Request } from './main';

/** Where a healthy board reads, for every measuring check of every stage of a kit. */
export function windows(request: Request): object {
  const kit = foldDocument(documentAt(request));
  const inputs = windowInputs(kit);
  const computed: Windows = inputs ? allWindows(inputs) : {};
  const windowAt = (place: { stage: string; check: string }): object => {
    const window = computed[checkObservableId(place.stage, place.check)];
    if (!window) return { ...place, none: 'The kit has no circuit.' };
    if ('none' in window) return { ...place, none: window.none };
    return { ...place, low: window.low, high: Number.isFinite(window.high) ? window.high : null };
  };
  return {
    windows: kit.sheet.stages.flatMap((stage) => stage.checks.flatMap((c) => (c.what === 'measure' ? [windowAt({ stage: stage.id, check: c.id })] : []))),
  };
}
