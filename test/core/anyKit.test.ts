/** Kits that nobody has seen before: whatever a builder makes, the frame, the tray, the map and the logbook say something true of it. */
import fc from 'fast-check';
import { deriveTray, type EntryBody, extend, type KitState, type Line, type LineKind, newKit, sheetWith, type Stage } from '@/core/kit';
import {
  checkTargets,
  countTargets,
  entryText,
  findByName,
  firstOpenPhase,
  everythingFitted,
  lineTitle,
  logSteps,
  phaseProgress,
  PHASES,
  pieceTargets,
  placesOf,
  sellerWords,
  standingOf,
  withdrawalOf,
} from '@/core/loop';
import { factsOf, LINE_KINDS, packageOf } from '@/core/vocabulary';
import { overlaps, placeParts } from '@/ui/board/layout';
import { at } from '../support/kits';

const WORDS = ['10 k', '瓷片电容 104', 'Электролит', 'BC547', 'DIP-16', '', 'LED 5 mm', '100 µF/25V', 'NE555 8 pins', 'something', '🔌 adapter', '0805'];
const BOARDS = ['', 'MAST:', 'DIAL:'];
const VALUES: Readonly<Partial<Record<string, readonly number[]>>> = {
  ohm: [0, 0.47, 4700, 1e6],
  F: [1e-11, 1e-7, 4.7e-4],
  H: [1e-4],
  V: [0.6, 5.6],
  Hz: [32768, 16e6],
};

/** A line as any list may have it: with or without value, positions, package, on any board. */
const lineArb = (i: number): fc.Arbitrary<Line> =>
  fc
    .record({
      kind: fc.constantFrom<LineKind>(...LINE_KINDS),
      label: fc.constantFrom(...WORDS),
      package: fc.option(fc.constantFrom('0805', 'TO-92', 'DIP-8', 'SOT-23', 'TO-220-5', 'weird'), { nil: undefined }),
      board: fc.constantFrom(...BOARDS),
      count: fc.integer({ min: 0, max: 4 }),
      quantity: fc.integer({ min: 0, max: 6 }),
      notFitted: fc.option(fc.constant(true as const), { nil: undefined }),
      pick: fc.nat(20),
    })
    .map(({ kind, board, count, pick, package: pack, notFitted, ...rest }) => {
      const values = VALUES[factsOf(kind).unit ?? ''] ?? [];
      return {
        id: `l${i}`,
        kind,
        value: values.length > 0 && pick % 4 > 0 ? values[pick % values.length]! : null,
        tolerance: null,
        refs: Array.from({ length: count }, (_, k) => `${board}X${10 * i + k}`),
        ...rest,
        ...(pack ? { package: pack } : {}),
        ...(notFitted ? { notFitted } : {}),
      };
    });

const stageArb = (lines: readonly Line[], i: number): fc.Arbitrary<Stage> =>
  fc
    .record({ powered: fc.boolean(), checks: fc.integer({ min: 0, max: 3 }), fits: fc.subarray(lines.flatMap((l) => [...l.refs])) })
    .map(({ powered, checks, fits }) => ({
      id: `s${i}`,
      title: `Stage ${i}`,
      kind: powered ? 'power' : 'look',
      fits,
      supplies: [],
      checks: Array.from({ length: checks }, (_, c) => ({
        id: `c${c}`,
        what: 'observe' as const,
        title: `look ${c}`,
        action: 'Look.',
        expect: 'as it should be',
      })),
    }));

const kitArb: fc.Arbitrary<KitState> = fc
  .integer({ min: 0, max: 8 })
  .chain((n) => fc.tuple(...Array.from({ length: n }, (_, i) => lineArb(i))))
  .chain((lines) =>
    fc.integer({ min: 0, max: 3 }).chain((n) => fc.tuple(fc.constant(lines), fc.tuple(...Array.from({ length: n }, (_, i) => stageArb(lines, i))))),
  )
  .map(([lines, stages]) => newKit(sheetWith({ title: 'Made up just now', lines, stages: stages }), at(0)));

/** Entries that somebody may write on such a kit, chosen by numbers. */
function bodyOn(kit: KitState, dice: number): EntryBody {
  const { lines } = kit.sheet;
  const line = lines[dice % Math.max(1, lines.length)];
  if (!line || dice % 5 === 4) return { kind: 'noted', text: `note ${dice}` };
  if (dice % 5 === 3 && line.refs.length > 0) return { kind: 'fitted', refs: [...line.refs] };
  return { kind: 'counted', line: line.id, quantity: dice % 7 };
}
const worked = (kit: KitState, dice: readonly number[]) => dice.reduce((k, d, i) => extend(k, { ...bodyOn(k, d), ...at(i + 1) }), kit);
const diceArb = fc.array(fc.nat(1000), { maxLength: 12 });

const RUNS = { numRuns: 150 };

test('every line has a title in words, and a body that can be drawn', () => {
  fc.assert(
    fc.property(kitArb, (kit) => {
      for (const l of kit.sheet.lines) {
        expect(lineTitle(l)).toMatch(/\S/);
        expect(lineTitle(l)).not.toMatch(/NaN|undefined|null/);
        expect([null, l.label]).toContain(sellerWords(l));
        const { width, height, pads } = packageOf(l);
        expect([width, height, ...pads.flatMap((p) => [p.x, p.y])].every(Number.isFinite)).toBe(true);
      }
    }),
    RUNS,
  );
});

test('progress adds up with the targets, and nothing is done that has nothing to do', () => {
  fc.assert(
    fc.property(kitArb, diceArb, (start, dice) => {
      const kit = worked(start, dice);
      const progress = phaseProgress(kit, {});
      for (const [phase, targets] of [
        ['unpack', countTargets(kit)],
        ['check', pieceTargets(kit)],
        ['fit', everythingFitted(kit)],
      ] as const) {
        const left = targets.filter((t) => !t.done).length;
        expect(progress[phase]).toMatchObject({ left, total: targets.length, state: targets.length === 0 ? 'nothing' : left === 0 ? 'done' : 'open' });
      }
      expect(PHASES.every((p) => progress[p].left <= progress[p].total)).toBe(true);
      const first = firstOpenPhase(kit, {});
      if (PHASES.some((p) => progress[p].state === 'open')) expect(progress[first as (typeof PHASES)[number]].state).toBe('open');
      expect(standingOf(kit).phase).toBe(first);
      expect(standingOf(kit).next).toMatch(/\S/);
    }),
    RUNS,
  );
});

test('every part and every check can be gone to by its name, and leads to a target that exists', () => {
  fc.assert(
    fc.property(kitArb, (kit) => {
      const places = placesOf(kit, 'check');
      expect(new Set(places.map((p) => p.id)).size).toBe(places.length);
      for (const ref of kit.sheet.lines.flatMap((l) => l.refs)) expect(findByName(places, ref, 3).map((p) => p.title)).toContain(ref);
      for (const p of places.filter((x) => x.kind === 'check')) {
        const ids = checkTargets(kit, {}, p.targets).map((t) => t.target.id);
        expect(ids.some((id) => p.targets.includes(id))).toBe(true);
      }
    }),
    RUNS,
  );
});

test('parts that nobody placed lie beside each other on the map, none on another', () => {
  fc.assert(
    fc.property(kitArb, (kit) => {
      const parts = placeParts(kit.sheet);
      expect(parts.map((p) => p.ref).sort()).toEqual([...new Set(kit.sheet.lines.flatMap((l) => l.refs))].sort());
      for (const [i, a] of parts.entries()) for (const b of parts.slice(i + 1)) expect(overlaps(a, b, 0.01)).toBe(false);
    }),
    RUNS,
  );
});

test('the logbook holds every step once, in words; a step that is taken back comes back', () => {
  fc.assert(
    fc.property(kitArb, fc.array(fc.nat(1000), { minLength: 1, maxLength: 12 }), fc.nat(), (start, dice, which) => {
      const kit = worked(start, dice);
      const steps = logSteps(kit).filter((s) => !s.making);
      expect(steps).toHaveLength(dice.length);
      expect(steps.every((s) => s.text.length > 0 && !/NaN|undefined/.test(s.text))).toBe(true);
      const step = steps[which % steps.length]!;
      expect(step.text).toBe(entryText(kit, step.entries[0]!));
      const without = extend(kit, { kind: 'withdrawn', entry: step.id, ...at(90) });
      const gone = logSteps(without).find((s) => s.id === step.id)!;
      expect(gone.gone).toBe(true);
      const back = extend(without, { kind: 'withdrawn', entry: withdrawalOf(without, gone)!.id, ...at(91) });
      expect(logSteps(back).find((s) => s.id === step.id)!.gone).toBe(false);
      expect(deriveTray(back)).toEqual(deriveTray(kit));
    }),
    RUNS,
  );
});
