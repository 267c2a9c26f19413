import { Button, Flex, Input, Modal, Segmented } from 'antd';
import { bandWord, lineTitle, type MarkingChoice, type MarkingKind, readBandWords } from '@/core/loop';
import { type Colour, COLOURS } from '@/core/marking';
import { BandedBody } from '../drawn/Body';
import { BAND_PAINT } from '../theme/tokens';
import styles from './MarkingReader.module.css';
import { type ReaderProps, SHORT, useReader } from './useReader';

const KINDS: readonly { readonly value: MarkingKind; readonly label: string; readonly hint: string }[] = [
  { value: 'bands', label: 'Bands', hint: 'bn bk rd gd, from either end; bn/rd where you cannot tell' },
  { value: 'resistor', label: 'Letter code', hint: '4k7, R47, 2M2J' },
  { value: 'chip', label: 'Chip', hint: '103, 4702, 01C; ? for what cannot be read' },
  { value: 'capacitor', label: 'Capacitor', hint: '104K, 2A103J, 10? where a figure cannot be read' },
  { value: 'coil', label: 'Coil', hint: '101K, or its bands' },
  { value: 'date', label: 'Date code', hint: '2419 or 419: year and week' },
];
/** Reads what is printed on a part: bands clicked or typed, codes typed. Enter gives the piece what it says. */
export function MarkingReader({ kit, target, close, fill }: ReaderProps) {
  const reader = useReader({ kit, target, close, fill });
  const { line, kind, text, best, bands } = reader;
  return (
    <Modal open onCancel={close} footer={null} title={line ? `What is printed on ${lineTitle(line)}?` : 'What is printed on it?'} width={680}>
      <Segmented options={KINDS.map(({ value, label }) => ({ value, label }))} value={kind} onChange={reader.chooseKind} aria-label="Kind of marking" />
      {bands && <DrawnBands text={text} setText={reader.setText} />}
      <Input
        autoFocus
        className={styles.field ?? ''}
        aria-label="Marking"
        placeholder={KINDS.find((k) => k.value === kind)!.hint}
        value={text}
        maxLength={60}
        spellCheck={false}
        onChange={(e) => {
          reader.setText(e.target.value);
        }}
        onKeyDown={reader.onKeyDown}
      />
      {bands && <Palette add={reader.addBand} />}
      <div aria-live="polite" className={styles.answer}>
        {reader.message !== '' && <p>{reader.message}</p>}
        {reader.choices.slice(0, 5).map((c, i) => (
          <Choice key={c.text + String(i)} choice={c} first={i === 0} />
        ))}
      </div>
      <Flex gap="small" wrap>
        <Button type="primary" disabled={!best} onClick={reader.identify}>
          {target?.kind === 'loose' ? 'Put it into the entry' : 'This piece says so'} <kbd>Enter</kbd>
        </Button>
        {line && (
          <Button disabled={best?.value == null} onClick={reader.expectThis}>
            Expect this on the line <kbd>Ctrl Enter</kbd>
          </Button>
        )}
      </Flex>
    </Modal>
  );
}

const Palette = ({ add }: { add: (colour: Colour) => void }) => (
  <div className={styles.palette} role="group" aria-label="Colours">
    {COLOURS.map((c) => (
      <Button
        key={c}
        size="small"
        icon={
          <svg width="12" height="20" aria-hidden="true">
            <rect width="12" height="20" rx="2" fill={BAND_PAINT[c]} stroke="var(--edge)" />
          </svg>
        }
        onClick={() => {
          add(c);
        }}
      >
        {c} <kbd>{SHORT[c]}</kbd>
      </Button>
    ))}
  </div>
);

const Choice = ({ choice, first }: { choice: MarkingChoice; first: boolean }) => (
  <p className={`${styles.choice} ${first ? styles.first : ''}`}>
    <span className="num">{choice.text}</span>
    <span className="soft">
      {choice.line
        ? `on the list: ${lineTitle(choice.line)}${choice.line.refs.length > 0 ? ` for ${choice.line.refs.slice(0, 6).join(' ')}` : ''}`
        : 'not on this list'}
    </span>
  </p>
);

/** The part as it lies there; a click on a band takes it away (by keys: in the field). */
function DrawnBands({ text, setText }: { text: string; setText: (text: string) => void }) {
  const words = text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean);
  const read = readBandWords(text);
  const colours = 'unknown' in read ? words.map((w) => bandWord(w.split('/')[0]!)) : read.map((b) => (typeof b === 'string' ? b : (b[0] ?? null)));
  return (
    <svg viewBox="0 0 96 46" className={styles.drawn ?? ''} role="img" aria-label={words.length === 0 ? 'no bands yet' : `bands ${words.join(' ')}`}>
      <BandedBody
        colours={colours.map((c) => c as Colour | null)}
        onBand={(i) => {
          setText(words.filter((_, k) => k !== i).join(' '));
        }}
      />
    </svg>
  );
}
