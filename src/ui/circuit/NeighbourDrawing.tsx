import dagre from '@dagrejs/dagre';
import { Button } from 'antd';
import { useMemo } from 'react';
import { GROUND, type Neighbourhood } from '@/core/circuit';
import { print } from '@/core/quantity';
import styles from './Circuit.module.css';

const PART = { width: 92, height: 44 };
const NET = { width: 84, height: 40 };
const PIN_GAP = 15;

interface Placed {
  readonly id: string;
  readonly x: number;
  readonly y: number;
}

/** Parts and nets as a graph, laid out in layers from left to right. */
function layOut(around: Neighbourhood): { places: ReadonlyMap<string, Placed>; width: number; height: number } {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 14, ranksep: 46, marginx: 8, marginy: 8 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const net of around.nets) graph.setNode(`net ${net}`, { ...NET });
  for (const p of around.parts) {
    graph.setNode(`part ${p.name}`, { ...PART });
    for (const pin of p.pins) {
      const [from, to] = pin.net === around.centre ? [`net ${pin.net}`, `part ${p.name}`] : [`part ${p.name}`, `net ${pin.net}`];
      graph.setEdge(from, to);
    }
  }
  dagre.layout(graph);
  const places = new Map(
    graph.nodes().map((id) => {
      const { x, y } = graph.node(id) as { x: number; y: number };
      return [id, { id, x, y }];
    }),
  );
  const { width = 300, height = 200 } = graph.graph() as { width?: number; height?: number };
  return { places, width, height };
}

interface DrawingProps {
  readonly around: Neighbourhood;
  readonly volts: Readonly<Record<string, number>>;
  readonly seen: ReadonlyMap<string, number>;
  /** Makes a net the middle; without it nets cannot be chosen. */
  readonly go?: (net: string) => void;
}

const plainName = (net: string) => (net === GROUND ? 'ground' : net);

/** Parts and wires as a drawing, nets as buttons on it. */
export function NeighbourDrawing({ around, volts, seen, go }: DrawingProps) {
  const { places, width, height } = useMemo(() => layOut(around), [around]);
  const at = (id: string) => places.get(id) ?? { x: 0, y: 0 };
  return (
    <div className={styles.map} role="group" aria-label={`Parts around net ${around.centre}`}>
      <div className={styles.drawing} style={{ width, height: height + 16 }}>
        <svg width={width} height={height + 16} viewBox={`0 0 ${width} ${height + 16}`} aria-hidden="true">
          <Wires around={around} at={at} />
          {around.parts.map((p) => {
            const { x, y } = at(`part ${p.name}`);
            return (
              <g key={p.name}>
                <rect x={x - PART.width / 2} y={y - PART.height / 2} width={PART.width} height={PART.height} rx="6" className={styles.part} />
                <text x={x} y={y - 3} textAnchor="middle" className={styles.name}>
                  {p.name}
                </text>
                <text x={x} y={y + 14} textAnchor="middle">
                  {p.label.slice(0, 12)}
                </text>
              </g>
            );
          })}
          {around.nets.map((net) => {
            const { x, y } = at(`net ${net}`);
            const read = seen.get(net);
            return read === undefined ? null : (
              <text key={net} x={x} y={y + NET.height / 2 + 13} textAnchor="middle" className={styles.read}>
                read {print(read, 'V', 3)}
              </text>
            );
          })}
        </svg>
        {around.nets.map((net) => {
          const { x, y } = at(`net ${net}`);
          return (
            <NetButton
              key={net}
              net={net}
              here={net === around.centre}
              level={net === GROUND ? 0 : volts[net]}
              x={x}
              y={y}
              name={plainName(net)}
              {...(go ? { go } : {})}
            />
          );
        })}
      </div>
    </div>
  );
}

type At = (id: string) => { readonly x: number; readonly y: number };

function Wires({ around, at }: { around: Neighbourhood; at: At }) {
  return around.parts.flatMap((p) =>
    p.pins.map((pin, i) => {
      const [a, b] = [at(`part ${p.name}`), at(`net ${pin.net}`)];
      const side = b.x < a.x ? -1 : 1;
      // Pins on one side of a part stand apart, in the order of their nets.
      const sameSide = p.pins.filter((other) => at(`net ${other.net}`).x < a.x === b.x < a.x).sort((m, n) => at(`net ${m.net}`).y - at(`net ${n.net}`).y);
      const start = { x: a.x + (side * PART.width) / 2, y: a.y + PIN_GAP * (sameSide.indexOf(pin) - (sameSide.length - 1) / 2) };
      const end = { x: b.x - (side * NET.width) / 2, y: b.y };
      const bend = (start.x + end.x) / 2;
      return (
        <g key={`${p.name}${i}`}>
          <path d={`M${start.x} ${start.y}C${bend} ${start.y} ${bend} ${end.y} ${end.x} ${end.y}`} />
          <text x={start.x + side * 5} y={start.y - 4} textAnchor={side < 0 ? 'end' : 'start'} className={styles.pinName}>
            {pin.pin}
          </text>
        </g>
      );
    }),
  );
}

interface NetProps {
  readonly net: string;
  readonly here: boolean;
  readonly level: number | undefined;
  readonly x: number;
  readonly y: number;
  readonly name: string;
  readonly go?: (net: string) => void;
}

function NetButton({ net, here, level, x, y, name, go }: NetProps) {
  const shown = level === undefined ? '' : print(level, 'V', 3);
  return (
    <Button
      className={`${styles.node} ${here ? styles.here : ''}`}
      style={{ left: x - NET.width / 2, top: y - NET.height / 2, width: NET.width, height: NET.height }}
      aria-label={`net ${name}${shown ? `, ${shown}` : ''}`}
      aria-current={here ? 'true' : undefined}
      onClick={() => {
        if (net !== GROUND) go?.(net);
      }}
    >
      <b>{name.slice(0, 11)}</b>
      {shown}
    </Button>
  );
}
