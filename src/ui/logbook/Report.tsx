import { Button, Checkbox, Flex, Modal, Table } from 'antd';
import { useMemo, useState } from 'react';
import type { KitState } from '@/core/kit';
import { buildReport, REPORT_SECTIONS, type ReportBlock, reportHtml, reportMarkdown, type ReportSection } from '@/core/report';
import { Nothing } from '../drawn/Nothing';
import { useWindows } from '../results/useWindows';
import { saveFile } from '../shell/saveFile';
import styles from './Logbook.module.css';

/** The report of a kit: looked at, its sections chosen, printed or saved. */
export function Report({ kit, name, close }: { kit: KitState; name: string; close: () => void }) {
  const windows = useWindows(kit);
  const whole = useMemo(() => buildReport(kit, windows), [kit, windows]);
  const [left, setLeft] = useState<ReadonlySet<ReportSection>>(new Set());
  const report = whole.filter((p) => !left.has(p.section));
  const { title } = kit.sheet;
  return (
    <Modal
      open
      onCancel={close}
      width="min(64rem, 96vw)"
      title="Report"
      footer={
        <Flex gap="small" justify="end" wrap className="no-print">
          <Button
            onClick={() => {
              saveFile(`${name}-report.md`, reportMarkdown(title, report), 'text/markdown');
            }}
          >
            Save as Markdown
          </Button>
          <Button
            onClick={() => {
              saveFile(`${name}-report.html`, reportHtml(title, report), 'text/html');
            }}
          >
            Save as a web page
          </Button>
          <Button
            type="primary"
            onClick={() => {
              print();
            }}
          >
            Print
          </Button>
        </Flex>
      }
    >
      <Flex gap="small" wrap className="no-print" role="group" aria-label="Sections">
        {REPORT_SECTIONS.flatMap((section) => {
          const part = whole.find((p) => p.section === section);
          return part
            ? [
                <Checkbox
                  key={section}
                  checked={!left.has(section)}
                  onChange={(e) => {
                    const next = new Set(left);
                    if (e.target.checked) next.delete(section);
                    else next.add(section);
                    setLeft(next);
                  }}
                >
                  {part.title}
                </Checkbox>,
              ]
            : [];
        })}
      </Flex>
      <article className={`print-alone ${styles.report}`} aria-label="Report">
        <h1>{title}</h1>
        {report.length === 0 && <Nothing say="Nothing to report yet: count, measure, fit or read something first." />}
        {report.map((p) => (
          <section key={p.section}>
            <h2>{p.title}</h2>
            {p.blocks.map((b, i) => (
              <Block key={i} block={b} />
            ))}
          </section>
        ))}
      </article>
    </Modal>
  );
}

function Block({ block }: { block: ReportBlock }) {
  if (block.kind === 'text')
    return (
      <p>
        <b>{block.text}</b>
      </p>
    );
  if (block.kind === 'list')
    return (
      <ul>
        {block.items.map((text, i) => (
          <li key={i}>{text}</li>
        ))}
      </ul>
    );
  return (
    <Table<readonly string[]>
      size="small"
      pagination={false}
      rowKey={(row) => row.join('|')}
      dataSource={[...block.rows]}
      columns={block.head.map((title, i) => ({ title, key: i, render: (_: unknown, row: readonly string[]) => row[i] }))}
    />
  );
}
