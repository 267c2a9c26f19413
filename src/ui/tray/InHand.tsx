import { Collapse } from 'antd';
import { type KitState, meterOf } from '@/core/kit';
import { lineTitle, orientationCard, systematicErrors } from '@/core/loop';
import { parseDisplay, type Unit } from '@/core/quantity';
import { cardFor } from '@/core/typecard';
import { useEntryField } from '../probe/entryField';
import type { Loop } from '../probe/useLoop';
import { useOwnCards } from '../results/useOwnCards';
import { TypeCardText } from '../sheet/TypeCardText';
import { HowTo } from './HowTo';
import styles from './InHand.module.css';

/** What stands in the entry field, where it is a reading already. */
function typedReading(text: string, unit: Unit): number | null {
  const parsed = text.trim() === '' ? null : parseDisplay(text, unit);
  return parsed?.ok && parsed.kind === 'value' ? parsed.value : null;
}

/** How the part in hand is measured and turned, what its card says, and what may falsify its reading. */
export function InHand({ kit, loop }: { kit: KitState; loop: Loop }) {
  const own = useOwnCards();
  const text = useEntryField((s) => s.text);
  const { target } = loop;
  if (target?.kind !== 'piece' && target?.kind !== 'fit') return null;
  const { line } = target;
  const turned = orientationCard(line.kind);
  // Where both ways are right there is nothing to tell.
  const orientation = turned.exceptions.length > 0 ? turned : null;
  const card = cardFor(line, kit.sheet.typeCards, own);
  const traps = target.kind === 'piece' ? systematicErrors(line.kind, target.expected, meterOf(kit), typedReading(text, target.expected.unit)) : [];
  return (
    <Collapse
      key={target.id}
      ghost
      size="small"
      className={styles.card ?? ''}
      defaultActiveKey={traps.length > 0 || orientation ? ['hand'] : []}
      items={[
        {
          key: 'hand',
          label: <b>{target.kind === 'piece' ? (target.ref ?? 'This piece') : lineTitle(line)} in the hand</b>,
          children: (
            <>
              {traps.map((t) => (
                <p key={t}>{t}</p>
              ))}
              {target.kind === 'piece' && <HowTo mode={target.expected.mode} />}
              {orientation && (
                <>
                  <p>{orientation.rule}</p>
                  <p className="soft">But: {orientation.exceptions.join(' ')}</p>
                  <p className="soft">To be sure: {orientation.check}</p>
                </>
              )}
              {card && <TypeCardText card={card} />}
            </>
          ),
        },
      ]}
    />
  );
}
