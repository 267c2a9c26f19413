import {
  type Band,
  decodeCapacitorCode,
  type Decoded,
  decodeInductorBands,
  decodeInductorCode,
  decodeLetterValue,
  decodeResistorBands,
  decodeResistorCode,
} from '../marking';
import type { LooseKind } from './model';

/** Colours that are mistaken for each other (handbook of the trade, common practice). */
const CONFUSABLE: Readonly<Record<string, readonly string[]>> = {
  brown: ['red', 'orange'],
  red: ['brown', 'orange'],
  orange: ['red', 'brown'],
  blue: ['violet', 'grey'],
  violet: ['blue', 'grey'],
  grey: ['violet', 'blue'],
};

/** Values that a marking may mean: as read, and with one colour mistaken. */
export interface MarkingValues {
  readonly asRead: readonly number[];
  readonly oneColourOff: readonly number[];
}

const valuesOf = (d: Decoded): number[] => {
  const readings = d.state === 'clear' ? [d.reading, ...d.others] : d.state === 'ambiguous' ? d.readings : [];
  return readings.map((r) => Number(r.value)).filter((v) => v > 0);
};

export function markingValues(kind: LooseKind, marking: string | readonly string[]): MarkingValues {
  if (typeof marking === 'string') return { asRead: textValues(kind, marking), oneColourOff: [] };
  const read = (bands: readonly Band[]) => valuesOf(kind === 'L' ? decodeInductorBands(bands) : decodeResistorBands(bands));
  const off = marking.flatMap((colour, i) => (CONFUSABLE[colour] ?? []).flatMap((other) => read(marking.map((c, k) => (k === i ? other : c)))));
  return { asRead: read(marking), oneColourOff: off };
}

function textValues(kind: LooseKind, text: string): number[] {
  switch (kind) {
    case 'R':
      return firstOf(decodeResistorCode(text), decodeLetterValue(text, 'R'));
    case 'C':
      return firstOf(decodeCapacitorCode(text), decodeLetterValue(text, 'C'));
    case 'L':
      return firstOf(decodeInductorCode(text), decodeLetterValue(text, 'L'));
    default:
      return [];
  }
}

/** Cans and coils carry a code (`104`) or the value written out (`1000µF 16V`). */
const firstOf = (code: Decoded, written: Decoded) => (code.state === 'invalid' ? valuesOf(written) : valuesOf(code));

/** Value of a list cell such as `2M2`, `104`, `0.01u`, `68 ohm`; null when it cannot be read. */
export function listValue(kind: 'R' | 'C' | 'L', text: string): number | null {
  const decoders = [
    () => (kind === 'C' && /^\d{3}$/.test(text) ? decodeCapacitorCode(text, [text]) : decodeLetterValue(text, kind)),
    () => (kind === 'C' ? decodeCapacitorCode(text, [text]) : kind === 'R' ? decodeResistorCode(text) : decodeInductorCode(text)),
  ];
  for (const decode of decoders) {
    const [value] = valuesOf(decode());
    if (value !== undefined) return value;
  }
  return null;
}
