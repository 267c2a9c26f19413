import { Table } from 'antd';
import { describeFault, describeFaults } from '@/core/fault';
import { expectationOf, type KitState } from '@/core/kit';
import { lineTitle, namingOf } from '@/core/loop';
import { print } from '@/core/quantity';
import { placeOf, unitOf } from '@/core/vocabulary';
import { type ResultOf, runner } from '@/store/results';
import { percent, rowTitle } from '../fault/words';
import { Working } from '../form/Working';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';

type Review = NonNullable<ResultOf<'practiceStanding'>['review']>;
type Played = ResultOf<'practicePlay'>;
type Step = Played['steps'][number];

/** The score of a round that is over, and the best way through it. */
export function PracticeReview({ kit, review, mended }: { kit: KitState; review: Review; mended: boolean }) {
  const { hidden, parcel, measured, leads, readings, pulled, risks } = review;
  const play = useResult('practicePlay', kit, undefined, hidden.length > 0);
  const played = play.value;
  return (
    <>
      <h3>{mended ? (hidden.length > 0 ? 'Found and repaired' : 'All found') : 'What was hidden'}</h3>
      <ul>
        {hidden.map((f) => {
          const words = describeFault(f, namingOf(kit)(f));
          return (
            <li key={words.title}>
              <b>{words.title}</b>: {words.cause}
            </li>
          );
        })}
        {parcel.map((p) => (
          <li key={`${p.line} ${p.what}`}>{parcelText(kit, p)}</li>
        ))}
        {leads !== null && (
          <li>
            The test leads added {print(leads.ohms, 'ohm', 2)} to every ohms reading:{' '}
            {leads.noticed ? 'the short test of the meter showed it.' : 'probes held together (the short test of the meter) would have shown it.'}
          </li>
        )}
        {hidden.length === 0 && parcel.length === 0 && <li>The board was in order.</li>}
      </ul>
      {hidden.length > 0 && (
        <p>
          <b>{readings}</b> readings on the board{played ? '; by its own advice the program takes ' : ''}
          {played && (
            <>
              <b>{played.steps.length}</b>, and then looks at {looksText(kit, played.looks)}
            </>
          )}
          .
        </p>
      )}
      {(play.state === 'working' || play.state === 'stale') && (
        <Working
          say="Playing the round by the program’s advice. An oscillating board takes up to a minute…"
          stop={() => {
            runner.stop('practicePlay');
          }}
        />
      )}
      {parcel.length > 0 && (
        <p>
          <b>{parcel.filter((p) => p.noticed).length}</b> of {parcel.length} found, with <b>{measured}</b> pieces measured.
        </p>
      )}
      {pulled.length > 0 && <p className={zones.caution}>Repaired without need: {pulled.join(', ')}.</p>}
      {risks.map((r) => (
        <p key={r} className={zones.caution}>
          Risky on a real board: {r}.
        </p>
      ))}
      {pulled.length === 0 && risks.length === 0 && <p>No needless repairs, no risks taken.</p>}
      {played && played.steps.length > 0 && (
        <Table<Step & { readonly number: number }>
          size="small"
          pagination={false}
          title={() => 'What the program would have read'}
          rowKey="number"
          dataSource={played.steps.map((s, i) => ({ ...s, number: i + 1 }))}
          columns={[
            { title: '', dataIndex: 'number' },
            { title: 'reading', key: 'reading', rowScope: 'row', render: (_, s) => rowTitle(kit, s.observable) },
            { title: 'shows', key: 'shows', align: 'right', render: (_, s) => <span className="num">{shown(kit, s)}</span> },
            {
              title: 'who leads',
              key: 'lead',
              render: (_, s) => s.lead && `${describeFaults(s.lead.faults, namingOf(kit)).title}, ${percent(s.lead.probability)}`,
            },
          ]}
        />
      )}
    </>
  );
}

/** What was wrong with one line of the parcel, and whether it was found. */
function parcelText(kit: KitState, { line: id, what, is, noticed }: Review['parcel'][number]): string {
  const line = kit.sheet.lines.find((l) => l.id === id);
  if (!line) return '';
  const name = lineTitle(line);
  const said =
    what === 'count'
      ? `${name}: ${is} in the bag instead of ${line.quantity}`
      : `${name}: ${line.quantity > 1 ? 'one of them' : 'it'} is ${print(is, expectationOf(line)?.unit ?? 'ohm', 3)}`;
  return `${said} (${noticed ? 'found' : 'not found'})`;
}

const looksText = (kit: KitState, looks: Played['looks']): string =>
  looks.map((l) => `${describeFaults(l.faults, namingOf(kit)).title}${l.right ? ' (right)' : ' (not this)'}`).join(', then ') || 'nothing';

function shown(kit: KitState, { observable, reading }: Step): string {
  if (reading === 'over') return 'OL';
  const place = placeOf(observable);
  const check = kit.sheet.stages.find((s) => s.id === place.stage)?.checks.find((c) => c.id === place.check);
  return print(reading, unitOf(check?.what === 'measure' ? check.mode : 'dcv'));
}
