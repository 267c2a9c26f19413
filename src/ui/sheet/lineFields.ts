import type { KitState, Line } from '@/core/kit';
import { factsOf, LINE_KINDS, type LineKind } from '@/core/vocabulary';
import type { Field, FormValues } from './records/fields';
import { refsOfKit } from './records/specs';

const optionChoices = (kit: KitState) => kit.sheet.options.flatMap((o) => o.choices.map((c) => ({ value: `${o.id}=${c}`, label: `${o.text}: ${c}` })));

/** How a line is asked for; its kind decides what its value is. */
export const LINE_FIELDS = (kit: KitState, kind: LineKind): readonly Field[] => [
  { key: 'label', label: 'As the list prints it', type: 'text', required: 'What does the list say?' },
  { key: 'kind', label: 'Kind', type: 'choice', options: LINE_KINDS.map((k) => ({ value: k, label: factsOf(k).word })), required: 'What kind of part?' },
  { key: 'value', label: 'Value', type: 'quantity', unit: factsOf(kind).unit },
  { key: 'tolerance', label: 'Tolerance, %', type: 'tolerance', hint: '5 or -20/+80' },
  { key: 'quantity', label: 'Pieces in the bag', type: 'count', required: 'How many?' },
  { key: 'refs', label: 'Positions on the board', type: 'names', options: refsOfKit(kit) },
  { key: 'type', label: 'Type number', type: 'text' },
  { key: 'package', label: 'Body', type: 'text', hint: 'TO-92, DIP-8, 0805' },
  { key: 'colour', label: 'Colour', type: 'text' },
  { key: 'range', label: 'hFE, or threshold volts, among good parts', type: 'limits', unit: null, open: false },
  { key: 'volts', label: 'Rated volts', type: 'quantity', unit: 'V' },
  { key: 'watts', label: 'Rated watts', type: 'quantity', unit: 'W' },
  { key: 'amperes', label: 'Rated amperes', type: 'quantity', unit: 'A' },
  { key: 'option', label: 'Only with', type: 'choice', options: optionChoices(kit) },
  { key: 'notFitted', label: 'Place stays empty', type: 'flag' },
  { key: 'amendment', label: 'Slip that amended it', type: 'text' },
  { key: 'note', label: 'Note', type: 'text' },
];

/** Fields that several lines can be given at once. */
export const COMMON_FIELDS = (kit: KitState): readonly Field[] =>
  LINE_FIELDS(kit, 'other').filter((f) => ['tolerance', 'package', 'volts', 'watts', 'option', 'notFitted', 'amendment', 'note'].includes(f.key));

/** The form asks for the ratings one by one. */
export const lineToForm = ({ rating, ...line }: Line): FormValues => ({ ...line, ...rating });

export function lineFromForm({ volts, watts, amperes, ...values }: FormValues): Line {
  const rating = Object.fromEntries(Object.entries({ volts, watts, amperes }).filter(([, v]) => typeof v === 'number'));
  const line = Object.fromEntries(Object.entries(values).filter(([key, v]) => v !== undefined && key !== 'rating'));
  return { ...line, ...(Object.keys(rating).length > 0 ? { rating } : {}) } as unknown as Line;
}

/** What is wrong with a line beyond a single field. */
export function refuseLine(line: Line, kit: KitState): Readonly<Record<string, string>> {
  const twice = line.refs.find((r, i) => line.refs.indexOf(r) !== i);
  if (twice) return { refs: `${twice} is there twice. Once is enough.` };
  const other = kit.sheet.lines.find((l) => l.id !== line.id && l.refs.some((r) => line.refs.includes(r)));
  const shared = other?.refs.find((r) => line.refs.includes(r));
  return shared ? { refs: `${shared} is on the line “${other!.label}” already. Take it out there first.` } : {};
}
