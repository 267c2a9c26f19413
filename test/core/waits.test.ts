/** Timers and deliveries, and what is open before a kit is called finished. */
import { type EntryBody, type KitState, newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { isFinished, isOver, openMatters, openWaits, standingOf, waitText } from '@/core/loop';
import { at, log } from '../support/kits';

const kit = (): KitState =>
  newKit(
    {
      ...EMPTY_SHEET,
      lines: [{ id: 'r', kind: 'resistor', label: '1k', value: 1000, tolerance: null, quantity: 2, refs: ['R1', 'R2'] }],
      stages: [
        {
          id: 's',
          title: 'On',
          kind: 'power',
          fits: ['R1', 'R2'],
          supplies: [{ source: 'V1', volts: 9, limit: 0.1 }],
          checks: [{ id: 'a', what: 'measure', title: 'a', mode: 'dcv', red: { net: 'a' }, black: { net: '0' }, window: { low: 4, high: 6 } }],
        },
      ],
    },
    at(0),
  );
const wait = (reason: string, until?: string): EntryBody => ({ kind: 'waiting', reason, ...(until === undefined ? {} : { until }) });
const NOW = Date.parse('2026-01-01T12:00:00Z');

describe('what is waited for', () => {
  test.each([
    ['2026-01-01T12:04:32Z', '4:32 left', false],
    ['2026-01-01T14:00:05Z', '2:00:05 left', false],
    ['2026-01-01T12:00:00Z', 'over', true],
    ['2026-01-08', 'expected in 7 days', false],
    ['2026-01-02', 'expected tomorrow', false],
    ['2026-01-01', 'expected today', true],
    ['2025-12-30', 'expected 2 days ago', true],
    ['soon', '', false],
    [undefined, '', false],
  ])('until %s: %s', (until, text, over) => {
    const [w] = openWaits(log(kit(), wait('C3', until)));
    expect(waitText(w!, NOW)).toBe(text);
    expect(isOver(w!, NOW)).toBe(over);
  });
  test('the next one comes first; gone on with, or taken back, it is none', () => {
    const two = log(kit(), wait('C3', '2026-02-01'), wait('cooling', '2026-01-01T12:05:00Z'), wait('an answer'));
    expect(openWaits(two).map((w) => w.entry.reason)).toEqual(['cooling', 'C3', 'an answer']);
    const cooled = log(two, { kind: 'resumed', waited: openWaits(two)[0]!.entry.id });
    expect(openWaits(cooled).map((w) => w.entry.reason)).toEqual(['C3', 'an answer']);
    expect(openWaits(log(cooled, { kind: 'withdrawn', entry: openWaits(cooled)[0]!.entry.id }))).toHaveLength(1);
  });
  test('the shelf says what for, and until when', () => {
    expect(standingOf(log(kit(), wait('C3, ordered', '2026-02-01'))).waiting).toBe('C3, ordered, until 2026-02-01');
    expect(standingOf(log(kit(), wait('an answer'))).waiting).toBe('an answer');
  });
});

describe('the end', () => {
  const read: EntryBody = { kind: 'read', stage: 's', check: 'a', reading: 5, meter: 'handheld' };
  const all = () => log(kit(), { kind: 'fitted', refs: ['R1', 'R2'] }, read);
  test('nothing is open when all is fitted and passed', () => {
    expect(openMatters(all(), {})).toEqual([]);
  });
  test('everything that is open is named', () => {
    const open = log(
      kit(),
      { kind: 'fitted', refs: ['R1'] },
      { kind: 'read', stage: 's', check: 'a', reading: 9, meter: 'handheld' },
      { kind: 'gated', stage: 's', go: 'on', reason: 'a hurry' },
      wait('C3'),
      { kind: 'modified', change: { what: 'link', nets: ['a', 'b'] }, temporary: true },
    );
    expect(openMatters(open, {})).toEqual([expect.stringContaining('for a test'), 'waiting: C3', expect.stringMatching(/“On”/), 'not ticked: R2']);
    expect(openMatters(log(kit(), { kind: 'removed', refs: ['R2'] }), {})).toEqual(['“On” has not passed', 'left out: R2']);
  });
  test('a kit is finished until its board is changed again', () => {
    const finished = log(all(), { kind: 'finished', open: [] });
    expect(isFinished(finished)).toBe(true);
    expect(standingOf(finished).next).toBe('finished');
    expect(isFinished(log(finished, { kind: 'repaired', refs: ['R1'], note: 'new' }))).toBe(false);
    expect(isFinished(log(finished, { kind: 'withdrawn', entry: finished.log.at(-1)!.id }))).toBe(false);
  });
});
