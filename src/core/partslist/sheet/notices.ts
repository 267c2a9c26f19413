import type { Ignored } from './reading';

/** What sellers write between the parts, in ten languages (common practice, no source). */
const PAGE =
  /^(?:the )?(?:p\.|page|seite|p[aá]gina|str(?:ona)?\.?|стр\p{L}*\.?|лист|blatt|foglio|pág\.?|第)?\s*\d+\s*(?:page of \d+ pages?|页.*|ページ.*|頁.*|(?:\/|of|von|de|di|z|из|sur)\s*\d+(?:\s*(?:pages?|ページ|页))?)$/iu;
const CONTINUED = /continu|fortsetz|cont'd|\bsuite\b|\bcd\.|ciąg dalszy|продолж|\(续\)|续表|^续|続き|\(続|segue|dalszy/iu;
const SUM =
  /^(?:grand |small |sub-?|sous-?|zwischen)?\s?(?:total(?:e|i)?|altogether|gesamt|summe|razem|łącznie|ogółem|итого|всего|合计|合計|总计|總計|共计|小计|小計|somme|suma|sum)(?![\p{Ll}]*(?:ly|ing))(?:\p{L}|[ .:])*/iu;
const ADVICE =
  /please|\bcheck|\bchk\b|\bmind\b|attention|pay att|beware|\bsort all|fit the lowest|\bkeep\b.*clean|\bbitte\b|\bbeachten|\bprüfen|zuerst|\bachtung|controllare|attenzione|confira|atenção|compruebe|verifi|cuidado|atención|vérifi|sprawd|uwaga|zwróć|провер|соблюд|внимание|注意|请|確認|はんだ付け(?:の)?前|焊接前|before (?:weld|solder)|vor dem löten|avant (?:de )?soud|antes de (?:sold)|prima di (?:sald)|przed lut|observe (?:the )?polarit|polarity|polung/iu;
const RULE = /^[-–—=_*#~.+|\s]+$/;
const NOT_SUPPLIED =
  /not (?:supplied|incl|provided|in (?:the )?kit)|no[nt]? (?:incl|supplied|fourni)|\bnot include|buyer (?:supplies|provides|has)|self[- ](?:prepar|supplied|provid|provis)|need self|to be bought|bring your own|sold separately|not part of|nicht (?:im liefer|enthalten|mitgel|beigel|dabei|inbegr)|selbst (?:besch|beizu|besorg|zu )|bauseits|separat (?:zu )?(?:kauf|bestell|erh)|no (?:incluid|suministrad|se incluye|viene)|por separado|non (?:inclu|fourni|compris|livré)|à (?:prévoir|acheter|fournir)|não (?:inclu|fornecid|acompanha)|non (?:inclus|fornit|compres)|da acquistare|a parte|nie (?:wchodzi|dołącz|zawart|jest|ma w)|we własnym|do dokupienia|не (?:входит|в комплект|комплект|прилаг|поставл)|нет в комплекте|приобрет|отдельно|不含|不包|自备|自備|另购|另配|另購|未附|別売|各自|別途|付属しません|含まれ(?:ません|ていません)|without(?: in)? (?:the )?kit/iu;
const NOT_FITTED =
  /\bdn[pfi]\b|(?<!\d\s?)\bn\/f\b|\bn\.?\s?[bm]\.(?!\w)|not (?:fitted|populated|placed|mounted|assembled|used|install)|do(?:es)? not (?:fit|populate|install|mount|weld|solder|stuff|place|paste|stick)|don'?t (?:fit|install|mount|weld|solder|paste|stick)|no (?:fit|weld|paste|stick|mount)\b|leave (?:empty|out|open|blank)|empty (?:weld|solder|position)|omit|unpopulated|unfitted|nicht (?:bestück|einl|mont|einb|fit)|entfällt|bleibt (?:frei|leer)|unbestückt|\bleer lassen|no (?:montar|se monta|poner|colocar|instalar|soldar)|sin montar|ne pas (?:monter|souder|câbler|poser)|non (?:mont|câbl|posé|monté|soud|implant)|não (?:montar|montad|colocar|soldar|instalar|montado|usad)|non (?:montat|montare|saldare|usat)|nie (?:mont|wlutow|lutow|obsadz|dotyczy)|niemontowan|не (?:устан|монт|паять|запаив|ставить|ставится)|空焊|不装|不裝|不焊|不贴|不貼|未装|空贴|実装しない|未実装|取り付けない|不要実装|実装なし|非実装/iu;
/** In capitals and behind no figure: `10 nF` is a value. */
const NF = /(?<![\d.,]\s?)(?<![\p{L}])NF(?![\p{L}\d])/u;
const OPTIONAL = /optional|opción|opcional|opzional|en option|option\b|opcj|опци|可选|选配|オプション|wahlweise|\bopt\./iu;
const SPARE =
  /(?:\+\s*)?(\d+)?\s*(?:pcs?\.? )?(?:spares?|reserves?|for reserve|reserva|de repuesto|repuesto|reserve|ersatz|zapas\w*|запас\w*|резерв\w*|备用|備用|备件|予備|di scorta|scorta|de rechange|rechange|sobressalente|de reserva|extra)(?!\p{L})(?:\s*:?\s*(\d+)(?=\s*\)))?/iu;
const PROGRAMMED =
  /(?:pre-?)?(?:programm(?:ed|iert|é)|prog'?d|programad[oa]|programmato|zaprogram\w*|прошит\w*|запрограмм\w*|已(?:烧录|编程|写程序)|烧录|書込(?:み)?済?|書き込み済|プログラム済|flashed|burned|with program)/iu;

/** Not supplied with the kit, by the seller's own words. */
export const saysNotSupplied = (text: string) => NOT_SUPPLIED.test(text);
export const saysNotFitted = (text: string) => NOT_FITTED.test(text) || NF.test(text);
export const saysOptional = (text: string) => OPTIONAL.test(text);
/** `programmed` as printed; null without it. */
export const programmedWord = (text: string) => PROGRAMMED.exec(text)?.[0] ?? null;
/** Spare pieces that a line mentions; 0 for none. */
export function sparesIn(text: string): number {
  const found = SPARE.exec(text);
  return found ? Number(found[1] ?? found[2] ?? 1) : 0;
}

/** What is left of a word of which a notice is the beginning; scripts without spaces have no such rest. */
const WORD_END = '[\\p{Script=Latin}\\p{Script=Cyrillic}]*';

/** `Programmer, not included`: what is named in front of the notice, no heading over what follows. */
export function namedUnsupplied(text: string): boolean {
  const lead = text.split(/[,;(，（]|\s[-–—]\s/u)[0]!;
  return lead !== text && saysNotSupplied(text) && !saysNotSupplied(lead) && !saysSection(lead) && !HEADING_NOUN.test(lead) && /\p{L}{3}/u.test(lead);
}
const HEADING_NOUN = /\bitems?\b|\bkit\b|\bset\b|artikel|articles?|zubehör|accessor|accesor/iu;

/** A text without its notices, brackets round them included. */
export const withoutNotices = (text: string) =>
  [SPARE, NOT_SUPPLIED, NOT_FITTED, PROGRAMMED].reduce(
    (t, { source }) => t.replace(new RegExp(`\\([^()]*(?:${source})[^()]*\\)?|(?:${source})${WORD_END}`, 'giu'), ' '),
    text.replace(/\(\s*NF\s*\)/gu, ' ').replace(new RegExp(NF, 'gu'), ' '),
  );

/** Footnote marks and what they say: `* not included`, `** not fitted`. Stars in front of a number are counts. */
export function footnoteOf(text: string): { mark: string; says: string } | null {
  const found = /^(\*{1,3}|†|‡|#|¹|²)\)?\s*[=:–-]?\s*(?=[^\d*\s])(.+)$/u.exec(text.trim());
  return found ? { mark: found[1]!, says: found[2]! } : null;
}

/** Why a line of running text holds no part, as far as its own words say; null when it may be a part. */
export function noticeOf(text: string): Ignored | null {
  const t = text.trim();
  if (RULE.test(t)) return 'rule';
  if (PAGE.test(t)) return 'page';
  if (CONTINUED.test(t) && t.length < 60) return 'page';
  if (SUM.test(t) && /\d/.test(t) && t.length < 48) return 'sum';
  return null;
}
export const saysAdvice = (text: string) => ADVICE.test(text);

const LIST_WORD =
  /\blist\b|parts list|\bbom\b|bill of mat|stückliste|bauteilliste|teileliste|materialliste|lista|liste|elenco|nomenclature|nomenclatura|wykaz|spis |перечень|список|спецификация|清单|清單|元件表|部品表|部品リスト|パーツリスト|distinta/iu;
export const saysList = (text: string) => LIST_WORD.test(text);

const SECTION =
  /resist|capacit|condens|kondens|widerst|halbl|semicond|semi-?cond|полупр|резист|конденс|разн|прочее|другое|sonst|verschied|divers|misc|other|altri|vari\b|varie|otros|varios|outros|autres|inne|pozostał|rezyst|półprzew|mechan|hardware|elektromech|connect|steck|passiv|activ|aktiv|电阻|电容|半导体|其他|其它|类|類|抵抗|コンデンサ|半導体|その他|bauteile|componen|parts|material|modul|integrated|circuit|supply|strom|power|schraub|gehäuse|dioden|diod|transist/iu;
export const saysSection = (text: string) => SECTION.test(text);

const BOARD_WORD =
  'main board|board|pcb|platine|leiterplatte|hauptplatine|scheda|basetta|placa(?: de circuito)?|placa|carte|płytka|płyta|плата|主板|电路板|板|基板';
const BOARD = new RegExp(
  `^(?:${BOARD_WORD})\\s*([A-Z]|\\d{1,2}|[IVX]{1,3}|[一二甲乙]|"[^"]+"|[\\p{L}]+)?\\s*[-–—:：]*\\s*$|^([A-WYZ]|\\d)\\s+(?:${BOARD_WORD})\\s*[-–—:：]*$|^(\\p{L}+[ -](?:board|pcb|platine))\\s*[-–—:：]+$`,
  'iu',
);
/** Name of the board that a heading opens; null for anything else. */
export function boardHeading(text: string): string | null {
  const found = BOARD.exec(text.trim());
  if (!found) return null;
  const name = found[1] ?? found[2] ?? found[3];
  return name ? name.replaceAll('"', '') : /[-–—:：]\s*$/.test(text.trim()) ? text.trim().replace(/\s*[-–—:：]+\s*$/, '') : null;
}
