/** Coarse kind of a seller's line. */
export type FreeKind = 'R' | 'C' | 'L' | 'D' | 'LED' | 'Q' | 'XTAL' | 'IC' | 'PCB' | 'OTHER';

/**
 * Words for kinds in English, Chinese, German, Spanish, French, Portuguese, Italian, Polish, Russian, Japanese and in
 * word-by-word translations. The first pattern that fits decides, so special words stand before general ones.
 */
const KIND_WORDS: readonly (readonly [RegExp, FreeKind])[] = [
  [/\bsockets?\b|\bsockel|zócalo|soquete|support (?:de |pour )?(?:ci|circuit)|панельк|podstawka|IC\s?座|插座|ソケット|\bholders?\b/i, 'OTHER'],
  [/solder(?:ing)? (?:tin|wire)|welding (?:tin|wire|rod)|tin wire|焊锡|lötzinn|estaño|soldadura|припой|solda\b|étain|lutownic/i, 'OTHER'],
  [
    /\bmanual\b|\binstructions?\b|anleitung|instrucciones|instruções|\bnotice\b|инструкция|instrukcja|说明书|説明書|screwdriver|螺丝|\bscrews?\b|schraube|tornillo|parafuso|\bvis\b|винт(?![а-я]*р)|śruba|\bbatter(?:y|ies)\b|\bbatterie[sn]?\b|电池/i,
    'OTHER',
  ],
  [
    /\bpcb\b|circuit board|printed board|platine|leiterplatte|placa (?:de circuito|pcb)|circuit imprimé|placa de circuito|печатная плата|\bплата\b|płytka|电路板|线路板|基板|scheda/i,
    'PCB',
  ],
  [/\bleds?\b|light[- ]?emitting|luminous (?:tube|diode)|leuchtdiode|diodo emisor|светодиод|发光(?:二极)?管|発光ダイオード/i, 'LED'],
  // French DEL in capitals; `del` in small letters is Spanish for "of the".
  [/(?<![A-Za-z])DELs?(?![A-Za-z])/, 'LED'],
  [/triode|three-pole tube|crystal (?:transistor|triode)/i, 'Q'],
  [/crystal (?:diode|rectifier|detector)|(?:germanium|silicon) (?:crystal|diode)/i, 'D'],
  [/quartz|quarz|crystal|cristal|кварц|kwarc|rezonator|晶振|水晶|oscillat(?:or|eur) (?:\d|à)/i, 'XTAL'],
  [/transistor|triode|audion|tranzystor|транзистор|三极管|トランジスタ/i, 'Q'],
  [/diod|two-pole tube|diode|二极管|ダイオード|диод|gleichrichter|rectifier/i, 'D'],
  [
    /inductor|inductance|choke|drossel|spule|bobina|bobine|inducteur|indutor|induttore|дроссель|катушка|индуктивность|dławik|cewka|电感|コイル|インダクタ/i,
    'L',
  ],
  [
    /r[eé]sist|widerstand|opornik|rezystor|резистор|сопротивление|电阻|抵抗|trimmer|trimpot|potentiom|potenci[óo]m|potencjometr|потенциометр|电位器|ボリューム|poti\b/i,
    'R',
  ],
  [/capacit|kondensator|condensa|конденсатор|电容|コンデンサ|electrol|elektrolit|électrochimique|\belkos?\b/i, 'C'],
  [
    /\bics?\b|microchip|regulator|spannungsregler|régulateur|stabilizator|регулятор напр|стабилизатор напр|稳压(?:器|芯片)|レギュレータ|integrated|integrado|integrato|intégré|\bci\b|микросхема|układ scalony|集成|集積|芯片|\bchip\b|schaltkreis/i,
    'IC',
  ],
];

const COLOURS: readonly (readonly [RegExp, string])[] = [
  [/infrared|infrarot|infraross|infrarroj|infravermelho|infrarouge|инфракрасн|podczerw|红外|赤外/i, 'infrared'],
  [/\bred\b|\brot(?:e[rs]?)?\b|\brojo|vermelh|rouge|ross[oa]|красн|czerwon|红|赤/i, 'red'],
  [/green|grün|\bverdes?\b|\bvert(?:e)?s?\b|зел[её]н|zielon|绿|緑/i, 'green'],
  [/yellow|gelb|amarill|amarel|jaune|gial|ж[её]лт|ż[óo]łt|żółt|黄/i, 'yellow'],
  [/orange|naranja|laranja|arancio|оранж|pomarańcz|橙/i, 'orange'],
  [/blue|blau|azul|bleu|blu\b|син|голуб|niebiesk|蓝|青/i, 'blue'],
  [/white|weiß|weiss|blanco|branc|blanc|bianc|(?<![а-я])бел|biał|白/i, 'white'],
];

const REF_KIND: Readonly<Record<string, FreeKind>> = {
  R: 'R',
  VR: 'R',
  RV: 'R',
  C: 'C',
  L: 'L',
  D: 'D',
  VD: 'D',
  ZD: 'D',
  LED: 'LED',
  HL: 'LED',
  Q: 'Q',
  T: 'Q',
  TR: 'Q',
  VT: 'Q',
  U: 'IC',
  IC: 'IC',
  X: 'XTAL',
  XTAL: 'XTAL',
  Y: 'XTAL',
};

/** A line without any word for its kind: the unit tells. */
const UNIT_KIND: readonly (readonly [RegExp, FreeKind])[] = [
  [/\d\s*[pnum]F\b/, 'C'],
  [/\d\s*[kM]?ohm/i, 'R'],
  [/\d\s*[num]H\b/, 'L'],
  [/\d\s*[kM]Hz\b/i, 'XTAL'],
];

export function kindOf(text: string, refs: readonly string[]): FreeKind {
  const named = KIND_WORDS.find(([pattern]) => pattern.test(text));
  if (named) return named[1];
  const [first = ''] = refs;
  // Behind a board's letter: `B:R7` is a resistor.
  return REF_KIND[/^(?:[^:]*:)?([A-Z]+)/.exec(first)?.[1] ?? ''] ?? UNIT_KIND.find(([pattern]) => pattern.test(text))?.[1] ?? 'OTHER';
}

/** The colour that a line names in one of ten languages; null without one. */
export const colourIn = (text: string): string | null => COLOURS.find(([pattern]) => pattern.test(text))?.[1] ?? null;
