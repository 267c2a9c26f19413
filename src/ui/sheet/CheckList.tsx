import { PlusOutlined } from '@ant-design/icons';
import { Button, Flex, Form } from 'antd';
import { useMemo, useState } from 'react';
import { type Check, type KitState, move, put, putAll, type RecordOf, remove, type Stage, withDependents } from '@/core/kit';
import { readCheckSentence } from '@/core/draft';
import { expectedOfCheck } from '@/core/loop';
import { MODES } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { Nothing } from '../drawn/Nothing';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';
import { placeText } from './records/fields';
import { RecordForm } from './records/RecordForm';
import styles from './records/Records.module.css';
import { RecordTools } from './records/RoomList';
import { Sortable } from './records/Sortable';
import { checkFromForm, checkToForm, MEASURE_FIELDS, netsOfKit, newMeasure, newObserve, OBSERVE_FIELDS, refuseCheck, sourcesOfKit } from './records/specs';

type CheckRecord = RecordOf<'checks'>;

/** The checks of one stage: typed as a sentence, or asked for field by field. */
export function CheckList({ kit, stage }: { kit: KitState; stage: Stage }) {
  const append = useBench((s) => s.append);
  const windows = useWindows(kit);
  const [editing, setEditing] = useState<{ readonly record: CheckRecord; readonly isNew: boolean } | null>(null);
  const measures = editing?.record.what !== 'observe';
  const fields = useMemo(() => (measures ? MEASURE_FIELDS(kit) : OBSERVE_FIELDS(kit)), [kit, measures]);
  const testPoints = useMemo(() => new Set(kit.sheet.testPoints.map((t) => t.id)), [kit.sheet.testPoints]);
  const record = useMemo(() => editing && checkToForm(editing.record), [editing]);
  return (
    <>
      <div className={styles.head}>
        <h2 className={zones.label}>Checks of “{stage.title}”</h2>
        <Flex gap="small">
          <Button
            size="small"
            icon={<PlusOutlined />}
            onClick={() => {
              setEditing({ record: newMeasure(stage.id), isNew: true });
            }}
          >
            Add measurement
          </Button>
          <Button
            size="small"
            icon={<PlusOutlined />}
            onClick={() => {
              setEditing({ record: newObserve(stage.id), isNew: true });
            }}
          >
            Add observation
          </Button>
        </Flex>
      </div>
      <Sentence kit={kit} stage={stage} />
      {stage.checks.length === 0 && <Nothing say="Nothing is checked here yet. Type it as you would say it: TP4 to ground 2.4-3.1 V with sensor warm." />}
      <Sortable
        items={stage.checks}
        idOf={(c) => c.id}
        nameOf={(c) => c.title}
        move={(id, before) => {
          void append((k) => move(k, 'checks', `${stage.id}/${id}`, before === null ? null : `${stage.id}/${before}`));
        }}
      >
        {(c) => (
          <>
            <span className={styles.words}>
              <b>{c.title}</b> <small className="soft">{checkWords(c)}</small>
              <br />
              <small className="num">{expectedOfCheck(kit, stage, c, windows)}</small>
            </span>
            <RecordTools
              name={c.title}
              edit={() => {
                setEditing({ record: { stage: stage.id, ...c }, isNew: false });
              }}
              copy={() => {
                setEditing({ record: { stage: stage.id, ...c, id: `check-${newId().slice(0, 6)}` }, isNew: true });
              }}
              drop={() => {
                void append((k) => {
                  const gone = remove(k, 'checks', `${stage.id}/${c.id}`);
                  return gone && withDependents(k, gone);
                });
              }}
            />
          </>
        )}
      </Sortable>
      <RecordForm
        title={editing?.isNew === false ? `Check: ${editing.record.title}` : measures ? 'New measurement' : 'New observation'}
        fields={fields}
        record={record}
        testPoints={testPoints}
        refuse={(v) => refuseCheck(checkFromForm(v))}
        save={(v) => {
          const check = checkFromForm(v);
          void append((k) => put(k, 'checks', check));
        }}
        close={() => {
          setEditing(null);
        }}
      />
    </>
  );
}

function checkWords(c: Check): string {
  const set = (c.settings ?? []).map((s) => s.text).join(', ');
  const note = [set, c.note].filter(Boolean).join(' · ');
  if (c.what === 'observe') return [c.action, c.channels ? `${c.channels.length} channels` : '', note].filter(Boolean).join(' · ');
  const places = c.mode === 'dca' ? (c.source ?? '') : `${placeText(c.red)} to ${placeText(c.black)}`;
  return [MODES[c.mode].words, places, c.adjust ? `turn ${c.adjust}` : '', note].filter(Boolean).join(' · ');
}

/** A check typed as one would say it. */
function Sentence({ kit, stage }: { kit: KitState; stage: Stage }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<{ sentence?: string }>();
  const [said, setSaid] = useState('');
  const read = (text: string) =>
    readCheckSentence(text, {
      testPoints: kit.sheet.testPoints,
      lines: kit.sheet.lines,
      circuit: kit.sheet.circuit,
      typeCards: kit.sheet.typeCards,
      nets: netsOfKit(kit),
      sources: sourcesOfKit(kit),
    });
  const add = ({ sentence = '' }: { sentence?: string }) => {
    const reading = read(sentence);
    if (!reading.ok) return;
    const id = `${reading.check.id.slice(0, 40)}-${newId().slice(0, 4)}`;
    void append((k) => putAll(k, 'checks', [{ stage: stage.id, ...reading.check, id }]));
    setSaid(`Added “${reading.check.title}”.`);
    form.resetFields();
  };
  return (
    <InlineForm name="sentence" form={form} submit="Add" done={add} said={said}>
      <TextItem
        name="sentence"
        label="Add a check as a sentence"
        hint="TP4 to ground 2.4-3.1 V with sensor warm"
        wide="xl"
        rules={[
          {
            validateTrigger: 'onSubmit',
            validator: (_, text: string | undefined) => {
              const reading = read(text ?? '');
              return reading.ok ? Promise.resolve() : Promise.reject(new Error(reading.message));
            },
          },
        ]}
      />
    </InlineForm>
  );
}
