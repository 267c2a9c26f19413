import { systematicErrors } from '@/core/loop/systematic';
import { agreement, HANDHELD, judgeMeterCheck, uncertaintyIn, verifyInstrument } from '@/core/meter';
import { meetsNeed, type Need } from '@/core/kit';
import { cardFor, comparePins, COMMON_CARDS } from '@/core/typecard';

test('standard uncertainty: rectangular error and display step (JCGM 100, 4.3.7)', () => {
  const u = uncertaintyIn({ upTo: 40, percent: 1, counts: 2, resolution: 0.01 }, 10);
  expect(u.halfWidth).toBeCloseTo(0.12, 12);
  expect(u.standard).toBeCloseTo(Math.sqrt(0.12 ** 2 / 3 + 0.01 ** 2 / 12), 12);
});

describe('the thirty-second check (limits: common practice, no source)', () => {
  test.each([
    [0.2, 'over', null, true, ''],
    ['over', 'over', null, false, 'blown fuse'],
    [1.4, 'over', null, false, 'clean plugs'],
    [0.2, 2e6, null, false, 'Not over-range'],
    [0.2, 'over', { nominal: 1e4, percent: 1, reading: 10_050 }, true, ''],
    [0.2, 'over', { nominal: 1e4, percent: 1, reading: 10_400 }, false, 'change the battery'],
  ] as const)('together %s, apart %s, known %j', (together, apart, known, sound, words) => {
    const verdict = judgeMeterCheck(HANDHELD, together, apart, known);
    expect(verdict.sound).toBe(sound);
    expect(verdict.findings.join(' ')).toContain(words);
  });
});

test('two instruments agree within their combined uncertainty (E_n, ISO/IEC 17043, from memory)', () => {
  expect(agreement({ value: 10.0, standard: 0.03 }, { value: 10.09, standard: 0.04 }).agrees).toBe(true);
  expect(agreement({ value: 10.0, standard: 0.03 }, { value: 10.11, standard: 0.04 })).toMatchObject({ agrees: false });
});

test('offset and gain of a home-built instrument by least squares', () => {
  const points = [100, 1000, 5000].map((known) => ({ known, reading: known * 1.02 + 3 }));
  expect(verifyInstrument(points)!.gain).toBeCloseTo(0.02, 9);
  expect(verifyInstrument(points)!.offset).toBeCloseTo(3, 6);
  expect(verifyInstrument(points.slice(0, 1))).toBeNull();
});

describe('needs', () => {
  const need: Need = { id: 'n', kind: 'supply', text: '12 V', volts: 12, amperes: 0.2, plug: '5.5/2.1', polarity: 'centre-plus' };
  test.each([
    [{ volts: 12, amperes: 0.5, plug: '5,5 x 2.1 mm'.replace(',', '.'), polarity: 'centre-plus' as const }, true, 'is right'],
    [{ volts: 9, amperes: 1 }, false, 'a healthy board will look faulty'],
    [{ volts: 12, amperes: 0.1 }, false, 'it will sag'],
    [{ volts: 12, amperes: 1, polarity: 'centre-minus' as const }, false, 'do not plug it in'],
    [{}, false, 'nothing was entered'],
  ])('%j', (owned, meets, words) => {
    const verdict = meetsNeed(need, owned);
    expect(verdict.meets).toBe(meets);
    expect(verdict.reasons.join('; ')).toContain(words);
  });
});

describe('type cards', () => {
  const line = (label: string, kind: 'npn' | 'opamp' = 'npn') => ({ id: 'x', kind, label, value: null, tolerance: null, quantity: 1, refs: [] });
  test('are found by type, whatever suffix or maker’s letters it has; one’s own come first', () => {
    expect(cardFor(line('BC 547B'), [])!.type).toBe('BC547');
    expect(cardFor(line('XY358N', 'opamp'), [])!.type).toBe('358');
    expect(cardFor(line('BC547'), [{ type: 'BC547', pins: {}, figures: [] }])!.figures).toEqual([]);
    expect(cardFor(line('unheard of'), [])).toBeNull();
  });
  test('a tester’s pin order is held against the card', () => {
    const card = cardFor(line('BC547'), [])!;
    expect(comparePins(card, 'C B E')).toBeNull();
    expect(comparePins(card, 'EBC')).toMatch(/mirrored/);
    expect(comparePins(card, 'BEC')).toMatch(/another make/);
  });
  test('every figure of a shipped card says where it comes from', () => {
    for (const card of COMMON_CARDS) for (const f of card.figures) expect(f.source).toMatch(/from memory|common practice/);
  });
});

test('systematic errors are named where they are likely', () => {
  const expected = (nominal: number, mode: 'ohms' | 'capacitance' = 'ohms') => ({
    mode,
    unit: 'ohm' as const,
    nominal,
    tolerance: [-0.05, 0.05] as const,
    from: '',
  });
  expect(systematicErrors('resistor', expected(4.7), HANDHELD, null).join()).toMatch(/leads add/);
  expect(systematicErrors('resistor', expected(1e6), HANDHELD, null).join()).toMatch(/fingers/);
  expect(systematicErrors('resistor', expected(1e4), HANDHELD, 4000).join()).toMatch(/still in circuit/);
  expect(systematicErrors('electrolytic', expected(1e-4, 'capacitance'), HANDHELD, null).join()).toMatch(/Discharge/);
  expect(systematicErrors('resistor', expected(1e4), HANDHELD, 1e4)).toEqual([]);
});
