import { type Entry, type KitDocument, type ReadingValue } from '../kit';
import { describeFault } from '../fault/words';
import { print, type Unit } from '../quantity';

const UNIT: Readonly<Record<string, Unit>> = { dcv: 'V', dca: 'A', ohms: 'ohm', diode: 'V', capacitance: 'F', inductance: 'H', hfe: 'ratio', frequency: 'Hz' };
const shown = (reading: ReadingValue, mode: string) => (reading === 'over' ? 'over-range' : print(reading, UNIT[mode] ?? null));

const LOOSE_MODE = { R: 'ohms', C: 'capacitance', L: 'inductance', D: 'diode', LED: 'diode', Q: 'hfe' } as const;

/** One entry of the log in a sentence. */
export function entryText(doc: KitDocument, e: Entry): string {
  const line = (id: string) => doc.sheet.lines.find((l) => l.id === id)?.label ?? id;
  const stage = (id: string) => doc.sheet.stages.find((s) => s.id === id);
  switch (e.kind) {
    case 'counted':
      return `Counted ${e.quantity} × ${line(e.line)}`;
    case 'measured':
      return `${e.ref ?? `Spare ${e.piece + 1}`} of ${line(e.line)} reads ${shown(e.reading, e.mode)}`;
    case 'marked':
      return `Marking on ${line(e.line)}: ${e.text}`;
    case 'loose':
      return `Loose piece ${[typeof e.marking === 'string' ? e.marking : e.marking?.join(' '), e.polarity, e.reading === null ? null : `reads ${shown(e.reading, LOOSE_MODE[e.part])}`].filter(Boolean).join(' ')}`;
    case 'sorted':
      return `Sorted ${e.pieces.length} loose pieces: ${e.pieces.filter((p) => p.line === null).length} on no line`;
    case 'meter-checked':
      return `Meter checked: probes together ${shown(e.together, 'ohms')}, apart ${shown(e.apart, 'ohms')}`;
    case 'compared':
      return `Compared: ${e.instrument} reads ${shown(e.reading, e.mode)}, ${'meter' in e.against ? `${e.against.meter} reads ${shown(e.against.reading, e.mode)}` : `known ${shown(e.against.value, e.mode)}`}`;
    case 'owned':
      return `Own part held against the need “${doc.sheet.needs.find((n) => n.id === e.need)?.text ?? e.need}”`;
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
      return `${stage(e.stage)?.title ?? e.stage}: ${check?.title ?? e.check} reads ${shown(e.reading, check?.what === 'measure' ? check.mode : '')}`;
    }
    case 'probed':
      return `${stage(e.stage)?.title ?? e.stage}: ${e.testPoint} reads ${shown(e.reading, 'dcv')}`;
    case 'observed':
      return `${stage(e.stage)?.title ?? e.stage}: ${stage(e.stage)?.checks.find((c) => c.id === e.check)?.title ?? e.check}${e.channel ? ` ${e.channel}` : ''} ${e.asExpected ? 'as expected' : 'not as expected'}`;
    case 'found':
      return `Found: ${describeFault(e.fault).title} (${Math.round(100 * e.probability)} %)`;
    case 'repaired':
      return `Repaired ${e.refs.join(', ')}: ${e.note}`;
    case 'modified':
      return `Board changed: ${e.change.what}`;
    case 'noted':
      return e.text;
    case 'waiting':
      return `Waiting: ${e.reason}`;
    case 'resumed':
      return 'Went on';
    case 'withdrawn':
      return 'Withdrew an entry';
  }
}
