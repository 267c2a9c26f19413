import type { Diagnostic } from '../diagnostic';

export interface Token {
  readonly text: string;
  readonly line: number;
  readonly column: number;
}

/** One card: a physical line with its `+` continuations, comments removed, cut into tokens. */
export type Card = readonly Token[];

const MAX_LINES = 200_000;
const MAX_CHARACTERS = 8_000_000;

/** Tokens: {expression}, 'expression', =, or a run without blanks, brackets, commas. Brackets and commas only separate. */
const TOKEN = /\{[^}]*\}?|'[^']*'?|=|[^\s(),={}']+/g;

/**
 * Cuts a deck into cards. The first line is the title, text after `.end` is ignored.
 * Comments: `*` in the first column, `;` or ` $ ` anywhere.
 */
export function lexDeck(text: string): { title: string; cards: Card[]; diagnostics: Diagnostic[] } {
  if (text.length > MAX_CHARACTERS) return refused(`the text has ${text.length} characters, more than ${MAX_CHARACTERS}`);
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/);
  if (lines.length > MAX_LINES) return refused(`the text has ${lines.length} lines, more than ${MAX_LINES}`);
  const cards: Token[][] = [];
  for (let i = 1; i < lines.length; i++) {
    const raw = stripComment(lines[i]!);
    const continued = /^\s*\+/.exec(raw);
    const tokens = tokenize(continued ? ' '.repeat(continued[0].length) + raw.slice(continued[0].length) : raw, i + 1);
    if (tokens.length === 0) continue;
    if (continued && cards.length > 0) cards[cards.length - 1]!.push(...tokens);
    else cards.push(tokens);
    if (/^\.end$/i.test(tokens[0]!.text)) {
      cards.pop();
      break;
    }
  }
  return { title: (lines[0] ?? '').trim(), cards, diagnostics: [] };
}

function refused(message: string) {
  const remedy = 'Cut it down to the circuit of the board.';
  return { title: '', cards: [], diagnostics: [{ severity: 'error' as const, line: 1, column: 1, length: 1, message, remedy }] };
}

function stripComment(line: string): string {
  if (/^\s*\*/.test(line)) return '';
  const cut = line.search(/;|\s\$(\s|$)/);
  return cut < 0 ? line : line.slice(0, cut);
}

function tokenize(line: string, lineNumber: number): Token[] {
  return [...line.matchAll(TOKEN)].map((m) => ({ text: m[0], line: lineNumber, column: m.index + 1 }));
}
