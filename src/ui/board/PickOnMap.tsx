import { Button, Modal } from 'antd';
import { useCallback, useState } from 'react';
import type { KitState, Ref } from '@/core/kit';
import { type PinChoice, pinsAtPad } from '@/core/place';
import { padsAsPlaced } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { BoardMap, type LaidOut, standsOver } from './BoardMap';
import zones from '../shell/zones.module.css';
import styles from './BoardMap.module.css';
import { MapPoints } from './MapPoints';
import { useMapSheet } from './useMapSheet';

interface Props {
  /** What is asked for, in words: `Red probe`. */
  readonly title: string;
  readonly picked: (place: string) => void;
  readonly close: () => void;
}

/** A place for a probe is pressed on the map: a test point, ground, or a pin of a part. */
export function PickOnMap({ title, picked, close }: Props) {
  const kit = useBench((s) => s.kit);
  return (
    <Modal title={`${title}: press the place`} open width="60rem" footer={null} onCancel={close} destroyOnHidden>
      {kit && (
        <Board
          kit={kit}
          picked={(place) => {
            picked(place);
            close();
          }}
        />
      )}
    </Modal>
  );
}

function Board({ kit, picked }: { kit: KitState; picked: (place: string) => void }) {
  const { sheet } = useMapSheet(kit);
  const [asked, setAsked] = useState<{ readonly ref: Ref; readonly pins: readonly PinChoice[] } | null>(null);
  const press = useCallback(
    (ref: Ref, pad: number) => {
      const pins = pinsAtPad(kit, ref, pad);
      if (pins.length > 1) setAsked({ ref, pins });
      else picked(`${ref}.${pins[0]?.pin ?? pad}`);
    },
    [kit, picked],
  );
  const over = useCallback(
    (map: LaidOut) => (
      <>
        {map.parts.flatMap((part) =>
          padsAsPlaced(part.marks.body.pads, part).map(({ pin, x, y }) => (
            <Button
              key={`${part.ref}.${pin}`}
              type="text"
              className={`${styles.press ?? ''} ${styles.pad ?? ''}`}
              style={standsOver(map, { x, y, width: PAD, height: PAD })}
              title={`${part.ref}.${pin}`}
              aria-label={`Pin ${pin} of ${part.ref}`}
              onClick={() => {
                press(part.ref, pin);
              }}
            />
          )),
        )}
        <MapPoints map={map} points={pointsOf(kit, picked)} />
      </>
    ),
    [kit, picked, press],
  );
  return (
    <>
      {asked && (
        <div className={`${zones.row} ${styles.rows}`} role="group" aria-label={`Which end of ${asked.ref}`}>
          The circuit does not say which way round {asked.ref} lies. You touch its end on
          {asked.pins.map(({ pin, net }) => (
            <Button
              key={pin}
              size="small"
              onClick={() => {
                picked(`${asked.ref}.${pin}`);
              }}
            >
              {net === '0' ? 'ground' : net}
            </Button>
          ))}
        </div>
      )}
      <div className={styles.pick}>
        <BoardMap
          sheet={sheet}
          present={kit.board.fitted}
          marked={NONE}
          points={kit.sheet.testPoints}
          verdicts={NO_VERDICTS}
          red={null}
          black={null}
          over={over}
        />
      </div>
    </>
  );
}

/** Millimetres about a hole that belong to it: half the usual pitch to each side. */
const PAD = 2.54;
const NONE: ReadonlySet<string> = new Set();
const NO_VERDICTS: ReadonlyMap<string, never> = new Map<string, never>();

const pointsOf = (kit: KitState, picked: (place: string) => void) =>
  new Map(
    [...kit.sheet.testPoints.map((t) => [t.id, t.id] as const), ['GND', 'ground'] as const].map(([id, place]) => [
      id,
      {
        title: place === 'ground' ? 'Ground' : `Test point ${place}`,
        press: () => {
          picked(place);
        },
      },
    ]),
  );
