import { Alert, App, Dropdown, Input, InputNumber, Modal, Select, Switch, Upload } from 'antd';
import { useMemo, useState } from 'react';
import type { KitState } from '@/core/kit';
import {
  type OrientationQuestion,
  orientationQuestions,
  type Placed,
  placesOfKit,
  placesTaken,
  readPlaces,
  takePlaces,
  textOfBytes,
  writeBareBoard,
  writeCentroid,
} from '@/core/place';
import { useBench } from '@/store/bench';
import { saveFile } from '../shell/saveFile';
import { AsOnBoard } from './AsOnBoard';
import { NEAR, NeighboursDialog } from './NeighboursDialog';
import { PrintMap } from './PrintMap';
import zones from '../shell/zones.module.css';
import styles from './Plan.module.css';

const MOST_SHOWN = 8;

/** Places of parts from a file, by hand, into a file and onto paper. */
export function Places({ kit, move }: { kit: KitState; move: () => void }) {
  const [open, setOpen] = useState<'file' | 'neighbours' | 'print' | null>(null);
  const [questions, setQuestions] = useState<readonly OrientationQuestion[]>([]);
  const { message } = App.useApp();
  const save = (name: string, write: () => string) => {
    try {
      saveFile(name, write(), 'text/plain');
    } catch (error) {
      void message.error(`Not saved: ${(error as Error).message}.`);
    }
  };
  const close = () => {
    setOpen(null);
  };
  const { placement, pads } = kit.sheet;
  return (
    <>
      <Dropdown.Button
        className={styles.files ?? ''}
        menu={{
          items: [
            { key: 'move', label: 'Move parts by hand' },
            { key: 'ways', label: 'Way round, kind by kind', disabled: placement.length === 0 },
            { key: 'neighbours', label: 'Neighbours from the map', disabled: placement.length === 0 || !kit.sheet.circuit },
            { key: 'print', label: 'Print at 1:1', disabled: placement.length === 0 },
            { type: 'divider' },
            { key: 'centroid', label: 'Save places (centroid)', disabled: placement.length === 0 },
            { key: 'pads', label: 'Save pads (bare-board netlist)', disabled: pads.length === 0 },
          ],
          onClick: ({ key }) => {
            if (key === 'move') move();
            else if (key === 'ways') setQuestions(orientationQuestions(kit, placement, new Set(pads.map((p) => p.ref))));
            else if (key === 'neighbours' || key === 'print') setOpen(key);
            else if (key === 'centroid') save('places.csv', () => writeCentroid(placesOfKit(kit)));
            else
              save('pads.ipc', () =>
                writeBareBoard(pads.map((p) => ({ ref: p.ref, pin: p.pin, net: p.net ?? null, x: p.x, y: 0 - p.y, side: 'both' as const }))),
              );
          },
        }}
        onClick={() => {
          setOpen('file');
        }}
      >
        Places from a file
      </Dropdown.Button>
      {open === 'file' && <PlacesDialog kit={kit} close={close} asks={setQuestions} />}
      {questions.length > 0 && (
        <AsOnBoard
          kit={kit}
          questions={questions}
          close={() => {
            setQuestions([]);
          }}
        />
      )}
      {open === 'neighbours' && <NeighboursDialog kit={kit} close={close} />}
      {open === 'print' && <PrintMap kit={kit} close={close} />}
    </>
  );
}

type Read = { readonly file: Placed } | { readonly error: string } | null;

function readText(text: string): Read {
  if (text.trim() === '') return null;
  try {
    return { file: readPlaces(text) };
  } catch (error) {
    return { error: (error as Error).message };
  }
}

function PlacesDialog({ kit, close, asks }: { kit: KitState; close: () => void; asks: (questions: readonly OrientationQuestion[]) => void }) {
  const append = useBench((s) => s.append);
  const [text, setText] = useState('');
  const [board, setBoard] = useState(kit.sheet.boards.length > 1 ? kit.sheet.boards[0]!.id : null);
  const [flipped, setFlipped] = useState(false);
  const [near, setNear] = useState(NEAR);
  const read = useMemo(() => readText(text), [text]);
  const file = read && 'file' in read ? read.file : null;
  const taken = useMemo(() => (file ? takePlaces(kit, file, { board, flipped, near }) : null), [kit, file, board, flipped, near]);
  return (
    <Modal
      open
      title="Places from a file"
      onCancel={close}
      okText={taken ? `Take ${taken.placement.length} places` : 'Take the places'}
      okButtonProps={{ disabled: !taken || taken.placement.length === 0 }}
      onOk={() => {
        if (!taken) return;
        void append((k) => placesTaken(k, taken)).then(() => {
          close();
          asks(orientationQuestions(kit, taken.placement, new Set(taken.pads.map((p) => p.ref))));
        });
      }}
      width={720}
    >
      <p>A centroid file (pick-and-place list) or a bare-board test netlist (IPC-D-356). Drop the file here, or paste its text.</p>
      <Upload.Dragger
        showUploadList={false}
        beforeUpload={(f) => {
          void f.arrayBuffer().then((b) => {
            setText(textOfBytes(new Uint8Array(b)));
          });
          return false;
        }}
      >
        <p>Drop a file, or click to choose one</p>
      </Upload.Dragger>
      <Input.TextArea
        aria-label="Text of the file"
        className={zones.section ?? ''}
        rows={4}
        value={text}
        placeholder={'Ref,X (mm),Y (mm),Rotation,Side\nR1,12.7,20.3,90,top'}
        onChange={(e) => {
          setText(e.target.value);
        }}
      />
      {read && 'error' in read && (
        <Alert
          type="error"
          className={styles.alert ?? ''}
          title="This cannot be read"
          description={`Sorry, ${read.error}. Save it from the drawing program as CSV or IPC-D-356, as plain text.`}
        />
      )}
      {file && taken && (
        <>
          <div className={`${zones.row} ${zones.section}`}>
            {kit.sheet.boards.length > 1 && (
              <label className={zones.row}>
                Board{' '}
                <Select aria-label="Board" value={board} options={kit.sheet.boards.map((b) => ({ value: b.id, label: b.name || b.id }))} onChange={setBoard} />
              </label>
            )}
            <label className={zones.row}>
              <Switch size="small" checked={flipped} onChange={setFlipped} aria-label="The file shows the underside" /> the file shows the underside: flip it
            </label>
            {file.pads && (
              <label className={zones.row}>
                neighbours within{' '}
                <InputNumber
                  aria-label="Neighbours within"
                  min={0.1}
                  max={10}
                  step={0.1}
                  value={near}
                  onChange={(v) => {
                    setNear(v ?? NEAR);
                  }}
                  suffix="mm"
                />
              </label>
            )}
          </div>
          <p role="status">
            {file.parts.length} parts{file.pads ? `, ${file.pads.length} pads` : ''} read; {taken.placement.length} of them are in this kit
            {taken.neighbours.length > 0 ? `; ${taken.neighbours.length} pairs of neighbouring nets` : ''}.
          </p>
          <Remarks
            file={file}
            unknown={taken.unknown}
            missing={kit.sheet.lines
              .flatMap((l) => l.refs)
              .filter((r) => !taken.placement.some((p) => p.ref === r) && (board === null || r.startsWith(`${board}:`)))}
          />
        </>
      )}
    </Modal>
  );
}

function Remarks({ file, unknown, missing }: { file: Placed; unknown: readonly string[]; missing: readonly string[] }) {
  const some = (refs: readonly string[]) => `${refs.slice(0, MOST_SHOWN).join(', ')}${refs.length > MOST_SHOWN ? ` and ${refs.length - MOST_SHOWN} more` : ''}`;
  return (
    <ul className={zones.remarks} aria-label="Remarks">
      {file.findings.slice(0, MOST_SHOWN).map((f) => (
        <li key={f.text}>{f.text}</li>
      ))}
      {file.findings.length > MOST_SHOWN && <li>{file.findings.length - MOST_SHOWN} more rows have remarks.</li>}
      {unknown.length > 0 && <li>Not on the list, left out: {some(unknown)}.</li>}
      {missing.length > 0 && <li>Without a place in the file: {some(missing)}.</li>}
    </ul>
  );
}
