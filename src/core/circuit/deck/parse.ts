import { levelAt } from '../waveform';
import type { Diagnostic } from '../diagnostic';
import type { Model, ModelKind, Waveform } from '../netlist';
import { evaluate } from './expression';
import { type Card, type Token, lexDeck } from './lex';
import { MODEL_DEFAULTS, PARAM_ALIAS, PARAM_IRRELEVANT } from './models';
import { readSpiceNumber } from './number';

export type Scope = Record<string, number>;

/** One element card, its nodes and words separated but names and expressions not yet resolved. */
export interface ElementCard {
  readonly name: Token;
  readonly letter: string;
  readonly words: readonly Token[];
  readonly pairs: ReadonlyMap<string, Token>;
}

/** A sub-circuit (or the whole deck): its elements, models, own sub-circuits and parameters, unresolved. */
export interface Block {
  readonly name: string;
  readonly ports: readonly string[];
  readonly elements: ElementCard[];
  /** Lower-case names of the elements so far. */
  readonly names: Set<string>;
  readonly models: Map<string, Model>;
  readonly modelCards: Card[];
  readonly blocks: Map<string, Block>;
  readonly params: [Token, Token][];
  readonly initial: [Token, Token][];
}

export interface ParsedDeck {
  readonly title: string;
  readonly top: Block;
  readonly diagnostics: Diagnostic[];
}

const MODEL_KINDS: readonly ModelKind[] = ['D', 'NPN', 'PNP', 'NMOS', 'PMOS', 'NJF', 'PJF'];
const KNOWN_LETTERS = 'RCLVIDQMJEGX';
/** Cards that ask for an analysis or output: the bench asks its own questions. */
const IGNORED_CARDS = new Set([
  '.op',
  '.tran',
  '.ac',
  '.dc',
  '.print',
  '.plot',
  '.save',
  '.options',
  '.option',
  '.temp',
  '.control',
  '.endc',
  '.probe',
  '.meas',
  '.measure',
  '.width',
  '.global',
  '.nodeset',
  '.title',
]);

const newBlock = (name: string, ports: readonly string[]): Block => ({
  name,
  ports,
  elements: [],
  names: new Set(),
  models: new Map(),
  modelCards: [],
  blocks: new Map(),
  params: [],
  initial: [],
});

/** Reads the text of a deck into blocks. Never throws: everything not understood is a diagnostic with its place. */
export function parseDeck(text: string): ParsedDeck {
  const { title, cards, diagnostics } = lexDeck(text);
  const top = newBlock('', []);
  const open: Block[] = [top];
  for (const card of cards) {
    const head = card[0]!;
    if (head.text.startsWith('.')) readDotCard(card, open, diagnostics);
    else readElement(card, open[open.length - 1]!, diagnostics);
  }
  const unclosed = open[open.length - 1]!;
  if (unclosed !== top)
    diagnostics.push(problem(cards[cards.length - 1]![0]!, `.subckt ${unclosed.name} is never closed`, 'Add .ends after its last element.'));
  return { title, top, diagnostics };
}

export function problem(at: Token, message: string, remedy: string, severity: Diagnostic['severity'] = 'error'): Diagnostic {
  return { severity, line: at.line, column: at.column, length: Math.max(1, at.text.length), message, remedy };
}

function readDotCard(card: Card, open: Block[], diagnostics: Diagnostic[]): void {
  const head = card[0]!;
  const block = open[open.length - 1]!;
  switch (head.text.toLowerCase()) {
    case '.model':
      block.modelCards.push(card);
      return;
    case '.subckt':
      openBlock(card, open, diagnostics);
      return;
    case '.ends':
      if (open.length > 1) open.pop();
      else diagnostics.push(problem(head, '.ends without a .subckt', 'Remove it, or add the .subckt line above.'));
      return;
    case '.param':
    case '.params':
      block.params.push(...splitPairs(card.slice(1)).pairs);
      return;
    case '.ic':
      readInitial(card, block, diagnostics);
      return;
    case '.include':
    case '.inc':
    case '.lib':
      diagnostics.push(problem(head, `${head.text} names another file, which the bench cannot open`, 'Paste the text of that file into this deck.'));
      return;
    default:
      if (!IGNORED_CARDS.has(head.text.toLowerCase()))
        diagnostics.push(
          problem(
            head,
            `the card ${head.text} is not known and was left out`,
            'Remove it if it matters for the circuit, or rewrite it with plain parts.',
            'warning',
          ),
        );
  }
}

function openBlock(card: Card, open: Block[], diagnostics: Diagnostic[]): void {
  const name = card[1];
  if (!name) {
    diagnostics.push(problem(card[0]!, '.subckt has no name', 'Write .subckt NAME node node …'));
    return;
  }
  const { words, pairs } = splitPairs(card.slice(2));
  const ports = words.map((w) => w.text).filter((w) => !/^params:$/i.test(w));
  const block = newBlock(name.text, ports);
  block.params.push(...pairs);
  const parent = open[open.length - 1]!;
  if (parent.blocks.has(name.text.toLowerCase())) diagnostics.push(problem(name, `.subckt ${name.text} is there twice`, 'Keep one of the two.', 'warning'));
  parent.blocks.set(name.text.toLowerCase(), block);
  open.push(block);
}

/** `.ic V(a)=1 V(b)=2`: brackets are separators, so the tokens are V a = 1. */
function readInitial(card: Card, block: Block, diagnostics: Diagnostic[]): void {
  for (let i = 1; i + 3 < card.length + 0; i += 4) {
    const [letter, node, equals, value] = card.slice(i, i + 4);
    if (letter?.text.toLowerCase() !== 'v' || !node || equals?.text !== '=' || !value) {
      diagnostics.push(problem(card[i]!, `"${card[i]!.text}" is no start value`, 'Write .ic V(node)=value'));
      return;
    }
    block.initial.push([node, value]);
  }
}

/** Separates `a b x=1 y = 2` into words and pairs. */
function splitPairs(tokens: readonly Token[]): { words: Token[]; pairs: [Token, Token][] } {
  const words: Token[] = [];
  const pairs: [Token, Token][] = [];
  for (let i = 0; i < tokens.length; i++) {
    const value = tokens[i + 2];
    if (tokens[i + 1]?.text === '=' && value) {
      pairs.push([tokens[i]!, value]);
      i += 2;
    } else if (tokens[i]!.text !== '=') words.push(tokens[i]!);
  }
  return { words, pairs };
}

function readElement(card: Card, block: Block, diagnostics: Diagnostic[]): void {
  const name = card[0]!;
  const letter = name.text[0]!.toUpperCase();
  if (!KNOWN_LETTERS.includes(letter)) {
    diagnostics.push(
      problem(
        name,
        `"${name.text}" begins with ${letter}, a kind of part that the bench does not know; it was left out`,
        `Known first letters: ${KNOWN_LETTERS.split('').join(' ')}. Replace it by known parts, or start the line with * to make it a remark.`,
      ),
    );
    return;
  }
  if (block.names.has(name.text.toLowerCase())) {
    diagnostics.push(problem(name, `${name.text} is there twice`, 'Give each part its own name; the first one counts.'));
    return;
  }
  const { words, pairs } = splitPairs(card.slice(1));
  block.names.add(name.text.toLowerCase());
  block.elements.push({ name, letter, words, pairs: new Map(pairs.map(([k, v]) => [k.text.toLowerCase(), v])) });
}

/** The value of a token: a number, or an expression in braces or quotes. Pushes a diagnostic and returns null when it is neither. */
export function valueOf(token: Token | undefined, scope: Scope, owner: Token, diagnostics: Diagnostic[]): number | null {
  if (!token) {
    diagnostics.push(problem(owner, `${owner.text} has no value`, 'Write the value behind the nodes, such as 4.7k.'));
    return null;
  }
  const plain = readSpiceNumber(token.text);
  if (plain !== null) return plain;
  const inner = token.text.replace(/^[{']|[}']$/g, '');
  try {
    return evaluate(inner, scope);
  } catch (error) {
    diagnostics.push(problem(token, `${owner.text}: ${(error as Error).message}`, 'Write a number such as 4.7k, or define the name with .param.'));
    return null;
  }
}

/** Permittivity of silicon dioxide, F/m: KP follows from mobility and oxide when a level 1 card leaves it out (SPICE 3, from memory). */
const OXIDE_PERMITTIVITY = 3.9 * 8.854214871e-12;

/** Resolves the `.model` cards of a block, with defaults filled in. */
export function readModel(card: Card, scope: Scope, diagnostics: Diagnostic[]): Model | null {
  const [head, name, type, ...rest] = card;
  const kind = MODEL_KINDS.find((k) => k === type?.text.toUpperCase());
  if (!name || !type || !kind) {
    diagnostics.push(
      problem(type ?? head!, `the model type ${type ? `"${type.text}" is not known` : 'is missing'}`, `Known types: ${MODEL_KINDS.join(', ')}.`),
    );
    return null;
  }
  const params: Record<string, number> = { ...MODEL_DEFAULTS[kind] };
  const unused: string[] = [];
  for (const [key, token] of splitPairs(rest).pairs) {
    const upper = key.text.toUpperCase();
    const canonical = PARAM_ALIAS[upper] ?? upper;
    if (canonical === 'LEVEL' && token.text !== '1')
      diagnostics.push(problem(token, `model ${name.text}: level ${token.text} is not known`, 'Only level 1 is computed; the figures may be off.', 'warning'));
    if (!(canonical in MODEL_DEFAULTS[kind])) {
      if (!PARAM_IRRELEVANT.has(canonical)) unused.push(key.text);
      continue;
    }
    const value = valueOf(token, scope, name, diagnostics);
    if (value !== null) params[canonical] = value;
  }
  if (unused.length > 0)
    diagnostics.push(
      problem(
        name,
        `model ${name.text}: ${unused.join(', ')} ${unused.length > 1 ? 'are' : 'is'} not used here`,
        'The voltages are computed without it.',
        'warning',
      ),
    );
  const given = new Set(splitPairs(rest).pairs.map(([key]) => key.text.toUpperCase()));
  if (params['TOX'] && !given.has('KP')) params['KP'] = params['UO']! * 1e-4 * (OXIDE_PERMITTIVITY / params['TOX']);
  return { name: name.text, kind, params };
}

/** DC value and time course of a source card behind its nodes. */
export function readSource(
  words: readonly Token[],
  pairs: ReadonlyMap<string, Token>,
  scope: Scope,
  owner: Token,
  diagnostics: Diagnostic[],
): { dc: number; wave: Waveform | null } {
  let dc: number | null = null;
  let wave: Waveform | null = null;
  const dcPair = pairs.get('dc');
  if (dcPair) dc = valueOf(dcPair, scope, owner, diagnostics);
  for (let i = 0; i < words.length; i++) {
    const word = words[i]!.text.toLowerCase();
    if (word === 'dc') dc = valueOf(words[++i], scope, owner, diagnostics);
    else if (word === 'ac') {
      while (words[i + 1] && readSpiceNumber(words[i + 1]!.text) !== null) i++;
    } else if (word === 'sin' || word === 'pulse' || word === 'pwl') {
      const rest = words.slice(i + 1);
      const end = rest.findIndex((w) => /^(?:dc|ac)$/i.test(w.text));
      const numbers = (end < 0 ? rest : rest.slice(0, end)).map((w) => valueOf(w, scope, owner, diagnostics) ?? 0);
      wave = waveform(word, numbers);
      const wrong = wrongWave(wave, numbers.length);
      if (wrong) diagnostics.push(problem(words[i]!, `${owner.text}: ${wrong.message}`, wrong.remedy));
      i += numbers.length;
    } else if (i === 0) dc = valueOf(words[i], scope, owner, diagnostics);
    else
      diagnostics.push(
        problem(words[i]!, `${owner.text}: "${words[i]!.text}" is not expected`, 'Sources are written as DC value, SIN(…), PULSE(…) or PWL(…).'),
      );
  }
  return { dc: dc ?? (wave ? levelAt(wave, 0) : 0), wave };
}

/** What keeps a wave from being run. */
function wrongWave(wave: Waveform, given: number): { message: string; remedy: string } | null {
  if (wave.shape === 'sin' && wave.amplitude !== 0 && !(wave.frequency > 0))
    return { message: 'its wave has no frequency', remedy: 'Write SIN(offset amplitude hertz), such as SIN(0 17 50).' };
  if (wave.shape === 'pulse' && given >= 7 && !(wave.period > 0))
    return { message: 'its wave has a period of zero', remedy: 'Write PULSE(low high delay rise fall width period), all times in seconds.' };
  if (wave.shape === 'pwl' && wave.times.some((t, i) => i > 0 && t <= wave.times[i - 1]!))
    return { message: 'the times of its wave do not rise', remedy: 'Write PWL(time level time level …) with rising times.' };
  return null;
}

function waveform(word: 'sin' | 'pulse' | 'pwl', v: readonly number[]): Waveform {
  const at = (i: number, fallback = 0) => v[i] ?? fallback;
  if (word === 'sin') return { shape: 'sin', offset: at(0), amplitude: at(1), frequency: at(2), delay: at(3), damping: at(4), phase: at(5) };
  if (word === 'pulse')
    return { shape: 'pulse', low: at(0), high: at(1), delay: at(2), rise: at(3), fall: at(4), width: at(5, Infinity), period: at(6, Infinity) };
  const times = v.filter((_, i) => i % 2 === 0).slice(0, Math.floor(v.length / 2));
  return { shape: 'pwl', times, levels: v.filter((_, i) => i % 2 === 1) };
}
