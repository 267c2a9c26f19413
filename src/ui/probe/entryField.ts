import { create } from 'zustand';

interface EntryField {
  readonly text: string;
  readonly error: string | null;
}

/** What stands in the entry field: apart from the rest, so that a keystroke draws the field and nothing else. */
export const useEntryField = create<EntryField>(() => ({ text: '', error: null }));
