import { CopyOutlined, DeleteOutlined, EditOutlined, PlusOutlined } from '@ant-design/icons';
import { Button, Flex, Tooltip } from 'antd';
import { type ReactNode, useMemo, useState } from 'react';
import { inOrder, type KitState, move, type RecordOf, recordId, remove, type RoomName, withDependents, written } from '@/core/kit';
import { useBench } from '@/store/bench';
import zones from '../../shell/zones.module.css';
import type { Field, FormValues } from './fields';
import { RecordForm } from './RecordForm';
import styles from './Records.module.css';
import { Sortable } from './Sortable';

/** How the records of a room are shown and asked for. */
export interface RoomSpec<R extends RoomName> {
  readonly room: R;
  readonly title: string;
  /** A record in a word: `Test point`. */
  readonly one: string;
  /** What is said while there are none. */
  readonly empty: string;
  readonly fields: (kit: KitState) => readonly Field[];
  readonly nullable?: readonly string[];
  /** A new record, as far as it is known. */
  readonly make: (kit: KitState) => RecordOf<R>;
  readonly words: (record: RecordOf<R>, kit: KitState) => ReactNode;
  readonly name: (record: RecordOf<R>) => string;
  readonly refuse?: (record: RecordOf<R>, kit: KitState, before: RecordOf<R> | null) => Readonly<Record<string, string>>;
  /** Records that are shown; all of the room otherwise. */
  readonly only?: (record: RecordOf<R>) => boolean;
}

interface Editing<R extends RoomName> {
  readonly record: RecordOf<R>;
  readonly before: RecordOf<R> | null;
}

/** The records of a room: add, change, copy, take away, drag into another order. Each is one step that can be undone. */
export function RoomList<R extends RoomName>({ kit, spec }: { kit: KitState; spec: RoomSpec<R> }) {
  const append = useBench((s) => s.append);
  const [editing, setEditing] = useState<Editing<R> | null>(null);
  const { room } = spec;
  const records = useMemo(() => inOrder(kit.rooms[room]).filter((r) => spec.only?.(r) ?? true), [kit.rooms, room, spec]);
  const fields = useMemo(() => spec.fields(kit), [spec, kit]);
  const testPoints = useMemo(() => new Set(kit.sheet.testPoints.map((t) => t.id)), [kit.sheet.testPoints]);
  const idOf = (r: RecordOf<R>) => recordId(room, r);
  const save = (values: FormValues) => {
    const record = withoutEmpty(values) as unknown as RecordOf<R>;
    void append((k) => written(k, room, record, editing && editing.before && idOf(editing.before)));
  };
  const drop = (r: RecordOf<R>) => {
    void append((k) => {
      const gone = remove(k, room, idOf(r));
      return gone && withDependents(k, gone);
    });
  };
  return (
    <section aria-label={spec.title}>
      <div className={styles.head}>
        <h2 className={zones.label}>{spec.title}</h2>
        <Button
          size="small"
          icon={<PlusOutlined />}
          onClick={() => {
            setEditing({ record: spec.make(kit), before: null });
          }}
        >
          {`Add ${spec.one.toLowerCase()}`}
        </Button>
      </div>
      {records.length === 0 && <p className="soft">{spec.empty}</p>}
      <Sortable
        items={records}
        idOf={idOf}
        nameOf={spec.name}
        move={(id, before) => {
          void append((k) => move(k, room, id, before));
        }}
      >
        {(r) => (
          <>
            <span className={styles.words}>{spec.words(r, kit)}</span>
            <RecordTools
              name={spec.name(r)}
              edit={() => {
                setEditing({ record: r, before: r });
              }}
              copy={() => {
                setEditing({ record: { ...r, ...identityOf(spec.make(kit)) }, before: null });
              }}
              drop={() => {
                drop(r);
              }}
            />
          </>
        )}
      </Sortable>
      <RecordForm
        title={editing?.before ? `${spec.one}: ${spec.name(editing.before)}` : `New ${spec.one.toLowerCase()}`}
        fields={fields}
        record={editing?.record ?? null}
        testPoints={testPoints}
        {...(spec.nullable ? { nullable: spec.nullable } : {})}
        refuse={(values) => spec.refuse?.(withoutEmpty(values) as unknown as RecordOf<R>, kit, editing?.before ?? null) ?? {}}
        save={save}
        close={() => {
          setEditing(null);
        }}
      />
    </section>
  );
}

/** Edit, copy, take away: the same three at every record. */
export function RecordTools({ name, edit, copy, drop }: { name: string; edit: () => void; copy: () => void; drop: () => void }) {
  return (
    <Flex className={styles.tools ?? ''}>
      <Tooltip title="Change">
        <Button type="text" size="small" icon={<EditOutlined />} aria-label={`Change ${name}`} onClick={edit} />
      </Tooltip>
      <Tooltip title="Make another like it">
        <Button type="text" size="small" icon={<CopyOutlined />} aria-label={`Copy ${name}`} onClick={copy} />
      </Tooltip>
      <Tooltip title="Take away">
        <Button type="text" size="small" icon={<DeleteOutlined />} aria-label={`Remove ${name}`} onClick={drop} />
      </Tooltip>
    </Flex>
  );
}

/** What makes a record another one than its copy. */
const identityOf = (made: object) => ('id' in made ? { id: (made as { id: string }).id } : {});

export const withoutEmpty = (values: FormValues): FormValues => Object.fromEntries(Object.entries(values).filter(([, v]) => v !== undefined));
