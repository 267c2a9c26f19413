import { type CSSProperties, memo, type ReactNode, useContext, useMemo } from 'react';
import type { Ref, Sheet, TestPoint } from '@/core/kit';
import type { Verdict } from '@/core/verdict';
import { NUMBERED } from '../drawn/Body';
import { Top } from '../drawn/Top';
import { MarkShape } from '../drawn/VerdictMark';
import styles from './BoardMap.module.css';
import { Crowd, CROWD, Near } from './Crowd';
import { type Box, LETTER, outlinesOf, placeLabels, type PlacedLabel, type PlacedPart, placeParts } from './layout';

/** A point to touch; one without a place stands in a strip beneath the board. */
type MapPoint = Pick<TestPoint, 'id' | 'net' | 'x' | 'y'>;

interface Props {
  readonly sheet: Sheet;
  /** Refs that sit on the board; the others are drawn as empty places. */
  readonly present: ReadonlySet<Ref>;
  readonly marked: ReadonlySet<Ref>;
  readonly points: readonly MapPoint[];
  /** What was found at each point; none for those that were not read. */
  readonly verdicts: ReadonlyMap<string, Verdict>;
  /** Test point or ref under the probes; null for none. */
  readonly red: string | null;
  readonly black: string | null;
  /** A photo beneath the drawing, and how much of the drawing shows through, 0..1. */
  readonly photo?: {
    readonly picture: string;
    readonly onMap: { readonly width: number; readonly turn: number; readonly x: number; readonly y: number; readonly side?: 'bottom' | undefined };
    readonly drawing: number;
  } | null;
  /** As large as it is, for paper. */
  readonly trueSize?: boolean;
  /** What is pressed or dragged on the drawing: laid over it, so that it is zoomed with it. */
  readonly over?: (map: LaidOut) => ReactNode;
}

const CHIP = { width: 17, height: 5.4 };
const DOT = 1.5;
/** Before the name of a point, so that it is none of a part. */
const POINT = 'point ';

/** The board with its parts; points to touch carry their verdicts. */
export function BoardMap({ sheet, present, marked, points, verdicts, red, black, photo = null, trueSize = false, over }: Props) {
  const parts = useMemo(() => placeParts(sheet), [sheet]);
  const map = useMemo(() => layOut(parts, points), [parts, points]);
  const near = useContext(Near);
  if (parts.length === 0) return <p className={styles.none}>No parts have a place on this board. Give the parts list refs such as R1, R2.</p>;
  const { labels, dots, strip } = map;
  const view = viewOf(map);
  const isMarked = ({ ref }: Pick<PlacedPart, 'ref'>) => marked.has(ref) || red === ref;
  const crowd = parts.length > CROWD && !near && !trueSize;
  // From afar the names of a crowd would be smaller than anybody reads.
  const shown = crowd ? labels.filter((l) => l.id.startsWith(POINT) || isMarked({ ref: l.id })) : labels;
  const marksAt = (id: string) => ({
    verdict: verdicts.get(id) ?? ('none' as const),
    probe: red === id ? ('red' as const) : black === id ? ('black' as const) : null,
  });
  return (
    <div className={trueSize ? '' : styles.area}>
      <div
        className={styles.sheet}
        style={(trueSize ? { width: `${view.width}mm`, height: `${view.height}mm` } : { '--ratio': view.width / view.height }) as CSSProperties}
      >
        <svg
          className={styles.map ?? ''}
          viewBox={`${view.x} ${view.y} ${view.width} ${view.height}`}
          role="img"
          aria-label={`Board with ${parts.length} places, ${parts.filter((p) => present.has(p.ref)).length} fitted`}
        >
          {photo && (
            <image
              href={photo.picture}
              width={photo.onMap.width}
              transform={`translate(${photo.onMap.x} ${photo.onMap.y}) rotate(${photo.onMap.turn})${photo.onMap.side === 'bottom' ? ' scale(-1 1)' : ''}`}
            />
          )}
          <g opacity={photo?.drawing}>
            {outlinesOf(parts, map).map((o) => (
              <rect key={o.board} x={o.x} y={o.y} width={o.width} height={o.height} rx="2.5" fill="var(--board)" stroke="var(--board-edge)" strokeWidth="0.6" />
            ))}
            {crowd && <Crowd parts={parts} present={present} />}
            {(crowd ? parts.filter(isMarked) : parts).map((p) => (
              <Part key={p.ref} part={p} fitted={present.has(p.ref)} marked={isMarked(p)} />
            ))}
          </g>
          {shown.map((l) => (
            <text key={l.id} x={l.x} y={l.y + LETTER * 0.36} textAnchor="middle" className={styles.label ?? ''}>
              {l.text}
            </text>
          ))}
          {dots.map((p) => (
            <Dot key={p.point.id} {...p} {...marksAt(p.point.id)} />
          ))}
          {strip.map((p) => (
            <Chip key={p.point.id} {...p} {...marksAt(p.point.id)} />
          ))}
        </svg>
        {over?.(map)}
      </div>
    </div>
  );
}

/** What lies where on the drawing, millimetres. */
export interface LaidOut {
  readonly width: number;
  readonly height: number;
  readonly parts: readonly PlacedPart[];
  readonly labels: readonly PlacedLabel[];
  readonly dots: readonly PlacedPoint[];
  readonly strip: readonly PlacedPoint[];
}

const AROUND = 2;
const viewOf = ({ width, height }: LaidOut) => ({ x: -AROUND, y: -AROUND, width: width + 2 * AROUND, height: height + 2 * AROUND });

/** Millimetres that the whole drawing is wide, its edge included. */
export const widthOfView = (map: LaidOut): number => viewOf(map).width;

/** Where something laid over the drawing stands, by its middle: shares of the drawing. */
export function standsOver(map: LaidOut, { x, y, width, height }: Box): CSSProperties {
  const view = viewOf(map);
  const share = (part: number, of: number) => `${(100 * part) / of}%`;
  return { left: share(x - view.x, view.width), top: share(y - view.y, view.height), width: share(width, view.width), height: share(height, view.height) };
}

/** What a point covers, by its middle. */
export const boxOfDot = ({ x, y }: PlacedPoint): Box => ({ x, y, width: 2 * DOT, height: 2 * DOT });
export const boxOfChip = ({ x, y }: PlacedPoint): Box => ({ x: x + CHIP.width / 2, y: y + CHIP.height / 2, ...CHIP });

interface PlacedPoint {
  readonly point: MapPoint;
  readonly x: number;
  readonly y: number;
}

/** Parts where they are, labels where there is room, points that have no place in a strip beneath. */
function layOut(parts: readonly PlacedPart[], points: readonly MapPoint[]): LaidOut {
  const width = Math.max(30, ...parts.map((p) => p.x + p.width / 2)) + 5;
  const bottom = Math.max(12, ...parts.map((p) => p.y + p.height / 2)) + LETTER + 2.5;
  const dots = points.flatMap((point): PlacedPoint[] => (point.x === undefined || point.y === undefined ? [] : [{ point, x: point.x, y: point.y }]));
  const homeless = points.filter((p) => p.x === undefined || p.y === undefined);
  // Where pads are touched nothing is read against ground.
  const ground: MapPoint[] = points.some((p) => p.net !== '') ? [{ id: 'GND', net: '0' }] : [];
  const perRow = Math.max(1, Math.floor((width - 4) / (CHIP.width + 1)));
  const strip = [...homeless, ...ground].map((point, i) => ({
    point,
    x: 3 + (i % perRow) * (CHIP.width + 1),
    y: bottom + Math.floor(i / perRow) * (CHIP.height + 1),
  }));
  const height = bottom + Math.ceil(strip.length / perRow) * (CHIP.height + 1) + (strip.length > 0 ? 1.5 : 0);
  const dotBoxes = dots.map(boxOfDot);
  const labels = placeLabels(
    [
      ...dots.map(({ point, x, y }) => ({ id: `${POINT}${point.id}`, text: point.id, around: boxOfDot({ point, x, y }) })),
      ...parts.map((p) => ({ id: p.ref, text: p.ref, around: p })),
    ],
    [...parts, ...dotBoxes],
  );
  return { width, height, parts, labels, dots, strip };
}

const Part = memo(function Part({ part, fitted, marked }: { part: PlacedPart; fitted: boolean; marked: boolean }) {
  const { body } = part.marks;
  return (
    <g transform={`translate(${part.x} ${part.y})`}>
      <g transform={`rotate(${part.rotation})`}>
        {fitted ? (
          <>
            <Wires part={part} />
            <Top marks={part.marks} pins="pads" />
          </>
        ) : (
          <>
            <rect x={-body.width / 2} y={-body.height / 2} width={body.width} height={body.height} rx="0.5" className={styles.empty ?? ''} />
            {body.pads.map((p) => (
              <circle key={p.pin} cx={p.x} cy={p.y} r="0.8" fill="var(--copper)" />
            ))}
          </>
        )}
        {NUMBERED.has(body.shape) &&
          body.pads
            .filter((p) => p.pin === 1 || (p.pin === 3 && body.pads.length === 3))
            .map((p) => (
              <text key={p.pin} x={p.x} y={p.y + Math.sign(p.y || 1) * 1.9 + 0.5} textAnchor="middle" className={styles.pin ?? ''}>
                {p.pin}
              </text>
            ))}
      </g>
      {marked && (
        <rect
          x={-part.width / 2 - 0.3}
          y={-part.height / 2 - 0.3}
          width={part.width + 0.6}
          height={part.height + 0.6}
          rx="0.8"
          className={styles.marked ?? ''}
        />
      )}
    </g>
  );
});

/** Wires of two-legged parts that lie on the board. */
function Wires({ part }: { part: PlacedPart }) {
  const { body } = part.marks;
  const [a, b] = body.pads;
  if (body.pads.length !== 2 || !a || !b || Math.abs(b.x - a.x) <= body.width) return null;
  return <path d={`M${a.x} ${a.y}L${b.x} ${b.y}`} stroke="var(--lead)" strokeWidth="0.6" />;
}

interface PointProps extends PlacedPoint {
  readonly verdict: Verdict;
  readonly probe: 'red' | 'black' | null;
}

/** A point where it is: its verdict on a light ground, the probe leaning on it. */
function Dot({ verdict, x, y, probe }: PointProps) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <circle r={DOT} fill="var(--sheet)" stroke="var(--board-edge)" strokeWidth="0.3" />
      <g transform="scale(0.12) translate(-10 -10)" className={`v-${verdict}`}>
        <MarkShape verdict={verdict} />
      </g>
      {probe && <Probe colour={probe} />}
    </g>
  );
}

/** A point whose place is not known: by its name, beneath the board. */
function Chip({ point, verdict, x, y, probe }: PointProps) {
  return (
    <g transform={`translate(${x} ${y})`}>
      <rect
        width={CHIP.width}
        height={CHIP.height}
        rx="1.4"
        fill="var(--sheet)"
        stroke={probe ? `var(--${probe}-probe)` : 'var(--board-edge)'}
        strokeWidth={probe ? 0.9 : 0.3}
      />
      {point.net === '0' ? (
        <circle cx="2.6" cy={CHIP.height / 2} r="1.3" fill="var(--black-probe)" />
      ) : (
        <g transform={`translate(1 ${CHIP.height / 2 - 1.7}) scale(0.17)`} className={`v-${verdict}`}>
          <MarkShape verdict={verdict} />
        </g>
      )}
      <text x="5.2" y={CHIP.height / 2 + 1} className={styles.chipText ?? ''}>
        {point.id.slice(0, 6)}
      </text>
      {probe && (
        <g transform={`translate(${CHIP.width - 1} 1)`}>
          <Probe colour={probe} />
        </g>
      )}
    </g>
  );
}

const Probe = ({ colour }: { colour: 'red' | 'black' }) => (
  <g className={styles.probe ?? ''}>
    <path d="M0 0l1.6 -3.4 1.8 1.8z" fill={`var(--${colour}-probe)`} />
    <path d="M2.500 -2.500l5 -5" stroke={`var(--${colour}-probe)`} strokeWidth="2" strokeLinecap="round" />
  </g>
);
