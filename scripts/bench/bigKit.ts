import { type Entry, type EntryBody, fold, type KitState, type Line, newKit, sheetWith, type Stage } from '../../src/core/kit';

const LINES = 300;
const ENTRIES = 5000;
const STAGES = 8;

const at = (n: number) => new Date(Date.UTC(2026, 0, 1) + n * 1000).toISOString();

const lineAt = (i: number): Line => ({
  id: `l${i}`,
  kind: 'resistor',
  label: `${i + 1} k`,
  value: 1000 * (i + 1),
  tolerance: [-0.05, 0.05],
  quantity: 3,
  refs: [0, 1, 2].map((k) => `R${3 * i + k + 1}`),
});

/** A ladder of eight resistors that the first lines name; the other parts hang on no circuit. */
const DECK = ['big', 'V1 n0 0 12', ...Array.from({ length: 8 }, (_, i) => `R${3 * i + 1} n${i} n${i + 1} ${i + 1}k`), 'R900 n8 0 10k', '.end'].join('\n');

const stageAt = (s: number): Stage => ({
  id: `s${s}`,
  title: `Stage ${s + 1}`,
  kind: s === 0 ? 'cold' : 'power',
  fits: Array.from({ length: LINES }, (_, i) => i)
    .filter((i) => i % STAGES === s)
    .flatMap((i) => lineAt(i).refs),
  supplies: s === 0 ? [] : [{ source: 'V1', volts: 12, limit: 0.1 }],
  checks: Array.from({ length: 12 }, (_, c) => ({
    id: `c${c}`,
    what: 'measure',
    title: `point ${c}`,
    mode: s === 0 ? 'ohms' : 'dcv',
    red: { net: `n${c % 9}` },
    black: { net: '0' },
  })),
});

/** What a builder of a large kit writes: counts, measurements, ticks, readings. */
function bodyAt(n: number): EntryBody {
  const i = n % LINES;
  switch (n % 4) {
    case 0:
      return { kind: 'counted', line: `l${i}`, quantity: 3 };
    case 3:
      return { kind: 'read', stage: `s${n % STAGES}`, check: `c${n % 12}`, reading: 5 + (n % 7), meter: 'handheld' };
    default:
      return {
        kind: 'measured',
        line: `l${i}`,
        piece: n % 3,
        ref: `R${3 * i + (n % 3) + 1}`,
        mode: 'ohms',
        reading: 1000 * (i + 1) * (1 + 0.001 * (n % 9)),
        meter: 'handheld',
      };
  }
}

/** A kit of 300 lines and 5 000 entries. */
export function bigKit(): KitState {
  const sheet = sheetWith({
    title: 'Large kit',
    lines: Array.from({ length: LINES }, (_, i) => lineAt(i)),
    circuit: { deck: DECK, neighbours: [] },
    stages: Array.from({ length: STAGES }, (_, s) => stageAt(s)),
  });
  const start = newKit(sheet, { id: 'big', at: at(0) });
  const entries = Array.from({ length: ENTRIES - start.log.length }, (_, n) => entryAt(n));
  return fold(start.id, start.created, [...start.log, ...entries]);
}

const entryAt = (n: number): Entry => ({ ...bodyAt(n), id: `e${String(n).padStart(6, '0')}`, at: at(n + 1) });
/** One more entry behind all others. */
export const nextEntry = (kit: KitState, n: number): Entry => ({ ...bodyAt(4 * n + 1), id: `z${n}`, at: at(kit.log.length + 10 + n) });
