'use client';
import { Alert, Button, Progress } from 'antd';
import { type Findings, type PredictedCell, shownSuspects, type TableRow } from '@/core/diagnose';
import { observableOfTarget, type Phase, targetOfObservable } from '@/core/loop';
import { describeFault, type Fault } from '@/core/fault';
import { type KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { unitOf as unitOfMode } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { useSuspects } from './useSuspects';

/** From here on the screen calls the case settled (choice of this product). */
const SETTLED = 0.8;

export function FaultView({ kit, go }: { kit: KitState; go: (phase: Phase) => void }) {
  const { result, progress, stopped, stop, again } = useSuspects(kit, true);
  const findings = result.value;
  const readings = [...kit.readings.values()].some((all) => all.some((t) => t.entry.kind !== 'observed'));
  if (!kit.sheet.circuit || !readings)
    return (
      <div className="zones">
        <section className="card">
          <h2 className="label">No suspects yet</h2>
          <p style={{ marginBottom: 12 }}>
            {kit.sheet.circuit
              ? 'Suspects come from readings. Take those of the first powered stage; come here when one is out.'
              : 'Without a circuit nothing can be computed. Make the kit anew with a SPICE deck.'}
          </p>
          <button
            type="button"
            className="zest"
            onClick={() => {
              go('power');
            }}
          >
            To Power up
          </button>
        </section>
      </div>
    );
  return (
    <div className="zones suspects-table">
      <section className="card" aria-label="Suspects">
        <h2 className="label">{findings ? `Suspects after ${findings.readings} readings, of ${findings.faults - 1} possible faults` : 'Suspects'}</h2>
        {progress !== null && (
          <div style={{ marginBottom: 8 }}>
            <Progress percent={Math.round(progress * 100)} size="small" showInfo={false} aria-label="Working out what each fault would show" />
            {!findings && <p className="soft">Working out what each fault would show…</p>}
            {progress < 0.95 && <Button onClick={stop}>Stop</Button>}
          </div>
        )}
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
          <div className={result.state === 'fresh' ? '' : 'dimmed'}>
            {result.state !== 'fresh' && <p className="soft">From the readings before; being worked out anew.</p>}
            <SuspectList kit={kit} findings={findings} />
          </div>
        )}
      </section>
      <section className="card fault-card" aria-label="Predictions">
        {findings ? (
          <Predictions kit={kit} findings={findings} fresh={result.state === 'fresh'} go={go} />
        ) : (
          <p className="soft">The table of what each suspect would show appears here.</p>
        )}
      </section>
    </div>
  );
}

function unitOf(kit: KitState, fault: Fault): 'ohm' | 'V' {
  const line = kit.sheet.lines.find((l) => fault.parts.some((p) => l.refs.includes(p)));
  return line?.kind === 'zener' ? 'V' : 'ohm';
}

const percent = (p: number) => (p > 0.995 ? '> 99 %' : p < 0.01 ? '< 1 %' : `${Math.round(100 * p)} %`);

function SuspectList({ kit, findings }: { kit: KitState; findings: Findings }) {
  const rows = findings.suspects
    .filter((s) => s.probability >= 0.005)
    .map((s) => ({ ...describeFault(s.fault, unitOf(kit, s.fault)), probability: s.probability }));
  if (findings.unexplained >= 0.005)
    rows.push({
      title: 'Something I do not know',
      cause: 'none of the faults that I know explains all readings',
      remedy: '',
      probability: findings.unexplained,
    });
  return (
    <>
      {rows.map((s, i) => (
        <div key={s.title} className={`suspect ${i === 0 ? 'first' : ''}`}>
          <b>{s.title}</b>
          <b className="num" style={{ textAlign: 'right' }}>
            {percent(s.probability)}
          </b>
          <small>{s.cause}</small>
          <span />
          <span className="bar">
            <i style={{ width: `${100 * s.probability}%` }} />
          </span>
        </div>
      ))}
      {findings.unexplained > 0.3 && (
        <p className="soft">Take each odd reading once more: exchanged probes, a neighbouring point or a wrong range look just like this.</p>
      )}
    </>
  );
}

function Predictions({ kit, findings, fresh, go }: { kit: KitState; findings: Findings; fresh: boolean; go: (phase: Phase) => void }) {
  const shown = shownSuspects(findings.suspects);
  return (
    <>
      <h2 className="label" style={{ margin: 0 }}>
        What each suspect would show
      </h2>
      <div>
        <table className="shown">
          <thead>
            <tr>
              <th scope="col">reading</th>
              <th scope="col">seen</th>
              <th scope="col">healthy</th>
              {shown.map((s) => (
                <th key={describeFault(s.fault).title} scope="col">
                  {describeFault(s.fault, unitOf(kit, s.fault)).title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {findings.rows.map((r) => (
              <tr key={r.id} className={r.seen === null ? 'next' : ''}>
                <th scope="row">{r.seen === null ? <b>Next: {rowTitle(kit, r.id, findings.rows)}</b> : rowTitle(kit, r.id, findings.rows)}</th>
                <td className="num">{r.seen === null ? '?' : r.seen === 'over' ? 'OL' : print(r.seen, unitOfMode(r.mode))}</td>
                <Cell cell={r.healthy} row={r} />
                {r.suspects.map((c, i) => (
                  <Cell key={i} cell={c} row={r} />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {fresh && <Advice kit={kit} findings={findings} go={go} />}
    </>
  );
}

function Cell({ cell, row }: { cell: PredictedCell | null; row: TableRow }) {
  if (!cell) return <td className="num">–</td>;
  const tone = row.seen === null ? '' : cell.fits ? 'fit' : 'no';
  return (
    <td className={`num ${tone}`}>
      {cell.middle > 1e7 && row.mode === 'ohms' ? 'OL' : print(cell.middle, unitOfMode(row.mode), 3)}
      {row.seen !== null && <span className="sr-only">{cell.fits ? ' fits' : ' does not fit'}</span>}
    </td>
  );
}

/** Title of a row; with the stage where the same title stands twice. */
function rowTitle(kit: KitState, id: string, rows: readonly TableRow[] = []): string {
  const own = plainTitle(kit, id);
  const twice = rows.filter((r) => plainTitle(kit, r.id) === own).length > 1;
  const stage = kit.sheet.stages.find((s) => id.startsWith(`${s.id}/`));
  return twice && stage ? `${own} (${stage.title})` : own;
}

function plainTitle(kit: KitState, id: string): string {
  const target = targetOfObservable(kit, id);
  if (!target) return id;
  if (target.kind === 'probe') return `${target.testPoint.id} ${target.testPoint.where}`;
  if (target.kind !== 'check') return id;
  const point = target.check.what === 'measure' && 'testPoint' in target.check.red ? `${target.check.red.testPoint} ` : '';
  return `${point}${target.check.title}`;
}

function Advice({ kit, findings, go }: { kit: KitState; findings: Findings; go: (phase: Phase) => void }) {
  const append = useBench((s) => s.append);
  const top = findings.suspects[0];
  if (!top) return null;
  const words = describeFault(top.fault, unitOf(kit, top.fault));
  const settled = top.probability >= SETTLED && top.fault.kind !== 'healthy';
  const nextTarget = findings.next && targetOfObservable(kit, findings.next.id);
  const found = () => {
    const refs = top.fault.kind === 'bridge' ? [...top.fault.detail.nets] : [...top.fault.parts];
    void append([
      { kind: 'found', fault: top.fault, probability: top.probability },
      { kind: 'repaired', refs, note: words.title },
    ]).then(() => {
      go('power');
    });
  };
  return (
    <div className="row" style={{ flexWrap: 'nowrap', overflow: 'visible' }}>
      <p style={{ flex: 1 }}>
        {settled ? (
          <>
            <b>{words.title}</b> ({percent(top.probability)}). Supply off. {words.remedy} Change one thing, then measure this stage again.
          </>
        ) : findings.next && nextTarget && observableOfTarget(nextTarget) ? (
          <>
            <b>One more reading helps: {rowTitle(kit, findings.next.id)}.</b> Of all points left it is expected to tell most ({findings.next.bits.toFixed(1)}{' '}
            bits). About 20 seconds, board live at low voltage.
          </>
        ) : top.fault.kind === 'healthy' ? (
          <>
            <b>Nothing stands out.</b> Every reading so far fits a healthy board.
          </>
        ) : (
          <>
            <b>No further reading would separate these.</b> Look at the first one: {words.remedy}
          </>
        )}
      </p>
      {top.fault.kind !== 'healthy' && (
        <button type="button" className={settled ? 'zest' : 'plain'} onClick={found}>
          I found it
        </button>
      )}
    </div>
  );
}
