import { Modal } from 'antd';

const KEYS: readonly (readonly [string, string])[] = [
  ['Enter', 'take the reading, confirm, or count as listed'],
  ['N', 'not as expected (observations)'],
  ['O', 'over-range'],
  ['S', 'skip, or ask for the next best reading'],
  ['M', 'read from the simulated meter (practice kits)'],
  ['B', 'read the bands or the code on a part'],
  ['L', 'loose pile: type pieces in any order (Unpack)'],
  ['/', 'jump: type a ref behind it, such as /r9'],
  ['↑ ↓', 'target before, target after'],
  ['Alt 1 … 6', 'phase'],
  ['Esc', 'empty the entry field'],
  ['Ctrl Z', 'withdraw the last entry'],
  ['?', 'this list'],
];

export function KeysHelp({ open, close }: { open: boolean; close: () => void }) {
  return (
    <Modal open={open} onCancel={close} footer={null} title="Keys" destroyOnHidden>
      <dl style={{ display: 'grid', gridTemplateColumns: '110px 1fr', gap: '8px 12px', margin: 0 }}>
        {KEYS.map(([k, text]) => (
          <div key={k} style={{ display: 'contents' }}>
            <dt>
              <kbd>{k}</kbd>
            </dt>
            <dd style={{ margin: 0 }}>{text}</dd>
          </div>
        ))}
      </dl>
      <p className="soft" style={{ marginTop: 12 }}>
        Single letters work while the entry field is empty.
      </p>
    </Modal>
  );
}
