import { Checkbox, Form, Input } from 'antd';
import zones from '../shell/zones.module.css';
import { FileButton } from '../form/FileButton';
import { ColumnTable } from './ColumnTable';
import { EntryTable } from './EntryTable';
import styles from './NewKit.module.css';
import { MOST_CHARACTERS, type useNewKit } from './useNewKit';

const LIST_EXAMPLE =
  'refs,kind,value,tolerance,qty\n"R1,R2",resistor,10k,5%,2\n\nor free lines in any of ten languages:\nR1-R4,R7 10k 1/4W x5\nC1、C2 瓷片电容 104\n2x 100 µF/25V electrolítico\n12 V adapter 500 mA, not included';
const ROWS = 9;
const SHOWN = 30;

/** What should be in the bag. */
export function ListStep({ kit }: { kit: ReturnType<typeof useNewKit> }) {
  const { draft, begun } = kit;
  // Questions of single lines stand beside them; here is what concerns the list as a whole.
  const asked = new Set(draft.list.entries.flatMap((e) => (e.doubts.length > 0 ? [e.sources[0]] : [])));
  const remarks = draft.list.remarks.filter((r) => !asked.has(r.line));
  return (
    <>
      <p className={styles.buys}>
        With a list every part can be counted, read and measured against what it should be. Paste it, open a file, or type it line by line.
      </p>
      <Form layout="vertical" component="div">
        <Form.Item label="Parts list, as the seller prints it" htmlFor="list">
          <Input.TextArea
            id="list"
            value={begun.list}
            placeholder={LIST_EXAMPLE}
            rows={ROWS}
            spellCheck={false}
            maxLength={MOST_CHARACTERS}
            onChange={(e) => {
              kit.setList(e.target.value);
            }}
          />
        </Form.Item>
      </Form>
      <p className="soft" role="status">
        {draft.lines.length > 0
          ? `${draft.lines.length} lines, ${draft.lines.reduce((n, l) => n + l.refs.length, 0)} positions${begun.list.trim() === '' ? ', made from the circuit' : ''}.`
          : kit.reading
            ? 'Reading the list…'
            : 'No lines yet.'}
      </p>
      <div className={zones.row}>
        <FileButton text="Open a list file" accept=".csv,.tsv,.txt,.xlsx,text/*" take={kit.takeFile} />
        <span className="soft">CSV, TSV, XLSX or text, in any usual encoding. {kit.note}</span>
      </div>
      <ul className={zones.remarks} aria-label="Remarks on the list">
        {remarks.slice(0, SHOWN).map((r, i) => (
          <li key={i} className={r.severity === 'error' ? zones.error : ''}>
            <b>Line {r.line}:</b> {r.message}. {r.remedy}
          </li>
        ))}
      </ul>
      <EntryTable list={draft.list} correct={kit.correct} />
      <ColumnTable list={draft.list} setColumns={kit.setColumns} />
      <Checkbox
        checked={begun.built}
        onChange={(e) => {
          kit.set({ built: e.target.checked });
        }}
      >
        It is built already and does not work: everything is fitted, nothing was measured
      </Checkbox>
    </>
  );
}
