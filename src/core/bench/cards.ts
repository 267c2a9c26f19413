import { KIND_FACTS, type KitDocument, type Line, meterOf, offsetOf, type ProbePoint } from '../kit';
import { rangeFor } from '../meter';
import { printNominal, printWindow, type Unit } from '../quantity';
import { checkObservableId, probeObservableId } from '../stage/scene';
import { PILE_UNIT } from './pile';
import { windowFor, type Windows } from './stages';
import { type Target } from './targets';

/** Everything that the probe bar says about the target in hand. */
export interface TargetCard {
  readonly title: string;
  readonly rest: string;
  /** What to set the meter to. */
  readonly setting: string;
  readonly red: string | null;
  readonly black: string | null;
  readonly entry: 'count' | 'reading' | 'confirm';
  readonly unit: Unit | null;
  readonly expected: { readonly low: number; readonly high: number; readonly middle: number | null; readonly over: boolean; readonly from: string } | null;
  /** Shown under the expectation when there is none. */
  readonly why: string;
  readonly note: string | null;
}

const MODE_WORDS: Readonly<Record<string, string>> = {
  dcv: 'DC volts',
  dca: 'supply display, amperes',
  ohms: 'ohms',
  diode: 'diode test',
  capacitance: 'capacitance',
  inductance: 'inductance',
  hfe: 'transistor socket, hFE',
  frequency: 'frequency',
};
const MODE_UNIT: Readonly<Record<string, Unit>> = {
  dcv: 'V',
  dca: 'A',
  ohms: 'ohm',
  diode: 'V',
  capacitance: 'F',
  inductance: 'H',
  hfe: 'ratio',
  frequency: 'Hz',
};
const LOOSE_WORDS = { R: 'resistor', C: 'capacitor', L: 'coil', D: 'diode', LED: 'LED', Q: 'transistor' } as const;
const LOOSE_MODE = { R: 'ohms', C: 'capacitance', L: 'inductance', D: 'diode', LED: 'diode', Q: 'hfe' } as const;
const NOTHING = { red: null, black: null, note: null };

export function cardOf(doc: KitDocument, target: Target, windows: Windows): TargetCard {
  switch (target.kind) {
    case 'count':
      return {
        ...NOTHING,
        title: target.line.label,
        rest: target.line.refs.join(' '),
        setting: `Count the ${KIND_FACTS[target.line.kind].word}s of this line`,
        entry: 'count',
        unit: null,
        expected: null,
        why: `The list wants ${target.line.quantity}.`,
      };
    case 'piece':
      return pieceCard(doc, target);
    case 'loose':
      return {
        ...NOTHING,
        title: `Loose piece ${target.number + 1}`,
        rest: LOOSE_WORDS[target.part],
        setting: `${MODE_WORDS[LOOSE_MODE[target.part]]!.replace(/^./, (c) => c.toUpperCase())}, any piece next. Print first, if you can read it.`,
        entry: 'reading',
        unit: PILE_UNIT[target.part],
        expected: null,
        why: 'Any order, any line: where each piece belongs is worked out from all of them together.',
        note: 'Such as: 9.66k · bn bk og gd 9.66k · 104 98n · bc547 npn 280 · red 1.82',
      };
    case 'fit':
      return {
        ...NOTHING,
        title: target.refs.join(' '),
        rest: target.line.label,
        setting: `Fit ${target.refs.length === 1 ? 'it' : `all ${target.refs.length}`}, then tick`,
        entry: 'confirm',
        unit: null,
        expected: null,
        why: orientation(target.line) ?? 'Either way round.',
        note: target.line.note ?? null,
      };
    case 'check':
      return checkCard(doc, target, windows);
    case 'probe':
      return {
        ...voltsCard(windows[probeObservableId(target.stage.id, target.testPoint.id)] ?? null),
        title: target.testPoint.id,
        rest: 'against ground',
        red: target.testPoint.where,
        black: 'ground post',
        setting: setting(doc, 'dcv', windows[probeObservableId(target.stage.id, target.testPoint.id)]?.middle ?? null),
      };
  }
}

function pieceCard(doc: KitDocument, target: Extract<Target, { kind: 'piece' }>): TargetCard {
  const { expected, line } = target;
  const low = expected.nominal * (1 + expected.tolerance[0]);
  const high = expected.nominal * (1 + expected.tolerance[1]);
  const leads = offsetOf(meterOf(doc), expected.mode);
  return {
    title: target.ref ?? `spare ${target.piece + 1}`,
    rest: `from the ${line.label} line`,
    setting: `${setting(doc, expected.mode, expected.nominal)}, out of circuit`,
    red: pinHint(line)?.red ?? null,
    black: pinHint(line)?.black ?? null,
    entry: 'reading',
    unit: expected.unit,
    expected: { low: low + leads, high: high + leads, middle: expected.nominal + leads, over: false, from: expected.from },
    why: '',
    note: line.note ?? null,
  };
}

function checkCard(doc: KitDocument, target: Extract<Target, { kind: 'check' }>, windows: Windows): TargetCard {
  const { check, stage } = target;
  if (check.what === 'observe') {
    return {
      ...NOTHING,
      title: check.title,
      rest: target.channel ?? '',
      setting: check.action,
      entry: 'confirm',
      unit: null,
      expected: null,
      why: check.expect,
      note: check.note ?? null,
    };
  }
  const id = checkObservableId(stage.id, check.id);
  const window = windowFor(check, windows[id] ?? null);
  const unit = MODE_UNIT[check.mode]!;
  const from = window?.source === 'typed' ? 'from the instructions' : 'computed for a healthy board';
  return {
    title: 'testPoint' in check.red ? check.red.testPoint : check.title,
    rest: 'testPoint' in check.red ? check.title : '',
    setting: setting(doc, check.mode, window?.middle ?? null),
    red: check.mode === 'dca' ? null : where(doc, check.red),
    black: check.mode === 'dca' ? null : where(doc, check.black),
    entry: 'reading',
    unit,
    expected: window && { low: window.low, high: window.high, middle: window.middle, over: window.over, from },
    why: window ? '' : id in windows ? 'No window can be computed here: the circuit does not reach this point.' : 'Computing the window…',
    note: check.note ?? (window?.conflict ? 'The instructions and the circuit disagree here. Trust neither before you have looked.' : null),
  };
}

function voltsCard(window: Windows[string]): Omit<TargetCard, 'title' | 'rest' | 'setting' | 'red' | 'black'> {
  return {
    entry: 'reading',
    unit: 'V',
    expected: window && { low: window.low, high: window.high, middle: window.middle, over: window.over, from: 'on a healthy board' },
    why: window ? '' : 'No window for this point.',
    note: null,
  };
}

function setting(doc: KitDocument, mode: string, middle: number | null): string {
  const range = middle === null ? null : rangeFor(meterOf(doc), mode as 'dcv', middle);
  const unit = MODE_UNIT[mode] ?? null;
  if (mode === 'dca') return 'Read the current on the supply’s display';
  return `Meter on ${MODE_WORDS[mode] ?? mode}${range && mode !== 'hfe' && mode !== 'diode' ? `, ${printNominal(range.upTo, unit)} range` : ''}`;
}

function where(doc: KitDocument, point: ProbePoint): string {
  if ('testPoint' in point) {
    const found = doc.sheet.testPoints.find((t) => t.id === point.testPoint);
    return found ? `${found.id}, ${found.where}` : point.testPoint;
  }
  if ('net' in point) return point.net === '0' ? 'ground post' : `net ${point.net}`;
  return `${point.ref}, pin ${point.pin}`;
}

/** Where red and black go on a loose part (common practice, no source). */
function pinHint(line: Line): { red: string; black: string } | null {
  switch (line.kind) {
    case 'diode':
    case 'zener':
      return { red: 'end without the stripe', black: 'striped end' };
    case 'led':
      return { red: 'long leg', black: 'short leg, flat side' };
    case 'electrolytic':
      return { red: 'long leg', black: 'leg at the stripe' };
    case 'trimmer':
      return { red: 'one outer leg', black: 'other outer leg' };
    case 'relay':
      return { red: 'coil pin', black: 'other coil pin' };
    default:
      return null;
  }
}

/** Which way round a part goes in; exceptions are the data sheet's (common practice, no source). */
function orientation(line: Line): string | null {
  switch (line.kind) {
    case 'diode':
    case 'zener':
      return 'Stripe to the stripe on the board.';
    case 'led':
      return 'Flat side (short leg) to the flat on the print.';
    case 'electrolytic':
      return 'Long leg to plus; the stripe is minus.';
    case 'npn':
    case 'pnp':
      return 'Flat side as printed. Pin order differs between types: look at its data sheet.';
    case 'opamp':
    case 'ic':
      return 'Notch or dot at the pin 1 end. Supply off.';
    default:
      return null;
  }
}

/** `9.50 – 10.5 kΩ`, or that over-range is right. */
export function expectationText(card: TargetCard): string {
  if (!card.expected) return '';
  return card.expected.over ? 'over-range (OL)' : printWindow(card.expected.low, card.expected.high, card.unit);
}
