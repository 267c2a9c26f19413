import type { FittingSchool, Line } from '../kit';
import { CHIP_KINDS } from '../vocabulary';
import { fittingFacts } from './bodies';

const PASSIVE = new Set<Line['kind']>([
  'resistor',
  'network',
  'capacitor',
  'inductor',
  'trimmer',
  'varistor',
  'thermistor',
  'ldr',
  'fuse',
  'crystal',
  'link',
  'socket',
]);
const CHIPS: ReadonlySet<Line['kind']> = new Set(CHIP_KINDS);
const PLAIN = new Set<Line['kind']>([
  'electrolytic',
  'tantalum',
  'potentiometer',
  'bridge',
  'connector',
  'switch',
  'relay',
  'lamp',
  'transformer',
  'loudspeaker',
  'buzzer',
  'microphone',
  'motor',
  'display',
  'module',
  'holder',
  'battery',
  'heatsink',
  'mechanical',
  'other',
]);

/** How much heat, static or a mistake harms a part: passives, what stands in the way, semiconductors, chips, LEDs. */
function harmOf(line: Line): number {
  if (line.kind === 'led') return 4;
  if (CHIPS.has(line.kind)) return 3;
  if (PASSIVE.has(line.kind)) return 0;
  return PLAIN.has(line.kind) ? 1 : 2;
}

export interface Ranked {
  readonly line: Line;
  readonly ref: string;
  /** Place in the list. */
  readonly index: number;
  readonly block: number;
}

/** What comes first, compared from left to right; smaller first. */
export function rankOf(school: FittingSchool, { line, ref, index, block }: Ranked, own: ReadonlyMap<string, number>): readonly number[] {
  const { height, heavy, finePitch } = fittingFacts(line);
  switch (school) {
    case 'lowest':
      return [height, index];
    case 'list':
      return [index];
    case 'blocks':
      return [block, height, index];
    case 'least-harm':
      return [finePitch ? 0 : 1, harmOf(line), height, index];
    case 'heavy':
      return [heavy ? 0 : 1, heavy ? -height : height, index];
    case 'own':
      return [own.get(ref) ?? own.size, height, index];
  }
}

/** The first figure that differs decides; a shorter rank comes first. */
export function compareRanks(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const [x, y] = [a[i] ?? -Infinity, b[i] ?? -Infinity];
    if (x !== y) return x < y ? -1 : 1;
  }
  return 0;
}
