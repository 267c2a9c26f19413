/** `zesty windows`: where a healthy board reads, by the board as its log says it is at each stage. Textbook figures unless said otherwise. */
import { windows } from '../../scripts/zesty/windows';
import { type Check, documentOf, type EntryBody, type Line, type MeasureCheck, type Sheet, sheetWith, type Stage } from '@/core/kit';
import { kitOf, log } from '../support/kits';

interface Answered {
  readonly stage: string;
  readonly check: string;
  readonly low?: number;
  readonly high?: number | null;
  readonly none?: string;
}

const resistor = (ref: string, value: number, more: Partial<Line> = {}): Line => ({
  id: `l-${ref}`,
  kind: 'resistor',
  label: String(value),
  value,
  tolerance: [-0.01, 0.01],
  quantity: 1,
  refs: [ref],
  ...more,
});
const volts = (id: string, net: string): MeasureCheck => ({ id, what: 'measure', title: id, mode: 'dcv', red: { net }, black: { net: '0' } });
const ohms = (id: string, red: string, black: string): MeasureCheck => ({
  id,
  what: 'measure',
  title: id,
  mode: 'ohms',
  red: { net: red },
  black: { net: black },
});
const stage = (id: string, checks: Check[], more: Partial<Stage> = {}): Stage => ({
  id,
  title: id,
  kind: 'power',
  fits: [],
  supplies: [{ source: 'V1', volts: 10, limit: 0.5 }],
  checks,
  ...more,
});

const DECK = 't\nV1 v 0 10\nR1 v a 10k\nR2 a 0 10k\nR3 a 0 10k\nD1 v k DX\nR4 k 0 1k\n.model DX D(IS=4e-9 N=1.9)\n.end';
const LINES = [
  resistor('R1', 10_000),
  resistor('R2', 10_000),
  resistor('R3', 10_000, { option: 'load=yes' }),
  resistor('R4', 1000, { tolerance: [-0.05, 0.05] }),
];
const SHEET: Partial<Sheet> = {
  title: 'Divider',
  lines: LINES,
  options: [{ id: 'load', text: 'load', choices: ['yes', 'no'] }],
  circuit: { deck: DECK, neighbours: [] },
  stages: [
    stage('cold', [ohms('r', 'a', '0'), ohms('d', 'k', 'v')], { kind: 'cold', supplies: [], fits: ['R1', 'R2', 'R3', 'R4'] }),
    stage('on', [volts('a', 'a'), volts('lost', 'nowhere'), { ...volts('pin', 'a'), red: { ref: 'R2', pin: '1' } }]),
  ],
};

const ask = (sheet: Partial<Sheet>, ...entries: EntryBody[]): Record<string, Answered> => {
  const kit = log(kitOf(sheetWith(sheet)), ...entries);
  const answer = windows({ id: 'x', kit: documentOf(kit) }) as { windows: Answered[] };
  return Object.fromEntries(answer.windows.map((w) => [`${w.stage}/${w.check}`, w]));
};
/** The middle of an answered window. */
const middle = ({ low, high }: Answered) => (low! + high!) / 2;

describe('the board at a stage', () => {
  test('an undecided option counts as fitted: 10 k over 5 k is a third', () => {
    expect(middle(ask(SHEET)['on/a']!)).toBeCloseTo(10 / 3, 1);
  });
  test('decided otherwise its part is gone: half', () => {
    const chosen: EntryBody = { kind: 'modified', change: { what: 'strap', option: 'load', choice: 'no' } };
    expect(middle(ask(SHEET, chosen)['on/a']!)).toBeCloseTo(5, 1);
  });
  test('a line that is not fitted is not there', () => {
    const lines = LINES.map((l) => (l.refs[0] === 'R3' ? { ...resistor('R3', 10_000), notFitted: true } : l));
    expect(middle(ask({ ...SHEET, lines })['on/a']!)).toBeCloseTo(5, 1);
  });
  test('what a log removed is gone, what it fitted is there', () => {
    expect(middle(ask(SHEET, { kind: 'removed', refs: ['R3'] })['on/a']!)).toBeCloseTo(5, 1);
    const later = {
      ...SHEET,
      stages: [...SHEET.stages!, stage('later', [volts('a', 'a')], { fits: ['R3'] })].map((s, i) => (i === 0 ? { ...s, fits: ['R1', 'R2', 'R4'] } : s)),
    };
    expect(middle(ask(later)['on/a']!)).toBeCloseTo(5, 1);
    expect(middle(ask(later)['later/a']!)).toBeCloseTo(10 / 3, 1);
    expect(middle(ask(later, { kind: 'fitted', refs: ['R3'] })['on/a']!)).toBeCloseTo(10 / 3, 1);
  });
  test('a replaced value counts before what was measured of the old piece', () => {
    const measured: EntryBody = { kind: 'measured', line: 'l-R2', piece: 0, ref: 'R2', mode: 'ohms', reading: 10_050, meter: 'handheld' };
    const replaced: EntryBody = { kind: 'modified', change: { what: 'value-replaced', ref: 'R2', value: 30_000 } };
    // 30 k beside 10 k is 7.5 k; over 10 k that is 10 × 7.5 / 17.5 V.
    expect(middle(ask(SHEET, measured, replaced)['on/a']!)).toBeCloseTo(75 / 17.5, 1);
  });
  test('a measured piece narrows its window; the leads are taken off first', () => {
    const measured = (reading: number): EntryBody[] => [
      { kind: 'meter-checked', meter: 'handheld', together: 0.5, apart: 'over', known: null },
      { kind: 'measured', line: 'l-R4', piece: 0, ref: 'R4', mode: 'ohms', reading, meter: 'handheld' },
    ];
    const sheet = { ...SHEET, stages: [stage('cold', [ohms('r4', 'k', '0')], { kind: 'cold', supplies: [], fits: ['R4'] })] };
    const plain = ask(sheet)['cold/r4']!;
    const known = ask(sheet, ...measured(1000.5))['cold/r4']!;
    expect(known.high! - known.low!).toBeLessThan(plain.high! - plain.low!);
    // In circuit the leads stand in the reading again.
    expect(middle(known)).toBeCloseTo(1000.5, 0);
  });
  test('a link, an added part and a cut track are in the circuit', () => {
    const link: EntryBody = { kind: 'modified', change: { what: 'link', nets: ['v', 'a'] } };
    expect(middle(ask(SHEET, link)['on/a']!)).toBeCloseTo(10, 1);
    const added: EntryBody = { kind: 'modified', change: { what: 'part-added', name: 'R99', kind: 'R', value: 5000, nets: ['a', '0'] } };
    expect(middle(ask(SHEET, added)['on/a']!)).toBeCloseTo(2, 1);
    const cut: EntryBody = { kind: 'modified', change: { what: 'track-cut', ref: 'R2', pin: '1' } };
    expect(middle(ask(SHEET, cut)['on/a']!)).toBeCloseTo(5, 1);
  });
});

describe('what is answered', () => {
  test('over-range: no upper end, the lower one at the last range', () => {
    const back = ask({
      ...SHEET,
      lines: LINES.filter((l) => l.refs[0] !== 'R4'),
      circuit: { deck: DECK.replace('R4 k 0 1k\n', 'R4 k m 1k\n'), neighbours: [] },
    })['cold/d']!;
    expect(back.high).toBeNull();
    expect(back.low).toBeGreaterThan(1e7);
  });
  test('a check without a place says why, and what to do', () => {
    expect(ask(SHEET)['on/lost']!.none).toMatch(/no net called nowhere/);
    const unknown = { ...SHEET, stages: [stage('s', [{ ...volts('x', 'a'), red: { ref: 'U9', pin: '1' } }])] };
    expect(ask(unknown)['s/x']!.none).toMatch(/U9 has no model/);
    const early = { ...SHEET, stages: [stage('s', [{ ...volts('x', 'a'), red: { ref: 'R2', pin: '1' } }]), stage('t', [], { fits: ['R2'] })] };
    expect(ask(early)['s/x']!.none).toMatch(/not fitted yet/);
  });
  test('a pin is counted from one in the order of the deck', () => {
    expect(middle(ask(SHEET)['on/pin']!)).toBeCloseTo(middle(ask(SHEET)['on/a']!), 2);
  });
  test('a kit without a circuit', () => {
    expect(ask({ ...SHEET, circuit: null })['on/a']!.none).toMatch(/no circuit/);
  });
  test.each([[{}], [{ kit: 5 }], [{ kit: { format: 'other' } }]])('%j is refused in words', (request) => {
    expect(() => windows(request)).toThrow(/kit/);
  });
});
