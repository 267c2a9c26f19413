/** What the record forms make of what people type, and back. */
import fc from 'fast-check';
import { type Field, fieldsOf, linesOf, placeText, readPlace, readTolerance, valuesOf } from '@/ui/sheet/records/fields';

const POINTS = new Set(['TP4']);
const context = { testPoints: POINTS, nullable: new Set(['value']) };

describe('places', () => {
  test.each([
    ['TP4', { testPoint: 'TP4' }],
    ['ground', { net: '0' }],
    ['GND', { net: '0' }],
    ['net TP9', { net: 'TP9' }],
    ['R5.2', { ref: 'R5', pin: '2' }],
    ['vcc', { net: 'vcc' }],
    ['', null],
  ])('%s', (text, point) => {
    expect(readPlace(text, POINTS)).toEqual(point);
  });
  test('law: a place that is written is read again', () => {
    const name = fc.stringMatching(/^[A-Za-z][A-Za-z0-9_]{0,6}$/).filter((n) => !/^(?:gnd|ground)$/i.test(n));
    const point = fc.oneof(
      fc.constant({ testPoint: 'TP4' }),
      name.map((net) => ({ net })),
      fc.tuple(name, fc.nat(40)).map(([ref, pin]) => ({ ref, pin: String(pin) })),
    );
    fc.assert(
      fc.property(point, (p) => {
        expect(readPlace(placeText(p), POINTS)).toEqual(p);
      }),
    );
  });
});

describe('lines of text', () => {
  test.each([
    ['K1-K3', ['K1', 'K2', 'K3']],
    ['OUT1-3 × low, high', ['OUT1 low', 'OUT1 high', 'OUT2 low', 'OUT2 high', 'OUT3 low', 'OUT3 high']],
    ['left\n\n right ', ['left', 'right']],
    ['9-1', ['9-1']],
    ['K1-K900', ['K1-K900']],
  ])('%j', (text, lines) => {
    expect(linesOf(text)).toEqual(lines);
  });
});

test('tolerances as people write them', () => {
  expect(readTolerance('5')).toEqual([-0.05, 0.05]);
  expect(readTolerance('±1 %')).toEqual([-0.01, 0.01]);
  expect(readTolerance('-20/+80')).toEqual([-0.2, 0.8]);
  expect(readTolerance('much')).toBeNull();
});

describe('a record in a form', () => {
  const fields: readonly Field[] = [
    { key: 'title', label: 'Title', type: 'text' },
    { key: 'value', label: 'Value', type: 'quantity', unit: 'ohm' },
    { key: 'tolerance', label: 'Tolerance', type: 'tolerance' },
    { key: 'refs', label: 'Refs', type: 'names', options: [] },
    { key: 'window', label: 'Window', type: 'limits', unit: 'V', open: true },
    { key: 'range', label: 'Range', type: 'limits', unit: null, open: false },
    { key: 'red', label: 'Red', type: 'place', places: [] },
    { key: 'empty', label: 'Empty', type: 'flag' },
    { key: 'supplies', label: 'Supplies', type: 'rows', add: 'Add', required: '', of: [{ key: 'volts', label: 'Volts', type: 'quantity', unit: 'V' }] },
  ];
  const record = {
    title: 'x',
    value: 4700,
    tolerance: [-0.05, 0.05],
    refs: ['R1', 'R2'],
    window: { low: 2.4, high: null },
    range: [100, 300],
    red: { testPoint: 'TP4' },
    empty: true,
    supplies: [{ volts: 12 }],
  };
  test('comes back as it was', () => {
    expect(fieldsOf(fields, valuesOf(fields, record), context)).toEqual(record);
  });
  test('what is left empty is not there, or null where the record wants a value', () => {
    const read = fieldsOf(fields, valuesOf(fields, { refs: [], supplies: [] }), context);
    expect(Object.entries(read).filter(([, v]) => v !== undefined)).toEqual([
      ['value', null],
      ['refs', []],
      ['supplies', []],
    ]);
  });
});
