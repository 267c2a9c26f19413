import { Alert, Button, Flex, Input } from 'antd';
import { useDeferredValue, useMemo, useState } from 'react';
import { type KitState, put } from '@/core/kit';
import { EXAMPLE_SENTENCES, readSentences, type SentenceRemark } from '@/core/logic';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import { ChipPins } from './ChipPins';
import styles from './Functions.module.css';

const HINTS: readonly (readonly [string, string])[] = [
  ['U1 programmed chip, 28 pins: plus 7, ground 8, reset 1', 'a chip of which only the instructions know what it does'],
  ['U2 HC595: DS data, SHCP clk, STCP latch, OE ground, MR plus', 'a chip by its card, pin or name, then its net'],
  ['K1-K8: U1 2-9 to ground, pulled up inside', 'keys, one after another'],
  ['D1-D8 red: U1 12-19 through R1-R8 330 to ground', 'lamps with their resistors; or from plus to the pins'],
  ['R20 10k: U1 1 to plus', 'a resistor'],
  ['J1: U1 8 to plus (A) or ground (B), at A', 'a jumper and how it is set'],
  ['DS1 display common cathode: a-g at U2 13 12 11 10 9 15 14 through R1-R7 330, common to ground', 'a digit'],
  ['K1-K8 pressed: D1-D8 light', 'what a key does; also “K1 and K2 pressed”, “J1 at B”, “mode 1”, “always”'],
  ['K4 steps 3 modes', 'a key that goes through modes'],
  ['try tap K4 2 times, press K1', 'a try of your own'],
];

/** The board in sentences: written, read back with remarks, taken over. */
export function Sentences({ kit, close }: { kit: KitState; close: () => void }) {
  const append = useBench((s) => s.append);
  const before = kit.sheet.functions?.sentences ?? '';
  const [text, setText] = useState(before);
  const late = useDeferredValue(text);
  const { remarks, description } = useMemo(() => readSentences(late), [late]);
  const errors = remarks.filter((r) => r.severity === 'error');
  const checks = (description as { readonly checks: readonly unknown[] }).checks.length;
  const empty = late.trim() === '';
  return (
    <div className={`${zones.zones} ${zones.halves}`}>
      <section className={zones.card} aria-label="The board in sentences">
        <h2 className={zones.label}>The board in sentences, one a line</h2>
        <Input.TextArea
          aria-label="Sentences"
          className="num"
          value={text}
          autoSize={{ minRows: 16, maxRows: 24 }}
          maxLength={100_000}
          spellCheck={false}
          onChange={(e) => {
            setText(e.target.value);
          }}
        />
        <Flex gap="small" className={zones.section ?? ''} wrap>
          <Button
            type="primary"
            disabled={empty || errors.length > 0}
            onClick={() => {
              void append((k) => put(k, 'functions', { sentences: text }));
              close();
            }}
          >
            Use these sentences
          </Button>
          {before !== '' && <Button onClick={close}>Discard changes</Button>}
          {empty && (
            <Button
              onClick={() => {
                setText(EXAMPLE_SENTENCES);
              }}
            >
              Begin with an example
            </Button>
          )}
        </Flex>
        {!empty && (
          <ul className={styles.remarks} aria-label="Remarks">
            {remarks.map((r, i) => (
              <li key={i}>
                <Alert type={r.severity === 'error' ? 'error' : 'warning'} title={remarkText(r)} />
              </li>
            ))}
            {errors.length === 0 && (
              <li>
                <Alert type="success" title={`Understood: ${checks === 1 ? '1 try' : `${checks} tries`} follow from it.`} />
              </li>
            )}
          </ul>
        )}
      </section>
      <section className={`${zones.card} ${zones.why}`} aria-label="How sentences are written">
        <h2 className={zones.label}>How sentences are written</h2>
        <dl className={styles.hints}>
          {HINTS.map(([sentence, means]) => (
            <div key={sentence}>
              <dt className="num">{sentence}</dt>
              <dd>{means}</dd>
            </div>
          ))}
        </dl>
        <p className="soft">Places are ground, plus, U1 12, or a name of your own for a net.</p>
        <ChipPins />
      </section>
    </div>
  );
}

const remarkText = ({ line, message }: SentenceRemark) => (line > 0 ? `Line ${line}: ${message}` : message);
