'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ChangeEvent, useEffect, useRef, useState } from 'react';
import { listKits, loadKit, putBack, rawKit, type ShelfItem, takeOff } from '@/store/storage';
import { type FilePreview, openDemo, previewFile, shelfDemos, takeIn } from '@/store/shelf';
import { type Line } from '@/core/kit';
import { saveFile } from './files';
import { FileDialog } from './FileDialog';
import { PartBody } from './PartBody';
import { toggleTheme } from './Theme';
import { VerdictMark } from './VerdictMark';
import { WindowGauge } from './WindowGauge';

const SAMPLE: Line = { id: 's', kind: 'resistor', label: '4.7 k', value: 4700, tolerance: [-0.05, 0.05], quantity: 3, refs: ['R3'] };

/** What the bench does, in its own drawings. */
function Story() {
  return (
    <div className="story" aria-label="What it does">
      <div>
        <div className="strip" style={{ gridTemplateColumns: 'auto 1fr', alignItems: 'center' }}>
          <PartBody line={SAMPLE} />
          <span className="verdict-line v-out" style={{ fontSize: 16 }}>
            <VerdictMark verdict="out" size={20} /> reads 46.8 k
          </span>
        </div>
        <p>
          <b>Unpack and check.</b> Count each line, measure the pieces. Every reading is judged with the meter’s own error in mind.
        </p>
      </div>
      <div>
        <div className="strip">
          <WindowGauge
            low={2.38}
            high={3.1}
            middle={2.74}
            reading={3.66}
            uncertainty={0.03}
            verdict="out"
            text="A reading of 3.66 V outside a window of 2.38 to 3.10 V"
          />
        </div>
        <p>
          <b>Power up in stages.</b> The circuit says what each point should show, as fitted so far and with the values that you measured.
        </p>
      </div>
      <div>
        <div className="strip">
          <div className="suspect first">
            <b>R9 is not connected</b>
            <b className="num">71 %</b>
            <span className="bar">
              <i style={{ width: '71%' }} />
            </span>
          </div>
        </div>
        <p>
          <b>Find the fault.</b> All single faults that the board can have, ranked by everything you read, and the next reading that tells most.
        </p>
      </div>
    </div>
  );
}

/** The first screen: kits on the shelf, a demo, a new kit, a file. */
export function Shelf() {
  const router = useRouter();
  const [items, setItems] = useState<ShelfItem[] | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const [removed, setRemoved] = useState<ShelfItem | null>(null);
  const [preview, setPreview] = useState<FilePreview | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const refresh = () => {
    listKits().then(setItems, () => {
      setItems([]);
      setMessage(
        'This browser refuses to store anything, so kits cannot be kept here. Leave private browsing, or export every kit to a file before you close the tab.',
      );
    });
  };
  useEffect(refresh, []);

  const fail = (error: unknown) => {
    setMessage((error as Error).message);
  };
  const enter = (id: string) => {
    router.push(`/bench/?kit=${encodeURIComponent(id)}`);
  };
  const pick = async (e: ChangeEvent<HTMLInputElement>) => {
    const chosen = e.target.files?.[0];
    e.target.value = '';
    if (!chosen) return;
    const found = await previewFile(chosen);
    if (found.kind === 'new') enter(await takeIn(found.doc));
    else if (found.kind === 'same') enter(found.id);
    else if (found.kind === 'newer' || (found.kind === 'refused' && found.rest === null)) setMessage(found.message);
    else setPreview(found);
  };
  const remove = async (item: ShelfItem) => {
    await takeOff(item);
    setRemoved(item);
    refresh();
  };
  const putItBack = async () => {
    if (!removed) return;
    await putBack(removed);
    setRemoved(null);
    refresh();
  };

  return (
    <main className="page">
      <div className="row" style={{ justifyContent: 'space-between' }}>
        <h1>Zesty Bench</h1>
        <button type="button" className="chip" onClick={toggleTheme}>
          Dim
        </button>
      </div>
      <p style={{ fontSize: 17, margin: '6px 0 18px', maxWidth: 640 }}>
        From a bag of loose parts to a working board, or to the one part that is wrong. It knows what every part and test point should measure and answers each
        reading with a verdict and the next step.
      </p>
      {message !== null && (
        <div className="alarm" role="alert" style={{ borderRadius: 9, marginBottom: 14 }}>
          <span>{message}</span>
          <button
            type="button"
            className="plain"
            onClick={() => {
              setMessage(null);
            }}
          >
            Understood
          </button>
        </div>
      )}
      {removed && (
        <div className="note-box row" role="status" style={{ marginBottom: 14 }}>
          “{removed.title}” is off the shelf.
          <button
            type="button"
            className="plain"
            onClick={() => {
              putItBack().catch(fail);
            }}
          >
            Put it back
          </button>
        </div>
      )}
      <div className="row" style={{ marginBottom: 22 }}>
        {shelfDemos.map((d) => (
          <button
            key={d.slug}
            type="button"
            className="zest"
            onClick={() => {
              openDemo(d.slug).then(enter, fail);
            }}
          >
            Try the demo: {d.title}
          </button>
        ))}
        <Link className="plain" href="/new/">
          New kit from a list and a deck
        </Link>
        <button
          type="button"
          className="plain"
          onClick={() => {
            file.current?.click();
          }}
        >
          Open a kit file
        </button>
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          className="sr-only"
          aria-label="Kit file"
          tabIndex={-1}
          onChange={(e) => {
            pick(e).catch(fail);
          }}
        />
      </div>
      <FileDialog
        preview={preview}
        close={() => {
          setPreview(null);
        }}
        take={(doc) => {
          takeIn(doc).then(enter, fail);
        }}
      />
      <Story />
      <h2 className="label">On the shelf</h2>
      {items === null && <p className="soft">Looking…</p>}
      {items?.length === 0 && <p>The shelf is empty. Start with the demo: a simulated meter measures a board with a hidden fault, so you need no hardware.</p>}
      <div className="shelf">
        {items?.map((item) => (
          <article key={item.id} className="box">
            <h3>{item.title}</h3>
            <p className="soft">{item.maker || 'own kit'}</p>
            <p className="soft">{item.damaged ?? `${item.entries} entries, last ${item.lastAt.slice(0, 10)}`}</p>
            <div className="row">
              {item.damaged === null ? (
                <Link className="plain" href={`/bench/?kit=${encodeURIComponent(item.id)}`}>
                  Open
                </Link>
              ) : (
                <button
                  type="button"
                  className="plain"
                  onClick={() => {
                    rawKit(item.id).then((raw) => {
                      saveFile('damaged-kit.json', JSON.stringify(raw, null, 1));
                    }, fail);
                  }}
                >
                  Save what is there
                </button>
              )}
              {item.damaged === null && (
                <button
                  type="button"
                  className="plain"
                  onClick={() => {
                    loadKit(item.id).then((k) => {
                      if (k?.ok) saveFile(`${item.title}.zesty.json`, JSON.stringify(k.kit, null, 1));
                    }, fail);
                  }}
                >
                  Export
                </button>
              )}
              <button
                type="button"
                className="plain"
                onClick={() => {
                  remove(item).catch(fail);
                }}
                aria-label={`Take ${item.title} off the shelf`}
              >
                Take off
              </button>
            </div>
          </article>
        ))}
      </div>
    </main>
  );
}
