import { Button, Form, Progress } from 'antd';
import dynamic from 'next/dynamic';
import { type Circuit, GROUND, netsOf } from '@/core/circuit';
import { parseQuantity, print } from '@/core/quantity';
import type { Course } from '@/store/results';
import { InlineForm } from '../form/InlineForm';
import { QuantityItem } from '../form/Items';
import { required } from '../form/rules';
import { useCourse } from '../results/useCourse';
import styles from './Circuit.module.css';
import { Choose } from '../form/Choose';

const Chart = dynamic(() => import('../drawn/Chart').then((m) => m.Chart), { ssr: false });

interface Values {
  readonly net: string;
  readonly span: string;
}

/** The course of one net: a flasher that flashes, a reservoir that ripples. */
export function InTime({ deck, circuit }: { deck: string; circuit: Circuit }) {
  const nets = netsOf(circuit).filter((n) => n !== GROUND && !n.includes('.'));
  const { found, progress, message, run, stop } = useCourse(deck);
  return (
    <>
      <InlineForm<Values>
        name="in-time"
        submit="Run it"
        disabled={progress !== null}
        initial={{ net: nets[0] ?? '', span: '100ms' }}
        done={({ net, span }) => {
          const seconds = parseQuantity(span, 's');
          if (seconds.ok) run(net, seconds.value);
        }}
        said={<span className="v-out">{message}</span>}
      >
        <Form.Item name="net" label="Net" className={styles.pick ?? ''}>
          <Choose options={nets.map((value) => ({ value }))} />
        </Form.Item>
        <QuantityItem name="span" label="For" unit="s" wide="m" rules={[required('Write a time such as 100ms or 5 s.')]} />
      </InlineForm>
      {progress !== null && (
        <>
          <Progress percent={Math.round(100 * progress)} size="small" aria-label="Running the circuit" />
          <Button size="small" onClick={stop}>
            Stop
          </Button>
        </>
      )}
      {found && <Shown net={found.net} course={found.course} />}
    </>
  );
}

function Shown({ net, course }: { net: string; course: Course }) {
  const s = course.statistics;
  return (
    <>
      <Chart x={course.times} y={course.volts} xTitle="seconds" yTitle="volts" label={`Net ${net} over time`} />
      <p>
        A DC meter shows <b>{print(s.average, 'V', 3)}</b>, between {print(s.min, 'V', 3)} and {print(s.max, 'V', 3)}.{' '}
        {s.frequency === null
          ? 'It does not oscillate, or too slowly for this time.'
          : `It oscillates at ${print(s.frequency, 'Hz', 3)}, high for ${Math.round(100 * (s.duty ?? 0))} % of the time.`}
      </p>
    </>
  );
}
