import { type Line } from '@/core/kit';
import { bandsOf, capacitorCode, type Colour } from '@/core/marking';

export const PAINT: Readonly<Record<Colour, string>> = {
  black: '#1b1b1b',
  brown: '#6b3d1e',
  red: '#c1272d',
  orange: '#e9761b',
  yellow: '#f2cf1d',
  green: '#2e8b3d',
  blue: '#2458a6',
  violet: '#6f3a96',
  grey: '#8a8a8a',
  white: '#f5f5f2',
  gold: '#b48a2c',
  silver: '#b9bcc0',
};
export const LED_PAINT: Readonly<Record<string, string>> = {
  red: '#d8453c',
  green: '#5fae57',
  yellow: '#e8c63a',
  orange: '#ea8a2e',
  blue: '#4a7fd0',
  white: '#f3f1e6',
  infrared: '#5b5160',
};
const MONO = "'Ubuntu Sans Mono Variable', monospace";

/** The part as it should look in the hand. Decoration: the words stand beside it. */
export function PartBody({ line }: { line: Line }) {
  return (
    <svg width="96" height="46" viewBox="0 0 96 46" aria-hidden="true">
      <Shape line={line} />
    </svg>
  );
}

function Shape({ line }: { line: Line }) {
  switch (line.kind) {
    case 'resistor':
      return <Resistor line={line} />;
    case 'capacitor':
    case 'thermistor':
      return (
        <Disc
          text={line.kind === 'capacitor' && line.value ? (capacitorCode(line.value) ?? '') : 'NTC'}
          fill={line.kind === 'capacitor' ? '#d98e4a' : '#3f7d5c'}
        />
      );
    case 'electrolytic':
      return <Can text={line.value ? String(Math.round(line.value * 1e6)) : ''} />;
    case 'diode':
    case 'zener':
      return <Glass dark={line.kind === 'diode'} />;
    case 'led':
      return <Lens fill={LED_PAINT[line.colour?.toLowerCase() ?? ''] ?? '#c9c3b2'} />;
    case 'npn':
    case 'pnp':
    case 'nmos':
    case 'pmos':
    case 'njf':
    case 'pjf':
      return <FlatSided text={line.label.replace(/^[A-Z]{1,2}(?=[A-Z]?\d)/, '').slice(0, 5)} />;
    case 'trimmer':
      return <Trimmer />;
    case 'opamp':
    case 'ic':
      return <Chip />;
    case 'relay':
      return <Block fill="#2458a6" />;
    case 'connector':
      return <Block fill="#3d7a46" poles={line.label.includes('8') ? 4 : 2} />;
    default:
      return <Block fill="#8f8a7c" />;
  }
}

const Leads = ({ d }: { d: string }) => <path d={d} stroke="var(--lead)" strokeWidth="2.4" fill="none" />;

function Resistor({ line }: { line: Line }) {
  const percent = Math.round((line.tolerance?.[1] ?? 0.05) * 1000) / 10;
  const bands = (line.value !== null ? bandsOf(line.value, percent) : null) ?? [];
  return <ResistorBody colours={bands} />;
}

/** A resistor with its bands, the last one apart; a band that was not read is a gap. */
export function ResistorBody({ colours, onBand }: { colours: readonly (Colour | null)[]; onBand?: (index: number) => void }) {
  const five = colours.length > 4;
  const at = colours.length > 5 ? [17, 26, 34, 42, 52, 66] : five ? [19, 29, 38, 47, 60] : [19, 31, 42, 60];
  return (
    <>
      <Leads d="M0 23h96" />
      <path
        d="M18 14h12q3 3 8 3h20q5 0 8-3h12q6 0 6 9t-6 9H66q-3-3-8-3H38q-5 0-8 3H18q-6 0-6-9t6-9z"
        fill={five ? '#8fb3c9' : '#d9bf93'}
        transform="translate(-1 0)"
      />
      {colours.slice(0, 6).map((c, i) => {
        const edge = i === 0 || (i === colours.length - 1 && i > 1);
        return (
          <rect
            key={i}
            x={at[i] ?? 66}
            y={edge ? 14 : 17}
            width="5"
            height={edge ? 18 : 12}
            fill={c ? PAINT[c] : 'none'}
            stroke={c ? 'none' : '#0006'}
            {...(onBand
              ? {
                  style: { cursor: 'pointer' },
                  onClick: () => {
                    onBand(i);
                  },
                }
              : {})}
          />
        );
      })}
    </>
  );
}

const Disc = ({ text, fill }: { text: string; fill: string }) => (
  <>
    <Leads d="M20 26v20M40 26v20" />
    <ellipse cx="30" cy="17" rx="19" ry="15" fill={fill} />
    <text x="30" y="22" fontFamily={MONO} fontSize="13" fontWeight="700" textAnchor="middle" fill="#2a1604">
      {text}
    </text>
  </>
);

const Can = ({ text }: { text: string }) => (
  <>
    <Leads d="M22 34v12M38 34v8" />
    <rect x="13" y="2" width="34" height="33" rx="4" fill="#33475b" />
    <rect x="38" y="2" width="9" height="33" fill="#c9d3dc" />
    <path d="M40 12h5M40 24h5" stroke="#33475b" strokeWidth="2" />
    <text x="25" y="22" fontFamily={MONO} fontSize="10" textAnchor="middle" fill="#e8eef3">
      {text}
    </text>
  </>
);

const Glass = ({ dark }: { dark: boolean }) => (
  <>
    <Leads d="M0 23h96" />
    <rect x="26" y="15" width="44" height="16" rx="3" fill={dark ? '#26292a' : '#c4683c'} stroke="var(--lead)" />
    <rect x="58" y="15" width="5" height="16" fill={dark ? '#cfd3d1' : '#26292a'} />
  </>
);

const Lens = ({ fill }: { fill: string }) => (
  <>
    <Leads d="M25 30v16M35 30v11" />
    <path d="M18 28V16a12 12 0 0 1 24 0v12z" fill={fill} stroke="#0003" />
    <rect x="16" y="26" width="28" height="5" rx="1" fill={fill} stroke="#0003" />
  </>
);

const FlatSided = ({ text }: { text: string }) => (
  <>
    <Leads d="M22 26v20M30 26v20M38 26v20" />
    <path d="M12 27V14a18 12 0 0 1 36 0v13z" fill="#2a2d2e" stroke="var(--lead)" />
    <text x="30" y="22" fontFamily={MONO} fontSize="9.5" textAnchor="middle" fill="#d5d8d6">
      {text}
    </text>
  </>
);

const Trimmer = () => (
  <>
    <rect x="10" y="4" width="40" height="38" rx="4" fill="#4a79b8" />
    <circle cx="30" cy="22" r="11" fill="#e9edf2" />
    <path d="M22 22h16" stroke="#46525a" strokeWidth="3" />
  </>
);

const Chip = () => (
  <>
    <path d="M17 8v30M28 8v30M39 8v30M50 8v30" stroke="var(--lead)" strokeWidth="4" />
    <rect x="10" y="12" width="50" height="22" rx="3" fill="#23292b" stroke="var(--lead)" />
    <circle cx="17" cy="28" r="2.5" fill="#8a9492" />
  </>
);

const Block = ({ fill, poles = 0 }: { fill: string; poles?: number }) => (
  <>
    <rect x="10" y="6" width="54" height="34" rx="3" fill={fill} />
    {Array.from({ length: poles }, (_, i) => (
      <circle key={i} cx={10 + ((i + 0.5) * 54) / poles} cy="23" r="5" fill="#d5d8d6" stroke="#0004" />
    ))}
  </>
);
