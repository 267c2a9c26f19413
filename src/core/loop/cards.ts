import { type Check, foundWay, isPowered, type KitState, meterOf, offsetOf, type ProbePoint, type Stage } from '../kit';
import { rangeFor } from '../meter';
import { print, printNominal, printWindow, type Unit } from '../quantity';
import { checkObservableId, factsOf, type LooseKind, LOOSE_FACTS, type MeterMode, MODES, probeObservableId, pinWord, unitOf } from '../vocabulary';
import { computedWindow, type WindowResult } from '../stage';
import { dangerNear } from './nearby';
import { notYet } from './notYet';
import { orientationCard } from './orientation';
import { windowFor, type KnownWindows } from './progress';
import type { Target } from './target';
import { isUnlisted } from './unlisted';
import { lineTitle } from './lineWords';

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
  readonly expected: {
    readonly low: number;
    readonly high: number;
    readonly middle: number | null;
    readonly over: boolean;
    readonly from: string;
    readonly computed: boolean;
  } | null;
  /** Shown under the expectation when there is none. */
  readonly why: string;
  readonly note: string | null;
}

const NOTHING = { red: null, black: null, note: null };

export function cardOf(kit: KitState, target: Target, windows: KnownWindows): TargetCard {
  switch (target.kind) {
    case 'count':
      return {
        ...NOTHING,
        title: lineTitle(target.line),
        rest: target.line.refs.join(' '),
        setting: `Count the ${factsOf(target.line.kind).word}s of this line`,
        entry: 'count',
        unit: null,
        expected: null,
        why: `The list says ${target.line.quantity}.`,
      };
    case 'piece':
      return pieceCard(kit, target);
    case 'loose':
      return {
        ...NOTHING,
        title: `Loose piece ${target.number + 1}`,
        rest: LOOSE_FACTS[target.part].word,
        setting: `${looseSetting(target.part)}, any piece next. Print first, if you can read it.`,
        entry: 'reading',
        unit: unitOf(LOOSE_FACTS[target.part].mode),
        expected: null,
        why: 'Any order, any line: where each piece belongs is worked out from all of them together.',
        note: 'Such as: 9.66k · bn bk og gd 9.66k · 104 98n · bc547 npn 280 · red 1.82',
      };
    case 'fit':
      return {
        ...NOTHING,
        title: target.refs.join(' '),
        rest: lineTitle(target.line),
        setting: `Fit ${target.refs.length === 1 ? 'it' : `all ${target.refs.length}`}, then tick`,
        entry: 'confirm',
        unit: null,
        expected: null,
        why: wayRound(kit, target),
        note: notYet(kit, target.id, windows) ?? target.line.note ?? null,
      };
    case 'inspect':
      return {
        ...NOTHING,
        title: target.item.title,
        rest: '',
        setting: isUnlisted(target.item) ? 'Do it now, then tick' : 'Look with a lens, in good light',
        entry: 'confirm',
        unit: null,
        expected: null,
        why: target.item.good,
        note: `If not: ${target.item.remedy}`,
      };
    case 'prepare':
      return {
        ...NOTHING,
        title: target.stage.title,
        rest: '',
        setting: `${target.open.length > 0 ? `Still open: ${target.open.map((p) => p.text).join('; ')}. ` : ''}Set: ${target.presets.join('; ')}`,
        entry: 'confirm',
        unit: null,
        expected: null,
        why: isPowered(target.stage) ? 'Set all of this with the supply still off. Then switch on, one hand staying at the switch.' : 'Then measure.',
        note: target.stage.cautions?.join(' ') ?? null,
      };
    case 'trace':
      return {
        ...NOTHING,
        title: `${target.pads[0]} – ${target.pads[1]}`,
        rest: target.nets[0] === target.nets[1] ? `both on ${target.nets[0]}` : `${target.nets[0]} and ${target.nets[1]}`,
        setting: 'Continuity, power off and unplugged',
        red: target.pads[0],
        black: target.pads[1],
        entry: 'confirm',
        unit: null,
        expected: null,
        why: target.drawn ? 'It should beep: the drawing joins them.' : 'It should stay silent: nothing joins them.',
      };
    case 'check':
      return checkCard(kit, target, windows);
    case 'probe':
      return {
        ...voltsCard(windows?.[probeObservableId(target.stage.id, target.testPoint.id)]),
        title: target.testPoint.id,
        rest: 'against ground',
        red: target.testPoint.where,
        black: 'ground post',
        setting: setting(kit, 'dcv', computedWindow(windows?.[probeObservableId(target.stage.id, target.testPoint.id)])?.middle ?? null),
      };
  }
}

function pieceCard(kit: KitState, target: Extract<Target, { kind: 'piece' }>): TargetCard {
  const { expected, line } = target;
  const low = expected.nominal * (1 + expected.tolerance[0]);
  const high = expected.nominal * (1 + expected.tolerance[1]);
  const leads = offsetOf(meterOf(kit), expected.mode);
  return {
    title: target.ref ?? `spare ${target.piece + 1}`,
    rest: `from the ${lineTitle(line)} line`,
    setting: `${setting(kit, expected.mode, expected.nominal)}, out of circuit`,
    red: orientationCard(line.kind).probes?.red ?? null,
    black: orientationCard(line.kind).probes?.black ?? null,
    entry: 'reading',
    unit: expected.unit,
    expected: { low: low + leads, high: high + leads, middle: expected.nominal + leads, over: false, from: expected.from, computed: false },
    why: '',
    note: line.note ?? null,
  };
}

/** The rule of the kind; what was found with the tester on this very board comes first. */
function wayRound(kit: KitState, { line, refs }: Extract<Target, { kind: 'fit' }>): string {
  return [...refs.flatMap((r) => foundWay(kit, r) ?? []), orientationCard(line.kind).rule].join(' ');
}

const FROM = {
  typed: 'from the instructions',
  computed: 'computed for a healthy board',
  simulated: 'from simulated healthy boards',
  usual: 'usual for such parts',
} as const;

function checkCard(kit: KitState, target: Extract<Target, { kind: 'check' }>, windows: KnownWindows): TargetCard {
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
      note: noted(settingSteps(stage, check), check.note),
    };
  }
  const id = checkObservableId(stage.id, check.id);
  const result = windows?.[id];
  const window = windowFor(check, computedWindow(result));
  const unit = unitOf(check.mode);
  const from = FROM[window?.source ?? 'computed'];
  return {
    title: 'testPoint' in check.red ? check.red.testPoint : check.title,
    rest: 'testPoint' in check.red ? check.title : '',
    setting: setting(kit, check.mode, window?.middle ?? null),
    red: check.mode === 'dca' ? null : where(kit, check.red),
    black: check.mode === 'dca' ? null : where(kit, check.black),
    entry: 'reading',
    unit,
    expected: window && { low: window.low, high: window.high, middle: window.middle, over: window.over, from, computed: window.source === 'computed' },
    why: window ? '' : result && 'none' in result ? result.none : whyNone(kit, windows),
    note: noted(
      settingSteps(stage, check),
      dangerNear(kit, stage, check, windows),
      check.note ?? (window?.conflict ? 'The instructions and the circuit disagree here. Check both before you trust either.' : null),
    ),
  };
}

const noted = (...said: readonly (string | null | undefined)[]): string | null => said.filter(Boolean).join(' ') || null;

/** What is set and what is put back before a check, against the one before it: a table of jumpers step by step. */
function settingSteps(stage: Stage, check: Check): string | null {
  const before = stage.checks[stage.checks.findIndex((c) => c.id === check.id) - 1]?.settings ?? [];
  const own = check.settings ?? [];
  const set = own.filter((s) => !before.some((b) => b.ref === s.ref && b.value === s.value)).map((s) => s.text);
  const back = before
    .filter((b) => !own.some((s) => s.ref === b.ref))
    .map((b) => stage.settings?.find((s) => s.ref === b.ref)?.text ?? `${b.ref} back as it was`);
  const steps = [...back, ...set];
  return steps.length === 0 ? null : `Set first: ${steps.join('; ')}.`;
}

/** What a check expects, or why that is not known, in one line. */
export function expectedOfCheck(kit: KitState, stage: Stage, check: Check, windows: KnownWindows): string {
  const result = windows?.[checkObservableId(stage.id, check.id)];
  return limitsOfCheck(stage, check, windows) ?? (result && 'none' in result ? result.none : whyNone(kit, windows));
}

/** What a check expects, in one line; null where nothing is known. */
export function limitsOfCheck(stage: Stage, check: Check, windows: KnownWindows): string | null {
  if (check.what === 'observe') return check.expect;
  const window = windowFor(check, computedWindow(windows?.[checkObservableId(stage.id, check.id)]));
  if (!window) return null;
  return windowText(window, unitOf(check.mode), window.source !== 'computed') + (window.conflict ? ' (the circuit says otherwise)' : '');
}

/** Why there is no window. */
function whyNone(kit: KitState, windows: KnownWindows): string {
  if (windows === null) return 'Working out the limits…';
  return kit.sheet.circuit
    ? 'No limits can be computed here. See the circuit’s findings, or type limits.'
    : 'There is no circuit to compute limits from. Compare with the instructions, or add a circuit.';
}

function voltsCard(result: WindowResult | undefined): Omit<TargetCard, 'title' | 'rest' | 'setting' | 'red' | 'black'> {
  const window = computedWindow(result);
  return {
    entry: 'reading',
    unit: 'V',
    expected: window && { low: window.low, high: window.high, middle: window.middle, over: window.over, from: 'on a healthy board', computed: true },
    why: window ? '' : result && 'none' in result ? result.none : 'No limits for this point.',
    note: null,
  };
}

const looseSetting = (part: LooseKind) => MODES[LOOSE_FACTS[part].mode].words.replace(/^./, (c) => c.toUpperCase());

function setting(kit: KitState, mode: MeterMode, middle: number | null): string {
  if (mode === 'dca') return 'Read the current on the supply’s display';
  const range = middle === null ? null : rangeFor(meterOf(kit), mode, middle);
  return `Meter on ${MODES[mode].words}${range && mode !== 'hfe' && mode !== 'diode' ? `, ${printNominal(range.upTo, unitOf(mode))} range` : ''}`;
}

const POLARISED: ReadonlySet<string> = new Set(['electrolytic', 'tantalum']);
/** A leg as it is told apart on the board. Of a drawing nobody knows which end of a capacitor its pin 1 is: there it stays a number. */
function legWord(kit: KitState, ref: string, pin: string): string {
  const kind = kit.sheet.lines.find((l) => l.refs.includes(ref))?.kind;
  if (kind && POLARISED.has(kind) && !kit.sheet.circuit && (pin === '1' || pin === '2')) return pin === '1' ? 'plus' : 'minus';
  const word = pinWord(pin);
  return word === pin && pin.length <= 2 ? `pin ${pin}` : word;
}

function where(kit: KitState, point: ProbePoint): string {
  if ('testPoint' in point) {
    const found = kit.sheet.testPoints.find((t) => t.id === point.testPoint);
    return found ? `${found.id}, ${found.where}` : point.testPoint;
  }
  if ('net' in point) return point.net === '0' ? 'ground post' : `net ${point.net}`;
  return `${point.ref}, ${legWord(kit, point.ref, point.pin)}`;
}

/** `9.50 – 10.5 kΩ`, or that over-range is right. */
export function expectationText(card: TargetCard): string {
  if (!card.expected) return '';
  return windowText(card.expected, card.unit, !card.expected.computed);
}

/** A window in words; a typed one without an upper end is no over-range. */
function windowText({ low, high, over }: { readonly low: number; readonly high: number; readonly over: boolean }, unit: Unit | null, typed: boolean): string {
  if (over && !typed) return 'over-range (OL)';
  if (high === Infinity) return `at least ${print(low, unit, 4)}`;
  if (low === -Infinity) return `at most ${print(high, unit, 4)}`;
  return printWindow(low, high, unit);
}
