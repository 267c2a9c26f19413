import { Progress } from 'antd';
import { useMemo } from 'react';
import { rankCauses, type Symptom, SYMPTOMS } from '@/core/diagnose';
import type { KitState } from '@/core/kit';
import { CHIP_KINDS } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { YesNo } from '../form/YesNo';
import zones from '../shell/zones.module.css';
import styles from './Fault.module.css';
import { percent } from './words';

const MOST_SHOWN = 8;

/** Where to look first, from what the board as a whole is seen to do: needs no circuit. */
export function SymptomGuide({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const causes = useMemo(() => rankCauses(kit), [kit]);
  const answer = (s: Symptom, seen: boolean) => {
    void append({ kind: 'symptom', symptom: s.id, title: s.title, seen });
  };
  return (
    <div className={`${zones.zones} ${zones.halves}`}>
      <section className={zones.card} aria-label="What is seen">
        <h2 className={zones.label}>What does it do?</h2>
        {SYMPTOMS.map((s) => (
          <div key={s.id} className={styles.question}>
            <span>{s.title}</span>
            <YesNo
              label={s.title}
              value={kit.symptoms.get(s.id) ?? null}
              answer={(seen) => {
                answer(s, seen);
              }}
            />
          </div>
        ))}
      </section>
      <section className={zones.card} aria-label="Where to look first">
        <h2 className={zones.label}>Where to look first</h2>
        {causes.length === 0 ? (
          <>
            <p>
              <b>Supply first:</b> volts at its terminals, where it enters the board, and at the supply pins of {chipsOf(kit)}. Then go back to the last stage
              that passed: what was fitted since is what to look at.
            </p>
            <p className="soft">Answer yes or no. Each answer changes the order. The order is a guide, not a proof.</p>
          </>
        ) : (
          <ol className={styles.suspects} aria-label="Causes by weight">
            {causes.slice(0, MOST_SHOWN).map((c) => (
              <li key={c.id} className={styles.suspect}>
                <b>{c.title}</b>
                <b className="num">{percent(c.share)}</b>
                <small>{c.look}</small>
                <Progress className={styles.bar ?? ''} percent={100 * c.share} showInfo={false} size="small" aria-hidden="true" />
              </li>
            ))}
          </ol>
        )}
        <p className="soft">
          {kit.sheet.circuit
            ? 'With readings the circuit tells more than this: take those of the first powered stage.'
            : 'A circuit would turn every reading into a window and name single parts: from a template, a walk along the drawing, or a deck.'}
        </p>
      </section>
    </div>
  );
}

const chipsOf = (kit: KitState): string => {
  const refs = kit.sheet.lines.flatMap((l) => (CHIP_KINDS.includes(l.kind) || l.kind === 'regulator' ? l.refs : []));
  return refs.length === 0 ? 'every active part' : refs.slice(0, 6).join(', ');
};
