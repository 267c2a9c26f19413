/** Where a reading is expected on a healthy board. In the unit of the mode. */
export interface ComputedWindow {
  readonly low: number;
  readonly middle: number;
  /** Infinity where over-range is what a healthy board shows. */
  readonly high: number;
  /** Share of the window that is the meter's allowance, half-width. */
  readonly meter: number;
  /** A healthy board reads over-range here. */
  readonly over: boolean;
}

/** Why there is no window, in words with the remedy. */
export interface NoWindow {
  readonly none: string;
}
export type WindowResult = ComputedWindow | NoWindow;

/** The window that was computed, or null. */
export const computedWindow = (result: WindowResult | null | undefined): ComputedWindow | null => (result && !('none' in result) ? result : null);
