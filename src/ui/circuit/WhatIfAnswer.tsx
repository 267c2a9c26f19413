import { Table } from 'antd';
import { type Consequence, type ConsequenceText, observableName, type Shift, type Swept } from '@/core/consequence';
import type { KitState } from '@/core/kit';
import { print, type Unit } from '@/core/quantity';
import { unitOf } from '@/core/vocabulary';
import { VerdictMark } from '../drawn/VerdictMark';
import zones from '../shell/zones.module.css';
import styles from './Circuit.module.css';

const SHOWN = 14;
const STILL = 1e-4;
const reading = (v: number | 'over' | null, mode: Shift['mode']) => (v === null ? 'no solution' : v === 'over' ? 'over-range' : print(v, unitOf(mode), 4));

/** Whether the supposed change matters, and which checks it moves. */
export function WhatIfAnswer({ kit, consequence, text }: { kit: KitState; consequence: Consequence; text: ConsequenceText }) {
  const moved = consequence.shifts.filter((s) => s.share > STILL).sort((a, b) => Number(b.leaves) - Number(a.leaves) || b.share - a.share);
  return (
    <div role="status" className={styles.answer}>
      <div className={`${zones.verdict} v-${text.usable ? 'in' : 'out'}`}>
        <VerdictMark verdict={text.usable ? 'in' : 'out'} size={20} /> {text.title}
      </div>
      <p>{text.detail}</p>
      {moved.length > 0 && (
        <ChecksTable
          kit={kit}
          columns={['now', 'then']}
          rows={moved.slice(0, SHOWN).map((s) => ({
            ...s,
            cells: [{ text: reading(s.before, s.mode) }, { text: reading(s.after, s.mode), no: s.leaves }],
          }))}
        />
      )}
    </div>
  );
}

interface CheckRow {
  readonly observable: string;
  readonly stage: string;
  readonly cells: readonly { readonly text: string; readonly no?: boolean }[];
}

/** What some checks read, a line each. */
function ChecksTable({ kit, columns, rows }: { kit: KitState; columns: readonly string[]; rows: readonly CheckRow[] }) {
  return (
    <Table<CheckRow>
      size="small"
      rowKey="observable"
      pagination={false}
      dataSource={[...rows]}
      columns={[
        { title: 'check', key: 'check', rowScope: 'row', render: (_, r) => observableName(kit, r.observable) },
        { title: 'stage', key: 'stage', render: (_, r) => kit.sheet.stages.find((x) => x.id === r.stage)?.title },
        ...columns.map((title, i) => ({
          title,
          key: title,
          align: 'right' as const,
          className: 'num',
          onCell: (r: CheckRow) => ({ className: r.cells[i]?.no ? (styles.no ?? '') : '' }),
          render: (_: unknown, r: CheckRow) => r.cells[i]?.text,
        })),
      ]}
    />
  );
}

/** A sweep: what each check reads at the ends and in the middle, and over which range it goes. */
export function SweepTable({ kit, unit, values, swept }: { kit: KitState; unit: Unit; values: readonly number[]; swept: readonly Swept[] }) {
  const at = (i: number) => (unit === 'ratio' ? values[i]!.toFixed(2) : print(values[i]!, unit, 3));
  if (swept.length === 0)
    return (
      <p role="status">
        No check moves by more than 1 % between {at(0)} and {at(values.length - 1)}.
      </p>
    );
  const span = (s: Swept) => {
    const numbers = s.readings.filter((r): r is number => typeof r === 'number');
    return numbers.length === 0 ? '' : `${reading(Math.min(...numbers), s.mode)} to ${reading(Math.max(...numbers), s.mode)}`;
  };
  const ends = [0, values.length >> 1, values.length - 1];
  return (
    <div role="status" className={styles.answer}>
      <ChecksTable
        kit={kit}
        columns={[...ends.map((i) => `at ${at(i)}`), 'range']}
        rows={swept.slice(0, 2 * SHOWN).map((s) => ({ ...s, cells: [...ends.map((i) => ({ text: reading(s.readings[i]!, s.mode) })), { text: span(s) }] }))}
      />
    </div>
  );
}
