import type { TypeCard } from '@/core/kit';
import { print, type Unit } from '@/core/quantity';
import zones from '../shell/zones.module.css';
import styles from './TypeCards.module.css';

const UNITS: readonly string[] = ['V', 'A', 'ohm', 'F', 'H', 'W', 'Hz', 'percent', 'ratio'];
const shown = (value: number, unit: string) => (UNITS.includes(unit) ? print(value, unit as Unit, 3) : `${value} ${unit}`);

/** One card as it is read beside the part. */
export function TypeCardText({ card }: { card: TypeCard }) {
  return (
    <div className={styles.card}>
      <b>{card.type}</b>
      {Object.entries(card.pins).map(([body, pins]) => (
        <p key={body} className="num">
          {body}: {pins.map((p, i) => `${i + 1} ${p}`).join(', ')}
        </p>
      ))}
      <ul className={zones.plainList}>
        {card.figures.map((f) => (
          <li key={f.name}>
            {f.name} <span className="num">{shown(f.value, f.unit)}</span> <small className="soft">{f.source}</small>
          </li>
        ))}
      </ul>
    </div>
  );
}
