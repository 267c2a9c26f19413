import { type Entry, type EntryBody, expectationOf, judgeMeasured, type KitState, type LineExpectation, type LineKind, stands } from '../kit';
import { type MeterProfile, uncertaintyOf } from '../meter';
import { print, type Unit } from '../quantity';
import { checkObservableId, probeObservableId, unitOf } from '../vocabulary';
import { entryText } from './logText';
import { type Verdict, VERDICT_WORDS } from '../verdict';
import { oddReading } from './oddReading';
import { type CheckWindow, driftTold, freshTaken, judgeReading, type KnownWindows, windowFor, windowOfReading } from './progress';
import { outAdvice } from './outAdvice';
import { systematicErrors } from './systematic';
import { lineTitle } from './lineWords';

/** The answer to the last entry, with its reckoning. */
export interface LastVerdict {
  readonly verdict: Verdict;
  readonly title: string;
  readonly detail: string;
  /** Line by line, so that nobody has to believe the verdict. */
  readonly reckoning: readonly string[];
  /** What was probably meant, where the reading itself looks wrong. */
  readonly instead?: { readonly text: string; readonly entries: readonly EntryBody[] };
}

const percent = (share: number) => `${Math.abs(share * 100).toFixed(Math.abs(share) < 0.1 ? 1 : 0)} %`;
const sure = (p: number) =>
  p > 0.999
    ? 'more than 99.9 % likely within limits'
    : p < 0.001
      ? 'less than 0.1 % likely within limits'
      : `${(100 * p).toFixed(p > 0.99 ? 1 : 0)} % likely within limits`;

/** The verdict on the newest entry that stands; null when the log says nothing to judge. */
export function lastVerdict(kit: KitState, windows: KnownWindows): LastVerdict | null {
  for (let i = kit.log.length - 1; i >= 0; i--) {
    const e = kit.log[i]!;
    const found = stands(kit, e) ? verdictOf(kit, e, windows) : null;
    if (found) return found;
  }
  return null;
}

function verdictOf(kit: KitState, e: Entry, windows: KnownWindows): LastVerdict | null {
  switch (e.kind) {
    case 'counted': {
      const line = kit.sheet.lines.find((l) => l.id === e.line);
      if (!line) return null;
      const off = e.quantity - line.quantity;
      const title =
        off === 0
          ? `${lineTitle(line)}: ${e.quantity === 1 ? 'here' : `all ${e.quantity} here`}`
          : off < 0
            ? `${lineTitle(line)}: ${-off} missing`
            : `${lineTitle(line)}: ${off} spare`;
      return {
        verdict: off < 0 ? 'out' : 'in',
        title,
        detail: off < 0 ? 'Look for a second small packet before you write to the seller.' : off > 0 ? 'Keep the spare with its label.' : '',
        reckoning: [`counted ${e.quantity}, listed ${line.quantity}`],
      };
    }
    case 'measured':
      return measured(kit, e);
    case 'loose':
      return {
        verdict: 'none',
        title: entryText(kit, e),
        detail: e.instead === undefined ? 'Noted. Its best match is shown beside the tray.' : 'The letter to the seller names it.',
        reckoning: [],
      };
    case 'sorted':
      return { verdict: 'none', title: entryText(kit, e), detail: 'The pieces are in their compartments and judged there.', reckoning: [] };
    case 'read':
    case 'probed':
      return read(kit, e, windows);
    case 'observed':
      return {
        verdict: e.asExpected ? 'in' : 'out',
        title: e.asExpected ? 'As expected' : 'Not as expected',
        detail: e.asExpected ? '' : 'This stage stops here. Go to Find fault.',
        reckoning: [],
      };
    case 'tried':
      return {
        verdict: e.asExpected ? 'in' : 'out',
        title: e.asExpected ? `${e.check}: as expected` : `${e.check}: not as expected`,
        detail: e.asExpected ? '' : 'The suspects are ranked again.',
        reckoning: [],
      };
    case 'inspected':
      return {
        verdict: e.good ? 'in' : 'out',
        title: `${e.title ?? e.item}: ${e.good ? 'good' : 'not good'}`,
        detail: e.good ? '' : 'Repair it before you switch anything on, then look again.',
        reckoning: [],
      };
    case 'prepared':
      return { verdict: 'in', title: 'Ready', detail: e.confirmed, reckoning: [] };
    case 'traced':
      return traced(e);
    case 'repaired':
      return {
        verdict: 'none',
        title: `Repaired ${e.refs.join(', ') || 'the board'}`,
        detail: 'Measure this stage again: only that shows whether it was the fault.',
        reckoning: [],
      };
    default:
      return null;
  }
}

function traced(e: Extract<Entry, { kind: 'traced' }>): LastVerdict {
  const heard = `${e.pads[0]} to ${e.pads[1]} ${e.beep ? 'beeps' : 'is silent'}`;
  if (e.drawn === undefined) return { verdict: 'none', title: heard, detail: '', reckoning: [] };
  return {
    verdict: e.drawn === e.beep ? 'in' : 'out',
    title: heard,
    detail: e.drawn === e.beep ? 'As drawn.' : 'Not as drawn. The next questions find out why.',
    reckoning: [e.drawn ? 'the drawing joins them' : 'nothing in the drawing joins them'],
  };
}

function measured(kit: KitState, e: Extract<Entry, { kind: 'measured' }>): LastVerdict | null {
  const line = kit.sheet.lines.find((l) => l.id === e.line);
  const expected = line && expectationOf(line);
  if (!line || !expected) return null;
  const name = e.ref ?? `${lineTitle(line)}, spare`;
  if (e.reading === 'over')
    return {
      verdict: 'out',
      title: `${name} reads over-range`,
      detail: 'Open, dead, or the probes did not touch. Try once more, then take another piece.',
      reckoning: ['over-range'],
    };
  const piece = kit.tallies.get(line.id)?.pieces.get(e.piece);
  const v = piece?.entry.id === e.id ? judgeMeasured(line, e, piece.meter, kit.settings.school) : null;
  if (!piece || !v) return null;
  const { unit } = expected;
  const side = v.deviation < 0 ? 'below' : 'above';
  const lead =
    v.corrected === e.reading ? [] : [`less the leads: ${print(e.reading, unit)} − ${print(e.reading - v.corrected, unit)} = ${print(v.corrected, unit)}`];
  return {
    verdict: v.verdict,
    title: `${name} ${VERDICT_WORDS[v.verdict]}, ${print(v.corrected, unit)}`,
    detail:
      v.verdict === 'out'
        ? [outAdvice(kit, line, v.corrected), doubtOf(line.kind, expected, piece.meter, e.reading)].filter(Boolean).join(' ')
        : `${percent(v.deviation)} ${side} the middle, ${sure(v.probability)}`,
    reckoning: [
      ...lead,
      `limits ${print(v.low, unit)} to ${print(v.high, unit)} (${expected.from})`,
      `meter ±${print(v.halfWidth, unit, 2)}, standard uncertainty ${print(v.standard, unit, 2)}`,
      sure(v.probability),
    ],
  };
}

/** What of the reading itself speaks for a falsified measurement rather than a wrong part. */
const doubtOf = (kind: LineKind, expected: LineExpectation, meter: MeterProfile, reading: number | 'over'): string =>
  typeof reading === 'number'
    ? (systematicErrors(kind, expected, meter, reading).find((t) => !systematicErrors(kind, expected, meter, null).includes(t)) ?? '')
    : '';

function read(kit: KitState, e: Extract<Entry, { kind: 'read' | 'probed' }>, windows: KnownWindows): LastVerdict | null {
  const stage = kit.sheet.stages.find((s) => s.id === e.stage);
  const check = e.kind === 'read' ? stage?.checks.find((c) => c.id === e.check) : undefined;
  if (!stage || (e.kind === 'read' && check?.what !== 'measure')) return null;
  const mode = check?.what === 'measure' ? check.mode : 'dcv';
  const unit = unitOf(mode);
  const observable = e.kind === 'read' ? checkObservableId(e.stage, e.check) : probeObservableId(e.stage, e.testPoint);
  const meter = kit.readings.get(observable)?.find((t) => t.entry.id === e.id)?.met.meter;
  if (!meter) return null;
  const computed = windowOfReading(windows, e.id, observable);
  const window = check?.what === 'measure' ? windowFor(check, computed) : computed && { ...computed, source: 'computed' as const, conflict: false };
  const judged = judgeReading(e.reading, mode, window, meter);
  const name = e.kind === 'probed' ? e.testPoint : check?.what === 'measure' && 'testPoint' in check.red ? check.red.testPoint : (check?.title ?? '');
  const shown = e.reading === 'over' ? 'over-range' : print(e.reading, unit);
  if (!window)
    return {
      verdict: 'none',
      title: `${name}: ${shown} noted`,
      detail: pending(windows) ? 'Its limits are being worked out: the verdict follows.' : 'There are no limits to judge it by.',
      reckoning: [],
    };
  const drift = judged.verdict === 'in' && check?.what === 'measure' ? driftTold(freshTaken(kit, stage, check.id), check) : null;
  const { probability } = judged;
  const verdict = drift === null ? judged.verdict : 'doubtful';
  const u = e.reading === 'over' ? null : uncertaintyOf(meter, mode, e.reading);
  const odd =
    verdict === 'out' && typeof e.reading === 'number' && !window.over
      ? oddReading(kit, stage, { mode, reading: e.reading, low: window.low, high: window.high, observable }, windows)
      : null;
  const limits = window.over
    ? isOpenEnded(window)
      ? `at least ${print(window.low, unit)}`
      : 'over-range'
    : `${print(window.low, unit)} to ${print(window.high, unit)}`;
  return {
    verdict,
    title: verdict === 'out' ? `${name} ${outBy(e.reading, window, unit)}` : `${name} ${VERDICT_WORDS[verdict]}, ${shown}`,
    detail:
      verdict === 'in'
        ? probability === null
          ? ''
          : sure(probability)
        : verdict === 'doubtful'
          ? drift === null
            ? 'Just outside, by less than the meter’s error. Read again on a better range.'
            : `Within limits, but it ${drift > 0 ? 'rises' : 'falls'} by ${print(Math.abs(drift), unit, 2)} a minute. Read it again once it has settled.`
          : (odd?.text ?? `read ${shown}, expected ${limits}`),
    ...(odd?.as == null ? {} : { instead: { text: `Take it as ${print(odd.as, unit)}`, entries: insteadOf(e, odd.as) } }),
    reckoning: [`read ${shown}`, `expected ${limits} (${window.source})`, ...(u ? [`meter ±${print(u.halfWidth, unit, 2)}`] : [])],
  };
}

/** The reading withdrawn, and what was meant in its place: one batch. */
const insteadOf = (e: Extract<Entry, { kind: 'read' | 'probed' }>, reading: number): EntryBody[] => {
  const { id, at: _, batch: __, ...body } = e;
  return [
    { kind: 'withdrawn', entry: id },
    { ...body, reading },
  ];
};

/** Whether a window may still come: they are being worked out. */
const pending = (windows: KnownWindows) => windows === null;

/** A least that somebody gave is no over-range: more is right, whatever the display shows. */
const isOpenEnded = ({ over, low, source }: Pick<CheckWindow, 'over' | 'low' | 'source'>): boolean => over && source !== 'computed' && Number.isFinite(low);

function outBy(reading: number | 'over', window: Pick<CheckWindow, 'low' | 'high' | 'over' | 'source'>, unit: Unit): string {
  if (reading === 'over') return 'reads over-range';
  if (isOpenEnded(window)) return `should be at least ${print(window.low, unit)}, reads ${print(reading, unit)}`;
  if (window.over) return `should be open, reads ${print(reading, unit)}`;
  const by = reading < window.low ? window.low - reading : reading - window.high;
  return `out of range: ${print(by, unit, 3)} too ${reading < window.low ? 'low' : 'high'}`;
}
