import { factsOf } from '@/core/vocabulary';
import { type Column, type Columns, type PartsList, type TableRow } from '@/core/partslist';
import { printNominal, printTolerance } from '@/core/quantity';

const COLUMNS: readonly (readonly [Column, string])[] = [
  ['refs', 'positions'],
  ['board', 'board'],
  ['kind', 'what it is'],
  ['value', 'value'],
  ['tolerance', 'tolerance'],
  ['quantity', 'count'],
  ['package', 'body'],
  ['note', 'note'],
];
const SHOWN_ROWS = 8;
const SHOWN_LINES = 200;

interface Props {
  readonly rows: readonly TableRow[];
  readonly list: PartsList;
  readonly setColumns: (columns: Columns | null) => void;
}

/** How the list was understood: its columns, which can be corrected, and the lines that come of it. */
export function ListPreview({ rows, list, setColumns }: Props) {
  const width = Math.max(0, ...rows.slice(0, 50).map((r) => r.cells.length));
  const filled = rows.filter((r) => r.cells.some((c) => c.trim() !== ''));
  const choose = (index: number, name: Column | null) => {
    setColumns(Array.from({ length: width }, (_, i) => (i === index ? name : list.columns[i] === name ? null : (list.columns[i] ?? null))));
  };
  return (
    <section aria-label="How the list was read" style={{ marginTop: 16 }}>
      <h2 className="label">
        {list.way === 'table' ? 'Read as a table. Correct a column where it is wrong:' : 'Read as free lines, each with its own words.'}
      </h2>
      {width > 1 && (
        <div className="preview" tabIndex={0} role="region" aria-label="Columns">
          <table>
            <thead>
              <tr>
                {Array.from({ length: width }, (_, i) => (
                  <th key={i} scope="col">
                    <select
                      aria-label={`Column ${i + 1}`}
                      value={list.columns[i] ?? ''}
                      onChange={(e) => {
                        choose(i, e.target.value === '' ? null : (e.target.value as Column));
                      }}
                    >
                      <option value="">passed over</option>
                      {COLUMNS.map(([name, text]) => (
                        <option key={name} value={name}>
                          {text}
                        </option>
                      ))}
                    </select>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {filled.slice(0, SHOWN_ROWS).map((r, k) => (
                <tr key={r.line} className={k === list.heading ? 'soft' : ''}>
                  {Array.from({ length: width }, (_, i) => (
                    <td key={i}>{r.cells[i] ?? ''}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <div className="preview" tabIndex={0} role="region" aria-label="Lines understood">
        <table>
          <thead>
            <tr>
              <th scope="col">positions</th>
              <th scope="col">what it is</th>
              <th scope="col">value</th>
              <th scope="col">tolerance</th>
              <th scope="col">count</th>
            </tr>
          </thead>
          <tbody>
            {list.lines.slice(0, SHOWN_LINES).map((l) => (
              <tr key={l.id}>
                <td className="num">{l.refs.join(' ') || '–'}</td>
                <td>
                  {factsOf(l.kind).word}
                  {l.notFitted ? ', not fitted' : ''}
                  {l.option ? `, only with ${l.option.split('=')[0]!}` : ''}
                </td>
                <td className="num">{l.value !== null ? printNominal(l.value, factsOf(l.kind).unit) : (l.colour ?? l.type ?? l.label)}</td>
                <td className="num">{l.tolerance ? printTolerance(l.tolerance) : ''}</td>
                <td className="num">{l.quantity}</td>
              </tr>
            ))}
            {list.needs.map((n) => (
              <tr key={n.id}>
                <td>–</td>
                <td colSpan={3}>needed, not supplied: {n.text}</td>
                <td />
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
