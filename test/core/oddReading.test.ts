/** Readings that are questioned before parts are blamed, and pads that a slip would reach. */
import { type EntryBody, type KitState, newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { cardOf, checkTargets, lastVerdict } from '@/core/loop';
import { at, log, windowsOfKit } from '../support/kits';

// 24 V over 2.2 k and 220 Ω, and a divider of two equal parts from the lower point: 24 V, 2.18 V, 1.09 V (divider formula).
const DECK = 'x\nV1 vcc 0 24\nR1 vcc a 2.2k\nR2 a 0 220\nR3 a b 100k\nR4 b 0 100k\n.end';
const point = (id: string, net: string, x: number) => ({ id, net, where: 'pad', x, y: 0 });
const volts = (id: string) => ({ id, what: 'measure' as const, title: id, mode: 'dcv' as const, red: { testPoint: id }, black: { net: '0' } });
const line = (ref: string, value: number) => ({
  id: ref,
  kind: 'resistor' as const,
  label: `${value}`,
  value,
  tolerance: [-0.01, 0.01] as [number, number],
  quantity: 1,
  refs: [ref],
});
const kit = (): KitState =>
  newKit(
    {
      ...EMPTY_SHEET,
      lines: [line('R1', 2200), line('R2', 220), line('R3', 1e5), line('R4', 1e5)],
      circuit: { deck: DECK, neighbours: [] },
      testPoints: [point('TP1', 'vcc', 0), point('TP2', 'a', 3), point('TP3', 'b', 20)],
      stages: [
        {
          id: 's',
          title: 'On',
          kind: 'power',
          fits: ['R1', 'R2', 'R3', 'R4'],
          supplies: [{ source: 'V1', volts: 24, limit: 0.05 }],
          checks: [
            volts('TP1'),
            volts('TP2'),
            volts('TP3'),
            { id: 'i', what: 'measure', title: 'current', mode: 'dca', red: { net: 'vcc' }, black: { net: '0' }, source: 'V1' },
          ],
        },
      ],
    },
    at(0),
  );
const windows = windowsOfKit(kit());
const after = (check: string, reading: number | 'over') =>
  lastVerdict(log(kit(), { kind: 'read', stage: 's', check, reading, meter: 'handheld' } satisfies EntryBody), windows)!;

test.each([
  ['swapped probes', 'TP2', -2.18, /probes are swapped/, 2.18],
  ['a decimal point', 'TP2', 21.8, /decimal point elsewhere/, 2.18],
  ['millivolts taken for volts', 'TP3', 1087, /decimal point elsewhere/, 1.087],
  ['no contact', 'TP2', 0.004, /no contact at the tip/, null],
  ['the neighbouring point', 'TP2', 24.0, /It would fit TP1/, null],
  ['a supply in its limit', 'i', 0.0502, /V1 is in its current limit/, null],
] as const)('%s is named', (_, check, reading, text, meant) => {
  const last = after(check, reading);
  expect(last.verdict).toBe('out');
  expect(last.detail).toMatch(text);
  const read = last.instead?.entries.find((e) => e.kind === 'read');
  if (meant === null) expect(last.instead).toBeUndefined();
  else expect(read?.kind === 'read' && read.reading).toBeCloseTo(meant, 6);
});

test('what was meant takes the place of what was typed, in one step', () => {
  const typed = log(kit(), { kind: 'read', stage: 's', check: 'TP2', reading: -2.18, meter: 'handheld' });
  const meant = log(typed, ...lastVerdict(typed, windows)!.instead!.entries);
  expect(lastVerdict(meant, windows)!.verdict).toBe('in');
  expect(meant.readings.get('s/TP2')!.map((t) => 'reading' in t.entry && t.entry.reading)).toEqual([2.18]);
});

test('a reading that is simply wrong, one that is right, and one over range are not questioned', () => {
  expect(after('TP2', 3.3).detail).toMatch(/read 3\.3\d* V, expected/);
  expect(after('TP2', 2.18)).toMatchObject({ verdict: 'in' });
  expect(after('TP2', 'over').instead).toBeUndefined();
});

test('the pad beside the probe that carries dangerously more is named, far ones and small steps are not', () => {
  const note = (check: string) => {
    const target = checkTargets(kit(), windows).find((t) => t.target.kind === 'check' && t.target.check.id === check)!.target;
    return cardOf(kit(), target, windows).note;
  };
  expect(note('TP2')).toMatch(/Next to it TP1 carries 24 V: hold the probe still/);
  expect(note('TP3')).toBeNull();
});

describe('volts that are off by one factor', () => {
  const both = (first: number, second: number, third?: number) => {
    const read = (check: string, reading: number): EntryBody => ({ kind: 'read', stage: 's', check, reading, meter: 'handheld' });
    return lastVerdict(log(kit(), ...(third === undefined ? [] : [read('TP3', third)]), read('TP1', first), read('TP2', second)), windows)!.detail;
  };
  test('the second such reading names what they share: the supply, then the meter', () => {
    expect(both(25.7, 2.336)).toMatch(/Both volts of this stage read 7 % high.*supply at its terminals.*weak battery/);
    expect(both(22.3, 2.03, 1.014)).toMatch(/All 3 volts of this stage read 7 % low/);
  });
  test('one that is right, or a factor of its own, speaks for a part', () => {
    expect(both(24, 2.336)).not.toMatch(/of this stage read/);
    expect(both(25.7, 2.9)).not.toMatch(/of this stage read/);
    expect(both(25.7, 2.336, 1.09)).not.toMatch(/of this stage read/);
  });
});
