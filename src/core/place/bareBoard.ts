import type { Placed, PlacedPad, PlacedPart, PlaceRemark } from './placed';

/**
 * Bare-board test netlist after IPC-D-356 and 356A (columns from memory). Columns count from 1:
 * 1–3 code, 4–17 net, 21–26 ref, 28–31 pin, 39–41 access, 42–57 place.
 */
const column = (line: string, from: number, to: number) => line.slice(from - 1, to);

const PLACE = /^X([+\- ]\d{6})Y([+\- ]\d{6})$/;
const SKIPPED = new Set(['367', '378', '379', '389']);
/** Millimetres of one count: CUST 0 and 2 are 0.0001 inch, CUST 1 and SI 0.001 mm. */
const INCH_COUNT = 0.00254;
const METRIC_COUNT = 0.001;

export const looksLikeBareBoard = (lines: readonly string[]): boolean => lines.some((l) => /^3[12]7/.test(l) && l[41] === 'X' && l[49] === 'Y');

export function readBareBoard(lines: readonly string[]): Placed {
  const findings: PlaceRemark[] = [];
  const names = new Map<string, string>();
  const found: { readonly pad: PlacedPad; readonly net: string }[] = [];
  let count = INCH_COUNT;
  let ended = false;
  for (let i = 0; i < lines.length && !ended; i++) {
    const line = lines[i]!;
    const code = column(line, 1, 3);
    if (line.trim() === '' || line.startsWith('C') || line.startsWith('0') || SKIPPED.has(code)) continue;
    if (code === '999') ended = true;
    else if (line.startsWith('P')) {
      count = countOf(line) ?? count;
      const name = /^P\s+NNAME\s*(\d+)\s+(\S.*)$/.exec(line);
      if (name) names.set(`NNAME${name[1]!}`, name[2]!.trim());
    } else {
      const read = code === '317' || code === '327' ? padOf(line, code) : null;
      if (!read)
        findings.push({ code: 'bad-row', line: i + 1, text: `Line ${i + 1} is no record that can be read: “${line.trim().slice(0, 60)}”. It is left out.` });
      else if (read.pad.ref !== '' && read.pad.ref !== 'VIA') found.push(read);
    }
  }
  if (!ended)
    findings.push({ code: 'no-end', text: 'The record 999 that ends such a file is missing: it may have been cut off. Compare the number of parts.' });
  const pads = found.map(({ pad, net }): PlacedPad => ({
    ...pad,
    net: names.get(net) ?? (net === '' || net === 'N/C' ? null : net),
    x: pad.x * count,
    y: pad.y * count,
  }));
  return { format: 'ipc-d-356', parts: partsOf(pads), pads, findings };
}

function countOf(line: string): number | null {
  const words = line.trim().split(/\s+/);
  if (words[1] !== 'UNITS') return null;
  if (words[2] === 'SI' || (words[2] === 'CUST' && words[3] === '1')) return METRIC_COUNT;
  return words[2] === 'CUST' ? INCH_COUNT : null;
}

/** A pad in counts of the file. */
function padOf(line: string, code: '317' | '327'): { pad: PlacedPad; net: string } | null {
  const place = PLACE.exec(column(line, 42, 57));
  const access = column(line, 39, 41).trim();
  if (!place || !/^(?:A\d\d)?$/.test(access)) return null;
  const side = access === '' ? (code === '317' ? 'both' : 'top') : access === 'A00' ? 'both' : access === 'A01' ? 'top' : 'bottom';
  const [x, y] = [Number(place[1]!.trim()), Number(place[2]!.trim())];
  return { net: column(line, 4, 17).trim(), pad: { ref: column(line, 21, 26).trim(), pin: column(line, 28, 31).trim(), net: null, x, y, side } };
}

/** One part a ref, in the middle of its pads; a bare board does not say where a part's zero lies. */
function partsOf(pads: readonly PlacedPad[]): PlacedPart[] {
  const byRef = new Map<string, PlacedPad[]>();
  for (const p of pads) {
    const own = byRef.get(p.ref.toLowerCase());
    if (own) own.push(p);
    else byRef.set(p.ref.toLowerCase(), [p]);
  }
  const middle = (of: readonly number[]) => (of.reduce((m, v) => Math.min(m, v), Infinity) + of.reduce((m, v) => Math.max(m, v), -Infinity)) / 2;
  return [...byRef.values()].map((own): PlacedPart => ({
    ref: own[0]!.ref,
    x: middle(own.map((p) => p.x)),
    y: middle(own.map((p) => p.y)),
    rotation: null,
    side: own.some((p) => p.side === 'bottom') && !own.some((p) => p.side === 'top') ? 'bottom' : 'top',
  }));
}

const MOST_COUNTS = 999_999;
const NET_WIDTH = 14;

/**
 * Pads as a bare-board netlist in 0.001 mm that `readBareBoard` reads back.
 * @throws Error for what the columns do not hold: refs above 6 or pins above 4 characters, places beyond ±999.999 mm
 */
export function writeBareBoard(pads: readonly PlacedPad[]): string {
  const names = new Map<string, string>();
  const netOf = (net: string | null): string => {
    if (net === null) return 'N/C';
    if (net.trim() === '' || /[\r\n\0]/.test(net)) throw new Error(`the net ${JSON.stringify(net.slice(0, 30))} cannot be written on one line`);
    if (net.length <= NET_WIDTH && !net.startsWith('NNAME') && net !== 'N/C') return net;
    const short = names.get(net) ?? `NNAME${names.size + 1}`;
    names.set(net, short);
    return short;
  };
  const records = pads.map((p) => {
    const access = p.side === 'both' ? 'A00' : p.side === 'top' ? 'A01' : 'A02';
    const head = `${p.side === 'both' ? '317' : '327'}${netOf(p.net).padEnd(NET_WIDTH)}   ${fitting(p.ref, 6, 'ref')}-${fitting(p.pin, 4, 'pin')}`;
    return `${head.padEnd(38)}${access}X${counts(p.x)}Y${counts(p.y)}`;
  });
  return ['P  UNITS CUST 1', ...[...names].map(([net, short]) => `P  ${short} ${net}`), ...records, '999'].map((l) => `${l}\n`).join('');
}

function fitting(text: string, width: number, what: 'ref' | 'pin'): string {
  const wrong = text.length > width || text !== text.trim() || /[\r\n\0]/.test(text) || (what === 'ref' && (text === '' || text === 'VIA'));
  if (wrong) throw new Error(`the ${what} ${JSON.stringify(text.slice(0, 30))} does not fit: such a file has ${width} columns for it`);
  return text.padEnd(width);
}

function counts(mm: number): string {
  const n = Math.round(mm * 1000);
  if (!(Math.abs(n) <= MOST_COUNTS)) throw new Error(`${mm} mm does not fit: such a file reaches from −999.999 to 999.999 mm`);
  return `${n < 0 ? '-' : '+'}${String(Math.abs(n)).padStart(6, '0')}`;
}
