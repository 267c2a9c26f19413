import { pileOf } from '@/core/loop/pile';
import { readPileEntry } from '@/core/loop/pileEntry';
import { sortPile } from '@/core/loop/sortPile';
import { patternText, settlingStep } from '@/core/loop/pileWords';
import { ConsequenceSolver, consequenceText, influences } from '@/core/consequence';
import { documentOf, deriveStrangers, deriveTray, meterOf, openKit } from '@/core/kit';
import { logRows, packetLabels, sellerLetter } from '@/core/report';
import { DEMOS, looseFromBag, practiceOf } from '@/stand-in';
import { at, log, setupOf, windowsOfKit } from '../support/kits';

const demo = () => DEMOS[0]!.kit(at(0));
describe('what is typed for a loose piece', () => {
  test.each([
    ['9.66k', 'R', { part: 'R', reading: 9660, marking: null }],
    ['bn bk og gd 9.66k', 'R', { part: 'R', reading: 9660, marking: ['brown', 'black', 'orange', 'gold'] }],
    ['104 98n', 'C', { part: 'C', reading: 9.8e-8, marking: '104' }],
    ['104', 'C', { part: 'C', reading: null, marking: '104' }],
    ['98nF', 'R', { part: 'C', reading: 9.8e-8, marking: null }],
    ['bc547 npn 280', 'R', { part: 'Q', reading: 280, marking: 'bc547', polarity: 'NPN' }],
    ['red 1.82', 'LED', { part: 'LED', reading: 1.82, marking: 'red' }],
    ['d 1N4148 0.61V', 'R', { part: 'D', reading: 0.61, marking: '1N4148' }],
    ['OL', 'R', { part: 'R', reading: 'over', marking: null }],
    ['c 10µF 1.1e-5', 'R', { part: 'C', reading: 1.1e-5, marking: '10µF' }],
  ] as const)('%s', (text, kind, body) => {
    const read = readPileEntry(text, kind);
    expect(read.ok && read.body).toMatchObject(body);
  });
  test.each(['', '1..2'])('refuses %j', (text) => {
    expect(readPileEntry(text, 'R').ok).toBe(false);
  });
});

describe('a pile tipped out of the simulated bag', () => {
  const whole = () => {
    let kit = demo();
    for (let n = 0; ; n++) {
      const piece = looseFromBag(practiceOf(kit), n);
      if (!piece) return kit;
      kit = log(kit, { kind: 'loose', ...piece, meter: 'handheld' });
    }
  };

  test('names the wrong value and the short count, and is judged in the tray once it is taken over', () => {
    const kit = whole();
    const pile = pileOf(kit);
    const sorted = sortPile(pile);
    const words = sorted.patterns.map((p) => patternText(kit, pile, p).title);
    expect(words).toEqual(expect.arrayContaining([expect.stringMatching(/one 4\.7 kΩ missing, one 46\.9 kΩ too many/), 'one 100 nF missing']));
    // A diode test hardly tells a zener's forward volts from a signal diode's: that is asked, and nothing else.
    expect(settlingStep(kit, pile, sorted)).toMatch(/^690 mV may belong to Zener 5\.6 V .* or to 1N4148\. Read the print/);
    const taken = log(kit, {
      kind: 'sorted',
      pieces: pile.pieces.map((p) => {
        const number = sorted.sorted.assignment[p.id] ?? null;
        return { loose: p.id, line: number === null ? null : kit.sheet.lines[number - 1]!.id };
      }),
    });
    const tray = deriveTray(taken);
    expect(tray.find((c) => c.line.id === 'r-10k')).toMatchObject({ counted: 4, verdict: 'in' });
    expect(tray.find((c) => c.line.id === 'r-4k7')!.counted).toBe(2);
    expect(deriveStrangers(taken)).toHaveLength(1);
    expect(pileOf(taken).pieces).toEqual([]);
    expect(sellerLetter(taken)).toMatch(/1 × 4\.7 k \(R3, R6, R10\): 3 on the list, 2 in the bag/);
    expect(packetLabels(taken).find((l) => l.line === 'r-680')!.measured).toMatch(/^67\d Ω$/);
    // One entry was appended, so one withdrawal undoes it all.
    expect(deriveTray(log(taken, { kind: 'withdrawn', entry: taken.log[taken.log.length - 1]!.id }))).toEqual(deriveTray(kit));
    expect(openKit(JSON.stringify(documentOf(taken))).ok).toBe(true);
  });
});

test('the log as rows: readings in SI, withdrawn entries marked', () => {
  const kit = log(demo(), { kind: 'counted', line: 'r-680', quantity: 1 }, { kind: 'withdrawn', entry: 'e1' });
  expect(logRows(kit)[1]).toEqual([expect.any(String), 'counted', 'Counted 1 × 680 Ω', '', '', 'withdrawn']);
});

test('the leads that a meter check found are subtracted from then on', () => {
  const kit = log(demo(), { kind: 'meter-checked', meter: 'handheld', together: 0.7, apart: 'over', known: null });
  expect(meterOf(kit).leadResistance).toBe(0.7);
  expect(meterOf(demo()).leadResistance).toBe(0.2);
});

test('lines of an option that was decided otherwise leave the tray', () => {
  const base = demo();
  const lines = base.sheet.lines.map((l, i) => (i === 0 ? { ...l, option: 'case=yes' } : l));
  const kit = { ...base, sheet: { ...base.sheet, lines, options: [{ id: 'case', text: 'with case', choices: ['yes', 'no'] }] } };
  expect(deriveTray(kit)).toHaveLength(22);
  expect(deriveTray(log(kit, { kind: 'modified', change: { what: 'strap', option: 'case', choice: 'no' } }))).toHaveLength(21);
});

describe('consequences', () => {
  const kit = demo();
  const windows = windowsOfKit(kit);
  const solver = new ConsequenceSolver(setupOf(kit));
  const says = (supposed: Record<string, number>) => consequenceText(kit, solver.of({ values: supposed }, windows));

  test('a 46.8 k in place of R6 moves the frost point: do not fit', () => {
    expect(says({ R6: 46_850 })).toMatchObject({ usable: false, title: 'It matters here: do not fit' });
  });
  test('three per cent on R6 does not matter', () => {
    expect(says({ R6: 4_850 })).toMatchObject({ usable: true });
  });
  test('an LED resistor that gets more than its rating (P = U²/R)', () => {
    const { overloads } = solver.of({ values: { R1: 150 } }, windows);
    expect(overloads.find((o) => o.ref === 'R1')!.value).toBeGreaterThan(0.25);
    expect(says({ R1: 150 }).title).toMatch(/^Do not fit: R1 would get \d+ mW, rated 250 mW$/);
  });
  test('law: nothing supposed, nothing moves', () => {
    const { shifts, flips } = solver.of({}, windows);
    expect(Math.max(...shifts.map((s) => s.share))).toBe(0);
    expect(flips).toEqual([]);
  });
  test('what sets the bridge matters more than what lies behind the comparator’s input', () => {
    const weight = influences(solver, windows);
    expect(weight['TH1']).toBeGreaterThan(10 * weight['R7']!);
    expect(weight['R6']).toBeGreaterThan(10 * weight['R12']!);
  });
});
