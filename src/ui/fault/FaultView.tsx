'use client';
import { Alert, Button, Progress, Segmented } from 'antd';
import { lazy, Suspense, useState } from 'react';
import type { KitState } from '@/core/kit';
import type { Phase } from '@/core/loop';
import { useSuspects } from '../results/useSuspects';
import zones from '../shell/zones.module.css';
import type { Loop } from '../probe/useLoop';
import { Advice } from './Advice';
import { BadReadings } from './BadReadings';
import styles from './Fault.module.css';
import { Predictions } from './Predictions';
import { SuspectList } from './SuspectList';
import { OtherFound } from './OtherFound';
import { RepairStory } from './RepairStory';
import { SymptomGuide } from './SymptomGuide';
import { useFound } from './useFound';
import { rowTitle } from './words';

const FaultMap = lazy(() => import('./FaultMap').then((m) => ({ default: m.FaultMap })));
const FaultSchematic = lazy(() => import('./FaultSchematic').then((m) => ({ default: m.FaultSchematic })));
const KnownGood = lazy(() => import('./KnownGood').then((m) => ({ default: m.KnownGood })));
const SuspectCard = lazy(() => import('./SuspectCard').then((m) => ({ default: m.SuspectCard })));

/** What stands beside the suspects. */
type Shown = 'table' | 'map' | 'schematic' | 'good';

/** Find fault: who could have done it, what each would show, what to read next. */
export function FaultView({ kit, loop, go }: { kit: KitState; loop: Loop; go: (phase: Phase) => void }) {
  const { result, progress, stopped, stop, again } = useSuspects(kit, true);
  const findings = result.value;
  const [opened, setOpened] = useState<string | null>(null);
  const [shown, setShown] = useState<Shown>('table');
  const found = useFound(go);
  const readings = [...kit.readings.values()].some((all) => all.some((t) => t.entry.kind !== 'observed'));
  if (!kit.sheet.circuit || !readings) return <NoSuspects kit={kit} loop={loop} go={go} compare={readings} />;
  const fresh = result.state === 'fresh';
  return (
    <div className={`${zones.zones} ${zones.listThing}`}>
      <section className={zones.card} aria-label="Suspects" tabIndex={0}>
        <h2 className={zones.label}>{findings ? `Suspects after ${findings.readings} readings, of ${findings.faults - 1} possible faults` : 'Suspects'}</h2>
        {progress !== null && <Working progress={progress} first={!findings} stop={stop} />}
        {(stopped || result.state === 'failed') && (
          <Alert
            type={stopped ? 'info' : 'error'}
            title={stopped ? 'Stopped: the suspects were not worked out.' : `The suspects could not be computed: ${result.message ?? ''}`}
            action={
              <Button size="small" onClick={again}>
                {stopped ? 'Go on' : 'Try again'}
              </Button>
            }
          />
        )}
        {findings && (
          <div className={fresh ? '' : styles.older}>
            {!fresh && <p className="soft">Based on earlier readings; updating…</p>}
            {fresh && (
              <BadReadings
                kit={kit}
                findings={findings}
                again={(target) => {
                  go('power');
                  loop.choose(target);
                }}
              />
            )}
            <SuspectList kit={kit} findings={findings} opened={opened} open={setOpened} />
          </div>
        )}
      </section>
      <section className={`${zones.card} ${styles.predictions} ${opened === null ? '' : styles.single}`} aria-label="Predictions">
        {findings ? (
          <>
            {opened === null ? (
              <>
                <header className={`${zones.row} ${zones.between}`}>
                  <h2 className={zones.label}>{TITLES[shown]}</h2>
                  <Segmented<Shown>
                    size="small"
                    aria-label="Shown as"
                    value={shown}
                    options={[
                      { value: 'table', label: 'Table' },
                      ...(kit.sheet.testPoints.length > 0 ? [{ value: 'map' as const, label: 'Map' }] : []),
                      { value: 'schematic', label: 'Schematic' },
                      { value: 'good', label: 'Known-good board' },
                    ]}
                    onChange={setShown}
                  />
                </header>
                {shown === 'good' ? (
                  <Suspense>
                    <KnownGood kit={kit} />
                  </Suspense>
                ) : shown === 'schematic' ? (
                  <Suspense>
                    <FaultSchematic kit={kit} findings={findings} loop={loop} />
                  </Suspense>
                ) : shown === 'map' ? (
                  <Suspense>
                    <FaultMap kit={kit} loop={loop} next={fresh ? (findings.next?.id ?? null) : null} />
                  </Suspense>
                ) : (
                  <Predictions kit={kit} findings={findings} />
                )}
                {findings.leftOut.length > 0 && (
                  <p className="soft">
                    Not used: {findings.leftOut.map((id) => rowTitle(kit, id)).join(', ')}. The circuit as drawn does not match a healthy board there.
                  </p>
                )}
              </>
            ) : (
              <Suspense>
                <SuspectCard
                  kit={kit}
                  findings={findings}
                  opened={opened}
                  close={() => {
                    setOpened(null);
                  }}
                  found={found.fault}
                />
              </Suspense>
            )}
            {fresh && (
              <Advice
                kit={kit}
                findings={findings}
                found={found.fault}
                choose={(target) => {
                  go('power');
                  loop.choose(target);
                }}
              >
                <OtherFound kit={kit} found={found.other} />
              </Advice>
            )}
          </>
        ) : (
          <p className="soft">The table of what each suspect would show appears here.</p>
        )}
      </section>
    </div>
  );
}

const TITLES: Readonly<Record<Shown, string>> = {
  table: 'What each suspect would show',
  map: 'Read anywhere: press a point',
  schematic: 'Read anywhere: press a point',
  good: 'Beside a known-good board',
};

function Working({ progress, first, stop }: { progress: number; first: boolean; stop: () => void }) {
  return (
    <div className={styles.working}>
      <Progress percent={Math.round(progress * 100)} size="small" showInfo={false} aria-label="Working out what each fault would show" />
      {first && <p className="soft">Working out what each fault would show…</p>}
      {progress < 0.95 && (
        <Button size="small" onClick={stop}>
          Stop
        </Button>
      )}
    </div>
  );
}

/** Before readings can tell: what was repaired last, and the guide by symptoms. */
function NoSuspects({ kit, loop, go, compare }: { kit: KitState; loop: Loop; go: (phase: Phase) => void; compare: boolean }) {
  const circuit = kit.sheet.circuit !== null;
  const to = circuit ? 'power' : 'circuit';
  return (
    <div className={styles.without}>
      <section className={zones.card} aria-label="Suspects" tabIndex={0}>
        <RepairStory kit={kit} loop={loop} go={go} />
        <div className={zones.row}>
          <p>
            {circuit
              ? 'No suspects yet. They come from readings: take those of the first powered stage, and come here when one is out.'
              : 'No suspects yet. Without a circuit nothing can be computed: give the kit one, from a SPICE deck or from blocks.'}
          </p>
          <Button
            type={kit.sheet.functions ? 'default' : 'primary'}
            onClick={() => {
              go(to);
            }}
          >
            {circuit ? 'To Power up' : 'To the Circuit'}
          </Button>
          {kit.sheet.functions && (
            <Button
              type="primary"
              onClick={() => {
                go('functions');
              }}
            >
              Try its functions
            </Button>
          )}
        </div>
      </section>
      {compare && (
        <section className={zones.card} aria-label="Beside a known-good board">
          <h2 className={zones.label}>{TITLES.good}</h2>
          <Suspense>
            <KnownGood kit={kit} />
          </Suspense>
        </section>
      )}
      <SymptomGuide kit={kit} />
    </div>
  );
}
