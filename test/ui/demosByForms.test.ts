/**
 * Every record of every demo can be written through its form: what the form shows of it, read back into an empty record, is the
 * record. So a builder can make by hand whatever the demos have, and gets the same windows.
 */
import type { KitState, RecordOf, RoomName } from '@/core/kit';
import { DEMOS } from '@/stand-in';
import { LINE_FIELDS, lineFromForm, lineToForm } from '@/ui/sheet/lineFields';
import { type Field, fieldsOf, type FormValues, valuesOf } from '@/ui/sheet/records/fields';
import type { RoomSpec } from '@/ui/sheet/records/RoomList';
import {
  BOARDS,
  checkFromForm,
  checkToForm,
  CLAIMS,
  CONSTRAINTS,
  DIFFERENCES,
  MEASURE_FIELDS,
  NEEDS,
  NEIGHBOURS,
  OBSERVE_FIELDS,
  OPTIONS,
  PADS,
  PLACEMENT,
  STAGE_FIELDS,
  TEST_POINTS,
  TYPE_CARDS,
} from '@/ui/sheet/records/specs';
import { at, kitOf } from '../support/kits';

const kits: readonly (readonly [string, KitState])[] = [
  ...DEMOS.map((d) => [d.slug, d.kit(at(0))] as const),
  [
    'made up',
    kitOf({
      ...DEMOS[0]!.kit(at(0)).sheet,
      typeCards: [
        {
          type: 'XY123',
          pins: { 'TO-92': ['C', 'B', 'E'], 'TO-220': ['in', 'out (tab)'] },
          figures: [{ name: 'power', value: 0.5, unit: 'W', source: 'data sheet' }],
        },
      ],
      constraints: [{ id: 'c', ref: 'R1', before: 'R2', why: 'it lies beneath' }],
      differences: [{ id: 'd', about: 'R1', list: '1 k', print: '10 k' }],
    }),
  ],
];

/** What a form makes of a record from nothing but its own fields and what it is called inside. */
function through(kit: KitState, fields: readonly Field[], shown: FormValues, inside: readonly string[], nullable: readonly string[] = []): FormValues {
  const context = { testPoints: new Set(kit.sheet.testPoints.map((t) => t.id)), nullable: new Set(nullable) };
  const kept = Object.fromEntries(inside.flatMap((key) => (shown[key] === undefined ? [] : [[key, shown[key]]])));
  const read = { ...kept, ...fieldsOf(fields, valuesOf(fields, shown), context) };
  return Object.fromEntries(Object.entries(read).filter(([, v]) => v !== undefined));
}

const records = <R extends RoomName>(kit: KitState, room: R): RecordOf<R>[] => [...kit.rooms[room].values()].map((h) => h.value as RecordOf<R>);
const plain = (record: object) => JSON.parse(JSON.stringify(record)) as unknown;

const SPECS = [
  BOARDS,
  OPTIONS,
  NEEDS,
  TEST_POINTS,
  PLACEMENT,
  PADS,
  NEIGHBOURS,
  CLAIMS,
  CONSTRAINTS,
  DIFFERENCES,
  TYPE_CARDS,
] as unknown as readonly RoomSpec<RoomName>[];

describe.each(kits)('%s', (_, kit) => {
  test.each(SPECS.map((s) => [s.room, s] as const))('%s', (room, spec) => {
    for (const record of records(kit, room))
      expect(through(kit, spec.fields(kit), record as unknown as FormValues, ['id'], spec.nullable)).toEqual(plain(record));
  });

  test('lines', () => {
    for (const line of kit.sheet.lines)
      expect(lineFromForm(through(kit, LINE_FIELDS(kit, line.kind), lineToForm(line), ['id'], ['value', 'tolerance']))).toEqual(plain(line));
  });

  test('stages and their checks', () => {
    for (const stage of records(kit, 'stages')) expect(through(kit, STAGE_FIELDS(kit), stage as unknown as FormValues, ['id'])).toEqual(plain(stage));
    for (const check of records(kit, 'checks')) {
      const fields = check.what === 'measure' ? MEASURE_FIELDS(kit) : OBSERVE_FIELDS(kit);
      expect(checkFromForm(through(kit, fields, checkToForm(check), ['id', 'stage', 'what']))).toEqual(plain(check));
    }
  });
});
