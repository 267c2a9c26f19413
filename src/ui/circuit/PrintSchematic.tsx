import { Modal, Table } from 'antd';
import { useMemo } from 'react';
import type { KitState } from '@/core/kit';
import { isMeasure, type StageProgress, deriveStages } from '@/core/loop';
import { print, printWindow } from '@/core/quantity';
import { placeNames } from '@/core/stage';
import { VERDICT_WORDS } from '@/core/verdict';
import { useResult } from '../results/useResult';
import { useWindows } from '../results/useWindows';
import { NOT_LIVE } from './live';
import { voltsNetOf } from './netOfPoint';
import { readAt } from './readAt';
import styles from './Schematic.module.css';
import { SchematicOf } from './SchematicOf';
import type { School } from './symbols';

interface Props {
  readonly kit: KitState;
  readonly stage: string | null;
  readonly school: School;
  readonly close: () => void;
}

/** The schematic on paper, with the table of volts that should be and were read beside it. */
export function PrintSchematic({ kit, stage, school, close }: Props) {
  const title = kit.sheet.stages.find((s) => s.id === stage)?.title;
  const rows = useVolts(kit, stage);
  return (
    <Modal
      open
      onCancel={close}
      width="min(90rem, 96vw)"
      title="The schematic on paper"
      okText="Print"
      onOk={() => {
        window.print();
      }}
      cancelText="Close"
      footer={(buttons) => <span className="no-print">{buttons}</span>}
    >
      <div className={`print-alone ${styles.onPaper}`}>
        <h3>{kit.sheet.title}</h3>
        <SchematicOf kit={kit} stage={stage} school={school} live={NOT_LIVE} />
        {rows.length > 0 && (
          <Table
            size="small"
            pagination={false}
            rowKey="net"
            dataSource={rows}
            caption={`Volts against ground${title === undefined ? '' : `, ${title}`}`}
            columns={[
              { title: 'Where', dataIndex: 'where' },
              { title: 'Net', dataIndex: 'net' },
              { title: 'Should be', dataIndex: 'should' },
              { title: 'Read', dataIndex: 'read' },
              { title: 'Verdict', render: (_, { verdict }: Row) => (verdict === 'none' ? '' : VERDICT_WORDS[verdict]) },
            ]}
          />
        )}
      </div>
    </Modal>
  );
}

interface Row {
  readonly net: string;
  readonly where: string;
  readonly should: string;
  readonly read: string;
  readonly verdict: StageProgress['checks'][number]['verdict'];
}

/** Nets with a figure that should be there or was read there, named as the builder sees them. */
function useVolts(kit: KitState, stage: string | null): Row[] {
  const windows = useWindows(kit);
  const volts = useResult('netVolts', kit, stage);
  const should = volts.state === 'fresh' ? volts.value : null;
  return useMemo(() => {
    const here = deriveStages(kit, windows).find((s) => s.stage.id === stage);
    const checks = new Map(
      (here?.checks ?? []).filter(isMeasure).flatMap((c) => (voltsNetOf(kit, c.check) === null ? [] : [[voltsNetOf(kit, c.check)!, c] as const])),
    );
    const read = readAt(kit, stage);
    const names = placeNames(kit.sheet);
    const healthy = new Map(Object.entries(should ?? {}).map(([net, v]) => [net.toLowerCase(), { net, v }]));
    return [...new Set([...checks.keys(), ...healthy.keys(), ...read.keys()])].sort().flatMap((key): Row[] => {
      const [check, steady, got] = [checks.get(key), healthy.get(key), read.get(key)];
      const window = check?.window && !check.window.over ? printWindow(check.window.low, check.window.high, 'V', 3) : null;
      const net = steady?.net ?? key;
      // What is inside a part is no place of the board.
      if (net.includes('.') && !check && got === undefined) return [];
      return [
        {
          net,
          where: names.of(net),
          should: window ?? (steady ? `about ${print(steady.v, 'V', 3)}` : '–'),
          read: got === undefined ? '' : print(got, 'V', 4),
          verdict: check?.verdict ?? 'none',
        },
      ];
    });
  }, [kit, windows, stage, should]);
}
