import type { Line } from '@/core/kit';
import { bandsOf, capacitorCode, chipResistorCode, type Colour } from '@/core/marking';
import { type Package, packageOf } from '@/core/vocabulary';
import { LED_PAINT } from '../theme/tokens';

/** What is printed on a part, and how it is built: all that a drawing needs. */
export interface Marks {
  readonly body: Package;
  readonly bands: readonly (Colour | null)[];
  readonly code: string;
  readonly lens: string | null;
  readonly dark: boolean;
}

const drawnLines = new WeakMap<object, Marks>();

const percentOf = (line: Line) => Math.round((line.tolerance?.[1] ?? 0.05) * 1000) / 10;

const TYPE_NUMBER = /\b[A-Z]*\d[A-Z0-9]{2,}\b/i;

/** Short enough for a small body: `BC547` is printed as it is, `78L05` too; a leading maker's letter goes when room is short. */
const typeCode = (line: Line, room: number) => {
  const type = (TYPE_NUMBER.exec(line.label) ?? TYPE_NUMBER.exec(line.type ?? ''))?.[0].toUpperCase() ?? '';
  return type.length > room ? type.replace(/^[A-Z]+(?=\d)/, '').slice(0, room) : type;
};

function codeOf(line: Line, body: Package): string {
  const { value } = line;
  switch (body.shape) {
    case 'disc':
    case 'film':
      return value !== null ? (capacitorCode(value) ?? '') : '';
    case 'can':
      return value !== null ? String(Number((value * 1e6).toPrecision(3))) : '';
    case 'chip':
      return line.kind === 'resistor' && value !== null ? (chipResistorCode(value, percentOf(line)) ?? '') : '';
    case 'sil':
      return line.kind === 'network' && value !== null ? (capacitorCode(value * 1e-12) ?? '') : typeCode(line, 8);
    case 'sot23':
    case 'to92':
      return typeCode(line, 5);
    case 'trimmer':
    case 'trimmer-multiturn':
      return value !== null ? (capacitorCode(value * 1e-12) ?? '') : '';
    case 'crystal':
      return value !== null ? (value / 1e6).toFixed(3).replace(/0+$/, '').replace(/\.$/, '') : '';
    case 'fuse':
      return /\d+(?:\.\d+)?\s?m?A/i.exec(line.label)?.[0] ?? '';
    default:
      return typeCode(line, 9);
  }
}

/** The marks of a line's parts, worked out once. */
export function marksOf(line: Line): Marks {
  const known = drawnLines.get(line);
  if (known) return known;
  const body = packageOf(line);
  const carriesBands = (line.kind === 'resistor' || line.kind === 'inductor') && body.shape === 'axial' && line.value !== null;
  const marks: Marks = {
    body,
    bands: carriesBands ? (bandsOf(line.kind === 'inductor' ? line.value * 1e6 : line.value, percentOf(line)) ?? []) : [],
    code: codeOf(line, body),
    lens: line.kind === 'led' ? (LED_PAINT[line.colour?.toLowerCase() ?? ''] ?? null) : null,
    dark: line.kind === 'diode',
  };
  drawnLines.set(line, marks);
  return marks;
}
