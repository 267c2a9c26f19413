/** How the cells of a line are parted; `wide`: at two or more blanks. */
export type Separator = '\t' | ';' | ',' | 'blank' | 'wide';

const isBlank = (c: string | undefined) => c === ' ' || c === '\t';

/**
 * Cells of one line, trimmed. A quote at the start of a cell opens one that may hold the separator, and a doubled quote for a
 * quote.
 * @returns null where a quote is not closed on the line
 */
export function cellsOf(line: string, separator: Separator): string[] | null {
  const byBlanks = separator === 'blank' || separator === 'wide';
  const text = byBlanks ? line.trim() : line;
  const skip = (at: number) => {
    while (at < text.length && text[at] !== separator && /\s/.test(text[at]!)) at++;
    return at;
  };
  /** Where the separator that begins here ends; −1 if none begins here. */
  const endOfSeparator = (at: number): number => {
    if (!byBlanks) return text[at] === separator ? at + 1 : -1;
    let end = at;
    while (isBlank(text[end])) end++;
    return end - at >= (separator === 'wide' ? 2 : 1) ? end : -1;
  };
  const cells: string[] = [];
  let at = 0;
  for (;;) {
    let cell = '';
    const start = skip(at);
    if (text[start] === '"') {
      const closing = closingQuote(text, start + 1);
      if (closing < 0) return null;
      cell = text.slice(start + 1, closing).replaceAll('""', '"');
      at = closing + 1;
    }
    const from = at;
    let next = -1;
    while (at < text.length && (next = endOfSeparator(at)) < 0) at++;
    cells.push((cell + text.slice(from, at)).trim());
    if (at >= text.length) return cells;
    at = next;
  }
}

function closingQuote(text: string, from: number): number {
  for (let at = text.indexOf('"', from); at >= 0; at = text.indexOf('"', at + 2)) if (text[at + 1] !== '"') return at;
  return -1;
}
