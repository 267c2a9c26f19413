/** What is typed at a target becomes an entry, or a sentence that says what is wrong with it. */
import fc from 'fast-check';
import { entryProblem } from '@/core/kit';
import { answerOf, cardOf, checkTargets, countTargets, entryOf, fitTargets, looseTargets, pieceTargets, type Target } from '@/core/loop';
import { makeSheet, readDraft } from '@/core/draft';
import { at, demo, kitOf, windowsOfKit } from '../support/kits';

const kit = demo();
const windows = windowsOfKit(kit);
const typed = (target: Target, text: string) => entryOf(kit, target, cardOf(kit, target, windows), text);
const count = countTargets(kit)[0]!.target;
const piece = pieceTargets(kit).find((s) => s.target.kind === 'piece' && s.target.ref === 'R2')!.target;
const check = checkTargets(kit, windows)[0]!.target;
const fit = fitTargets(kit)[0]!.target;
const loose = looseTargets(kit, 'R')[0]!.target;

test.each([
  ['as listed', '', 1],
  ['none', '0', 0],
  ['with blanks', ' 12 ', 12],
])('a count, %s', (_, text, quantity) => {
  expect(typed(count, text)).toEqual({ kind: 'counted', line: 'r-680', quantity });
});

test.each(['-1', '1.5', 'many', '1e9', '10001'])('“%s” is no count, and says so', (text) => {
  expect(typed(count, text)).toMatch(/is not a count. Type a whole number/);
});

test.each([
  ['682', 682],
  ['0.682k', 682],
  ['682R', 682],
  ['0,682 k', 682],
  ['OL', 'over'],
])('a reading “%s”', (text, reading) => {
  expect(typed(piece, text)).toMatchObject({ kind: 'measured', line: 'r-680', ref: 'R2', mode: 'ohms', reading, meter: 'handheld' });
});

test.each([
  ['abc', /no number/],
  ['1..2', /one decimal mark/],
  ['3V', /expected here/],
  ['', /./],
])('a reading “%s” is answered', (text, message) => {
  expect(typed(piece, text)).toMatch(message);
});

test('what needs an answer takes no number', () => {
  expect(typed(check, '5')).toMatch(/Press Enter/);
  expect(typed(fit, '5')).toMatch(/Press Enter/);
  expect(answerOf(fit, true)).toMatchObject({ kind: 'fitted' });
  expect(answerOf(check, false)).toMatchObject({ kind: 'observed', asExpected: false });
  expect(answerOf(count, true)).toBeNull();
  expect(answerOf(piece, true)).toBeNull();
});

test('a bare figure among resistors that is the print of another part is asked about; one near a resistor of the list is a reading', () => {
  const listed = (list: string) => kitOf(makeSheet('Pile', readDraft(list, '', {}), '', []));
  const mixed = listed('R1 100\nC1 100n\nU1 7805\nD1 1N4148');
  const pile = looseTargets(mixed, 'R')[0]!.target;
  const said = (text: string) => entryOf(mixed, pile, cardOf(mixed, pile, {}), text);
  expect(said('7805')).toMatch(/7805R for a resistor, or count the voltage regulator/);
  expect(said('4148')).toMatch(/or d 4148 for the diode/);
  expect(said('104')).toMatchObject({ part: 'R', reading: 104 });
  expect(said('7805R')).toMatchObject({ part: 'R', reading: 7805 });
  const other = listed('R1 10k\nC1 100n');
  expect(entryOf(other, pile, cardOf(other, pile, {}), '104')).toMatch(/or c 104 for the capacitor/);
});

test('a loose piece carries its print and its reading', () => {
  expect(typed(loose, 'r bn bk og gd 9.98k')).toMatchObject({ kind: 'loose', part: 'R', reading: 9980, meter: 'handheld' });
  expect(typed(loose, '???')).toMatchObject({ kind: 'loose', marking: '???', reading: null });
});

test('whatever is typed, what comes of it may be stored', () => {
  fc.assert(
    fc.property(fc.constantFrom(count, piece, check, fit, loose), fc.oneof(fc.string({ maxLength: 40 }), fc.double().map(String)), (target, text) => {
      const body = typed(target, text);
      if (typeof body === 'string') expect(body.length).toBeGreaterThan(5);
      else expect(entryProblem({ ...body, ...at(1) })).toBeNull();
    }),
    { numRuns: 400 },
  );
});
