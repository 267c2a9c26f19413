import { Form, Progress } from 'antd';
import { useMemo } from 'react';
import { adviceFor, assessGenuine, examinedOf, type Origin, ORIGINS, SIGNS } from '@/core/genuine';
import type { KitState, Line } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { VerdictMark } from '../drawn/VerdictMark';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { required } from '../form/rules';
import { PhotoOf } from '../form/PhotoOf';
import { YesNo } from '../form/YesNo';
import zones from '../shell/zones.module.css';
import styles from './Genuine.module.css';

/** Is a doubtful part genuine: signs to look for, figures against the data sheet, what it amounts to, and where it may go in. */
export function Genuine({ kit, line }: { kit: KitState; line: Line }) {
  const append = useBench((s) => s.append);
  const examined = useMemo(() => examinedOf(kit, line), [kit, line]);
  const { fake, evidence } = useMemo(() => assessGenuine(examined), [examined]);
  const write = (sign: string, title: string, seen: boolean) => {
    void append({ kind: 'examined', line: line.id, sign, title, seen });
  };
  return (
    <>
      <section aria-label="Result">
        <p className={styles.result}>
          Probability of a copy or re-marked part: <b className="num">{said(fake)}</b>
        </p>
        <Progress percent={100 * fake} showInfo={false} size="small" aria-hidden="true" />
        <ul className={zones.plainList}>
          {adviceFor(fake).map((a) => (
            <li key={a.use}>
              <VerdictMark verdict={a.fit ? 'in' : 'out'} size={14} /> in {a.use}: {a.fit ? 'it may go in' : 'take another'}
            </li>
          ))}
        </ul>
        {evidence.length > 0 && (
          <ul className={zones.plainList} aria-label="Evidence">
            {evidence.map((e) => (
              <li key={e.title}>
                <b>{e.title}</b>
                {e.source === 'rule of thumb' && (e.seen ? ': yes' : ': no')}, {timesText(e.ratio)} <small className="soft">({e.source})</small>
              </li>
            ))}
          </ul>
        )}
        <p className={zones.row}>
          <span className="soft">One sign is a doubt; several of different kinds are a case.</span> <PhotoOf about={`${lineTitle(line)}: is it genuine?`} />
        </p>
      </section>
      <Form layout="vertical" component="div" className={zones.section ?? ''}>
        <Form.Item label="Where was it bought?" htmlFor="origin">
          <Choose<Origin>
            id="origin"
            value={examined.origin}
            options={(Object.keys(ORIGINS) as Origin[]).map((value) => ({ value, label: ORIGINS[value].title }))}
            onChange={(origin) => {
              write(`origin/${origin}`, `bought from ${ORIGINS[origin].title}`, true);
            }}
          />
        </Form.Item>
      </Form>
      <h2 className={zones.label}>Look</h2>
      {SIGNS.map((s) => (
        <div key={s.id} className={styles.sign}>
          <span>
            {s.title} <small className="soft">{s.how}</small>
          </span>
          <YesNo
            label={s.title}
            value={examined.signs.get(s.id) ?? null}
            answer={(seen) => {
              write(s.id, s.title, seen);
            }}
          />
        </div>
      ))}
      <FigureForm line={line} />
    </>
  );
}

const said = (p: number) => (p < 0.01 ? '< 1 %' : p > 0.99 ? '> 99 %' : `${Math.round(100 * p)} %`);
const timesText = (ratio: number) => `${(ratio >= 1 ? ratio : 1 / ratio).toPrecision(2)} times ${ratio >= 1 ? 'more' : 'less'} likely a copy`;

interface FigureValues {
  readonly name: string;
  readonly reading: string;
  readonly low?: string;
  readonly high?: string;
  readonly standard?: string;
}

const NUMBER = { pattern: /^\s*[-+]?\d+(?:[.,]\d+)?(?:e[-+]?\d+)?\s*$/i, message: 'A plain number, in the unit of the data sheet.' };
const numberOf = (text: string | undefined) => ((text ?? '').trim() === '' ? null : Number(text!.replace(',', '.')));

/** A figure that was read, with the limits of the data sheet. */
function FigureForm({ line }: { line: Line }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<FigureValues>();
  return (
    <>
      <h2 className={`${zones.label} ${zones.section}`}>Measure: a figure against the data sheet</h2>
      <InlineForm<FigureValues>
        name="figure-of-part"
        form={form}
        submit="Hold it against"
        done={({ name, reading, low, high, standard }) => {
          const figure = { reading: numberOf(reading)!, low: numberOf(low), high: numberOf(high), standard: Math.abs(numberOf(standard) ?? 0) };
          void append({
            kind: 'examined',
            line: line.id,
            sign: `figure/${newId().slice(0, 8)}`,
            title: `${name.trim()} reads ${reading.trim()}, data sheet ${low?.trim() || '…'} to ${high?.trim() || '…'}`,
            seen: true,
            figure,
          });
          form.resetFields();
        }}
      >
        <TextItem name="name" label="What" hint="reference, V" rules={[required('Which figure of the data sheet?')]} />
        <TextItem name="reading" label="It reads" wide="s" rules={[required('What was read?'), NUMBER]} />
        <TextItem name="low" label="at least" wide="s" rules={[NUMBER]} />
        <TextItem
          name="high"
          label="at most"
          wide="s"
          rules={[
            NUMBER,
            ({ getFieldValue }) => ({
              validator: (_, text: string | undefined) => {
                const [low, high] = [numberOf(getFieldValue('low') as string | undefined), numberOf(text)];
                if (low === null && high === null) return Promise.reject(new Error('One limit at least.'));
                return low !== null && high !== null && high < low ? Promise.reject(new Error('Less than the lower limit.')) : Promise.resolve();
              },
            }),
          ]}
        />
        <TextItem name="standard" label="± error" wide="s" rules={[NUMBER]} />
      </InlineForm>
    </>
  );
}
