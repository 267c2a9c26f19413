import { readList, readNeed } from '@/core/partslist';
import { toCsv } from '@/core/report';
import { decodeText } from '@/store/listText';
import { printTolerance } from '@/core/quantity';

const read = (text: string) => readList(text, null);
const brief = (text: string) => read(text).lines.map((l) => [l.kind, l.value, l.quantity, l.refs.join(' ')]);

describe('lists as sellers make them', () => {
  test('free lines, each in another language', () => {
    expect(brief('R1-R4,R7 10k 1/4W x5\nC1、C2 瓷片电容 104\n2x 100 µF/25V electrolítico\nDiode 1N4148 D1 D2')).toEqual([
      ['resistor', 1e4, 5, 'R1 R2 R3 R4 R7'],
      ['capacitor', 1e-7, 2, 'C1 C2'],
      ['electrolytic', 1e-4, 2, ''],
      ['diode', null, 2, 'D1 D2'],
    ]);
  });
  test('what is not supplied, under the last number of a numbered sheet, is a need of its own and swallows nothing', () => {
    const { lines, needs } = read(
      'Pos Menge Bezeichnung Bauteil\n1 1 Spannungsregler 7805 IC1\n2 1 Elko 10µF/16V C1\n3 1 Sicherung 1A T F1\nTransformator 9V AC nicht im Lieferumfang',
    );
    expect(lines.map((l) => [l.kind, l.refs.join(' ')])).toEqual([
      ['regulator', 'IC1'],
      ['electrolytic', 'C1'],
      ['fuse', 'F1'],
    ]);
    expect(needs.map((n) => [n.text, n.volts])).toEqual([['Transformator 9V AC nicht im Lieferumfang', 9]]);
  });
  test.each([
    ['Q1 S8050', 'npn', 'S8050', 'Q1'],
    ['T1 C945', 'npn', 'C945', 'T1'],
    ['Q2 A1015', 'pnp', 'A1015', 'Q2'],
    ['Q1, Q2 S9013', 'npn', 'S9013', 'Q1 Q2'],
    ['U3 P521', 'ic', 'P521', 'U3'],
    ['IC1 L7805', 'regulator', 'L7805', 'IC1'],
    ['DB1 DB107', 'bridge', 'DB107', 'DB1'],
    ['K101, S102', 'relay', undefined, 'K101 S102'],
  ])('a type that looks like a position is none behind a position: %s', (row, kind, type, refs) => {
    const line = read(`R1 1k\nR2 10k\n${row}`).lines[2]!;
    expect([line.kind, line.type, line.refs.join(' ')]).toEqual([kind, type, refs]);
  });
  test('numbers with a full stop before a figure are numbers; a count is no picofarad; self-tapping is no coil; 3296 W is a type', () => {
    const { lines } = read(
      'Radio kit\n1. TDA7000 IC1\n2. 10pF x2 C1 C14\n3. 4k7 R1\n4. Variable capacitor 1\n5. self-tapping screws x4\n6. RV1 3296W-103\n7. P1 100k lin\n8. DEL1 verte\n9. CI2 NE555',
    );
    expect(lines.map((l) => [l.kind, l.value, l.quantity, l.refs.join(' '), l.rating?.watts])).toEqual([
      ['ic', null, 1, 'IC1', undefined],
      ['capacitor', 1e-11, 2, 'C1 C14', undefined],
      ['resistor', 4700, 1, 'R1', undefined],
      ['capacitor', null, 1, '', undefined],
      ['mechanical', null, 4, '', undefined],
      ['potentiometer', 1e4, 1, 'RV1', undefined],
      ['potentiometer', 1e5, 1, 'P1', undefined],
      ['led', null, 1, 'DEL1', undefined],
      ['timer', null, 1, 'CI2', undefined],
    ]);
  });
  test('transformers by their VA, rectifiers at a diode’s place, old types of other schools, counts behind hardware', () => {
    const { lines } = read('Kit\nTR1 Toroidal 2x18V 80VA\nD1 4007\nVD2 KC156A\nDA1 KR142EN5A\nIC1 4007\nM3x10 screws 8\nR1 1k');
    expect(lines.map((l) => [l.kind, l.refs.join(' '), l.quantity])).toEqual([
      ['transformer', 'TR1', 1],
      ['diode', 'D1', 1],
      ['zener', 'VD2', 1],
      ['regulator', 'DA1', 1],
      ['ic', 'IC1', 1],
      ['mechanical', '', 8],
      ['resistor', 'R1', 1],
    ]);
  });
  test('old and other ways of writing: MFD, MMF, thousands with a dot, half an ampere, a count in front, millifarads asked', () => {
    const { lines, remarks } = read(
      'Elenco\nC102 4.7MFD 25V\nC103 220MMF\nR2 4.700 ohm\nR3 10.000 ohm\nF101 1/2A\nJ101 RCA JACK\nUS1 NE555\n2 bornes de 2 terminales\nC2 10 mF elettr. 25 V',
    );
    expect(lines.map((l) => [l.kind, l.value, l.quantity, l.refs.join(' '), l.rating?.amperes])).toEqual([
      ['capacitor', 4.7e-6, 1, 'C102', undefined],
      ['capacitor', 220e-12, 1, 'C103', undefined],
      ['resistor', 4700, 1, 'R2', undefined],
      ['resistor', 1e4, 1, 'R3', undefined],
      ['fuse', null, 1, 'F101', 0.5],
      ['connector', null, 1, 'J101', undefined],
      ['timer', null, 1, 'US1', undefined],
      ['connector', null, 2, '', undefined],
      ['electrolytic', 0.01, 1, 'C2', undefined],
    ]);
    expect(JSON.stringify(remarks)).toMatch(/10 mF.*10 µF/);
  });
  test('a Chinese table', () => {
    expect(brief('位号\t名称\t参数\t数量\nR1,R2\t金属膜电阻\t4.7k\t2\nC3\t电解电容\t47uF/25V\t1\nQ1\t三极管\tS9012\t1\nLED1\t发光二极管\t红色\t1')).toEqual([
      ['resistor', 4700, 2, 'R1 R2'],
      ['electrolytic', 4.7e-5, 1, 'C3'],
      ['pnp', null, 1, 'Q1'],
      ['led', null, 1, 'LED1'],
    ]);
  });
  test('a German table with decimal commas and semicolons', () => {
    const { lines } = read('Pos.;Bauteil;Wert;Toleranz;Menge\nR1;Widerstand;4,7k;1%;1\nD1;Zenerdiode;5V6;5%;1\nRV1;Trimmer;10k;;1\nK1;Relais 12V;;;1');
    expect(lines.map((l) => [l.kind, l.value])).toEqual([
      ['resistor', 4700],
      ['zener', 5.6],
      ['trimmer', 1e4],
      ['relay', null],
    ]);
    expect(lines[0]!.tolerance).toEqual([-0.01, 0.01]);
  });
  test('a table without a heading row: its cells tell the columns', () => {
    expect(brief('R1,R2\t10k\t2\nR3\t1k\t1\nC1\t100n\t1')).toEqual([
      ['resistor', 1e4, 2, 'R1 R2'],
      ['resistor', 1e3, 1, 'R3'],
      ['capacitor', 1e-7, 1, 'C1'],
    ]);
  });
  test('columns can be corrected', () => {
    expect(readList('ref;val;n\nR1;10k;3', null, { columns: ['refs', 'value', 'quantity'] }).lines[0]!.quantity).toBe(3);
  });
  test('ratings, bodies, colours, boards, places that stay empty, options', () => {
    const { lines, options } = read(
      'board;ref;part;value;note\nA;R1;Resistor 0805;10k 1/4W;\nB;R1;Resistor;22k;DNP\nA;C1;Electrolytic;100u/16V;only with case\nA;D1;LED 5mm;green;',
    );
    expect(lines[0]).toMatchObject({ refs: ['A:R1'], rating: { watts: 0.25 }, package: '0805' });
    expect(lines[1]).toMatchObject({ refs: ['B:R1'], notFitted: true });
    expect(lines[2]).toMatchObject({ rating: { volts: 16 }, option: 'case=yes' });
    expect(lines[3]).toMatchObject({ colour: 'green' });
    expect(options).toEqual([{ id: 'case', text: 'with case', choices: ['yes', 'no'] }]);
  });
  test.each([
    ['12 V adapter 500 mA 5.5/2.1 mm centre plus, not included', { kind: 'supply', volts: 12, amperes: 0.5, polarity: 'centre-plus' }],
    ['Lautsprecher 8 ohm 3 W, nicht enthalten', { kind: 'load', ohms: 8, watts: 3 }],
    ['电池 9V 不含', { kind: 'battery', volts: 9 }],
  ])('needed, not supplied: %s', (text, need) => {
    expect(readNeed(text, 'n')).toMatchObject(need);
    expect(read(`Resistor 10k R1\n${text}`).needs).toHaveLength(1);
  });
  test('an ordinary line is no need', () => {
    expect(readNeed('12 V relay', 'n')).toBeNull();
  });
});

describe('words, codes and refs as they stand in lists (common practice, no source)', () => {
  const line = (text: string) => read(text).lines[0]!;
  test.each([
    ['瓷片电容104/50V C1、C2 2个', 'capacitor', 1e-7, 'C1 C2'],
    ['独石电容 820p/50V (C3,4,5)', 'capacitor', 8.2e-10, 'C3 C4 C5'],
    ['Конденсатор 0,1 мкФ х 50 В C2, C3', 'capacitor', 1e-7, 'C2 C3'],
    ['Electrolytic capacitor 4.7mu 50V C7', 'electrolytic', 4.7e-6, 'C7'],
    ['Kondensator 10 mu/25V C8 1 Stk', 'capacitor', 1e-5, 'C8'],
    // Large and nothing said: polarised, for turned round it bursts (common practice, no source).
    ['C1 1000uF/35V', 'electrolytic', 1e-3, 'C1'],
    ['47u 16V C2', 'electrolytic', 4.7e-5, 'C2'],
    ['100uF MLCC 1210 X5R C3', 'capacitor', 1e-4, 'C3'],
    ['Ceramic capacitor 47uF C4', 'capacitor', 4.7e-5, 'C4'],
    ['Resistor 2W103J R5', 'resistor', 1e4, 'R5'],
    ['Wirewound resistor 5W4R7J R20', 'resistor', 4.7, 'R20'],
    ['Non-polarised capacitor 1uF C9', 'capacitor', 1e-6, 'C9'],
    ['Condensador del filtro 100nF C4', 'capacitor', 1e-7, 'C4'],
    ['Crystal diode 1N60 D1', 'diode', null, 'D1'],
    ['Transistor BC547 TO-92 case Q1', 'npn', null, 'Q1'],
    ['Transistor S8050 Q1,Q2,Q3', 'npn', null, 'Q1 Q2 Q3'],
    ['LED rouge diffusante 5mm (LED1 à LED4)', 'led', null, 'LED1 LED2 LED3 LED4'],
  ])('%s', (text, kind, value, refs) => {
    const { lines } = read(text);
    expect(lines.map((l) => [l.kind, l.value, l.refs.join(' '), l.option])).toEqual([[kind, value, refs, undefined]]);
  });
  test('a tolerance with unequal sides: in running words, in a cell, and our own print read back', () => {
    const [minus, plus] = [-0.2, 0.8];
    expect(line('Ceramic capacitor 10n -20/+80% 50V C5').tolerance).toEqual([minus, plus]);
    const cell = line('ref;part;value;tolerance\nC5;Capacitor;10n;+80/-20%');
    expect(cell.tolerance).toEqual([minus, plus]);
    expect(line(`ref;part;value;tolerance\nC5;Capacitor;10n;${printTolerance(cell.tolerance!)}`).tolerance).toEqual([minus, plus]);
  });
  test('boards named in other scripts keep their names', () => {
    expect(line('плата;поз;деталь;номинал\nПитание;R1;Резистор;10k').refs).toEqual(['ПИТАНИЕ:R1']);
  });
});

describe('rubbish in lists', () => {
  test.each([
    ['ref;value\nR1;=HYPERLINK("x")', /looks like a formula/],
    ['ref;part;value\nR1;Resistor 22k;10k', /says both 10 kΩ and 22 kΩ/],
    ['ref;value;n\nR1;10k;1\n\nR2;;1', /no value is printed/],
    ['R1 10k\nqwertz uiop', /was not understood/],
  ])('%j', (text, message) => {
    const rows = text.startsWith('ref;value;n') ? readList(text, null, { columns: ['refs', 'value', 'quantity'] }) : read(text);
    expect(rows.remarks.map((r) => r.message).join('\n')).toMatch(message);
  });
  test('marks that turn the direction of writing are taken out', () => {
    expect(brief('ref;value\n\u202eR1\u202c;\u200f10k')).toEqual([['resistor', 1e4, 1, 'R1']]);
  });
  test('endless digits do not hang the reader', () => {
    const row = `${'1'.repeat(400_000)},b,c`;
    expect(read(`${row}\n${row}`).entries).toHaveLength(2);
  });
  test('a list of 3000 lines is cut with a message, not swallowed', () => {
    const list = `ref;value\n${Array.from({ length: 3000 }, (_, i) => `R${i % 9999};1k`).join('\n')}`;
    const { lines, remarks } = read(list);
    expect(lines).toHaveLength(2000);
    expect(remarks.some((r) => /more than 2000 lines/.test(r.message))).toBe(true);
  });
});

describe('encodings', () => {
  const bytes = (...b: number[]) => Uint8Array.from(b);
  test.each([
    ['UTF-8', new TextEncoder().encode('R1 Widerstand grün'), 'utf-8', 'R1 Widerstand grün'],
    ['UTF-16 with its mark', bytes(0xff, 0xfe, 0x52, 0, 0x31, 0), 'utf-16le', 'R1'],
    ['UTF-16 without', bytes(0x52, 0, 0x31, 0, 0x20, 0, 0x31, 0), 'utf-16', 'R1 1'],
    ['GB18030', bytes(0xb5, 0xe7, 0xd7, 0xe8, 0x20, 0x52, 0x31), 'gb18030', '电阻 R1'],
    ['Windows-1252', bytes(0x67, 0x72, 0xfc, 0x6e, 0x20, 0x52, 0x31), 'windows-1252', 'grün R1'],
  ] as const)('%s', (_, data, encoding, text) => {
    expect(decodeText(data, 'list.csv')).toEqual({ encoding, text });
  });

  /** Bytes of a text: the platform's decoder turned round. */
  const encoded = (text: string, encoding: string): Uint8Array => {
    const decoder = new TextDecoder(encoding);
    const pairs: readonly (readonly number[])[] = Array.from({ length: 256 }, (_, i) => i).flatMap((a) => [
      [a],
      ...(encoding === 'shift_jis' && a > 128 ? Array.from({ length: 189 }, (_, i) => [a, i + 64]) : []),
    ]);
    const bytesOf = new Map(pairs.map((pair) => [decoder.decode(Uint8Array.from(pair)), pair]));
    return Uint8Array.from(Array.from(text).flatMap((c) => bytesOf.get(c)!));
  };
  test.each([
    ['windows-1251', 'Поз.;Наименование;Номинал\nR1;Резистор;10k\nC1;Конденсатор;100n'],
    ['windows-1251', 'Резистор 4,7 кОм R1 1 шт\nСтабилитрон 5,6 В VD3 1 шт'],
    ['windows-1250', 'Oznaczenie;Część;Wartość\nR1;Rezystor;10k\nL1;Dławik;10u\nD1;Dioda świecąca;żółta'],
    ['windows-1250', 'Światło LED żółte 5 mm LED1\nUkład scalony NE555 U1'],
    ['shift_jis', '番号,部品,値\nR1,抵抗,10k\nC1,電解コンデンサ,100u'],
    ['shift_jis', '抵抗 4.7kΩ R1 1個\nダイオード 1N4148 D1'],
    ['windows-1252', 'Bezeichnung;Größe;Menge\nR1;10k;1\nC1;100 µF;2'],
  ])('%s: %j', (encoding, text) => {
    expect(decodeText(encoded(text, encoding), 'list.csv')).toEqual({ encoding, text });
  });
  test('what is no text is refused by name', () => {
    expect(() =>
      decodeText(
        Uint8Array.from({ length: 400 }, (_, i) => (i * 7) % 31),
        'photo.bin',
      ),
    ).toThrow(/photo.bin is no text and no XLSX/);
  });
});

test('numbers stay numbers in the exported CSV, negative ones too', () => {
  expect(toCsv([[-1.5e-9, '-1.5', 'R1']])).toBe(`-1.5e-9,"'-1.5",R1`);
});

test('a note that looks like a formula is no formula in the exported CSV', () => {
  expect(toCsv([['=1+1', 'plain']])).toBe('"\'=1+1",plain');
});
