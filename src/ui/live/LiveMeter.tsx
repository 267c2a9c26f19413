import { Button, Progress } from 'antd';
import { useEffect, useRef } from 'react';
import { EMPTY_HOLD, hear, type Polled, type Shown } from '@/core/instrument';
import { type KitState, meterOf } from '@/core/kit';
import type { Target } from '@/core/loop';
import { rangeFor } from '@/core/meter';
import { print } from '@/core/quantity';
import { MODES, type MeterMode, unitOf } from '@/core/vocabulary';
import { readSimulated } from '../probe/simulated';
import styles from '../probe/ProbeBar.module.css';
import { useLink } from '@/store/instrument';
import { disconnect } from '@/store/lines';

interface Props {
  readonly kit: KitState;
  readonly target: Target;
  readonly setText: (text: string) => void;
  readonly take: () => void;
}

/** Between two questions, and while the simulated probes are on their way, milliseconds. */
const PAUSE = 120;
const ON_THE_WAY = 350;
/** So often in a row nothing may come before the line counts as lost. */
const PATIENCE = 4;

const modeOf = (target: Target): MeterMode | null =>
  target.kind === 'piece'
    ? target.expected.mode
    : target.kind === 'probe'
      ? 'dcv'
      : target.kind === 'check' && target.check.what === 'measure'
        ? target.check.mode
        : null;

const wait = (milliseconds: number) => new Promise<void>((resolve) => setTimeout(resolve, milliseconds));

/** What the connected meter reads at the target; held still, it is taken as if it had been typed. */
export function LiveMeter({ kit, target, setText, take }: Props) {
  const { session, simulated, name, hold, said, steady } = useLink();
  const mode = modeOf(target);
  const now = useRef({ kit, target, setText, take, hold });
  useEffect(() => {
    now.current = { kit, target, setText, take, hold };
  });
  const id = target.id;
  // The simulated probes go to each target like a hand: lifted, on the way, and down.
  useEffect(() => {
    if (!simulated || mode === null) return;
    let gone = false;
    simulated.touch(null);
    void Promise.all([readSimulated(now.current.kit, now.current.target), wait(ON_THE_WAY)])
      .then(([value]) => {
        if (!gone && value !== null && typeof value !== 'boolean') simulated.touch({ mode, value });
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [simulated, id, mode]);
  useEffect(() => {
    if (!session || mode === null) return;
    let gone = false;
    let held = EMPTY_HOLD;
    let silent = 0;
    const once = async () => {
      const polled = await session.poll(mode);
      if (gone) return;
      silent = polled.state === 'silent' ? silent + 1 : 0;
      if (silent >= PATIENCE) {
        disconnect('The meter no longer answers. Check its cable, then connect it again.');
        return;
      }
      if (polled.state !== 'reading') {
        held = EMPTY_HOLD;
        useLink.setState({ said: polled, steady: 0 });
        return;
      }
      const step = stepOf(now.current.kit, mode, polled.value);
      const answer = hear(held, performance.now(), polled.value, mode, step);
      held = answer.hold;
      useLink.setState({ said: polled, steady: answer.steady });
      if (answer.take === null || !now.current.hold) return;
      now.current.setText(asTyped(answer.take, step));
      now.current.take();
    };
    const poll = async () => {
      while (!gone) {
        await once();
        await wait(PAUSE);
      }
    };
    void poll().catch((e: unknown) => {
      if (!gone) disconnect(`The line to the meter broke: ${(e as Error).message}`);
    });
    return () => {
      gone = true;
    };
  }, [session, id, mode]);
  if (mode === null) return <p className={styles.live}>{name}: waiting for a measurement.</p>;
  return (
    <p className={styles.live} role="group" aria-label="Connected meter">
      <Progress type="circle" size={18} percent={Math.round(100 * steady)} showInfo={false} aria-label="Held still" />
      <span className="num">{saidText(said, mode)}</span>
      {said?.state === 'reading' && (
        <Button
          size="small"
          type="text"
          onClick={() => {
            setText(said.value === 'over' ? 'OL' : asTyped(said.value, stepOf(kit, mode, said.value)));
            take();
          }}
        >
          take it now
        </Button>
      )}
    </p>
  );
}

/** One count of the display at a reading. */
const stepOf = (kit: KitState, mode: MeterMode, value: Shown): number => (value === 'over' ? 1 : (rangeFor(meterOf(kit), mode, value)?.resolution ?? 1e-3));

/** As the display would show it: to whole steps. */
const asTyped = (value: number, step: number): string => String(Number((Math.round(value / step) * step).toPrecision(6)));

function saidText(said: Polled | null, mode: MeterMode): string {
  switch (said?.state) {
    case undefined:
      return 'Waiting for the meter…';
    case 'reading':
      return said.value === 'over' ? 'over-range' : print(said.value, unitOf(mode));
    case 'other-mode':
      return `Set the meter to ${MODES[mode].words}${said.mode === null ? '' : `: it reads ${MODES[said.mode].words}`}.`;
    case 'cannot':
      return `This meter cannot be set to ${MODES[mode].words}: type the reading.`;
    case 'garbled':
      return 'An answer was garbled and left out.';
    case 'silent':
      return 'The meter does not answer…';
  }
}
