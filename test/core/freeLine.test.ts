import fc from 'fast-check';
import { type FreeKind, readFreeLine } from '../../src/core/partslist';

/** Words of sellers' lists by language; `lit` is a word-by-word machine translation (common practice, no source). */
const WORDS: Readonly<Record<string, Readonly<Partial<Record<FreeKind, readonly string[]>>>>> = {
  en: {
    R: ['Resistor', 'Metal film resistor', 'Carbon resistor 1/4W', 'Trimmer'],
    C: ['Ceramic capacitor', 'Capacitor', 'Electrolytic capacitor'],
    L: ['Inductor', 'Choke'],
    D: ['Diode', 'Rectifier diode', 'Zener diode'],
    LED: ['LED 5mm', '3mm LED'],
    Q: ['Transistor', 'NPN transistor'],
    XTAL: ['Crystal', 'Quartz crystal'],
    IC: ['IC', 'Integrated circuit', 'Chip'],
  },
  de: {
    R: ['Widerstand', 'Metallschichtwiderstand', 'Kohleschichtwiderstand', 'Schichtwiderstand 0,25W'],
    C: ['Kondensator', 'Keramikkondensator', 'Elektrolytkondensator', 'Elko'],
    L: ['Drossel', 'Spule', 'Induktivität'],
    D: ['Diode', 'Gleichrichterdiode'],
    LED: ['LED 5mm', 'Leuchtdiode'],
    Q: ['Transistor'],
    XTAL: ['Quarz'],
    IC: ['IC', 'Schaltkreis'],
  },
  zh: {
    R: ['电阻', '金属膜电阻', '色环电阻', '碳膜电阻 1/4W', '贴片电阻'],
    C: ['瓷片电容', '电解电容', '独石电容', '电容'],
    L: ['电感', '色环电感'],
    D: ['二极管', '整流二极管'],
    LED: ['发光二极管', 'LED发光管'],
    Q: ['三极管'],
    XTAL: ['晶振'],
    IC: ['芯片', '集成电路'],
  },
  es: {
    R: ['Resistencia', 'Resistencia 1/4W'],
    C: ['Condensador cerámico', 'Condensador electrolítico', 'Capacitor'],
    L: ['Bobina', 'Inductor'],
    D: ['Diodo'],
    LED: ['LED 5mm', 'Diodo LED'],
    Q: ['Transistor'],
    XTAL: ['Cristal', 'Cristal de cuarzo'],
    IC: ['Circuito integrado', 'CI'],
  },
  fr: {
    R: ['Résistance', 'Résistance couche métal'],
    C: ['Condensateur', 'Condensateur céramique', 'Condensateur chimique'],
    L: ['Bobine', 'Inductance', 'Self'],
    D: ['Diode'],
    LED: ['LED 5mm', 'DEL 3mm'],
    Q: ['Transistor'],
    XTAL: ['Quartz'],
    IC: ['Circuit intégré', 'CI'],
  },
  pt: {
    R: ['Resistor', 'Resistência'],
    C: ['Capacitor cerâmico', 'Capacitor eletrolítico'],
    L: ['Indutor', 'Bobina'],
    D: ['Diodo'],
    LED: ['LED 5mm'],
    Q: ['Transistor'],
    XTAL: ['Cristal'],
    IC: ['Circuito integrado', 'CI'],
  },
  it: {
    R: ['Resistenza', 'Resistore'],
    C: ['Condensatore ceramico', 'Condensatore elettrolitico'],
    L: ['Induttanza', 'Bobina'],
    D: ['Diodo'],
    LED: ['LED 5mm'],
    Q: ['Transistor', 'Transistore'],
    XTAL: ['Quarzo'],
    IC: ['Circuito integrato'],
  },
  pl: {
    R: ['Rezystor', 'Opornik', 'Rezystor metalizowany'],
    C: ['Kondensator', 'Kondensator ceramiczny', 'Kondensator elektrolityczny'],
    L: ['Dławik', 'Cewka'],
    D: ['Dioda', 'Dioda prostownicza'],
    LED: ['Diodan LED 5mm', 'LED 3mm'],
    Q: ['Tranzystor'],
    XTAL: ['Kwarc', 'Rezonator kwarcowy'],
    IC: ['Układ scalony'],
  },
  ru: {
    R: ['Резистор', 'Сопротивление'],
    C: ['Конденсатор', 'Конденсатор керамический', 'Конденсатор электролитический'],
    L: ['Дроссель', 'Катушка индуктивности', 'Индуктивность'],
    D: ['Диод', 'Диод выпрямительный'],
    LED: ['Светодиод 5мм', 'Светодиод'],
    Q: ['Транзистор'],
    XTAL: ['Кварц', 'Кварцевый резонатор'],
    IC: ['Микросхема'],
  },
  ja: {
    R: ['抵抗', '金属皮膜抵抗', 'カーボン抵抗'],
    C: ['コンデンサ', '電解コンデンサ', 'セラミックコンデンサ'],
    L: ['コイル', 'インダクタ'],
    D: ['ダイオード'],
    LED: ['LED 5mm', '発光ダイオード'],
    Q: ['トランジスタ'],
    XTAL: ['水晶', '水晶振動子'],
    IC: ['IC', '集積回路'],
  },
  lit: {
    R: ['Metal film electric resistance', 'Carbon membrane resistance 1/4W', 'Electric resistance', 'Color ring resistance', 'Adjustable resistance'],
    C: ['Porcelain chip capacitance', 'Electrolyte electric capacity', 'Ceramics electric capacity', 'Electrolysis capacitance', 'Electric capacity'],
    L: ['Color ring inductance', 'Electric inductance', 'Electrical inductance'],
    D: ['Two-pole tube', 'Switch two-pole tube', 'Rectify diode', 'Diode tube'],
    LED: ['Light-emitting tube 5mm', 'Luminous tube', 'Light-emitting diode', 'Luminous diode 3mm'],
    Q: ['Audion', 'Triode', 'Three-pole tube', 'Crystal triode'],
    XTAL: ['Crystal oscillator', 'Crystal vibration', 'Quartz crystal'],
    IC: ['Integrated block', 'Integrated circuit', 'Chip'],
  },
};

const COLOURS: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  en: { red: 'red', green: 'green', yellow: 'yellow', blue: 'blue', white: 'white', orange: 'orange' },
  lit: { red: 'red', green: 'green', yellow: 'yellow', blue: 'blue', white: 'white' },
  de: { red: 'rot', green: 'grün', yellow: 'gelb', blue: 'blau', white: 'weiß', orange: 'orange' },
  zh: { red: '红色', green: '绿', yellow: '黄', blue: '蓝', white: '白', orange: '橙' },
  es: { red: 'rojo', green: 'verde', yellow: 'amarillo', blue: 'azul', white: 'blanco' },
  fr: { red: 'rouge', green: 'verte', yellow: 'jaune', blue: 'bleue', white: 'blanche' },
  pt: { red: 'vermelho', green: 'verde', yellow: 'amarelo', blue: 'azul', white: 'branco' },
  it: { red: 'rosso', green: 'verde', yellow: 'giallo', blue: 'blu', white: 'bianco' },
  pl: { red: 'czerwona', green: 'zielony', yellow: 'żółta', blue: 'niebieska', white: 'biała' },
  ru: { red: 'красный', green: 'зелёный', yellow: 'жёлтый', blue: 'синий', white: 'белый' },
  ja: { red: '赤', green: '緑', yellow: '黄色', blue: '青', white: '白' },
};

/** How values are printed, with what they mean. */
const VALUES: Readonly<Record<'R' | 'C' | 'L' | 'XTAL', readonly (readonly [string, number])[]>> = {
  R: [
    ['10k', 1e4],
    ['4k7', 4700],
    ['4.7K', 4700],
    ['220R', 220],
    ['220Ω', 220],
    ['1M', 1e6],
    ['2M2 5%', 2.2e6],
    ['47KΩ ±1%', 47e3],
    ['1kΩ 1/4W', 1e3],
    ['0,25W 330R', 330],
    ['1.5 k', 1500],
    ['100 ohm', 100],
    ['R47', 0.47],
  ],
  C: [
    ['100nF', 1e-7],
    ['104', 1e-7],
    ['103K', 1e-8],
    ['22pF', 22e-12],
    ['4,7uF 50V', 4.7e-6],
    ['100µF/25V', 1e-4],
    ['1000UF 16V', 1e-3],
    ['0.1uF', 1e-7],
    ['2n2', 2.2e-9],
    ['10 µF 63V', 1e-5],
    ['333J', 33e-9],
  ],
  L: [
    ['10uH', 1e-5],
    ['100µH', 1e-4],
    ['4,7mH', 4.7e-3],
    ['470 uH', 4.7e-4],
  ],
  XTAL: [
    ['16MHz', 16e6],
    ['32.768kHz', 32768],
    ['11,0592 MHz', 11.0592e6],
    ['8M', 8e6],
  ],
};
const TYPES: Readonly<Record<'D' | 'Q' | 'IC', readonly string[]>> = {
  D: ['1N4148', '1N4007', '1N5819', 'BAT85', '1N4001'],
  Q: ['BC547', '2N3904', 'S8050', 'S9012', 'BC557B', '2N2222'],
  IC: ['NE555', 'LM358', '4017', '74HC595', 'CD4060', 'TL072', '7805'],
};
const LETTER: Readonly<Record<string, readonly string[]>> = {
  R: ['R'],
  C: ['C'],
  L: ['L'],
  D: ['D', 'VD'],
  LED: ['LED', 'D', 'HL'],
  Q: ['Q', 'T', 'VT'],
  XTAL: ['X', 'Y'],
  IC: ['U', 'IC'],
};
const COUNTS: readonly ((n: number) => string)[] = [
  (n) => `x${n}`,
  (n) => `×${n}`,
  (n) => `${n}x`,
  (n) => `${n} pcs`,
  (n) => `(${n}x)`,
  (n) => `*${n}`,
  (n) => `Qty: ${n}`,
  (n) => `${n} szt.`,
  (n) => `${n} шт.`,
  (n) => `${n}个`,
  (n) => `${n}只`,
  (n) => `${n} Stk.`,
  (n) => `${n} uds.`,
  (n) => `qté ${n}`,
  (n) => `数量：${n}`,
  (n) => `${n} only`,
  (n) => `${n} pz`,
  (n) => `${n}個`,
];

interface Printed {
  readonly text: string;
  readonly kind: FreeKind;
  readonly value: number | string;
  readonly quantity: number;
  readonly refs: readonly string[];
}

type Listed = Exclude<FreeKind, 'PCB' | 'OTHER'>;
const KINDS: readonly Listed[] = ['R', 'C', 'L', 'D', 'LED', 'Q', 'XTAL', 'IC'];

/** A made-up line of a seller's list together with what it says. */
const printed: fc.Arbitrary<Printed> = fc
  .record({
    lang: fc.constantFrom(...Object.keys(WORDS)),
    kind: fc.constantFrom(...KINDS),
    pick: fc.array(fc.nat(1000), { minLength: 8, maxLength: 8 }),
    first: fc.integer({ min: 1, max: 20 }),
    count: fc.integer({ min: 1, max: 5 }),
    withRefs: fc.boolean(),
    withCount: fc.boolean(),
  })
  .map(({ lang, kind, pick, first, count, withRefs, withCount }) => {
    const of = <T>(list: readonly T[], k: number): T => list[pick[k]! % list.length]!;
    const word = of(WORDS[lang]![kind]!, 0);
    const colour = of(Object.entries(COLOURS[lang]!), 1);
    const typeOrValue = (): readonly [string, number | string] => {
      if (kind === 'LED') return [colour[1], colour[0]];
      if (kind === 'D' || kind === 'Q' || kind === 'IC') return [of(TYPES[kind], 1), of(TYPES[kind], 1)];
      return of(VALUES[kind as 'R'], 1);
    };
    const [text, value] = typeOrValue();
    const letter = of(LETTER[kind]!, 2);
    const refs = withRefs ? Array.from({ length: count }, (_, i) => `${letter}${first + i}`) : [];
    const last = refs[refs.length - 1];
    const styles = [
      refs.join(','),
      refs.join(', '),
      refs.join('、'),
      refs.join(' '),
      refs.join('/'),
      ...(count > 1 ? [`${refs[0]}-${last}`, `${refs[0]}~${last}`, `${refs[0]}-${first + count - 1}`, `${refs[0]} – ${last}`] : []),
    ];
    const refText = of(styles, 3);
    const quantity = withCount ? count + (pick[5]! % 3) : Math.max(1, refs.length);
    const pieces = [`${word} ${text}`, ...(withRefs ? [of([refText, `(${refText})`], 6)] : []), ...(withCount ? [of(COUNTS, 4)(quantity)] : [])];
    const order = pick[7]! % 2 === 0 ? pieces : withRefs ? [pieces[1]!, pieces[0]!, ...pieces.slice(2)] : pieces;
    return { text: order.join(of([' ', '\t', ' ; '], 5)), kind, value, quantity, refs };
  });

// Beside positions, `R47` reads as one more of them: nobody can tell, so such lines are not printed here.
const clear = printed.filter((p) => !(p.refs.length > 0 && p.text.includes('R47')));

test('lines as sellers print them, in ten languages and in literal translation, say what they say', () => {
  fc.assert(
    fc.property(clear, (p) => {
      const line = readFreeLine(p.text);
      expect({ kind: line.kind, quantity: line.quantity, refs: line.refs }).toEqual({ kind: p.kind, quantity: p.quantity, refs: p.refs });
      if (typeof p.value === 'number') expect(line.value).toBeCloseTo(p.value, Math.ceil(6 - Math.log10(p.value)));
      else expect(line.value).toBe(p.value);
    }),
    { numRuns: 3000, seed: 7 },
  );
});

describe('a line of one of two boards', () => {
  test.each([
    ['A:R1-A:R3 10k', ['A:R1', 'A:R2', 'A:R3'], 10_000],
    ['B:R1-R2 4.7k', ['B:R1', 'B:R2'], 4700],
    ['A:R1 B:R1 10k', ['A:R1', 'B:R1'], 10_000],
    ['A:C1 100n', ['A:C1'], 1e-7],
    // A word with a colon in front, and a number of the line, are no boards.
    ['Refs:R1,R2 10k', ['R1', 'R2'], 10_000],
    ['1: R4 10k', ['R4'], 10_000],
  ])('%s', (text, refs, value) => {
    expect(readFreeLine(text)).toMatchObject({ refs, value, quantity: refs.length });
  });
});
