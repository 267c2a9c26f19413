import type { ReactNode } from 'react';
import type { Shape } from '@/core/vocabulary';
import { BODY, MONO_FACE } from '../theme/tokens';
import type { Marks } from './marks';

type Drawing = (props: { readonly marks: Marks }) => ReactNode;

const Leads = ({ d }: { d: string }) => <path d={d} stroke="var(--lead)" strokeWidth="2.2" fill="none" />;

const Print = ({ x, y, size, fill, children }: { x: number; y: number; size: number; fill: string; children: ReactNode }) => (
  <text x={x} y={y} fontFamily={MONO_FACE} fontSize={size} fontWeight="700" textAnchor="middle" fill={fill}>
    {children}
  </text>
);

const Disc: Drawing = ({ marks }) => (
  <>
    <Leads d="M40 26v20M56 26v20" />
    <ellipse cx="48" cy="17" rx="19" ry="15" fill={BODY.ceramic} stroke={BODY.rim} />
    <Print x={48} y={22} size={13} fill={BODY.darkPrint}>
      {marks.code}
    </Print>
  </>
);

const Bead: Drawing = () => (
  <>
    <Leads d="M42 24v22M54 24v22" />
    <ellipse cx="48" cy="17" rx="15" ry="14" fill={BODY.sensorGreen} stroke={BODY.rim} />
    <Print x={48} y={21} size={11} fill={BODY.lightPrint}>
      NTC
    </Print>
  </>
);

const Film: Drawing = ({ marks }) => (
  <>
    <Leads d="M34 34v12M62 34v12" />
    <rect x="24" y="4" width="48" height="31" rx="3" fill={BODY.film} stroke={BODY.rim} />
    <Print x={48} y={24} size={13} fill={BODY.lightPrint}>
      {marks.code}
    </Print>
  </>
);

/** The stripe with its bars marks minus; the longer leg is plus (common practice). */
const Can: Drawing = ({ marks }) => (
  <>
    <Leads d="M40 34v12M56 34v8" />
    <rect x="31" y="2" width="34" height="33" rx="4" fill={BODY.sleeve} />
    <rect x="56" y="2" width="9" height="33" fill={BODY.sleeveStripe} />
    <path d="M58 12h5M58 24h5" stroke={BODY.sleeve} strokeWidth="2" />
    <Print x={43} y={22} size={marks.code.length > 3 ? 9 : 11} fill={BODY.sleevePrint}>
      {marks.code}
    </Print>
  </>
);

const Drum: Drawing = ({ marks }) => (
  <>
    <Leads d="M38 36v10M58 36v10" />
    <rect x="28" y="4" width="40" height="7" rx="2" fill={BODY.epoxy} />
    <rect x="28" y="29" width="40" height="7" rx="2" fill={BODY.epoxy} />
    <rect x="32" y="11" width="32" height="18" fill="var(--copper)" />
    <Print x={48} y={24} size={11} fill={BODY.darkPrint}>
      {marks.code}
    </Print>
  </>
);

/** The longer leg is the anode; the flat and the short leg mark the cathode (common practice). */
const Lens: Drawing = ({ marks }) => {
  const fill = marks.lens ?? BODY.clear;
  const size = marks.body.width;
  const r = size <= 3.5 ? 9 : size >= 8 ? 17 : 13;
  return (
    <>
      <Leads d="M43 30v16M53 30v11" />
      <path d={`M${48 - r} 28V${28 - Math.min(14, r)}a${r} ${Math.min(13, r)} 0 0 1 ${2 * r} 0V28z`} fill={fill} stroke={BODY.rim} />
      <path d={`M${48 - r - 2} 26h${2 * r + 4}v5h${-2 * r - 2}q-2 0-2-2z`} fill={fill} stroke={BODY.rim} />
    </>
  );
};

const Lamp: Drawing = () => (
  <>
    <Leads d="M43 36v10M53 36v10" />
    <rect x="39" y="28" width="18" height="9" fill={BODY.tin} />
    <circle cx="48" cy="16" r="14" fill={BODY.cream} stroke={BODY.rim} />
    <path d="M43 28l2-12q3-4 6 0l2 12" fill="none" stroke={BODY.slot} />
  </>
);

const FlatSided: Drawing = ({ marks }) => (
  <>
    <Leads d="M38 32v14M48 32v14M58 32v14" />
    <path d="M31 32V7q0-4 4-4h26q4 0 4 4v25z" fill={BODY.epoxy} stroke={BODY.epoxyEdge} />
    <Print x={48} y={22} size={marks.code.length > 4 ? 9.5 : 11} fill={BODY.epoxyPrint}>
      {marks.code}
    </Print>
  </>
);

const Tabbed = (wide: boolean): Drawing =>
  function TabbedBody({ marks }) {
    const legs = marks.body.pads.length;
    const step = wide ? 26 / Math.max(2, legs - 1) : 8;
    return (
      <>
        <Leads d={marks.body.pads.map((_, i) => `M${48 + (i - (legs - 1) / 2) * step} 34v12`).join('')} />
        <rect x={wide ? 29 : 34} y="0" width={wide ? 38 : 28} height="15" fill={BODY.tab} stroke={BODY.tabEdge} />
        <circle cx="48" cy="6.5" r="4" fill="var(--sheet)" stroke={BODY.tabEdge} />
        <rect x={wide ? 28 : 33} y="13" width={wide ? 40 : 30} height="22" rx="2" fill={BODY.epoxy} stroke={BODY.epoxyEdge} />
        <Print x={48} y={28} size={wide ? 9.5 : 8} fill={BODY.epoxyPrint}>
          {marks.code.slice(0, 7)}
        </Print>
      </>
    );
  };

/** Bodies that look different from the side, as they lie in the hand; 96 × 46. All others are drawn from above. */
export const SIDE: Readonly<Partial<Record<Shape, Drawing>>> = {
  disc: Disc,
  bead: Bead,
  film: Film,
  can: Can,
  drum: Drum,
  led: Lens,
  lamp: Lamp,
  to92: FlatSided,
  to126: Tabbed(false),
  to220: Tabbed(true),
};
