import { create } from 'zustand';

interface Elsewhere {
  /** The kit whose earlier stages are asked for readings, too. */
  readonly kit: string | null;
  readonly look: (kit: string) => void;
}

/** Whether readings of earlier stages are proposed: when those of the stage in hand cannot decide. */
export const useElsewhere = create<Elsewhere>((set) => ({
  kit: null,
  look: (kit) => {
    set({ kit });
  },
}));
