import type { LineKind } from '../kit';

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

/** Words that stand beside any part (its case, its body) decide only when nothing else does. */
const WEAK_WORDS = /\bcase\b|gehäuse|carcasa|boîtier|obudowa|корпус|外壳/i;

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

/** Finer kinds; only words that the coarse kind leaves open. Same languages. */
const FINE_WORDS: Readonly<Record<FreeKind, readonly (readonly [RegExp, LineKind])[]>> = {
  R: [
    [/(?:resistor |resistance )?network|netzwerk|排阻|сборка резист|réseau de rés|\bsil\b/i, 'network'],
    [
      /trim|poti\b|poten[tc]|preset|variable res|adjustable res|einstellwiderstand|einsteller|podstroj|подстроечн|переменн|потенциометр|montażow|可调|电位器|半固定|ボリューム|可変/i,
      'trimmer',
    ],
    [/thermist|\bntc\b|\bptc\b|heißleiter|терморезист|termist|热敏|サーミスタ/i, 'thermistor'],
    [/\bldr\b|photo ?-?resist|fotowiderstand|fotoresist|фоторезист|fotorezyst|photorésist|光敏|フォトレジスタ|\bcds\b/i, 'ldr'],
  ],
  C: [
    [/(?:non|no|un|in|не|ungepolt)[- ]?(?:polari[sz]\p{L}*|pol\b)|ungepolt|неполярн|无极性|無極性|niespolaryz|bipolar (?:film|ceramic)/iu, 'capacitor'],
    [/electrol|elektrol|electrolys|eletrol|elettrol|électrol|chimique|\belko|tantal|polari[sz]|bipolar|gepolt|电解|電解|электролит|полярн|钽/i, 'electrolytic'],
  ],
  L: [],
  D: [[/zener|\bz-?diod|стабилитрон|稳压|ツェナー|voltage[- ]stabili/i, 'zener']],
  LED: [],
  Q: [
    [/p-?(?:mos|channel|kanal)|pmos/i, 'pmos'],
    [/mosfet|n-?(?:mos|channel|kanal)|场效应|полевой/i, 'nmos'],
    [/jfet/i, 'njf'],
    [/\bpnp\b/i, 'pnp'],
    [/\bnpn\b/i, 'npn'],
  ],
  XTAL: [],
  IC: [
    [
      /\bmi[ck]ro-?(?:controller|processor|kontroller|contrôleur|controlador)|\bmcu\b|запрограммирован|микроконтроллер|单片机|マイコン|(?:pre-?)?programm(?:ed|iert|é)/iu,
      'microcontroller',
    ],
    [/regulator|spannungsregler|régulateur|стабилизатор напр|稳压(?:器|芯片)|レギュレータ|\b78[LM]?\d\d\b|\b79[LM]?\d\d\b|\b(?:lm|la)?317\b/i, 'regulator'],
    [/\b(?:ne|lm|tlc|icm|ka)?7?555\b|timer chip|定时器/i, 'timer'],
    [/op-?amp|operational|comparator|komparator|operationsverst|运放|运算|比较器|операцион|オペアンプ/i, 'opamp'],
  ],
  PCB: [],
  OTHER: [
    [/relay|relais|relé|реле|przekaźnik|继电器|リレー/i, 'relay'],
    [/\bfuses?\b|sicherung|fusible|fusível|предохран|bezpiecznik|保险|ヒューズ/i, 'fuse'],
    [/\blamps?\b|\bbulbs?\b|glühlampe|bombilla|ampoule|лампа|żarówka|灯泡|電球/i, 'lamp'],
    [/switch|button|taster|schalter|pulsador|interruptor|bouton|interrupteur|кнопка|переключат|przycisk|przełącz|开关|按键|按钮|スイッチ/i, 'switch'],
    [
      /\b(?:dip|dil|ic|chip)\b.*(?:socket|sockel|fassung)|socket\b.*\b(?:dip|dil|ic|chip)\b|ic-?fassung|IC\s?座|панельк|podstawka|zócalo.*(?:dip|ci|ic)\b/i,
      'socket',
    ],
    [
      /connector|header|terminal|socket|\bjacks?\b|\bplugs?\b|buchse|klemme|sockel|stiftleiste|conector|zócalo|borne|embase|connecteur|разъ[её]м|клемм|панельк|złącze|podstawka|插座|IC\s?座|排针|排母|端子|接线|needle|コネクタ|ソケット/i,
      'connector',
    ],
    [/wire link|jumper wire|drahtbr[üu]cke|puente|strap de fil|перемычка|zworka|跳线/i, 'link'],
    [/opto|photocoupler|光耦/i, 'ic'],
    [
      /\bscrews?\b|\bnuts?\b|washer|spacer|standoff|heat ?sink|schraube|\bmuttern?\b|kühlkörper|tornillo|disipador|\bvis\b|dissipateur|винт|радиатор|śruba|螺丝|散热|铜柱|ネジ/i,
      'mechanical',
    ],
  ],
};
const FROM_COARSE: Readonly<Record<FreeKind, LineKind>> = {
  R: 'resistor',
  C: 'capacitor',
  L: 'inductor',
  D: 'diode',
  LED: 'led',
  Q: 'npn',
  XTAL: 'crystal',
  IC: 'ic',
  PCB: 'mechanical',
  OTHER: 'other',
};

/** Types whose kind no word tells (common types, from memory). */
const TYPE_KINDS: readonly (readonly [RegExp, LineKind])[] = [
  [/\b(?:bc5[56]\d|bc327|bc8[56]\d|2n390[56]|2n2907|s?9012|s?9015|s?8550|a1015|a733|bd1(?:36|38|40))\w*\b/i, 'pnp'],
  [/\b(?:bc5[34]\d|bc337|bc8[14]\d|2n390[34]|2n2222|s?9013|s?9014|s?9018|s?8050|c1815|c945|bd1(?:35|37|39))\w*\b/i, 'npn'],
  [/\b(?:2n7000|bs170|irf?[lz]?\d{3,4}|ao3400|bss138)\w*\b/i, 'nmos'],
  [/\b(?:bs250|ao3401|irf9\d{3})\w*\b/i, 'pmos'],
  [/\b(?:j11[123]|2n38(?:19|20)|bf245)\w*\b/i, 'njf'],
  [/\b(?:lm358|lm324|lm393|lm339|tl0[678][124]|ne5532|ua?741|lm741|mcp60\d\d)\w*\b/i, 'opamp'],
];

const LETTER_KIND: Readonly<Record<string, LineKind>> = {
  RN: 'resistor',
  CE: 'electrolytic',
  LED: 'led',
  HL: 'led',
  ZD: 'zener',
  DZ: 'zener',
  VR: 'trimmer',
  RV: 'trimmer',
  P: 'trimmer',
  TH: 'thermistor',
  RT: 'thermistor',
  NTC: 'thermistor',
  LDR: 'ldr',
  K: 'relay',
  RL: 'relay',
  F: 'fuse',
  J: 'connector',
  CN: 'connector',
  P2: 'connector',
  S: 'switch',
  SW: 'switch',
  LA: 'lamp',
  W: 'link',
  LK: 'link',
};

/** Kind of a line from its words, its type number, its refs, in this order. */
export function lineKindOf(text: string, refs: readonly string[]): LineKind {
  const letters = /^(?:[A-Z]+:)?([A-Z]+)/.exec(refs[0] ?? '')?.[1] ?? '';
  const coarse = kindOf(
    text,
    refs.map((r) => r.replace(/^[A-Z]+:/, '')),
  );
  const typed = TYPE_KINDS.find(([pattern]) => pattern.test(text))?.[1];
  const fine =
    FINE_WORDS[coarse].find(([pattern]) => pattern.test(text))?.[1] ??
    (coarse === 'OTHER' ? undefined : FINE_WORDS.OTHER.slice(0, 1).find(([pattern]) => pattern.test(text))?.[1]);
  if (fine) return fine;
  if (typed && (coarse === 'Q' || coarse === 'IC' || coarse === 'OTHER')) return typed;
  if (LETTER_KIND[letters] && (coarse === 'OTHER' || coarse === 'R' || coarse === 'C' || coarse === 'D')) return LETTER_KIND[letters];
  return FROM_COARSE[coarse];
}

/** Whether any word of the text names a kind of part. */
export const knowsKind = (text: string) =>
  KIND_WORDS.some(([pattern]) => pattern.test(text)) || WEAK_WORDS.test(text) || FINE_WORDS.OTHER.some(([pattern]) => pattern.test(text));
