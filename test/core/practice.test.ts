/** Practice rounds: what is hidden, on any kit; how the program itself plays them; what the score tells. */
import { describeFault, type Fault } from '@/core/fault';
import { makeSheet, readDraft } from '@/core/draft';
import { documentOf, type EntryBody, type KitState, newKit, put, type StandIn } from '@/core/kit';
import { entryText } from '@/core/loop';
import { DEMOS, DIFFICULTIES, hideFault, hideTrouble, playRound, practicePlay, practiceStanding, TROUBLES } from '@/stand-in';
import { faultsLeft, hiddenFaults } from '@/stand-in/practice';
import { ENGINE } from '@/workers/engine';
import { practiceOf } from '@/stand-in';
import { at, log, setupOf } from '../support/kits';

const DECK =
  'A winding and a regulator\nV1 a 0 SIN(0 14 50)\nD1 a raw R\nC1 raw 0 470u\nR1 raw z 680\nD2 0 z Z\nQ1 raw z out N\nR2 out 0 1k\nR3 out l 470\nD3 l 0 L\n.model R D(IS=7E-9 N=1.8)\n.model Z D(IS=1E-14 BV=6.2 IBV=5m)\n.model N NPN(IS=1E-14 BF=150)\n.model L D(IS=1E-18 N=2)';
const LIST = 'R1 680\nR2 1k\nR3 470\nD1 1N4007\nD2 zener 6.2V\nD3 LED red\nQ1 BC337\nC1 470uF/25V electrolytic';

/** A kit that nobody prepared: a list, a deck with a winding, and the ladder that is proposed from them. */
const winding = (): KitState => newKit(makeSheet('Winding', readDraft(LIST, DECK), DECK, []), at(0));
const demo = () => DEMOS[0]!.kit(at(0));
const hidden = (kit: KitState, standIn: StandIn): KitState => newKit(kit.sheet, at(0), { standIn });

test.each(TROUBLES.flatMap((trouble) => DIFFICULTIES.map((difficulty) => [trouble, difficulty] as const)))(
  '%s, %s: the same number hides the same',
  (trouble, difficulty) => {
    const hide = (seed: number) => hideTrouble(setupOf(demo()), { trouble, difficulty, seed });
    expect(hide(11)).toEqual(hide(11));
    const faults = hiddenFaults(hide(11));
    expect(faults.length).toBe(trouble === 'parcel' ? 0 : trouble === 'two-faults' ? 2 : trouble === 'any' ? faults.length : 1);
    if (trouble === 'leads') expect(hide(11).leads).toBeGreaterThan(1);
    if (trouble === 'parcel') expect(Object.keys(hide(11).pieces).length).toBeGreaterThan(1);
  },
);

test('what is hidden shows at some check, and not in plain sight in the file', () => {
  const kit = demo();
  const standIn = hideTrouble(setupOf(kit), { trouble: 'fault', difficulty: 'easy', seed: 3 });
  const [fault] = hiddenFaults(standIn);
  expect(JSON.stringify(documentOf(hidden(kit, standIn)))).not.toContain(describeFault(fault!).title);
  const { steps } = playRound(hidden(kit, standIn));
  expect(steps.length).toBeGreaterThan(0);
});

test('bad leads add their ohms to every ohms reading, and to nothing else', () => {
  const kit = demo();
  const plain = { seed: 1, fault: hideFault(), pieces: {} };
  const read = (standIn: StandIn, ref: string, lineId: string) =>
    ENGINE.readPiece(
      { practice: { ...practiceOf(hidden(kit, standIn)), attempt: 1 }, line: lineId, piece: kit.sheet.lines.find((l) => l.id === lineId)!.refs.indexOf(ref) },
      () => undefined,
    );
  const line = kit.sheet.lines.find((l) => l.kind === 'resistor' && (l.value ?? 0) < 1000)!;
  const [good, bad] = [plain, { ...plain, leads: 100 }].map((s) => Number(read(s, line.refs[0]!, line.id)));
  expect(bad! - good!).toBeGreaterThan(90);
  expect(bad! - good!).toBeLessThan(110);
});

test('the log says that a round is on and when it ended, and nothing of what is hidden', () => {
  const kit = demo();
  const standIn = hideTrouble(setupOf(kit), { trouble: 'fault', difficulty: 'fair', seed: 9 });
  const round = hidden(kit, standIn);
  const over = log(round, put(round, 'settings', { name: 'standIn', value: { ...standIn, over: true } }));
  const texts = over.log.map((e) => entryText(over, e));
  expect(texts.at(-1)).toBe('Practice round 9: ended');
  expect(texts.some((t) => t.includes(standIn.fault.slice(0, 12)))).toBe(false);
});

describe('two faults', () => {
  const faults: Fault[] = [
    { kind: 'open', parts: ['R9'], detail: {} },
    { kind: 'open', parts: ['R5'], detail: {} },
  ];
  const round = hidden(demo(), { seed: 5, fault: hideFault(...faults), pieces: {} });
  const repair = (ref: string): EntryBody => ({ kind: 'repaired', refs: [ref], note: ref });
  test('are mended one by one; the round is over with the last', () => {
    expect(faultsLeft(practiceOf(round))).toHaveLength(2);
    const one = log(round, repair('R9'));
    expect(faultsLeft(practiceOf(one)).map((f) => f.parts[0])).toEqual(['R5']);
    expect(practiceStanding(documentOf(one))).toEqual({ mended: false, review: null });
    const both = practiceStanding(documentOf(log(one, repair('R5'))));
    expect(both.mended).toBe(true);
    expect(both.review!.hidden).toEqual(faults);
  });
});

describe('the score', () => {
  const fault: Fault = { kind: 'open', parts: ['R9'], detail: {} };
  const round = hidden(demo(), { seed: 5, fault: hideFault(fault), pieces: { 'r-680': [6800] } });
  test('names nothing before the end', () => {
    expect(practiceStanding(documentOf(round)).review).toBeNull();
  });
  test('counts readings, what was repaired without need, and what could have hurt', () => {
    const powered = round.sheet.stages.find((s) => s.supplies.length > 0)!;
    const check = powered.checks.find((c) => c.what === 'measure')!;
    const played = log(
      round,
      { kind: 'read', stage: powered.id, check: check.id, reading: 1, meter: 'handheld' },
      { kind: 'gated', stage: powered.id, go: 'on', reason: 'in a hurry' },
      { kind: 'repaired', refs: ['R1'], note: 'a guess' },
      { kind: 'repaired', refs: ['R9'], note: 'found' },
    );
    const review = practiceStanding(documentOf(played)).review!;
    expect(review).toMatchObject({
      readings: 1,
      pulled: ['R1'],
      parcel: [{ line: 'r-680', what: 'value', is: 6800, noticed: false }],
      measured: 0,
      leads: null,
    });
    expect(review.risks).toEqual([expect.stringContaining('before its settings were confirmed'), expect.stringContaining('went on behind')]);
    const { steps, looks } = practicePlay(played);
    expect(steps.at(-1)!.lead!.faults).toEqual([fault]);
    expect(looks).toEqual([{ faults: [fault], right: true }]);
  });
  test('of a board that never rests is told at once; the program finds its own way through it as well', () => {
    const flasher = DEMOS.find((d) => d.slug === 'crossing-flasher')!.kit(at(0));
    const over = newKit(flasher.sheet, at(0), { standIn: { ...flasher.settings.standIn!, over: true } });
    expect(practiceStanding(documentOf(over)).review).toMatchObject({ readings: 0 });
    expect(practicePlay(over).looks.at(-1)!.right).toBe(true);
  });
  test('of a wrong parcel: over once all is found; measured is not found', () => {
    const kit = demo();
    const [short] = kit.sheet.lines.filter((l) => l.quantity > 1 && l.id !== 'r-680');
    const standIn: StandIn = { seed: 6, fault: hideFault(), pieces: { 'r-680': [6800], [`${short!.id}#count`]: [short!.quantity - 1] } };
    const bag = hidden(kit, standIn);
    const piece = { kind: 'measured', line: 'r-680', piece: 0, mode: 'ohms', meter: 'handheld' } as const;
    const count = { kind: 'counted', line: short!.id, quantity: short!.quantity - 1 } as const;
    const standing = (...bodies: EntryBody[]) => practiceStanding(documentOf(log(bag, ...bodies)));
    expect(standing({ ...piece, reading: 681 }, count)).toEqual({ mended: false, review: null });
    const { mended, review } = standing({ ...piece, reading: 6790 }, count);
    expect(mended).toBe(true);
    expect(review).toMatchObject({ measured: 1, hidden: [] });
    expect(review!.parcel.map((p) => p.noticed)).toEqual([true, true]);
  });
  test('of bad leads says whether the short test of the meter showed them', () => {
    const noticed = (...together: number[]) => {
      const kit = hidden(demo(), { seed: 5, fault: hideFault(fault), pieces: {}, leads: 4.7 });
      const tested = together.map((ohms): EntryBody => ({ kind: 'meter-checked', meter: 'handheld', together: ohms, apart: 'over', known: null }));
      return practiceStanding(documentOf(log(kit, ...tested, { kind: 'repaired', refs: ['R9'], note: 'found' }))).review!.leads;
    };
    expect(noticed()).toEqual({ ohms: 4.7, noticed: false });
    expect(noticed(0.3)).toMatchObject({ noticed: false });
    expect(noticed(4.9)).toMatchObject({ noticed: true });
  });
  test('is told as well when one gives up', () => {
    const over = newKit(round.sheet, at(0), { standIn: { ...round.settings.standIn!, over: true } });
    expect(practiceStanding(documentOf(over))).toMatchObject({ mended: false, review: { hidden: [fault] } });
  });
});

test('where readings cannot tell, the suspects are looked at one by one, each once, until it is found', () => {
  // Everything in one loop reads alike: supply, resistor and lamp.
  const deck = 'Loop\nV1 a 0 9\nR1 a b 470\nD1 b c L\nR2 c 0 470\n.model L D(IS=1E-18 N=2)';
  const kit = newKit(makeSheet('Loop', readDraft('R1-R2 470\nD1 LED red', deck), deck, ['a']), at(0));
  const played = ['R1', 'R2', 'D1'].map(
    (ref) => playRound(hidden(kit, { seed: 2, fault: hideFault({ kind: 'open', parts: [ref], detail: {} }), pieces: {} })).looks,
  );
  for (const looks of played) {
    expect(looks.at(-1)!.right).toBe(true);
    expect(looks.slice(0, -1).every((l) => !l.right)).toBe(true);
    expect(new Set(looks.map((l) => JSON.stringify(l.faults))).size).toBe(looks.length);
  }
  expect(Math.max(...played.map((looks) => looks.length))).toBeGreaterThan(1);
});

test('on a kit that was made minutes before, behind a winding, the program’s own play finds what it hid', () => {
  const kit = winding();
  const round = hidden(kit, { seed: 4, fault: hideFault({ kind: 'open', parts: ['R1'], detail: {} }), pieces: {} });
  const { steps } = playRound(round);
  const lead = steps.at(-1)!.lead!;
  expect(lead.faults.flatMap((f) => [...f.parts])).toEqual(expect.arrayContaining([expect.stringMatching(/R1|D2|Q1/)]));
});
