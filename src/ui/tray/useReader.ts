import { type KeyboardEvent, useMemo, useState } from 'react';
import { type MarkingKind, readMarking, type Target } from '@/core/loop';
import { type KitState, type Line, patch } from '@/core/kit';
import type { Colour } from '@/core/marking';
import { CHIP_KINDS } from '@/core/vocabulary';
import { useBench } from '@/store/bench';

/** Short names of the colours, as one types them. */
export const SHORT: Readonly<Record<string, string>> = {
  black: 'bk',
  brown: 'bn',
  red: 'rd',
  orange: 'og',
  yellow: 'ye',
  green: 'gn',
  blue: 'bu',
  violet: 'vt',
  grey: 'gy',
  white: 'wh',
  gold: 'gd',
  silver: 'sr',
};

/** The kind of marking that a line's parts carry. */
function kindFor(line: Line | null): MarkingKind {
  if (line?.kind === 'capacitor' || line?.kind === 'electrolytic' || line?.kind === 'tantalum') return 'capacitor';
  if (line?.kind === 'inductor') return 'coil';
  if (line?.kind === 'resistor') return /0402|0603|0805|1206/.test(line.package ?? '') ? 'chip' : 'bands';
  return line?.kind === 'trimmer' ? 'chip' : line && CHIP_KINDS.includes(line.kind) ? 'date' : 'bands';
}

export interface ReaderProps {
  readonly kit: KitState;
  readonly target: Target | null;
  readonly close: () => void;
  readonly fill: (text: string) => void;
}

/** What is being read, what it can mean, and what is done with it. */
export function useReader({ kit, target, close, fill }: ReaderProps) {
  const line = target?.kind === 'piece' || target?.kind === 'count' ? target.line : null;
  const [kind, setKind] = useState<MarkingKind>(() => kindFor(line));
  const [text, setText] = useState('');
  const append = useBench((s) => s.append);
  const today = new Date().toISOString().slice(0, 10);
  const { message, choices } = useMemo(() => readMarking(kind, text, kit.sheet.lines, today), [kind, text, kit.sheet.lines, today]);
  const best = choices[0] ?? null;
  const identify = () => {
    if (!best) return;
    if (target?.kind === 'loose') fill(`${kind === 'capacitor' ? 'c' : kind === 'coil' ? 'l' : 'r'} ${text.trim()} `);
    else if (target?.kind === 'piece') void append({ kind: 'marked', line: target.line.id, piece: target.piece, text: `${text.trim()} = ${best.text}` });
    else if (line) void append({ kind: 'marked', line: line.id, piece: 0, text: `${text.trim()} = ${best.text}` });
    close();
  };
  const expectThis = () => {
    if (!best || best.value === null || !line) return;
    const { value, tolerance, text: said } = best;
    void append((k) =>
      patch(k, 'lines', line.id, { value, tolerance: tolerance ?? line.tolerance, label: line.value === null ? `${line.label} ${said}` : line.label }),
    );
    close();
  };
  return {
    line,
    kind,
    text,
    setText,
    message,
    choices,
    best,
    bands: kind === 'bands' || kind === 'coil',
    identify,
    expectThis,
    chooseKind: (to: MarkingKind) => {
      setKind(to);
      setText('');
    },
    addBand: (colour: Colour) => {
      setText((t) => `${t.trimEnd()} ${SHORT[colour]!}`.trim());
    },
    onKeyDown: (e: KeyboardEvent<HTMLInputElement>) => {
      if (e.repeat || e.key !== 'Enter') return;
      if (e.ctrlKey || e.metaKey) expectThis();
      else identify();
      e.preventDefault();
    },
  };
}
