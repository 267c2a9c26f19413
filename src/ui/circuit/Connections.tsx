import { type Connection, connectionsOf, editConnection, removeConnection } from '@/core/circuit';
import { useMemo } from 'react';

const SHOWN = 300;

/** The circuit as a table: part, pins and nets. Every net and value can be changed without knowing SPICE. */
export function Connections({ deck, change }: { deck: string; change: (deck: string) => void }) {
  const rows = useMemo(() => connectionsOf(deck), [deck]);
  const nets = useMemo(() => [...new Set(rows.flatMap((r) => r.pins.map((p) => p.net)))], [rows]);
  if (rows.length === 0) return <p>Nothing is connected yet. Add a block, or write the deck on the left.</p>;
  return (
    <>
      <datalist id="nets">
        {nets.map((net) => (
          <option key={net} value={net} />
        ))}
      </datalist>
      <table className="shown connections">
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col">pins and nets</th>
            <th scope="col">value or model</th>
            <th scope="col">
              <span className="sr-only">remove</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, SHOWN).map((r) => (
            <Row key={r.name} row={r} deck={deck} change={change} />
          ))}
        </tbody>
      </table>
      {rows.length > SHOWN && <p className="soft">{rows.length - SHOWN} more parts stand in the deck on the left.</p>}
    </>
  );
}

function Row({ row, deck, change }: { row: Connection; deck: string; change: (deck: string) => void }) {
  const edit = (value: string, before: string, make: (clean: string) => string) => {
    const clean = value.trim();
    if (clean !== '' && clean !== before) change(make(clean));
  };
  return (
    <tr>
      <th scope="row" className="num">
        {row.name}
      </th>
      <td>
        {row.pins.map((p, i) => (
          <label key={i} className="pin">
            {p.pin}
            <input
              aria-label={`${row.name} ${p.pin}`}
              list="nets"
              defaultValue={p.net}
              key={p.net}
              maxLength={40}
              onBlur={(e) => {
                edit(e.target.value.replace(/\s/g, ''), p.net, (net) => editConnection(deck, row.name, { pin: i, net }));
              }}
            />
          </label>
        ))}
      </td>
      <td>
        <input
          aria-label={`${row.name} value`}
          defaultValue={row.rest}
          key={row.rest}
          maxLength={200}
          onBlur={(e) => {
            edit(e.target.value, row.rest, (rest) => editConnection(deck, row.name, { rest }));
          }}
        />
      </td>
      <td>
        <button
          type="button"
          className="chip"
          aria-label={`Remove ${row.name}`}
          onClick={() => {
            change(removeConnection(deck, row.name));
          }}
        >
          ×
        </button>
      </td>
    </tr>
  );
}
