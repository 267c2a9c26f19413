/** Whole lists as sellers in ten languages print them (invented; wordings: common practice, no source). */
import type { LineKind } from '@/core/kit';
import { readList } from '@/core/partslist';

type Expected = readonly [kind: LineKind, value: number | null, quantity: number, refs: string];
const read = (text: string) => readList(text, null);

const LISTS: Readonly<Record<string, { readonly text: string; readonly lines: readonly Expected[] }>> = {
  'English, table': {
    text: `Designator,Part,Value,Quantity
"R1, R2",Resistor 1/4W 1%,10k,2
R3-R5,Resistor,470R,3
"C1,C2",Ceramic capacitor,100nF,2
C3,Electrolytic capacitor,220uF/25V,1
D1,Diode,1N4148,1
"LED1,LED2",LED 5mm red,,2
Q1,Transistor,BC547,1
U1,IC op-amp,LM358,1`,
    lines: [
      ['resistor', 1e4, 2, 'R1 R2'],
      ['resistor', 470, 3, 'R3 R4 R5'],
      ['capacitor', 1e-7, 2, 'C1 C2'],
      ['electrolytic', 2.2e-4, 1, 'C3'],
      ['diode', null, 1, 'D1'],
      ['led', null, 2, 'LED1 LED2'],
      ['npn', null, 1, 'Q1'],
      ['opamp', null, 1, 'U1'],
    ],
  },
  'German, table with decimal commas': {
    text: `Bezeichner;Bauteil;Wert;Anzahl
R1, R2;Metallschichtwiderstand;2,2k;2
R3;Widerstand;1M;1
C1;Keramikkondensator;22pF;1
C2;Elko;47uF/16V;1
D1;Zenerdiode;5V6;1
RV1;Trimmer;10k;1
K1;Relais;12V;1
S1;Taster;;1`,
    lines: [
      ['resistor', 2200, 2, 'R1 R2'],
      ['resistor', 1e6, 1, 'R3'],
      ['capacitor', 2.2e-11, 1, 'C1'],
      ['electrolytic', 4.7e-5, 1, 'C2'],
      ['zener', 5.6, 1, 'D1'],
      ['trimmer', 1e4, 1, 'RV1'],
      ['relay', null, 1, 'K1'],
      ['switch', null, 1, 'S1'],
    ],
  },
  'Chinese, table': {
    text: `标号\t名称\t参数\t数量
R1,R3\t金属膜电阻\t1K\t2
R2\t色环电阻\t4.7K\t1
C1,C2\t瓷片电容\t104\t2
C4\t电解电容\t100uF/25V\t1
D1\t二极管\t1N4007\t1
LED1\t发光二极管\t绿色\t1
Q1\t三极管\tS9012\t1
RP1\t可调电阻\t10K\t1
Y1\t晶振\t12MHz\t1`,
    lines: [
      ['resistor', 1000, 2, 'R1 R3'],
      ['resistor', 4700, 1, 'R2'],
      ['capacitor', 1e-7, 2, 'C1 C2'],
      ['electrolytic', 1e-4, 1, 'C4'],
      ['diode', null, 1, 'D1'],
      ['led', null, 1, 'LED1'],
      ['pnp', null, 1, 'Q1'],
      ['trimmer', 1e4, 1, 'RP1'],
      ['crystal', 12e6, 1, 'Y1'],
    ],
  },
  'Spanish, free lines': {
    text: `2x Resistencia 10k R1, R2
1x Condensador cerámico 100nF C1
1x Condensador electrolítico 10uF 50V C2
3x Diodo LED rojo LED1-LED3
1x Transistor BC557 Q1`,
    lines: [
      ['resistor', 1e4, 2, 'R1 R2'],
      ['capacitor', 1e-7, 1, 'C1'],
      ['electrolytic', 1e-5, 1, 'C2'],
      ['led', null, 3, 'LED1 LED2 LED3'],
      ['pnp', null, 1, 'Q1'],
    ],
  },
  'French, table': {
    text: `Repère;Désignation;Valeur;Quantité
R1,R2;Résistance;4k7;2
C1;Condensateur céramique;10nF;1
C2;Condensateur chimique;470uF/16V;1
D1;Diode;1N4148;1
T1;Transistor NPN;2N2222;1`,
    lines: [
      ['resistor', 4700, 2, 'R1 R2'],
      ['capacitor', 1e-8, 1, 'C1'],
      ['electrolytic', 4.7e-4, 1, 'C2'],
      ['diode', null, 1, 'D1'],
      ['npn', null, 1, 'T1'],
    ],
  },
  'Portuguese, free lines': {
    text: `Resistor 1k R1 R2 x2
Capacitor eletrolítico 22uF/25V C1 x1
Diodo 1N4007 D1 x1
LED vermelho 5mm LED1 x1`,
    lines: [
      ['resistor', 1000, 2, 'R1 R2'],
      ['electrolytic', 2.2e-5, 1, 'C1'],
      ['diode', null, 1, 'D1'],
      ['led', null, 1, 'LED1'],
    ],
  },
  'Italian, table': {
    text: `Riferimento;Componente;Valore;Quantità
R1;Resistenza;330R;1
C1;Condensatore ceramico;100nF;1
C2;Condensatore elettrolitico;100uF/25V;1
Q1;Transistor;BC337;1`,
    lines: [
      ['resistor', 330, 1, 'R1'],
      ['capacitor', 1e-7, 1, 'C1'],
      ['electrolytic', 1e-4, 1, 'C2'],
      ['npn', null, 1, 'Q1'],
    ],
  },
  'Polish, table': {
    text: `Oznaczenie;Nazwa;Wartość;Ilość
R1,R2;Rezystor;22k;2
C1;Kondensator ceramiczny;100nF;1
C2;Kondensator elektrolityczny;10uF/50V;1
D1;Diodan LED;czerwona;1
P1;Potencjometr montażowy;5k;1`,
    lines: [
      ['resistor', 22e3, 2, 'R1 R2'],
      ['capacitor', 1e-7, 1, 'C1'],
      ['electrolytic', 1e-5, 1, 'C2'],
      ['led', null, 1, 'D1'],
      ['trimmer', 5000, 1, 'P1'],
    ],
  },
  'Russian, table with Cyrillic units': {
    text: `Обозначение;Наименование;Номинал;Кол-во
R1,R2;Резистор;10 кОм;2
R3;Резистор;470 Ом;1
C1;Конденсатор керамический;100 нФ;1
C2;Электролитический конденсатор;220 мкФ 25В;1
VD1;Диод;1N4148;1
HL1;Светодиод;красный;1
VT1;Транзистор;BC547;1`,
    lines: [
      ['resistor', 1e4, 2, 'R1 R2'],
      ['resistor', 470, 1, 'R3'],
      ['capacitor', 1e-7, 1, 'C1'],
      ['electrolytic', 2.2e-4, 1, 'C2'],
      ['diode', null, 1, 'VD1'],
      ['led', null, 1, 'HL1'],
      ['npn', null, 1, 'VT1'],
    ],
  },
  'Japanese, table': {
    text: `部品番号\t品名\t値\t個数
R1,R2\t抵抗\t10k\t2
C1\tセラミックコンデンサ\t0.1uF\t1
C2\t電解コンデンサ\t47uF\t1
D1\tダイオード\t1N4148\t1
LED1\t発光ダイオード\t赤\t1
Q1\tトランジスタ\tC1815\t1`,
    lines: [
      ['resistor', 1e4, 2, 'R1 R2'],
      ['capacitor', 1e-7, 1, 'C1'],
      ['electrolytic', 4.7e-5, 1, 'C2'],
      ['diode', null, 1, 'D1'],
      ['led', null, 1, 'LED1'],
      ['npn', null, 1, 'Q1'],
    ],
  },
  'translated word by word': {
    text: `Position;Name;Value;Amount
R1-R3;Color ring resistance;1K;3
C1;Porcelain capacitance;104;1
C2;Electrolysis capacitance;10uF;1
LED1;Luminous tube;red;1
Q1;Triode;9013;1`,
    lines: [
      ['resistor', 1000, 3, 'R1 R2 R3'],
      ['capacitor', 1e-7, 1, 'C1'],
      ['electrolytic', 1e-5, 1, 'C2'],
      ['led', null, 1, 'LED1'],
      ['npn', null, 1, 'Q1'],
    ],
  },
};

describe.each(Object.entries(LISTS))('%s', (_, { text, lines }) => {
  const list = read(text);
  test('every line is understood', () => {
    expect(list.lines).toHaveLength(lines.length);
    expect(list.remarks.filter((r) => /not understood/.test(r.message))).toEqual([]);
  });
  test.each(lines.map((l, i) => [i + 1, l] as const))('line %d', (n, [kind, value, quantity, refs]) => {
    const line = list.lines[n - 1]!;
    expect([line.kind, line.quantity, line.refs.join(' ')]).toEqual([kind, quantity, refs]);
    if (value === null) expect(line.type !== undefined || line.colour !== undefined || line.value === null).toBe(true);
    else expect(line.value! / value).toBeCloseTo(1, 9);
  });
  test('with its lines in reverse it is the same list in reverse', () => {
    const rows = text.split('\n');
    const table = !/free/.test(_);
    const reversed = read([...(table ? rows.slice(0, 1) : []), ...rows.slice(table ? 1 : 0).reverse()].join('\n'));
    expect(reversed.lines.map((l) => [l.kind, l.refs.join(' ')])).toEqual(list.lines.map((l) => [l.kind, l.refs.join(' ')]).reverse());
  });
});

describe('values as tables write them', () => {
  test.each<[string, string, number]>([
    ['Resistor', '10 kohm', 1e4],
    ['Resistor', '10 kOhm 1/4W', 1e4],
    ['Resistor', '4,7 kΩ', 4700],
    ['Resistor', '2.2 M', 2.2e6],
    ['Resistor', '470 Ohm', 470],
    ['Resistor', '0R47', 0.47],
    ['Resistor', '100', 100],
    ['Resistor', '1,5 МОм', 1.5e6],
    ['Capacitor', '100 nF', 1e-7],
    ['Capacitor', '0.1 uF / 50V', 1e-7],
    ['Capacitor', '104', 1e-7],
    ['Capacitor', '22', 2.2e-11],
    ['Capacitor', '4n7', 4.7e-9],
    ['Capacitor', '10 мкФ', 1e-5],
    ['Inductor', '10 µH', 1e-5],
    ['Inductor', '4.7 mH', 4.7e-3],
  ])('%s %s', (kind, text, value) => {
    const letter = kind[0] === 'I' ? 'L' : kind[0]!;
    const [line] = read(`Ref;Part;Value;Qty\n${letter}1;${kind};${text};1\n${letter}2;${kind};${text};1`).lines;
    expect(line!.value! / value).toBeCloseTo(1, 9);
  });
  test('a number without a unit is never so many farads', () => {
    const { lines } = read('Ref;Part;Value;Qty\nC1;Capacitor;100 foo;1\nC2;Capacitor;3.3;1');
    for (const l of lines) expect(l.value === null || l.value < 1).toBe(true);
  });
});

describe('quantity against positions', () => {
  test.each([
    ['three positions, two pieces', 'Ref,Part,Value,Qty\nR1-R3,Resistor,10k,2', /R1.*3.*2|2.*3/],
    ['negative', 'Ref,Part,Value,Qty\nR1,Resistor,10k,-4', /-4|negative|quantity/i],
    ['a position twice', 'Ref,Part,Value,Qty\nR1,Resistor,10k,1\nR1,Resistor,22k,1', /R1/],
  ])('%s is a finding with its line', (_, text, words) => {
    const { remarks } = read(text);
    expect(remarks.some((r) => words.test(r.message))).toBe(true);
    expect(remarks.every((r) => r.line >= 1)).toBe(true);
  });
});
