import { Alert, Button, Input, Progress } from 'antd';
import { useMemo, useState } from 'react';
import type { KitState } from '@/core/kit';
import type { Recorded } from '@/core/load';
import { print } from '@/core/quantity';
import { readRecordingFile } from '@/store/recordingFile';
import { askFree, Cancelled, stopAsking } from '@/store/results';
import { Choose } from '../form/Choose';
import { FileButton } from '../form/FileButton';
import zones from '../shell/zones.module.css';
import { Answered } from './Answered';
import { Compared } from './Compared';
import styles from './LoadDesk.module.css';
import { plain, type Said } from './sum';

/** A text that was read: of a file, or of the field. */
interface Source {
  readonly name: string;
  readonly csv: string;
}

interface Work {
  readonly source: Source;
  readonly channel: number;
}

/** A recording of an oscilloscope, a logger or a sound card: read in a worker, since it may hold a million rows. */
export function Waveform({ kit }: { kit: KitState }) {
  const [text, setText] = useState('');
  const [working, setWorking] = useState<number | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [found, setFound] = useState<(Work & { readonly recorded: Recorded }) | null>(null);
  const read = (work: Work) => {
    setError(null);
    setWorking(0);
    askFree('recorded', { csv: work.source.csv, channel: work.channel }, setWorking)
      .then(
        (recorded) => {
          setFound({ ...work, recorded });
        },
        (e: unknown) => {
          if (e instanceof Cancelled) return;
          setFound(null);
          setError((e as Error).message);
        },
      )
      .finally(() => {
        setWorking(null);
      });
  };
  const open = (file: File) => {
    setFound(null);
    readRecordingFile(file).then(
      (csv) => {
        read({ source: { name: file.name, csv }, channel: 0 });
      },
      (e: unknown) => {
        setError((e as Error).message);
      },
    );
  };
  return (
    <>
      <p className={zones.section}>
        A recording of an oscilloscope, a logger or a sound card: time and one or more channels, or one channel with “# sample rate: 48 kHz”. Any separator, up
        to millions of rows.
      </p>
      <div className={zones.row}>
        <FileButton size="middle" text="Open a recording" accept=".csv,.txt,.tsv,.dat,.asc" take={open} />
        <span className="soft">or paste its rows:</span>
      </div>
      <Input.TextArea
        aria-label="The file’s text"
        className={zones.section ?? ''}
        rows={5}
        placeholder={'time,volts\n0,0.1\n0.001,0.9'}
        spellCheck={false}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
        }}
      />
      <div className={`${zones.row} ${zones.section}`}>
        <Button
          type="primary"
          disabled={text.trim() === ''}
          onClick={() => {
            read({ source: { name: 'pasted rows', csv: text }, channel: 0 });
          }}
        >
          Calculate
        </Button>
        {working !== null && (
          <>
            <Progress percent={Math.round(100 * working)} size="small" steps={10} showInfo={false} aria-label="Reading the recording" />
            <Button
              size="small"
              onClick={() => {
                stopAsking('recorded');
              }}
            >
              Stop
            </Button>
          </>
        )}
      </div>
      {error !== null && <Alert type="error" title={error} className={styles.answer ?? ''} />}
      {found && (
        <>
          {found.recorded.channels.length > 1 && (
            <div className={`${zones.row} ${zones.section}`}>
              Channel
              <Choose<string>
                aria-label="Channel of the recording"
                className={styles.choice ?? ''}
                value={String(found.channel)}
                options={found.recorded.channels.map((label, i) => ({ value: String(i), label }))}
                onChange={(channel) => {
                  read({ source: found.source, channel: Number(channel) });
                }}
              />
            </div>
          )}
          <Told kit={kit} recorded={found.recorded} name={found.source.name} />
        </>
      )}
    </>
  );
}

function Told({ kit, recorded, name }: { kit: KitState; recorded: Recorded; name: string }) {
  const said = wordsOf(recorded, name);
  const { curve, unit } = recorded;
  const drawn = useMemo(
    () => ({
      x: Array.from(curve.t),
      y: Array.from(curve.v),
      xTitle: 'seconds',
      yTitle: unit === 'V' ? 'volts' : 'amperes',
      label: 'The recording',
    }),
    [curve, unit],
  );
  return (
    <Answered key={JSON.stringify(said)} title="Waveform" said={said} drawn={drawn}>
      {unit === 'V' && kit.sheet.circuit && <Compared kit={kit} recorded={recorded} />}
    </Answered>
  );
}

/** So small a part of the swing is a rounding error. */
const NOTHING = 1e-6;

function wordsOf({ figures: w, unit, samples, leftOut }: Recorded, name: string): Said[] {
  // Rounding errors beside the swing are nothing.
  const least = NOTHING * Math.max(Math.abs(w.min), Math.abs(w.max));
  const figure = (value: number) => print(Math.abs(value) < least ? 0 : value, unit, 3);
  return [
    plain(`${name}: ${samples.toLocaleString('en')} ${samples === 1 ? 'sample' : 'samples'}.`),
    ...(leftOut > 0
      ? [
          {
            text: `${leftOut} ${leftOut === 1 ? 'row was' : 'rows were'} left out: ${leftOut === 1 ? 'it holds' : 'they hold'} no number in this channel.`,
            tone: 'doubtful' as const,
          },
        ]
      : []),
    plain(
      w.frequency === null
        ? 'No period was found: it rests, it is noise, or there are fewer than three whole periods.'
        : `Frequency ${print(w.frequency, 'Hz', 4)}, duty ${(100 * w.duty!).toFixed(1)} %.`,
    ),
    plain(`Average ${figure(w.average)}, RMS ${figure(w.rms)}: a DC meter shows the first, a true-RMS one on DC + AC the second.`),
    plain(`From ${figure(w.min)} to ${figure(w.max)}, amplitude ${figure(w.amplitude)}.`),
  ];
}
