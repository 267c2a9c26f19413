/** Laws of what is compared and taken over: decks part by part, lists line by line; figures and their help; states of a stage. */
import fc from 'fast-check';
import { compareDecks, connectionsOf, findSourceLoop, readDeck, takeDifference } from '@/core/circuit';
import { acceptDifference, diffLines } from '@/core/draft';
import { figuresOf, type Line, sheetWith, type Stage } from '@/core/kit';
import { figureHelp } from '@/core/loop';
import { statesOf } from '@/core/stage/scene';
import { factsOf, LINE_KINDS } from '@/core/vocabulary';
import { kitOf, log } from '../support/kits';

const net = fc.constantFrom('a', 'b', 'c', '0');
const card = fc
  .tuple(fc.integer({ min: 1, max: 6 }), net, net, fc.integer({ min: 1, max: 99 }))
  .map(([n, x, y, v]) => [`R${n}`, `R${n} ${x} ${y} ${v}k`] as const);
const deck = fc.array(card, { minLength: 1, maxLength: 8 }).map((cards) => `t\nV1 a 0 9\n${[...new Map(cards).values()].join('\n')}\n.end\n`);

describe('decks', () => {
  test('law: every difference taken over, in any order, makes the other deck', () => {
    fc.assert(
      fc.property(deck, deck, fc.nat(1000), (before, after, turn) => {
        const all = compareDecks(before, after);
        const order = [...all.slice(turn % (all.length + 1)), ...all.slice(0, turn % (all.length + 1))];
        const taken = order.reduce(takeDifference, before);
        expect(compareDecks(taken, after)).toEqual([]);
        expect(
          connectionsOf(taken)
            .map((c) => c.name)
            .sort(),
        ).toEqual(
          connectionsOf(after)
            .map((c) => c.name)
            .sort(),
        );
      }),
    );
  });
  test('law: a deck does not differ from itself, however its spaces and capitals stand', () => {
    fc.assert(
      fc.property(deck, (text) => {
        expect(compareDecks(text, text.toUpperCase().replace(/ /g, '   '))).toEqual([]);
      }),
    );
  });
});

describe('sources and coils in a ring', () => {
  const loop = (cards: string) => findSourceLoop(readDeck(`t\n${cards}\n.end`).circuit);
  test.each([
    ['V1 a 0 5\nL1 a b 1m\nR1 b 0 10', null],
    ['V1 a 0 5\nL1 a 0 1m', /L1 is directly across/],
    ['V1 a 0 SIN(0 5 50)\nL1 a 0 1m', null],
    ['V1 a 0 5\nL1 b c 1m\nL2 b c 1m\nR1 a b 1\nR2 c 0 1', null],
    ['V1 a 0 0\nL1 a 0 1m', null],
    ['V1 a 0 5\nE1 a 0 b 0 2\nR1 b 0 1', /closes a loop/],
  ])('%j', (cards, said) => {
    if (said === null) expect(loop(cards)).toBeNull();
    else expect(loop(cards)).toMatch(said);
  });
});

describe('lists', () => {
  const line = fc
    .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }))
    .map(([n, v]): Line => ({ id: `l${n}`, kind: 'resistor', label: `${v}k`, value: v * 1000, tolerance: [-0.05, 0.05], quantity: 1, refs: [`R${n}`] }));
  const list = fc.uniqueArray(line, { selector: (l) => l.id, minLength: 1, maxLength: 6 });
  test('law: all differences taken over make the corrected list, and none is left', () => {
    fc.assert(
      fc.property(list, list, (before, after) => {
        const kit = kitOf(sheetWith({ title: 'x', lines: before }));
        let id = 0;
        const done = diffLines(kit, after).reduce((k, d) => log(k, ...acceptDifference(k, d, () => `n${++id}`)), kit);
        const told = (lines: readonly Line[]) => lines.map((l) => `${l.refs.join()} ${l.value!}`).sort();
        expect(told(done.sheet.lines)).toEqual(told(after));
        expect(diffLines(done, after)).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });
});

describe('figures of parts', () => {
  const plain = (kind: Line['kind']): Line => ({
    id: 'x',
    kind,
    label: factsOf(kind).word,
    value: 1e-4,
    tolerance: null,
    quantity: 1,
    refs: [],
    rating: { volts: 16 },
  });
  test.each(LINE_KINDS)('%s: each figure says how it is taken and where its limits come from', (kind) => {
    for (const figure of figuresOf(plain(kind))) {
      const { title, how, from } = figureHelp(figure, plain(kind));
      expect(title.length).toBeGreaterThan(2);
      expect(how.length).toBeGreaterThan(20);
      expect(from.length).toBeGreaterThan(3);
      expect(figure.unit === null).toBe(figure.limits === null);
      if (figure.limits?.low != null && figure.limits.high != null) expect(figure.limits.low).toBeLessThan(figure.limits.high);
    }
  });
});

describe('checks that want something set', () => {
  const check = (id: string, value?: number): Stage['checks'][number] => ({
    id,
    what: 'measure',
    title: id,
    mode: 'dcv',
    red: { net: 'a' },
    black: { net: '0' },
    ...(value === undefined ? {} : { settings: [{ ref: 'RV1', value, text: 'set' }] }),
  });
  const stage = (...checks: Stage['checks'][number][]): Stage => ({
    id: 's',
    title: 's',
    kind: 'power',
    fits: [],
    supplies: [],
    settings: [{ ref: 'S1', value: 1, text: 'on' }],
    checks,
  });
  test('one state for each of them, the stage as it is first; nothing is lost', () => {
    const states = statesOf(stage(check('x'), check('lo', 0.1), check('hi', 0.9), check('lo2', 0.1)));
    expect(states.map((s) => s.checks.map((c) => c.id))).toEqual([['x'], ['lo', 'lo2'], ['hi']]);
    expect(states[1]!.settings!.map((s) => s.ref)).toEqual(['S1', 'RV1']);
    expect(states[0]!.settings!.map((s) => s.ref)).toEqual(['S1']);
  });
});
