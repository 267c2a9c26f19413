import { Modal } from 'antd';
import { useState } from 'react';
import { type KitState } from '@/core/kit';
import { packetLabels, sellerLetter } from '@/core/report';
import { saveFile } from './files';

/** What can be printed or sent from the tray: packet labels, and a letter about what is short or wrong. */
export function Papers({ kit }: { kit: KitState }) {
  const [open, setOpen] = useState<'labels' | 'letter' | null>(null);
  const letter = sellerLetter(kit);
  const close = () => {
    setOpen(null);
  };
  return (
    <div className="row" style={{ marginTop: 12 }}>
      <button
        type="button"
        className="plain"
        onClick={() => {
          setOpen('labels');
        }}
      >
        Packet labels
      </button>
      {letter !== null && (
        <button
          type="button"
          className="plain"
          onClick={() => {
            setOpen('letter');
          }}
        >
          Write to the seller
        </button>
      )}
      <Modal open={open === 'labels'} onCancel={close} footer={null} width={760} title="Labels for the packets" destroyOnHidden>
        <div className="labels">
          {packetLabels(kit).map((l) => (
            <div key={l.line} className="packet-label">
              <b>{l.title}</b>
              <span className="num">{l.measured}</span>
              <br />
              <span>{l.refs || 'no position'}</span> <span className="soft">({l.count})</span>
            </div>
          ))}
        </div>
        <div className="row" style={{ marginTop: 12 }}>
          <button
            type="button"
            className="zest"
            onClick={() => {
              print();
            }}
          >
            Print
          </button>
        </div>
      </Modal>
      {letter !== null && <Letter text={letter} open={open === 'letter'} close={close} />}
    </div>
  );
}

function Letter({ text, open, close }: { text: string; open: boolean; close: () => void }) {
  const [said, setSaid] = useState('');
  return (
    <Modal open={open} onCancel={close} footer={null} width={720} title="Letter to the seller" destroyOnHidden>
      <textarea className="letter" aria-label="Letter" readOnly value={text} />
      <div className="row" style={{ marginTop: 10 }}>
        <button
          type="button"
          className="zest"
          onClick={() => {
            navigator.clipboard.writeText(text).then(
              () => {
                setSaid('Copied.');
              },
              () => {
                setSaid('The browser refused the clipboard: mark the text and copy it.');
              },
            );
          }}
        >
          Copy
        </button>
        <button
          type="button"
          className="plain"
          onClick={() => {
            saveFile('letter.md', text, 'text/markdown');
          }}
        >
          Save as Markdown
        </button>
        <span role="status">{said}</span>
      </div>
    </Modal>
  );
}
