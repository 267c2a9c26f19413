import { Axial } from '../drawn/Axial';
import { VerdictMark } from '../drawn/VerdictMark';
import { WindowGauge } from '../drawn/WindowGauge';
import { BODY } from '../theme/tokens';
import styles from './Shelf.module.css';

/** 4.7 kΩ, 5 %, as one finds it in the bag: drawn by itself, for the shelf loads little. */
const Resistor = () => (
  <svg width="96" height="46" viewBox="-6.4 -3 12.8 6" aria-hidden="true">
    <path d="M-6 0h12" stroke="var(--lead)" strokeWidth="0.4" />
    <Axial width={6.4} height={2.5} colours={['yellow', 'violet', 'red', 'gold']} paint={BODY.carbon} />
  </svg>
);

/** What the bench does, in its own drawings. */
export function Story() {
  return (
    <section className={styles.story} aria-label="What it does">
      <div>
        <div className={styles.strip}>
          <Resistor />
          <b className="v-out">
            <VerdictMark verdict="out" size={20} /> reads 46.8 k
          </b>
        </div>
        <p>
          <b>Unpack and check.</b> Count each line, measure the pieces. Every reading is judged with the meter’s own error in mind.
        </p>
      </div>
      <div>
        <div className={styles.strip}>
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
        <div className={styles.strip}>
          <b>R9 has an open joint</b>
          <b className="num">71 %</b>
          <svg viewBox="0 0 100 8" preserveAspectRatio="none" className={styles.bar ?? ''} aria-hidden="true">
            <rect width="100" height="8" fill="var(--line)" />
            <rect width="71" height="8" fill="var(--ink)" />
          </svg>
        </div>
        <p>
          <b>Find the fault.</b> All single faults that the board can have, ranked by everything you read, and the next reading that tells most.
        </p>
      </div>
    </section>
  );
}
