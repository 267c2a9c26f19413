/** Boards round chips, written in sentences: what is read, what is asked, what a healthy board shows, what explains the tries. */
import fc from 'fast-check';
import { EXAMPLE_SENTENCES, FunctionBench, readSentences, type Seen } from '@/core/logic';

/** The example that is offered, with a lamp that blinks in place of one that lights. */
const EXAMPLE = EXAMPLE_SENTENCES.replace('mode 2: D6 lights', 'mode 2: D6 blinks');

const bench = new FunctionBench();
const shown = (sentences: string, check: string) => {
  const items = bench.of(sentences, []).tries.find((t) => t.check === check)?.items ?? [];
  return items.filter((i) => !['dark', 'off', 'no', ''].includes(String(i.expected))).map((i) => `${i.of} ${i.expected}`);
};

describe('what a healthy board shows', () => {
  // The sentences themselves are the truth table.
  test.each([
    ['Switch on, touch nothing', ['D7 lit']],
    ['Press K1', ['D1 lit', 'D7 lit']],
    ['Press K1, press K2', ['D1 lit', 'D2 lit', 'D4 lit', 'D7 lit']],
    ['Tap K4 once', ['D5 lit', 'D7 lit']],
    ['Tap K4 2 times', ['D6 normal', 'D7 lit']],
    ['Press K3, J1 at B', ['D3 lit', 'D7 lit', 'BZ1 on']],
    ['Press K3', ['D3 lit', 'D7 lit']],
  ])('%s', (check, on) => {
    expect(readSentences(EXAMPLE).remarks).toEqual([]);
    expect(shown(EXAMPLE, check)).toEqual(on);
  });

  // BCD to seven segments, from the public truth table of the family: 3 is abcdg.
  test('a chip by its card drives a digit', () => {
    const text = `U2 CD4511: A plus, B plus, C ground, D ground, LT plus, BI plus, LE ground
DS1 display common cathode: a-g at U2 13 12 11 10 9 15 14 through R1-R7 330, common to ground`;
    expect(readSentences(text).remarks).toEqual([]);
    expect(shown(text, 'Switch on, touch nothing')).toEqual(['DS1 abcdg']);
  });

  test('lamps from plus to the pins light when the pin is low', () => {
    const text = `U1 programmed chip, 14 pins: plus 1, ground 14
K1-K2: U1 2-3 to ground
D1-D2: plus through R1-R2 470 to U1 5-6
K1-K2 pressed: D1-D2 light`;
    expect(shown(text, 'Press K2')).toEqual(['D2 lit']);
    expect(readSentences(text).remarks).toEqual([
      expect.objectContaining({ severity: 'ask', message: expect.stringContaining('K1 (U1 pin 2), K2 (U1 pin 3)') as unknown }),
    ]);
  });

  test('law: of n keys and n lamps each key lights its own, whatever the pins', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 8 }), fc.boolean(), (n, sinks) => {
        const lamps = sinks ? `D1-D${n}: plus through R1-R${n} 470 to U1 21-${20 + n}` : `D1-D${n}: U1 21-${20 + n} through R1-R${n} 470 to ground`;
        const text = `U1 programmed chip, 40 pins: plus 40, ground 20\nK1-K${n}: U1 1-${n} to ground, pulled up inside\n${lamps}\nK1-K${n} pressed: D1-D${n} light`;
        for (let i = 1; i <= n; i++) expect(shown(text, `Press K${i}`)).toEqual([`D${i} lit`]);
      }),
      { numRuns: 12 },
    );
  });
});

describe('a lamp that blinks is said to blink, whatever brings it about', () => {
  const blinking = (how: string) => `U1 programmed chip, 14 pins: plus 1, ground 14
K1: U1 2 to ground, pulled up inside
J1: U1 3 to plus (A) or ground (B), at A
D1: U1 5 through R1 470 to ground
D2: U1 6 through R2 470 to ground
${how}`;
  test.each([
    ['K1 pressed: D1 blinks', 'Press K1', ['D1 normal']],
    ['J1 at B: D1 blinks', 'J1 at B', ['D1 normal']],
    ['always: D1 blinks', 'Switch on, touch nothing', ['D1 normal']],
    ['always: D1 blinks\nK1 pressed: D1 lights', 'Press K1', ['D1 lit']],
    ['K1 pressed: D1 blinks and D2 lights', 'Press K1', ['D1 normal', 'D2 lit']],
    ['K1 pressed: D1 blinks\ntry J1 at B, press K1', 'J1 at B, press K1', ['D1 normal']],
  ])('%s', (how, check, on) => {
    expect(shown(blinking(how), check)).toEqual(on);
  });
});

describe('what is not understood is said with its line', () => {
  test.each([
    ['nonsense', 1, /Not understood/],
    ['U1 programmed chip, 8 pins: plus 8, ground 4\nK1-K3: U1 2-3 to ground', 2, /3 parts and 2 pins/],
    ['U1 programmed chip, 8 pins: plus 8, ground 4\nK1: U1 9 to ground', 2, /8 pins, not a pin 9/],
    ['K1: U1 2 to ground', 1, /U1 is not written yet/],
    ['U1 programmed chip, 8 pins: plus 8, ground 4\nK1 pressed: D1 lights', 2, /K1 is no key/],
    ['U2 XY123: 1 plus', 1, /no card here/],
    ['U1 programmed chip, 8 pins: plus 8, ground 4\nU1 programmed chip, 8 pins: plus 8, ground 4', 2, /written before/],
    ['U1 programmed chip, 8 pins: plus 8', 1, /say its supply pins/],
    // Slips that would otherwise fill the memory or never end.
    ['U1 programmed chip, 999999999 pins: plus 8, ground 4', 1, /even number up to 100/],
    ['U1 programmed chip, 8 pins: plus 8, ground 4\nK1-K999999999: U1 2 to ground', 2, /is no range/],
    ['U1 programmed chip, 8 pins: plus 8, ground 4\nK1: U1 2 to ground, pulled up inside\ntry tap K1 99999999 times', 3, /At most 50/],
    ['U1 programmed chip, 8 pins: plus 8, ground 4\nK1: U1 2 to ground, pulled up inside\nK1 steps 1000000 modes', 3, /Modes are 2 to 50/],
    ['supply 0 V', 1, /feeds nothing/],
    ['U1 OSC8: OUT clk', 1, /no card here/],
  ])('%j', (text, line, message) => {
    expect(readSentences(text).remarks).toContainEqual(
      expect.objectContaining({ line, severity: 'error', message: expect.stringMatching(message) as unknown }),
    );
    expect(bench.of(text, []).tries).toEqual([]);
  });

  test('law: any text is answered, never thrown', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), (text) => {
        expect(readSentences(text).remarks.length + bench.of(text, []).tries.length).toBeGreaterThanOrEqual(1);
      }),
    );
  });
});

describe('what explains the tries', () => {
  const tried = (check: string, other: Readonly<Record<string, string | number>> = {}): Seen => {
    const { items } = bench.of(EXAMPLE, []).tries.find((t) => t.check === check)!;
    return { check, saw: items.map((i) => ({ of: i.of, saw: other[i.of] ?? i.expected })) };
  };

  test('a lamp that never lights: it, its resistor, its pin, and nothing else', () => {
    const { suspects } = bench.of(EXAMPLE, [
      tried('Switch on, touch nothing'),
      tried('Press K1'),
      tried('Press K2', { D2: 'dark' }),
      tried('Press K1, press K2', { D2: 'dark' }),
    ]);
    expect(suspects[0]).toMatchObject({
      text: 'D2 is backwards',
      alike: expect.arrayContaining(['R12 is missing or has an open joint', 'U1 pin 13 is open']) as unknown,
    });
    expect(suspects[0]!.probability).toBeGreaterThan(0.8);
  });

  test('nothing but the lamp at plus: the chip does not run, and the tries that tell why are named', () => {
    const dark = { D1: 'dark', D2: 'dark', D3: 'dark', D4: 'dark', D5: 'dark', BZ1: 'off' };
    const { suspects, next } = bench.of(EXAMPLE, [
      tried('Switch on, touch nothing'),
      tried('Press K1', dark),
      tried('Press K1, press K2', dark),
      tried('Tap K4 once', dark),
    ]);
    expect(
      suspects
        .slice(0, 4)
        .map((s) => [s.text, ...s.alike].join('; '))
        .join('; '),
    ).toMatch(/not programmed/);
    expect(next).toMatch(/^Volts at U1/);
  });

  test('one try that contradicts all others is doubted, not believed', () => {
    const all = bench.of(EXAMPLE, []).tries.filter((t) => t.items[0]!.what !== 'volts');
    const { doubts, suspects } = bench.of(
      EXAMPLE,
      all.map((t) => tried(t.check, t.check === 'Press K1' ? { D2: 'lit' } : {})),
    );
    expect(doubts).toEqual([{ check: 'Press K1', of: 'D2' }]);
    expect(suspects[0]).toMatchObject({ healthy: true });
  });
});
