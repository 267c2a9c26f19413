import { givenOf } from '@/ui/load/given';
import { readRows } from '@/ui/load/rows';
import type { Sum } from '@/ui/load/sum';
import { SUMS } from '@/ui/load/sums';

/** What a form gives when these fields are filled in over what stands there. */
const given = (of: Sum, values: Readonly<Record<string, string>>) =>
  givenOf(of, { ...Object.fromEntries(of.fields.map((f) => [f.key, f.initial ?? f.rows ?? ''])), ...values });
const sum = (id: string) => SUMS.find((s) => s.id === id)!;
const said = (id: string, values: Readonly<Record<string, string>> = {}) =>
  sum(id)
    .run(given(sum(id), values))
    .said.map((s) => s.text)
    .join(' ');

describe('sums beside the readings', () => {
  it.each(SUMS.filter((s) => s.id !== 'lamp').map((s) => [s.id]))('%s answers with what stands in its fields', (id) => {
    expect(said(id)).not.toMatch(/NaN|undefined|null/);
    expect(said(id).length).toBeGreaterThan(10);
  });

  it('heat: says when to stop, and that it is too early', () => {
    const curve = [0, 60, 120, 240, 480].map((t) => `${t} ${(140 - 120 * Math.exp(-t / 200)).toFixed(1)}`).join('\n');
    expect(said('heat', { rows: curve, watts: '10' })).toMatch(/ends at 1(39|40|41).*Stop now: the junction passes its limit/s);
    expect(said('heat', { rows: '0 20\n10 21\n20 22\n30 23.1' })).toMatch(/Too early/);
    expect(() => said('heat', { rows: '0 20\n10 21' })).toThrow(/three readings/);
  });

  it('load: names what gives way first', () => {
    expect(said('load', { rows: '0 9.01 10.5\n0.2 9 10.5\n0.4 8.99 10.5\n0.6 8.98 10.5\n0.8 8.5 10.5', setVolts: '9' })).toMatch(/drop-out.*from 800 mA/s);
    expect(said('load')).toMatch(/holds its voltage/);
    expect(() => said('load', { rows: '0 5\n1 4.9' })).toThrow(/four steps/);
  });

  it('lamp: a short lights it fully, a board that cannot start is said to be so', () => {
    expect(said('lamp', { load: 'short' })).toMatch(/burns fully/);
    expect(said('lamp', { load: 'watts', power: '30' })).toMatch(/will not start/);
    expect(() => said('lamp', { load: 'ohms', ohms: '' })).toThrow(/Enter the ohms/);
  });

  it('claims: 30 W from 15 V into 4 ohm is print on a box', () => {
    expect(said('power')).toMatch(/^Impossible: at most 7.03 W/);
    expect(said('power', { topology: 'bridge', watts: '28' })).toMatch(/^Possible/);
    expect(() => said('range', { low: '20', high: '10' })).toThrow(/ends below/);
  });
});

describe('what makes no sense', () => {
  it.each(
    SUMS.flatMap((s) => s.fields.filter((f) => f.unit !== undefined && !f.optional && f.least === undefined).map((f) => [s.id, f.key, f.label] as const)),
  )('%s: nothing for “%s” is refused by its name, and no answer is infinite', (id, key, label) => {
    const load = id === 'lamp' ? { load: 'ohms', ohms: '10' } : {};
    expect(() => said(id, { ...load, [key]: '0' })).toThrow(label);
  });

  it('zero where zero is a value gives a number', () => {
    expect(said('range', { iadj: '0', dropout: '0' })).not.toMatch(/NaN|Infinity/);
    expect(() => said('load', { rows: '0 5\n-0.2 5\n0.4 5\n0.6 5' })).toThrow(/negative current/);
  });
});

describe('rows of numbers', () => {
  it('are parted by what people use', () => {
    expect(readRows('1 2\n3\t4\n5;6\n7,8\n0,5 1,5\n\n', 2)).toEqual([
      [1, 2],
      [3, 4],
      [5, 6],
      [7, 8],
      [0.5, 1.5],
    ]);
  });

  it('name the line that is none', () => {
    expect(() => readRows('1 2\nhot\n', 2)).toThrow(/Line 2 needs 2 numbers/);
  });
});
