import { Form } from 'antd';
import { useMemo, useState } from 'react';
import type { Consequence, ConsequenceText, Supposition, Swept } from '@/core/consequence';
import type { KitState, Line } from '@/core/kit';
import { parseQuantity, type Unit } from '@/core/quantity';
import { circuitOf, controlOf } from '@/core/stage';
import { CHIP_KINDS, factsOf } from '@/core/vocabulary';
import { ask as askWorker, Cancelled, stopAsking } from '@/store/results';
import { useWindows } from '../results/useWindows';

export const CHANGES = {
  value: 'has another value',
  removed: 'is taken out',
  round: 'sits the wrong way round',
  exchanged: 'is exchanged with',
  swept: 'goes through a range',
} as const;
type Change = keyof typeof CHANGES;

/** Steps of a sweep, ends included. */
const STEPS = 9;
const VALUED: readonly (Unit | null)[] = ['ohm', 'F', 'H'];
const POLARISED: readonly Line['kind'][] = ['diode', 'zener', 'led', 'electrolytic', 'tantalum'];
const THREE_LEGGED: readonly Line['kind'][] = ['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf'];

type Answered =
  | { readonly consequence: Consequence; readonly text: ConsequenceText }
  | { readonly values: readonly number[]; readonly swept: readonly Swept[]; readonly unit: Unit };

export interface WhatIfValues {
  readonly ref: string;
  readonly change: Change;
  readonly value?: string;
  readonly upTo?: string;
  readonly other?: string;
}

/** What is supposed, and what the workers make of it. */
export function useWhatIf(kit: KitState) {
  const windows = useWindows(kit) ?? {};
  const lines = kit.sheet.lines.filter((l) => factsOf(l.kind).board !== null || CHIP_KINDS.includes(l.kind));
  const supplies = [...new Set(kit.sheet.stages.flatMap((s) => s.supplies.map((x) => x.source)))];
  const refs = [...lines.flatMap((l) => l.refs), ...supplies];
  const [form] = Form.useForm<WhatIfValues>();
  const watched = Form.useWatch((values: WhatIfValues) => values, form) as Partial<WhatIfValues> | undefined;
  const ref = watched?.ref ?? refs[0] ?? '';
  const wanted = watched?.change ?? 'value';
  const [answer, setAnswer] = useState<Answered | null>(null);
  const [error, setError] = useState('');
  const [asking, setAsking] = useState<'whatIf' | 'sweep' | null>(null);
  const circuit = useMemo(() => circuitOf(kit.sheet), [kit.sheet]);
  const partOf = (name: string) => {
    const line = kit.sheet.lines.find((l) => l.refs.includes(name));
    const control = controlOf(kit.sheet, circuit, name) !== null;
    const unit: Unit = control ? 'ratio' : line ? (factsOf(line.kind).unit ?? 'ohm') : 'V';
    return {
      line,
      control,
      unit,
      possible: changesOf(line, control),
      partners: line ? lines.filter((l) => l.kind === line.kind).flatMap((l) => l.refs.filter((r) => r !== name)) : [],
    };
  };
  const part = { ...partOf(ref), change: wanted };
  const show = (name: 'whatIf' | 'sweep', found: Promise<Answered>) => {
    setError('');
    setAsking(name);
    found
      .then(setAnswer, (e: unknown) => {
        if (!(e instanceof Cancelled)) setError((e as Error).message);
      })
      .finally(() => {
        setAsking(null);
      });
  };
  return {
    form,
    refs,
    part,
    answer,
    error,
    stop:
      asking &&
      (() => {
        stopAsking(asking);
      }),
    changed: (values: WhatIfValues) => {
      setAnswer(null);
      setError('');
      const { possible } = partOf(values.ref);
      if (!possible.includes(values.change)) form.setFieldsValue({ change: possible[0]! });
    },
    ask: ({ ref: asked, change, value = '', upTo = '', other }: WhatIfValues) => {
      const { line, unit, partners } = partOf(asked);
      if (change === 'swept') {
        const values = stepsBetween(numberOf(value, unit) ?? 0, numberOf(upTo, unit) ?? 0);
        show(
          'sweep',
          askWorker('sweep', kit, { ref: asked, values }).then((swept) => ({ values, swept, unit })),
        );
        return;
      }
      const supposition = suppositionOf(change, asked, line, numberOf(value, unit) ?? 0, other ?? partners[0] ?? '');
      show('whatIf', askWorker('whatIf', kit, { windows, supposition }));
    },
  };
}

/** What was typed as a number in its unit; null where it is none. */
export function numberOf(text: string, unit: Unit): number | null {
  if (unit === 'ratio') return text.trim() !== '' && Number.isFinite(Number(text)) ? Number(text) : null;
  const parsed = parseQuantity(text, unit);
  return parsed.ok ? parsed.value : null;
}

/** What can be supposed of a part of this kind. */
function changesOf(line: Line | undefined, control: boolean): Change[] {
  if (!line || control) return ['value', 'swept'];
  const valued: Change[] = VALUED.includes(factsOf(line.kind).unit) ? ['value', 'swept'] : [];
  const round: Change[] = POLARISED.includes(line.kind) || THREE_LEGGED.includes(line.kind) ? ['round'] : [];
  const exchanged: Change[] = CHIP_KINDS.includes(line.kind) ? [] : ['exchanged'];
  return [...valued, 'removed', ...round, ...exchanged];
}

function suppositionOf(change: Exclude<Change, 'swept'>, ref: string, line: Line | undefined, value: number, other: string): Supposition {
  switch (change) {
    case 'value':
      return { values: { [ref]: value } };
    case 'removed':
      return { removed: [ref] };
    case 'round':
      return { fault: { kind: line && THREE_LEGGED.includes(line.kind) ? 'turned' : 'reversed', parts: [ref], detail: {} } };
    case 'exchanged':
      return { fault: { kind: 'swapped', parts: [ref, other], detail: {} } };
  }
}

/** Even steps; in equal ratios where the range spans more than a decade. */
function stepsBetween(from: number, to: number): number[] {
  const wide = from > 0 && to > 0 && Math.max(from / to, to / from) > 10;
  return Array.from({ length: STEPS }, (_, i) => {
    const share = i / (STEPS - 1);
    return wide ? from * (to / from) ** share : from + (to - from) * share;
  });
}
