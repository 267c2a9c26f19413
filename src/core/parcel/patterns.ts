import type { LoosePiece, ParcelLine, Sorted } from './model';

/** What happened to a bag, put together from shortages, spares and strangers. Lines by number. */
export type Pattern =
  | { readonly kind: 'wrong-value'; readonly line: number; readonly count: number; readonly pieces: readonly string[]; readonly decades: number | null }
  | { readonly kind: 'exchanged'; readonly missing: number; readonly surplus: number; readonly count: number }
  | { readonly kind: 'missing'; readonly line: number; readonly count: number }
  | { readonly kind: 'spare'; readonly line: number; readonly count: number }
  | { readonly kind: 'stranger'; readonly pieces: readonly string[] };

/** Values within this share count as one value. */
const SAME = 0.12;

/** Names what explains most first: a shortage and as many strangers of its kind, or as many spares of another line, are one event. */
export function namePatterns(pieces: readonly LoosePiece[], lines: readonly ParcelLine[], sorted: Sorted): Pattern[] {
  const patterns: Pattern[] = [];
  const missing = new Map(Object.entries(sorted.missing).map(([k, v]) => [Number(k), v]));
  const surplus = new Map(Object.entries(sorted.surplus).map(([k, v]) => [Number(k), v]));
  const strangers = pieces.filter((p) => sorted.strangers.includes(p.id));
  const lineOf = (n: number) => lines.find((l) => l.number === n)!;
  for (const group of groups(strangers)) {
    const short = [...missing].map(([n]) => lineOf(n)).filter((l) => l.kind === group[0]!.kind && missing.get(l.number)! >= group.length);
    const line = short.find((l) => decadesOff(group[0]!, l) !== null) ?? short.find((l) => missing.get(l.number) === group.length);
    const ids = group.map((p) => p.id);
    if (!line) {
      patterns.push({ kind: 'stranger', pieces: ids });
      continue;
    }
    takeFrom(missing, line.number, group.length);
    patterns.push({ kind: 'wrong-value', line: line.number, count: group.length, pieces: ids, decades: decadesOff(group[0]!, line) });
  }
  for (const [m, count] of [...missing]) {
    const spare = [...surplus].find(([s, extra]) => extra === count && lineOf(s).kind === lineOf(m).kind);
    if (!spare) continue;
    missing.delete(m);
    surplus.delete(spare[0]);
    patterns.push({ kind: 'exchanged', missing: m, surplus: spare[0], count });
  }
  for (const [line, count] of missing) patterns.push({ kind: 'missing', line, count });
  for (const [line, count] of surplus) patterns.push({ kind: 'spare', line, count });
  return patterns;
}

function takeFrom(counts: Map<number, number>, line: number, by: number): void {
  const left = counts.get(line)! - by;
  if (left > 0) counts.set(line, left);
  else counts.delete(line);
}

/** Strangers of one kind and about one value (or one printed type) belong together. */
function groups(strangers: readonly LoosePiece[]): LoosePiece[][] {
  const found: LoosePiece[][] = [];
  for (const p of strangers) {
    const group = found.find((g) => alike(g[0]!, p));
    if (group) group.push(p);
    else found.push([p]);
  }
  return found;
}

function alike(a: LoosePiece, b: LoosePiece): boolean {
  if (a.kind !== b.kind) return false;
  if (a.value === null || b.value === null) return String(a.marking) === String(b.marking);
  return Math.abs(Math.log(a.value / b.value)) < SAME;
}

/** Powers of ten between a stranger and the value it stands in for; null when it is no clean decade. */
function decadesOff(p: LoosePiece, line: ParcelLine): number | null {
  if (p.value === null || line.value === null || p.value <= 0) return null;
  const decades = Math.log10(p.value / line.value);
  const whole = Math.round(decades);
  return whole !== 0 && Math.abs(decades - whole) < 0.06 ? whole : null;
}
