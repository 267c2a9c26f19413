import type { Ref, Sheet } from '../kit';

/** A net with more parts than this feeds the board rather than linking two parts of one function (own figure). */
const MOST_OF_A_FUNCTION = 6;
const GROUND = '0';
/** Nodes of an element by its letter; of a sub-circuit all words but the last. */
const NODES: Readonly<Record<string, number>> = { r: 2, c: 2, l: 2, d: 2, v: 2, i: 2, q: 3, j: 3, m: 4, e: 4, g: 4 };

/**
 * Which element lies on which nets, told from the first words of a deck's lines. The order of fitting needs no more, and the bench
 * opens without the reader of decks.
 */
function netsInDeck(deck: string): ReadonlyMap<string, readonly string[]> {
  const [, ...lines] = deck.replace(/\r?\n\+/g, ' ').split(/\r?\n/);
  const found = new Map<string, readonly string[]>();
  let inside = false;
  for (const line of lines) {
    const words = line
      .replace(/[;$].*$/, '')
      .trim()
      .toLowerCase()
      .split(/[\s,()]+/)
      .filter((w) => w !== '' && !w.includes('='));
    const [name = ''] = words;
    if (name === '.subckt') inside = true;
    else if (name === '.ends') inside = false;
    else if (!inside) {
      const nodes = name.startsWith('x') ? words.slice(1, -1) : words.slice(1, 1 + (NODES[name[0] ?? ''] ?? 0));
      if (nodes.length > 1)
        found.set(
          name,
          nodes.map((n) => (n === 'gnd' ? GROUND : n)),
        );
    }
  }
  return found;
}

/** The element that stands for a ref: by its own name, or with the letter of its kind before it. */
function netsOfRef(deck: ReadonlyMap<string, readonly string[]>, ref: Ref, named: string | undefined): readonly string[] {
  const tried = named === undefined ? [ref, ...['x', 'r', 'd', 'q', 'm', 'l', 'c'].map((letter) => letter + ref)] : [named];
  const whole = tried.flatMap((t) => deck.get(t.toLowerCase()) ?? []);
  // A control is two halves, a sub-circuit of one's own several elements with one name before them.
  return whole.length > 0
    ? whole
    : tried.flatMap((t) => [...deck].flatMap(([name, nets]) => (name === `${t.toLowerCase()}a` || name === `${t.toLowerCase()}b` ? nets : [])));
}

/**
 * Blocks of a circuit: parts that hang together by nets other than ground, sources and much-used rails. Counted from the one
 * next to the supply.
 * @returns block by ref; refs without a place in the circuit are left out
 */
export function circuitBlocks(sheet: Pick<Sheet, 'lines'>, circuit: NonNullable<Sheet['circuit']>): ReadonlyMap<Ref, number> {
  const deck = netsInDeck(circuit.deck);
  const nets = new Map<Ref, ReadonlySet<string>>();
  for (const ref of sheet.lines.flatMap((l) => l.refs)) {
    const own = netsOfRef(deck, ref, circuit.elements?.[ref]);
    if (own.length > 0) nets.set(ref, new Set(own));
  }
  const onNet = new Map<string, Ref[]>();
  for (const [ref, own] of nets) for (const n of own) onNet.set(n, [...(onNet.get(n) ?? []), ref]);
  const sources = new Set([...deck].flatMap(([name, own]) => (name.startsWith('v') ? own : [])));
  const feeds = (net: string) => net === GROUND || sources.has(net) || (onNet.get(net)?.length ?? 0) > MOST_OF_A_FUNCTION;
  const distance = distances(nets, onNet, sources);
  const blockOf = new Map<Ref, number>();
  const blocks: { readonly refs: readonly Ref[]; readonly near: number }[] = [];
  for (const ref of nets.keys()) {
    if (blockOf.has(ref)) continue;
    const refs: Ref[] = [];
    const queue = [ref];
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      if (blockOf.has(at)) continue;
      blockOf.set(at, blocks.length);
      refs.push(at);
      for (const n of nets.get(at)!) if (!feeds(n)) queue.push(...onNet.get(n)!);
    }
    blocks.push({ refs, near: Math.min(...refs.map((r) => distance.get(r) ?? Infinity)) });
  }
  // What hangs on rails alone (decoupling) belongs to the supply.
  const order = blocks.map((b, i) => ({ ...b, i })).sort((a, b) => a.near - b.near || a.i - b.i);
  const supply = order.find((b) => b.refs.length > 1)?.i ?? 0;
  const rank = new Map(order.map((b, k) => [b.i, b.refs.length === 1 ? -1 : k]));
  return new Map([...blockOf].map(([ref, i]) => [ref, rank.get(i) === -1 ? rank.get(supply)! : rank.get(i)!]));
}

/** Steps from the sources over parts; ground leads nowhere. */
function distances(nets: ReadonlyMap<Ref, ReadonlySet<string>>, onNet: ReadonlyMap<string, readonly Ref[]>, sources: ReadonlySet<string>): Map<Ref, number> {
  const found = new Map<Ref, number>();
  const seen = new Set([GROUND]);
  let front = [...sources];
  for (let step = 0; front.length > 0; step++) {
    const next: string[] = [];
    for (const net of front) {
      if (seen.has(net)) continue;
      seen.add(net);
      for (const ref of onNet.get(net) ?? []) {
        if (!found.has(ref)) found.set(ref, step);
        next.push(...nets.get(ref)!);
      }
    }
    front = next;
  }
  return found;
}
