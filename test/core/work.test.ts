/** What the log before the readings says of a fault: each by its documented factor, with its reason. */
import { WORK_FACTORS, workOf, workReasons } from '@/core/diagnose';
import type { Fault } from '@/core/fault';
import { type EntryBody, type Line, newKit, type Sheet } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { at, log } from '../support/kits';

const line = (id: string, value: number, refs: string[], over: Partial<Line> = {}): Line => ({
  id,
  kind: 'resistor',
  label: `${value}`,
  value,
  tolerance: [-0.01, 0.01],
  quantity: refs.length,
  refs,
  ...over,
});
const sheet: Partial<Sheet> = {
  lines: [
    line('r1k', 1000, ['R1', 'R2']),
    line('r4k7', 4700, ['R3']),
    line('rv', 10_000, ['RV1'], { kind: 'trimmer', tolerance: [-0.2, 0.2] }),
    line('u', 0, ['U1'], { kind: 'ic', value: null, tolerance: null, package: 'SOIC-8' }),
  ],
  stages: [
    { id: 'one', title: 'Rails', kind: 'power', fits: ['R1'], supplies: [{ source: 'V1', volts: 9, limit: 0.1 }], checks: [] },
    { id: 'two', title: 'Chip in', kind: 'power', fits: ['U1'], supplies: [{ source: 'V1', volts: 9, limit: 0.1 }], checks: [] },
  ],
};
const kit = () => newKit({ ...EMPTY_SHEET, ...sheet }, at(0));
const measured = (lineId: string, piece: number, ref: string, reading: number): EntryBody => ({
  kind: 'measured',
  line: lineId,
  piece,
  ref,
  mode: 'ohms',
  reading,
  meter: 'handheld',
});
const wrong = (ref: string, value = 2200): Fault => ({ kind: 'wrong-value', parts: [ref], detail: { value } });
const factors = (fault: Fault, ...entries: EntryBody[]) => workReasons(fault, workOf(log(kit(), ...entries))).map((r) => r.factor);

test('nothing was measured: nothing is said', () => {
  expect(factors(wrong('R1'))).toEqual([]);
});

test.each<[string, Fault, readonly EntryBody[], readonly number[]]>([
  ['a piece that was measured and is right', wrong('R1'), [measured('r1k', 0, 'R1', 1001)], [WORK_FACTORS.measured]],
  ['one that was not, while others were', wrong('R3'), [measured('r1k', 0, 'R1', 1001)], [WORK_FACTORS.unmeasured]],
  ['one that nobody can read either', wrong('RV1'), [measured('r1k', 0, 'R1', 1001)], [WORK_FACTORS.unmeasured, WORK_FACTORS.unreadable]],
  ['one of a packet of which another is out', wrong('R2'), [measured('r1k', 0, 'R1', 2200)], [WORK_FACTORS.unmeasured, WORK_FACTORS.lotOut]],
  [
    'an exchanged pair',
    { kind: 'swapped', parts: ['R1', 'R3'], detail: {} },
    [measured('r1k', 0, 'R1', 4700), measured('r4k7', 0, 'R3', 1000)],
    [WORK_FACTORS.exchanged],
  ],
  ['pins of a body with close legs', { kind: 'open-pin', parts: ['U1'], detail: { pin: '3' } }, [], [WORK_FACTORS.finePitch]],
])('%s', (_, fault, entries, expected) => {
  expect(factors(fault, ...entries)).toEqual(expected);
});

test('a diode test says nothing of a zener’s voltage: its value is no surer than before', () => {
  const zener = newKit({ ...EMPTY_SHEET, lines: [line('z', 5.1, ['D1'], { kind: 'zener' })] }, at(0));
  const tested = log(zener, { kind: 'measured', line: 'z', piece: 0, ref: 'D1', mode: 'diode', reading: 0.7, meter: 'handheld' });
  expect(workReasons(wrong('D1', 12), workOf(tested))).toEqual([]);
});

test('a stranger makes its own value more likely wherever it could sit', () => {
  const loose: EntryBody = { kind: 'loose', part: 'R', reading: 2210, marking: null, polarity: null, meter: 'handheld' };
  const pile = log(kit(), loose);
  const sorted = log(pile, { kind: 'sorted', pieces: [{ loose: pile.log.at(-1)!.id, line: null }] });
  expect(workReasons(wrong('R1', 2200), workOf(sorted)).map((r) => r.factor)).toEqual([WORK_FACTORS.stranger]);
  expect(workReasons(wrong('R1', 470), workOf(sorted))).toEqual([]);
});

test('what went in last, after a stage under power without it was read', () => {
  const read = (stage: string): EntryBody => ({ kind: 'probed', stage, testPoint: 'TP1', reading: 9, meter: 'handheld' });
  const dead: Fault = { kind: 'weak', parts: ['U1'], detail: {} };
  expect(factors(dead, read('two'))).toEqual([]);
  expect(factors(dead, read('one'), read('two'))).toEqual([WORK_FACTORS.fittedLast]);
  expect(factors({ ...dead, parts: ['R1'] }, read('one'), read('two'))).toEqual([]);
});

test('a piece that was exchanged on the board is an unmeasured one again', () => {
  expect(factors(wrong('R1'), measured('r1k', 0, 'R1', 1001), { kind: 'repaired', refs: ['R1'], note: 'new one' })).toEqual([WORK_FACTORS.unmeasured]);
});

describe('legs bent by hand for their holes', () => {
  const disc = line('c', 1e-7, ['C1'], { kind: 'capacitor', label: '100n disc' });
  const lying = line('r', 1000, ['R1']);
  const holes = (ref: string, apart: number) => [
    { ref, pin: '1', x: 10, y: 10 },
    { ref, pin: '2', x: 10 + apart, y: 10 },
  ];
  const open = (part: string): Fault => ({ kind: 'open', parts: [part], detail: {} });
  const reasons = (fault: Fault, pads: Sheet['pads']) =>
    workReasons(fault, workOf(newKit({ ...EMPTY_SHEET, lines: [disc, lying], pads }, at(0)))).map((r) => r.factor);
  // A disc stands on 5.08 mm (two steps of a tenth of an inch, usual; no source).
  test('make its open joints likelier where a file of the board tells that they had to be bent', () => {
    expect(reasons(open('C1'), holes('C1', 10.16))).toEqual([WORK_FACTORS.bent]);
    expect(reasons({ kind: 'leaky', parts: ['C1'], detail: {} }, holes('C1', 10.16))).toEqual([]);
  });
  test('say nothing where legs come as the holes are, where nobody knows the holes, and of parts that lie', () => {
    expect(reasons(open('C1'), holes('C1', 5.08))).toEqual([]);
    expect(reasons(open('C1'), [])).toEqual([]);
    expect(reasons(open('R1'), holes('R1', 15.24))).toEqual([]);
  });
});
