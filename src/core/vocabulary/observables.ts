/**
 * Names of what can be read on a board: `stage/check`, or `stage/@test point`. A reading that met another board than the
 * last one of its stage carries that board's number behind a `#`.
 */
export const checkObservableId = (stage: string, check: string) => `${stage}/${check}`;
export const probeObservableId = (stage: string, testPoint: string) => `${stage}/@${testPoint}`;
export const onBoard = (observable: string, board: number) => `${observable}#${board}`;

export interface ObservablePlace {
  readonly stage: string;
  readonly check: string | null;
  readonly testPoint: string | null;
}

/** The stage and the check or test point that an observable's name means. */
export function placeOf(id: string): ObservablePlace {
  const plain = id.replace(/#\d+$/, '');
  const cut = plain.indexOf('/');
  const [stage, place] = cut < 0 ? [plain, ''] : [plain.slice(0, cut), plain.slice(cut + 1)];
  return place.startsWith('@') ? { stage, check: null, testPoint: place.slice(1) } : { stage, check: place, testPoint: null };
}
