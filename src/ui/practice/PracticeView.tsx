'use client';
import { Alert, App, Button, Form, Input } from 'antd';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useState } from 'react';
import { put, type KitState } from '@/core/kit';
import { useBench } from '@/store/bench';
import { ask, Cancelled, stopAsking } from '@/store/results';
import { type Difficulty, practiceCopy, type Trouble } from '@/store/shelf';
import { Nothing } from '../drawn/Nothing';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { Working } from '../form/Working';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';
import styles from './Practice.module.css';

const PracticeReview = lazy(() => import('./PracticeReview').then((m) => ({ default: m.PracticeReview })));

const TROUBLE: Readonly<Record<Trouble, string>> = {
  any: 'anything',
  fault: 'one fault on the board',
  'two-faults': 'two faults at once',
  misfitted: 'a part in the wrong place or the wrong way round',
  parcel: 'wrong pieces in the parcel',
  leads: 'a fault, and bad test leads',
};
const DIFFICULTY: Readonly<Record<Difficulty, string>> = { easy: 'shows plainly', fair: 'anything usual', hard: 'hard to tell' };
const SEEDS = 1e9;

/** Practice: a copy of this kit whose bag, board and meter are simulated, with a trouble that nobody knows. */
export function PracticeView({ kit }: { kit: KitState }) {
  const practising = kit.settings.standIn !== null;
  return (
    <div className={`${zones.zones} ${practising ? zones.halves : zones.one}`}>
      <section className={`${zones.card} ${zones.why}`} aria-label="Practice">
        <h2 className={zones.label}>{practising ? 'Another round' : 'Practise before it matters'}</h2>
        {kit.sheet.circuit === null || kit.sheet.lines.length === 0 ? (
          <Nothing say="To simulate a board the program needs a parts list and a circuit. Give the kit both, then come back." />
        ) : (
          <NewRound kit={kit} />
        )}
      </section>
      {practising && <Round kit={kit} />}
    </div>
  );
}

interface Choice {
  readonly trouble: Trouble;
  readonly difficulty: Difficulty;
  readonly seed?: string;
}

function NewRound({ kit }: { kit: KitState }) {
  const router = useRouter();
  const { message } = App.useApp();
  const [busy, setBusy] = useState(false);
  const start = ({ trouble, difficulty, seed = '' }: Choice) => {
    setBusy(true);
    const onBoard = trouble !== 'any' && trouble !== 'parcel';
    const chosen = seed.trim() === '' ? crypto.getRandomValues(new Uint32Array(1))[0]! % SEEDS : Number(seed);
    ask('hideTrouble', kit, { trouble, difficulty, seed: chosen })
      .then((standIn) => practiceCopy(kit, standIn, onBoard))
      .then(
        (id) => {
          router.push(`/bench/?kit=${encodeURIComponent(id)}${onBoard ? '#power' : ''}`);
        },
        (e: unknown) => {
          if (!(e instanceof Cancelled)) void message.error((e as Error).message, 8);
        },
      )
      .finally(() => {
        setBusy(false);
      });
  };
  return (
    <>
      <p>
        A copy of this kit goes onto the shelf: its sheet, nothing of its log. A simulated bag and a simulated board take the place of yours, each part
        somewhere within its tolerance, and something is hidden in them. A round with a fault on the board starts at Power up. The real kit stays as it is.
      </p>
      <InlineForm<Choice>
        name="practice"
        submit={busy ? 'Hiding something…' : 'Begin'}
        disabled={busy}
        initial={{ trouble: 'fault', difficulty: 'fair' }}
        done={start}
      >
        <Form.Item name="trouble" label="What is hidden" className={styles.wide ?? ''}>
          <Choose<Trouble> options={(Object.keys(TROUBLE) as Trouble[]).map((value) => ({ value, label: TROUBLE[value] }))} />
        </Form.Item>
        <Form.Item name="difficulty" label="How it shows" className={styles.wide ?? ''}>
          <Choose<Difficulty> options={(Object.keys(DIFFICULTY) as Difficulty[]).map((value) => ({ value, label: DIFFICULTY[value] }))} />
        </Form.Item>
        <Form.Item
          name="seed"
          label="Number of the round, to share or repeat it"
          className={styles.wide ?? ''}
          rules={[{ pattern: /^\s*\d{0,9}\s*$/, message: 'A whole number of up to nine digits, or nothing.' }]}
        >
          <Input inputMode="numeric" placeholder="any" autoComplete="off" />
        </Form.Item>
      </InlineForm>
      {busy && (
        <Working
          say="Looking for something that shows…"
          stop={() => {
            stopAsking('hideTrouble');
          }}
        />
      )}
    </>
  );
}

/** The round that is on: how it stands, and what it was when it is over. */
function Round({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const standing = useResult('practiceStanding', kit, undefined);
  const { standIn } = kit.settings;
  if (!standIn) return null;
  const review = standing.value?.review ?? null;
  return (
    <section className={`${zones.card} ${zones.why}`} aria-label="This round">
      <h2 className={zones.label}>This round, number {standIn.seed}</h2>
      {review ? (
        <Suspense>
          <PracticeReview kit={kit} review={review} mended={standing.value?.mended ?? false} />
        </Suspense>
      ) : (
        <>
          <Alert
            type="info"
            title="The meter and the board are simulated: M reads from the meter, and nothing here touches a real board. Once the hidden fault is repaired, the round ends and its score appears here."
          />
          <p className={zones.section}>
            {standIn.over || standing.value?.mended ? 'Adding up…' : 'Or give up, and see what it was and how it could have been found.'}
          </p>
          {!standIn.over && (
            <Button
              onClick={() => {
                void append((k) => put(k, 'settings', { name: 'standIn', value: { ...standIn, over: true } }));
              }}
            >
              Show me what it is
            </Button>
          )}
        </>
      )}
    </section>
  );
}
