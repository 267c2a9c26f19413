import type { Fault, FaultKind } from '../fault';
import type { KitState, LineKind } from '../kit';
import { CHIP_KINDS } from '../vocabulary';

/** Something that a board as a whole is seen to do. */
export interface Symptom {
  readonly id: string;
  readonly title: string;
  /** Causes and their weights: they rank, they do not prove. */
  readonly causes: Readonly<Partial<Record<CauseId, number>>>;
  /** How much likelier it makes faults of these kinds on a board whose circuit is known. */
  readonly faults?: Readonly<Partial<Record<FaultKind, number>>>;
}

interface CauseText {
  readonly title: string;
  readonly look: string;
  /** Kinds of which the kit must have one for this cause to be possible. */
  readonly needs?: readonly LineKind[];
}

const SEMICONDUCTORS: readonly LineKind[] = [
  'diode',
  'zener',
  'led',
  'npn',
  'pnp',
  'nmos',
  'pmos',
  'njf',
  'pjf',
  'electrolytic',
  'tantalum',
  'bridge',
  'regulator',
  ...CHIP_KINDS,
];

/** What can be the matter, with where to look first. */
const CAUSES = {
  supply: { title: 'Supply off, or its polarity', look: 'Measure at the terminals of the supply, then where it enters the board, plus against minus.' },
  fuse: { title: 'Fuse or guard diode', look: 'Volts before and behind it. A guard diode the wrong way round lets nothing through.' },
  'rail-joint': { title: 'Open joint in a rail', look: 'Follow the plus from part to part: where it ends is the joint.' },
  switch: { title: 'Switch or jumper', look: 'Continuity through it in both positions, supply off.' },
  bridge: { title: 'Solder bridge', look: 'A lens between close pads of different nets; fine pitch first.' },
  reversed: { title: 'A part put in backwards', look: 'Every electrolytic, diode and chip against the mark on the board.', needs: SEMICONDUCTORS },
  tab: {
    title: 'A tab or sink touches something',
    look: 'Ohms from tab to ground and to its neighbours, supply off.',
    needs: ['regulator', 'npn', 'pnp', 'nmos', 'pmos', 'ic', 'microcontroller'],
  },
  regulator: {
    title: 'Regulator shorted, or its pin order',
    look: 'Its data sheet against the board: makes differ. Ohms from input to output, supply off.',
    needs: ['regulator'],
  },
  'led-reversed': { title: 'Power lamp reversed', look: 'Its flat side against the board; the diode test lights it, supply off.', needs: ['led'] },
  'led-resistor': { title: 'The lamp’s resistor wrong or open', look: 'Read its bands, measure the volts across it.', needs: ['led'] },
  'led-dead': { title: 'Lamp dead', look: 'Diode test, supply off.', needs: ['led'] },
  hot: { title: 'The hot part itself', look: 'Off at once. Which part is it? Is it the right way round? What does it feed?' },
  'after-hot': { title: 'Something fed by the hot part is shorted', look: 'Ohms from its output to ground, supply off.' },
  overload: { title: 'Output overloaded', look: 'Take the load off and measure again.' },
  'chip-supply': { title: 'A chip’s supply or ground pin open', look: 'Volts on the pin itself, not on the pad, of every chip.', needs: CHIP_KINDS },
  'chip-turned': { title: 'A chip turned, or a pin bent under', look: 'Notch against the board; look along the row of legs.', needs: CHIP_KINDS },
  clock: { title: 'Clock or reset missing', look: 'The reset pin’s level; a crystal’s pins with a counter or at half the supply.', needs: CHIP_KINDS },
  firmware: {
    title: 'Not programmed, or old firmware',
    look: 'Does the maker supply it programmed? A blank chip does nothing, and is healthy.',
    needs: ['ic', 'microcontroller'],
  },
  'chip-dead': { title: 'Chip dead', look: 'Only when its pins are all right: replace it with a known-good one.', needs: CHIP_KINDS },
  'own-joint': { title: 'Its own joint', look: 'Both ends of just this channel, key or lamp, with a lens; solder them again.' },
  'own-part': { title: 'Its own part: wrong value or backwards', look: 'Compare it with the same part beside it.' },
  'chip-pin': { title: 'The chip’s pin for it', look: 'Level on the pin itself while it should work.', needs: CHIP_KINDS },
  exchanged: { title: 'Two parts swapped', look: 'Compare both with the list.' },
  strap: { title: 'A strap or option jumper', look: 'Its position against the instructions.' },
  value: { title: 'A wrong value', look: 'Read the parts that set it again: range, time, threshold. Measure one leg lifted.' },
  tolerance: { title: 'Tolerance or another type of part', look: 'Electrolytics that set a time, other makes of semiconductor.' },
  'control-wired': { title: 'The control wired the wrong way', look: 'Which end of its track goes where?' },
  'dry-joint': { title: 'A dry joint', look: 'Press part after part with something that insulates; solder what answers.' },
  track: { title: 'A cracked track', look: 'Bend the board gently; continuity along the tracks, supply off.' },
  socket: { title: 'A socket’s contact', look: 'Take the chip out, clean its legs, put it in again.', needs: ['socket'] },
  overheating: { title: 'Overheating', look: 'Which part is hot when it stops? Does it work again when cold?' },
  'driver-limit': { title: 'A regulator or driver at its limit', look: 'Its volts in and out at the moment when it stops.' },
  'weak-supply': { title: 'Weak supply', look: 'Its volts while it is loaded; another supply.' },
  reservoir: {
    title: 'Reservoir or a rectifier diode open',
    look: 'AC volts across the reservoir; each diode with the diode test.',
    needs: ['electrolytic', 'diode'],
  },
  ground: { title: 'A ground missing', look: 'Millivolts between the grounds of both ends while it works.' },
  decoupling: { title: 'Decoupling missing', look: 'Is the small capacitor at each chip’s supply there?', needs: CHIP_KINDS },
  'output-stage': { title: 'Output stage destroyed', look: 'Output transistors or the driver with the diode test.' },
  probes: { title: 'Probes swapped', look: 'Red to the point, black to ground, and read again.' },
  'probe-contact': { title: 'Probe on mask or flux', look: 'Press the tip into the solder, and read again.' },
  'wrong-ground': { title: 'The wrong ground', look: 'Black to the minus of the supply.' },
  'meter-mode': { title: 'Meter on AC, or its fuse blown', look: 'Measure a battery with it.' },
} as const satisfies Readonly<Record<string, CauseText>>;
type CauseId = keyof typeof CAUSES;

/** What is seen, and where to look first. Weights are our own, after common practice: they rank, they do not prove. */
export const SYMPTOMS: readonly Symptom[] = [
  { id: 'dead', title: 'Nothing at all, and no current', causes: { supply: 5, fuse: 3, 'rail-joint': 3, switch: 2 }, faults: { 'no-supply': 5, open: 2 } },
  {
    id: 'limit',
    title: 'The supply is in its current limit at once',
    causes: { bridge: 5, reversed: 4, tab: 2, regulator: 1 },
    faults: { bridge: 5, short: 4, 'short-pins': 4, reversed: 4, 'reversed-supply': 3 },
  },
  {
    id: 'lamp-dark',
    title: 'The current is normal, the power lamp stays dark',
    causes: { 'led-reversed': 5, 'led-resistor': 3, 'led-dead': 1 },
    faults: { reversed: 3, open: 2 },
  },
  {
    id: 'low-hot',
    title: 'A rail is low and something gets hot',
    causes: { hot: 4, 'after-hot': 4, overload: 2, regulator: 2 },
    faults: { short: 4, 'short-pins': 4, turned: 3, reversed: 3, bridge: 3 },
  },
  {
    id: 'chip-idle',
    title: 'The rails are right, a chip does nothing',
    causes: { 'chip-supply': 4, 'chip-turned': 4, clock: 3, firmware: 3, 'chip-dead': 2 },
    faults: { 'open-pin': 4, turned: 4, blank: 3, stuck: 2 },
  },
  {
    id: 'one-of-many',
    title: 'One channel, key, lamp or output of many fails',
    causes: { 'own-joint': 5, 'own-part': 4, bridge: 3, 'chip-pin': 2 },
    faults: { open: 3, 'open-pin': 3, bridge: 3, 'wrong-value': 2 },
  },
  {
    id: 'two-alike',
    title: 'All work, but two are swapped or act together',
    causes: { bridge: 5, exchanged: 3, strap: 1 },
    faults: { bridge: 5, swapped: 3, strap: 1.5 },
  },
  {
    id: 'off-range',
    title: 'Range, pitch, brightness or threshold is wrong',
    causes: { value: 6, tolerance: 3, 'control-wired': 2 },
    faults: { 'wrong-value': 4, swapped: 3, strap: 1.5 },
  },
  {
    id: 'pressed',
    title: 'It works when pressed, warmed or moved',
    causes: { 'dry-joint': 6, track: 2, socket: 2 },
    faults: { open: 6, 'open-pin': 6, track: 6 },
  },
  { id: 'stops', title: 'It works, then stops', causes: { overheating: 4, 'driver-limit': 3, 'weak-supply': 3 }, faults: { 'low-supply': 3 } },
  {
    id: 'hums',
    title: 'It hums, ripples or is unstable',
    causes: { reservoir: 4, ground: 3, 'weak-supply': 3, decoupling: 2 },
    faults: { leaky: 3, 'low-supply': 3 },
  },
  {
    id: 'turned-up',
    title: 'It worked until a load or gain was turned up',
    causes: { 'output-stage': 4, 'weak-supply': 4, fuse: 2 },
    faults: { 'low-supply': 4, 'short-pins': 4, stuck: 3 },
  },
  { id: 'wrong-sign', title: 'A reading has the right size and the wrong sign', causes: { probes: 8 } },
  { id: 'zero', title: 'A reading is zero where nothing can be', causes: { 'probe-contact': 5, 'wrong-ground': 3, 'meter-mode': 3 } },
];

export interface RankedCause {
  readonly id: CauseId;
  readonly title: string;
  readonly look: string;
  /** Its share of all that is possible in this kit, 0..1. */
  readonly share: number;
  /** Titles of the symptoms that speak for it. */
  readonly because: readonly string[];
}

/** A symptom that is seen makes causes that it does not name this much less likely; one that is not seen, those that it names. */
const UNNAMED = 0.5;
const NOT_SEEN = 0.5;

/**
 * Where to look first on a board without a circuit. Every answer multiplies: a symptom that is seen by the weight of each cause
 * it names, one that is not seen takes half from them. Causes for which the kit has no part are left out. Empty before a
 * symptom was seen.
 */
export function rankCauses(kit: Pick<KitState, 'sheet' | 'symptoms'>): RankedCause[] {
  const answered = SYMPTOMS.filter((s) => kit.symptoms.has(s.id));
  const seen = answered.filter((s) => kit.symptoms.get(s.id));
  if (seen.length === 0) return [];
  const kinds = new Set(kit.sheet.lines.filter((l) => !l.notFitted).map((l) => l.kind));
  // A kit without a list may hold anything.
  const possible = ({ needs }: CauseText) => needs === undefined || kinds.size === 0 || needs.some((k) => kinds.has(k));
  const named = new Set(seen.flatMap((s) => Object.keys(s.causes)));
  const scored = (Object.entries(CAUSES) as [CauseId, CauseText][])
    .filter(([id, c]) => named.has(id) && possible(c))
    .map(([id, c]) => ({
      id,
      title: c.title,
      look: c.look,
      because: seen.filter((s) => s.causes[id] !== undefined).map((s) => s.title),
      score: answered.reduce((product, s) => {
        const weight = s.causes[id];
        if (kit.symptoms.get(s.id)) return product * (weight ?? UNNAMED);
        return weight === undefined ? product : product * NOT_SEEN;
      }, 1),
    }));
  const total = scored.reduce((sum, c) => sum + c.score, 0);
  return scored.map(({ score, ...c }) => ({ ...c, share: score / total })).sort((a, b) => b.share - a.share);
}

/** A symptom that was asked for and is not seen leaves its faults this likely. */
const WITHOUT = 0.5;

/**
 * How far what the board as a whole does moves the odds of a fault: each symptom that is seen, and of those that are not the one
 * that would speak for it most. A fault shows in one way or another, so that every other absence says the same again.
 */
export function symptomFactors(
  fault: Fault,
  answered: Readonly<Record<string, boolean>>,
): { readonly factor: number; readonly title: string; readonly seen: boolean }[] {
  const named = SYMPTOMS.flatMap(({ id, title, faults }) => {
    const weight = faults?.[fault.kind];
    const seen = answered[id];
    return weight === undefined || seen === undefined ? [] : [{ weight, title, seen }];
  });
  const missed = named.filter((s) => !s.seen).sort((x, y) => y.weight - x.weight);
  return [...named.filter((s) => s.seen), ...missed.slice(0, 1)].map(({ weight, title, seen }) => ({ factor: seen ? weight : WITHOUT, title, seen }));
}
