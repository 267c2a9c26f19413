/** Which way round something goes that carries no mark: what is touched, what each answer means, where it is said again. */
import { type EntryBody, type KitState, newKit, type Sheet } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { cardOf, everythingFitted, secondLookItems } from '@/core/loop';
import { LOOSE_UNMARKED, unmarkedRefs, whichAnswered, whichItem, whichPad } from '@/core/trace';
import { at, log } from '../support/kits';

const line = (kind: Sheet['lines'][number]['kind'], ref: string) => ({ id: ref, kind, label: ref, value: null, tolerance: null, quantity: 1, refs: [ref] });
const DECK = `x
V1 vcc 0 9
R1 vcc a 1k
D1 a 0 DL
D2 vcc b DL
R2 b c 1k
C1 c 0 100u
D3 d e DL
.model DL D(IS=1E-18 N=2)
.end`;
const kit = (more: Partial<Sheet> = {}): KitState =>
  newKit(
    {
      ...EMPTY_SHEET,
      lines: [line('led', 'D1'), line('diode', 'D2'), line('electrolytic', 'C1'), line('led', 'D3'), line('resistor', 'R1'), line('resistor', 'R2')],
      circuit: { deck: DECK, neighbours: [] },
      testPoints: [{ id: 'TP1', net: 'b', where: 'pad' }],
      ...more,
    },
    at(0),
  );

test('asked are parts of two leads that have a way round and a place in the circuit', () => {
  expect(unmarkedRefs(kit())).toEqual(['D1', 'D2', 'C1', 'D3']);
  expect(unmarkedRefs(kit({ circuit: null }))).toEqual([]);
});

describe('the place that everybody finds', () => {
  test('is ground where a lead goes there: the pad that beeps is the cathode of D1, the minus of C1', () => {
    const d1 = whichPad(kit(), 'D1')!;
    expect(d1.steps.join(' ')).toContain('ground');
    expect(d1.answers.find((a) => a.id === 'left')!.meaning).toBe(
      'D1: the left (or upper) pad is the cathode (short lead, flat side), the right (or lower) one the anode (long lead).',
    );
    expect(whichPad(kit(), 'C1')!.answers.find((a) => a.id === 'right')!.meaning).toContain('the right (or lower) pad is the minus (stripe)');
  });
  test('else a test point: TP1 lies on the cathode of D2', () => {
    const d2 = whichPad(kit(), 'D2')!;
    expect(d2.steps[0]).toContain('test point TP1');
    expect(d2.answers[0]!.meaning).toContain('is the cathode (striped end)');
  });
  test('else a pad of another part; nothing known, nothing asked', () => {
    expect(whichPad(kit({ testPoints: [] }), 'D2')!.steps[0]).toContain('R2');
    expect(whichPad(kit(), 'D3')).toBeNull();
    expect(whichPad(kit(), 'R1')).toBeNull();
    expect(whichPad(kit(), 'D9')).toBeNull();
  });
});

test('both pads or none settle nothing, and say what to look for', () => {
  const answers = whichPad(kit(), 'D1')!.answers;
  expect(answers.map((a) => [a.id, a.settled])).toEqual([
    ['left', true],
    ['right', true],
    ['both', false],
    ['none', false],
  ]);
  expect(answers[2]!.meaning).toContain('joined');
  expect(answers[3]!.meaning).toContain('trace the board');
});

test('what was found is said when the part goes in and when it is looked at again; a later answer replaces it', () => {
  const way = whichPad(kit(), 'D1')!;
  const found = (id: string): EntryBody =>
    whichAnswered(
      way,
      way.answers.find((a) => a.id === id)!,
    );
  const once = log(kit(), found('left'));
  const target = everythingFitted(once).find(({ target: t }) => t.kind === 'fit' && t.refs.includes('D1'))!.target;
  expect(cardOf(once, target, {}).why).toContain('the left (or upper) pad is the cathode');
  const twice = log(once, found('right'), { kind: 'fitted', refs: ['D1'] });
  const look = secondLookItems(twice).find((i) => i.id === 'way/D1')!;
  expect(look.good).toContain('the right (or lower) pad is the cathode');
  expect(look.good).not.toContain('the left (or upper) pad is the cathode');
});

test('loose things have their own questions, each with an answer that settles and one that does not', () => {
  for (const way of LOOSE_UNMARKED) {
    expect(way.steps.length).toBeGreaterThan(1);
    expect(way.answers.some((a) => a.settled) && way.answers.some((a) => !a.settled)).toBe(true);
    expect(log(kit(), whichAnswered(way, way.answers[0]!)).inspected.get(whichItem(way))!.entry.title).toBe(way.answers[0]!.meaning);
  }
  expect(new Set(LOOSE_UNMARKED.map(whichItem)).size).toBe(LOOSE_UNMARKED.length);
});
