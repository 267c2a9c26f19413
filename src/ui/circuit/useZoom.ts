import { type RefObject, type TouchEvent, useLayoutEffect, useRef, useState } from 'react';

const LEAST = 0.4;
const MOST = 5;
/** A press on a button makes the drawing so much larger. */
const STEP = 1.3;

interface Pinch {
  readonly apart: number;
  readonly factor: number;
}

/** How large a drawing is shown in its scrolled frame: by buttons, or by two fingers. What lay in the middle stays there. */
export function useZoom(frame: RefObject<HTMLElement | null>) {
  const [factor, setFactor] = useState(1);
  const pinch = useRef<Pinch | null>(null);
  const shown = useRef(1);
  useLayoutEffect(() => {
    const on = frame.current;
    const ratio = factor / shown.current;
    shown.current = factor;
    if (!on || ratio === 1) return;
    on.scrollTo({
      left: (on.scrollLeft + on.clientWidth / 2) * ratio - on.clientWidth / 2,
      top: (on.scrollTop + on.clientHeight / 2) * ratio - on.clientHeight / 2,
    });
  }, [factor, frame]);
  const to = (wanted: number) => {
    setFactor(Math.min(MOST, Math.max(LEAST, wanted)));
  };
  return {
    factor,
    larger: () => {
      to(factor * STEP);
    },
    smaller: () => {
      to(factor / STEP);
    },
    whole: () => {
      to(1);
    },
    touch: {
      onTouchStart: ({ touches }: TouchEvent) => {
        pinch.current = touches.length === 2 ? { apart: apartOf(touches), factor } : null;
      },
      onTouchMove: ({ touches }: TouchEvent) => {
        if (pinch.current && touches.length === 2) to((pinch.current.factor * apartOf(touches)) / Math.max(1, pinch.current.apart));
      },
      onTouchEnd: () => {
        pinch.current = null;
      },
    },
  };
}

const apartOf = (touches: TouchEvent['touches']) => Math.hypot(touches[0]!.clientX - touches[1]!.clientX, touches[0]!.clientY - touches[1]!.clientY);
