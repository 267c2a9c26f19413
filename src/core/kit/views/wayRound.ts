import type { KitState } from '../state';

/** The item of a look under which is kept which way round something goes that carries no mark. */
export const wayItem = (what: string): string => `which/${what}`;

/** What was found out of the way round of a part's place on the board; null where nobody tried. */
export const foundWay = (kit: KitState, ref: string): string | null => kit.inspected.get(wayItem(ref))?.entry.title ?? null;
