import { Button, Input } from 'antd';
import { type KeyboardEvent, memo, type RefObject, useEffect, useMemo } from 'react';
import type { Phase } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { print, UNIT_SYMBOL } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { useEntryField } from './entryField';
import { KeyButton } from './KeyButton';
import styles from './ProbeBar.module.css';
import { TapCount } from './TapCount';
import { canTap, forgetTaps, tap } from './taps';
import type { Loop } from './useLoop';

interface Props {
  readonly kit: KitState;
  readonly phase: Phase;
  readonly loop: Loop;
  readonly fieldRef: RefObject<HTMLInputElement | null>;
  readonly readMarking: (() => void) | null;
}

const MOST_LETTERS = 40;

type Acts = Pick<Loop, 'readMeter' | 'setText' | 'skip' | 'setPileKind'> & { readonly jump: () => void };

/** The big field: what the meter shows, or how many lie there. */
export function EntryZone({ kit, phase, loop, fieldRef, readMarking }: Props) {
  const { card, target } = loop;
  const { text, error } = useEntryField();
  const id = target?.id ?? '';
  useEffect(() => {
    fieldRef.current?.focus({ preventScroll: true });
    forgetTaps(id);
  }, [id, fieldRef]);
  const counting = card?.entry === 'count';
  const { readMeter, setText, skip, setPileKind } = loop;
  const stable = useMemo(
    (): Acts => ({
      readMeter,
      setText,
      skip,
      setPileKind,
      jump: () => {
        setText('/');
        fieldRef.current?.focus();
      },
    }),
    [readMeter, setText, skip, setPileKind, fieldRef],
  );
  const tappable = canTap(target) ? id : null;
  const tapIt = useMemo(
    () =>
      tappable === null
        ? null
        : () => {
            tap(tappable, setText);
          },
    [tappable, setText],
  );
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    // A held key enters once.
    if (e.key === 'Enter' && !e.repeat) loop.take();
    else if (e.key === 'Escape') loop.setText('');
  };
  return (
    <>
      <h2 className={styles.label}>
        <label htmlFor="entry">{counting ? 'How many are there?' : 'Meter shows'}</label>
      </h2>
      <div className={styles.fieldRow}>
        <Input
          id="entry"
          ref={(r) => {
            fieldRef.current = r?.input ?? null;
          }}
          className={styles.field ?? ''}
          value={text}
          onChange={(e) => {
            loop.setText(e.target.value);
          }}
          onKeyDown={onKeyDown}
          placeholder={counting && target?.kind === 'count' ? String(target.line.quantity) : ''}
          suffix={<span className={styles.unit}>{card?.unit ? UNIT_SYMBOL[card.unit] : ''}</span>}
          autoComplete="off"
          inputMode={counting ? 'numeric' : 'text'}
          spellCheck={false}
          maxLength={MOST_LETTERS}
          status={error ? 'error' : ''}
          aria-invalid={error !== null}
          aria-describedby="entry-error"
        />
        <Button className={styles.takeIt ?? ''} onClick={loop.take}>
          <kbd>Enter</kbd> take it
        </Button>
      </div>
      <div id="entry-error" role="alert" className={error ? (styles.error ?? '') : ''}>
        {error}
      </div>
      <TapCount id={id} />
      {!error && (
        <EntryKeys
          practice={kit.settings.standIn !== null}
          measuring={loop.measuring}
          counting={counting}
          loose={target?.kind === 'loose'}
          fault={phase === 'fault'}
          unpack={phase === 'unpack'}
          inPile={loop.pileKind !== null}
          tapIt={tapIt}
          limit={limitOf(target)}
          loop={stable}
          readMarking={readMarking}
        />
      )}
    </>
  );
}

/** Limit of the bench supply whose current is read; null where there is none. */
function limitOf(target: Loop['target']): number | null {
  if (target?.kind !== 'check' || target.check.what !== 'measure' || target.check.mode !== 'dca') return null;
  const { source } = target.check;
  return target.stage.supplies.find((s) => source === undefined || s.source === source)?.limit ?? null;
}

interface KeysProps {
  readonly practice: boolean;
  readonly measuring: boolean;
  readonly counting: boolean;
  readonly loose: boolean;
  readonly fault: boolean;
  readonly unpack: boolean;
  readonly inPile: boolean;
  readonly tapIt: (() => void) | null;
  /** Current limit of the supply whose display is read. */
  readonly limit: number | null;
  readonly loop: Acts;
  readonly readMarking: (() => void) | null;
}

/** What else can be done at the field, each with its key. */
const EntryKeys = memo(function EntryKeys({ practice, measuring, counting, loose, fault, unpack, inPile, tapIt, limit, loop, readMarking }: KeysProps) {
  return (
    <div className={styles.keys}>
      {practice && <KeyButton command="meter" text={measuring ? 'measuring…' : 'read from the meter'} run={loop.readMeter} />}
      {limit !== null && (
        <Button
          type="text"
          size="small"
          className={styles.key ?? ''}
          onClick={() => {
            loop.setText(print(limit, 'A'));
          }}
        >
          the supply is in its limit ({print(limit, 'A', 2)})
        </Button>
      )}
      {tapIt && <KeyButton command="tap" text="tap at each blink" run={tapIt} />}
      {readMarking && <KeyButton command="marking" text="read its marking" run={readMarking} />}
      {!counting && (
        <KeyButton
          command="over"
          text="over-range"
          run={() => {
            loop.setText('OL');
          }}
        />
      )}
      {!loose && <KeyButton command="skip" text={fault ? 'can’t reach it, next best' : 'skip'} run={loop.skip} />}
      {unpack && (
        <KeyButton
          command="pile"
          text={inPile ? 'count packets' : 'loose pile'}
          run={() => {
            loop.setPileKind(inPile ? null : 'R');
          }}
        />
      )}
      {!loose && <KeyButton command="jump" text="jump to a part" run={loop.jump} />}
      <KeyButton
        command="undo"
        text="undo"
        run={() => {
          void useBench.getState().undo();
        }}
      />
    </div>
  );
});
