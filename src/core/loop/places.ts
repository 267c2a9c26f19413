import { netsOf } from '../circuit';
import type { KitState } from '../kit';
import { circuitOf } from '../stage';
import { factsOf } from '../vocabulary';
import { lineTitle } from './lineWords';
import type { Phase } from './target';

/** Something of the kit that one can go to by its name. */
export interface Place {
  readonly id: string;
  readonly kind: 'part' | 'line' | 'check' | 'test point' | 'net';
  readonly title: string;
  readonly note: string;
  readonly phase: Phase;
  /** Targets to take into the hand there, the first that the phase has. */
  readonly targets: readonly string[];
  readonly net: string | null;
}

/** All parts, lines, checks, test points and nets of a kit. `phase` is where one stands: a part is shown there if it can be. */
export function placesOf(kit: KitState, phase: Phase): Place[] {
  const { lines, stages, testPoints } = kit.sheet;
  const partPhase: Phase = phase === 'fit' || phase === 'unpack' ? phase : 'check';
  const targetsOf = (lineId: string, index: number) => [
    `piece:${lineId}:${index}`,
    ...[...stages.map((s) => s.id), '~'].map((s) => `fit:${s}:${lineId}`),
    `count:${lineId}`,
  ];
  const circuit = circuitOf(kit.sheet);
  return [
    ...lines.flatMap((l) =>
      l.refs.map((ref, i): Place => ({
        id: `ref ${ref}`,
        kind: 'part',
        title: ref,
        note: lineTitle(l),
        phase: partPhase,
        targets: targetsOf(l.id, i),
        net: null,
      })),
    ),
    ...lines.map((l): Place => ({
      id: `line ${l.id}`,
      kind: 'line',
      title: lineTitle(l),
      note: l.refs.join(' ') || factsOf(l.kind).word,
      phase: partPhase === 'fit' ? 'fit' : 'unpack',
      targets: [`count:${l.id}`, ...targetsOf(l.id, 0)],
      net: null,
    })),
    ...stages.flatMap((s) =>
      s.checks.map((c): Place => ({
        id: `check ${s.id}/${c.id}`,
        kind: 'check',
        title: c.title,
        note: s.title,
        phase: 'power',
        targets: [`check:${s.id}:${c.id}`, `check:${s.id}:${c.id}:${c.what === 'observe' ? (c.channels?.[0] ?? '') : ''}`],
        net: null,
      })),
    ),
    ...testPoints.map((t): Place => ({ id: `point ${t.id}`, kind: 'test point', title: t.id, note: t.where, phase: 'circuit', targets: [], net: t.net })),
    ...netsOf(circuit)
      .filter((n) => !n.includes('.'))
      .map((net): Place => ({
        id: `net ${net}`,
        kind: 'net',
        title: net === '0' ? 'ground' : net,
        note: 'net',
        phase: 'circuit',
        targets: [],
        net,
      })),
  ];
}

/** 0 exact, 1 begins so, 2 a word of it begins so, 3 holds it; null where it does not fit. */
function fit(text: string, wanted: string): number | null {
  const t = text.toLowerCase();
  if (t === wanted) return 0;
  if (t.startsWith(wanted)) return 1;
  const at = t.indexOf(wanted);
  return at < 0 ? null : /[\s/(-]/.test(t[at - 1]!) ? 2 : 3;
}

/** What a typed text means, best first; all in their order while nothing is typed. */
export function findByName<T extends { readonly title: string; readonly note: string }>(all: readonly T[], text: string, most: number): T[] {
  const wanted = text.trim().toLowerCase();
  if (wanted === '') return all.slice(0, most);
  return all
    .flatMap((p, i) => {
      const own = fit(p.title, wanted);
      const note = fit(p.note, wanted);
      const rank = own ?? (note === null ? null : note + 4);
      return rank === null ? [] : [{ p, rank, i }];
    })
    .sort((a, b) => a.rank - b.rank || a.i - b.i)
    .slice(0, most)
    .map(({ p }) => p);
}
