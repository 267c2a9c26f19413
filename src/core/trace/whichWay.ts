import { findPart, GROUND } from '../circuit';
import { type EntryBody, type KitState, type Line, type Ref, wayItem } from '../kit';
import { circuitOf, elementsOf } from '../stage';

/** What nobody printed a mark on: a pair of pads, an LED, a jack, a lead bought in a shop. */
export type Unmarked = 'pads' | 'led' | 'jack' | 'lead';

/** Something without a mark, how it is tried, and what each answer means. */
export interface WhichWay {
  readonly unmarked: Unmarked;
  /** The part it is about; null for what belongs to no place of the list. */
  readonly ref: Ref | null;
  readonly setting: string;
  readonly steps: readonly string[];
  readonly answers: readonly WhichAnswer[];
}

export interface WhichAnswer {
  readonly id: string;
  readonly label: string;
  /** What follows, to be remembered when the part goes in. */
  readonly meaning: string;
  /** Whether it settles the question. */
  readonly settled: boolean;
}

/** Words for the two ends, in the order of a diode's pins in the circuit; what else has a way round has a plus and a minus. */
const ENDS: Partial<Record<Line['kind'], readonly [string, string]>> = {
  led: ['anode (long lead)', 'cathode (short lead, flat side)'],
  diode: ['anode (plain end)', 'cathode (striped end)'],
  zener: ['anode (plain end)', 'cathode (striped end)'],
  electrolytic: ['plus (long lead)', 'minus (stripe)'],
};

/** Parts of two leads that have a way round and a place in the circuit. */
export const unmarkedRefs = (kit: KitState): Ref[] =>
  kit.sheet.lines.filter((l) => ENDS[l.kind] !== undefined).flatMap((l) => l.refs.filter((r) => netsOf(kit, r) !== null));

function netsOf(kit: KitState, ref: Ref): readonly [string, string] | null {
  const circuit = circuitOf(kit.sheet);
  const [element, ...more] = elementsOf(kit.sheet, circuit, ref);
  const part = element === undefined || more.length > 0 ? undefined : findPart(circuit, element);
  const [a, b] = part?.nodes ?? [];
  return a !== undefined && b !== undefined && part!.nodes.length === 2 && a !== b ? [a, b] : null;
}

/** A place that everybody finds and that is on a net; null where there is none but other unmarked parts. */
function knownPlace(kit: KitState, net: string, not: Ref): string | null {
  if (net === GROUND) return 'ground: the minus terminal, a shell, a mounting pad';
  const point = kit.sheet.testPoints.find((t) => t.net === net);
  if (point) return `test point ${point.id}`;
  const circuit = circuitOf(kit.sheet);
  const beside = kit.sheet.lines.flatMap((l) =>
    l.refs.flatMap((ref) => {
      const nodes = ref === not ? [] : elementsOf(kit.sheet, circuit, ref).flatMap((e) => findPart(circuit, e)?.nodes ?? []);
      return nodes.includes(net) ? [{ ref, either: ['resistor', 'capacitor', 'inductor', 'link', 'fuse'].includes(l.kind) }] : [];
    }),
  );
  const named = beside.find((b) => !b.either) ?? beside[0];
  return named ? `the pad of ${named.ref} that is on net ${net}` : null;
}

/** How the two pads of a part on the board are told apart; null where the circuit does not know its nets or nothing known is on them. */
export function whichPad(kit: KitState, ref: Ref): WhichWay | null {
  const line = kit.sheet.lines.find((l) => l.refs.includes(ref));
  const nets = netsOf(kit, ref);
  const ends = line && ENDS[line.kind];
  if (!nets || !ends) return null;
  // Ground is found most easily.
  const order = nets[0] === GROUND ? [0, 1] : [1, 0];
  const found = order.map((i) => ({ i, place: knownPlace(kit, nets[i]!, ref) })).find((f) => f.place !== null);
  if (!found) return null;
  const [there, other] = [ends[found.i]!, ends[1 - found.i]!];
  const is = (pad: string, rest: string) => `${ref}: the ${pad} pad is the ${there}, the ${rest} one the ${other}.`;
  return {
    unmarked: 'pads',
    ref,
    setting: 'Tester on beep, power off, nothing in the place yet',
    steps: [`Hold one probe on ${found.place!}.`, `Touch each pad of ${ref} with the other: the one that beeps is the ${there}.`],
    answers: [
      { id: 'left', label: 'the left or upper pad beeps', meaning: is('left (or upper)', 'right (or lower)'), settled: true },
      { id: 'right', label: 'the right or lower pad beeps', meaning: is('right (or lower)', 'left (or upper)'), settled: true },
      {
        id: 'both',
        label: 'both beep',
        meaning: `${ref}: both pads beep. They are joined: a bridge, or a part that conducts beside it. Look before anything goes in.`,
        settled: false,
      },
      { id: 'none', label: 'neither beeps', meaning: `${ref}: neither pad beeps. A track is open, or the drawing is wrong: trace the board.`, settled: false },
    ],
  };
}

/** Loose things that carry no mark (common practice, no source). */
export const LOOSE_UNMARKED: readonly WhichWay[] = [
  {
    unmarked: 'led',
    ref: null,
    setting: 'Meter on diode test',
    steps: ['Red on one leg, black on the other. If it stays dark, swap the probes.', 'Where it glows, or reads 1.6 to 3.3 V, red is on the anode.'],
    answers: [
      { id: 'long', label: 'it glows with red on the longer leg', meaning: 'This LED follows the rule: the longer leg is the anode.', settled: true },
      {
        id: 'short',
        label: 'it glows with red on the shorter leg',
        meaning: 'This LED is made the other way round (or its legs were cut): the shorter leg is the anode. Mark it.',
        settled: true,
      },
      {
        id: 'none',
        label: 'it stays dark both ways',
        meaning: 'The LED is dead, or blue or white on a meter that gives too few volts: try it with 5 V through 1 k.',
        settled: false,
      },
    ],
  },
  {
    unmarked: 'jack',
    ref: null,
    setting: 'Tester on beep, power off, nothing plugged in',
    steps: ['Put a bare wire on the pin in the middle of the jack, or into the tip of a plug that fits.', 'Touch the pads beneath one after another.'],
    answers: [
      { id: 'back', label: 'the pad at the back beeps', meaning: 'Power jack: the pad at the back is the pin in the middle.', settled: true },
      {
        id: 'side',
        label: 'a pad at the side or front beeps',
        meaning: 'Power jack: a pad at the side is the pin in the middle. The one that opens when a plug goes in is the switch.',
        settled: true,
      },
      {
        id: 'none',
        label: 'none beeps',
        meaning: 'Power jack: no pad leads to the pin in the middle. Try it with the plug in, press firmly; else the jack is broken.',
        settled: false,
      },
    ],
  },
  {
    unmarked: 'lead',
    ref: null,
    setting: 'Meter on DC volts, the lead plugged into its supply, its ends apart',
    steps: ['Red on one end, black on the other. Keep the bare ends from touching.', 'No minus sign: red is on plus.'],
    answers: [
      { id: 'marked', label: 'plus is the marked one (stripe, red, centre)', meaning: 'The lead: the marked wire (or the centre) is plus.', settled: true },
      {
        id: 'plain',
        label: 'plus is the plain one (or the outside)',
        meaning: 'The lead: the plain wire (or the outside) is plus. Many kits want it the other way round: mark it.',
        settled: true,
      },
      { id: 'none', label: 'no volts', meaning: 'The lead: no volts. Look at the supply, then beep each wire through to its end of the plug.', settled: false },
    ],
  },
];

/** The id under which an answer is remembered. */
export const whichItem = (way: WhichWay): string => wayItem(way.ref ?? way.unmarked);

/** The entry that remembers an answer. */
export const whichAnswered = (way: WhichWay, answer: WhichAnswer): EntryBody => ({
  kind: 'inspected',
  item: whichItem(way),
  title: answer.meaning,
  good: answer.settled,
});
