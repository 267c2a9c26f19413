import { Button, Flex, Image, Tag } from 'antd';
import { type Entry, isKnown, type KitState, stands } from '@/core/kit';
import { type LogStep, withdrawalOf } from '@/core/loop';
import { useBench } from '@/store/bench';
import { isCorrectable } from './CorrectReading';
import styles from './Logbook.module.css';

interface Props {
  readonly kit: KitState;
  readonly step: LogStep;
  readonly notSaved: boolean;
  readonly correct: (entry: Entry) => void;
}

const timeFormat = new Intl.DateTimeFormat(undefined, { timeStyle: 'short' });
const timeOf = (at: string) => {
  const date = new Date(at);
  return Number.isNaN(date.getTime()) ? '' : timeFormat.format(date);
};

/** One step in words, with what can be done about it. */
export function StepRow({ kit, step, notSaved, correct }: Props) {
  const append = useBench((s) => s.append);
  const [first] = step.entries;
  const batch = first?.batch;
  const takeBack = () => {
    void append(batch === undefined ? { kind: 'withdrawn', entry: step.id } : { kind: 'withdrawn', ofBatch: batch });
  };
  const putBack = () => {
    const by = withdrawalOf(kit, step);
    if (by) void append({ kind: 'withdrawn', entry: by.id });
  };
  const correctable = !step.gone && step.entries.length === 1 && first && stands(kit, first) && isCorrectable(first) ? first : null;
  return (
    <div className={styles.step} data-step={step.id}>
      <span className="num soft">{timeOf(step.at)}</span>
      <span className={step.gone ? styles.gone : ''}>
        {step.text} {notSaved && <Tag color="warning">not saved yet</Tag>}
        <Photos step={step} />
      </span>
      <Flex gap="small">
        {correctable && (
          <Button
            size="small"
            onClick={() => {
              correct(correctable);
            }}
          >
            Correct
          </Button>
        )}
        {step.gone ? (
          <Button size="small" onClick={putBack}>
            Put back
          </Button>
        ) : (
          !step.making && (
            <Button size="small" onClick={takeBack}>
              Withdraw
            </Button>
          )
        )}
      </Flex>
    </div>
  );
}

function Photos({ step }: { step: LogStep }) {
  const attachments = useBench((s) => s.attachments);
  const [first] = step.entries;
  if (!first || !isKnown(first) || first.kind !== 'noted' || !first.photos) return null;
  return (
    <Flex gap="small" wrap>
      {first.photos.map((p) => {
        const bytes = attachments[p.hash];
        return bytes ? (
          <Image key={p.hash} height={92} alt={p.name} src={`data:${p.type};base64,${bytes}`} />
        ) : (
          <Tag key={p.hash}>{p.name}: not in this browser</Tag>
        );
      })}
    </Flex>
  );
}
