import { readDraft, makeSheet, suggestedNets } from '@/core/draft/newKit';
import { bandsOf, capacitorCode } from '@/core/marking/printBands';
import { expandRefs, readList } from '@/core/partslist';

describe('refs', () => {
  test.each([
    ['R1-R4,R7', ['R1', 'R2', 'R3', 'R4', 'R7']],
    ['R1~R3', ['R1', 'R2', 'R3']],
    ['C1、C2', ['C1', 'C2']],
    ['R5/R6', ['R5', 'R6']],
    ['C2,14', ['C2', 'C14']],
    ['B:R1-R2', ['B:R1', 'B:R2']],
    ['', []],
    ['R4-R1', null],
    ['see sheet', null],
    ['R1-R9999', null],
  ])('%s', (text, refs) => {
    expect(expandRefs(text)).toEqual(refs);
  });
});

describe('tables', () => {
  test('columns are found by their headings, kinds by words or letters', () => {
    const { lines, remarks } = readList('My kit\nQty;Designator;Description;Tol\n2;R1,R2;10k;1%\n1;C1;100nF ceramic;\n1;D1;LED red;\n1;U1;chip;', null);
    expect(remarks).toEqual([]);
    expect(lines.map((l) => [l.kind, l.value, l.quantity])).toEqual([
      ['resistor', 1e4, 2],
      ['capacitor', 1e-7, 1],
      ['led', null, 1],
      ['ic', null, 1],
    ]);
    expect(lines[2]!.colour).toBe('red');
    expect(lines[0]!.tolerance).toEqual([-0.01, 0.01]);
  });

  test.each([
    ['ref;value\nR1;10k\nfoo bar!;1k', 3, 'error', /was not understood/],
    ['ref;value;qty\nR1;10k;-2', 2, 'warning', /“-2” cannot be read/],
    ['ref;value;qty\nR1,R2;10k;3', 2, 'warning', /3 pieces for 2 positions/],
    ['ref;value\nR1;10k\nR1;22k', 3, 'warning', /R1 is already on line 2/],
    ['ref;value\nR1;tenk', 2, 'warning', /no value is printed here/],
    ['just\nsome text', 2, 'error', /was not understood/],
  ])('%s', (text, line, severity, message) => {
    const remark = readList(text, null).remarks.find((r) => message.test(r.message));
    expect(remark).toMatchObject({ line, severity });
    expect(remark!.remedy).not.toBe('');
  });
});

describe('a kit of one’s own', () => {
  const deck = 't\nV1 a 0 9\nR1 a b 1k\nD1 b 0 LR\nC1 a 0 100u\nQ1 a b 0 N\n.model LR D(IS=1e-17 N=2)\n.model N PNP(BF=100)\n';

  test('from a deck alone: its parts make the list, its nets the test points', () => {
    const draft = readDraft('', deck);
    expect(draft.lines.map((l) => [l.kind, l.refs])).toEqual([
      ['resistor', ['R1']],
      ['led', ['D1']],
      ['electrolytic', ['C1']],
      ['pnp', ['Q1']],
    ]);
    const sheet = makeSheet('Own', draft, deck, suggestedNets(draft));
    expect(sheet.testPoints.map((t) => t.net)).toEqual(['a', 'b']);
    expect(sheet.stages.map((s) => s.id)).toEqual(['p-look', 'p-cold', 'p-power', 'p-load']);
  });

  test('list and circuit that do not meet are told apart', () => {
    const draft = readDraft('ref;kind;value\nR1;resistor;1k\nR9;resistor;1k', deck);
    expect(draft.mismatches).toEqual(
      expect.arrayContaining([expect.stringMatching(/^R9 .*not in the circuit/), expect.stringMatching(/^D1 is in the circuit but on no line/)]),
    );
    expect(readDraft('', 't\nV1 a 0 5\nV2 a 0 6\nR1 a 0 1').unsolvable).toMatch(/V2 closes a loop/);
  });
});

describe('markings as printed (IEC 60062)', () => {
  test.each([
    [4700, 5, ['yellow', 'violet', 'red', 'gold']],
    [680, 5, ['blue', 'grey', 'brown', 'gold']],
    [3300, 1, ['orange', 'orange', 'black', 'brown', 'brown']],
    [0.47, 5, ['yellow', 'violet', 'silver', 'gold']],
    [1e6, 5, ['brown', 'black', 'green', 'gold']],
    [0, 5, ['black']],
  ])('%d Ω ±%d %%', (ohms, percent, bands) => {
    expect(bandsOf(ohms, percent)).toEqual(bands);
  });
  test('104 = 100 nF, 222 = 2.2 nF', () => {
    expect([1e-7, 2.2e-9, 1e-8, 3.456e-9].map(capacitorCode)).toEqual(['104', '222', '103', null]);
  });
});
