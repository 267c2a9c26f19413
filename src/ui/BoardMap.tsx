import { type Line, type Ref, type Sheet } from '@/core/kit';
import { type Verdict } from '@/core/verdict';
import { LED_PAINT } from './PartBody';
import { MarkShape } from './VerdictMark';

export interface MapPoint {
  readonly id: string;
  readonly net: string;
  readonly verdict: Verdict;
  readonly x?: number | undefined;
  readonly y?: number | undefined;
}

interface Props {
  readonly sheet: Sheet;
  /** Refs that sit on the board; the others are drawn as empty places. */
  readonly present: ReadonlySet<Ref>;
  readonly marked: ReadonlySet<Ref>;
  readonly points: readonly MapPoint[];
  /** Test point or ref under the probes; null for none. */
  readonly red: string | null;
  readonly black: string | null;
}

interface Place {
  readonly ref: Ref;
  readonly line: Line | null;
  readonly x: number;
  readonly y: number;
}

const CELL = { width: 16, height: 11 };

/** Places from the kit's placement, or a plain grid in the order of the list. Millimetres. */
function layOut(sheet: Sheet): Place[] {
  const lineOf = new Map(sheet.lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  if (sheet.placement.length > 0) return sheet.placement.map((p) => ({ ref: p.ref, line: lineOf.get(p.ref) ?? null, x: p.x, y: p.y }));
  const refs = [...lineOf.keys()];
  const columns = Math.max(4, Math.ceil(Math.sqrt(refs.length * 1.1)));
  return refs.map((ref, i) => ({ ref, line: lineOf.get(ref) ?? null, x: 9 + (i % columns) * CELL.width, y: 9 + Math.floor(i / columns) * CELL.height }));
}

/** The board with its parts; points to touch carry their verdicts. */
export function BoardMap({ sheet, present, marked, points, red, black }: Props) {
  const places = layOut(sheet);
  if (places.length === 0) return <p style={{ padding: 20 }}>No parts have a place on this board. Give the parts list refs such as R1, R2.</p>;
  const width = Math.max(...places.map((p) => p.x)) + 12;
  const partsBottom = Math.max(...places.map((p) => p.y)) + 9;
  const ground = points.length > 0 ? [{ id: 'GND', net: '0', verdict: 'none' as const }] : [];
  const strip = [...points.filter((p) => p.x === undefined || p.y === undefined), ...ground];
  const perRow = Math.max(1, Math.floor((width - 8) / 17));
  const height = partsBottom + (strip.length > 0 ? Math.ceil(strip.length / perRow) * 7 + 2 : 0);
  const placed: { point: MapPoint; x: number; y: number }[] = [
    ...points.flatMap((point) => (point.x === undefined || point.y === undefined ? [] : [{ point, x: point.x, y: point.y }])),
    ...strip.map((point, i) => ({ point, x: 6 + (i % perRow) * 17, y: partsBottom + 2 + Math.floor(i / perRow) * 7 })),
  ];
  return (
    <svg
      viewBox={`-3 -3 ${width + 6} ${height + 6}`}
      role="img"
      aria-label={`Board with ${places.length} places, ${places.filter((p) => present.has(p.ref)).length} fitted`}
    >
      <rect width={width} height={height} rx="3" fill="var(--board)" stroke="var(--board-edge)" strokeWidth="0.6" />
      {places.map((p) => (
        <PlacedPart key={p.ref} place={p} fitted={present.has(p.ref)} marked={marked.has(p.ref) || red === p.ref} />
      ))}
      {placed.map(({ point, x, y }) => (
        <Point key={point.id} x={x} y={y} point={point} probe={red === point.id ? 'red' : black === point.id ? 'black' : null} />
      ))}
    </svg>
  );
}

const LONG = new Set(['resistor', 'diode', 'zener', 'inductor', 'fuse']);

function PlacedPart({ place, fitted, marked }: { place: Place; fitted: boolean; marked: boolean }) {
  const kind = place.line?.kind ?? 'other';
  return (
    <g transform={`translate(${place.x} ${place.y})`}>
      {LONG.has(kind) && <path d="M-5.5 0h11" stroke={fitted ? '#cfd3d1' : 'none'} strokeWidth="0.6" />}
      {LONG.has(kind) ? (
        <>
          <circle cx="-5.5" r="1" fill="var(--copper)" />
          <circle cx="5.5" r="1" fill="var(--copper)" />
        </>
      ) : (
        <>
          <circle cx="-1.6" cy="2.6" r="0.9" fill="var(--copper)" />
          <circle cx="1.6" cy="2.6" r="0.9" fill="var(--copper)" />
        </>
      )}
      <Outline kind={kind} colour={place.line?.colour} fitted={fitted} marked={marked} />
      <text y={-3.4} textAnchor="middle">
        {place.ref}
      </text>
    </g>
  );
}

function Outline({ kind, colour, fitted, marked }: { kind: string; colour: string | undefined; fitted: boolean; marked: boolean }) {
  const stroke = marked ? 'var(--zest)' : 'var(--print)';
  const common = { stroke, strokeWidth: marked ? 0.8 : 0.25, fillOpacity: fitted ? 1 : 0.08 };
  const fill: Readonly<Record<string, string>> = {
    resistor: '#e3cfa6',
    diode: '#26292a',
    zener: '#c4683c',
    capacitor: '#d98e4a',
    electrolytic: '#33475b',
    led: '#d9d2c0',
    npn: '#23292b',
    pnp: '#23292b',
    opamp: '#23292b',
    ic: '#23292b',
    relay: '#2458a6',
    trimmer: '#4a79b8',
    connector: '#3d7a46',
    thermistor: '#3f7d5c',
  };
  const paint = (kind === 'led' && colour ? LED_PAINT[colour] : undefined) ?? fill[kind] ?? '#8f8a7c';
  if (LONG.has(kind)) return <rect x="-3.2" y="-1.4" width="6.4" height="2.8" rx="1" fill={paint} {...common} />;
  if (kind === 'electrolytic' || kind === 'led') return <circle r="2.6" fill={paint} {...common} />;
  if (kind === 'opamp' || kind === 'ic') return <rect x="-5" y="-2.4" width="10" height="5" rx="0.6" fill={paint} {...common} />;
  if (kind === 'relay' || kind === 'connector' || kind === 'trimmer')
    return <rect x="-4.5" y="-2.6" width="9" height="5.4" rx="0.6" fill={paint} {...common} />;
  if (kind === 'npn' || kind === 'pnp' || kind === 'nmos') return <path d="M-2.6 1.4a2.7 2.7 0 1 1 5.2 0z" fill={paint} {...common} />;
  return <ellipse rx="2.8" ry="1.8" fill={paint} {...common} />;
}

function Point({ x, y, point, probe }: { x: number; y: number; point: MapPoint; probe: 'red' | 'black' | null }) {
  const colour = probe === 'red' ? 'var(--red-probe)' : 'var(--black-probe)';
  return (
    <g transform={`translate(${x} ${y}) scale(0.74)`}>
      <rect x="-4" y="-2.6" width="15.5" height="5.4" rx="1.4" fill="var(--sheet)" stroke={probe ? colour : 'none'} strokeWidth="0.9" />
      {point.net === '0' ? (
        <circle cx="-1.5" r="1.5" fill="var(--black-probe)" />
      ) : (
        <g transform="translate(-3.2 -1.7) scale(0.17)" className={`v-${point.verdict}`}>
          <MarkShape verdict={point.verdict} />
        </g>
      )}
      <text x="1.2" y="1.1" style={{ fill: 'var(--ink)', font: '700 3.1px var(--mono)' }}>
        {point.id}
      </text>
      {probe && <path d="M11.3 -2.4 l3 -3.6" stroke={colour} strokeWidth="1.6" strokeLinecap="round" />}
    </g>
  );
}
