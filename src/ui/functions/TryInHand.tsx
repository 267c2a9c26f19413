import { Button, Form } from 'antd';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { EntryOf } from '@/core/kit';
import type { FunctionTry, TryItem } from '@/core/logic';
import { print } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { QuantityItem } from '../form/Items';
import { readQuantity, required } from '../form/rules';
import zones from '../shell/zones.module.css';
import styles from './Functions.module.css';
import { Indicator } from './Indicator';

type Saw = string | number;
const LOOKS = ['dark', 'dim', 'lit'];
const SOUNDS = ['off', 'on'];
const RATES = ['no', 'slow', 'normal', 'fast'];
const WORDS: Readonly<Record<TryItem['what'], readonly string[]>> = { look: LOOKS, sound: SOUNDS, blink: RATES, digit: [], volts: [] };
/** Volts that lie this far off are not as expected: a handheld's error and the spread of parts (own figure). */
const NEAR = { volts: 0.1, share: 0.05 };

interface Props {
  /** What was seen the last time; none on a board that was changed since. */
  readonly before: EntryOf<'tried'> | undefined;
  readonly here: FunctionTry;
  /** What the simulated board shows; null where there is none. */
  readonly simulated: readonly { readonly of: string; readonly saw: Saw }[] | null;
  readonly move: (by: number) => void;
  readonly done: () => void;
}

/** The try in hand: what to do, what a healthy board shows, and what is seen; Enter takes it as it stands. */
export function TryInHand({ before, here, simulated, move, done }: Props) {
  const append = useBench((s) => s.append);
  const [saw, setSaw] = useState<readonly Saw[]>(() => here.items.map((i) => before?.saw.find((s) => s.of === i.of)?.saw ?? i.expected));
  const frame = useRef<HTMLDivElement>(null);
  const measured = here.items[0]?.what === 'volts';
  useEffect(() => {
    if (!measured) frame.current?.focus();
  }, [measured]);
  const set = (at: number, value: Saw) => {
    setSaw(saw.map((s, i) => (i === at ? value : s)));
  };
  const turn = (at: number) => {
    const item = here.items[at];
    const words = item ? WORDS[item.what] : [];
    if (words.length > 0) set(at, words[(words.indexOf(String(saw[at])) + 1) % words.length]!);
  };
  const look = () => {
    if (simulated) setSaw(here.items.map((item, i) => simulated.find((s) => s.of === item.of)?.saw ?? saw[i]!));
  };
  const take = (values: readonly Saw[]) => {
    void append({
      kind: 'tried',
      check: here.check,
      saw: here.items.map((item, i) => ({ of: item.of, saw: values[i]! })),
      asExpected: here.items.every((item, i) => isAsExpected(item, values[i]!)),
    });
    done();
  };
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.target !== frame.current || e.ctrlKey || e.altKey || e.metaKey) return;
    if (e.key === 'Enter') take(saw);
    else if (e.key === 'ArrowDown') move(1);
    else if (e.key === 'ArrowUp') move(-1);
    else if (e.key === 'm') look();
    else if (/^[1-9]$/.test(e.key)) turn(Number(e.key) - 1);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const asExpected = here.items.every((item, i) => isAsExpected(item, saw[i]!));
  return (
    <div ref={frame} tabIndex={measured ? -1 : 0} role="group" aria-label={here.check} className={styles.inHand} onKeyDown={onKeyDown}>
      <h2 className={zones.label}>Do this</h2>
      <h3 className={styles.act}>{here.check}</h3>
      {measured ? (
        <Volts item={here.items[0]!} simulated={simulated?.[0]?.saw ?? null} take={take} />
      ) : (
        <>
          <p>
            A healthy board: <b>{inWords(here.items)}</b>
          </p>
          <h2 className={`${zones.label} ${zones.section}`}>What do you see</h2>
          <p className="soft">Everything is shown as expected. Press what differs, or its number; then Enter.</p>
          <ul className={styles.items}>
            {here.items.map((item, i) => (
              <li key={item.of}>
                <Indicator
                  item={item}
                  saw={saw[i]!}
                  number={i < 9 ? i + 1 : null}
                  turn={() => {
                    turn(i);
                  }}
                  set={(value) => {
                    set(i, value);
                  }}
                />
              </li>
            ))}
          </ul>
          <div className={zones.row}>
            <Button
              size="large"
              type="primary"
              onClick={() => {
                take(saw);
              }}
            >
              <kbd>Enter</kbd> {asExpected ? 'as expected' : 'seen like this'}
            </Button>
            {simulated && (
              <Button onClick={look}>
                <kbd>M</kbd> look at the simulated board
              </Button>
            )}
            <span className="soft">
              <kbd>↑</kbd> <kbd>↓</kbd> another try
            </span>
          </div>
        </>
      )}
    </div>
  );
}

function Volts({ item, simulated, take }: { item: TryItem; simulated: Saw | null; take: (saw: readonly Saw[]) => void }) {
  const [form] = Form.useForm<{ volts: string }>();
  return (
    <Form<{ volts: string }>
      form={form}
      layout="inline"
      onFinish={({ volts }) => {
        const value = readQuantity(volts, 'V');
        if (value !== null) take([value]);
      }}
    >
      <p>
        Black on ground, red on <b>{item.of}</b>. A healthy board: <b className="num">{print(Number(item.expected), 'V', 3)}</b>
      </p>
      <QuantityItem name="volts" label="Meter shows" unit="V" rules={[required('Type what the meter shows.')]} />
      <Button htmlType="submit" type="primary">
        <kbd>Enter</kbd> take it
      </Button>
      {typeof simulated === 'number' && (
        <Button
          onClick={() => {
            form.setFieldsValue({ volts: print(simulated, 'V', 3) });
          }}
        >
          read from the simulated meter
        </Button>
      )}
    </Form>
  );
}

function isAsExpected({ what, expected }: TryItem, saw: Saw): boolean {
  if (what !== 'volts') return saw === expected;
  return Math.abs(Number(saw) - Number(expected)) <= NEAR.volts + NEAR.share * Math.abs(Number(expected));
}

const NOTHING_ON = new Set<Saw>(['dark', 'off', 'no', '']);

/** What is on, in words; the rest is dark. */
function inWords(items: readonly TryItem[]): string {
  const on = items.filter((i) => !NOTHING_ON.has(i.expected));
  const told = on.map((i) =>
    i.what === 'digit'
      ? `${i.of} shows ${digitOf(String(i.expected))}`
      : i.what === 'blink'
        ? `${i.of} blinks`
        : i.what === 'sound'
          ? `${i.of} sounds`
          : `${i.of} ${i.expected}`,
  );
  if (told.length === 0) return 'nothing lights or sounds.';
  return `${told.join(', ')}${on.length < items.length ? ', all others dark' : ''}.`;
}

const DIGITS = ['abcdef', 'bc', 'abdeg', 'abcdg', 'bcfg', 'acdfg', 'acdefg', 'abc', 'abcdefg', 'abcdfg'];
/** A digit by its segments, else the segments themselves. */
const digitOf = (segments: string) => {
  const at = DIGITS.indexOf(segments);
  return at >= 0 ? String(at) : `segments ${segments}`;
};
