import { Table } from 'antd';
import { describeFault, describeFaults } from '@/core/fault';
import { unitOfFault } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { placeOf, unitOf } from '@/core/vocabulary';
import type { ResultOf } from '@/store/results';
import { percent, rowTitle } from '../fault/words';
import zones from '../shell/zones.module.css';

type Review = NonNullable<ResultOf<'practiceStanding'>['review']>;
type Step = NonNullable<Review['played']>['steps'][number];

/** The score of a round that is over, and the best way through it. */
export function PracticeReview({ kit, review, mended }: { kit: KitState; review: Review; mended: boolean }) {
  const { hidden, pieces, leads, readings, played, pulled, risks } = review;
  return (
    <>
      <h3>{mended ? 'Found and mended' : 'This is what it was'}</h3>
      <ul>
        {hidden.map((f) => {
          const words = describeFault(f, unitOfFault(kit, f));
          return (
            <li key={words.title}>
              <b>{words.title}</b>: {words.cause}
            </li>
          );
        })}
        {pieces.wrong > 0 && (
          <li>
            {pieces.wrong} lines of the parcel were not as listed; {pieces.noticed} of them were counted or measured.
          </li>
        )}
        {leads !== null && <li>The test leads added {print(leads, 'ohm', 2)} to every ohms reading.</li>}
        {hidden.length === 0 && pieces.wrong === 0 && <li>The board was in order.</li>}
      </ul>
      {hidden.length > 0 && (
        <p>
          <b>{readings}</b> readings on the board{played ? '; by its own advice the program takes ' : ''}
          {played && (
            <>
              <b>{played.steps.length}</b>, and then looks at {looksText(kit, played.looks)}
            </>
          )}
          .{played === null && ' How many the program would take is not worked out: for a board that never rests that takes minutes.'}
        </p>
      )}
      {pulled.length > 0 && <p className={zones.caution}>Repaired without need: {pulled.join(', ')}.</p>}
      {risks.map((r) => (
        <p key={r} className={zones.caution}>
          On a real board this could have hurt: {r}.
        </p>
      ))}
      {pulled.length === 0 && risks.length === 0 && <p>Nothing was repaired without need, and nothing was risked.</p>}
      {played && played.steps.length > 0 && (
        <Table<Step & { readonly number: number }>
          size="small"
          pagination={false}
          title={() => 'The way by the program’s advice'}
          rowKey="number"
          dataSource={played.steps.map((s, i) => ({ ...s, number: i + 1 }))}
          columns={[
            { title: '', dataIndex: 'number' },
            { title: 'reading', key: 'reading', rowScope: 'row', render: (_, s) => rowTitle(kit, s.observable) },
            { title: 'shows', key: 'shows', align: 'right', render: (_, s) => <span className="num">{shown(kit, s)}</span> },
            {
              title: 'who leads',
              key: 'lead',
              render: (_, s) => s.lead && `${describeFaults(s.lead.faults, (f) => unitOfFault(kit, f)).title}, ${percent(s.lead.probability)}`,
            },
          ]}
        />
      )}
    </>
  );
}

const looksText = (kit: KitState, looks: NonNullable<Review['played']>['looks']): string =>
  looks.map((l) => `${describeFaults(l.faults, (f) => unitOfFault(kit, f)).title}${l.right ? ' (right)' : ' (not this)'}`).join(', then ') || 'nothing';

function shown(kit: KitState, { observable, reading }: Step): string {
  if (reading === 'over') return 'OL';
  const place = placeOf(observable);
  const check = kit.sheet.stages.find((s) => s.id === place.stage)?.checks.find((c) => c.id === place.check);
  return print(reading, unitOf(check?.what === 'measure' ? check.mode : 'dcv'));
}
