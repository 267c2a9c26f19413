/** What a ladder's boards are made of: chips told by their type, boards told pin by pin, what is not on the list, what nobody set. */
import fc from 'fast-check';
import { familyOf, numberedPins, pinFunction, regulatorVolts } from '@/core/bringup/chips';
import { choose, type Offer } from '@/core/bringup/choose';
import { windowOf } from '@/core/bringup/windows';
import { connectionsOf, readDeck } from '@/core/circuit';
import { proposeStages } from '@/core/draft';
import { deckFromConnections } from '@/core/draft/fromConnections';
import { makeSheet, readDraft } from '@/core/draft/newKit';
import { meterById } from '@/core/meter';

const chip = (type: string) => ({ type, label: type });

describe('families of chips by their type (data sheets, from memory)', () => {
  test.each([
    ['L7805CV', 'fixed'],
    ['78L12', 'fixed'],
    ['LM317T', 'adjustable'],
    ['NE555P', 'timer'],
    ['LM358N', 'opamp'],
    ['TL072CP', 'opamp'],
    ['TL084', 'opamp'],
    ['LM324', 'opamp'],
    ['NE5532P', 'opamp'],
    ['LM393P', 'comparator'],
    ['LM386N-1', 'audio'],
    ['CD40106BE', 'gates'],
    ['74HC14N', 'gates'],
    ['74HC595', 'unknown'],
    ['QX1234', 'unknown'],
  ])('%s: %s', (type, family) => {
    expect(familyOf(chip(type), {}, '')).toBe(family);
  });
  test('without a type the names of a stand-in’s pins tell', () => {
    const none = { type: undefined, label: 'IC' };
    expect(familyOf(none, { adj: 'a', in: 'b', out: 'c' }, 'REG')).toBe('adjustable');
    expect(familyOf(none, { out1: 'a', inn1: 'b', inp1: 'c' }, 'DUALOP')).toBe('opamp');
    expect(familyOf(none, { out1: 'a', inn1: 'b', inp1: 'c' }, 'DUALCMP')).toBe('comparator');
    expect(familyOf(none, {}, 'X')).toBe('unknown');
  });
  test.each([
    ['L7805', 5],
    ['78L09', 9],
    ['LM1117-3.3', 3.3],
  ])('%s gives %s V', (type, volts) => {
    expect(regulatorVolts(chip(type), '')).toBe(volts);
  });
  test.each([
    ['out', 'out'],
    ['oa', 'out1'],
    ['nb', 'inn2'],
    ['IN+', 'inp'],
    ['Vcc', 'vs'],
    ['GND', 'gnd'],
    ['x', null],
  ])('a pin called %s is %s', (name, does) => {
    expect(pinFunction(name)).toBe(does);
  });
  test('pins by number: a dual op-amp and a single one differ', () => {
    expect(numberedPins('opamp', null, 8)[0]).toBe('out1');
    expect(numberedPins('opamp', { ...chip('LM741'), kind: 'opamp' } as never, 8)[5]).toBe('out1');
    expect(numberedPins('timer', null, 8)).toEqual(['gnd', 'trig', 'out', 'reset', 'cv', 'thr', 'dis', 'vs']);
  });
});

test('a board told pin by pin has every pin on its net; pins that nobody named hang free', () => {
  const { lines } = readDraft(
    '1 x Resistor 1k (R1)\n1 x Transistor BC547 NPN (Q1)\n1 x Electrolytic capacitor 10uF (C1)\n1 x IC NE555 (U1)\n1 x Potentiometer 10k (P1)',
    '',
  );
  const told = {
    'R1.1': 'a',
    'R1.2': 'b',
    'Q1.B': 'b',
    'Q1.E': '0',
    'Q1.C': 'c',
    'C1.-': '0',
    'C1.+': 'c',
    'U1.8': 'a',
    'U1.1': '0',
    'P1.2': 'w',
    'P1.1': 'a',
    'P1.3': '0',
  };
  const deck = deckFromConnections(lines, told, [{ net: 'a', back: '0', winding: false, volts: 9 }]);
  expect(readDeck(deck).diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
  const nets = new Map(connectionsOf(deck).map((c) => [c.name, c.pins.map((p) => p.net)]));
  expect(nets.get('R1')).toEqual(['a', 'b']);
  expect(nets.get('Q1')).toEqual(['c', 'b', '0']);
  expect(nets.get('C1')).toEqual(['c', '0']);
  expect([nets.get('RP1a'), nets.get('RP1b')]).toEqual([
    ['a', 'w'],
    ['w', '0'],
  ]);
  expect(nets.get('XU1')![0]).toBe('0');
  expect(nets.get('XU1')![7]).toBe('a');
  expect(new Set(nets.get('XU1')!.slice(1, 7)).size).toBe(6);
  expect(nets.get('V1')).toEqual(['a', '0']);
});

const proposed = (list: string, deck: string) => {
  const draft = readDraft(list, deck);
  const sheet = makeSheet('x', draft, deck, [...draft.nets]);
  return proposeStages(sheet, draft.circuit).proposal!;
};
const offered = (p: ReturnType<typeof proposed>, net: string) => p.stages.flatMap((s) => s.offers.filter((o) => o.place.mode === 'dcv' && o.place.red === net));

test('a load that only the drawing has is on the board: the output sags under it (potential divider)', () => {
  const [m] = offered(proposed('1 x Resistor 1k (R1)', 'Loaded\nV1 in 0 10\nR1 in m 1k\nRLOAD m 0 1k\n.end'), 'm');
  expect(m!.window.low!).toBeGreaterThan(4.2);
  expect(m!.window.high!).toBeLessThan(5.8);
});

test('a light sensor whose light nobody told: no volts are expected where it moves them over most of the supply', () => {
  const deck = 'Dusk\nV1 in 0 9\nRLDR1 in s 10k\nR1 s 0 10k\nR2 in h 10k\nR3 h 0 10k\n.end';
  const p = proposed('1 x Photoresistor LDR 10k (LDR1)\n3 x Resistor 10k (R1, R2, R3)', deck);
  expect(offered(p, 's')).toEqual([]);
  expect(offered(p, 'h')).toHaveLength(1);
});

describe('a list alone', () => {
  const checks = (list: string) => makeSheet('x', readDraft(list, ''), '', []).stages.flatMap((s) => s.checks);
  test('9 V AC is a winding, not 9 V DC: AC volts, and the peak behind the rectifier', () => {
    const all = checks('D1-D4 1N4007\nC1 1000u 35V electrolytic\ntransformer 9 V AC 500 mA, not included');
    expect(all.map((c) => c.id)).not.toContain('v-in');
    const at = (id: string) => all.flatMap((c) => (c.what === 'measure' && c.id === id && c.window ? [c.window] : []))[0]!;
    expect(at('ac-0').low!).toBeLessThan(9 * 0.94);
    expect(at('ac-0').high!).toBeGreaterThan(9 * 1.3 * 1.06);
    expect(at('v-rectified').high!).toBeGreaterThan(9 * 1.2 * Math.SQRT2 - 1.4);
  });
  test('a new 9 V battery gives 9.6 V and more', () => {
    const all = checks('R1 1k\nLED1 LED red\n9 V battery, not included');
    const window = all.flatMap((c) => (c.what === 'measure' && c.id === 'v-in' && c.window ? [c.window] : []))[0]!;
    expect(window.high!).toBeGreaterThan(9.9);
    expect(window.low!).toBeLessThan(8);
  });
});

describe('limits of one place', () => {
  const meters = [meterById('handheld')];
  const plain = { chip: false, pulsed: false, unsure: 0, moving: false };
  const volts = { mode: 'dcv', red: 'a', black: '0' } as const;
  test('law: every board that they were drawn from lies inside', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -30, max: 30, noNaN: true }), { minLength: 5, maxLength: 60 }), (shown) => {
        const window = windowOf(volts, shown, meters, plain)!;
        for (const v of shown) expect(v >= window.low! && v <= window.high!).toBe(true);
      }),
    );
  });
  test('boards that could not be solved are no boards: with many of them there are no limits', () => {
    expect(windowOf(volts, [5, 5, null, null], meters, plain)).toBeNull();
    expect(windowOf(volts, [5, 5, 5, 5, 5, 5, 5, 5, 5, null], meters, plain)).not.toBeNull();
  });
  test('ohms that some boards show as over-range are open above; an LED that is lit on some boards only is not asked for', () => {
    expect(windowOf({ mode: 'ohms', red: 'a', black: '0' }, [1e6, 2e6, 'over'], meters, plain)!.high).toBeNull();
    expect(windowOf({ mode: 'sign', red: 'D1', black: '0', ref: 'D1' }, [0.01, 0], meters, plain)).toBeNull();
    expect(windowOf({ mode: 'sign', red: 'D1', black: '0', ref: 'D1' }, [0.01, 0.008], meters, plain)!.low).toBeGreaterThan(0);
  });
});

test('law: the chosen checks catch all that any check catches', () => {
  const offer = fc
    .record({ stage: fc.nat(4), catches: fc.uniqueArray(fc.nat(15), { maxLength: 8 }) })
    .map(({ stage, catches }): Offer => ({ stage, catches: new Set(catches) }));
  fc.assert(
    fc.property(fc.array(offer, { maxLength: 20 }), (offers) => {
      const chosen = choose(offers, new Set([0, 1]));
      const all = (some: readonly Offer[]) => new Set(some.flatMap((o) => [...o.catches]));
      expect(all(chosen.map((i) => offers[i]!))).toEqual(all(offers));
      expect(new Set(chosen).size).toBe(chosen.length);
    }),
  );
});
