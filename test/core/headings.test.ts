/** Headings of a list: what they say holds for the parts below, and a part whose line says little stays a part. */
import { readDraft } from '@/core/draft';

const linesOf = (list: string) =>
  readDraft(list, '', {}).lines.map((l) => [l.refs.join('+'), l.kind, l.tolerance?.[1] ?? null, l.rating?.watts ?? l.rating?.volts ?? null]);
const ignored = (list: string) => readDraft(list, '', {}).list.entries.flatMap((e) => ('ignored' in e.became ? [e.source] : []));

test('figures of a heading hold for the lines below it that have none of their own', () => {
  expect(linesOf('Resistors 1/4 W 5 %\nR1 1k\nR2 10k 1%\nR3 22 2W\nCapacitors 50V\nC1 100nF\nC2 10uF 16V electrolytic\nDiodes\nD1 1N4148')).toEqual([
    ['R1', 'resistor', 0.05, 0.25],
    ['R2', 'resistor', 0.01, 0.25],
    ['R3', 'resistor', 0.05, 2],
    ['C1', 'capacitor', null, 50],
    ['C2', 'electrolytic', null, 16],
    ['D1', 'diode', null, null],
  ]);
});

test('headings in capitals, in brackets, in other languages; none is glued to the line above', () => {
  expect(linesOf('RESISTORS (1/4W, 1% metal film)\n1 4k7 R3\nCERAMIC CAPACITORS 50 V\n2 100n C1 C2')).toEqual([
    ['R3', 'resistor', 0.01, 0.25],
    ['C1+C2', 'capacitor', null, 50],
  ]);
  expect(linesOf('Widerstände (0,25 W, 5 %):\nR1 = 1k\nElkos 25V:\nC1 = 100µ\nC2 = 1µ')).toEqual([
    ['R1', 'resistor', 0.05, 0.25],
    ['C1', 'electrolytic', null, 25],
    ['C2', 'electrolytic', null, 25],
  ]);
});

test('a remark on all resistors holds for resistors alone', () => {
  expect(linesOf('All resistors 1/4 W 5 % unless stated\nR1 1k\nR2 100 2W\nC1 100n')).toEqual([
    ['R1', 'resistor', 0.05, 0.25],
    ['R2', 'resistor', 0.05, 2],
    ['C1', 'capacitor', null, null],
  ]);
});

test.each(['R1 1k\nKnobs\nR2 2k2', 'R1 1k\nScrews\nNuts', 'R1 1k\nDiodes\nC1 100n', 'Resistors 10k x4\nR9 1k'])('%j: every line stays a part', (list) => {
  expect(ignored(list)).toEqual([]);
});
