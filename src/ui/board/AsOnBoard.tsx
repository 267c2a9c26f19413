import { Button, Modal } from 'antd';
import { useState } from 'react';
import type { KitState } from '@/core/kit';
import { familyTurned, type OrientationQuestion } from '@/core/place';
import { useBench } from '@/store/bench';
import { marksOf } from '../drawn/marks';
import { Top } from '../drawn/Top';
import zones from '../shell/zones.module.css';
import styles from './Plan.module.css';

/** Room round a part, for its leads, millimetres. */
const ROOM = 4;

/** After places were taken from a file: one part of each family, to be compared with the board. */
export function AsOnBoard({ kit, questions, close }: { kit: KitState; questions: readonly OrientationQuestion[]; close: () => void }) {
  const append = useBench((s) => s.append);
  const [by, setBy] = useState<Readonly<Record<string, number>>>({});
  return (
    <Modal
      open
      title="Is it like this on your board?"
      okText="It is like this"
      cancelText="Can’t tell yet"
      onCancel={close}
      onOk={() => {
        void append((k) => questions.flatMap((q) => (by[q.family] ? familyTurned(k, q.refs, by[q.family]!) : []))).then(close);
      }}
      width={720}
    >
      <p>
        Files disagree about zero rotation and pin 1. Compare each drawing with the print on your board: stripe, plus, flat side, notch. Your answer applies to
        all parts of that kind.
      </p>
      <div className={styles.asOnBoard}>
        {questions.map(({ family, example, refs }) => {
          const line = kit.sheet.lines.find((l) => l.refs.includes(example.ref))!;
          const turn = by[family] ?? 0;
          const marks = marksOf(line);
          const half = Math.max(marks.body.width, marks.body.height) / 2 + ROOM;
          const set = (more: number) => {
            setBy({ ...by, [family]: (turn + more + 360) % 360 });
          };
          return (
            <figure key={family} aria-label={`${example.ref}, for all ${family}`}>
              <svg
                viewBox={`${-half} ${-half} ${2 * half} ${2 * half}`}
                width="130"
                height="130"
                role="img"
                aria-label={`${example.ref} as drawn`}
                className={styles.example}
              >
                <g transform={`rotate(${example.rotation + turn})`}>
                  <Top marks={marks} pins="pads" />
                </g>
              </svg>
              <figcaption>
                <b>{example.ref}</b>, for {refs.length === 1 ? 'this one' : `all ${refs.length} ${family}`}
              </figcaption>
              <div className={zones.row}>
                <Button
                  size="small"
                  onClick={() => {
                    set(180);
                  }}
                >
                  Other way round
                </Button>
                <Button
                  size="small"
                  onClick={() => {
                    set(90);
                  }}
                >
                  Quarter turn
                </Button>
              </div>
            </figure>
          );
        })}
      </div>
    </Modal>
  );
}
