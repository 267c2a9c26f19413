import dynamic from 'next/dynamic';
import { useState } from 'react';
import { type Circuit, GROUND, netsOf } from '@/core/circuit';
import { parseQuantity, print } from '@/core/quantity';
import { askFree, Cancelled, type Course, stopAsking } from '@/store/results';
import { TextField } from '../Field';

const Chart = dynamic(() => import('../Chart').then((m) => m.Chart), { ssr: false });

/** The course of one net: a flasher that flashes, a reservoir that ripples. */
export function InTime({ deck, circuit }: { deck: string; circuit: Circuit }) {
  const nets = netsOf(circuit).filter((n) => n !== GROUND && !n.includes('.'));
  const [net, setNet] = useState(nets[0] ?? '');
  const [span, setSpan] = useState('100ms');
  const [course, setCourse] = useState<Course | null>(null);
  const [progress, setProgress] = useState<number | null>(null);
  const [message, setMessage] = useState('');
  const run = () => {
    const seconds = parseQuantity(span, 's');
    if (!seconds.ok || seconds.value <= 0) {
      setMessage('Write a time such as 100ms or 5 s.');
      return;
    }
    setMessage('');
    setProgress(0);
    askFree('course', { deck, net, seconds: seconds.value }, setProgress)
      .then(setCourse, (e: unknown) => {
        if (!(e instanceof Cancelled)) setMessage((e as Error).message);
      })
      .finally(() => {
        setProgress(null);
      });
  };
  const s = course?.statistics;
  return (
    <>
      <form
        className="inline-form"
        onSubmit={(e) => {
          e.preventDefault();
          run();
        }}
      >
        <span className="field" style={{ width: 130 }}>
          <label htmlFor="time-net">Net</label>
          <select
            id="time-net"
            value={net}
            onChange={(e) => {
              setNet(e.target.value);
            }}
          >
            {nets.map((n) => (
              <option key={n}>{n}</option>
            ))}
          </select>
        </span>
        <TextField label="For" value={span} change={setSpan} width={110} />
        {progress === null ? (
          <button type="submit" className="plain">
            Run it
          </button>
        ) : (
          <button
            type="button"
            className="plain"
            onClick={() => {
              stopAsking('course');
            }}
          >
            Stop ({Math.round(100 * progress)} %)
          </button>
        )}
        <p className="field-error" role="status" style={{ flexBasis: '100%' }}>
          {message}
        </p>
      </form>
      {course && (
        <>
          <Chart x={course.times} y={course.volts} xTitle="seconds" yTitle="volts" label={`Net ${net} over time`} />
          {s && (
            <p>
              A DC meter shows <b>{print(s.average, 'V', 3)}</b>, between {print(s.min, 'V', 3)} and {print(s.max, 'V', 3)}.{' '}
              {s.frequency === null
                ? 'It does not run, or too slowly for this time.'
                : `It runs at ${print(s.frequency, 'Hz', 3)}, high for ${Math.round(100 * (s.duty ?? 0))} % of the time.`}
            </p>
          )}
        </>
      )}
    </>
  );
}
