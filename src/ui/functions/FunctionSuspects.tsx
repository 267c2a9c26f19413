import { Button, Progress } from 'antd';
import type { EntryOf } from '@/core/kit';
import type { Functions, FunctionTry } from '@/core/logic';
import { percent } from '../fault/words';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import styles from './Functions.module.css';

interface Props {
  readonly functions: Functions | null;
  readonly tried: ReadonlyMap<string, EntryOf<'tried'>>;
  readonly stale: boolean;
  readonly choose: (check: string) => void;
}

/** From this belief on a suspect can be called found. */
const WORTH_REPAIRING = 0.2;

/** What explains everything that was seen, and the try that tells most. */
export function FunctionSuspects({ functions, tried, stale, choose }: Props) {
  const append = useBench((s) => s.append);
  if (!functions) return <p role="status">Working out what each fault would show…</p>;
  const { suspects, unexplained, next, doubts } = functions;
  return (
    <>
      <h2 className={zones.label}>{tried.size === 0 ? 'Before the first try' : `Suspects after ${tried.size === 1 ? '1 try' : `${tried.size} tries`}`}</h2>
      <Differs tried={tried} tries={functions.tries} />
      {tried.size === 0 ? (
        <p>Begin with “Switch on, touch nothing”. Every try tells something, the right ones too.</p>
      ) : (
        <ol className={`${styles.suspects ?? ''} ${stale ? (styles.older ?? '') : ''}`} aria-label="Suspects by probability">
          {suspects.map((s) => (
            <li key={s.text}>
              <b>{s.text}</b> <span className="num">{percent(s.probability)}</span>
              <Progress percent={Math.max(1, 100 * s.probability)} showInfo={false} size="small" aria-label={`${s.text}: ${percent(s.probability)}`} />
              {!s.healthy && s.parts.length > 0 && s.probability >= WORTH_REPAIRING && (
                <Button
                  size="small"
                  onClick={() => {
                    void append({ kind: 'repaired', refs: [...s.parts], note: s.text });
                  }}
                >
                  {s.alike.length === 0 ? 'Found and repaired' : 'All of these repaired'}
                </Button>
              )}
              {s.alike.length > 0 && (
                <small>
                  {s.healthy ? 'Or a fault that no try shows' : 'No try tells it from'}: {s.alike.slice(0, 4).join('; ')}
                  {s.alike.length > 4 ? `; and ${s.alike.length - 4} more` : ''}.
                </small>
              )}
            </li>
          ))}
        </ol>
      )}
      {tried.size > 0 && unexplained > 0.05 && (
        <p className={zones.note}>{percent(unexplained)}: none of these, or two faults at once. Look the board over with a lens before you replace anything.</p>
      )}
      {doubts.map((d) => (
        <p key={`${d.check} ${d.of}`} className={zones.note}>
          <b>{d.of}</b> at “{d.check}” does not fit the rest. Look again.{' '}
          <Button
            size="small"
            onClick={() => {
              choose(d.check);
            }}
          >
            Try it again
          </Button>
        </p>
      ))}
      {tried.size > 0 && next !== null && (
        <p>
          <b>Tells most now:</b> {next}.{' '}
          <Button
            size="small"
            onClick={() => {
              choose(next);
            }}
          >
            Try it
          </Button>
        </p>
      )}
      {tried.size > 0 && next === null && (suspects[0]?.alike.length ?? 0) > 0 && (
        <p>No further try tells these apart. Look at the joints with a lens, then measure each with the power off.</p>
      )}
    </>
  );
}

/** Tries told by name; of more the number. */
const MOST_TOLD = 4;

/** What was seen otherwise than on a healthy board, try by try. */
function Differs({ tried, tries }: { tried: Props['tried']; tries: readonly FunctionTry[] }) {
  const told = tries.flatMap(({ check, items }) => {
    const entry = tried.get(check);
    if (!entry || entry.asExpected) return [];
    const off = entry.saw.filter((s) => items.some((i) => i.of === s.of && i.expected !== s.saw));
    return [`${check}: ${off.map((s) => `${s.of} ${s.saw === '' ? 'blank' : s.saw}`).join(', ')}`];
  });
  if (told.length === 0) return null;
  return (
    <p className={zones.note}>
      <b>Not as expected.</b> {told.slice(0, MOST_TOLD).join('. ')}
      {told.length > MOST_TOLD ? `. And ${told.length - MOST_TOLD} more` : ''}.
    </p>
  );
}
