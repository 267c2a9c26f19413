import type { ReactNode } from 'react';
import type { Pad } from '@/core/vocabulary';
import { BODY, MONO_FACE } from '../theme/tokens';
import { Axial } from './Axial';
import type { Marks } from './marks';

interface Props {
  readonly marks: Marks;
  /** Legs as they lie in the hand, or pads of a board. */
  readonly pins: 'legs' | 'pads';
}

/** A part seen from above, millimetres, the middle at 0: what a board shows, and what flat parts show in the hand. */
export function Top({ marks, pins }: Props) {
  return (
    <>
      {pins === 'pads' ? <Pads pads={marks.body.pads} small={marks.body.shape === 'so' || marks.body.shape === 'sot23'} /> : <Legs marks={marks} />}
      <Body marks={marks} />
    </>
  );
}

const Pads = ({ pads, small }: { pads: readonly Pad[]; small: boolean }) =>
  pads.map((p) =>
    p.pin === 1 && pads.length > 3 ? (
      <rect key={p.pin} x={p.x - (small ? 0.4 : 0.8)} y={p.y - (small ? 0.5 : 0.8)} width={small ? 0.8 : 1.6} height={small ? 1 : 1.6} fill="var(--copper)" />
    ) : (
      <circle key={p.pin} cx={p.x} cy={p.y} r={small ? 0.45 : 0.8} fill="var(--copper)" />
    ),
  );

/** Wires of axial parts run through; other legs show as stubs. */
function Legs({ marks: { body } }: { marks: Marks }) {
  const [first, last] = [body.pads[0], body.pads[body.pads.length - 1]];
  if (!first || !last || ['chip', 'chip-diode', 'led-chip', 'key', 'terminal', 'header', 'control', 'trimmer'].includes(body.shape)) return null;
  if (body.pads.length === 2) return <path d={`M${first.x - 1} ${first.y}L${last.x + 1} ${last.y}`} stroke="var(--lead)" strokeWidth="0.6" />;
  return body.pads.map((p) => <path key={p.pin} d={`M${p.x} ${p.y * 0.6}L${p.x} ${p.y + Math.sign(p.y) * 0.5}`} stroke="var(--lead)" strokeWidth="0.6" />);
}

const Print = ({ children, size, y = 0, fill = BODY.epoxyPrint }: { children: ReactNode; size: number; y?: number; fill?: string }) => (
  <text y={y + size * 0.35} textAnchor="middle" fill={fill} fontFamily={MONO_FACE} fontWeight="600" fontSize={size}>
    {children}
  </text>
);

/** Letters that fit into a width, millimetres. */
const fitted = (text: string, width: number, most: number) => Math.min(most, (width * 1.55) / Math.max(1, text.length));

interface BoxProps {
  readonly w: number;
  readonly h: number;
  readonly fill: string;
  readonly r?: number;
  readonly edge?: string;
}
const Box = ({ w, h, fill, r = 0.4, edge = BODY.rim }: BoxProps) => (
  <rect x={-w / 2} y={-h / 2} width={w} height={h} rx={r} fill={fill} stroke={edge} strokeWidth="0.12" />
);

/** Notch and dot of a chip: pin 1 is below the notch (JEDEC). */
const ChipBody = ({ w, h, code, pad }: { w: number; h: number; code: string; pad: Pad | undefined }) => (
  <>
    <Box w={w} h={h} fill={BODY.epoxy} edge={BODY.epoxyEdge} />
    <path d={`M${-w / 2} -0.8a0.8 0.8 0 0 1 0 1.6z`} fill={BODY.notch} />
    {pad && <circle cx={Math.max(-w / 2 + 0.9, pad.x)} cy={Math.min(h / 2 - 0.9, pad.y)} r="0.4" fill={BODY.notch} />}
    <Print size={fitted(code, w - 2, 1.7)}>{code}</Print>
  </>
);

function Body({ marks }: { marks: Marks }) {
  const { body, bands, code, lens, dark } = marks;
  const { width: w, height: h, shape, pads } = body;
  switch (shape) {
    case 'axial':
      return bands.length > 0 ? (
        <Axial width={w} height={h} colours={bands} paint={bands.length > 4 ? BODY.metalFilm : BODY.carbon} />
      ) : (
        <>
          <Box w={w} h={h} r={h / 4} fill={BODY.cream} />
          <Print size={fitted(code, w, 1.6)} fill={BODY.darkPrint}>
            {code}
          </Print>
        </>
      );
    case 'axial-glass':
    case 'axial-plastic':
    case 'chip-diode': {
      const black = dark || shape === 'axial-plastic';
      return (
        <>
          <Box w={w} h={h} r={h / 5} fill={black ? BODY.epoxy : BODY.glass} edge="var(--lead)" />
          <rect x={w / 2 - w * 0.3} y={-h / 2} width={w * 0.14} height={h} fill={black ? BODY.epoxyPrint : BODY.epoxy} />
        </>
      );
    }
    case 'disc':
      return <ellipse rx={w / 2} ry={h / 2} fill={BODY.ceramic} stroke={BODY.rim} strokeWidth="0.12" />;
    case 'bead':
      return <ellipse rx={w / 2} ry={h / 2} fill={BODY.sensorGreen} stroke={BODY.rim} strokeWidth="0.12" />;
    case 'film':
      return <Box w={w} h={h} fill={BODY.film} />;
    case 'can':
      return (
        <>
          <circle r={w / 2} fill={BODY.sleeve} stroke={BODY.rim} strokeWidth="0.12" />
          <path d={`M${w * 0.22} ${-w * 0.449}A${w / 2} ${w / 2} 0 0 1 ${w * 0.22} ${w * 0.449}z`} fill={BODY.sleeveStripe} />
          <path d={`M${w * 0.27} 0h${w * 0.16}`} stroke={BODY.sleeve} strokeWidth={w * 0.07} />
          <path d={`M${-w * 0.42} 0h${w * 0.2}m${-w * 0.1} ${-w * 0.1}v${w * 0.2}`} stroke={BODY.sleevePrint} strokeWidth={w * 0.06} />
        </>
      );
    case 'drum':
      return (
        <>
          <circle r={w / 2} fill={BODY.epoxy} />
          <circle r={w * 0.34} fill="var(--copper)" />
        </>
      );
    case 'chip':
      return (
        <>
          <Box w={w} h={h} r={0.1} fill={code ? BODY.epoxy : BODY.ceramic} />
          <rect x={-w / 2} y={-h / 2} width={w * 0.18} height={h} fill={BODY.tin} />
          <rect x={w / 2 - w * 0.18} y={-h / 2} width={w * 0.18} height={h} fill={BODY.tin} />
          <Print size={fitted(code, w * 0.64, h * 0.6)}>{code}</Print>
        </>
      );
    case 'sot23':
      return (
        <>
          <Box w={w} h={h} r={0.15} fill={BODY.epoxy} edge={BODY.epoxyEdge} />
          <Print size={fitted(code, w, 0.8)}>{code}</Print>
        </>
      );
    case 'to92':
      return (
        <path
          d={`M${-w / 2} ${h * 0.3}h${w}a${w / 2} ${w / 2} 0 1 0 ${-w} 0z`}
          transform={`translate(0 ${h * 0.1})`}
          fill={BODY.epoxy}
          stroke={BODY.epoxyEdge}
          strokeWidth="0.15"
        />
      );
    case 'to126':
    case 'to220':
      return (
        <>
          <rect x={-w / 2} y={-h / 2} width={w} height={h * 0.32} fill={BODY.tab} stroke={BODY.tabEdge} strokeWidth="0.12" />
          <rect x={-w / 2} y={-h * 0.18} width={w} height={h * 0.62} rx="0.3" fill={BODY.epoxy} stroke={BODY.epoxyEdge} strokeWidth="0.12" />
        </>
      );
    case 'dip':
    case 'so':
      return <ChipBody w={w} h={h} code={code} pad={pads[0]} />;
    case 'sil':
      return (
        <>
          <Box w={w} h={h} fill={BODY.network} />
          <circle cx={-w / 2 + 0.9} r="0.45" fill={BODY.lightPrint} />
          <Print size={fitted(code, w - 3, 1.4)} fill={BODY.lightPrint}>
            {code}
          </Print>
        </>
      );
    case 'trimmer':
      return (
        <>
          <Box w={w} h={h} fill={BODY.trimmerBlue} />
          <circle r={w * 0.3} fill={BODY.trimmerCap} />
          <path d={`M${-w * 0.2} 0h${w * 0.4}M0 ${-w * 0.2}v${w * 0.4}`} stroke={BODY.slot} strokeWidth={w * 0.07} />
        </>
      );
    case 'trimmer-multiturn':
      return (
        <>
          <Box w={w} h={h} fill={BODY.trimmerBlue} />
          <circle cx={w * 0.36} cy={-h * 0.2} r="0.9" fill="var(--copper)" />
          <Print size={fitted(code, w * 0.7, 1.8)} fill={BODY.lightPrint}>
            {code}
          </Print>
        </>
      );
    case 'control':
      return (
        <>
          <Box w={w} h={h} fill={BODY.steel} />
          <circle r={h * 0.32} fill={BODY.tab} stroke={BODY.tabEdge} strokeWidth="0.3" />
          <path d={`M0 ${-h * 0.3}v${h * 0.2}`} stroke={BODY.slot} strokeWidth="0.6" />
        </>
      );
    case 'led':
      return (
        <>
          <path
            d={`M${w * 0.42} ${-w * 0.27}A${w / 2} ${w / 2} 0 1 0 ${w * 0.42} ${w * 0.27}z`}
            fill={lens ?? BODY.clear}
            stroke={BODY.rim}
            strokeWidth="0.15"
          />
          <circle r={w * 0.3} fill={BODY.lightPrint} fillOpacity="0.35" />
        </>
      );
    case 'led-chip':
      return (
        <>
          <Box w={w} h={h} r={0.1} fill={BODY.lightPrint} />
          <circle r={h * 0.35} fill={lens ?? BODY.clear} />
          <path d={`M${w * 0.36} ${-h / 2}v${h}`} stroke={BODY.sensorGreen} strokeWidth={w * 0.06} />
        </>
      );
    case 'relay':
      return (
        <>
          <Box w={w} h={h} r={0.6} fill={BODY.relayBlue} />
          <rect x={-w * 0.36} y={-1.6} width="3.4" height="3.2" fill="none" stroke={BODY.lightPrint} strokeWidth="0.35" />
          <path d={`M${w * 0.08} 2l4-3`} stroke={BODY.lightPrint} strokeWidth="0.4" />
          <circle cx={w * 0.08} cy="2" r="0.5" fill={BODY.lightPrint} />
        </>
      );
    case 'terminal':
      return (
        <>
          <Box w={w} h={h} fill={BODY.terminalGreen} />
          {pads.map((p) => (
            <g key={p.pin} transform={`translate(${p.x} 0)`}>
              <circle r="1.6" fill={BODY.tin} stroke={BODY.rim} strokeWidth="0.12" />
              <path d="M-1.1 -0.5l2.2 1" stroke={BODY.slot} strokeWidth="0.4" />
            </g>
          ))}
        </>
      );
    case 'header':
      return (
        <>
          <Box w={w} h={h} r={0.3} fill={BODY.epoxy} />
          {pads.map((p) => (
            <rect key={p.pin} x={p.x - 0.35} y={-0.35} width="0.7" height="0.7" fill="var(--copper)" />
          ))}
        </>
      );
    case 'socket':
      return (
        <>
          <rect x={-w / 2} y={-h / 2} width={w} height={h} rx="0.4" fill="none" stroke={BODY.epoxy} strokeWidth="2.2" />
          <path d={`M${-w / 2} -0.9a0.9 0.9 0 0 1 0 1.8z`} fill={BODY.notch} />
          {pads.map((p) => (
            <circle key={p.pin} cx={p.x} cy={Math.sign(p.y) * (h / 2)} r="0.55" fill={BODY.tin} />
          ))}
        </>
      );
    case 'jack':
      return (
        <>
          <Box w={w} h={h} r={0.4} fill={BODY.epoxy} edge={BODY.epoxyEdge} />
          <rect x={-w / 2 - 1.5} y={-h * 0.36} width="3" height={h * 0.72} rx="0.4" fill={BODY.epoxyEdge} />
          <path d={`M${-w / 2} 0h${w * 0.5}`} stroke={BODY.tin} strokeWidth="1.1" />
        </>
      );
    case 'crystal':
      return (
        <>
          <Box w={w} h={h} r={h / 2} fill={BODY.steel} edge={BODY.tabEdge} />
          <Print size={fitted(code, w - 2, 1.9)} fill={BODY.slot}>
            {code}
          </Print>
        </>
      );
    case 'coin-clip':
      return (
        <>
          <circle r={h / 2} fill={BODY.steel} stroke={BODY.tabEdge} strokeWidth="0.3" />
          <path d={`M${-w / 2} -2.5h${w}v5h${-w}z`} fill={BODY.tin} stroke={BODY.tabEdge} strokeWidth="0.2" />
          <path d="M-1.5 0h3M0 -1.5v3" stroke={BODY.slot} strokeWidth="0.6" />
        </>
      );
    case 'battery':
      return (
        <>
          <Box w={w} h={h} r={1} fill={BODY.epoxy} />
          <circle cx="-6" r="2.6" fill={BODY.tin} />
          <circle cx="6" r="3.6" fill={BODY.tin} />
          <circle cx="6" r="2" fill={BODY.epoxy} />
          <Print size={3.4} y={6}>
            + −
          </Print>
        </>
      );
    case 'toggle':
      return (
        <>
          <Box w={w} h={h} fill={BODY.steel} edge={BODY.tabEdge} />
          <circle r={h * 0.38} fill={BODY.tab} stroke={BODY.tabEdge} strokeWidth="0.25" />
          <path d={`M0 0l${w * 0.34} ${-h * 0.22}`} stroke={BODY.slot} strokeWidth="1.3" strokeLinecap="round" />
        </>
      );
    case 'slide':
      return (
        <>
          <Box w={w} h={h} fill={BODY.steel} edge={BODY.tabEdge} />
          <rect x={-w * 0.36} y={-h * 0.22} width={w * 0.72} height={h * 0.44} fill={BODY.slot} />
          <rect x={-w * 0.3} y={-h * 0.34} width={w * 0.26} height={h * 0.68} rx="0.2" fill={BODY.epoxy} />
        </>
      );
    case 'key':
      return (
        <>
          <Box w={w} h={h} fill={BODY.steel} edge={BODY.tabEdge} />
          <circle r={w * 0.29} fill={BODY.epoxy} />
        </>
      );
    case 'drop':
      return (
        <>
          <ellipse rx={w / 2} ry={h / 2} fill={BODY.film} stroke={BODY.rim} strokeWidth="0.12" />
          <path d={`M${-w * 0.3} ${-h * 0.38}v${h * 0.76}`} stroke={BODY.slot} strokeWidth="0.4" />
          <path d={`M${-w * 0.16} 0h1.2m-0.6 -0.6v1.2`} stroke={BODY.slot} strokeWidth="0.3" />
        </>
      );
    case 'bridge':
      return (
        <>
          <Box w={w} h={h} fill={BODY.epoxy} />
          <path d={`M${-w * 0.34} ${-h * 0.3}h1.6m-0.8 -0.8v1.6M${w * 0.2} ${h * 0.3}h1.6`} stroke={BODY.epoxyPrint} strokeWidth="0.3" />
          <path
            d={`M${w * 0.16} ${-h * 0.3}q0.5 -0.8 1 0t1 0M${-w * 0.36} ${h * 0.3}q0.5 -0.8 1 0t1 0`}
            fill="none"
            stroke={BODY.epoxyPrint}
            strokeWidth="0.3"
          />
        </>
      );
    case 'microphone':
      return (
        <>
          <circle r={w / 2} fill={BODY.steel} stroke={BODY.tabEdge} strokeWidth="0.3" />
          <circle r={w * 0.36} fill={BODY.epoxy} />
        </>
      );
    case 'display':
      return (
        <>
          <Box w={w} h={h} fill={BODY.epoxy} />
          <path
            d={`M${-w * 0.16} ${-h * 0.3}h${w * 0.36}l${-w * 0.04} ${h * 0.3}h${-w * 0.36}zM${-w * 0.2} 0h${w * 0.36}l${-w * 0.04} ${h * 0.3}h${-w * 0.36}z`}
            fill="none"
            stroke={BODY.epoxyPrint}
            strokeWidth={w * 0.05}
          />
        </>
      );
    case 'module':
      return (
        <>
          <Box w={w} h={h} fill={BODY.sleeve} />
          <Box w={w * 0.4} h={h * 0.4} fill={BODY.epoxy} />
        </>
      );
    case 'transformer':
      return (
        <>
          <Box w={w} h={h * 0.72} fill={BODY.steel} />
          <Box w={w * 0.56} h={h} fill={BODY.film} />
        </>
      );
    case 'sink':
      return (
        <>
          <Box w={w} h={h * 0.2} fill={BODY.tab} />
          {[-0.4, -0.2, 0, 0.2, 0.4].map((x) => (
            <rect key={x} x={w * x - 0.6} y={-h / 2} width="1.2" height={h} fill={BODY.tab} stroke={BODY.tabEdge} strokeWidth="0.15" />
          ))}
        </>
      );
    case 'buzzer':
      return (
        <>
          <circle r={w / 2} fill={BODY.epoxy} stroke={BODY.epoxyEdge} strokeWidth="0.2" />
          <circle r="1" fill={BODY.notch} />
          <path d={`M${-w * 0.36} 0h1.8m-0.9 -0.9v1.8`} stroke={BODY.epoxyPrint} strokeWidth="0.4" />
        </>
      );
    case 'loudspeaker':
      return (
        <>
          <circle r={w / 2} fill={BODY.steel} stroke={BODY.tabEdge} strokeWidth="0.5" />
          <circle r={w * 0.4} fill={BODY.cone} />
          <circle r={w * 0.16} fill={BODY.epoxy} />
        </>
      );
    case 'fuse':
      return (
        <>
          <Box w={w} h={h} r={1} fill={BODY.clear} />
          <rect x={-w / 2} y={-h / 2} width={w * 0.24} height={h} rx="0.4" fill={BODY.tin} />
          <rect x={w / 2 - w * 0.24} y={-h / 2} width={w * 0.24} height={h} rx="0.4" fill={BODY.tin} />
          <path d={`M${-w * 0.26} 0q${w * 0.13} -1 ${w * 0.26} 0t${w * 0.26} 0`} fill="none" stroke={BODY.slot} strokeWidth="0.3" />
        </>
      );
    case 'lamp':
      return <circle r={w / 2} fill={BODY.cream} stroke={BODY.rim} strokeWidth="0.2" />;
    case 'ldr':
      return (
        <>
          <ellipse rx={w / 2} ry={h / 2} fill={BODY.cream} stroke={BODY.rim} strokeWidth="0.15" />
          <path
            d={`M${-w * 0.3} ${-h * 0.22}h${w * 0.6}q${w * 0.1} ${h * 0.11} 0 ${h * 0.22}h${-w * 0.6}q${-w * 0.1} ${h * 0.11} 0 ${h * 0.22}h${w * 0.6}`}
            fill="none"
            stroke={BODY.film}
            strokeWidth="0.4"
          />
        </>
      );
    case 'link':
      return <path d={`M${-w / 2} 0h${w}`} stroke={BODY.tin} strokeWidth="0.9" strokeLinecap="round" />;
    case 'screw':
      return (
        <>
          <circle r={w / 2} fill={BODY.steel} stroke={BODY.tabEdge} strokeWidth="0.3" />
          <path d={`M${-w * 0.28} 0h${w * 0.56}M0 ${-w * 0.28}v${w * 0.56}`} stroke={BODY.slot} strokeWidth="0.7" />
        </>
      );
    case 'unknown':
      return (
        <>
          <rect x={-w / 2} y={-h / 2} width={w} height={h} rx="0.6" fill={BODY.unknown} stroke={BODY.rim} strokeWidth="0.2" strokeDasharray="0.8 0.6" />
          <Print size={3} fill={BODY.lightPrint}>
            ?
          </Print>
        </>
      );
  }
}
