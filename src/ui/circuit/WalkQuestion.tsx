import { Alert, Button, Flex, Input, type InputRef } from 'antd';
import { useEffect, useRef } from 'react';
import { netWord } from '@/core/draft';
import { lineTitle } from '@/core/loop';
import type { Walking } from './useWalk';
import styles from './Walk.module.css';

/** The pin in hand, and the answer to where it goes. */
export function Question({ walk }: { walk: Walking }) {
  const { pin, part } = walk;
  const field = useRef<InputRef>(null);
  useEffect(() => {
    field.current?.focus();
  }, [pin?.ref, pin?.index]);
  if (!pin || !part)
    return (
      <>
        <h3 className={styles.ask}>Every pin is answered</h3>
        <p className="soft">
          {walk.findings.length > 0 ? 'Look at what stands below.' : 'Go on with Next.'} To change an answer, choose its pin under All pins.
        </p>
        <BackButton walk={walk} />
      </>
    );
  return (
    <>
      <h3 className={styles.ask} aria-live="polite">
        {pin.ref}, {/^\d+$/.test(pin.name) ? `pin ${pin.name}` : pin.name}: where does it go?
      </h3>
      <p className="soft">
        {part.line ? lineTitle(part.line) : part.label}
        {pin.state === 'net' ? `; now on ${netWord(pin.net)}` : pin.state === 'nowhere' ? '; now nowhere' : ''}
      </p>
      <Input
        ref={field}
        aria-label={`Where ${pin.ref} ${pin.name} goes`}
        className={styles.field ?? ''}
        value={walk.text}
        placeholder="R5.2, a net’s name, ground, nowhere"
        status={walk.against === null ? '' : 'error'}
        maxLength={60}
        spellCheck={false}
        autoComplete="off"
        onChange={(e) => {
          walk.setText(e.target.value);
        }}
        onPressEnter={() => {
          walk.answer(walk.text);
        }}
        onKeyDown={(e) => {
          const [first] = walk.matches;
          if (e.key !== 'Tab' || e.shiftKey || first === undefined || walk.text.trim() === '' || walk.text === first) return;
          e.preventDefault();
          walk.setText(first);
        }}
      />
      <div className={styles.matches} role="group" aria-label="Did you mean">
        {walk.matches.map((m) => (
          <Button
            key={m}
            size="small"
            onClick={() => {
              walk.answer(m);
            }}
          >
            {m}
          </Button>
        ))}
      </div>
      {walk.against !== null && <Alert type="error" role="alert" title={walk.against} />}
      {walk.two && <TwoNets walk={walk} nets={walk.two.nets} typed={walk.two.typed} />}
      <Flex gap="small" wrap>
        <BackButton walk={walk} />
        <Button onClick={walk.later}>Later</Button>
        <span className="soft">Enter confirms, Tab completes</span>
      </Flex>
    </>
  );
}

function TwoNets({ walk, nets: [old, now], typed }: { walk: Walking; nets: readonly [string, string]; typed: string }) {
  return (
    <Alert
      type="warning"
      role="alert"
      title={`It is on ${netWord(old)} already. Are ${netWord(old)} and ${netWord(now)} the same net, or does only this pin move?`}
      action={
        <Flex vertical gap="small">
          <Button
            size="small"
            onClick={() => {
              walk.answer(typed, 'join');
            }}
          >
            Same net
          </Button>
          <Button
            size="small"
            onClick={() => {
              walk.answer(typed, 'move');
            }}
          >
            Only this pin
          </Button>
        </Flex>
      }
    />
  );
}

const BackButton = ({ walk }: { walk: Walking }) => (
  <Button disabled={!walk.canGoBack} onClick={walk.back}>
    Undo the last answer
  </Button>
);
