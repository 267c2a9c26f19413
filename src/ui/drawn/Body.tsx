import { memo } from 'react';
import type { Line } from '@/core/kit';
import type { Colour } from '@/core/marking';
import type { Shape } from '@/core/vocabulary';
import { BODY } from '../theme/tokens';
import { Axial } from './Axial';
import { type Marks, marksOf } from './marks';
import { SIDE } from './Side';
import { Top } from './Top';

const BOX = { width: 96, height: 46 };
/** Small bodies are not blown up beyond this, pixels a millimetre. */
const LARGEST = 7.5;

/** Room that a part takes seen from above, pins included, millimetres. */
function extent({ body }: Marks): { width: number; height: number } {
  const xs = body.pads.map((p) => Math.abs(p.x));
  const ys = body.pads.map((p) => Math.abs(p.y));
  return { width: 2 * Math.max(body.width / 2, ...xs.map((x) => x + 1)), height: 2 * Math.max(body.height / 2, ...ys.map((y) => y + 1)) };
}

/** The part as it should look in the hand. Decoration: the words stand beside it. */
export const PartBody = memo(function PartBody({ line }: { line: Line }) {
  const marks = marksOf(line);
  return (
    <svg width={BOX.width} height={BOX.height} viewBox={`0 0 ${BOX.width} ${BOX.height}`} aria-hidden="true">
      <InHand marks={marks} />
    </svg>
  );
});

function InHand({ marks }: { marks: Marks }) {
  const Side = SIDE[marks.body.shape];
  if (Side) return <Side marks={marks} />;
  const { width, height } = extent(marks);
  const scale = Math.min(LARGEST, BOX.width / width, BOX.height / height);
  return (
    <g transform={`translate(${BOX.width / 2} ${BOX.height / 2}) scale(${scale})`}>
      <Top marks={marks} pins="legs" />
    </g>
  );
}

/** A resistor in the hand, its bands given: a click takes one away. */
export const BandedBody = ({ colours, onBand }: { colours: readonly (Colour | null)[]; onBand?: (index: number) => void }) => (
  <g transform="translate(48 23) scale(7.5)">
    <path d="M-6.4 0h12.8" stroke="var(--lead)" strokeWidth="0.32" />
    <Axial width={6.4} height={2.5} colours={colours} paint={colours.length > 4 ? BODY.metalFilm : BODY.carbon} {...(onBand ? { onBand } : {})} />
  </g>
);

/** Shapes whose pins are worth a number on the board. */
export const NUMBERED: ReadonlySet<Shape> = new Set<Shape>(['dip', 'so', 'sil', 'socket', 'relay', 'to220', 'to126', 'to92']);
