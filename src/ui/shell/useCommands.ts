import { type RefObject, useEffect, useRef } from 'react';
import { type KeyBindingMap, tinykeys } from 'tinykeys';
import { useComfort } from '../theme/comfort';
import { type Actions, COMMAND_IDS, type CommandId, factsOfCommand } from './commands';

interface Surroundings {
  readonly actions: Actions;
  /** The entry field: single keys act in it while it is empty. */
  readonly fieldRef: RefObject<HTMLElement | null>;
  readonly isFieldEmpty: () => boolean;
  /** A dialog is open: it has the keys. */
  readonly covered: boolean;
  /** The target wants an answer, not a typed reading. */
  readonly answering: boolean;
}

/** Inputs that hold no text: choices and switches. */
const CHOICES = new Set(['radio', 'checkbox', 'button', 'file']);

const isTyping = ({ target }: KeyboardEvent) => {
  if (!(target instanceof HTMLElement)) return false;
  if (target instanceof HTMLInputElement) return !CHOICES.has(target.type);
  return /^(TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable;
};

/** Binds the table of commands to the keyboard, wherever the hand is. */
export function useCommands(surroundings: Surroundings): void {
  const { singleKeys } = useComfort();
  const now = useRef(surroundings);
  useEffect(() => {
    now.current = surroundings;
  });
  useEffect(() => {
    const acts = (id: CommandId, e: KeyboardEvent): boolean => {
      const { fieldRef, isFieldEmpty, covered, answering } = now.current;
      const { reach } = factsOfCommand(id);
      if (reach === 'always') return true;
      if (isTyping(e) && !(e.target === fieldRef.current && isFieldEmpty())) return false;
      if (reach === 'beside') return true;
      if (covered) return false;
      // Rows are dragged by arrow keys at their grip.
      if (e.key.startsWith('Arrow') && e.target instanceof HTMLElement && e.target.getAttribute('aria-roledescription') === 'sortable') return false;
      if (reach === 'loop') return true;
      // A focused button answers Enter itself.
      const onButton = e.target instanceof HTMLButtonElement || e.target instanceof HTMLAnchorElement;
      return answering && !(onButton && e.key === 'Enter' && !e.target.dataset['confirm']);
    };
    const bindings: KeyBindingMap = {};
    for (const id of COMMAND_IDS) {
      const { keys, single, reach } = factsOfCommand(id);
      if (!keys || (single && !singleKeys)) continue;
      for (const key of keys)
        bindings[key] = (e) => {
          const act = now.current.actions[id];
          if (!act || !acts(id, e)) return;
          e.preventDefault();
          // A held key answers once.
          if (!e.repeat || reach === 'beside' || key.startsWith('Arrow')) act();
        };
    }
    return tinykeys(window, bindings);
  }, [singleKeys]);
}
