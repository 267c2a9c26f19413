import { useBench } from '@/store/bench';

/** Undoes the last change of the sheet (lines, needs, circuit, cards) since the kit was opened; nothing while there is none. */
export function TakeBackSheet() {
  const { sheetsBefore, takeBackSheet } = useBench();
  if (sheetsBefore.length === 0) return null;
  return (
    <button type="button" className="plain" onClick={takeBackSheet}>
      Take back the last change
    </button>
  );
}
