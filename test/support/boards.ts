import type { BoardPart } from '@/core/fault/board';

/** A part of a board with what most of them have. */
export const part = (ref: string, kind: BoardPart['kind'], more: Partial<BoardPart> = {}): BoardPart => ({
  ref,
  element: ref,
  kind,
  value: null,
  model: null,
  tolerance: [-0.05, 0.05],
  range: null,
  ...more,
});
