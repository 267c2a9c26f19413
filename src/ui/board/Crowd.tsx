import { createContext, memo } from 'react';
import type { Ref } from '@/core/kit';
import { padsAsPlaced } from '@/core/vocabulary';
import type { PlacedPart } from './layout';
import styles from './BoardMap.module.css';

/** More parts than this are drawn body by body only from near: from afar a body is no larger than a letter. */
export const CROWD = 250;

/** Whether a drawing was zoomed in upon. */
export const Near = createContext(false);

interface Props {
  readonly parts: readonly PlacedPart[];
  readonly present: ReadonlySet<Ref>;
}

/** Hundreds of parts in a few strokes, each as the room that it takes. */
export const Crowd = memo(function Crowd({ parts, present }: Props) {
  const fitted = parts.filter((p) => present.has(p.ref));
  const empty = parts.filter((p) => !present.has(p.ref));
  return (
    <>
      <path d={empty.map(bodyOf).join('')} className={styles.empty ?? ''} />
      <path d={fitted.map(bodyOf).join('')} className={styles.crowd ?? ''} />
      <path d={parts.map(holesOf).join('')} fill="var(--copper)" />
    </>
  );
});

const sidesOf = ({ marks: { body }, rotation }: PlacedPart) => (Math.round(rotation / 90) % 2 === 0 ? [body.width, body.height] : [body.height, body.width]);

function bodyOf(part: PlacedPart): string {
  const [w, h] = sidesOf(part) as [number, number];
  return `M${part.x - w / 2} ${part.y - h / 2}h${w}v${h}h${-w}z`;
}

const holesOf = (part: PlacedPart) =>
  padsAsPlaced(part.marks.body.pads, part)
    .map(({ x, y }) => `M${x - 0.7} ${y - 0.7}h1.4v1.4h-1.4z`)
    .join('');
