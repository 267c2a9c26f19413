import { Button, Flex, Input, Modal } from 'antd';
import { useState } from 'react';
import type { KitState } from '@/core/kit';
import { packetLabels, sellerLetter } from '@/core/report';
import { PartBody } from '../drawn/Body';
import { copyText } from '../shell/copyText';
import { saveFile } from '../shell/saveFile';
import styles from './Papers.module.css';

/** A label for every packet, for printing. */
export function Labels({ kit, close }: { kit: KitState; close: () => void }) {
  const lineOf = new Map(kit.sheet.lines.map((l) => [l.id, l]));
  return (
    <Modal
      open
      onCancel={close}
      width={800}
      title="Labels for the packets"
      okText="Print"
      onOk={() => {
        print();
      }}
      cancelText="Close"
      footer={(buttons) => <span className="no-print">{buttons}</span>}
    >
      <div className={styles.labels}>
        {packetLabels(kit).map((l) => (
          <div key={l.line} className={styles.label}>
            <PartBody line={lineOf.get(l.line)!} />
            <b>{l.title}</b>
            <span className="num">{l.measured}</span>
            <br />
            <span>{l.refs || 'no position'}</span> <span className="soft">({l.count})</span>
          </div>
        ))}
      </div>
    </Modal>
  );
}

/** The letter about what is short, wrong or a copy, for copying. */
export function Letter({ kit, close }: { kit: KitState; close: () => void }) {
  const text = sellerLetter(kit);
  const [said, setSaid] = useState('');
  if (text === null)
    return (
      <Modal open onCancel={close} footer={null} title="Letter to the seller">
        <p>Nothing to write about: no part is missing, wrong or probably a copy.</p>
      </Modal>
    );
  const copy = () => {
    copyText(text).then(
      () => {
        setSaid('Copied.');
      },
      () => {
        setSaid('The browser refused the clipboard: mark the text and copy it.');
      },
    );
  };
  return (
    <Modal open onCancel={close} footer={null} width={760} title="Letter to the seller">
      <Input.TextArea aria-label="Letter" readOnly value={text} autoSize={{ minRows: 12, maxRows: 18 }} />
      <Flex gap="small" align="center" className={styles.papers ?? ''}>
        <Button type="primary" onClick={copy}>
          Copy
        </Button>
        <Button
          onClick={() => {
            saveFile('letter.md', text, 'text/markdown');
          }}
        >
          Save as Markdown
        </Button>
        <span role="status">{said}</span>
      </Flex>
    </Modal>
  );
}
