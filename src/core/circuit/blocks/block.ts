import { writeSpiceNumber } from '../deck/number';
import type { LibraryItem } from './library';

/** What a field of a block takes. */
export type FieldType = 'net' | 'ref' | 'ohm' | 'F' | 'H' | 'V' | 'A' | 'Hz' | 'share' | 'count' | 'degC' | 'colour' | 'state';

export interface BlockField {
  readonly key: string;
  readonly label: string;
  readonly type: FieldType;
  readonly initial: string | number;
}

/** Lines of deck, and the shared pieces that they need. */
export interface BlockText {
  readonly lines: readonly string[];
  readonly needs: readonly LibraryItem[];
}

type Values = Readonly<Record<string, string | number>>;

/** A correct piece of circuit that somebody fills in with refs and net names. */
export interface Block {
  readonly id: string;
  readonly title: string;
  readonly about: string;
  readonly fields: readonly BlockField[];
  build: (v: Values) => BlockText;
}

export const field = (key: string, label: string, type: FieldType, initial: string | number): BlockField => ({ key, label, type, initial });
export const net = (key: string, label: string, initial: string) => field(key, label, 'net', initial);
export const ref = (key: string, initial: string, label = initial) => field(key, label, 'ref', initial);
export const ohms = (key: string, label: string, initial: number) => field(key, label, 'ohm', initial);
export const n = (v: Values, key: string) => Number(v[key]);
export const s = (v: Values, key: string) => String(v[key]);
export const num = (value: number) => writeSpiceNumber(value);
export const text = (lines: readonly string[], ...needs: LibraryItem[]): BlockText => ({ lines, needs });

/** A two-terminal line: name, nets, value. */
export const two = (v: Values, name: string, a: string, b: string, value: number | string) =>
  `${s(v, name)} ${a} ${b} ${typeof value === 'number' ? num(value) : value}`;
/** Decks name parts by their letter; a ref with another first letter gets it in front. */
export const as = (letter: string, name: string) => (name[0]?.toUpperCase() === letter ? name : `${letter}${name}`);

export const GND = '0';
