import { Alert, Button, Form, Input, Select, Switch } from 'antd';
import { useState } from 'react';
import { learnLines, type LineFormat, type Protocol } from '@/core/instrument';
import type { KitState } from '@/core/kit';
import { MODES, type MeterMode } from '@/core/vocabulary';
import { InlineForm } from '../form/InlineForm';
import zones from '../shell/zones.module.css';
import styles from './Live.module.css';
import { useLink } from '@/store/instrument';
import { connectLine, connectSimulated, disconnect } from '@/store/lines';
import { hasSerial, openSerial, SPEEDS } from './serial';

/** A meter whose readings come over a line: simulated, or at a serial port. */
export function Connect({ kit }: { kit: KitState }) {
  const { session, name, hold, lost, format } = useLink();
  const [protocol, setProtocol] = useState<Protocol['kind']>('scpi');
  const [speed, setSpeed] = useState(9600);
  const [failed, setFailed] = useState('');
  const told = (what: Promise<string | null>) => {
    what
      .then((wrong) => {
        setFailed(wrong ?? '');
      })
      .catch((e: unknown) => {
        setFailed(`No port was opened: ${(e as Error).message}`);
      });
  };
  const plug = () => {
    told(openSerial(speed).then((line) => connectLine(line, protocol === 'lines' && format ? { kind: 'lines', format } : { kind: 'scpi' })));
  };
  return (
    <section aria-label="Connected meter">
      <h2 className={`${zones.label} ${zones.section}`}>Connected meter</h2>
      {lost !== '' && <Alert type="warning" role="status" title={lost} />}
      {failed !== '' && <Alert type="error" title={failed} />}
      {session ? (
        <>
          <p>
            <b>{name}</b> is connected. Its readings appear at the entry field.{' '}
            <Button
              size="small"
              onClick={() => {
                disconnect();
              }}
            >
              Disconnect it
            </Button>
          </p>
        </>
      ) : (
        <>
          <p className="soft">
            Readings then come from the meter itself: nobody types them. The meter is set to each target’s mode, or you are told to set it. A reading of another
            mode is never taken.
          </p>
          <div className={zones.row}>
            {kit.settings.standIn !== null && (
              <Button
                onClick={() => {
                  told(connectSimulated());
                }}
              >
                Connect the simulated meter
              </Button>
            )}
            {hasSerial() ? (
              <>
                <Select<Protocol['kind']>
                  aria-label="How the meter talks"
                  value={protocol}
                  onChange={setProtocol}
                  options={[
                    { value: 'scpi', label: 'answers SCPI commands' },
                    { value: 'lines', label: 'sends lines by itself' },
                  ]}
                  popupMatchSelectWidth={false}
                />
                <Select<number> aria-label="Speed, baud" value={speed} onChange={setSpeed} options={SPEEDS.map((s) => ({ value: s, label: `${s} baud` }))} />
                <Button onClick={plug} disabled={protocol === 'lines' && format === null}>
                  Connect at a serial port
                </Button>
              </>
            ) : (
              <p className="soft">
                This browser opens no serial ports. Use a desktop browser that does, over HTTPS or on this machine; readings can be typed meanwhile.
              </p>
            )}
          </div>
          {protocol === 'lines' && (
            <LearnLines
              format={format}
              learnt={(f) => {
                useLink.setState({ format: f });
              }}
            />
          )}
        </>
      )}
      <label className={styles.hold}>
        <Switch
          size="small"
          checked={hold}
          onChange={(on) => {
            useLink.setState({ hold: on });
          }}
          aria-label="Hold and take"
        />{' '}
        Hold and take: a reading that stays still for a second is entered, and the next target follows. 0 V and over-range are never taken this way.
      </label>
    </section>
  );
}

const MODE_OPTIONS = (['dcv', 'acv', 'ohms', 'diode', 'capacitance', 'frequency', 'dca', 'temp'] as const).map((value) => ({
  value,
  label: MODES[value].words,
}));

interface Examples {
  readonly mode: MeterMode;
  readonly line1?: string;
  readonly shows1?: string;
  readonly line2?: string;
  readonly shows2?: string;
  readonly line3?: string;
  readonly shows3?: string;
}

/** Three lines that the meter sent, and what its display showed: from these its lines are read. */
function LearnLines({ format, learnt }: { format: LineFormat | null; learnt: (format: LineFormat) => void }) {
  const [form] = Form.useForm<Examples>();
  const done = (v: Examples) => {
    const examples = ([1, 2, 3] as const).flatMap((i) => (v[`line${i}`]?.trim() ? [{ line: v[`line${i}`]!, shows: v[`shows${i}`] ?? '', at: i }] : []));
    const answer = learnLines(examples, v.mode);
    if (answer.ok) learnt(answer.format);
    else form.setFields([{ name: `line${examples[answer.line]!.at}`, errors: [`${answer.message}.`] }]);
  };
  return (
    <InlineForm<Examples>
      name="learn-lines"
      form={form}
      submit="Learn these lines"
      initial={{ mode: 'dcv' }}
      done={done}
      said={format ? 'Learnt. Now connect the meter.' : 'Paste three lines that your meter sends, and what its display showed with each.'}
    >
      <Form.Item name="mode" label="The meter was on">
        <Select options={[...MODE_OPTIONS]} popupMatchSelectWidth={false} />
      </Form.Item>
      {([1, 2, 3] as const).map((i) => (
        <span key={i} className={zones.row}>
          <Form.Item name={`line${i}`} label={`Line ${i}`} {...(i === 1 ? { rules: [{ required: true, message: 'Paste one line at least.' }] } : {})}>
            <Input placeholder="DC  4.982 V" maxLength={200} />
          </Form.Item>
          <Form.Item name={`shows${i}`} label="Display showed">
            <Input placeholder="4.98 V" maxLength={30} />
          </Form.Item>
        </span>
      ))}
    </InlineForm>
  );
}
