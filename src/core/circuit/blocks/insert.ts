import type { BlockText } from './block';

/** A deck with a block put in front of its `.end`, and the models that it needs added once. */
export function insertBlock(deck: string, block: BlockText): string {
  const base = deck.trim() === '' ? 'My board' : deck.replace(/\s+$/, '');
  const [body, end] = splitEnd(base);
  const missing = block.needs.filter((need) => !new RegExp(`^\\s*\\.(?:model|subckt)\\s+${need.name}\\b`, 'im').test(body));
  return [body, ...block.lines, ...missing.map((m) => m.text), end || '.end', ''].join('\n');
}

function splitEnd(deck: string): [string, string] {
  const match = /^\s*\.end\s*$/im.exec(deck);
  return match ? [deck.slice(0, match.index).replace(/\s+$/, ''), deck.slice(match.index).trim()] : [deck, ''];
}
