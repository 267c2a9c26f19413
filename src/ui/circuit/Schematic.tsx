import { Button, Flex, Form, Segmented, Skeleton } from 'antd';
import { type KeyboardEvent, useMemo, useRef, useState } from 'react';
import type { Drawing } from '@/core/draw';
import type { KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import type { Verdict } from '@/core/verdict';
import { Choose } from '../form/Choose';
import { useResult } from '../results/useResult';
import { Nothing } from '../drawn/Nothing';
import { saveFile } from '../shell/saveFile';
import { readAt } from './readAt';
import styles from './Schematic.module.css';
import { svgFile } from './svgFile';
import { type School, Symbol } from './symbols';

const NO_VOLTS: Readonly<Record<string, number>> = {};
const PIXELS = 13;
const LONG_WIRE = 3;

/** The whole circuit in the trade's symbols, with a choice of stage and of symbols. */
export function Schematic({ kit, suppose }: { kit: KitState; suppose: (ref: string) => void }) {
  const powered = kit.sheet.stages.filter((s) => s.supplies.length > 0);
  const [stage, setStage] = useState<string | null>(kit.lastStage ?? powered[powered.length - 1]?.id ?? null);
  const [school, setSchool] = useState<School>('box');
  const drawn = useRef<HTMLDivElement>(null);
  const live = useMemo(() => ({ ...NOT_LIVE, pressPart: suppose }), [suppose]);
  if (!kit.sheet.circuit) return <Nothing say="No circuit yet. Walk the printed drawing, take a circuit like this one, or paste a deck under Connections." />;
  return (
    <>
      <Flex gap="small" wrap align="end" className={styles.tools ?? ''}>
        {powered.length > 0 && (
          <Form layout="vertical" component="div">
            <Form.Item label="Volts in stage" htmlFor="schematic-stage" className={styles.pick ?? ''}>
              <Choose id="schematic-stage" value={stage} options={powered.map((s) => ({ value: s.id, label: s.title }))} onChange={setStage} />
            </Form.Item>
          </Form>
        )}
        <Segmented
          aria-label="Symbols of resistors"
          value={school}
          onChange={setSchool}
          options={[
            { value: 'box', label: 'Box resistors' },
            { value: 'zigzag', label: 'Zigzag resistors' },
          ]}
        />
        <Button
          onClick={() => {
            const svg = drawn.current?.querySelector('svg');
            if (svg) saveFile('schematic.svg', svgFile(svg), 'image/svg+xml');
          }}
        >
          Save as SVG
        </Button>
      </Flex>
      <div ref={drawn}>
        <SchematicOf kit={kit} stage={stage} school={school} live={live} />
      </div>
      <p className="soft">Upper figures: volts of a healthy board. Lower figures: what was read in that stage.</p>
    </>
  );
}

/** What the drawing shows and does beside the volts, at the bench. */
export interface LiveSchematic {
  /** By net, in small letters: the window of its check, how its reading was judged, and what pressing it does. */
  readonly nets: ReadonlyMap<string, LiveNet>;
  /** Parts that are not on the board at this stage. */
  readonly absent: ReadonlySet<string>;
  /** Parts under suspicion. */
  readonly suspected: ReadonlySet<string>;
  /** Where the probes belong now. */
  readonly red: string | null;
  readonly black: string | null;
  /** What pressing a part does; null where nothing. */
  readonly pressPart: ((ref: string) => void) | null;
}
export interface LiveNet {
  readonly title: string;
  readonly window: string | null;
  readonly verdict: Verdict;
  readonly press: () => void;
}

interface SchematicProps {
  readonly kit: KitState;
  readonly stage: string | null;
  readonly school?: School;
  readonly live?: LiveSchematic;
}

/** The drawing alone: volts that should be at its nets in a stage, and those that were read there. */
export function SchematicOf({ kit, stage, school = 'box', live = NOT_LIVE }: SchematicProps) {
  const { state, value: drawing, progress } = useResult('schematic', kit, undefined);
  const volts = useResult('netVolts', kit, stage);
  const seen = useMemo(() => readAt(kit, stage), [kit, stage]);
  if (drawing) return <Sheet drawing={drawing} school={school} volts={volts.state === 'fresh' ? volts.value : NO_VOLTS} seen={seen} live={live} />;
  return state === 'failed' ? <Nothing say="The schematic could not be drawn. Circuit, Connections lists what is joined." /> : <Drawing progress={progress} />;
}

const Drawing = ({ progress }: { progress: number | null }) => (
  <div role="status">
    <p>{progress === null ? 'Drawing the schematic…' : `Drawing the schematic: ${Math.round(100 * progress)} %`}</p>
    <Skeleton active title={false} />
  </div>
);

const NOT_LIVE: LiveSchematic = { nets: new Map(), absent: new Set(), suspected: new Set(), red: null, black: null, pressPart: null };

interface SheetProps {
  readonly live: LiveSchematic;
  readonly drawing: Drawing;
  readonly school: School;
  readonly volts: Readonly<Record<string, number>>;
  readonly seen: ReadonlyMap<string, number>;
}

function Sheet({ drawing, school, volts, seen, live }: SheetProps) {
  const [lit, setLit] = useState<string | null>(null);
  const [l, t, r, b] = drawing.box;
  const [w, h] = [r - l + 4, b - t + 4];
  const told = useMemo(() => figuresAt(drawing, volts, seen, live), [drawing, volts, seen, live]);
  const pressable = (net: string) => live.nets.get(net.toLowerCase());
  return (
    <div className={styles.frame} tabIndex={0} role="region" aria-label="Schematic">
      <svg
        width={w * PIXELS}
        viewBox={`${l - 2} ${t - 2} ${w} ${h}`}
        role={live.nets.size > 0 || live.pressPart ? 'group' : 'img'}
        aria-label={inWords(drawing)}
        className={styles.sheet}
      >
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
    </div>
  );
}

interface Figure {
  readonly net: string;
  readonly x: number;
  readonly y: number;
  readonly should: string | null;
  readonly read: string | null;
  readonly verdict: Verdict;
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

/** Figures of nets, at the middle of the longest horizontal stretch of each. */
function figuresAt(drawing: Drawing, volts: Readonly<Record<string, number>>, seen: ReadonlyMap<string, number>, live: LiveSchematic): Figure[] {
  const longest = new Map<string, { x: number; y: number; long: number }>();
  for (const { net, points } of drawing.wires)
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      const long = a[1] === b[1] ? Math.abs(a[0] - b[0]) : Math.abs(a[1] - b[1]) / 4;
      if (long > (longest.get(net.toLowerCase())?.long ?? 0))
        longest.set(net.toLowerCase(), { x: (a[0] + b[0]) / 2 + (a[1] === b[1] ? 0 : 1.6), y: (a[1] + b[1]) / 2, long });
    }
  const known = new Map(Object.entries(volts).map(([net, v]) => [net.toLowerCase(), v]));
  const read = new Map([...seen].map(([net, v]) => [net.toLowerCase(), v]));
  const figures = [...longest].flatMap(([net, { x, y, long }]): Figure[] => {
    const [v, got] = [known.get(net), read.get(net)];
    const at = live.nets.get(net);
    const probed = net === live.red || net === live.black;
    if (v === undefined && got === undefined && !at && !probed) return [];
    if (long < LONG_WIRE / 4 && got === undefined && !at && !probed) return [];
    const should = at?.window ?? (v === undefined ? null : print(v, 'V', 3));
    return [{ net, x, y, should, read: got === undefined ? null : print(got, 'V', 3), verdict: at?.verdict ?? 'none' }];
  });
  return apart(figures);
}

/** Width of a letter and height of a line of figures, in units of the grid. */
const LETTER = 0.58;
const LINE = 1.3;

/** Figures that would lie on one another stand one above the other. */
function apart(figures: readonly Figure[]): Figure[] {
  const wide = (f: Figure) => Math.max(f.should?.length ?? 0, f.read?.length ?? 0) * LETTER;
  const placed: Figure[] = [];
  for (const f of figures) {
    let { y } = f;
    while (placed.some((p) => Math.abs(p.x - f.x) < (wide(p) + wide(f)) / 2 && Math.abs(p.y - y) < LINE)) y -= LINE;
    placed.push({ ...f, y });
  }
  return placed;
}

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
