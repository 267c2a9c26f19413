import { readSpiceNumber } from './number';

type Scope = Readonly<Record<string, number>>;

const FUNCTIONS: Readonly<Record<string, (...args: number[]) => number>> = {
  sqrt: Math.sqrt,
  exp: Math.exp,
  ln: Math.log,
  log: Math.log,
  log10: Math.log10,
  abs: Math.abs,
  min: Math.min,
  max: Math.max,
  pow: Math.pow,
  sin: Math.sin,
  cos: Math.cos,
};

const CONSTANTS: Scope = { pi: Math.PI };
const PIECE = /\s*(?:((?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?[a-zµμ]*)|([a-z_][\w.]*)|(\*\*|[-+*/^(),]))/iy;

/**
 * Evaluates a `.param` expression: + − × ÷ ^ (or **), brackets, a few functions, names from `scope` (lower case keys).
 * @throws Error that names the offending piece.
 */
export function evaluate(text: string, scope: Scope): number {
  const pieces = cut(text);
  let at = 0;
  const peek = () => pieces[at];
  const take = () => pieces[at++];

  function sum(): number {
    let left = product();
    while (peek() === '+' || peek() === '-') left = take() === '+' ? left + product() : left - product();
    return left;
  }
  function product(): number {
    let left = signed();
    while (peek() === '*' || peek() === '/') left = take() === '*' ? left * signed() : left / signed();
    return left;
  }
  function signed(): number {
    if (peek() !== '-' && peek() !== '+') return power();
    return take() === '-' ? -signed() : signed();
  }
  function power(): number {
    const base = atom();
    if (peek() !== '^' && peek() !== '**') return base;
    take();
    return base ** signed();
  }
  function atom(): number {
    const piece = take();
    if (piece === undefined) throw new Error(`"${text}" ends too early`);
    if (piece === '(') return closing(sum());
    const number = readSpiceNumber(piece);
    if (number !== null) return number;
    const name = piece.toLowerCase();
    const fn = FUNCTIONS[name];
    if (fn && peek() === '(') return call(fn);
    const value = scope[name] ?? CONSTANTS[name];
    if (value === undefined) throw new Error(`"${piece}" is not a parameter of this deck`);
    return value;
  }
  function call(fn: (...args: number[]) => number): number {
    take();
    const args = [sum()];
    while (peek() === ',') {
      take();
      args.push(sum());
    }
    return closing(fn(...args));
  }
  function closing(value: number): number {
    if (take() !== ')') throw new Error(`a bracket is not closed in "${text}"`);
    return value;
  }

  const value = sum();
  if (at < pieces.length) throw new Error(`"${peek() ?? ''}" is not expected in "${text}"`);
  if (!Number.isFinite(value)) throw new Error(`"${text}" has no finite value`);
  return value;
}

function cut(text: string): string[] {
  const pieces: string[] = [];
  PIECE.lastIndex = 0;
  while (PIECE.lastIndex < text.trimEnd().length) {
    const from = PIECE.lastIndex;
    const match = PIECE.exec(text);
    if (!match) throw new Error(`"${text.slice(from).trim()}" cannot be read`);
    pieces.push(match[1] ?? match[2] ?? match[3] ?? '');
  }
  return pieces;
}
