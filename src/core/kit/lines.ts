import { ANY_LED, CHIP_KINDS, DIODE_FORWARD, factsOf, ledForward, type PartMode, typeReadings, unitOf } from '../vocabulary';
import type { Unit } from '../quantity';
import type { Line, Ref } from './sheet';
import type { BoardState } from './board';
import type { KitState } from './state';

/** What a good piece of a line reads on the meter: limits in the unit of the mode. */
export interface LineExpectation {
  readonly mode: PartMode;
  readonly unit: Unit;
  readonly nominal: number;
  readonly tolerance: readonly [number, number];
  /** Where the limits come from, in words. */
  readonly from: string;
}

const known = new WeakMap<Line, LineExpectation | null>();

/** What a good piece of a line reads on the meter; null when it is only counted. */
export function expectationOf(line: Line): LineExpectation | null {
  const found = known.get(line);
  if (found !== undefined) return found;
  const expected = expect(line);
  known.set(line, expected);
  return expected;
}

function expect(line: Line): LineExpectation | null {
  const facts = factsOf(line.kind);
  if (!facts.mode) return null;
  if (facts.mode === 'diode') return forwardOf(line);
  if (facts.mode === 'hfe') return gainOf(line);
  if (line.value === null || line.value <= 0) return null;
  return {
    mode: facts.mode,
    unit: unitOf(facts.mode),
    nominal: line.value,
    tolerance: line.tolerance ?? facts.tolerance,
    from: line.tolerance ? 'as listed' : `usual for a ${facts.word}`,
  };
}

/** A semiconductor's type as the list prints it; `type` may be the name of a model in the deck instead. */
export const listedType = (line: Pick<Line, 'label' | 'type'>): string => [line.label, line.type ?? ''].find((t) => typeReadings(t) !== null) ?? line.label;

function forwardOf(line: Line): LineExpectation {
  if (line.kind === 'led') {
    const known = ledForward(line.colour ?? '');
    const both = line.colour?.trim().toLowerCase() === 'green' ? ': old green below 2.4 V, pure green above' : '';
    return byLimits('diode', known?.limits ?? ANY_LED, known ? `usual for ${line.colour!.toLowerCase()}${both}` : 'usual for an LED of any colour');
  }
  const type = line.kind === 'diode' ? typeReadings(listedType(line)) : null;
  if (type?.forward) return byLimits('diode', type.forward.limits, `usual for a ${type.type}`);
  return byLimits('diode', DIODE_FORWARD[line.kind as 'diode' | 'zener'], 'usual forward voltage');
}

/** A meter's socket tests at other currents than the data sheet (common practice, no source). */
const SOCKET = 0.3;

function gainOf(line: Line): LineExpectation {
  if (line.range) return byLimits('hfe', line.range, 'hFE range of the list');
  const type = typeReadings(listedType(line));
  if (type?.gain) {
    const [low, high] = type.gain.limits;
    return byLimits('hfe', [low * (1 - SOCKET), high * (1 + SOCKET)], `a ${type.type} has ${low} to ${high}, a meter’s socket reads up to 30 % off`);
  }
  return byLimits('hfe', [50, 800], 'usual small-signal hFE');
}

function byLimits(mode: 'diode' | 'hfe', [low, high]: readonly [number, number], from: string): LineExpectation {
  const nominal = (low + high) / 2;
  return { mode, unit: unitOf(mode), nominal, tolerance: [low / nominal - 1, high / nominal - 1], from };
}

/** The choice of an option on a board: a strap that was moved, else what was chosen first; undefined while undecided. */
export const choiceOn = (kit: Pick<KitState, 'choices'>, option: string, board: Pick<BoardState, 'straps'>): string | undefined =>
  board.straps.get(option) ?? kit.choices.get(option);

/** Whether a line's parts belong on a board: not those marked "not fitted", nor those of an option that was decided otherwise. */
export function isWanted(line: Line, kit: Pick<KitState, 'choices'>, board: Pick<BoardState, 'straps'>): boolean {
  if (line.notFitted) return false;
  if (line.option === undefined) return true;
  const cut = line.option.indexOf('=');
  const [option, choice] = cut < 0 ? [line.option, 'yes'] : [line.option.slice(0, cut), line.option.slice(cut + 1)];
  const made = choiceOn(kit, option, board);
  return made === undefined || made === choice;
}

/** Refs that a board does not have: their places stay empty. */
export function absentRefs(
  kit: { readonly sheet: { readonly lines: readonly Line[] } } & Pick<KitState, 'choices'>,
  board: Pick<BoardState, 'straps'>,
): Set<Ref> {
  const wanted = new Set(kit.sheet.lines.filter((l) => isWanted(l, kit, board)).flatMap((l) => l.refs));
  return new Set(kit.sheet.lines.flatMap((l) => l.refs).filter((r) => !wanted.has(r)));
}

/** Chips that go into sockets: those of a list that has sockets. Regulators and parts in a transistor's body are soldered in. */
export function socketedChips(lines: readonly Line[]): Ref[] {
  const sockets = lines.filter((l) => l.kind === 'socket').reduce((n, l) => n + Math.max(l.quantity, l.refs.length), 0);
  const chips = lines.filter((l) => !l.notFitted && !/TO-?\d|SOT/i.test(l.package ?? '')).filter((l) => CHIP_KINDS.includes(l.kind));
  return sockets === 0 ? [] : chips.flatMap((l) => l.refs);
}
