import { Button, Flex, Table, type TableProps } from 'antd';
import { type Key, useMemo, useState } from 'react';
import { type KitState, type Line, patch, put, remove, withDependents } from '@/core/kit';
import { lineTitle, sellerWords } from '@/core/loop';
import { printTolerance } from '@/core/quantity';
import { factsOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import zones from '../shell/zones.module.css';
import { TakeBackSheet } from './TakeBackSheet';
import { Nothing } from '../drawn/Nothing';
import { COMMON_FIELDS, LINE_FIELDS, lineFromForm, lineToForm, refuseLine } from './lineFields';
import type { FormValues } from './records/fields';
import { RecordForm } from './records/RecordForm';
import { RecordTools } from './records/RoomList';

/** Above this only the lines in sight are drawn. */
const VIRTUAL_ABOVE = 100;

/** The parts list as it stands now. */
export function Lines({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const { lines } = kit.sheet;
  const [editing, setEditing] = useState<{ readonly line: Line; readonly isNew: boolean } | null>(null);
  const [chosen, setChosen] = useState<readonly Key[]>([]);
  const [common, setCommon] = useState<FormValues | null>(null);
  const columns = useMemo(
    (): NonNullable<TableProps<Line>['columns']> => [
      {
        title: 'line',
        key: 'line',
        width: 210,
        rowScope: 'row',
        render: (_, l) => <LineWords line={l} />,
        sorter: (a, b) => lineTitle(a).localeCompare(lineTitle(b)),
      },
      { title: 'positions', key: 'refs', width: 150, className: 'num', render: (_, l) => l.refs.join(' ') || '–' },
      { title: 'count', dataIndex: 'quantity', width: 70, className: 'num', sorter: (a, b) => a.quantity - b.quantity },
      {
        title: <span className="sr-only">change</span>,
        key: 'change',
        width: 104,
        render: (_, l) => (
          <RecordTools
            name={lineTitle(l)}
            edit={() => {
              setEditing({ line: l, isNew: false });
            }}
            copy={() => {
              setEditing({ line: { ...l, id: `line-${newId().slice(0, 8)}`, refs: [] }, isNew: true });
            }}
            drop={() => {
              void append((k) => {
                const gone = remove(k, 'lines', l.id);
                return gone && withDependents(k, gone);
              });
            }}
          />
        ),
      },
    ],
    [append],
  );
  const commonFields = useMemo(() => COMMON_FIELDS(kit), [kit]);
  const many = lines.length > VIRTUAL_ABOVE;
  return (
    <>
      <div className={`${zones.row} ${zones.between}`}>
        <h2 className={zones.label}>
          {lines.length} lines, {lines.reduce((n, l) => n + l.refs.length, 0)} positions
        </h2>
        <TakeBackSheet kit={kit} />
      </div>
      {chosen.length > 0 && (
        <Flex gap="small" align="center" wrap role="status">
          <span>{chosen.length} chosen</span>
          <Button
            size="small"
            onClick={() => {
              setCommon({});
            }}
          >
            Change them together
          </Button>
          <Button
            size="small"
            onClick={() => {
              void append((k) => chosen.flatMap((id) => withGone(k, String(id))));
              setChosen([]);
            }}
          >
            Take them off the list
          </Button>
        </Flex>
      )}
      <Table<Line>
        size="small"
        rowKey="id"
        columns={columns}
        dataSource={[...lines]}
        rowSelection={{
          selectedRowKeys: [...chosen],
          onChange: setChosen,
          columnWidth: 36,
          getCheckboxProps: (l) => ({ 'aria-label': `Choose ${lineTitle(l)}` }),
        }}
        pagination={false}
        virtual={many}
        {...(many ? { scroll: { x: 480, y: 460 } } : {})}
        locale={{ emptyText: <Nothing say="No lines yet. Add them above as the seller prints them, or make a new kit from a pasted list." /> }}
        rowClassName={(l) => (l.notFitted ? 'soft' : '')}
      />
      <LineForm
        kit={kit}
        editing={editing}
        close={() => {
          setEditing(null);
        }}
      />
      <RecordForm
        title={`${chosen.length} lines together`}
        lead={<p className="soft">Fields left empty stay unchanged.</p>}
        fields={commonFields}
        record={common}
        testPoints={NO_POINTS}
        save={(values) => {
          const given = lineFromForm(values);
          void append((k) => chosen.flatMap((id) => patch(k, 'lines', String(id), given) ?? []));
        }}
        close={() => {
          setCommon(null);
        }}
      />
    </>
  );
}

const NO_POINTS: ReadonlySet<string> = new Set();

const withGone = (kit: KitState, id: string) => {
  const gone = remove(kit, 'lines', id);
  return gone ? withDependents(kit, gone) : [];
};

/** One line in the drawer; its kind decides in which unit its value is read. */
function LineForm({ kit, editing, close }: { kit: KitState; editing: { readonly line: Line; readonly isNew: boolean } | null; close: () => void }) {
  const append = useBench((s) => s.append);
  const kind = editing?.line.kind ?? 'other';
  const fields = useMemo(() => LINE_FIELDS(kit, kind), [kit, kind]);
  const record = useMemo(() => editing && lineToForm(editing.line), [editing]);
  return (
    <RecordForm
      title={editing?.isNew === false ? `Line: ${lineTitle(editing.line)}` : 'New line'}
      fields={fields}
      record={record}
      nullable={NULLABLE}
      testPoints={NO_POINTS}
      refuse={(v) => refuseLine(lineFromForm(v), kit)}
      save={(v) => {
        void append((k) => withDependents(k, put(k, 'lines', lineFromForm(v))));
      }}
      close={close}
    />
  );
}
const NULLABLE = ['value', 'tolerance'];

function LineWords({ line }: { line: Line }) {
  const said = sellerWords(line);
  return (
    <>
      <b>{lineTitle(line)}</b> <small className="soft">{[facts(line), said].filter(Boolean).join(' · ')}</small>
    </>
  );
}

function facts(l: Line): string {
  return [
    factsOf(l.kind).word,
    l.tolerance ? printTolerance(l.tolerance) : '',
    l.rating?.volts ? `${l.rating.volts} V` : '',
    l.rating?.watts ? `${l.rating.watts} W` : '',
    l.package ?? '',
    l.notFitted ? 'not fitted' : '',
    l.option ? `only with ${l.option.split('=')[0]!}` : '',
    l.amendment ? `amended: ${l.amendment}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
