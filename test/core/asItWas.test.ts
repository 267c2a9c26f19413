/** Every reading is judged with today's knowledge, the board as it was, and the meter it was taken with. */
import { findPart } from '@/core/circuit';
import { ConsequenceSolver, consequenceText, substitutes } from '@/core/consequence';
import { ratingsOf } from '@/core/consequence/ratings';
import { Diagnoser, investigationInputs } from '@/core/diagnose';
import { makeSheet, readDraft } from '@/core/draft';
import { applyFault } from '@/core/fault/apply';
import { listFaults } from '@/core/fault/list';
import { deriveTray, type EntryBody, type KitState, type Line, patch, put, sheetWith, type Stage } from '@/core/kit';
import { countTargets, fitTargets, lastVerdict, pieceTargets } from '@/core/loop';
import { deriveStages } from '@/core/loop/progress';
import { HANDHELD, TYPICAL_METERS } from '@/core/meter';
import { sellerLetter } from '@/core/report';
import { boardOf, circuitAt, circuitOf, fittedAt, setupOf } from '@/core/stage';
import { checkPlaces } from '@/core/stage/placesCheck';
import { systematicErrors } from '@/core/loop/systematic';
import { append, at, demo, investigationOf, kitOf, log, windowAt, windowsOfKit } from '../support/kits';

const measured = (meter: string, reading = 10_080): EntryBody => ({ kind: 'measured', line: 'r-10k', piece: 0, ref: 'R4', mode: 'ohms', reading, meter });
const read = (reading: number, check = 'tp5', meter = 'handheld'): EntryBody => ({ kind: 'read', stage: 'warm', check, reading, meter });
const use = (kit: KitState, meter: string) => put(kit, 'settings', { name: 'meter', value: meter });
const reckoning = (kit: KitState) => deriveTray(kit).find((c) => c.line.id === 'r-10k')!.pieces[0]!.reckoning!;

describe('the meter that a reading was taken with', () => {
  test('choosing another one does not re-judge what was read', () => {
    const kit = log(demo(), measured('bench'));
    const before = reckoning(kit);
    expect(reckoning(log(kit, use(kit, 'pocket')))).toEqual(before);
    // ±(0.2 % + 5 counts of 1 Ω) of the good handheld, not ±(1 % + 4 counts) of the cheap one.
    expect(before.halfWidth).toBeCloseTo(0.002 * 10_080 + 5, 0);
  });
  test('other ranges of one’s own meter hold from then on', () => {
    const own = { ...TYPICAL_METERS[1]!, id: 'own', name: 'Mine' };
    const kit = log(append(demo(), put(demo(), 'meters', own), at(1)), measured('own'));
    const before = reckoning(kit);
    const finer = { ...own, ranges: { ...own.ranges, ohms: TYPICAL_METERS[2]!.ranges.ohms } };
    const later = append(kit, put(kit, 'meters', finer), at(20));
    expect(reckoning(later)).toEqual(before);
    expect(reckoning(append(later, measured('own'), at(21))).halfWidth).toBeLessThan(before.halfWidth);
  });
  test('the leads that a check found are subtracted from then on, not from what was read before', () => {
    const kit = log(demo(), measured('handheld'), { kind: 'meter-checked', meter: 'handheld', together: 0.7, apart: 'over', known: null });
    expect(reckoning(kit).corrected).toBeCloseTo(10_079.8, 6);
    expect(reckoning(log(kit, measured('handheld'))).corrected).toBeCloseTo(10_079.3, 6);
  });
  test('windows on the board too: a reading keeps the window of its meter', () => {
    const kit = log(demo(), read(3.74));
    const then = windowAt(kit, 'warm/tp5');
    const now = log(kit, use(kit, 'pocket'));
    expect(windowAt(now, 'e1').meter).toBe(then.meter);
    expect(windowAt(now, 'warm/tp5').meter).toBeGreaterThan(then.meter);
  });
});

describe('lines that are not fitted, or belong to another choice', () => {
  const base = demo();
  const lines: readonly Line[] = base.sheet.lines.map((l) =>
    l.id === 'r-2k2' ? { ...l, notFitted: true } : l.id === 'led-red' ? { ...l, option: 'lamp=yes' } : l,
  );
  const kit = kitOf({ ...base.sheet, lines, options: [{ id: 'lamp', text: 'with lamp', choices: ['yes', 'no'] }] });
  const without = log(kit, { kind: 'modified', change: { what: 'strap', option: 'lamp', choice: 'no' } });
  const stage = (k: KitState) => k.sheet.stages.find((s) => s.id === 'warm')!;
  test.each([
    ['R12', 'r-2k2', kit],
    ['D5', 'led-red', without],
  ])('%s is absent from count, measuring, letter, fit, circuit and faults', (ref, line, k) => {
    expect(countTargets(k).some((s) => s.target.kind === 'count' && s.target.line.id === line)).toBe(false);
    expect(pieceTargets(k).some((s) => s.target.kind === 'piece' && s.target.line.id === line)).toBe(false);
    expect(fitTargets(k).some((s) => s.target.kind === 'fit' && s.target.refs.includes(ref))).toBe(false);
    expect(sellerLetter(log(k, { kind: 'counted', line, quantity: 0 }))).toBeNull();
    const setup = setupOf(k);
    expect(fittedAt(setup, stage(k)).has(ref)).toBe(false);
    expect(findPart(circuitAt(setup, circuitOf(k.sheet), stage(k)), ref)).toBeUndefined();
    expect(boardOf(setup, circuitOf(k.sheet)).parts.some((p) => p.ref === ref)).toBe(false);
  });
  test('an undecided option counts as fitted', () => {
    expect(findPart(circuitAt(setupOf(kit), circuitOf(kit.sheet), stage(kit)), 'D5')).toBeDefined();
  });
  test('the first choice is knowledge: it voids no evidence and holds for what was read before; a strap moved later is a change of the board', () => {
    const chosen = log(kit, read(3.74), { kind: 'modified', change: { what: 'strap', option: 'lamp', choice: 'no' } });
    expect(investigationInputs(chosen)!.sittings[0]!.readings).toHaveLength(1);
    expect(fittedAt(setupOf(chosen, chosen.readings.get('warm/tp5')![0]!.met), stage(chosen)).has('D5')).toBe(false);
    const moved = log(chosen, { kind: 'modified', change: { what: 'strap', option: 'lamp', choice: 'yes' } });
    expect(investigationInputs(moved)).toBeNull();
    expect(fittedAt(setupOf(moved, moved.readings.get('warm/tp5')![0]!.met), stage(moved)).has('D5')).toBe(false);
    expect(fittedAt(setupOf(moved), stage(moved)).has('D5')).toBe(true);
  });
});

describe('the board that a reading met', () => {
  test('a replaced part takes its new value in circuit, fault list and windows; what was measured of the old piece says nothing of it', () => {
    const kit = log(demo(), measured('handheld'), { kind: 'modified', change: { what: 'value-replaced', ref: 'R4', value: 22_000 } });
    const board = boardOf(setupOf(kit), circuitOf(kit.sheet));
    expect(board.parts.find((p) => p.ref === 'R4')).toMatchObject({ value: 22_000, measured: undefined });
    const stage = kit.sheet.stages.find((s) => s.id === 'warm')!;
    expect(findPart(circuitAt(setupOf(kit), circuitOf(kit.sheet), stage), 'R4')).toMatchObject({ value: 22_000 });
    const window = windowAt(kit, 'warm/tp4');
    // Divider 22 k over 12.5 k from about 5 V.
    expect(window.middle).toBeLessThan(2);
    const again = log(kit, measured('handheld', 21_900));
    expect(boardOf(setupOf(again), circuitOf(again.sheet)).parts.find((p) => p.ref === 'R4')!.measured).toBeUndefined();
  });
  test('a repaired part is another piece than the one that was measured', () => {
    const kit = log(demo(), measured('handheld'), { kind: 'repaired', refs: ['R4'], note: 'new one' });
    expect(setupOf(kit).measured.has('R4')).toBe(false);
    expect(setupOf(log(kit, measured('handheld', 10_020))).measured.get('R4')!.value).toBeCloseTo(10_019.8, 6);
  });
  test('two settings between readings: each reading keeps the one before it', () => {
    const kit = log(demo(), { kind: 'set', ref: 'VR1', value: 2000 }, read(3), { kind: 'set', ref: 'VR1', value: 8000 }, read(4));
    const [first, second] = kit.readings.get('warm/tp5')!;
    expect([first!.met.board.set.get('VR1'), second!.met.board.set.get('VR1')]).toEqual([2000, 8000]);
    const inputs = investigationInputs(kit)!;
    expect(inputs.sittings.map((s) => [s.newest, s.readings.map((r) => r.value)])).toEqual([
      [false, [3]],
      [true, [4]],
    ]);
    const investigation = investigationOf(kit)!;
    expect(new Set(investigation.evidence.map((e) => e.id)).size).toBe(2);
    expect(investigation.problem.scenes).toHaveLength(2);
  });
  test('ticks that change nothing in a stage’s circuit leave its readings together', () => {
    const kit = log(demo(), read(3.7), { kind: 'fitted', refs: ['R1'] }, read(2.7, 'tp4'));
    expect(investigationOf(kit)!.problem.scenes).toHaveLength(1);
  });
  test('a repair that was taken back voids nothing', () => {
    const out = log(demo(), read(9), { kind: 'repaired', refs: ['R9'], note: '' });
    expect(
      deriveStages(out, windowsOfKit(out))
        .find((s) => s.stage.id === 'warm')!
        .checks.find((c) => c.check.id === 'tp5')!.verdict,
    ).toBe('none');
    const back = log(out, { kind: 'withdrawn', entry: 'e2' });
    expect(
      deriveStages(back, windowsOfKit(back))
        .find((s) => s.stage.id === 'warm')!
        .checks.find((c) => c.check.id === 'tp5')!.verdict,
    ).toBe('out');
  });
  test('while windows are being worked out nothing is judged, and a stage has not passed', () => {
    const kit = log(demo(), read(9));
    const pending = deriveStages(kit, null).find((s) => s.stage.id === 'warm')!;
    expect(pending.checks.find((c) => c.check.id === 'tp5')!.verdict).toBe('none');
    expect(lastVerdict(kit, null)).toMatchObject({ verdict: 'none', detail: expect.stringMatching(/being worked out/) as string });
  });
});

const stageOf = (fits: readonly string[], settings: Stage['settings'] = []): Stage => ({
  id: 'p',
  title: 'Power',
  kind: 'power',
  fits: [...fits],
  settings,
  supplies: [{ source: 'V1', volts: 10, limit: 0.1 }],
  checks: [{ id: 'w', what: 'measure', title: 'w', mode: 'dcv', red: { net: 'w' }, black: { net: '0' } }],
});
const line = (kind: Line['kind'], refs: readonly string[], rest: Partial<Line> = {}): Line => ({
  id: refs.join(),
  kind,
  label: rest.type ?? kind,
  value: null,
  tolerance: null,
  quantity: refs.length,
  refs,
  ...rest,
});
const made = (deck: string, lines: readonly Line[], stage: Stage) =>
  kitOf(sheetWith({ title: 't', lines, circuit: { deck: `t\n${deck}\n.end`, neighbours: [] }, stages: [stage] }));

describe('one part that the deck holds as several elements', () => {
  const pot = made(
    'V1 a 0 10\nRV1a a w 5k\nRV1b w 0 5k\nR1 w 0 1MEG',
    [line('trimmer', ['RV1'], { value: 1e4 }), line('resistor', ['R1'], { value: 1e6 })],
    stageOf(['RV1', 'R1']),
  );
  const network = made(
    'V1 a 0 10\nRN1a a w 10k\nRN1b a x 10k\nRN1c a y 10k\nR2 w 0 10k\nR3 x 0 10k\nR4 y 0 10k',
    [line('network', ['RN1'], { value: 1e4 }), line('resistor', ['R2', 'R3', 'R4'], { value: 1e4 })],
    stageOf(['RN1', 'R2', 'R3', 'R4']),
  );
  test.each([
    ['a potentiometer', pot, 'RV1', ['RV1a', 'RV1b']],
    ['a network', network, 'RN1', ['RN1a', 'RN1b', 'RN1c']],
  ])('%s can be absent, is one part of the list, and can be a suspect', (_, kit, ref, elements) => {
    const whole = circuitOf(kit.sheet);
    expect(checkPlaces(kit.sheet, whole)).toEqual([]);
    const setup = setupOf(log(kit, { kind: 'removed', refs: [ref] }));
    const absent = circuitAt(setup, whole, kit.sheet.stages[0]!);
    expect(elements.map((e) => findPart(absent, e))).toEqual(elements.map(() => undefined));
    const board = boardOf(setupOf(kit), whole);
    const own = listFaults(whole, board).filter((f) => f.parts.some((p) => p === ref));
    expect(own.map((f) => f.kind)).toEqual(expect.arrayContaining(['open', 'open-pin', 'wrong-value']));
    const open = applyFault(whole, board, { kind: 'open', parts: [ref], detail: {} }).circuit;
    expect(elements.some((e) => findPart(open, e))).toBe(false);
  });
  test('its missing track is found from one reading', () => {
    const kit = log(pot, { kind: 'read', stage: 'p', check: 'w', reading: 0, meter: 'handheld' });
    const investigation = investigationOf(kit)!;
    const { suspects } = new Diagnoser(investigation.problem).diagnose(investigation.evidence);
    expect(suspects.find((s) => s.fault.kind === 'open' && s.fault.parts[0] === 'RV1')!.probability).toBeGreaterThan(0.1);
    expect(suspects.find((s) => s.fault.kind === 'healthy')!.probability).toBeLessThan(0.01);
  });
  test('a wrong value scales the whole track; ten times as much leaves the divider where it was', () => {
    const whole = circuitOf(pot.sheet);
    const wrong = applyFault(whole, boardOf(setupOf(pot), whole), { kind: 'wrong-value', parts: ['RV1'], detail: { value: 1e5 } }).circuit;
    expect([findPart(wrong, 'RV1a'), findPart(wrong, 'RV1b')]).toMatchObject([{ value: 5e4 }, { value: 5e4 }]);
  });
});

describe('chips have the faults of their own kind', () => {
  // Three-legged regulator: 5 V above its ground pin, through 1 Ω.
  const deck = 'V1 in 0 10\nXU1 in 0 w REG\nR1 w 0 1k\n.subckt REG i g o\nE1 x g r g 1\nVR r g 5\nRG r g 1MEG\nRO x o 1\nRI i g 10k\n.ends';
  const kit = made(deck, [line('regulator', ['U1'], { type: '7805' }), line('resistor', ['R1'], { value: 1000 })], stageOf(['U1', 'R1']));
  const whole = circuitOf(kit.sheet);
  const board = boardOf(setupOf(kit), whole);
  test('a regulator is no op-amp: it can be dead, loose at a leg, turned, shorted through', () => {
    expect(board.parts.find((p) => p.ref === 'U1')!.kind).toBe('chip');
    const kinds = listFaults(whole, board).filter((f) => f.parts.some((p) => p === 'U1'));
    expect(kinds.map((f) => f.kind)).toEqual(['open', 'open-pin', 'open-pin', 'open-pin', 'turned', 'short-pins']);
    expect(kinds.every((f) => f.kind !== 'stuck')).toBe(true);
  });
  test('an op-amp’s sub-circuit is one, whatever the list calls it; a list’s word alone makes none', () => {
    const d = demo();
    expect(boardOf(setupOf(d), circuitOf(d.sheet)).parts.find((p) => p.ref === 'U1')!.kind).toBe('opamp');
    const called = made(deck, [line('opamp', ['U1']), line('resistor', ['R1'], { value: 1000 })], stageOf(['U1', 'R1']));
    expect(boardOf(setupOf(called), whole).parts.find((p) => p.ref === 'U1')!.kind).toBe('chip');
  });
  test('a dead regulator ranks first from its output alone', () => {
    const dead = log(kit, { kind: 'read', stage: 'p', check: 'w', reading: 0.001, meter: 'handheld' });
    const investigation = investigationOf(dead)!;
    const { suspects } = new Diagnoser(investigation.problem).diagnose(investigation.evidence);
    expect(suspects.slice(0, 3).some((s) => s.fault.parts.some((p) => p === 'U1'))).toBe(true);
  });
});

describe('papers, hints and consequences', () => {
  test('the letter names strangers, and the meter that took the readings', () => {
    let kit = log(
      demo(),
      { kind: 'loose', part: 'R', reading: 46_850, marking: null, polarity: null, meter: 'bench' },
      { kind: 'sorted', pieces: [{ loose: 'e1', line: null }] },
    );
    kit = log(kit, use(kit, 'pocket'));
    expect(sellerLetter(kit)).toMatch(/not on the list:\n\n- a resistor, reads 46\.85 kΩ/);
    expect(sellerLetter(kit)).toMatch(/Meter: Good handheld/);
  });
  test('hints on systematic errors use the reading: a low one may be in circuit, a high one not', () => {
    const expected = { mode: 'ohms' as const, unit: 'ohm' as const, nominal: 1e4, tolerance: [-0.05, 0.05] as const, from: '' };
    expect(systematicErrors('resistor', expected, HANDHELD, 6000)).toEqual([expect.stringMatching(/still in circuit/)]);
    expect(systematicErrors('resistor', expected, HANDHELD, 14_000)).toEqual([]);
    expect(lastVerdict(log(demo(), measured('handheld', 6000)), {})!.detail).toMatch(/still in circuit/);
    expect(lastVerdict(log(demo(), measured('handheld', 14_000)), {})!.detail).not.toMatch(/still in circuit/);
  });
  test('no check was solved: nobody can tell, and nothing is called usable', () => {
    const kit = made('V1 a 0 10\nV2 a 0 9\nR1 a 0 1k', [line('resistor', ['R1'], { value: 1000 })], stageOf(['R1']));
    const solver = new ConsequenceSolver(setupOf(kit));
    expect(consequenceText(kit, solver.of({ values: { R1: 2000 } }, {}))).toMatchObject({ usable: null, title: 'No check can tell' });
    expect(substitutes(solver, 'R1', [{ value: 1000 }], {}).every((s) => !s.usable)).toBe(true);
  });
  test('a type card of one’s own rates the parts of a kit that took it along', () => {
    const kit = demo();
    const card = { type: '1N4148', pins: {}, figures: [{ name: 'forward current', value: 0.05, unit: 'A', source: 'typed' }] };
    const own = append(kit, put(kit, 'typeCards', card), at(1));
    expect(
      ratingsOf(
        setupOf(own),
        own.sheet.lines.find((l) => l.id === 'd-4148')!,
      ),
    ).toEqual({ amperes: 0.05 });
  });
  test('a corrected sheet corrects knowledge: it holds for what was read before', () => {
    const kit = log(demo(), measured('handheld', 4700));
    expect(deriveTray(kit).find((c) => c.line.id === 'r-10k')!.pieces[0]!.verdict).toBe('out');
    const right = append(kit, patch(kit, 'lines', 'r-10k', { value: 4700 })!, at(9));
    expect(deriveTray(right).find((c) => c.line.id === 'r-10k')!.pieces[0]!.verdict).toBe('in');
  });
});

test('the meter’s gain error is one number for all readings of a range: readings that are off together are no fault', () => {
  // Two equal dividers on one supply: both taps read 1.4 % low, as a meter with ±1.5 % gain error may.
  const deck = 't\nV1 a 0 10\nR1 a b 10k\nR2 b 0 10k\nR3 a c 10k\nR4 c 0 10k\n.end';
  const draft = readDraft('', deck);
  const kit = kitOf(makeSheet('Twins', draft, deck, ['a', 'b', 'c']));
  const exact = (k: KitState) => k.sheet.lines.reduce((s, l) => append(s, patch(s, 'lines', l.id, { tolerance: [-0.0001, 0.0001] })!, at(1)), k);
  const meter = { ...TYPICAL_METERS[0]!, id: 'own', ranges: { ...TYPICAL_METERS[0]!.ranges, dcv: [{ upTo: 40, percent: 1.5, counts: 1, resolution: 0.001 }] } };
  const base = append(exact(kit), put(kit, 'meters', meter), at(2));
  const withMeter = append(base, put(base, 'settings', { name: 'meter', value: 'own' }), at(3));
  const taken = (b: number, c: number) =>
    ['v-a', 'v-b', 'v-c'].reduce(
      (k, check, i) => append(k, { kind: 'read', stage: 'p-power', check, reading: [9.86, b, c][i]!, meter: 'own' }, at(10 + i)),
      withMeter,
    );
  // Three readings alone say little of what nobody listed: a wrong one among them is as good a reason.
  const doubted = (k: KitState) => {
    const investigation = investigationOf(k)!;
    const { unexplained, badReadings } = new Diagnoser(investigation.problem).diagnose(investigation.evidence);
    return unexplained + badReadings.reduce((sum, r) => sum + r.probability, 0);
  };
  // Off together: the meter. Off by as much in opposite directions: no gain error does that.
  expect(doubted(taken(4.93, 5.07))).toBeGreaterThan(0.9);
  expect(doubted(taken(4.93, 4.93))).toBeLessThan(0.05);
});
