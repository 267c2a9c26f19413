import { DownloadOutlined } from '@ant-design/icons';
import { Button, Checkbox, Flex, Select } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { documentOf, isOfMaking, type KitState } from '@/core/kit';
import { LOG_TOPICS, type LogChoice, logSteps } from '@/core/loop';
import { logRows, toCsv } from '@/core/report';
import { useBench } from '@/store/bench';
import { adoptCards } from '@/store/shelf';
import { SearchField } from '../form/SearchField';
import { saveFile } from '../shell/saveFile';
import zones from '../shell/zones.module.css';
import styles from './Logbook.module.css';

const Report = lazy(() => import('./Report').then((m) => ({ default: m.Report })));

interface Props {
  readonly kit: KitState;
  readonly choice: LogChoice;
  readonly setChoice: (choice: LogChoice) => void;
}

/** What of the log is shown, and the way out of the browser. */
export function LogTools({ kit, choice, setChoice }: Props) {
  const [report, setReport] = useState(false);
  const work = logSteps(kit).filter((s) => !isOfMaking(kit, s.entries[0]!));
  const gone = work.filter((s) => s.gone).length;
  return (
    <>
      {report && (
        <Suspense>
          <Report
            kit={kit}
            name={fileName(kit.sheet.title)}
            close={() => {
              setReport(false);
            }}
          />
        </Suspense>
      )}
      <Flex justify="space-between" align="center" wrap gap="small">
        <h2 className={`${zones.label} ${styles.heading}`}>
          {work.length} entries, {gone} withdrawn
        </h2>
        <Flex gap="small" wrap>
          <Button
            onClick={() => {
              saveFile(`${fileName(kit.sheet.title)}-log.csv`, toCsv(logRows(kit)), 'text/csv');
            }}
          >
            Readings as CSV
          </Button>
          <Button
            onClick={() => {
              setReport(true);
            }}
          >
            Report
          </Button>
          <Button type="primary" icon={<DownloadOutlined />} onClick={() => void exportKit(kit)}>
            Export the kit
          </Button>
        </Flex>
      </Flex>
      <Flex gap="small" wrap align="center" className={styles.tools ?? ''}>
        <SearchField
          label="Search the log"
          className={styles.search}
          value={choice.search}
          change={(search) => {
            setChoice({ ...choice, search });
          }}
        />
        <Select
          mode="multiple"
          allowClear
          className={styles.topics ?? ''}
          aria-label="Topics"
          placeholder="all topics"
          value={[...choice.topics]}
          options={LOG_TOPICS.map((t) => ({ value: t, label: t }))}
          onChange={(topics) => {
            setChoice({ ...choice, topics });
          }}
        />
        <Checkbox
          checked={choice.withGone}
          onChange={(e) => {
            setChoice({ ...choice, withGone: e.target.checked });
          }}
        >
          withdrawn ones too
        </Checkbox>
      </Flex>
    </>
  );
}

async function exportKit(kit: KitState): Promise<void> {
  const cards = await adoptCards(kit);
  if (cards.length > 0) await useBench.getState().append(cards);
  const now = useBench.getState().kit ?? kit;
  saveFile(`${fileName(kit.sheet.title)}.zesty.json`, JSON.stringify(documentOf(now, useBench.getState().attachments), null, 1));
}

const fileName = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '') || 'kit';
