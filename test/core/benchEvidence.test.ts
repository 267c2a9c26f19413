/** Evidence that the bench brings to Find fault: a known-good board, a reading to take again, a cause common to all volts, names of places. */
import { diagnoserOf, findSuspects, worthOf } from '@/core/diagnose';
import { agrees } from '@/core/diagnose/investigation';
import { faultTitle } from '@/core/fault';
import { type EntryBody, type KitState, newKit } from '@/core/kit';
import { differenceFromKnownGood, knownGoodRows, namingOf } from '@/core/loop';
import { HANDHELD } from '@/core/meter';
import { makeSheet, readDraft } from '@/core/draft/newKit';
import { computedWindow, setupOf } from '@/core/stage';
import { at, demo, investigationOf, log, windowAt, windowsOfKit } from '../support/kits';

const findingsOf = (kit: KitState) => {
  const investigation = investigationOf(kit)!;
  return findSuspects(investigation, diagnoserOf(investigation));
};
const read = (check: string, reading: number | 'over', stage = 'empty'): EntryBody => ({ kind: 'read', stage, check, reading, meter: 'handheld' });
const good = (check: string, reading: number | 'over' | null, stage = 'empty'): EntryBody => ({ kind: 'referenced', stage, check, reading, meter: 'handheld' });
const middle = (kit: KitState, check: string) => windowAt(kit, `empty/${check}`).middle;

describe('a known-good board', () => {
  test('its readings stand beside one’s own; what differs by more than parts explain is told with its direction', () => {
    const kit = log(demo(), read('tp1', 11.3), good('tp1', 11.4), read('tp3', 2), good('tp3', 5));
    const rows = knownGoodRows(kit).filter((r) => r.good !== null);
    expect(rows.map((r) => [r.check.id, r.differs])).toEqual([
      ['tp1', false],
      ['tp3', true],
    ]);
    expect(differenceFromKnownGood(rows[1]!)).toBe('3.00 V too low');
    expect(knownGoodRows(log(kit, good('tp3', null))).find((r) => r.check.id === 'tp3')!.good).toBeNull();
  });
  test('it is solved beside the own one, without the fault and with pieces of its own', () => {
    const { problem, evidence } = investigationOf(log(demo(), read('tp1', 11.3), good('tp1', 11.4), good('tp3', 5)))!;
    const twins = problem.scenes.filter((s) => s.twin);
    expect(twins).toHaveLength(1);
    const known = twins[0]!.observables.map((o) => o.id).filter((id) => evidence.some((e) => e.id === id));
    expect(known).toHaveLength(2);
  });
  test('it is no reading of this board: it is not counted, and no row of the table', () => {
    const kit = log(demo(), read('tp1', 11.3), good('tp1', 11.4));
    const findings = findingsOf(kit);
    expect(findings.readings).toBe(1);
    expect(findings.rows.filter((r) => r.seen !== null)).toHaveLength(1);
  });
});

test('all volts high by one factor: the meter is named, and no part is accused', () => {
  const kit = demo();
  const windows = windowsOfKit(kit);
  const readings = kit.sheet.stages
    .filter((s) => s.id === 'empty' || s.id === 'warm')
    .flatMap((s) =>
      s.checks.flatMap((c) => {
        const window = computedWindow(windows[`${s.id}/${c.id}`]);
        if (c.what !== 'measure' || !window || (c.mode !== 'dcv' && c.mode !== 'dca')) return [];
        return [read(c.id, Number((window.middle * (c.mode === 'dcv' ? 1.1 : 1)).toPrecision(4)), s.id)];
      }),
    );
  const findings = findingsOf(log(kit, ...readings));
  expect(findings.bench).toMatchObject({ what: 'meter-gain' });
  expect(Math.abs(findings.bench!.factor - 1.1)).toBeLessThan(0.01);
  expect(findings.suspects[0]!.faults).toEqual([]);
  // The table judges what a sound meter would have shown: nothing contradicts a healthy board.
  expect(findings.rows.filter((r) => r.seen !== null && r.healthy?.fits === false)).toEqual([]);
});

test('a reading with the wrong sign is asked again before anything is concluded; taken twice it is not asked a third time', () => {
  const kit = demo();
  const wrong = log(
    kit,
    read('current', middle(kit, 'current')),
    read('tp1', middle(kit, 'tp1')),
    read('tp3', -middle(kit, 'tp3')),
    read('tp2', middle(kit, 'tp2')),
  );
  expect(findingsOf(wrong).again).toBe('empty/tp3');
  expect(findingsOf(log(wrong, read('tp3', -middle(kit, 'tp3')))).again).not.toBe('empty/tp3');
});

describe('whether a reading fits a prediction', () => {
  const p = (middle: number, spread = 0.01) => ({ low: middle * (1 - spread), middle, high: middle * (1 + spread) });
  test.each([
    [p(4), 'over', 'diode', true],
    [p(0.6), 'over', 'diode', false],
    [p(4e7), 'over', 'ohms', true],
    [p(4700), 'over', 'ohms', false],
    [p(23e-6), 0, 'dcv', true],
    [p(5), 0, 'dcv', false],
    [p(5), 5.05, 'dcv', true],
    [p(5), null, 'dcv', false],
  ] as const)('%j against %s on %s: %s', (prediction, seen, mode, fits) => {
    expect(agrees(prediction, seen, mode, HANDHELD)).toBe(fits);
  });
});

test('nets are named by test points, legs and parts, never by names that no board shows; a bridge says which part it may lie across', () => {
  const draft = readDraft(
    'R1 1k\nR2 1k\nR3 47k\nQ1 BC547\n',
    'follower\nV1 vcc 0 9\nR1 vcc p 1k\nR2 p 0 1k\nR3 p b 47k\nQ1 vcc b e NS\nRL e 0 1k\n.model NS NPN(BF=200)\n.end',
  );
  const kit = newKit(
    makeSheet(
      'Follower',
      draft,
      draft.circuit ? 'follower\nV1 vcc 0 9\nR1 vcc p 1k\nR2 p 0 1k\nR3 p b 47k\nQ1 vcc b e NS\nRL e 0 1k\n.model NS NPN(BF=200)\n.end' : '',
      ['vcc'],
    ),
    at(0),
  );
  const title = (nets: [string, string]) =>
    faultTitle({ kind: 'bridge', parts: [], detail: { nets } }, namingOf(kit)({ kind: 'bridge', parts: [], detail: { nets } }));
  expect(title(['p', 'b'])).toBe('Solder bridge between the joint of R1 and R2 and Q1 base, perhaps across R3');
  expect(title(['vcc', '0'])).toBe('Solder bridge between TP1 and ground');
});

test('the worth of the demo’s test order: what is caught is caught by some check, a short one keeps nearly all, a healthy board is never a catch', () => {
  const kit = demo();
  const worth = worthOf({ setup: setupOf(kit), windows: windowsOfKit(kit) })!;
  expect(worth.caught + worth.missed.length).toBe(worth.faults);
  expect(worth.checks.reduce((n, c) => n + c.first, 0)).toBe(worth.caught);
  expect(worth.caught / worth.faults).toBeGreaterThan(0.6);
  expect(worth.short.length).toBeLessThan(worth.checks.length);
  // No check catches nearly everything: that would be one whose limits a healthy board breaks.
  for (const c of worth.checks) expect(c.catches).toBeLessThan(0.6 * worth.faults);
});
