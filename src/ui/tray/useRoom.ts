import { type RefObject, useEffect, useState } from 'react';

interface Room {
  readonly columns: number;
  /** Heights of a row and of a heading, pixels. */
  readonly row: number;
  readonly heading: number;
}

/** Sizes in letters: the tray turns with the size of text. */
const LEAST_WIDTH = 9.9;
const ROW = 7.4;
const HEADING = 2.2;

/** How many compartments fit side by side, and how high they are. */
export function useRoom(scroller: RefObject<HTMLElement | null>): Room {
  const [room, setRoom] = useState<Room>({ columns: 5, row: ROW * 16, heading: HEADING * 16 });
  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    const watch = new ResizeObserver(() => {
      const letter = parseFloat(getComputedStyle(document.documentElement).fontSize);
      const columns = Math.max(1, Math.floor(element.clientWidth / (LEAST_WIDTH * letter)));
      setRoom((r) => (r.columns === columns && r.row === ROW * letter ? r : { columns, row: ROW * letter, heading: HEADING * letter }));
    });
    watch.observe(element);
    return () => {
      watch.disconnect();
    };
  }, [scroller]);
  return room;
}
