import { create } from 'zustand';

export type SheetTab = 'list' | 'stages' | 'places' | 'facts' | 'correct' | 'parcels';

/** Which part of the sheet is open: other views lead to one. */
export const useSheetTab = create<{ readonly tab: SheetTab; readonly open: (tab: SheetTab) => void }>((set) => ({
  tab: 'list',
  open: (tab) => {
    set({ tab });
  },
}));
