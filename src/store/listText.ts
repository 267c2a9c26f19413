import { analyse } from 'chardet';
import Papa from 'papaparse';

/** A list is never larger than this, bytes; larger files are something else. */
const MOST_BYTES = 8 * 1024 * 1024;

/**
 * Reads a list file: XLSX, or text in UTF-8, UTF-16, GB18030 or Windows-1252, found out by its bytes.
 * @throws Error with what is wrong with the file and what to do.
 */
export async function readListFile(file: File): Promise<{ readonly text: string; readonly encoding: string }> {
  if (file.size > MOST_BYTES)
    throw new Error(`${file.name} has ${(file.size / 1024 / 1024).toFixed(0)} MB: no parts list is that large. Save the sheet with the list alone.`);
  const bytes = new Uint8Array(await file.arrayBuffer());
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) return { text: await readWorkbook(file), encoding: 'XLSX' };
  return decodeText(bytes, file.name);
}

async function readWorkbook(file: File): Promise<string> {
  const { default: readXlsx } = await import('read-excel-file/browser');
  let sheets;
  try {
    sheets = await readXlsx(file);
  } catch {
    throw new Error(
      `${file.name} could not be read as XLSX: it is damaged, protected or another kind of archive. Save it as CSV, or copy the cells and paste them.`,
    );
  }
  const tables = sheets.map((s) =>
    s.data.map((row) => row.map((cell) => (cell === null ? '' : cell instanceof Date ? cell.toISOString().slice(0, 10) : String(cell)))),
  );
  const longest = tables.sort((a, b) => b.length - a.length)[0];
  if (!longest || longest.length === 0) throw new Error(`${file.name} has no filled sheet.`);
  return Papa.unparse(longest, { delimiter: '\t' });
}

/** Text of unknown encoding. Exported for tests. */
export function decodeText(bytes: Uint8Array, name: string): { text: string; encoding: string } {
  const marked = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  if (marked) return { text: new TextDecoder(marked).decode(bytes), encoding: marked };
  const sample = bytes.subarray(0, 4000);
  const zeros = sample.filter((b) => b === 0).length;
  if (zeros > sample.length / 4) return { text: new TextDecoder(sample[0] === 0 ? 'utf-16be' : 'utf-16le').decode(bytes), encoding: 'utf-16' };
  const control = sample.filter((b) => b < 9 || (b > 13 && b < 32)).length;
  if (control > sample.length / 50) throw new Error(`${name} is no text and no XLSX. Export the list as CSV, or copy it and paste it here.`);
  for (const encoding of ['utf-8', 'gb18030'] as const) {
    try {
      const text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
      if (encoding === 'utf-8' || mostlyChinese(text)) return { text, encoding };
    } catch {
      // Not this encoding: the next one is tried.
    }
  }
  const encoding = likelyEncoding(bytes);
  return { text: new TextDecoder(encoding).decode(bytes), encoding };
}

/** Encodings that lists come in, by the names that the detector gives them. */
const ENCODINGS: Readonly<Record<string, string>> = {
  Shift_JIS: 'shift_jis',
  'EUC-JP': 'euc-jp',
  Big5: 'big5',
  'EUC-KR': 'euc-kr',
  'windows-1251': 'windows-1251',
  'KOI8-R': 'koi8-r',
  'ISO-8859-5': 'iso-8859-5',
  'windows-1250': 'windows-1250',
  'ISO-8859-2': 'windows-1250',
  'windows-1252': 'windows-1252',
  'ISO-8859-1': 'windows-1252',
};

/** Lists are short and mostly figures: what the detector finds counts only when the text then holds words of such lists. */
function likelyEncoding(bytes: Uint8Array): string {
  const guesses = analyse(bytes).flatMap(({ name, confidence }) => (ENCODINGS[name] ? [{ encoding: ENCODINGS[name], confidence }] : []));
  const all = [...new Set([...guesses.map((g) => g.encoding), ...Object.values(ENCODINGS)])];
  const scored = all.flatMap((encoding) => {
    try {
      const text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
      const trust = Math.max(0, ...guesses.filter((g) => g.encoding === encoding).map((g) => g.confidence));
      const usual = encoding === 'windows-1252' ? USUAL_SCORE : 0;
      return [{ encoding, score: usual + trust + LIST_WORD_SCORE * listWords(text) - ODD_SCORE * oddities(text) }];
    } catch {
      return [];
    }
  });
  return scored.sort((a, b) => b.score - a.score)[0]?.encoding ?? 'windows-1252';
}

const LIST_WORD_SCORE = 60;
const ODD_SCORE = 8;
/** Where two encodings read the same letters, the commonest is meant. */
const USUAL_SCORE = 3;
/** Words of parts lists that need the letters of their language. */
const LIST_WORDS =
  /抵抗|コンデンサ|ダイオード|トランジスタ|電解|個|数量|резист|конденсат|транзист|диод|штук|шт\.|светодиод|номинал|обозначение|кол-во|микросхема|ilość|złącz|dławik|układ|świec|wartość|opór|błękit|żółt|zielon|résist|condensateur|référence|quantité|céramique|électro|über|stück|größe|grün|widerst|lötst|cerámic|electrolít|señal|cantidad|nº|µF|Ω|±|°C|電容|電阻|저항|콘덴서/giu;
const listWords = (text: string) => new Set(text.match(LIST_WORDS) ?? []).size;
/** Letters that no list has: wrong decoding makes them by the dozen. */
const oddities = (text: string) => (text.match(/[\u0080-\u009f\ufffd¤¦¨¬¸ÐÝÞðþ‡†]|[а-яё][А-ЯЁ]|[a-z][ÀÁÂÃÄÅÆÈÊËÌÍÎÏÒÔÕÙÛ]|[ｦ-ﾟ]{3,}/gu) ?? []).length;

/** Umlauts read as GB18030 give single rare characters; real Chinese text has many common ones. */
function mostlyChinese(text: string): boolean {
  const foreign = Array.from(text).filter((c) => c.codePointAt(0)! > 127);
  return (
    foreign.length > 0 &&
    foreign.filter((c) => /[电阻容感二极三管集成晶振个只数量位号值瓷片贴解发光色红绿黄蓝白、，（）：Ωµ插座板线开关元器件名称]/.test(c)).length >
      foreign.length / 3
  );
}
