/** Kinds of parts by their words in ten languages, by type number and by ref (words: common practice, no source). */
import type { LineKind } from '@/core/kit';
import { colourIn } from '@/core/partslist/kindWords';
import { expandRefs, readList, readNeed, readSheet } from '@/core/partslist';

const kindIn = (text: string) => readSheet(text).lines[0]?.kind ?? null;

const WORDS: Readonly<Partial<Record<LineKind, readonly string[]>>> = {
  resistor: ['Resistor 1/4W', 'Widerstand', '金属膜电阻', 'Resistencia', 'Résistance', 'Resistência', 'Resistenza resistore', 'Rezystor', 'Резистор', '抵抗'],
  trimmer: ['Trimmer 10k', '可调电阻', 'Подстроечный резистор', '半固定抵抗', 'Einstellwiderstand', 'variable resistance'],
  potentiometer: ['Potentiometer B10K', '电位器', 'Потенциометр', 'Drehpotentiometer', 'ボリューム'],
  thermistor: ['NTC thermistor 10k resistor', '热敏电阻', 'Терморезистор резистор', 'サーミスタ 抵抗'],
  ldr: ['Photoresistor', '光敏电阻', 'Фоторезистор', 'Fotowiderstand', 'フォトレジスタ 抵抗'],
  capacitor: [
    'Ceramic capacitor',
    'Keramikkondensator',
    '瓷片电容',
    'Condensador cerámico',
    'Condensateur céramique',
    'Kondensator ceramiczny',
    'Конденсатор керамический',
    'セラミックコンデンサ',
  ],
  electrolytic: [
    'Electrolytic capacitor',
    'Elko',
    'Elektrolytkondensator',
    '电解电容',
    'Condensador electrolítico',
    'Condensateur électrolytique',
    'Capacitor eletrolítico',
    'Condensatore elettrolitico',
    'Электролитический конденсатор',
    '電解コンデンサ',
  ],
  inductor: ['Inductor', 'Drossel', '电感', 'Bobina', 'Bobine', 'Dławik', 'Дроссель', 'コイル'],
  diode: ['Diode 1N4148', 'Diodo', '二极管', 'Dioda', 'Диод', 'ダイオード', 'Gleichrichterdiode'],
  zener: ['Zener diode 5V6', 'Z-Diode', 'Стабилитрон диод', '稳压二极管', 'Diodo zener', 'ツェナーダイオード'],
  led: ['LED red', 'Leuchtdiode', '发光二极管', 'Светодиод', 'Diodo LED', 'luminous tube', '発光ダイオード'],
  npn: ['NPN transistor', 'Transistor BC547', '三极管 S9014', 'Транзистор NPN', 'トランジスタ C1815'],
  pnp: ['PNP transistor', 'Transistor BC557', '三极管 S9012', 'Транзистор PNP'],
  nmos: ['MOSFET transistor N-channel', 'Transistor 2N7000', '场效应三极管', 'Полевой транзистор'],
  pmos: ['P-channel transistor', 'transistor PMOS'],
  opamp: ['IC op-amp LM358', 'operational amplifier chip', '运放芯片', 'Операционный усилитель микросхема', 'IC LM393'],
  ic: ['Integrated circuit', '芯片', 'Микросхема', 'Circuito integrado', 'Circuit intégré', 'Układ scalony', '集成电路'],
  microcontroller: ['IC microcontroller, 8 pins', 'Mikrocontroller IC', '单片机芯片', 'Микроконтроллер микросхема', 'MCU chip'],
  crystal: ['Crystal 16MHz', 'Quarz', '晶振', 'Кварц', 'Kwarc', '水晶', 'Cristal de cuarzo'],
  relay: ['Relay 12V', 'Relais', 'Relé', 'Реле', '继电器', 'リレー', 'Przekaźnik'],
  fuse: ['Fuse 1A', 'Sicherung', 'Fusible', 'Предохранитель', '保险丝', 'Bezpiecznik'],
  switch: ['Push button', 'Taster', 'Pulsador', 'Кнопка', '按键', 'Interrupteur', 'スイッチ', 'Przycisk'],
  connector: ['Pin header', 'Stiftleiste', '排针', 'Разъём', 'Connecteur', 'Złącze', 'row needle'],
  lamp: ['Lamp 6V', 'Glühlampe', 'Bombilla', 'Ampoule', 'Żarówka', '灯泡', '電球'],
  link: ['Wire link', 'Drahtbrücke', 'Перемычка', 'Zworka', '跳线'],
  mechanical: ['Spacer M3', '铜柱', 'Unterlegscheibe', 'Гайка'],
  heatsink: ['Heat sink', 'Kühlkörper', 'Disipador', '散热片'],
  tantalum: ['Tantalum capacitor', '钽电容', 'Condensateur tantale'],
  transformer: ['Voltage changer transformer', 'Übertrager', 'トランス'],
  optocoupler: ['Light coupling', 'Optokoppler', '光耦'],
  bridge: ['Bridge pile rectifying', 'Pont redresseur', '整流桥'],
  display: ['7seg disp', 'Siebensegmentanzeige', '数码管', 'Liquid crystal screen'],
  holder: ['Battery box', 'Portapilas', '電池ボックス'],
  module: ['RF module', 'Funkmodul', '无线模块'],
};

describe.each(Object.entries(WORDS))('%s', (kind, words) => {
  test.each(words)('%s', (word) => {
    expect(kindIn(`- ${word}`)).toBe(kind);
  });
});

describe('without a word', () => {
  test.each<[string, string[], LineKind]>([
    ['10k', ['R1'], 'resistor'],
    ['B:10k', ['B:R7'], 'resistor'],
    ['5k', ['VR1'], 'trimmer'],
    ['', ['RT1'], 'thermistor'],
    ['', ['LDR1'], 'ldr'],
    ['100n', ['C3'], 'capacitor'],
    ['5V6', ['ZD1'], 'zener'],
    ['red', ['LED2'], 'led'],
    ['12 V', ['K1'], 'relay'],
    ['1 A', ['F1'], 'fuse'],
    ['', ['SW1'], 'switch'],
    ['', ['CN2'], 'connector'],
    ['BC547B', ['Q1'], 'npn'],
    ['BC557', ['T2'], 'pnp'],
    ['2N7000', ['Q3'], 'nmos'],
    ['LM358N', ['U1'], 'opamp'],
    ['16MHz', ['Y1'], 'crystal'],
    ['PCB board rev B circuit board', [], 'board'],
  ])('%s at %j is a %s', (text, refs, kind) => {
    expect(kindIn(`${refs.join(' ') || '-'} ${text}`)).toBe(kind);
  });
  test('nothing at all is a part', () => {
    expect(kindIn('- whatsit')).toBeNull();
  });
});

describe('colours', () => {
  test.each([
    ['red', ['red LED', 'LED rot', 'rojo', 'rouge', 'rosso', 'красный', 'czerwona', '红色', '赤']],
    ['green', ['green', 'grün', 'verde', 'vert', 'зелёный', 'zielona', '绿色', '緑']],
    ['yellow', ['yellow', 'gelb', 'amarillo', 'amarelo', 'jaune', 'giallo', 'жёлтый', 'żółta', '黄']],
    ['blue', ['blue', 'blau', 'azul', 'bleu', 'синий', 'niebieska', '蓝']],
    ['white', ['white', 'weiß', 'blanco', 'branco', 'blanc', 'bianco', 'белый', 'biała', '白']],
    ['orange', ['orange', 'naranja', 'laranja', 'оранжевый', '橙']],
    ['infrared', ['infrared LED', 'Infrarot-LED', '红外发射管', 'инфракрасный']],
  ] as const)('%s', (colour, words) => {
    for (const word of words) expect([word, colourIn(word)]).toEqual([word, colour]);
  });
  test('a kind is no colour', () => {
    expect(colourIn('Resistor 10k')).toBeNull();
  });
});

describe('refs', () => {
  test.each<[string, string[]]>([
    ['R1-R4,R7', ['R1', 'R2', 'R3', 'R4', 'R7']],
    ['R1-4', ['R1', 'R2', 'R3', 'R4']],
    ['C1、C2', ['C1', 'C2']],
    ['R1 R2  R3', ['R1', 'R2', 'R3']],
    ['R1..R3', ['R1', 'R2', 'R3']],
    ['LED1', ['LED1']],
    ['B:R7', ['B:R7']],
    ['B:R7-B:R9', ['B:R7', 'B:R8', 'B:R9']],
    ['B:R7-9', ['B:R7', 'B:R8', 'B:R9']],
    ['', []],
  ])('%s', (text, refs) => {
    expect(expandRefs(text)).toEqual(refs);
  });
});

describe('needs', () => {
  test('a supply with voltage, current, plug and polarity', () => {
    expect(readNeed('Power supply 12 V 500 mA, 5.5/2.1 mm plug, centre positive (not included)', 'n1')).toMatchObject({
      kind: 'supply',
      volts: 12,
      amperes: 0.5,
      polarity: 'centre-plus',
    });
  });
  test('a load with ohms and watts', () => {
    expect(readNeed('Loudspeaker 8 ohm 3 W, not supplied', 'n1')).toMatchObject({ kind: 'load', ohms: 8, watts: 3 });
  });
  test('a part is no need', () => {
    expect(readNeed('R1 10k 1/4 W', 'n1')).toBeNull();
  });
});

describe('law: a list keeps its count', () => {
  test('every understood row of a table becomes one line, with the quantity that it says', () => {
    const rows = [
      ['Ref', 'Part', 'Value', 'Qty'],
      ['R1,R2', 'Resistor', '10k', '2'],
      ['C1', 'Capacitor', '100n', '1'],
      ['D1', 'Diode', '1N4148', '1'],
      ['Q1', 'Transistor', 'BC547', '1'],
    ]
      .map((cells) => cells.join('\t'))
      .join('\n');
    const list = readList(rows, null);
    expect(list.lines.map((l) => [l.kind, l.quantity, l.refs.length])).toEqual([
      ['resistor', 2, 2],
      ['capacitor', 1, 1],
      ['diode', 1, 1],
      ['npn', 1, 1],
    ]);
  });
});
