import {
  type Entry,
  figuresOf,
  type EntryOf,
  isKnown,
  type KitState,
  type Modification,
  type ReadingValue,
  type RecordOf,
  type RoomName,
  type UnknownEntry,
} from '../kit';
import { faultTitle } from '../fault';
import { print, printNominal } from '../quantity';
import { factsOf, LOOSE_FACTS, type MeterMode, unitOf } from '../vocabulary';
import { namingOf } from './faultNames';
import { lineTitle } from './lineWords';

const shown = (reading: ReadingValue, mode: MeterMode | null) => (reading === 'over' ? 'over-range' : print(reading, mode && unitOf(mode)));

/** One entry of the log in a sentence. */
export function entryText(kit: KitState, e: Entry | UnknownEntry): string {
  if (!isKnown(e)) return `Something that a newer program wrote (${e.kind})`;
  const line = (id: string) => {
    const held = kit.sheet.lines.find((l) => l.id === id);
    return held ? lineTitle(held) : formerLabel(kit, id);
  };
  const stage = (id: string) => kit.sheet.stages.find((s) => s.id === id);
  switch (e.kind) {
    case 'counted':
      return `Counted ${e.quantity} × ${line(e.line)}`;
    case 'received':
      return `${e.quantity} more of ${line(e.line)} came${e.instead?.length ? `, ${e.instead.length} put aside for them` : ''}`;
    case 'measured':
      return `${e.ref ?? `Spare ${e.piece + 1}`} of ${line(e.line)} reads ${shown(e.reading, e.mode)}`;
    case 'figured': {
      const what = `Figure “${e.figure}” of ${e.ref ?? `spare ${e.piece + 1}`} (${line(e.line)})`;
      const figure = kit.sheet.lines.flatMap((l) => (l.id === e.line ? figuresOf(l) : [])).find((f) => f.id === e.figure);
      return e.reading === null
        ? `${what}: ${e.good ? 'good' : 'not good'}`
        : `${what} reads ${e.reading === 'over' ? 'over-range' : print(e.reading, figure?.unit ?? null)}`;
    }
    case 'marked':
      return `Marking on ${line(e.line)}: ${e.text}`;
    case 'loose':
      return `${e.instead === undefined ? 'Loose piece' : 'Not on the list:'} ${[typeof e.marking === 'string' ? e.marking : e.marking?.join(' '), e.polarity, e.reading === null ? null : `reads ${shown(e.reading, LOOSE_FACTS[e.part].mode)}`].filter(Boolean).join(' ')}`;
    case 'sorted':
      return `Sorted ${e.pieces.length} loose pieces: ${e.pieces.filter((p) => p.line === null).length} on no line`;
    case 'meter-checked':
      return `Meter checked: probes together ${shown(e.together, 'ohms')}, apart ${shown(e.apart, 'ohms')}`;
    case 'compared':
      return `Compared: ${e.instrument} reads ${shown(e.reading, e.mode)}, ${'meter' in e.against ? `${e.against.meter} reads ${shown(e.against.reading, e.mode)}` : `known ${shown(e.against.value, e.mode)}`}`;
    case 'owned':
      return `${e.owned.none ? 'Not available for now:' : Object.keys(e.owned).length === 0 ? 'Available now:' : 'Own part compared with the need'} “${kit.sheet.needs.find((n) => n.id === e.need)?.text ?? e.need}”`;
    case 'skipped':
      return `Skipped ${e.target}${e.reason ? ` (${e.reason})` : ''}`;
    case 'fitted':
      return `Fitted ${e.refs.join(', ')}`;
    case 'removed':
      return `Removed ${e.refs.join(', ')}`;
    case 'set':
      return `Set ${e.ref} to ${e.value}`;
    case 'read': {
      const check = stage(e.stage)?.checks.find((c) => c.id === e.check);
      return `${stage(e.stage)?.title ?? e.stage}: ${check?.title ?? e.check} reads ${shown(e.reading, check?.what === 'measure' ? check.mode : null)}`;
    }
    case 'probed':
      return `${stage(e.stage)?.title ?? e.stage}: ${e.testPoint} reads ${shown(e.reading, 'dcv')}`;
    case 'observed':
      return `${stage(e.stage)?.title ?? e.stage}: ${stage(e.stage)?.checks.find((c) => c.id === e.check)?.title ?? e.check}${e.channel ? ` ${e.channel}` : ''} ${e.asExpected ? 'as expected' : 'not as expected'}`;
    case 'referenced': {
      const check = stage(e.stage)?.checks.find((c) => c.id === e.check);
      const what = `${stage(e.stage)?.title ?? e.stage}: ${check?.title ?? e.check}`;
      return e.reading === null
        ? `${what}: known-good reading removed`
        : `${what} reads ${shown(e.reading, check?.what === 'measure' ? check.mode : null)} on a known-good board`;
    }
    case 'tried':
      return `${e.check}: ${
        e.asExpected
          ? 'as expected'
          : `not so (${e.saw
              .map((s) => `${s.of} ${s.saw}`)
              .join(', ')
              .slice(0, 80)})`
      }`;
    case 'inspected':
      return `Looked: ${e.title ?? e.item} ${e.good ? 'is good' : `is not good${e.note ? `: ${e.note}` : ''}`}`;
    case 'gated':
      return `${stage(e.stage)?.title ?? e.stage}: ${e.go === 'on' ? 'continued anyway' : 'done again'}, because ${e.reason}`;
    case 'prepared':
      return `${stage(e.stage)?.title ?? e.stage}: made ready (${e.confirmed})`;
    case 'ruled-out':
      return `Looked, and not this: ${faultTitle(e.fault, namingOf(kit)(e.fault))}${e.note ? ` (${e.note})` : ''}`;
    case 'examined':
      return `${line(e.line)}, genuine or not: ${e.title}${e.figure || e.sign.startsWith('origin/') ? '' : e.seen ? ', yes' : ', no'}`;
    case 'symptom':
      return `${e.title}: ${e.seen ? 'yes' : 'no'}`;
    case 'traced':
      return `${e.pads[0]} to ${e.pads[1]}: ${e.beep ? 'beeps' : 'no beep'}`;
    case 'found':
      return `Found: ${faultTitle(e.fault, namingOf(kit)(e.fault))} (${Math.round(100 * e.probability)} %)`;
    case 'repaired':
      return `Repaired ${e.refs.join(', ') || 'the board'}: ${e.note}`;
    case 'modified':
      return `Board changed${e.temporary ? ' for a test' : ''}: ${modificationText(kit, e.change)}${e.why ? ` (${e.why})` : ''}`;
    case 'restored': {
      const made = kit.log.find((x) => x.id === e.modification);
      return made?.kind === 'modified'
        ? `Put back on the board: ${modificationText(kit, (made as EntryOf<'modified'>).change)}`
        : 'A change of the board was put back';
    }
    case 'finished':
      return e.open.length === 0 ? 'Finished: nothing is open' : `Finished, with this open: ${e.open.join('; ')}`;
    case 'noted':
      return e.text;
    case 'waiting':
      return `Waiting: ${e.reason}`;
    case 'resumed':
      return 'Went on';
    case 'withdrawn':
      return withdrawnText(kit, e);
    case 'changed':
      return changeText(e);
  }
}

function withdrawnText(kit: KitState, e: Extract<Entry, { kind: 'withdrawn' }>): string {
  if (e.ofBatch !== undefined) return `Undid a step of ${kit.log.filter((x) => x.batch === e.ofBatch && x.id !== e.id).length} entries`;
  const aim = kit.log.find((x) => x.id === e.entry);
  if (!aim) return 'Undid an entry';
  return aim.kind === 'withdrawn' ? 'Redone' : `Undone: ${entryText(kit, aim)}`;
}

export function modificationText(kit: KitState, m: Modification): string {
  switch (m.what) {
    case 'part-added':
      return `${m.name}${m.value === null ? '' : ` (${print(m.value, { R: 'ohm', C: 'F', L: 'H', D: 'V' }[m.kind] as 'ohm', 3)})`} added between ${m.nets[0]} and ${m.nets[1]}`;
    case 'track-cut':
      return `track cut at ${m.ref}, pin ${m.pin}`;
    case 'value-replaced': {
      const line = kit.sheet.lines.find((l) => l.refs.includes(m.ref));
      return `${m.ref} replaced by ${printNominal(m.value, line ? factsOf(line.kind).unit : null)}`;
    }
    case 'link':
      return `link from ${m.nets[0]} to ${m.nets[1]}`;
    case 'unplugged':
      return `${m.refs.join(', ')} unplugged`;
    case 'other':
      return m.text;
    case 'strap':
      return `${kit.sheet.options.find((o) => o.id === m.option)?.text ?? m.option}: ${m.choice}`;
  }
}

const ROOM_WORDS: Readonly<Record<RoomName, string>> = {
  about: 'About the kit',
  boards: 'Board',
  options: 'Option',
  lines: 'Line',
  needs: 'Need',
  circuit: 'Circuit',
  neighbours: 'Neighbouring nets',
  functions: 'Functions in sentences',
  testPoints: 'Test point',
  placement: 'Place of',
  symbols: 'Symbol of',
  pads: 'Pad',
  stages: 'Stage',
  checks: 'Check',
  claims: 'Claim',
  typeCards: 'Type card',
  photos: 'Photo',
  constraints: 'Order',
  differences: 'Sources of',
  meters: 'Meter',
  settings: 'Setting',
};

const SETTING_WORDS: Readonly<Record<string, string>> = {
  meter: 'meter',
  school: 'way of judging',
  measure: 'order of measuring',
  fitting: 'order of fitting',
  order: 'own order',
  firstPower: 'first power',
  sitting: 'length of a sitting',
  efforts: 'effort of a reading',
  standIn: 'practice',
};

/** A record's name as people know it. */
function nameOf(room: RoomName, record: string, value: RecordOf<RoomName> | null): string {
  const v = value as unknown as Record<string, unknown> | null;
  if (room === 'lines' && v) return (v['refs'] as string[]).slice(0, 3).join(', ') || (v['label'] as string);
  if (room === 'about' || room === 'circuit' || room === 'functions') return '';
  if (room === 'settings') return SETTING_WORDS[record] ?? record;
  const told = v && ['title', 'name', 'label', 'text', 'about'].map((f) => v[f]).find((t) => typeof t === 'string' && t !== '');
  return typeof told === 'string' ? told : record;
}

/** `Line R5: 3.3 k → 33 k`; a new or removed record by its name. */
function changeText(e: Extract<Entry, { kind: 'changed' }>): string {
  // What a practice round hides is told in no log.
  if (e.room === 'settings' && e.record === 'standIn') return practiceText(e.after);
  const what = [ROOM_WORDS[e.room], nameOf(e.room, e.record, e.after ?? e.before)].filter(Boolean).join(' ');
  if (e.room === 'symbols') return `${what} on the schematic: ${e.after === null ? 'put back' : 'moved'}`;
  if (e.after === null) return `${what}: removed`;
  if (e.before === null) return e.room === 'settings' ? `${what}: ${fieldText((e.after as { value: unknown }).value)}` : `${what}: added`;
  if (e.room === 'differences' && 'right' in e.after && !('right' in e.before))
    return `${what}: settled, the ${e.after.right} is right by ${e.after.by ?? 'looking'}`;
  const before: Record<string, unknown> = { ...e.before };
  const after: Record<string, unknown> = { ...e.after };
  const fields = [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((f) => JSON.stringify(before[f]) !== JSON.stringify(after[f]));
  if (fields.length === 0) return e.order === undefined ? `${what}: kept as it is` : `${what}: moved`;
  // The label says what the value says, in the builder's words.
  const telling = e.room === 'lines' && fields.includes('label') ? fields.filter((f) => f !== 'value') : fields;
  const facts = telling.slice(0, 3).map((f) => `${f === 'label' || f === 'value' ? '' : `${f} `}${differenceText(before[f], after[f])}`);
  return `${what}: ${facts.join('; ')}${telling.length > 3 ? ' …' : ''}`;
}

function practiceText(after: RecordOf<'settings'> | null): string {
  if (after?.name !== 'standIn' || after.value === null) return 'No practice any more';
  return after.value.over ? `Practice round ${after.value.seed}: ended` : `Practice round ${after.value.seed}`;
}

/** Label of a line that is gone from the sheet, as it stood last. */
function formerLabel(kit: KitState, id: string): string {
  for (let i = kit.log.length - 1; i >= 0; i--) {
    const e = kit.log[i]!;
    if (isKnown(e) && e.kind === 'changed' && e.room === 'lines' && e.record === id) return (e.after ?? e.before)?.label ?? id;
  }
  return id;
}

/** What came and went of two lists; of two tables of names, those that differ; of anything else, what it was and is. */
function differenceText(before: unknown, after: unknown): string {
  if (before === undefined && Array.isArray(after)) return differenceText([], after);
  if (isTable(before ?? {}) && isTable(after)) {
    const [was, is] = [(before ?? {}) as Record<string, string>, after];
    return [...new Set([...Object.keys(was), ...Object.keys(is)])]
      .filter((k) => was[k] !== is[k])
      .slice(0, 4)
      .map((k) => `${k} ${was[k] === undefined ? '' : `${was[k]} → `}${is[k] ?? 'nothing'}`)
      .join(', ');
  }
  if (!Array.isArray(before) || !Array.isArray(after)) return isNothing(before) ? fieldText(after) : `${fieldText(before)} → ${fieldText(after)}`;
  const texts = (list: unknown[]) => list.map((x) => fieldText(x));
  const [was, is] = [texts(before), texts(after)];
  const gone = was.filter((t) => !is.includes(t)).map((t) => `without ${t}`);
  const came = is.filter((t) => !was.includes(t)).map((t) => `with ${t}`);
  return [...gone, ...came].slice(0, 4).join(', ') || 'in another order';
}

const isNothing = (v: unknown): v is undefined | null => v === undefined || v === null;
const isTable = (v: unknown): v is Record<string, string> =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && Object.values(v).every((x) => typeof x === 'string');

const MOST_SHOWN = 40;
function fieldText(v: unknown): string {
  if (isNothing(v)) return 'nothing';
  const text = typeof v === 'string' ? v : Array.isArray(v) ? v.map(fieldText).join(' ') : typeof v === 'object' ? recordText(v) : JSON.stringify(v);
  return text.length > MOST_SHOWN ? `${text.slice(0, MOST_SHOWN)}…` : text;
}

/** A record within a record by what it is called, else by its figures. */
function recordText(v: object): string {
  const named = ['ref', 'title', 'name', 'text', 'about', 'id'].map((f) => (v as Record<string, unknown>)[f]).find((t) => typeof t === 'string' && t !== '');
  return typeof named === 'string'
    ? named
    : Object.entries(v)
        .map(([k, x]) => `${k} ${fieldText(x)}`)
        .join(', ');
}
