import { Modal, Segmented } from 'antd';
import { type KeyboardEvent, useMemo, useState } from 'react';
import { bandWord, type MarkingChoice, type MarkingKind, readBandWords, readMarking, type Target } from '@/core/loop';
import { type KitState, type Line, patch } from '@/core/kit';
import { type Colour, COLOURS } from '@/core/marking';
import { useBench } from '@/store/bench';
import { PAINT, ResistorBody } from './PartBody';

const KINDS: readonly { readonly value: MarkingKind; readonly label: string; readonly hint: string }[] = [
  { value: 'bands', label: 'Bands', hint: 'bn bk rd gd, from either end; bn/rd where you cannot tell' },
  { value: 'resistor', label: 'Letter code', hint: '4k7, R47, 2M2J' },
  { value: 'chip', label: 'Chip', hint: '103, 4702, 01C; ? for what cannot be read' },
  { value: 'capacitor', label: 'Capacitor', hint: '104K, 2A103J, 10? where a figure cannot be read' },
  { value: 'coil', label: 'Coil', hint: '101K, or its bands' },
  { value: 'date', label: 'Date code', hint: '2419 or 419: year and week' },
];
const SHORT: Readonly<Record<string, string>> = {
  black: 'bk',
  brown: 'bn',
  red: 'rd',
  orange: 'og',
  yellow: 'ye',
  green: 'gn',
  blue: 'bu',
  violet: 'vt',
  grey: 'gy',
  white: 'wh',
  gold: 'gd',
  silver: 'sr',
};

/** The kind of marking that a line's parts carry. */
function kindFor(line: Line | null): MarkingKind {
  if (line?.kind === 'capacitor' || line?.kind === 'electrolytic') return 'capacitor';
  if (line?.kind === 'inductor') return 'coil';
  if (line?.kind === 'resistor') return /0402|0603|0805|1206/.test(line.package ?? '') ? 'chip' : 'bands';
  return line?.kind === 'trimmer' ? 'chip' : line?.kind === 'ic' || line?.kind === 'opamp' ? 'date' : 'bands';
}

/** Reads what is printed on a part: bands clicked or typed, codes typed. Enter gives the piece what it says. */
export function MarkingReader({ kit, target, close, fill }: { kit: KitState; target: Target | null; close: () => void; fill: (text: string) => void }) {
  const line = target?.kind === 'piece' || target?.kind === 'count' ? target.line : null;
  const [kind, setKind] = useState<MarkingKind>(() => kindFor(line));
  const [text, setText] = useState('');
  const append = useBench((s) => s.append);
  const today = new Date().toISOString().slice(0, 10);
  const answer = useMemo(() => readMarking(kind, text, kit.sheet.lines, today), [kind, text, kit.sheet.lines, today]);
  const best = answer.choices[0] ?? null;
  const bands = kind === 'bands' || kind === 'coil';

  const identify = () => {
    if (!best) return;
    if (target?.kind === 'loose') fill(`${kind === 'capacitor' ? 'c' : kind === 'coil' ? 'l' : 'r'} ${text.trim()} `);
    else if (target?.kind === 'piece') void append({ kind: 'marked', line: target.line.id, piece: target.piece, text: `${text.trim()} = ${best.text}` });
    else if (line) void append({ kind: 'marked', line: line.id, piece: 0, text: `${text.trim()} = ${best.text}` });
    close();
  };
  const expectThis = () => {
    if (!best || best.value === null || !line) return;
    const { value, tolerance, text: said } = best;
    void append((k) =>
      patch(k, 'lines', line.id, { value, tolerance: tolerance ?? line.tolerance, label: line.value === null ? `${line.label} ${said}` : line.label }),
    );
    close();
  };
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) expectThis();
    else if (e.key === 'Enter') identify();
    else return;
    e.preventDefault();
  };
  const addBand = (colour: Colour) => {
    setText((t) => `${t.trimEnd()} ${SHORT[colour]!}`.trim());
  };

  return (
    <Modal open onCancel={close} footer={null} title={line ? `What is printed on ${line.label}?` : 'What is printed on it?'} width={660} destroyOnHidden>
      <Segmented
        options={KINDS.map(({ value, label }) => ({ value, label }))}
        value={kind}
        onChange={(v) => {
          setKind(v);
          setText('');
        }}
      />
      {bands && <DrawnBands text={text} setText={setText} />}
      <input
        autoFocus
        className="reader-field"
        aria-label="Marking"
        placeholder={KINDS.find((k) => k.value === kind)!.hint}
        value={text}
        maxLength={60}
        spellCheck={false}
        onChange={(e) => {
          setText(e.target.value);
        }}
        onKeyDown={onKeyDown}
      />
      {bands && (
        <div className="palette" role="group" aria-label="Colours">
          {COLOURS.map((c) => (
            <button
              key={c}
              type="button"
              onClick={() => {
                addBand(c);
              }}
            >
              <i style={{ background: PAINT[c] }} aria-hidden="true" />
              {c} <kbd>{SHORT[c]}</kbd>
            </button>
          ))}
        </div>
      )}
      <div aria-live="polite" style={{ minHeight: 130, marginTop: 12 }}>
        {answer.message !== '' && <p style={{ marginBottom: 8 }}>{answer.message}</p>}
        {answer.choices.slice(0, 5).map((c, i) => (
          <Choice key={c.text + String(i)} choice={c} first={i === 0} />
        ))}
      </div>
      <div className="row">
        <button type="button" className="zest" disabled={!best} onClick={identify}>
          {target?.kind === 'loose' ? 'Put it into the entry' : 'This piece says so'} <kbd>Enter</kbd>
        </button>
        {line && (
          <button type="button" className="plain" disabled={best?.value == null} onClick={expectThis}>
            Expect this on the line <kbd>Ctrl Enter</kbd>
          </button>
        )}
      </div>
    </Modal>
  );
}

const Choice = ({ choice, first }: { choice: MarkingChoice; first: boolean }) => (
  <p className={first ? 'reader-choice first' : 'reader-choice'}>
    <span className="num">{choice.text}</span>
    <span className="soft">
      {choice.line
        ? `on the list: ${choice.line.label}${choice.line.refs.length > 0 ? ` for ${choice.line.refs.slice(0, 6).join(' ')}` : ''}`
        : 'not on this list'}
    </span>
  </p>
);

/** The part as it lies there; a click on a band takes it away. */
function DrawnBands({ text, setText }: { text: string; setText: (text: string) => void }) {
  const words = text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean);
  const read = readBandWords(text);
  const colours = 'unknown' in read ? words.map((w) => bandWord(w.split('/')[0]!)) : read.map((b) => (typeof b === 'string' ? b : (b[0] ?? null)));
  return (
    <svg viewBox="0 0 96 46" className="drawn-bands" role="img" aria-label={words.length === 0 ? 'no bands yet' : `bands ${words.join(' ')}`}>
      <ResistorBody
        colours={colours.map((c) => c as Colour | null)}
        onBand={(i) => {
          setText(words.filter((_, k) => k !== i).join(' '));
        }}
      />
    </svg>
  );
}
