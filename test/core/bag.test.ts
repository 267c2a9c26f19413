/** What is said about a bag: patterns, doubts, lots, the letter, the labels, the spreadsheet. */
import { lotFindings, lotText } from '@/core/loop/lots';
import type { Pile } from '@/core/loop/pile';
import type { SortedPile } from '@/core/loop/sortPile';
import { patternText, pieceName, settlingStep } from '@/core/loop/pileWords';
import { contradicts, readBandWords, readMarking } from '@/core/loop/readMarking';
import { deriveTray, type EntryBody } from '@/core/kit';
import { type LoosePiece, lotReport, namePatterns, type ParcelLine, type Pattern, type Sorted } from '@/core/parcel';
import { logRows, packetLabels, sellerLetter } from '@/core/report';
import { DEMOS } from '@/stand-in';
import { at, log } from '../support/kits';

const fresh = () => DEMOS[0]!.kit(at(0));
const piece = (id: string, value: number | null, rest: Partial<LoosePiece> = {}): LoosePiece => ({
  id,
  kind: 'R',
  quantity: 'resistance',
  value,
  polarity: null,
  marking: null,
  ...rest,
});
const line = (number: number, value: number, quantity = 2): ParcelLine => ({ number, kind: 'R', value, type: null, tolerance: [-5, 5], quantity });
const sorted = (rest: Partial<Sorted>): Sorted => ({ assignment: {}, missing: {}, surplus: {}, strangers: [], lots: [], dead: [], ...rest });

describe('patterns of a bag', () => {
  const lines = [line(1, 3300), line(2, 4700), line(3, 10_000)];
  test('a stranger ten times a missing value is one event: a wrong value in the bag', () => {
    const found = namePatterns([piece('a', 33_100)], lines, sorted({ missing: { 1: 1 }, strangers: ['a'] }));
    expect(found).toEqual([{ kind: 'wrong-value', line: 1, count: 1, pieces: ['a'], decades: 1 }]);
  });
  test('a tenth is a decade down; a value that is no clean decade still explains the shortage', () => {
    expect(namePatterns([piece('a', 472)], lines, sorted({ missing: { 2: 1 }, strangers: ['a'] }))[0]).toMatchObject({ line: 2, decades: -1 });
    expect(namePatterns([piece('a', 820)], lines, sorted({ missing: { 2: 1 }, strangers: ['a'] }))[0]).toMatchObject({ line: 2, decades: null });
  });
  test('one missing and as many spare of another line: packed in exchange', () => {
    expect(namePatterns([], lines, sorted({ missing: { 1: 2 }, surplus: { 3: 2 } }))).toEqual([{ kind: 'exchanged', missing: 1, surplus: 3, count: 2 }]);
  });
  test('two strangers of one value are one event, two of different values two', () => {
    const both = [piece('a', 150_000), piece('b', 151_500), piece('c', 270)];
    const found = namePatterns(both, lines, sorted({ strangers: ['a', 'b', 'c'] }));
    expect(found).toEqual([
      { kind: 'stranger', pieces: ['a', 'b'] },
      { kind: 'stranger', pieces: ['c'] },
    ]);
  });
  test('what is left over stands by itself', () => {
    expect(namePatterns([], lines, sorted({ missing: { 2: 1 }, surplus: { 3: 2 } }))).toEqual([
      { kind: 'missing', line: 2, count: 1 },
      { kind: 'spare', line: 3, count: 2 },
    ]);
  });
  test('a shortage of another kind explains nothing', () => {
    const capacitor: ParcelLine = { ...line(4, 1e-7), kind: 'C' };
    const found = namePatterns([piece('a', 33_000)], [...lines, capacitor], sorted({ missing: { 4: 1 }, strangers: ['a'] }));
    expect(found.map((p) => p.kind)).toEqual(['stranger', 'missing']);
  });
});

describe('patterns in words', () => {
  const kit = fresh();
  const at4k7 = kit.sheet.lines.findIndex((l) => l.id === 'r-4k7') + 1;
  const at680 = kit.sheet.lines.findIndex((l) => l.id === 'r-680') + 1;
  const pile: Pile = {
    entries: [],
    pieces: [piece('a', 47_100), piece('b', null, { marking: ['red', 'red'] })],
    lines: [],
    meter: { leadResistance: 0, accuracy: {} },
  };
  const say = (p: Pattern) => patternText(kit, pile, p);
  test.each<[string, Pattern, RegExp, RegExp]>([
    [
      'a wrong value',
      { kind: 'wrong-value', line: at4k7, count: 1, pieces: ['a'], decades: 1 },
      /^one 4\.7 kΩ missing, one 47\.1 kΩ too many$/,
      /One band too high by a factor of 10: a wrong value/,
    ],
    [
      'no clean decade',
      { kind: 'wrong-value', line: at4k7, count: 2, pieces: ['a'], decades: null },
      /^2 × 4\.7 kΩ missing, 2 × 47\.1 kΩ too many$/,
      /^a wrong value in the bag, not a miscount/,
    ],
    ['exchanged', { kind: 'exchanged', missing: at680, surplus: at4k7, count: 1 }, /^one 680 R? ?missing|one 680/, /packed in place of another/],
    ['missing', { kind: 'missing', line: at680, count: 1 }, /missing$/, /second small packet/],
    ['spare', { kind: 'spare', line: at680, count: 2 }, /spare$/, /Label it/],
    ['a stranger', { kind: 'stranger', pieces: ['b'] }, /^one red red on no line$/, /Keep it apart/],
  ])('%s', (_, pattern, title, advice) => {
    expect(say(pattern).title).toMatch(title);
    expect(say(pattern).advice).toMatch(advice);
  });
  test('a piece is called by what it reads, else by its print, else over-range', () => {
    expect(pieceName(piece('x', 4712))).toBe('4.71 kΩ');
    expect(pieceName(piece('x', null, { marking: '104' }))).toBe('104');
    expect(pieceName(piece('x', null))).toBe('over-range');
  });
});

describe('what would settle a doubt', () => {
  const kit = fresh();
  const step = (p: LoosePiece, probability = 0.6): string | null => {
    const pile: Pile = { entries: [], pieces: [p], lines: [], meter: { leadResistance: 0, accuracy: {} } };
    const s: SortedPile = {
      sorted: sorted({ assignment: { [p.id]: 1 } }),
      patterns: [],
      doubts: [{ piece: p.id, probability, instead: 2 }],
    };
    return settlingStep(kit, pile, s);
  };
  test.each([
    ['a resistor without a marking', piece('a', 4700), /Read its marking/],
    ['a resistor with one', piece('a', 4700, { marking: ['yellow'] }), /finer range or with a better meter/],
    ['a resistor that was only looked at', piece('a', null, { marking: ['yellow'] }), /Measure it\.$/],
    ['an LED', piece('a', 2, { kind: 'LED' }), /coin cell: the colour tells/],
    ['a transistor', piece('a', 200, { kind: 'Q' }), /component tester tells NPN from PNP/],
    ['a transistor of known polarity', piece('a', 200, { kind: 'Q', polarity: 'NPN' }), /type on the flat side/],
    ['a diode', piece('a', null, { kind: 'D' }), /forward voltage/],
    ['a diode that was measured', piece('a', 0.6, { kind: 'D' }), /print on the glass/],
  ])('%s', (_, p, words) => {
    const text = step(p)!;
    expect(text).toMatch(words);
    expect(text).toMatch(/60 %/);
  });
  test('no doubt, no step', () => {
    const pile: Pile = { entries: [], pieces: [], lines: [], meter: { leadResistance: 0, accuracy: {} } };
    expect(settlingStep(kit, pile, { sorted: sorted({}), patterns: [], doubts: [] })).toBeNull();
  });
});

describe('lots', () => {
  const range = { upTo: 4e4, resolution: 10, percent: 0.8, counts: 2 };
  const report = (...readings: number[]) => lotReport(10_000, [-0.01, 0.01], readings, range);
  test('two pieces are no lot', () => {
    expect(report(10_000, 10_050)).toBeNull();
  });
  test('as claimed: within the class, and what the meter explains is not held against the lot', () => {
    expect(report(10_010, 9_980, 10_040)!.finding).toBe('as-claimed');
    expect(report(10_070, 10_060, 10_080)!.finding).toBe('as-claimed');
  });
  test('all three 2.8 % high together: biased', () => {
    const r = report(10_280, 10_270, 10_290)!;
    expect(r.finding).toBe('biased');
    expect(r.bias).toBeCloseTo(0.028, 4);
    expect(r.probability).toBeGreaterThan(0.9);
  });
  test('spread wider than the meter and the class allow: a common error of the meter cannot widen a lot', () => {
    const r = report(9_750, 10_240, 9_880, 10_190, 9_800)!;
    expect(r.finding).toBe('wider');
    expect(r.spread).toBeGreaterThan(0.02);
  });
  test('in the tray: the finding, its line and its words; strangers are left out of it', () => {
    const kit = log(
      fresh(),
      ...[0, 1, 2].map((i): EntryBody => ({ kind: 'measured', line: 'r-10k', piece: i, mode: 'ohms', reading: 10_900 + 10 * i, meter: 'handheld' })),
      { kind: 'measured', line: 'r-10k', piece: 3, mode: 'ohms', reading: 100_000, meter: 'handheld' },
    );
    const [found] = lotFindings(kit, deriveTray(kit));
    expect(found?.compartment.line.id).toBe('r-10k');
    expect(found?.report).toMatchObject({ finding: 'biased', pieces: 3 });
    expect(lotText(found!)).toMatch(/^All 3 read 9\.\d % high together\. The meter explains ±[01]\.\d %\. The batch is off its value/);
  });
  test('a lot as listed says nothing', () => {
    const kit = log(
      fresh(),
      ...[0, 1, 2].map((i): EntryBody => ({ kind: 'measured', line: 'r-10k', piece: i, mode: 'ohms', reading: 10_010 + 10 * i, meter: 'handheld' })),
    );
    expect(lotFindings(kit, deriveTray(kit))).toEqual([]);
  });
});

describe('markings at the bench', () => {
  const { lines } = fresh().sheet;
  test('words for bands, a doubtful one, an unknown one', () => {
    expect(readBandWords('bn bk rd gd')).toEqual(['brown', 'black', 'red', 'gold']);
    expect(readBandWords('yellow violet bn/rd')).toEqual(['yellow', 'violet', ['brown', 'red']]);
    expect(readBandWords('bn pink')).toEqual({ unknown: 'pink' });
  });
  test.each([
    ['bands', 'ye vt rd gd', 4700, 'r-4k7'],
    ['resistor', '4k7', 4700, 'r-4k7'],
    ['chip', '472', 4700, 'r-4k7'],
    ['capacitor', '104', 1e-7, 'c-100n'],
  ] as const)('%s %s belongs to its line', (kind, text, value, id) => {
    const [first] = readMarking(kind, text, lines, '2026-01-01').choices;
    expect(first?.value).toBeCloseTo(value, 12);
    expect(first?.line?.id).toBe(id);
  });
  test('a date code in words; a week that does not exist has no reading', () => {
    expect(readMarking('date', '2318', lines, '2026-01-01').choices[0]?.text).toBe('year 2023, week 18');
    expect(readMarking('date', '2360', lines, '2026-01-01').choices).toEqual([]);
  });
  test('a coil by bands and by figures', () => {
    expect(readMarking('coil', '101', lines, '').choices[0]?.value).toBeCloseTo(1e-4, 9);
    expect(readMarking('coil', 'bn bk bn gd', lines, '').choices.some((c) => Math.abs(c.value! - 1e-4) < 1e-9)).toBe(true);
  });
  test('nothing typed is not answered', () => {
    expect(readMarking('bands', '  ', lines, '')).toEqual({ choices: [], message: '' });
  });
  test('what was read on a piece is held against the line it lies with', () => {
    const kit = fresh();
    const r4k7 = lines.find((l) => l.id === 'r-4k7')!;
    expect(contradicts(kit, r4k7, 'ye vt rd gd = 4.7 kΩ, ±5 %')).toBe(false);
    expect(contradicts(kit, r4k7, 'ye vt og gd = 47 kΩ, ±5 %')).toBe(true);
    expect(contradicts(kit, r4k7, 'scratched')).toBe(false);
  });
});

describe('the letter to the seller', () => {
  test('nothing to write about', () => {
    expect(sellerLetter(fresh())).toBeNull();
    expect(sellerLetter(log(fresh(), { kind: 'counted', line: 'r-4k7', quantity: 9 }))).toBeNull();
  });
  test('what is missing, with its places and both counts', () => {
    const text = sellerLetter(log(fresh(), { kind: 'counted', line: 'c-100n', quantity: 1 }))!;
    expect(text).toMatch(/^Subject: Frost sentinel.*: parts missing or wrong/);
    expect(text).toContain('- 1 × 100 nF (C3, C4): 2 on the list, 1 in the bag');
    expect(text).not.toContain('Wrong, measured');
  });
  test('what is wrong, with limits, reading, uncertainty and the meter', () => {
    const text = sellerLetter(log(fresh(), { kind: 'measured', line: 'r-4k7', piece: 0, ref: 'R3', mode: 'ohms', reading: 47_100, meter: 'handheld' }))!;
    expect(text).toMatch(/\| R3 \| 4\.7 k \| 4\.4\d+ kΩ to 4\.9\d+ kΩ \| 47\.\d+ kΩ ± \d+ Ω \|/);
    expect(text).toMatch(/Meter: .+\./);
    expect(text).not.toMatch(/NaN|undefined|Infinity/);
  });
  test('a withdrawn reading is no evidence', () => {
    const kit = log(
      fresh(),
      { kind: 'measured', line: 'r-4k7', piece: 0, ref: 'R3', mode: 'ohms', reading: 47_100, meter: 'handheld' },
      { kind: 'withdrawn', entry: 'e1' },
    );
    expect(sellerLetter(kit)).toBeNull();
  });
});

describe('labels and rows', () => {
  const kit = log(
    fresh(),
    { kind: 'counted', line: 'r-4k7', quantity: 3 },
    { kind: 'measured', line: 'r-4k7', piece: 0, ref: 'R3', mode: 'ohms', reading: 4_690, meter: 'handheld' },
    { kind: 'measured', line: 'r-4k7', piece: 1, ref: 'R6', mode: 'ohms', reading: 4_720, meter: 'handheld' },
    { kind: 'noted', text: '=1+1' },
    { kind: 'withdrawn', entry: 'e2' },
  );
  test('a label says what it is, what it measures, where it goes, how many', () => {
    const label = packetLabels(kit).find((l) => l.line === 'r-4k7')!;
    expect(label).toMatchObject({ title: '4.7 kΩ', count: '3 of 3' });
    expect(label.measured).toMatch(/4\.72 kΩ/);
    expect(label.refs.split(' ')).toContain('R6');
    expect(packetLabels(kit).find((l) => l.line === 'r-680')).toMatchObject({ measured: 'not measured', count: '– of 1' });
  });
  test('every entry is a row; what was withdrawn stays and says so', () => {
    const rows = logRows(kit);
    expect(rows[0]).toEqual(['time', 'kind', 'what', 'reading (SI)', 'meter', 'counts']);
    expect(rows).toHaveLength(6);
    expect(rows[2]!.slice(3)).toEqual([4690, 'handheld', 'withdrawn']);
    expect(rows[3]!.slice(3)).toEqual([4720, 'handheld', 'yes']);
    expect(rows.every((r) => r.length === 6)).toBe(true);
  });
});
