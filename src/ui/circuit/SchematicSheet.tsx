import { CompressOutlined, ZoomInOutlined, ZoomOutOutlined } from '@ant-design/icons';
import { Button, Space } from 'antd';
import { type KeyboardEvent, type ReactNode, useMemo, useRef, useState } from 'react';
import type { Drawing } from '@/core/draw';
import { figuresAt } from './figuresAt';
import type { LiveNet, LiveSchematic } from './live';
import styles from './Schematic.module.css';
import { type School, Symbol } from './symbols';
import { toTheNext } from './toTheNext';
import { useZoom } from './useZoom';

/** Pixels of a step of the grid where there is room. */
const PIXELS = 13;
/** Room round the drawing, in steps of the grid. */
const EDGE = 2;
/** Smaller than this share of its size, its letters cannot be read: it is scrolled instead. */
const READABLE = 0.7;
/** A large one is shown whole from this width on, rem, and made larger by hand. */
const NARROWEST = 46;

/** Where a point of the drawing's grid stands over it, as shares of its width and height. */
export const onSheet = ({ box: [l, t, r, b] }: Pick<Drawing, 'box'>, [x0, y0, x1, y1]: Drawing['box']) => {
  const [w, h] = [r - l + 2 * EDGE, b - t + 2 * EDGE];
  const share = (v: number, of: number) => `${(100 * v) / of}%`;
  return { left: share(x0 - l + EDGE, w), top: share(y0 - t + EDGE, h), width: share(x1 - x0, w), height: share(y1 - y0, h) };
};

/** Steps of the grid from edge to edge. */
export const stepsAcross = ({ box: [l, , r] }: Pick<Drawing, 'box'>) => r - l + 2 * EDGE;

interface SheetProps {
  readonly live: LiveSchematic;
  /** What lies over the drawing and moves with it. */
  readonly over?: ReactNode;
  readonly drawing: Drawing;
  readonly school: School;
  readonly volts: Readonly<Record<string, number>>;
  readonly seen: ReadonlyMap<string, number>;
}

/** The drawing itself, as large as its grid says; arrow keys go from what can be pressed to the next. */
export function SchematicSheet({ drawing, school, volts, seen, live, over }: SheetProps) {
  const [lit, setLit] = useState<string | null>(null);
  const [l, t, r, b] = drawing.box;
  const [w, h] = [r - l + 2 * EDGE, b - t + 2 * EDGE];
  const told = useMemo(() => figuresAt(drawing, volts, seen, live), [drawing, volts, seen, live]);
  const frame = useRef<HTMLDivElement>(null);
  const zoom = useZoom(frame);
  const pressable = (net: string) => live.nets.get(net.toLowerCase());
  return (
    <div className={styles.zoomed}>
      <Space.Compact className={styles.zoom ?? ''}>
        <Button icon={<ZoomInOutlined />} aria-label="Larger" onClick={zoom.larger} />
        <Button icon={<ZoomOutOutlined />} aria-label="Smaller" onClick={zoom.smaller} />
        <Button icon={<CompressOutlined />} aria-label="The whole schematic" disabled={zoom.factor === 1} onClick={zoom.whole} />
      </Space.Compact>
      <div ref={frame} className={styles.frame} tabIndex={0} role="region" aria-label="Schematic" onKeyDown={toTheNext} {...zoom.touch}>
        <div
          className={styles.paper}
          style={{
            width: w * PIXELS * zoom.factor,
            maxWidth: `${100 * Math.max(1, zoom.factor)}%`,
            minWidth: `min(${READABLE * w * PIXELS * zoom.factor}px, ${NARROWEST * zoom.factor}rem)`,
          }}
        >
          <svg
            viewBox={`${l - EDGE} ${t - EDGE} ${w} ${h}`}
            role={live.nets.size > 0 || live.pressPart ? 'group' : 'img'}
            aria-label={inWords(drawing)}
            className={styles.sheet}
          >
            {drawing.frames?.map(({ title, box: [fl, ft, fr, fb] }) => (
              <g key={title}>
                <rect x={fl} y={ft} width={fr - fl} height={fb - ft} rx="0.8" className={styles.board} />
                <text x={fl + 0.7} y={ft + 1.5} className={styles.ref}>
                  {title}
                </text>
              </g>
            ))}
            {drawing.wires.map((wire, i) => (
              <polyline
                key={i}
                points={wire.points.map((p) => p.join()).join(' ')}
                className={wire.net.toLowerCase() === lit ? styles.litWire : styles.wire}
                onPointerEnter={() => {
                  setLit(wire.net.toLowerCase());
                }}
                onPointerLeave={() => {
                  setLit(null);
                }}
              >
                <title>{`net ${wire.net}`}</title>
              </polyline>
            ))}
            {drawing.wires.map((wire, i) => {
              const at = pressable(wire.net);
              return at ? (
                <polyline
                  key={`press ${i}`}
                  points={wire.points.map((p) => p.join()).join(' ')}
                  className={styles.press}
                  onPointerEnter={() => {
                    setLit(wire.net.toLowerCase());
                  }}
                  onPointerLeave={() => {
                    setLit(null);
                  }}
                  onClick={at.press}
                >
                  <title>{at.title}</title>
                </polyline>
              ) : null;
            })}
            {drawing.junctions.map(([x, y]) => (
              <circle key={`${x},${y}`} cx={x} cy={y} r="0.22" className={styles.dot} />
            ))}
            {drawing.symbols.map((s) => (
              <g
                key={s.ref}
                className={`${styles.symbol} ${live.absent.has(s.ref) ? styles.absent : ''}`}
                {...(live.pressPart ? pressedPart(s.ref, live.pressPart) : {})}
              >
                {live.pressPart && <rect x={s.box[0]} y={s.box[1]} width={s.box[2] - s.box[0]} height={s.box[3] - s.box[1]} className={styles.hit} />}
                {live.suspected.has(s.ref) && (
                  <rect
                    x={s.box[0] - 0.4}
                    y={s.box[1] - 0.4}
                    width={s.box[2] - s.box[0] + 0.8}
                    height={s.box[3] - s.box[1] + 0.8}
                    rx="0.6"
                    className={styles.suspected}
                  />
                )}
                {s.kind === 'chip' || s.kind === 'connector' || s.kind === 'regulator' ? (
                  <Boxed symbol={s} />
                ) : (
                  <g transform={`translate(${s.x} ${s.y}) rotate(${s.rotation}) scale(${s.mirror ? -1 : 1} 1)`}>
                    <Symbol kind={s.kind} school={school} form={s.form} />
                  </g>
                )}
              </g>
            ))}
            {drawing.flags.map((f, i) => (
              <Flag key={i} flag={f} />
            ))}
            {drawing.labels.map((k) => (
              <text
                key={`${k.ref} ${k.what}`}
                x={k.box[0]}
                y={k.box[3] - 0.2}
                textLength={k.box[2] - k.box[0]}
                lengthAdjust="spacingAndGlyphs"
                className={k.what === 'ref' ? styles.ref : styles.value}
              >
                {k.text}
              </text>
            ))}
            {told.map((f) => (
              <g
                key={f.net}
                className={f.net === lit ? styles.litFigure : ''}
                {...(pressable(f.net) ? pressed(pressable(f.net)!) : {})}
                onFocus={() => {
                  setLit(f.net);
                }}
                onBlur={() => {
                  setLit(null);
                }}
              >
                {(f.net === live.red || f.net === live.black) && (
                  <circle cx={f.x} cy={f.y} r="0.5" className={f.net === live.red ? styles.redTip : styles.blackTip} />
                )}
                {f.should !== null && (
                  <text x={f.x} y={f.y - 0.35} className={styles.should}>
                    {f.should}
                  </text>
                )}
                {f.read !== null && (
                  <text x={f.x} y={f.y + 1.05} className={`${styles.read} v-${f.verdict}`}>
                    {f.read}
                  </text>
                )}
              </g>
            ))}
          </svg>
          {over}
        </div>
      </div>
    </div>
  );
}

/** A net's figures as a button: a press, Enter or Space takes its check into the hand. */
const pressed = ({ title, press }: Pick<LiveNet, 'title' | 'press'>) => ({
  role: 'button',
  tabIndex: 0,
  'aria-label': title,
  style: { cursor: 'pointer' },
  onClick: press,
  onKeyDown: (e: KeyboardEvent) => {
    if (e.key !== 'Enter' && e.key !== ' ') return;
    e.preventDefault();
    e.stopPropagation();
    press();
  },
});

/** A part as a button: a press, Enter or Space supposes something of it. */
const pressedPart = (ref: string, press: (ref: string) => void) =>
  pressed({
    title: `${ref}: what if it were different?`,
    press: () => {
      press(ref);
    },
  });

type DrawnSymbol = Drawing['symbols'][number];

/** A chip or connector: a box, its pins' names inside. */
function Boxed({ symbol: { box, pins, kind } }: { symbol: DrawnSymbol }) {
  const [l, t, r, b] = box;
  return (
    <>
      <rect x={l} y={t} width={r - l} height={b - t} className={styles.body} />
      {Object.entries(pins).map(([name, [x, y]]) => {
        const [left, right, top] = [x === l, x === r, y === t];
        const anchor = left ? 'start' : right ? 'end' : 'middle';
        const side = kind === 'regulator' ? 1.2 : 0.3;
        return (
          <text
            key={name}
            x={x + (left ? side : right ? -side : 0)}
            y={left || right ? y + 0.32 : top ? y + 1.1 : y - 0.4}
            textAnchor={anchor}
            className={styles.pin}
          >
            {name}
          </text>
        );
      })}
    </>
  );
}

function Flag({ flag: { kind, net, x, y, dir } }: { flag: Drawing['flags'][number] }) {
  const turn = { down: 0, up: 180, left: 90, right: -90 }[dir as 'down'];
  if (kind === 'ground')
    return (
      <g transform={`translate(${x} ${y}) rotate(${turn})`} className={styles.symbol}>
        <path d="M0 0v0.8M-0.9 0.8h1.8M-0.55 1.2h1.1M-0.2 1.6h0.4" />
      </g>
    );
  return (
    <g className={styles.symbol}>
      <path d={`M${x} ${y}v${dir === 'down' ? 0.7 : -0.7}M${x - 0.7} ${y + (dir === 'down' ? 0.7 : -0.7)}h1.4`} />
      <text x={x} y={dir === 'down' ? y + 1.75 : y - 0.95} textAnchor="middle" className={styles.rail}>
        {net}
      </text>
    </g>
  );
}

/** The netlist in words, for who cannot see the drawing. */
const inWords = (drawing: Drawing) => `Schematic of ${drawing.symbols.length} parts: ${drawing.symbols.map((s) => s.ref).join(', ')}.`;
