import { parseQuantity } from '../quantity';
import type { Need } from '../kit';

/** Words by which a list says that something is wanted and not in the box, in the languages of the lists. */
const NOT_SUPPLIED =
  /not (?:included|supplied|in the (?:kit|box))|sold separately|nicht (?:enthalten|im lieferumfang)|separat|no inclu(?:ido|ye)|não inclu|non (?:fourni|inclus)|non inclus|nie zawiera|brak w zestawie|не (?:входит|в комплекте)|不含|不包括|自备|別売|含まれ(?:て)?い?ません/i;

const NEED_KINDS: readonly (readonly [RegExp, Need['kind']])[] = [
  [/batter|akku|bater[íi]a|pile\b|батаре|аккум|电池|電池/i, 'battery'],
  [/supply|adapter|adaptor|netzteil|netzger|fuente|fonte|aliment|блок питания|zasilacz|电源|電源|适配器/i, 'supply'],
  [/speaker|horn|lautsprecher|altavoz|alto-?falante|haut-?parleur|громкоговор|динамик|głośnik|喇叭|扬声器|スピーカー|load|lamp|motor/i, 'load'],
  [/firmware|software|program|licen[cs]e|прошив/i, 'firmware'],
  [/lead|cable|kabel|cord|câble|провод|przewód|线|ケーブル/i, 'lead'],
  [/tool|iron|screwdriver|werkzeug|outil|herramienta/i, 'tool'],
];

/** A line that names something wanted but not supplied, with its rating; null for ordinary lines. */
export function readNeed(text: string, id: string): Need | null {
  if (!NOT_SUPPLIED.test(text)) return null;
  const rating = (unit: string, of: 'V' | 'A' | 'ohm' | 'W') => {
    const match = new RegExp(`(\\d+(?:[.,]\\d+)?)\\s*([mk]?)\\s*(?:${unit})(?![a-z])`, 'i').exec(text);
    const parsed = match ? parseQuantity(`${match[1]!} ${match[2]!}${of === 'ohm' ? '' : of}`, of) : null;
    return parsed?.ok ? parsed.value : undefined;
  };
  const plug = /(\d(?:[.,]\d)?)\s*[x×/*]\s*(\d(?:[.,]\d)?)\s*mm/i.exec(text);
  const polarity = /cent(?:er|re)[- ]?(?:pin )?(?:plus|positive|\+)/i.test(text)
    ? 'centre-plus'
    : /cent(?:er|re)[- ]?(?:pin )?(?:minus|negative|-)/i.test(text)
      ? 'centre-minus'
      : undefined;
  const [volts, amperes, ohms, watts] = [rating('V', 'V'), rating('A', 'A'), rating('Ω|ohm', 'ohm'), rating('W', 'W')];
  return {
    id,
    kind: NEED_KINDS.find(([pattern]) => pattern.test(text))?.[1] ?? 'other',
    text: text.trim().slice(0, 300),
    ...(volts !== undefined ? { volts } : {}),
    ...(amperes !== undefined ? { amperes } : {}),
    ...(ohms !== undefined ? { ohms } : {}),
    ...(watts !== undefined ? { watts } : {}),
    ...(plug ? { plug: `${plug[1]!.replace(',', '.')}/${plug[2]!.replace(',', '.')}` } : {}),
    ...(polarity ? { polarity } : {}),
  };
}
