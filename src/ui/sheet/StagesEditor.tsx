import { PlusOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { lazy, Suspense, useMemo, useState } from 'react';
import { type KitState, move, put, putAll, type RecordOf, remove, type Stage, withDependents } from '@/core/kit';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { Nothing } from '../drawn/Nothing';
import zones from '../shell/zones.module.css';
import { CheckList } from './CheckList';
import { LadderProposals } from './LadderProposals';
import type { FormValues } from './records/fields';
import { RecordForm } from './records/RecordForm';
import styles from './records/Records.module.css';
import { RecordTools, withoutEmpty } from './records/RoomList';
import { Sortable } from './records/Sortable';
import { refuseStage, STAGE_FIELDS, stageOf } from './records/specs';

const Worth = lazy(() => import('./Worth').then((m) => ({ default: m.Worth })));

/** The ladder of stages and the checks of each: written, changed, copied, dragged into another order. */
export function StagesEditor({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const { stages } = kit.sheet;
  const [chosen, setChosen] = useState<string | null>(null);
  const [editing, setEditing] = useState<{ readonly record: RecordOf<'stages'>; readonly isNew: boolean } | null>(null);
  const [worth, setWorth] = useState(false);
  const here = stages.find((s) => s.id === chosen) ?? stages[0] ?? null;
  const fields = useMemo(() => STAGE_FIELDS(kit), [kit]);
  const save = (values: FormValues) => {
    const record = withoutEmpty(values) as unknown as RecordOf<'stages'>;
    void append((k) => put(k, 'stages', record));
    setChosen(record.id);
  };
  return (
    <div className={`${zones.zones} ${zones.listThing}`}>
      {worth && (
        <Suspense fallback={null}>
          <Worth
            kit={kit}
            close={() => {
              setWorth(false);
            }}
          />
        </Suspense>
      )}
      <section className={zones.card} aria-label="Ladder">
        <div className={styles.head}>
          <h2 className={zones.label}>Stages</h2>
          <Button
            size="small"
            icon={<PlusOutlined />}
            onClick={() => {
              setEditing({ record: stageOf(kit), isNew: true });
            }}
          >
            Add stage
          </Button>
          {kit.sheet.circuit !== null && stages.length > 0 && (
            <Button
              size="small"
              onClick={() => {
                setWorth(true);
              }}
            >
              Worth of this test order
            </Button>
          )}
        </div>
        {stages.length === 0 && <Nothing say="No stages yet. Take over the proposed stages, or write the first one yourself." />}
        <Sortable
          items={stages}
          idOf={(s) => s.id}
          nameOf={(s) => s.title}
          here={(s) => s === here}
          move={(id, before) => {
            void append((k) => move(k, 'stages', id, before));
          }}
        >
          {(s) => (
            <>
              <Button
                type="text"
                block
                className={styles.pick ?? ''}
                aria-pressed={s === here}
                onClick={() => {
                  setChosen(s.id);
                }}
              >
                <b>{s.title}</b> <small className="soft">{stageWords(s)}</small>
              </Button>
              <RecordTools
                name={s.title}
                edit={() => {
                  setEditing({ record: recordOf(s), isNew: false });
                }}
                copy={() => {
                  const id = `stage-${newId().slice(0, 6)}`;
                  void append((k) => copyOf(k, s, id));
                  setChosen(id);
                }}
                drop={() => {
                  void append((k) => {
                    const gone = remove(k, 'stages', s.id);
                    return gone && withDependents(k, gone);
                  });
                }}
              />
            </>
          )}
        </Sortable>
        <LadderProposals kit={kit} />
      </section>
      <section className={zones.card} aria-label="Checks of the stage">
        {here ? <CheckList kit={kit} stage={here} /> : <Nothing say="A stage holds its measurements, observations and adjustments." />}
      </section>
      <RecordForm
        title={editing?.isNew === false ? `Stage: ${editing.record.title}` : 'New stage'}
        fields={fields}
        record={editing?.record ?? null}
        nullable={NONE}
        testPoints={NO_POINTS}
        refuse={(v) => refuseStage(withoutEmpty(v) as unknown as RecordOf<'stages'>, kit)}
        save={save}
        close={() => {
          setEditing(null);
        }}
      />
    </div>
  );
}

const NONE: readonly string[] = [];
const NO_POINTS: ReadonlySet<string> = new Set();

const recordOf = ({ checks: _, ...stage }: Stage): RecordOf<'stages'> => stage;

/** A stage again, with all its checks; what it fits is fitted already. */
function copyOf(kit: KitState, stage: Stage, id: string) {
  const behind = kit.sheet.stages[kit.sheet.stages.findIndex((s) => s.id === stage.id) + 1]?.id ?? null;
  return [
    ...putAll(kit, 'stages', [{ ...recordOf(stage), id, title: `${stage.title} (again)`, fits: [] }], behind),
    ...putAll(
      kit,
      'checks',
      stage.checks.map((c) => ({ ...c, stage: id })),
    ),
  ];
}

function stageWords(s: Stage): string {
  return [
    `${s.checks.length} ${s.checks.length === 1 ? 'check' : 'checks'}`,
    s.fits.length > 0 ? `fits ${s.fits.length}` : '',
    s.supplies.map((x) => `${x.source} ${x.volts} V`).join(', '),
  ]
    .filter(Boolean)
    .join(' · ');
}
