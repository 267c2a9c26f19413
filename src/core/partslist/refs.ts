/** Separators between refs as lists print them. */
const SEPARATOR = /[\s,;、，；/+&]+/;
/** A board's name in front of its refs, in any script: `B:R7`, `主板:R7`. */
const BOARD = '(?:([\\p{L}\\p{N}]{1,8}):)?';
const RANGE = new RegExp(`^${BOARD}([A-Z]{1,5})(\\d{1,4})\\s*(?:-|–|~|\\.\\.|to|bis)\\s*(?:(?:[\\p{L}\\p{N}]{1,8}:)?[A-Z]{1,5})?(\\d{1,4})$`, 'iu');
const SINGLE = new RegExp(`^${BOARD}([A-Z]{1,5})(\\d{1,4}[A-Z]?)$`, 'iu');
const NUMBER_ONLY = /^\d{1,4}$/;
const LONGEST_RANGE = 200;

/**
 * Expands `R1-R4,R7` into single refs; `C2,14` means C2, C14. Null when something in the text is no ref.
 */
export function expandRefs(text: string): string[] | null {
  const glued = text.trim().replace(/\s*(-|–|~|\.\.)\s*/g, '$1');
  if (glued === '') return [];
  const refs: string[] = [];
  let letters = '';
  for (const word of glued.split(SEPARATOR).filter(Boolean)) {
    const more = expandWord(word.toUpperCase(), letters);
    if (!more) return null;
    refs.push(...more.refs);
    letters = more.letters;
  }
  return refs;
}

function expandWord(word: string, lettersBefore: string): { refs: string[]; letters: string } | null {
  const range = RANGE.exec(word);
  if (range) {
    const [, board, letters, from, to] = range as unknown as [string, string | undefined, string, string, string];
    const [a, b] = [Number(from), Number(to)];
    if (b < a || b - a > LONGEST_RANGE) return null;
    return { refs: Array.from({ length: b - a + 1 }, (_, i) => withBoard(board, `${letters}${a + i}`)), letters: withBoard(board, letters) };
  }
  const single = SINGLE.exec(word);
  if (single) return { refs: [withBoard(single[1], `${single[2]!}${single[3]!}`)], letters: withBoard(single[1], single[2]!) };
  if (NUMBER_ONLY.test(word) && lettersBefore !== '') return { refs: [`${lettersBefore}${word}`], letters: lettersBefore };
  return null;
}

const withBoard = (board: string | undefined, ref: string) => (board ? `${board}:${ref}` : ref);
