import { AutoComplete, Flex, Input, Modal } from 'antd';
import { useMemo, useState } from 'react';
import { findByName, type Phase, type Place, placesOf } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { type Actions, COMMAND_IDS, type CommandId, factsOfCommand } from './commands';
import styles from './CommandBox.module.css';

interface Props {
  readonly kit: KitState;
  readonly phase: Phase;
  readonly actions: Actions;
  readonly goTo: (place: Place) => void;
  readonly close: () => void;
}

interface Choice {
  readonly value: string;
  readonly title: string;
  readonly note: string;
  readonly run: () => void;
}

const SHOWN = 30;
/** Begins every value: the library takes a value that begins as what is typed for the one meant, and ours are no words. */
const SIGN = '\u2063';

/** Go to a part, line, net, check or view by its name, or run a command. */
export function CommandBox({ kit, phase, actions, goTo, close }: Props) {
  const [text, setText] = useState('');
  const choices = useMemo((): Choice[] => {
    const commands = COMMAND_IDS.flatMap((id: CommandId): Choice[] => {
      const act = actions[id];
      const facts = factsOfCommand(id);
      return act && !facts.entryOnly && id !== 'box' ? [{ value: `${SIGN}command ${id}`, title: facts.title, note: facts.shown, run: act }] : [];
    });
    const places = placesOf(kit, phase).map((p): Choice => ({
      value: `${SIGN}${p.id}`,
      title: p.title,
      note: `${p.kind}${p.note && p.note !== p.kind ? `, ${p.note}` : ''}`,
      run: () => {
        goTo(p);
      },
    }));
    return [...commands, ...places];
  }, [kit, phase, actions, goTo]);
  const found = findByName(choices, text, SHOWN);
  return (
    <Modal open onCancel={close} footer={null} closable={false} title="Go to" width={560} className={styles.box ?? ''}>
      <AutoComplete
        className={styles.field ?? ''}
        open
        autoFocus
        defaultActiveFirstOption
        value={text}
        onChange={setText}
        getPopupContainer={(node: HTMLElement) => node.parentElement ?? document.body}
        listHeight={340}
        aria-label="Where to, or what to do"
        options={found.map((c) => ({
          value: c.value,
          label: (
            <Flex justify="space-between" gap="middle">
              <b>{c.title}</b>
              <span className="soft">{c.note}</span>
            </Flex>
          ),
        }))}
        notFoundContent="Nothing here has that name."
        onSelect={(value: string) => {
          close();
          choices.find((c) => c.value === value)?.run();
        }}
      >
        <Input
          size="large"
          placeholder="R9, 4.7 k, a net, a check, a view, a command"
          spellCheck={false}
          onKeyDown={(e) => {
            if (e.key === 'Escape') close();
          }}
        />
      </AutoComplete>
    </Modal>
  );
}
