import { type RefObject, useEffect } from 'react';
import { type KeyBindingMap, tinykeys } from 'tinykeys';
import { type Loop } from './useLoop';

interface Keys {
  readonly loop: Loop;
  /** The entry field: its keys stay with it once something stands in it. */
  readonly field: RefObject<HTMLInputElement | null>;
  /** A dialog is open: it has the keys. */
  readonly covered: boolean;
  readonly practice: boolean;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Opens the phase with this number. */
  readonly phase: (index: number) => void;
  readonly help: () => void;
  /** Opens the reader of markings; null where there is nothing to read. */
  readonly reader: (() => void) | null;
  /** Into the loose pile and out of it; null outside of Unpack. */
  readonly pile: (() => void) | null;
}

type Act = (() => void) | null;

/** The keys of the loop, wherever the hand is. */
export function useBenchKeys({ loop, field, covered, practice, undo, redo, phase, help, reader, pile }: Keys): void {
  useEffect(() => {
    const isTyping = (e: KeyboardEvent) => e.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(e.target.tagName);
    const inEmptyEntry = (e: KeyboardEvent) => e.target === field.current && loop.text === '';
    const always = (act: () => void) => (e: KeyboardEvent) => {
      e.preventDefault();
      act();
    };
    /** Not while a field is typed in. */
    const beside = (act: () => void) => (e: KeyboardEvent) => {
      if (!isTyping(e) || inEmptyEntry(e)) always(act)(e);
    };
    /** Nor while a dialog is open. */
    const open = (act: Act) => (e: KeyboardEvent) => {
      if (act && !covered) beside(act)(e);
    };
    /** Answers where there is nothing to type; a held key answers once. */
    const answer = (act: Act) => (e: KeyboardEvent) => {
      if (loop.card?.entry === 'confirm' && !e.repeat) open(act)(e);
    };
    const confirm = answer(() => {
      loop.confirm(true);
    });
    const phases: KeyBindingMap = Object.fromEntries(
      [1, 2, 3, 4, 5, 6].map((n) => [
        `Alt+Digit${n}`,
        always(() => {
          phase(n - 1);
        }),
      ]),
    );
    return tinykeys(window, {
      ...phases,
      '$mod+z': beside(undo),
      '$mod+Shift+z': beside(redo),
      '?': open(help),
      'Shift+?': open(help),
      b: open(reader),
      l: open(pile),
      ArrowDown: open(() => {
        loop.move(1);
      }),
      ArrowUp: open(() => {
        loop.move(-1);
      }),
      Enter: (e) => {
        const onButton = e.target instanceof HTMLButtonElement || e.target instanceof HTMLAnchorElement;
        if (!onButton) confirm(e);
      },
      n: answer(() => {
        loop.confirm(false);
      }),
      s: answer(loop.skip),
      m: answer(practice ? loop.readMeter : null),
    });
  });
}
