import dagre from '@dagrejs/dagre';
import { useMemo, useState } from 'react';
import { type Circuit, GROUND, neighbourhood, type Neighbourhood, netsOf } from '@/core/circuit';
import { type KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { useResult } from '../useResult';

const NO_VOLTS: Readonly<Record<string, number>> = {};

const PART = { width: 92, height: 44 };
const NET = { width: 78, height: 40 };
const PIN_GAP = 15;

/** The parts around one net, with what each net should carry and what was read there. */
export function NeighbourMap({ kit, circuit }: { kit: KitState; circuit: Circuit }) {
  const nets = netsOf(circuit).filter((n) => n !== GROUND && !n.includes('.'));
  const [centre, setCentre] = useState(kit.sheet.testPoints[0]?.net ?? nets[0] ?? GROUND);
  const powered = kit.sheet.stages.filter((s) => s.supplies.length > 0);
  const [stage, setStage] = useState<string | null>(powered[powered.length - 1]?.id ?? null);
  const { state, value } = useResult('netVolts', kit, stage);
  const volts = state === 'fresh' ? value : NO_VOLTS;
  const around = useMemo(() => neighbourhood(circuit, centre), [circuit, centre]);
  const seen = useMemo(() => readAt(kit, stage), [kit, stage]);
  return (
    <>
      <div className="inline-form">
        <span className="field" style={{ width: 130 }}>
          <label htmlFor="centre">Around net</label>
          <select
            id="centre"
            value={centre}
            onChange={(e) => {
              setCentre(e.target.value);
            }}
          >
            {nets.map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
        </span>
        {powered.length > 0 && (
          <span className="field" style={{ width: 220 }}>
            <label htmlFor="around-stage">In stage</label>
            <select
              id="around-stage"
              value={stage ?? ''}
              onChange={(e) => {
                setStage(e.target.value);
              }}
            >
              {powered.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.title}
                </option>
              ))}
            </select>
          </span>
        )}
      </div>
      <Drawing around={around} volts={volts} seen={seen} go={setCentre} />
      <p className="soft">Computed volts stand in each net; what was read there in that stage stands below. A click moves on.</p>
    </>
  );
}

/** Last reading at each net in a stage, volts. */
function readAt(kit: KitState, stageId: string | null): ReadonlyMap<string, number> {
  const stage = kit.sheet.stages.find((s) => s.id === stageId);
  const netOf = (tp: string) => kit.sheet.testPoints.find((t) => t.id === tp)?.net;
  const found = new Map<string, number>();
  for (const { entry: e } of [...kit.readings.values()].flat()) {
    if (e.kind === 'observed' || e.stage !== stageId || typeof e.reading !== 'number') continue;
    const check = e.kind === 'read' ? stage?.checks.find((c) => c.id === e.check) : undefined;
    if (check && (check.what !== 'measure' || check.mode !== 'dcv')) continue;
    const net = e.kind === 'probed' ? netOf(e.testPoint) : check?.what === 'measure' && 'testPoint' in check.red ? netOf(check.red.testPoint) : undefined;
    if (net !== undefined) found.set(net, e.reading);
  }
  return found;
}

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

function Drawing({
  around,
  volts,
  seen,
  go,
}: {
  around: Neighbourhood;
  volts: Readonly<Record<string, number>>;
  seen: ReadonlyMap<string, number>;
  go: (net: string) => void;
}) {
  const { places, width, height } = useMemo(() => layOut(around), [around]);
  const at = (id: string) => places.get(id) ?? { x: 0, y: 0 };
  return (
    <div className="neighbours">
      <svg width={width} height={height} viewBox={`0 0 ${width} ${height}`} role="group" aria-label={`Parts around net ${around.centre}`}>
        {around.parts.flatMap((p) =>
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
                <text x={start.x + side * 5} y={start.y - 4} textAnchor={side < 0 ? 'end' : 'start'} className="pin-name">
                  {pin.pin}
                </text>
              </g>
            );
          }),
        )}
        {around.parts.map((p) => {
          const { x, y } = at(`part ${p.name}`);
          return (
            <g key={p.name}>
              <rect x={x - PART.width / 2} y={y - PART.height / 2} width={PART.width} height={PART.height} rx="6" className="part" />
              <text x={x} y={y - 3} textAnchor="middle" className="name">
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
          const level = net === GROUND ? 0 : volts[net];
          const read = seen.get(net);
          return (
            <g
              key={net}
              className={net === around.centre ? 'net here' : 'net'}
              role="button"
              tabIndex={0}
              aria-label={`net ${net}${level === undefined ? '' : `, ${print(level, 'V', 3)}`}`}
              onClick={() => {
                if (net !== GROUND) go(net);
              }}
              onKeyDown={(e) => {
                if (e.key === 'Enter' && net !== GROUND) go(net);
              }}
            >
              <rect x={x - NET.width / 2} y={y - NET.height / 2} width={NET.width} height={NET.height} rx="20" />
              <text x={x} y={y - 3} textAnchor="middle" className="name">
                {net === GROUND ? 'ground' : net.slice(0, 11)}
              </text>
              <text x={x} y={y + 13} textAnchor="middle">
                {level === undefined ? '' : print(level, 'V', 3)}
              </text>
              {read !== undefined && (
                <text x={x} y={y + NET.height / 2 + 13} textAnchor="middle" className="read">
                  read {print(read, 'V', 3)}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </div>
  );
}
