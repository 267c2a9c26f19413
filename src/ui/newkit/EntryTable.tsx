import { CheckOutlined, EditOutlined, QuestionCircleOutlined } from '@ant-design/icons';
import { Button, Segmented, Table, type TableProps } from 'antd';
import { useMemo, useState } from 'react';
import type { Correction, ListEntry, PartsList } from '@/core/partslist';
import styles from '../shelf/Shelf.module.css';
import zones from '../shell/zones.module.css';
import { EntryForm } from './EntryForm';
import { becameWords, questionOf } from './entryWords';
import own from './NewKit.module.css';

interface Props {
  readonly list: PartsList;
  readonly correct: (corrections: Readonly<Record<string, Correction>>) => void;
}

const VIRTUAL_FROM = 100;
const needsLook = (e: ListEntry) => e.doubts.length > 0 || !e.sure;

/** Source and reading side by side. What is unclear is asked; everything can be corrected in place. */
export function EntryTable({ list, correct }: Props) {
  const [only, setOnly] = useState<'all' | 'questions'>('all');
  const [opened, setOpened] = useState<string | null>(null);
  const open = list.entries.filter((e) => e.doubts.length > 0);
  const look = list.entries.filter(needsLook);
  const shown = only === 'questions' && look.length > 0 ? look : list.entries;
  const settle = (entries: readonly ListEntry[]) => {
    correct(Object.fromEntries(entries.map((e) => [e.key, { settled: 'became' in e && 'line' in e.became ? 'as-read' : 'no-part' }])));
  };
  const columns = useMemo(
    (): NonNullable<TableProps<ListEntry>['columns']> => [
      { title: 'line', key: 'at', width: 56, className: 'num', render: (_, e) => e.sources[0] },
      { title: 'as printed', key: 'source', render: (_, e) => <span className={'ignored' in e.became ? 'soft' : ''}>{e.source}</span> },
      {
        title: 'as read',
        key: 'read',
        render: (_, e) => (
          <>
            <span className={'ignored' in e.became ? 'soft' : ''}>{becameWords(e)}</span>
            {e.doubts.map((d) => (
              <p key={questionOf(d)} className={own.question}>
                <QuestionCircleOutlined aria-hidden /> {questionOf(d)}
              </p>
            ))}
            {e.doubts.length === 0 && !e.sure && (
              <p className={own.question}>
                <QuestionCircleOutlined aria-hidden /> Read with some doubt: look at it.
              </p>
            )}
          </>
        ),
      },
      { title: 'positions', key: 'refs', width: 150, className: 'num', render: (_, e) => ('line' in e.became ? e.became.line.refs.join(' ') || '–' : '') },
      { title: 'count', key: 'count', width: 64, className: 'num', render: (_, e) => ('line' in e.became ? e.became.line.quantity : '') },
      {
        title: '',
        key: 'act',
        width: 250,
        render: (_, e) => (
          <div className={zones.row}>
            {needsLook(e) && (
              <Button
                size="small"
                icon={<CheckOutlined />}
                onClick={() => {
                  correct({ [e.key]: { settled: 'line' in e.became ? 'as-read' : 'no-part' } });
                }}
              >
                {'line' in e.became ? 'Keep as read' : 'Not a part'}
              </Button>
            )}
            <Button
              size="small"
              type="text"
              icon={<EditOutlined />}
              aria-label={`Correct line ${e.sources[0]!}`}
              onClick={() => {
                setOpened((now) => (now === e.key ? null : e.key));
              }}
            >
              Correct
            </Button>
          </div>
        ),
      },
    ],
    [correct],
  );
  if (list.entries.length === 0) return null;
  return (
    <section aria-label="How the list was read">
      <div className={`${zones.row} ${zones.between}`}>
        <h2 className={styles.label}>{look.length === 0 ? 'Every line was read.' : `${look.length} of ${list.entries.length} lines need a look.`}</h2>
        {look.length > 0 && (
          <div className={zones.row}>
            <Segmented
              size="small"
              value={only}
              onChange={setOnly}
              options={[
                { value: 'all', label: 'All lines' },
                { value: 'questions', label: `Questions (${look.length})` },
              ]}
            />
            <Button
              size="small"
              onClick={() => {
                settle(look);
              }}
            >
              Keep all as read
            </Button>
          </div>
        )}
      </div>
      <div role="region" aria-label="Lines understood" className={styles.preview}>
        <Table<ListEntry>
          size="small"
          rowKey="key"
          columns={columns}
          dataSource={shown}
          pagination={false}
          virtual={shown.length > VIRTUAL_FROM}
          scroll={{ y: 420, ...(shown.length > VIRTUAL_FROM ? { x: 900 } : {}) }}
          rowClassName={(e) => (open.includes(e) ? (own.asked ?? '') : '')}
          expandable={{
            showExpandColumn: false,
            expandedRowKeys: opened === null ? [] : [opened],
            expandedRowRender: (e) => (
              <EntryForm
                entry={e}
                entries={list.entries}
                correct={(c) => {
                  correct(c);
                  setOpened(null);
                }}
              />
            ),
          }}
        />
      </div>
    </section>
  );
}
