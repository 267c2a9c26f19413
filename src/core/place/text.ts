/** The text of a file's bytes: UTF-16 with its mark, else UTF-8 where the bytes are valid, else windows-1252. */
export function textOfBytes(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Lines of a text, without the mark of its encoding and without NUL characters. */
export function linesOfText(text: string): string[] {
  return text
    .replaceAll('\0', '')
    .replace(/^\ufeff/, '')
    .split(/\r\n|\n|\r/);
}

/** Letters and digits of a text in lower case: how column names and words are compared. */
export const bare = (text: string): string => wordsOf(text).join('');

/** Words of a text (runs of letters and digits) in lower case. */
export const wordsOf = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
