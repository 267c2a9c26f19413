/** Lines as sellers of several countries write them, each misread once without a word. Invented lists; habits: common practice, no source. */
import { readDraft } from '@/core/draft';

const linesOf = (...rows: string[]) => readDraft(rows.join('\n'), '', {}).list.lines;
const lineOf = (row: string) => linesOf(row)[0];

test.each([
  ['Widerstand R1, R2 4R7 5W Draht', { kind: 'resistor', value: 4.7, refs: ['R1', 'R2'] }],
  ['T1, T2 : BC 337', { kind: 'npn', type: 'BC337', refs: ['T1', 'T2'] }],
  ['T3: BC 547 B', { kind: 'npn', type: 'BC547B' }],
  ['T4: 2N 3904', { kind: 'npn', type: '2N3904' }],
  ['IC1: CD4060BE (socket included)', { kind: 'ic', type: 'CD4060BE', note: 'socket included' }],
  ['IC2: NE555 with socket', { kind: 'timer', type: 'NE555' }],
  ['P1: 50kB', { kind: 'potentiometer', value: 50_000, refs: ['P1'] }],
  ['P2: 10k', { kind: 'potentiometer', value: 10_000 }],
  ['P3: 3 pin header', { kind: 'connector' }],
  ['VR1: B100K', { kind: 'potentiometer', value: 100_000 }],
  ['AJ1 : ajustable 100 k', { kind: 'trimmer', value: 100_000, refs: ['AJ1'] }],
  ['HP1 : haut-parleur 8 ohms', { kind: 'loudspeaker', refs: ['HP1'] }],
  ['PR1 preset 10K', { kind: 'trimmer', refs: ['PR1'] }],
  ['2 x 10 ohm 5 watt wirewound  R1 R2', { kind: 'resistor', value: 10, quantity: 2 }],
  ['4 x 1N5408 D1 to D4', { kind: 'diode', type: '1N5408', quantity: 4 }],
  ['Ringkerndrossel 47µH L1', { kind: 'inductor', value: 47e-6 }],
  ['1 x IEC inlet with fuse', { kind: 'connector' }],
  ['CONN PWR JACK 2X5.5MM SOLDER J1', { kind: 'connector' }],
  ['C4 CAP ALUM 100UF 20% 25V RADIAL', { value: 100e-6 }],
  ['D1 = BZX 5V6', { kind: 'zener', value: 5.6 }],
  ['R8 thru R10 1M', { kind: 'resistor', value: 1e6, refs: ['R8', 'R9', 'R10'] }],
  ['D1,D2,D3...D8 1N4148', { kind: 'diode', quantity: 8 }],
  ['Q1 4,000 MHz HC49/U', { kind: 'crystal', value: 4e6 }],
  ['SI1 T 500mA', { kind: 'fuse' }],
  ['Q9 BC547, TO92', { kind: 'npn', refs: ['Q9'] }],
  ['R21 10k, 5 W, wirewound', { kind: 'resistor', value: 10_000, refs: ['R21'] }],
  ['VR1 5K volume with switch', { kind: 'potentiometer', value: 5_000 }],
  ['R3 see note 2', { kind: 'resistor', value: null, note: 'see note 2' }],
  ['U2 LM7805CT + heatsink', { kind: 'regulator', refs: ['U2'], note: 'heatsink' }],
  ['R2: 2.200 ohmios', { value: 2_200 }],
  ['C1: 2.200 uF', { value: 2.2e-3 }],
  ['LM741 - U1', { kind: 'opamp', refs: ['U1'] }],
  ['8-pin socket - for U1', { kind: 'socket' }],
  ['BT1 9V battery connector', { kind: 'holder' }],
  ['LED D2 5mm rt', { kind: 'led', colour: 'red' }],
])('%s', (row, read) => {
  expect(lineOf(row)).toMatchObject(read);
});

test('a heading counts only for positions that can stand below it; micro without farad; types in other letters', () => {
  const lines = linesOf('Конденсаторы', 'C1 - 0,1мк', 'C2 - 100мк х 16В', 'VT1 КТ315Б', 'VD1 КД522', 'HL1 АЛ307', 'L1 100 мкГн');
  expect(lines.map((l) => l.kind)).toEqual(['capacitor', 'electrolytic', 'npn', 'diode', 'led', 'inductor']);
  expect(lines.slice(0, 3)).toMatchObject([{ value: 1e-7 }, { value: 1e-4 }, { type: 'КТ315Б' }]);
});

test('parts indented below headings are lines of their own; a deeper line below a part carries it on', () => {
  const lines = linesOf(
    'Widerstände:',
    ' 10 Ohm 1 Stück (br sw sw)',
    ' 100 kOhm 2 Stück (br sw ge)',
    'Kondensatoren:',
    ' 1 µF Elko 1 Stück',
    ' 4n7 Folie 3 Stück',
  );
  expect(lines.map((l) => [l.kind, l.value, l.quantity])).toEqual([
    ['resistor', 10, 1],
    ['resistor', 1e5, 2],
    ['electrolytic', 1e-6, 1],
    ['capacitor', 4.7e-9, 3],
  ]);
  expect(linesOf('R1 10k', '  metal film', 'R2 4k7', '  carbon', 'C1 100n')).toHaveLength(3);
});

test('a kit in one sentence: each counted piece is a line, what only its unit tells is looked at', () => {
  const { list } = readDraft('Bauteile für Blinker: 2x BC547, 2x 10k, 2x 470 Ohm, 2x 22uF, 2x LED rot, 1x Clip', '', {});
  expect(list.lines.map((l) => [l.kind, l.quantity])).toEqual([
    ['npn', 2],
    ['resistor', 2],
    ['resistor', 2],
    ['electrolytic', 2],
    ['led', 2],
  ]);
  expect(list.entries.filter((e) => !e.sure).length).toBeGreaterThanOrEqual(3);
});

test('several parts in a line, each with its value, are as many lines; words in front name their kind', () => {
  const brief = (row: string) => linesOf(row).map((l) => [l.kind, l.value, l.refs.join(' ')]);
  expect(brief('- Resistors: R1 1k, R2 2k2, R3 10k')).toEqual([
    ['resistor', 1e3, 'R1'],
    ['resistor', 2.2e3, 'R2'],
    ['resistor', 1e4, 'R3'],
  ]);
  expect(brief('Trimmers: R5 10k, R6, R7 5k')).toEqual([
    ['trimmer', 1e4, 'R5'],
    ['trimmer', 5e3, 'R6 R7'],
  ]);
  expect(linesOf('2 red LEDs, 1 green LED').map((l) => [l.quantity, l.colour])).toEqual([
    [2, 'red'],
    [1, 'green'],
  ]);
  expect(linesOf('2 resistors 10k, 1 W R7 R8')).toHaveLength(1);
  expect(brief('R11, R12 10k')).toEqual([['resistor', 1e4, 'R11 R12']]);
});
