import { parseQuantity } from '../quantity';
import type { Need } from '../kit';
import type { SheetKind } from './sheet';
import { saysNotSupplied } from './sheet/notices';

const NEED_KINDS: readonly (readonly [RegExp, Need['kind']])[] = [
  [/batter|akku|bater[íi]a|pile\b|батаре|аккум|电池|電池/i, 'battery'],
  [/supply|adapter|adaptor|netzteil|netzger|fuente|fonte|aliment|блок питания|zasilacz|电源|電源|适配器/i, 'supply'],
  [/speaker|horn|lautsprecher|altavoz|alto-?falante|haut-?parleur|громкоговор|динамик|głośnik|喇叭|扬声器|スピーカー|load|lamp|motor/i, 'load'],
  [/firmware|software|program|licen[cs]e|прошив/i, 'firmware'],
  [/lead|cable|kabel|cord|câble|провод|przewód|线|ケーブル/i, 'lead'],
  [/tool|iron|screwdriver|werkzeug|outil|herramienta/i, 'tool'],
];

const BY_KIND: Readonly<Partial<Record<SheetKind, Need['kind']>>> = {
  supply: 'supply',
  battery: 'battery',
  loudspeaker: 'load',
  lamp: 'load',
  motor: 'load',
  wire: 'lead',
};

/** A line that names something wanted but not supplied, with its rating; null for ordinary lines. */
export const readNeed = (text: string, id: string): Need | null => (saysNotSupplied(text) ? needOf(text, id, null) : null);

/** The need that a line tells of, by its words. */
export function needOf(text: string, id: string, kind: SheetKind | null): Need {
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
  const [volts, amperes, ohms, watts] = [rating('V|В', 'V'), rating('A|А', 'A'), rating('Ω|ohm|Ом', 'ohm'), rating('W|Вт', 'W')];
  return {
    id,
    kind: (kind && BY_KIND[kind]) ?? NEED_KINDS.find(([pattern]) => pattern.test(text))?.[1] ?? 'other',
    text: text.trim().slice(0, 300),
    ...(volts !== undefined ? { volts } : {}),
    ...(amperes !== undefined ? { amperes } : {}),
    ...(ohms !== undefined ? { ohms } : {}),
    ...(watts !== undefined ? { watts } : {}),
    ...(plug ? { plug: `${plug[1]!.replace(',', '.')}/${plug[2]!.replace(',', '.')}` } : {}),
    ...(polarity ? { polarity } : {}),
  };
}
