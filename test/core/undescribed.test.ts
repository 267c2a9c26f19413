/** Readings at places that the drawing does not describe say nothing of a fault: a source that stands in for a chip leaves nets as no healthy board has them. */
import { findSuspects, diagnoserOf } from '@/core/diagnose/investigation';
import { proposeStages } from '@/core/draft';
import { makeSheet, readDraft } from '@/core/draft/newKit';
import { patch } from '@/core/kit';
import { BLINKER, BLINKER_LIST } from '../support/decks';
import { investigationOf, kitOf, log } from '../support/kits';

test('a healthy timer board: its threshold is in, and is left out of the search instead of being called unexplained', () => {
  const draft = readDraft(BLINKER_LIST, BLINKER);
  const sheet = makeSheet('Blinker', draft, BLINKER, ['vcc', 'thr', 'out', 'cv', 'dis']);
  const { stages } = proposeStages(sheet, draft.circuit);
  const power = stages.find((s) => s.supplies.length > 0 && s.checks.some((c) => c.id === 'v-thr'))!;
  const limits = power.checks.flatMap((c) => (c.what === 'measure' && c.id === 'v-thr' && c.window ? [c.window] : []))[0]!;
  // Between a third and two thirds of the supply (data sheet, from memory), on average in the middle of them.
  expect(limits.low!).toBeLessThan(4.5);
  expect(limits.high!).toBeGreaterThan(4.5);
  expect(limits.high!).toBeLessThan(7);
  const kit = kitOf({ ...sheet, stages });
  const read = (check: string, reading: number) => ({ kind: 'read', stage: power.id, check, reading, meter: 'handheld' }) as const;
  const taken = log(kit, read('v-vcc', 9.0), read('v-thr', 4.6), read('v-cv', 6.0));
  const investigation = investigationOf(taken)!;
  const findings = findSuspects(investigation, diagnoserOf(investigation));
  expect(findings.leftOut).toEqual([`${power.id}/v-thr`]);
  expect(findings.readings).toBe(2);
  expect(findings.unexplained).toBeLessThan(0.5);
});

test('limits from simulated boards hold for the kit that they were worked out for: another value, and they are gone until it is put back', () => {
  const list = '1 x Resistor 10k (R1)\n1 x Resistor 10k (R2)\n9 V battery, not included';
  const deck = 'Divider\nV1 vcc 0 9\nR1 vcc m 10k\nR2 m 0 10k\n.end';
  const draft = readDraft(list, deck);
  const sheet = makeSheet('Divider', draft, deck, ['vcc', 'm']);
  const kit = kitOf({ ...sheet, stages: proposeStages(sheet, draft.circuit).stages });
  const limited = (k: typeof kit) => k.sheet.stages.flatMap((s) => s.checks.filter((c) => c.what === 'measure' && c.window?.from === 'simulated'));
  const before = limited(kit);
  expect(before.map((c) => c.id)).toContain('v-m');
  const line = kit.sheet.lines.find((l) => l.refs.includes('R2'))!;
  const changed = log(kit, patch(kit, 'lines', line.id, { value: 22_000 })!);
  expect(limited(changed)).toEqual([]);
  expect(limited(log(changed, patch(changed, 'lines', line.id, { value: 10_000 })!))).toEqual(before);
});
