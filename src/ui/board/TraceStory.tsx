import { Alert, Button } from 'antd';
import { useEffect, useMemo } from 'react';
import { padMoved } from '@/core/draft';
import type { KitState } from '@/core/kit';
import { traceTargets } from '@/core/loop';
import { type Difference, type KitTrace, SIDE_BY_SIDE, traceOf, traceStep } from '@/core/trace';
import { useBench } from '@/store/bench';
import { Nothing } from '../drawn/Nothing';
import type { Loop } from '../probe/useLoop';
import zones from '../shell/zones.module.css';
import { WhichWay } from './WhichWay';
import styles from './Plan.module.css';

/** Where a pad really leads: what was answered, what is left to ask, what differs from the drawing. */
export function TraceStory({ kit, loop }: { kit: KitState; loop: Loop }) {
  const trace = useMemo(() => traceOf(kit), [kit]);
  const { offer } = loop;
  useEffect(() => {
    offer(trace ? traceTargets(trace, 'locate') : []);
  }, [trace, offer]);
  return (
    <>
      {trace ? (
        <Traced trace={trace} />
      ) : (
        <Nothing say="Tracing needs to know which pads should be connected. Give the kit a circuit (Circuit view), or read a bare-board netlist with “Places from a file”." />
      )}
      <WhichWay kit={kit} />
    </>
  );
}

function Traced({ trace }: { trace: KitTrace }) {
  const step = useMemo(() => traceStep(trace.board, trace.answers, 'locate'), [trace]);
  const name = (pad: number) => trace.board.pads[pad]!.id;
  return (
    <>
      <h2 className={zones.label}>Tracing with a tester</h2>
      <p>
        Power off and unplugged. Touch the two pads that are named below: <b>Enter</b> when it beeps, <b>N</b> when it stays silent. Only what still tells is
        asked.
      </p>
      <p className="soft">
        {trace.answers.length} answered
        {step.kind === 'ask' ? `; ${step.left} ${step.left === 1 ? 'question' : 'questions'} left if all is as drawn.` : '.'}{' '}
        {trace.sides === 'places' ? `Pads count as side by side within ${SIDE_BY_SIDE} mm.` : 'Each pair of neighbouring nets is tested once.'}
      </p>
      {trace.sides === 'nets' && (
        <p className={zones.note}>
          The circuit says which nets are connected, but not which of two equal leads is on which pad. Where a part fits both ways, try its other lead before
          you answer silent; leave switches open. A bare-board netlist (“Places from a file”) names every pad.
        </p>
      )}
      {step.kind === 'conflict' && <Contradiction trace={trace} answers={step.answers} />}
      {step.kind === 'done' &&
        (step.asDrawn ? (
          <Alert type="success" title="The board matches the drawing: every net is complete, and no two nets are bridged." />
        ) : (
          <>
            <ul className={zones.remarks} aria-label="What differs">
              {step.differences.map((d) => (
                <li key={JSON.stringify(d)} className={zones.error ?? ''}>
                  {words(d, name)}
                  {d.kind === 'moved' && <BoardIsRight pad={name(d.pad)} to={d.to} />}
                </li>
              ))}
            </ul>
            <Mended differences={step.differences} name={name} />
          </>
        ))}
      <ul className={styles.given} aria-label="Answers">
        {trace.answers
          .map(({ pads: [a, b], beep }, i) => ({ text: `${name(a)} – ${name(b)}`, beep, id: trace.entries[i]! }))
          .reverse()
          .map((a) => (
            <li key={a.id}>
              <span className={styles.words}>{a.text}</span> <span className="soft">{a.beep ? 'beeps' : 'silent'}</span>
            </li>
          ))}
      </ul>
    </>
  );
}

/** Answers that cannot all be true: the last of them is the cheapest to ask again. */
function Contradiction({ trace, answers }: { trace: KitTrace; answers: readonly number[] }) {
  const append = useBench((s) => s.append);
  const name = (i: number) => {
    const { pads, beep } = trace.answers[i]!;
    return `${pads.map((p) => trace.board.pads[p]!.id).join(' – ')} (${beep ? 'beeps' : 'silent'})`;
  };
  const again = answers.at(-1)!;
  return (
    <Alert
      type="warning"
      title="These answers contradict each other"
      description={
        <>
          <ul className={styles.given}>
            {answers.map((i) => (
              <li key={i}>{name(i)}</li>
            ))}
          </ul>
          <Button
            onClick={() => {
              void append({ kind: 'withdrawn', entry: trace.entries[again]! });
            }}
          >
            Ask {name(again).replace(/ \(.*/, '')} again
          </Button>
        </>
      }
    />
  );
}

function words(d: Difference, name: (pad: number) => string): string {
  switch (d.kind) {
    case 'open': {
      const [most, ...rest] = [...d.parts].sort((a, b) => b.length - a.length);
      return `Net ${d.net} is broken: ${rest.map((p) => p.map(name).join(', ')).join('; and ')} ${rest.flat().length === 1 ? 'has' : 'have'} no connection to ${most!.slice(0, 3).map(name).join(', ')}. Look for a cut track, a bad via or a bad joint. Repair it with a wire.`;
    }
    case 'bridge':
      return `${d.pads.map(name).join(' and ')} are connected and should not be: look for a solder bridge there and remove it.`;
    case 'moved':
      return `${name(d.pad)} is on ${d.to}, not on ${d.from} as drawn. Board and drawing disagree: the data sheet or a calculation decides which is right. If the board is right, correct the circuit.`;
    case 'missing':
      return `The wire link ${d.ref} is missing.`;
  }
}

/** The sheet is corrected to what the board says: list of pads and circuit at once, with its history in the logbook. */
function BoardIsRight({ pad, to }: { pad: string; to: string }) {
  const append = useBench((s) => s.append);
  const cut = pad.lastIndexOf('.');
  return (
    <Button
      size="small"
      aria-label={`The board is right: ${pad} goes to ${to}`}
      onClick={() => {
        void append((k) => padMoved(k, { ref: pad.slice(0, cut), pin: pad.slice(cut + 1), to }));
      }}
    >
      The board is right
    </Button>
  );
}

/** What was mended is asked again; what was as drawn still holds. */
function Mended({ differences, name }: { differences: readonly Difference[]; name: (pad: number) => string }) {
  const append = useBench((s) => s.append);
  const mended = differences.filter((d) => d.kind !== 'moved');
  if (mended.length === 0) return null;
  return (
    <Button
      onClick={() => {
        void append({ kind: 'repaired', refs: [], note: mended.map((d) => words(d, name).replace(/[.:] .*/, '')).join('; ') });
      }}
    >
      Repaired: trace again
    </Button>
  );
}
