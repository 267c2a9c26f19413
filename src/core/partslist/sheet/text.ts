/** Marks that change the direction of writing, and other characters without a body. */
const BODILESS = /[\u200b-\u200f\u202a-\u202e\u2060\u2066-\u2069\ufeff]/g;

/** One way of writing for what is printed in many: full-width letters, Cyrillic units, the signs for micro and ohm. Tabs and runs of blanks stay. */
export const plain = (text: string): string =>
  text
    .replace(BODILESS, '')
    .normalize('NFKC')
    .replace(/[\u2126Ω]/g, 'Ω')
    .replace(/[μµ]/g, 'µ')
    .replace(/(?<=\d\s?)mu(?=[FH]|(?!\p{L}))/gu, 'µ')
    // Old lists: micro-micro and micro written out, halves of an ampere, thousands with a mark.
    .replace(/(?<=\d\s?)(?:MMFD?|mmfd?|uuF|µµF)(?!\p{L})/gu, 'pF')
    .replace(/(?<=\d\s?)(?:MFD|mfd|Mfd)(?!\p{L})/gu, 'µF')
    .replace(/(?<![\d.,/])([1-9])\/([1-9])(?=\s?A(?![\p{L}\d]))/gu, (_, over: string, under: string) => String(Number(over) / Number(under)))
    .replace(/(?<![\d.,])([1-9]\d{0,2})\.(\d{3})(?=\s?(?:[Oo]hm(?:s|ios?)?|OHMS?|Ω|pF|[uµ]F)(?!\p{L}))/gu, '$1$2')
    .replace(/[～〜]/g, '~')
    .replace(/[、，]/g, ',')
    .replace(/[；]/g, ';');

/** Columns that a text takes on paper set in a fixed pitch: East Asian letters take two. */
export function width(text: string): number {
  let columns = 0;
  for (const c of text) columns += WIDE.test(c) ? 2 : 1;
  return columns;
}
const WIDE = /[\u1100-\u115f\u2e80-\u303e\u3041-\u33ff\u3400-\u4dbf\u4e00-\u9fff\uac00-\ud7a3\uf900-\ufaff\ufe30-\ufe4f\uff00-\uff60\uffe0-\uffe6]/;

/** Marks between cells of one line, which no pattern crosses. */
export const CELL = ' ¦ ';
