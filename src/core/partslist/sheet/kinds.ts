import type { SheetKind } from './reading';

/**
 * Words for kinds of part in English, German, Spanish, French, Portuguese, Italian, Polish, Russian, Chinese, Japanese,
 * in the short hand of sellers and in word-by-word translations. The first entry that fits decides: what is called after
 * something else (a socket, a heat sink, a bridge rectifier) stands before what it is called after. Common practice, no source.
 */
const WORDS: readonly (readonly [SheetKind, RegExp])[] = [
  [
    'socket',
    /\b(?:ic|dil|dip|chip)(?:[- ]?\d{1,2}(?:[- ]?(?:pins?|pol\p{L}*))?)?[- ]?(?:socket|seat|holder|sockel|fassung)|socket (?:for )?(?:ic|dil|dip|chip)\b|\b(?:6|8|14|16|18|20|24|28|32|40)[- ]?pin socket|\bskt\b|sockel für|z[óo]calo|soquete|support (?:de |pour |du )?(?:ci\b|circuit|dil|dip|\d{1,2} ?broches)|zoccolo|podstawka|(?:ic|chip) ?stand\b|панельк|ic ?ソケット|ic ?座|芯片座|集成电路座/iu,
  ],
  [
    'holder',
    /(?:batter(?:y|ies)|batt|fuse|cell)[- ]?(?:holder|hldr|box|case|clip|compartment|snap|connector|strap)|(?:batterie|sicherungs?|akku)[- ]?(?:fach|halter|kasten|clip)|porta ?(?:pilas?|bater|pilhas?|batteri|fusib)|suporte (?:de |para )?(?:pilha|bateria|fus)|(?:support|boîtier|coupleur|porte)[- ](?:de |à |pour )?(?:piles?|fusible)|koszyk|oprawk?a bezp|батарейн\p{L}* отсек|отсек (?:для )?батар|держатель (?:батар|предохр)|кассета|电池[盒座仓]|保险[丝管]?座|電池(?:ボックス|ホルダ|ケース)|バッテリー?(?:ボックス|ホルダ)|ヒューズホルダ/iu,
  ],
  [
    'heatsink',
    /heat ?sink|heatsnk|cooling fin|\bradiator\b|radiating|kühlkörper|disipador|dissipat|dissipador|radiatore?\b|радиатор|теплоотвод|散热|散熱|ヒートシンク|放熱/iu,
  ],
  [
    'consumable',
    /solder(?:ing)? (?:wire|tin)|(?<!(?:conn|jack|terminal|plug|header|lug|tag|cup|usb|smd|tht)\b.*)\bsolder\b(?!.*(?:mask|side|jumper|lug|tag|pin|cup|terminal))|weld(?:ing)? (?:tin|wire|rod)|tin wire|lötzinn|lötdraht|\blot\b|estaño|estanho|\bétain|\bsoudure\b|\bstagno\b|\bcyna\b|spoiwo|припой|焊锡|焊錫|はんだ(?!付)|半田|thermal (?:paste|grease)|wärmeleitpaste/iu,
  ],
  [
    'document',
    /\binstructions?\b|\bmanual\b|\bmanuale\b|anleitung|\blabel\b|sticker|aufkleber|etikett|instruccion|instruç|\bmontagem manual|etiqueta|pegatina|autocolant|adesivo|etichetta|\bnotice\b|mode d.emploi|étiquette|autocollant|istruzioni|instrukcja|naklejk|инструкц|наклейк|этикетк|руководств|说明书|標籤|标签|贴纸|図面|説明書|ラベル|シール|取扱|specification book/iu,
  ],
  [
    'microphone',
    /\bmic(?:rophone)?s?\b|mikro(?:f|ph)on|micr[óo]fono|microfone|microphone|microfono|mikrofon|микрофон|咪头|麦克风|话筒|傳聲器|マイク(?!ロ|コン)|electret/iu,
  ],
  ['buzzer', /buzzer|beeper|\bsummer\b|piezo|zumbador|chicharra|campainha|cicalino|ronfleur|vibreur|brzęczyk|пьезо|зуммер|пищалк|蜂鸣|ブザー|圧電/iu],
  ['loudspeaker', /speaker|lautsprecher|altavoz|parlante|alto-?falante|haut-?parleur|altoparlante|głośnik|динамик|громкоговор|喇叭|扬声|スピーカ|\bhorn\b/iu],
  ['relay', /\brelay|relais|relé|\bre[lł]è\b|relè|реле|przekaźnik|继电|繼電|リレー/iu],
  ['motor', /\bmotor(?:e|s)?\b|motor\b|moteur|silnik|двигатель|мотор|电机|电动机|馬達|马达|モータ/iu],
  [
    'supply',
    /power (?:supply )?adapt[eo]r|\badapt[eo]r\b|power supply|\d\s?v(?: ?[ad]c)? supply\b|supply adapter|netz(?:teil|gerät)|steckernetz|bloc secteur|\balimentation\b(?! dc)|zasilacz|блок питания|адаптер|adaptador|fuente de alimentaci|alimentatore|fonte (?:de )?aliment|电源适配|适配器|电源(?![座插接])|acアダプタ|アダプタ/iu,
  ],
  ['connector', /\b(?:iec|mains|power) (?:inlet|socket)|\binlet\b|kaltgeräte/iu],
  ['fuse', /\bfus(?:e|es)\b|sicherung|fusible|fus[íi]vel|fusibile|bezpiecznik|предохран|保险|熔断|ヒューズ|insurance tube/iu],
  [
    'lamp',
    /\blamps?\b|\bbulbs?\b|glüh(?:lampe|birne)|lämpchen|bombilla|ampoule|lâmpada|lampadina|żarówka|лампа|лампочка|(?<!发光)灯泡|小灯|豆電球|電球|ランプ/iu,
  ],
  ['optocoupler', /opto(?!el)|photo-?coupler|light coupl|optron|transoptor|оптопар|оптрон|光耦|光电耦|フォトカプラ|フォトカップ/iu],
  [
    'display',
    /\bdisp(?:lay)?\b|seven[- ]?seg|7[- ]?seg|siebensegment|\blcd\b|oled|anzeige|visualizador|pantalla|afficheur|wyświetlacz|индикатор|дисплей|数码管|數碼管|液晶|liquid crystal|表示器|ディスプレイ|digital tube|nixie/iu,
  ],
  [
    'bridge',
    /bridge (?:rect|pile|diode)|rect(?:ifier)?\.? bridge|brückengleich|gleichrichterbr|puente (?:rectif|de diodos)|ponte (?:raddr|rett|retif|di diodi|de diodos)|pont (?:redress|de diode)|mostek|диодный мост|выпрямительный мост|\bмост\b|整流桥|整流橋|桥堆|ブリッジ/iu,
  ],
  // French DEL in capitals; `del` in small letters is Spanish for "of the".
  ['led', /(?<![A-Za-z])DELs?(?![A-Za-z])/u],
  [
    'led',
    /(?<!\p{Script=Latin})leds?(?!\p{Script=Latin})|light[- ]?emitt|leuchtdiode|luminous (?:tube|diode)|diodo emisor|светодиод|发光(?!.*灯泡)|發光|発光/iu,
  ],
  ['zener', /zener|\bbz[xvy]\b|\bzp[dy]\b|\bz-?diod|стабилитрон|稳压二极管|稳压管|齐纳|ツェナ|定電圧ダイオ|voltage[- ]stabili[sz]\w* (?:diode|tube)/iu],
  ['diode', /(?:crystal|vacuum) (?:two-pole|diode)|two-pole tube|\brectifier diode/iu],
  ['timer', /\btimer\b|temporizador|temporizzatore|минут|таймер|タイマ|定时/iu],
  ['microcontroller', /micro-?(?:controll?|process|contr[oô]l)|\bmcu\b|mikro-?(?:contr|kontr)|микроконтр|single[- ]chip|单片机|單片機|マイコン/iu],
  [
    'regulator',
    /\breg(?:ulator)?s?\b\.?|spannungsregler|festspannung|voltage[- ]stabili|stabili[sz]er|régulateur|regulador|regolatore|stabilizator|стабилизатор|稳压|穩壓|レギュレータ|三端子/iu,
  ],
  [
    'opamp',
    /op[- ]?amps?\b|operational|comparator|operationsverst|komparator|operacional|comparador|opérationnel|comparateur|operazional|comparatore|wzmacniacz oper|операцион|运放|运算放|比较器|オペアンプ|コンパレータ/iu,
  ],
  ['module', /\bmodule?s?\b|modul\b|módulo|modulo\b|moduł|модуль|模块|模組|モジュール/iu],
  ['thermistor', /therm(?:istor|al resist|istance|\b)|\b[np]tc\b|\bctn\b|heißleiter|kaltleiter|termist|терморез|термист|热敏|熱敏|サーミスタ/iu],
  ['ldr', /\bldr\b|photo ?-?resist|photosens|light[- ](?:sens|depend)|fotowider|foto-?r+esist|fotorez|photorés|фоторез|光敏|フォトレジ|\bcds\b/iu],
  ['varistor', /varist|\bmov\b|варистор|压敏|壓敏|バリスタ/iu],
  [
    'network',
    /(?:res(?:istor|istance|\.)?|sil|sip)[- ]?(?:net(?:work)?|array|pack)|array (?:of )?res|\bsil res|row of resist|netzwerk|rede (?:de )?res|red de res|réseau (?:de )?rés|rete (?:di )?res|drabinka|排阻|排電阻|集合抵抗|抵抗(?:アレイ|ネット)|сборка|матрица рез/iu,
  ],
  [
    'trimmer',
    /trim|preset|einstell(?:regler|wid|er)|adjustable res|variable res|resist\w+ (?:ajust|vari|regol|regul)|regolabile|regul[áa]vel|ajust[áa]vel|ajustable|réglable|montażowy|подстроечн|可调|可調|微调|微調|半固定|蓝白/iu,
  ],
  ['potentiometer', /potent|\d\s?[kKM]\s?(?:lin|log)\b|\bpoti?\b|potenz|potenc|potenci|переменн|потенциом|电位器|電位器|可変抵抗|ボリューム/iu],
  [
    'transformer',
    /transform|toroid(?! (?:choke|coil|inductor))|ringkern(?!drossel|spule)|\d\s?VA(?![\p{L}\d])|\btrafo|\bxfmr|übertrager|voltage changer|变压器|變壓器|трансформ|トランス(?!ジ)/iu,
  ],
  [
    'inductor',
    /induct(?:or|ance)|inductor|\bchoke|\bcoils?\b|drossel|spule|induktiv|bobina|bobine|\bself\b(?![- ]?tap)|indutor|induttan|indutt|dławik|cewka|дроссель|катушка|индуктив|电感|電感|コイル|インダクタ/iu,
  ],
  [
    'switch',
    /switch|button|\bsw\b|\bpb\b|taster|schalter(?!ung)|\btact\b|\bkeys?\b|pulsador|interruptor|conmutador|\bchave\b|botão|bouton|poussoir|interrupteur|inverseur|pulsante|interruttore|deviatore|przycisk|przełącznik|кнопка|переключ|тумблер|выключатель(?!.*перечень)|开关|開關|按键|按钮|按鍵|轻触|スイッチ/iu,
  ],
  ['nmos', /mos-?fet|\bn-?mos|\bp-?mos|field[- ]effect|effet de champ|efecto de campo|efeito de campo|полевой|场效应|場效/iu],
  ['npn', /transi(?:s)?tor|\btran\b|triode|audion|tranzystor|транзистор|三极管|三極管|トランジスタ|crystal triode|\bnpn\b|\bpnp\b|darlington/iu],
  ['diode', /diod[eo]?|dioda|диод|二极管|二極|ダイオード|gleichrichter|rectifier|schottky/iu],
  ['crystal', /quartz|quarz|(?<!liquid )crystal|\bxtal|cristal|кварц|kwarc|rezonator|резонатор|晶振|晶体振|水晶|クリスタル|resonator|oscillator/iu],
  ['capacitor', /(?:non|no|un|in|не|ungepolt)[- ]?(?:polari[sz]\p{L}*|pol(?!\p{L}))|ungepolt|неполярн|无极性|無極性|niespolaryz/iu],
  ['tantalum', /tantal|танталов|钽|鉭|タンタル|\btant\b/iu],
  ['electrolytic', /electrol|elektrol|eletrol|elettrol|électrol|chimique|\belkos?\b|\belec\b|\bcap elec|электролит|电解|電解|\belyt\b|polari[sz]ed cap/iu],
  [
    'capacitor',
    /capacit|kondensator|condensa|конденсатор|电容|電容|コンデンサ|\bkerko|\bfolko|\bcap\b|独石|瓷片|涤纶|porcelain|\bmkt\b|ceramic (?:chip|disc)/iu,
  ],
  ['battery', /batter(?:y|ies|ie|ien)\b|\bbatt\b|batteria|\bpiles?\b|\bpilas?\b|\bpilhas?\b|bateria|батаре|电池|乾電池|電池/iu],
  [
    'link',
    /wire link|\blinks?\b|jumper (?:wire|line|de fio)|drahtbrücke|lötbrücke|puente de (?:alambre|hilo|cable)|pont de fil|\bstrap\b|ponticello|zwor[ak]|перемычк|跳线|跳線|ジャンパ/iu,
  ],
  [
    'connector',
    /connector|terminal|header|\bhdr\b|\bjack\b|socket|\bplug\b|klemme|buchse|leiste|stecker|conector|\bborne|tira de pin|barra de pin|embase|barrette|bornier|connecteur|morsett|\bstrip\b|connettore|\bpresa\b|gniazdo|złącze|listwa|goldpin|kołki|wtyk|разъ[её]м|клемм|штыр|гнездо|колодк|插座|端子|排针|排母|接线|针座|ピンヘッダ|ピンソケット|ジャック|ターミナル|コネクタ|needle|row of|\bseat\b|\busb\b|接插/iu,
  ],
  ['ic', /int[eé]gr|\bics?(?![a-z])|\bci\b|microchip|микросхем|układ scal|集成|集積|芯片|\bchip\b|schaltkreis|реализ/iu],
  [
    'mechanical',
    /\bscrews?\b|\bnuts?\b|washer|spacer|stand-?off|\bknobs?\b|schraube|\bmuttern?\b|unterleg|scheibe|abstands|bolzen|drehknopf|\bknopf\b|gummif|tornillo|tuerca|arandela|separador|perilla|parafuso|porca|arruela|espaçador|\bvis\b|écrou|rondelle|entretoise|\bbouton\b|\bvite\b|\bdado\b|rondella|distanzial|manopola|śruba|wkręt|nakrętka|podkładka|tuleja|dystans|pokrętło|gałka|винт|гайка|шайба|стойка|ручка|болт|螺丝|螺絲|螺母|螺柱|垫片|墊片|铜柱|銅柱|旋钮|ネジ|ねじ|ナット|ワッシャ|スペーサ|つまみ|ツマミ|copper pillar|gasket|rubber (?:foot|feet)|cable tie/iu,
  ],
  [
    'board',
    /\bpcb\b|circuit board|printed (?:circuit|board)|platine|leiterplatte|placa\b|circuit imprimé|circuito stampato|basetta|płytka|плата|电路板|線路板|线路板|基板|プリント/iu,
  ],
  // In front of the wire: a resistor may be wound of it.
  ['resistor', /resit?st|\bres\b|widerst[aä]nd|weerstand|motst[aå]nd|opornik|rezystor|резист|сопротивл|电阻|電阻|抵抗|résist|resistencia|resistenza/iu],
  [
    'wire',
    /\bwires?\b|draht|litze|\bcable\b|kabel|\bfil\b|\bfilo\b|\bcavo\b|przewód|провод|导线|導線|电线|リード線|配線|ケーブル|\bfio\b|\bhilo\b|alambre|ワイヤ|線材|ビニール線/iu,
  ],
  [
    'case',
    /enclosure|\bhousing\b|outer shell|gehäuse|\bcaja\b|carcasa|\bcaixa\b|gabinete|boîtier|contenitore|scatola|obudowa|корпус|外壳|外殼|機殼|ケース|\bcase\b|\bbox\b/iu,
  ],
];

/** Kinds told by a type number alone (common types, from memory). */
const TYPES: readonly (readonly [SheetKind, RegExp])[] = [
  ['zener', /^(?:[KК][SCС]\d{3}[A-ZА-Я]|[DД]81[48][A-ZА-Я]|BZ[XVY]\w*|ZPD\w+|1N47[2-6]\d\w*|1N52[2-7]\d\w*)/i],
  ['led', /^[AА][LЛ]\d{3}/],
  [
    'diode',
    /^[KК][DД]\d{3}|^(?:1N\d{3,4}\w*|1S\d{3,4}\w*|UF\d{4}|FR\d{3}|HER\d{3}|BAT\d{2}\w*|BA[VWXS]\d{2}\w*|BY\w?\d+|SB\d{3,4}|SR\d{3,4}|MBR\d+|SS\d{2}|6A\d+|AA\d{3}|OA\d{2,3}|RL\d{3}|P6KE\w+|LL4148)$/i,
  ],
  ['bridge', /^(?:B\d{2,3}C\d+\w*|DB\d{3}\w?|KBP\w?\d+|KBU\w+|KBL\w+|GBU\w+|GBJ\w+|W\d{2}M?|2W\d{2}|3W\d{2}|RB\d{3}|MB\d[SMF]|RS\d{3}|DF\d+\w*)$/i],
  ['optocoupler', /^(?:PC8?\d{2,3}\w*|4N\d{2}|6N\d{3}|MOC\d{4}\w*|TLP\d+\w*|EL\d{3,4}\w*|CNY\d+\w*|HCPL\w+|IL\d{2,3}|SFH6\d\w*|LTV\w+)$/i],
  [
    'regulator',
    /^[KК][RР]?142(?:EN|ЕН)|^(?:[A-Z]{1,3})?7[89][LMS]?\d{2}(?:\w{0,3})$|^(?:LM|LD|TLV|NCP|AMS|AS|LT|ZLDO|SPX)?1117\w*|^AMS1117|^(?:LM)?(?:317|337|350|338)[A-Z]{0,3}$|^(?:LM2\d{3}\w*-\w+|LP29\d\d\w*|HT7[135]\d{2}\w*|MCP170\d\w*|XC6206\w*|LM723\w*|L4931\w*|LM25\d\d\w*)/i,
  ],
  ['timer', /^(?:NE|LM|TLC|ICM|KA|SE|UA|CA|LMC|TS|NA|HA)?7?55[56]\w{0,3}$/i],
  [
    'opamp',
    /^(?:LM(?:358|324|393|339|311|741|1458|2904|2903|301|308|319|833|6\d{3})|TL0[678][1-4]|NE553[24]|(?:UA|μA|µA|MC|CA)?741|4558|[A-Z]{2,3}4558|OPA?\d{2,4}|MCP60\d\d|MCP62\d\d|CA31[346]0|LF35[1367]|RC4558|JRC4558|NJM\d{4}|TLC27\d|TLV\d{4}|AD8\d{2,3}|OP07)\w{0,3}$/i,
  ],
  [
    'microcontroller',
    /^(?:AT(?:mega|tiny|89)\w+|PIC\d{2}\w+|STC\d+\w*|STM(?:8|32)\w+|ESP\w+|RP2040|MSP430\w+|CH32\w+|EFM\w+|89[CS]\d+\w*|12F\d+\w*|16F\d+\w*)/i,
  ],
  [
    'pnp',
    /^[KК][TТ](?:209|361|502|626|639|644|814|816|818|825|837|973|3107|3108)|^(?:BC(?:15[789]|17[789]|2[15]2|30[789]|32[78]|55[6-9]|560|636|638|640|8[56]\d)|2N(?:2905|2907|390[56]|4403|5401|5087|6107)|S?(?:9012|9015|8550)|SS?(?:9012|9015|8550)|A(?:1015|733|92|970|1266|1020)|2SA\d+|2SB\d+|BD(?:132|136|138|140|234|236|238|240|242|244)|TIP(?:30|32|34|36|42|2955|125|126|127|105|107|147)|MJE?2955|MPSA(?:92|55|56)|MMBT3906|BCP5[123])(?:[A-Z]{0,3}|-\d+|[A-Z]?-\d+)?$/i,
  ],
  [
    'npn',
    /^[KК][TТ]\d{3,4}|^(?:BC(?:107|108|109|14\d|18[234]|23[789]|33[78]|4[5-9]\d|54[5-9]|550|517|635|637|639|8[14]\d)|2N(?:1613|2219|2222|3053|3055|3[97]0[0-4]|390[34]|4401|5551|5088|5089)|P?N2222|S?(?:9011|9013|9014|9016|9018|8050)|SS?(?:9013|9014|9018|8050)|C(?:1815|945|1008|2383|3198|1959|2655|828|458)|2SC\d+|2SD\d+|D(?:882|880|667|468)|BD(?:131|135|137|139|233|235|237|239|241|243|433|437)|TIP(?:29|31|33|35|41|3055|110|111|112|120|121|122|142|102)|MJE?3055|MJE13\d{3}|MPSA(?:42|13|14|05|06)|BF\d{3}|MMBT3904|BU\d{3}\w*|E?13\d{3})(?:[A-Z]{0,3}|-\d+|[A-Z]?-\d+)?$/i,
  ],
  ['pmos', /^(?:IRF9\w+|IRFR9\w+|BS250\w*|AO3401\w*|VP\d+\w*|FQP\d+P\d+|IRF5305|IRF4905|SI2301\w*|NDP6020P|BSS84|FDN340P|TP0610\w*)/i],
  [
    'nmos',
    /^(?:IRF[LZRPBU]?\w+|IRL\w+|BS1(?:07|70)\w*|2N700[0-2]\w*|BSS138|AO3400\w*|BUZ\d{2}\w*|STP\d+N\w+|FQP\d+N\w+|SI2302\w*|MTP\w+|NTD\w+|VN\d+\w*|BUK\w+|2SK\d+)/i,
  ],
  ['njf', /^(?:J1[01]\d|J113|2N(?:3819|5457|5458|5484|4416)|BF24[456]\w?|J201|MPF102)\w?$/i],
  [
    'ic',
    /^(?:74(?:HC|HCT|LS|AC|ACT|F|S|ALS|LVC)?\d{2,5}\w*|(?:CD|HEF|HCF|MC1|TC|V4)4\d{3}\w*|40\d{2,3}\w*|45\d{2}\w*|LM(?:386|380|380|567|565|566|331|3914|3915|3916|3909|335|35|34|13700|4040|385|336|334)\w*(?:-[\d.]+)?|NE56[5-7]\w*|ULN\d{4}\w*|TDA\d{4}\w*|MAX\d{3,4}\w*|24C\d+\w*|93C\d+\w*|TL43[12]\w*|PT22\d\d\w*|HT12\w*|SC22\d\d\w*|DS1\d{3}\w*|PCF\d{4}\w*|ICL\d{4}\w*|XR\d{4}\w*|TEA\d{4}\w*|UM\d{4}\w*|PAM\d{4}\w*|LTC\d+\w*|WS28\d\d\w*|MCP\d{4,5}\w*|TPS\d+\w*|UC\d{4}\w*|MC\d{5}\w*|AD\d{3,4}\w*|REF\d+\w*)/i,
  ],
];

/** What a designator's letters stand for when neither word nor type nor section tells (IEEE 315 and habits of several countries; from memory). */
const LETTERS: Readonly<Record<string, SheetKind>> = {
  R: 'resistor', RN: 'network', RP: 'network', RA: 'network', RV: 'potentiometer', VR: 'trimmer', POT: 'potentiometer', RT: 'thermistor', RK: 'thermistor',
  TH: 'thermistor', NTC: 'thermistor', PTC: 'thermistor', LDR: 'ldr', MOV: 'varistor', VDR: 'varistor', C: 'capacitor', CE: 'electrolytic', L: 'inductor',
  D: 'diode', VD: 'diode', ZD: 'zener', DZ: 'zener', Z: 'zener', LED: 'led', DEL: 'led', HL: 'led', BR: 'bridge', DB: 'bridge', GB: 'battery', BT: 'battery', BAT: 'battery',
  OK: 'optocoupler', OC: 'optocoupler', Q: 'npn', TR: 'npn', VT: 'npn', T: 'npn', U: 'ic', US: 'ic', IC: 'ic', CI: 'ic', DA: 'ic', DD: 'ic', VREG: 'regulator', X: 'crystal', XTAL: 'crystal',
  Y: 'crystal', ZQ: 'crystal', K: 'relay', RL: 'relay', RE: 'relay', F: 'fuse', SI: 'fuse', FU: 'fuse', FS: 'fuse', S: 'switch', SW: 'switch', SA: 'switch', SB: 'switch', PB: 'switch', TA: 'switch',
  J: 'connector', JP: 'connector', CN: 'connector', CON: 'connector', KL: 'connector', ST: 'connector', BU: 'connector', XP: 'connector', XS: 'connector', P: 'connector', USB: 'connector',
  M: 'motor', MK: 'microphone', MIC: 'microphone', LS: 'loudspeaker', SP: 'loudspeaker', SPK: 'loudspeaker', BA: 'loudspeaker', HP: 'loudspeaker', AJ: 'trimmer', BP: 'switch', PR: 'trimmer', BZ: 'buzzer', BUZ: 'buzzer', SUM: 'buzzer',
  DS: 'display', DISP: 'display', HG: 'display', SEG: 'display', LCD: 'display', LA: 'lamp', LP: 'lamp', LK: 'link', W: 'link', MOD: 'module', A: 'module', H: 'mechanical',
}; // prettier-ignore

/** Kind that the words of a text name; null without any. */
export const kindByWords = (text: string): SheetKind | null => WORDS.find(([, pattern]) => pattern.test(text))?.[0] ?? null;

/** Kind of a type number; null for an unknown one. */
export const kindByType = (type: string): SheetKind | null => TYPES.find(([, pattern]) => pattern.test(type))?.[0] ?? null;

/** Kind by a designator's letters; null where they are not in use. */
export const kindByLetters = (ref: string): SheetKind | null => LETTERS[/^(?:[^:]*:)?([A-Z]+)/.exec(ref)?.[1] ?? ''] ?? null;

/** Letters that begin positions on boards. */
export const KNOWN_LETTERS: ReadonlySet<string> = new Set([...Object.keys(LETTERS), 'B', 'B1', 'VREF', 'REF', 'REG', 'E', 'EX', 'N', 'G', 'TP', 'TC', 'V', 'VS', 'SI', 'FB', 'ANT', 'RTH', 'RTC', 'OPTO', 'MP', 'MT', 'KEY', 'BTN', 'CONN', 'TB', 'REL', 'RY', 'IR', 'TRA', 'VC', 'CV', 'SK', 'PL', 'DIS', 'DL', 'QR', 'QZ', 'SPKR', 'MOT', 'EM', 'BM', 'HA', 'DSP', 'PCB']); // prettier-ignore

/** Kinds that share their letters on boards, and that one heading may stand above. */
const FAMILIES: readonly (readonly SheetKind[])[] = [
  ['resistor', 'network', 'thermistor', 'ldr', 'varistor', 'trimmer', 'potentiometer'],
  ['capacitor', 'electrolytic', 'tantalum'],
  ['diode', 'zener', 'led', 'bridge', 'optocoupler'],
  ['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf'],
  ['ic', 'opamp', 'regulator', 'timer', 'microcontroller', 'module'],
  ['loudspeaker', 'buzzer', 'microphone'],
  ['inductor', 'transformer'],
];

/** Number of a kind's family; −1 for a kind of its own. */
export const familyOf = (kind: SheetKind): number => FAMILIES.findIndex((f) => f.includes(kind));
