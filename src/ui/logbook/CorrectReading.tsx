'use client';
import { Form, Input, Modal } from 'antd';
import { type EntryBody, type EntryOf, expectationOf, type KitState, type ReadingValue } from '@/core/kit';
import { TYPICAL_METERS } from '@/core/meter';
import { entryText } from '@/core/loop';
import { parseDisplay, print } from '@/core/quantity';
import { type MeterMode, unitOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';

type Correctable = EntryOf<'measured'> | EntryOf<'read'> | EntryOf<'probed'> | EntryOf<'counted'>;
export const isCorrectable = (e: { readonly kind: string }): e is Correctable => ['measured', 'read', 'probed', 'counted'].includes(e.kind);

interface Values {
  readonly reading: string;
  readonly meter: string;
  readonly place: string;
}

/** A mistyped reading gets another value, another meter, or the piece or check that it belongs to. The old one stays in the log, taken back. */
export function CorrectReading({ kit, entry, close }: { kit: KitState; entry: Correctable; close: () => void }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Values>();
  const places = placesOf(kit, entry);
  const modeAt = (place: string) => places.find((p) => p.value === place)?.mode ?? null;
  const save = (values: Values) => {
    const body = corrected(kit, entry, values, modeAt(values.place));
    if (body) void append([{ kind: 'withdrawn', entry: entry.id }, body]).then(close);
  };
  return (
    <Modal
      open
      title={entryText(kit, entry)}
      okText="Correct it"
      onCancel={close}
      onOk={() => {
        form.submit();
      }}
      destroyOnHidden
    >
      <Form<Values> form={form} layout="vertical" onFinish={save} initialValues={initial(entry)}>
        <Form.Item
          name="reading"
          label={entry.kind === 'counted' ? 'How many are there?' : 'What the meter showed'}
          dependencies={['place']}
          rules={[
            ({ getFieldValue }) => ({
              validator: (_, text: string) => {
                const problem = problemOf(entry, text, modeAt(getFieldValue('place') as string));
                return problem === null ? Promise.resolve() : Promise.reject(new Error(problem));
              },
            }),
          ]}
        >
          <Input autoFocus autoComplete="off" />
        </Form.Item>
        <Form.Item name="place" label={entry.kind === 'counted' || entry.kind === 'measured' ? 'It belongs to' : 'It was read at'}>
          <Choose options={places.map(({ value, label }) => ({ value, label }))} />
        </Form.Item>
        {entry.kind !== 'counted' && (
          <Form.Item name="meter" label="With this meter">
            <Choose options={[...TYPICAL_METERS, ...kit.settings.meters].map((m) => ({ value: m.id, label: m.name }))} />
          </Form.Item>
        )}
      </Form>
    </Modal>
  );
}

const initial = (e: Correctable): Values => ({
  reading: e.kind === 'counted' ? String(e.quantity) : e.reading === 'over' ? 'OL' : print(e.reading, null, 6).replace('−', '-').replace(/ /g, ''),
  meter: e.kind === 'counted' ? '' : e.meter,
  place:
    e.kind === 'counted' ? e.line : e.kind === 'measured' ? `${e.line}#${e.piece}` : e.kind === 'read' ? `${e.stage}/${e.check}` : `${e.stage}/@${e.testPoint}`,
});

interface Place {
  readonly value: string;
  readonly label: string;
  readonly mode: MeterMode | null;
}

/** Where the reading can belong. */
function placesOf(kit: KitState, e: Correctable): Place[] {
  switch (e.kind) {
    case 'counted':
      return kit.sheet.lines.map((l) => ({ value: l.id, label: l.label, mode: null }));
    case 'measured':
      return kit.sheet.lines.flatMap((l) => {
        const mode = expectationOf(l)?.mode;
        const count = Math.max(l.quantity, kit.tallies.get(l.id)?.total ?? 0);
        return mode ? Array.from({ length: count }, (_, i) => ({ value: `${l.id}#${i}`, label: `${l.refs[i] ?? `spare ${i + 1}`}, ${l.label}`, mode })) : [];
      });
    default:
      return kit.sheet.stages.flatMap((s) => [
        ...s.checks.flatMap((c) => (c.what === 'measure' ? [{ value: `${s.id}/${c.id}`, label: `${s.title}: ${c.title}`, mode: c.mode }] : [])),
        ...(s.supplies.length > 0
          ? kit.sheet.testPoints.map((t) => ({ value: `${s.id}/@${t.id}`, label: `${s.title}: test point ${t.id}`, mode: 'dcv' as const }))
          : []),
      ]);
  }
}

function problemOf(e: Correctable, text: string, mode: MeterMode | null): string | null {
  if (e.kind === 'counted') return /^\d{1,5}$/.test(text.trim()) ? null : `“${text}” is not a count. Type a whole number, 0 if there is none.`;
  if (mode === null) return 'Choose what it was read at.';
  const parsed = parseDisplay(text, unitOf(mode));
  return parsed.ok ? null : `${parsed.message}.`;
}

function corrected(kit: KitState, e: Correctable, { reading, meter, place }: Values, mode: MeterMode | null): EntryBody | null {
  if (e.kind === 'counted') return { kind: 'counted', line: place, quantity: Number(reading) };
  const parsed = mode && parseDisplay(reading, unitOf(mode));
  if (!parsed?.ok) return null;
  const value: ReadingValue = parsed.kind === 'over' ? 'over' : parsed.value;
  if (e.kind === 'measured') {
    const cut = place.lastIndexOf('#');
    const [line, piece] = [place.slice(0, cut), Number(place.slice(cut + 1))];
    const ref = kit.sheet.lines.find((l) => l.id === line)?.refs[piece];
    return { kind: 'measured', line, piece, ...(ref ? { ref } : {}), mode: mode as EntryOf<'measured'>['mode'], reading: value, meter };
  }
  const cut = place.indexOf('/');
  const [stage, at] = [place.slice(0, cut), place.slice(cut + 1)];
  return at.startsWith('@')
    ? { kind: 'probed', stage, testPoint: at.slice(1), reading: value, meter }
    : { kind: 'read', stage, check: at, reading: value, meter };
}
