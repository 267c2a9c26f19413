import type { Unit } from '../quantity';
import type { Verdict } from '../verdict';
import type { Line } from './sheet';
import type { EntryOf } from './schema/entries';

/** What is measured, looked at or listened to of a loose part beside its first figure. */
export type FigureId =
  | 'esr'
  | 'leakage'
  | 'zener'
  | 'sweep'
  | 'ends'
  | 'closed'
  | 'opened'
  | 'clicks'
  | 'threshold'
  | 'channel'
  | 'rings'
  | 'colour'
  | 'voice-coil'
  | 'crackles'
  | 'sounds';

/** A further figure of a loose part. How it is taken is told by `figureHelp` of the loop. */
export interface PartFigure {
  readonly id: FigureId;
  /** Null where it is answered with yes or no. */
  readonly unit: Unit | null;
  /** What a good piece reads; an end that is null is open, and over-range lies beyond an open upper end. */
  readonly limits: { readonly low: number | null; readonly high: number | null } | null;
}

/** Dissipation factor of general-purpose aluminium electrolytics up to 25 V, and the frequency it is told for, hertz (data sheets, from memory). */
const DISSIPATION = 0.2;
const DISSIPATION_HERTZ = 120;
/** Leakage after two minutes: the larger of 0.01 C V and 3 µA (data sheets of general-purpose electrolytics, from memory). */
const LEAKAGE_SHARE = 0.01;
const LEAST_LEAKAGE = 3e-6;
/** Ohms of a closed contact with leads already taken off, and of an open one (common practice, no source). */
const CONTACT = 0.3;
const OPEN = 1e7;
/** Make and test current together (common practice, no source). */
const ZENER_SHARE = 0.07;
/** Threshold volts of small and power MOSFETs, ohms of a loudspeaker's coil (common practice, no source). */
const THRESHOLD = [0.8, 4.5] as const;
const VOICE_COIL = [3, 32] as const;

const yesNo = (...ids: readonly FigureId[]): PartFigure[] => ids.map((id) => ({ id, unit: null, limits: null }));
const reads = (id: FigureId, unit: Unit, low: number | null, high: number | null): PartFigure => ({ id, unit, limits: { low, high } });
const CONTACTS = [reads('closed', 'ohm', null, CONTACT), reads('opened', 'ohm', OPEN, null)];

/** Further figures by which a piece of a line is told good; none for most kinds. */
export function figuresOf(line: Line): readonly PartFigure[] {
  const { value, rating, range } = line;
  switch (line.kind) {
    case 'electrolytic': {
      if (value === null || value <= 0) return [];
      const esr = reads('esr', 'ohm', null, DISSIPATION / (2 * Math.PI * DISSIPATION_HERTZ * value));
      return rating?.volts === undefined ? [esr] : [esr, reads('leakage', 'A', null, Math.max(LEAST_LEAKAGE, LEAKAGE_SHARE * value * rating.volts))];
    }
    case 'zener': {
      const share = line.tolerance?.[1] ?? ZENER_SHARE;
      return value === null ? [] : [reads('zener', 'V', value * (1 - share), value * (1 + share))];
    }
    case 'trimmer':
    case 'potentiometer':
      return yesNo('sweep', 'ends');
    case 'relay':
      return [...CONTACTS, ...yesNo('clicks')];
    case 'switch':
      return CONTACTS;
    case 'nmos':
    case 'pmos': {
      const [low, high] = range ? [Math.min(...range.map(Math.abs)), Math.max(...range.map(Math.abs))] : THRESHOLD;
      return [reads('threshold', 'V', low, high), ...yesNo('channel')];
    }
    case 'crystal':
      return yesNo('rings');
    case 'led':
      return yesNo('colour');
    default:
      return byWords(`${line.label} ${line.type ?? ''}`);
  }
}

/** Kinds that a list has only words for. */
function byWords(words: string): readonly PartFigure[] {
  if (/speaker|lautsprecher|altavoz|haut-?parleur|喇叭|扬声器|динамик/i.test(words)) return [reads('voice-coil', 'ohm', ...VOICE_COIL), ...yesNo('crackles')];
  return /buzzer|summer|zumbador|蜂鸣/i.test(words) ? yesNo('sounds') : [];
}

/** Verdict on a further figure as it was taken. */
export function judgeFigure(figure: PartFigure, entry: EntryOf<'figured'>): Verdict {
  if (entry.reading === null) return entry.good === undefined ? 'none' : entry.good ? 'in' : 'out';
  if (!figure.limits) return 'none';
  const { low, high } = figure.limits;
  if (entry.reading === 'over') return high === null ? 'in' : 'out';
  return (low === null || entry.reading >= low) && (high === null || entry.reading <= high) ? 'in' : 'out';
}
