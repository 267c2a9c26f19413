import type { Diagnostic } from '../diagnostic';
import { type Circuit, GROUND, type Model, type Part } from '../netlist';
import type { Token } from './lex';
import { type Block, type ElementCard, parseDeck, problem, readModel, readSource, type Scope, valueOf } from './parse';

const MAX_PARTS = 20_000;
const NODE_COUNT: Readonly<Record<string, number>> = { R: 2, C: 2, L: 2, V: 2, I: 2, D: 2, Q: 3, M: 4, J: 3, E: 4, G: 4 };

/** What is visible while a block is expanded: parameters, models and sub-circuits of this block and those around it. */
interface Frame {
  readonly prefix: string;
  readonly scope: Scope;
  readonly models: ReadonlyMap<string, Model>;
  readonly blocks: ReadonlyMap<string, Block>;
  readonly rename: (node: string) => string;
  /** Pin number of the outermost instance that a node of this block hangs on, or −1. */
  readonly portOf: (node: string) => number;
  /** Sub-circuits being expanded, outermost first: one that turns up again would never end. */
  readonly active: readonly Block[];
}

interface Output {
  readonly parts: Part[];
  readonly initial: Record<string, number>;
  readonly diagnostics: Diagnostic[];
  /** First spelling of every net, by its lower-case name. */
  readonly spelling: Map<string, string>;
}

/**
 * Reads a SPICE deck into a flat circuit. Elements R C L V I D Q M J E G X; `.model`, `.subckt`, `.param`, `.ic`.
 * The circuit holds whatever was understood; check `diagnostics` for errors before relying on it.
 */
export function readDeck(text: string): { circuit: Circuit; diagnostics: readonly Diagnostic[] } {
  const { title, top, diagnostics } = parseDeck(text);
  const out: Output = { parts: [], initial: {}, diagnostics, spelling: new Map([['gnd', GROUND]]) };
  const rename = (node: string) => spell(node, out.spelling);
  const outer: Frame = { prefix: '', scope: {}, models: new Map(), blocks: new Map(), rename, portOf: () => -1, active: [] };
  expand(top, outer, {}, out);
  if (out.parts.length === 0 && diagnostics.length === 0)
    diagnostics.push({
      severity: 'error',
      line: 1,
      column: 1,
      length: 1,
      message: 'no part was found',
      remedy: 'The first line of a deck is its title; parts follow from the second line on, such as "R1 in out 10k".',
    });
  if (out.parts.length > 0 && !out.parts.some((p) => p.nodes.includes(GROUND)))
    diagnostics.push({
      severity: 'warning',
      line: 1,
      column: 1,
      length: 1,
      message: 'nothing is connected to ground: no voltage has a place to be measured from',
      remedy: 'Call the net of the black probe 0 (or GND).',
    });
  return { circuit: { title, parts: out.parts, initial: out.initial }, diagnostics };
}

function spell(node: string, spelling: Map<string, string>): string {
  const key = node.toLowerCase();
  const known = spelling.get(key);
  if (known !== undefined) return known;
  spelling.set(key, node);
  return node;
}

function expand(block: Block, around: Frame, given: Scope, out: Output): void {
  const scope: Scope = { ...around.scope };
  for (const [key, token] of block.params) {
    const name = key.text.toLowerCase();
    const value = given[name] ?? valueOf(token, scope, key, out.diagnostics);
    if (value !== null) scope[name] = value;
  }
  const models = new Map(around.models);
  for (const card of block.modelCards) {
    const model = readModel(card, scope, out.diagnostics);
    if (model) models.set(model.name.toLowerCase(), model);
  }
  const frame: Frame = { ...around, scope, models, blocks: new Map([...around.blocks, ...block.blocks]) };
  for (const element of block.elements) {
    if (out.parts.length >= MAX_PARTS) {
      out.diagnostics.push(problem(element.name, `the circuit has more than ${MAX_PARTS} parts`, 'Split it into boards.'));
      return;
    }
    if (element.letter === 'X') expandInstance(element, frame, out);
    else addPart(element, frame, out);
  }
  for (const [node, token] of block.initial) {
    const value = valueOf(token, scope, node, out.diagnostics);
    if (value !== null) out.initial[frame.rename(node.text)] = value;
  }
}

function expandInstance(element: ElementCard, frame: Frame, out: Output): void {
  const words = element.words.filter((w) => !/^params:$/i.test(w.text));
  const type = words[words.length - 1];
  const block = type && frame.blocks.get(type.text.toLowerCase());
  if (!block) {
    out.diagnostics.push(
      problem(type ?? element.name, `${element.name.text}: no .subckt is called "${type?.text ?? ''}"`, 'Paste its .subckt … .ends text into the deck.'),
    );
    return;
  }
  const nodes = words.slice(0, -1).map((w) => w.text);
  if (nodes.length !== block.ports.length) {
    out.diagnostics.push(
      problem(
        element.name,
        `${element.name.text} has ${nodes.length} nodes, but ${block.name} has ${block.ports.length}`,
        'Give as many nodes as the .subckt line names.',
      ),
    );
    return;
  }
  if (frame.active.includes(block)) {
    out.diagnostics.push(problem(element.name, `${element.name.text}: the sub-circuit ${block.name} contains itself`, 'A sub-circuit must not use itself.'));
    return;
  }
  const prefix = `${frame.prefix}${element.name.text}.`;
  const ports = new Map(block.ports.map((port, i) => [port.toLowerCase(), frame.rename(nodes[i]!)]));
  const rename = (node: string) => {
    const key = node.toLowerCase();
    if (key === '0' || key === 'gnd') return GROUND;
    return ports.get(key) ?? spell(prefix + node, out.spelling);
  };
  const portOf = (node: string) => {
    const index = block.ports.findIndex((port) => port.toLowerCase() === node.toLowerCase());
    return index < 0 || frame.active.length === 0 ? index : frame.portOf(nodes[index]!);
  };
  const given: Scope = {};
  for (const [key, token] of element.pairs) {
    const value = valueOf(token, frame.scope, element.name, out.diagnostics);
    if (value !== null) given[key] = value;
  }
  expand(block, { prefix, scope: frame.scope, models: frame.models, blocks: frame.blocks, rename, portOf, active: [...frame.active, block] }, given, out);
}

function addPart(element: ElementCard, frame: Frame, out: Output): void {
  const { name, letter } = element;
  let count = NODE_COUNT[letter]!;
  // An optional substrate node of a bipolar transistor is accepted and ignored when a model name follows it.
  if (letter === 'Q' && element.words.length > 4 && frame.models.has(element.words[4]!.text.toLowerCase())) count = 4;
  const nodeTokens = element.words.slice(0, count);
  if (nodeTokens.length < count) {
    out.diagnostics.push(problem(name, `${name.text} needs ${count} nodes and has ${nodeTokens.length}`, 'Write the nodes behind the name.'));
    return;
  }
  const nodes = nodeTokens.map((t) => frame.rename(t.text)).slice(0, NODE_COUNT[letter]);
  const rest = element.words.slice(count);
  const part = makePart(element, frame.prefix + name.text, nodes, rest, frame, out.diagnostics);
  if (!part) return;
  out.parts.push(frame.active.length === 0 ? part : { ...part, ports: nodeTokens.slice(0, nodes.length).map((t) => frame.portOf(t.text)) });
}

function makePart(element: ElementCard, name: string, nodes: string[], rest: readonly Token[], frame: Frame, diagnostics: Diagnostic[]): Part | null {
  const { letter, pairs } = element;
  switch (letter) {
    case 'R':
    case 'C':
    case 'L': {
      const value = valueOf(rest[0] ?? pairs.get(letter.toLowerCase()), frame.scope, element.name, diagnostics);
      return value === null ? null : checkedValue({ name, kind: letter, nodes, value }, element, diagnostics);
    }
    case 'V':
    case 'I':
      return { name, kind: letter, nodes, ...readSource(rest, pairs, frame.scope, element.name, diagnostics) };
    case 'E':
    case 'G': {
      const gain = valueOf(rest[0], frame.scope, element.name, diagnostics);
      return gain === null ? null : { name, kind: letter, nodes, gain };
    }
    default:
      return semiconductor(element, name, nodes, rest, frame, diagnostics);
  }
}

function checkedValue<T extends Part & { value: number }>(part: T, element: ElementCard, diagnostics: Diagnostic[]): T | null {
  if (part.value > 0 || (part.kind === 'R' && part.value < 0)) return part;
  if (part.value === 0 && part.kind === 'R') return { ...part, value: 1e-3 };
  if (part.value === 0) return part;
  diagnostics.push(problem(element.name, `${element.name.text} has the value ${part.value}`, 'A capacitor or coil has a value of zero or more.'));
  return null;
}

const MODEL_TYPES: Readonly<Record<string, readonly string[]>> = { D: ['D'], Q: ['NPN', 'PNP'], M: ['NMOS', 'PMOS'], J: ['NJF', 'PJF'] };

function semiconductor(element: ElementCard, name: string, nodes: string[], rest: readonly Token[], frame: Frame, diagnostics: Diagnostic[]): Part | null {
  const token = rest[0];
  const model = token && frame.models.get(token.text.toLowerCase());
  const letter = element.letter as 'D' | 'Q' | 'M' | 'J';
  if (!model || !MODEL_TYPES[letter]!.includes(model.kind)) {
    const message = model
      ? `${element.name.text}: ${model.name} is a model of type ${model.kind}`
      : `${element.name.text}: no .model is called "${token?.text ?? ''}"`;
    diagnostics.push(problem(token ?? element.name, message, `Add a .model card of type ${MODEL_TYPES[letter]!.join(' or ')}.`));
    return null;
  }
  const pair = (key: string) => {
    const found = element.pairs.get(key);
    return found ? valueOf(found, frame.scope, element.name, diagnostics) : null;
  };
  const area = pair('area') ?? (rest[1] && letter !== 'M' ? valueOf(rest[1], frame.scope, element.name, diagnostics) : null) ?? 1;
  const multiple = pair('m') ?? 1;
  const scale = area * multiple * (letter === 'M' ? widthOverLength(pair, model) : 1);
  if (!(scale > 0)) {
    diagnostics.push(problem(element.name, `${element.name.text} has the size ${scale}`, 'Area, m, W and L must be greater than zero.'));
    return null;
  }
  return { name, kind: letter, nodes, model, scale, multiple };
}

function widthOverLength(pair: (key: string) => number | null, model: Model): number {
  const defaultSize = 1e-4;
  const w = pair('w') ?? (model.params['W'] || defaultSize);
  const l = pair('l') ?? (model.params['L'] || defaultSize);
  return w / (l - 2 * model.params['LD']!);
}
