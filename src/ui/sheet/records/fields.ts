import { parseQuantity, printNominal, type Unit } from '@/core/quantity';
import type { ProbePoint } from '@/core/kit';

/** A choice with its words. */
export interface Choice {
  readonly value: string;
  readonly label: string;
}

interface Labelled {
  readonly key: string;
  readonly label: string;
  /** What is said when it is left empty; optional without. */
  readonly required?: string;
  readonly hint?: string;
}

/** One field of a record: how it is asked for. What the form holds is text, as people write it. */
export type Field = Labelled &
  (
    | { readonly type: 'text' }
    | { readonly type: 'area' }
    /** Several texts, one a line; `K1-K8` and `A, B × left, right` stand for all of them. */
    | { readonly type: 'lines' }
    /** Pins by body, one body a line: `TO-92: C B E`; names with blanks in them are parted by commas. */
    | { readonly type: 'pins' }
    | { readonly type: 'quantity'; readonly unit: Unit | null }
    | { readonly type: 'count' }
    | { readonly type: 'number' }
    | { readonly type: 'flag' }
    | { readonly type: 'choice'; readonly options: readonly Choice[] }
    /** Free text with proposals. */
    | { readonly type: 'name'; readonly options: readonly string[] }
    /** Several names out of some, or new ones. */
    | { readonly type: 'names'; readonly options: readonly string[]; readonly mayBeAbsent?: true }
    /** Some of several, by their words. */
    | { readonly type: 'several'; readonly options: readonly Choice[]; readonly none: string }
    /** Two names. */
    | { readonly type: 'pair'; readonly options: readonly string[] }
    /** Where a probe goes. */
    | { readonly type: 'place'; readonly places: readonly string[] }
    /** Lower and upper limit; with `open` either may be left out. */
    | { readonly type: 'limits'; readonly unit: Unit | null; readonly open: boolean }
    /** A relative tolerance such as 5 % or −20/+80 %. */
    | { readonly type: 'tolerance' }
    | { readonly type: 'rows'; readonly of: readonly Field[]; readonly add: string; readonly initial?: Readonly<Record<string, unknown>> }
  );

/** What a form holds, by field. */
export type FormValues = Record<string, unknown>;
type Json = Readonly<Record<string, unknown>>;

/** A probe point as one writes it: `TP4`, `R5.2`, `ground`, or the net’s name behind a colon where a test point is called the same. */
export function placeText(p: ProbePoint): string {
  if ('testPoint' in p) return p.testPoint;
  if ('net' in p) return p.net === '0' ? 'ground' : p.net === '' ? '' : `net ${p.net}`;
  return `${p.ref}.${p.pin}`;
}

/** The point that a text means; null when it means none. `net` before a name tells a net from a test point. */
export function readPlace(text: string, testPoints: ReadonlySet<string>): ProbePoint | null {
  const word = text.trim();
  if (word === '') return null;
  if (/^(?:ground|gnd|0)$/i.test(word)) return { net: '0' };
  const net = /^net\s+(.+)$/i.exec(word);
  if (net) return { net: net[1]! };
  if (testPoints.has(word)) return { testPoint: word };
  const pin = /^(.+)\.([\w+-]+)$/.exec(word);
  return pin ? { ref: pin[1]!, pin: pin[2]! } : { net: word };
}

const quantityText = (value: unknown, unit: Unit | null) => (typeof value === 'number' ? printNominal(value, unit) : '');
const quantityOf = (text: unknown, unit: Unit | null): number | null => {
  const parsed = typeof text === 'string' && text.trim() !== '' ? parseQuantity(text, unit) : null;
  return parsed?.ok ? parsed.value : null;
};
const percent = (share: number) => Number((share * 100).toPrecision(6));

/** What the form holds for a record. */
export function valuesOf(fields: readonly Field[], record: Json): FormValues {
  return Object.fromEntries(fields.map((f) => [f.key, valueOf(f, record[f.key])]));
}

function valueOf(f: Field, value: unknown): unknown {
  switch (f.type) {
    case 'quantity':
      return quantityText(value, f.unit);
    case 'count':
    case 'number':
      return typeof value === 'number' ? String(value) : '';
    case 'flag':
      return value === true;
    case 'lines':
      return Array.isArray(value) ? (value as string[]).join('\n') : '';
    case 'pins':
      return Object.entries((value ?? {}) as Readonly<Record<string, readonly string[]>>)
        .map(([body, pins]) => `${body}: ${pins.join(pins.some((p) => p.includes(' ')) ? ', ' : ' ')}`)
        .join('\n');
    case 'names':
    case 'several':
      return Array.isArray(value) ? [...(value as string[])] : [];
    case 'pair':
      return Array.isArray(value) ? [...(value as string[])] : ['', ''];
    case 'place':
      return value ? placeText(value as ProbePoint) : '';
    case 'limits': {
      const [low, high] = Array.isArray(value)
        ? (value as (number | null)[])
        : value
          ? [(value as { low: number | null }).low, (value as { high: number | null }).high]
          : [];
      return [quantityText(low, f.unit), quantityText(high, f.unit)];
    }
    case 'tolerance': {
      const limits = value as readonly [number, number] | null | undefined;
      return limits ? (limits[0] === -limits[1] ? `${percent(limits[1])}` : `${percent(limits[0])}/+${percent(limits[1])}`) : '';
    }
    case 'rows':
      return ((value as Json[] | undefined) ?? []).map((row) => valuesOf(f.of, row));
    default:
      return value ?? '';
  }
}

const textOf = (value: unknown): string => (typeof value === 'string' ? value : typeof value === 'number' ? String(value) : '');

/** Fields of a record from what the form holds; those left empty are undefined, or null where the record wants a value. */
export function fieldsOf(
  fields: readonly Field[],
  values: FormValues,
  context: { readonly testPoints: ReadonlySet<string>; readonly nullable: ReadonlySet<string> },
): FormValues {
  return Object.fromEntries(
    fields.map((f) => {
      const read = readValue(f, values[f.key], context);
      return [f.key, read ?? (context.nullable.has(f.key) ? null : undefined)];
    }),
  );
}

function readValue(f: Field, value: unknown, context: { readonly testPoints: ReadonlySet<string>; readonly nullable: ReadonlySet<string> }): unknown {
  switch (f.type) {
    case 'quantity':
      return quantityOf(value, f.unit);
    case 'count':
    case 'number':
      return value === '' || value === undefined || value === null ? undefined : Number(textOf(value).replace(',', '.'));
    case 'flag':
      return value === true ? true : undefined;
    case 'lines': {
      const lines = linesOf(textOf(value));
      return lines.length > 0 ? lines : undefined;
    }
    case 'pins':
      return readPins(textOf(value)) ?? {};
    case 'names':
      return f.mayBeAbsent && ((value as readonly string[] | undefined) ?? []).length === 0 ? undefined : (value ?? []);
    case 'several':
      return ((value as readonly string[] | undefined) ?? []).length === 0 ? undefined : value;
    case 'pair':
      return value;
    case 'place':
      return readPlace(textOf(value), context.testPoints) ?? undefined;
    case 'limits': {
      const [low, high] = ((value as string[] | undefined) ?? []).map((t) => quantityOf(t, f.unit));
      if ((low ?? null) === null && (high ?? null) === null) return undefined;
      return f.open ? { low: low ?? null, high: high ?? null } : [low, high];
    }
    case 'tolerance':
      return readTolerance(textOf(value)) ?? undefined;
    case 'rows': {
      const rows = ((value as FormValues[] | undefined) ?? []).map((row) => dropEmpty(fieldsOf(f.of, row, { ...context, nullable: NOTHING })));
      return rows.length > 0 || f.required !== undefined ? rows : undefined;
    }
    default: {
      const text = typeof value === 'string' ? value.trim() : value;
      return text === '' ? undefined : text;
    }
  }
}
const NOTHING: ReadonlySet<string> = new Set();
const dropEmpty = (row: FormValues) => Object.fromEntries(Object.entries(row).filter(([, v]) => v !== undefined));

/** `5`, `±5 %`, `-20/+80` as shares; null when it is none. */
export function readTolerance(text: string): [number, number] | null {
  const words = text
    .replace(/[%±\s]/g, '')
    .replace(/,/g, '.')
    .replace(/−/g, '-');
  const both = /^(-?\d+(?:\.\d+)?)\/\+?(\d+(?:\.\d+)?)$/.exec(words);
  if (both) return [-Math.abs(Number(both[1])) / 100, Number(both[2]) / 100];
  return /^\d+(?:\.\d+)?$/.test(words) ? [-Number(words) / 100, Number(words) / 100] : null;
}

const MOST_OF_A_RANGE = 64;

/** Texts one a line; ranges and products written out. */
export function linesOf(text: string): string[] {
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .flatMap((line) => {
      const [left, right] = line.split(/\s+[×x]\s+/);
      if (right === undefined) return ranged(line);
      const columns = right.split(/\s*,\s*/).flatMap(ranged);
      return left!
        .split(/\s*,\s*/)
        .flatMap(ranged)
        .flatMap((row) => columns.map((column) => `${row} ${column}`));
    });
}

/** `K1-K8` or `K1-8` as eight names; anything else as it is. */
function ranged(word: string): string[] {
  const match = /^([A-Za-z_ ]*?)(\d{1,3})\s*[-–…]\s*(?:\1)?(\d{1,3})$/.exec(word);
  if (!match) return [word];
  const [from, to] = [Number(match[2]), Number(match[3])];
  return to > from && to - from < MOST_OF_A_RANGE ? Array.from({ length: to - from + 1 }, (_, i) => `${match[1]!}${from + i}`) : [word];
}

/** Pins by body from their text; null where a line has no body in front of its pins. */
function readPins(text: string): Record<string, string[]> | null {
  const lines = text
    .split('\n')
    .map((l) => l.trim())
    .filter(Boolean)
    .map((l) => /^([^:]+):\s*(.*)$/.exec(l));
  if (lines.some((l) => l === null)) return null;
  return Object.fromEntries(
    lines.map((l) => [
      l![1]!.trim(),
      l![2]!
        .split(l![2]!.includes(',') ? ',' : /\s+/)
        .map((p) => p.trim())
        .filter(Boolean),
    ]),
  );
}
