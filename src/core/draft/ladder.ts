import { type Circuit, GROUND, isRunning, ownerOf, readDriven, UnsolvableError } from '../circuit';
import { type Check, type Need, type Owned, type ProbePoint, type Ref, type Sheet, type Stage, type StageSupply, socketedChips } from '../kit';
import { HANDHELD } from '../meter';
import { elementsOf, controlOf } from '../stage';
import { listLadder } from './listLadder';
import { hotEnd, isWinding, netsOfRef, railsOf, refsOf, suppliesOf, voltsOf, voltsOfSource } from './rails';
import { CAUTIONS } from '../power';
import { BUILT_NOTE, builtLooks, functionChecks, type Known, lookStage, measure, observe, slug, soak } from './stageParts';

const ground: ProbePoint = { net: GROUND };

/**
 * Stages from what is known of a kit, in the order nearly everybody uses: look, cold, limited power without chips, chips,
 * adjust, signals, load (common practice, no source). Ids are the same each time, so that edits can be told from proposals.
 */
export function proposeLadder(known: Known, circuit: Circuit | null): Stage[] {
  const stages = circuit && circuit.parts.length > 0 ? circuitLadder(known, circuit) : listLadder(known);
  const kept = stages.filter((s) => s.checks.length > 0 || s.fits.length > 0);
  return known.built ? kept.map((s, i) => (i === 0 ? { ...s, note: BUILT_NOTE, checks: [...builtLooks(), ...s.checks] } : s)) : kept;
}

function circuitLadder(known: Known, circuit: Circuit): Stage[] {
  const { lines, testPoints } = known;
  const all = lines.filter((l) => !l.notFitted).flatMap((l) => l.refs);
  const socketed = known.built ? [] : socketedChips(lines);
  const supplies = suppliesOf(circuit);
  const rails = railsOf(circuit, lines, known);
  const volts = voltsOf(circuit);
  const at = (net: string): ProbePoint => {
    const point = testPoints.find((t) => t.net.toLowerCase() === net.toLowerCase());
    return point ? { testPoint: point.id } : { net };
  };
  const feeds = supplies.map((s): StageSupply => ({
    source: s.name,
    volts: voltsOfSource(s),
    limit: firstLimit(known.owned),
    ...(isWinding(s) ? { feed: 'winding' as const } : {}),
  }));
  const currents = supplies
    .filter((s) => !isWinding(s))
    .map((s) => measure(`current-${slug(s.name)}`, `current of ${s.name}`, { mode: 'dca', red: { net: hotEnd(s) }, black: ground, source: s.name }));
  const volt = (net: string, title: string) => measure(`v-${slug(net)}`, title, { mode: 'dcv', red: at(net), black: ground });
  const railChecks = rails.map((r) => volt(r.net, `rail ${r.net}`));
  const alternating = supplies
    .filter(isWinding)
    .map((s) => measure(`ac-${slug(s.name)}`, `winding ${s.name}`, { mode: 'acv', red: { net: s.nodes[0]! }, black: { net: s.nodes[1]! } }));
  const railNets = new Set(rails.map((r) => r.net.toLowerCase()));
  const socketChecks = socketed.flatMap((ref) =>
    netsOfRef(known, circuit, ref)
      .filter((net) => railNets.has(net.toLowerCase()))
      .map((net) => measure(`socket-${slug(ref)}-${slug(net)}`, `empty socket ${ref}: ${net}`, { mode: 'dcv', red: { net }, black: ground })),
  );
  const ends = new Set(supplies.filter(isWinding).flatMap((s) => s.nodes));
  const rest = testPoints.filter((t) => !railNets.has(t.net.toLowerCase()) && t.net !== GROUND && !ends.has(t.net));
  const midPoints = rest.map((t) => volt(t.net, t.net));
  const running = isRunning(circuit);
  const signals = running ? rest.flatMap((t) => signalChecks(t.id, t.net, circuit)) : [];
  const controls = adjustable(known, circuit);
  const lamps = litLamps(known, circuit);
  const power: Stage = {
    id: 'p-power',
    title: known.built ? 'Supply, from its plug inwards' : socketed.length > 0 ? 'First power, sockets empty' : 'First power, limited',
    kind: 'power',
    note: powerNote(supplies.some(isWinding)),
    fits: [],
    supplies: feeds,
    cautions: [CAUTIONS.power],
    checks: [
      ...currents,
      observe(
        'cool',
        'nothing gets warm',
        'Power on for half a minute, hold the back of a finger near regulators, chips and resistors',
        'Nothing gets hot, no smell, no sound',
      ),
      ...alternating,
      ...railChecks,
      ...(socketed.length > 0 ? socketChecks : [...lamps, ...midPoints]),
    ],
  };
  const chips: Stage[] =
    socketed.length === 0
      ? []
      : [
          {
            id: 'p-chips',
            title: 'Chips in',
            kind: 'power',
            note: 'Power off and reservoirs discharged before the chips go in; notch to notch.',
            fits: socketed,
            supplies: feeds,
            checks: [...currents, ...railChecks.map((c) => ({ ...c })), ...lamps, ...midPoints],
          },
        ];
  const adjust: Stage[] =
    controls.length === 0
      ? []
      : [{ id: 'p-adjust', title: 'Adjust', kind: 'adjust', fits: [], supplies: feeds, checks: controls.flatMap((c) => sweepChecks(c, rest, rails, at)) }];
  const signal: Stage[] = signals.length === 0 ? [] : [{ id: 'p-signals', title: 'Signals', kind: 'run', fits: [], supplies: feeds, checks: signals }];
  const outputs = bridgePairs(known, circuit, volts).map(([a, b, across]) =>
    measure(`across-${slug(across)}`, `across ${across}: bridge-tied, about zero`, { mode: 'dcv', red: at(a), black: at(b) }),
  );
  const load: Stage = {
    id: 'p-load',
    title: 'Under load',
    kind: 'load',
    note: loadNote(known.needs),
    fits: [],
    supplies: feeds,
    cautions: [CAUTIONS.hot],
    checks: [...outputs, ...functionChecks(lines), soak('Let it run with its load')],
  };
  return [
    lookStage(
      lines,
      all.filter((r) => !socketed.includes(r)),
    ),
    coldStage(
      known,
      circuit,
      rails.map((r) => r.net),
      at,
    ),
    power,
    ...chips,
    ...adjust,
    ...signal,
    load,
  ];
}

/** Milliamperes above what a healthy board can draw at first power; a supply that one owns sets the most (common practice, no source). */
const FIRST_LIMIT = 0.1;
function firstLimit(owned: readonly Owned[] = []): number {
  const most = Math.min(...owned.flatMap((o) => o.amperes ?? []));
  return Number.isFinite(most) ? Math.min(FIRST_LIMIT, most) : FIRST_LIMIT;
}

const powerNote = (winding: boolean) =>
  winding
    ? 'From the transformer: a lamp of about its power in series with the primary, fitted by somebody licensed, shows a short before anything burns.'
    : 'From a supply with a current limit, or a weak battery first; never a bank of capacitors or a car battery.';

function loadNote(needs: readonly Need[]): string {
  const load = needs.find((n) => n.kind === 'load');
  return load ? `With its load: ${load.text}.` : 'With whatever it is to drive.';
}

/** Ohms of every rail, both ways round: junctions read differently with the probes swapped. */
function coldStage(known: Known, circuit: Circuit, rails: readonly string[], at: (net: string) => ProbePoint): Stage {
  const windings = suppliesOf(circuit).filter(isWinding);
  const tells = (net: string) => differsReversed(circuit, net);
  return {
    id: 'p-cold',
    title: 'Cold: ohms of the rails',
    kind: 'cold',
    note: 'No power. Capacitors charge through the meter: wait until the reading holds.',
    fits: [],
    supplies: [],
    power: 'unplugged',
    cautions: [CAUTIONS.cold],
    checks: [
      ...rails.flatMap((net) => [
        measure(`r-${slug(net)}`, `${net} to ground`, { mode: 'ohms', red: at(net), black: ground }),
        ...(tells(net) ? [measure(`r-${slug(net)}-back`, `ground to ${net}, probes swapped`, { mode: 'ohms', red: ground, black: at(net) })] : []),
      ]),
      ...windings.map((s) => measure(`r-${slug(s.name)}`, `AC input ${s.name}`, { mode: 'ohms', red: { net: s.nodes[0]! }, black: { net: s.nodes[1]! } })),
      ...tabChecks(known, circuit),
    ],
  };
}

/** Whether ohms of a net read otherwise with the probes swapped, on a usual meter: only then does the second reading tell anything. */
function differsReversed(circuit: Circuit, net: string): boolean {
  const read = (red: string, black: string) => {
    try {
      return readDriven(circuit, { type: 'ohms', red, black, testVoltage: HANDHELD.ohmsVoltage, testResistance: HANDHELD.ohmsSource }, 'unplugged');
    } catch (error) {
      if (!(error instanceof UnsolvableError)) throw error;
      return 'over';
    }
  };
  const [there, back] = [read(net, GROUND), read(GROUND, net)];
  if (there === 'over' || back === 'over') return there !== back;
  return Math.abs(there - back) > DIFFERS * Math.max(there, back);
}
const DIFFERS = 0.1;

/** Tabs of power transistors against ground: the tab of a bipolar one is its collector, of a MOSFET its drain. */
function tabChecks(known: Known, circuit: Circuit): Check[] {
  const cased = known.lines.filter((l) => /TO-?(?:220|126|247)/i.test(l.package ?? '') && ['npn', 'pnp', 'nmos', 'pmos'].includes(l.kind));
  return cased.flatMap((l) =>
    l.refs.flatMap((ref): Check[] => {
      const [tab] = netsOfRef(known, circuit, ref);
      return tab === undefined || tab === GROUND
        ? []
        : [
            measure(`tab-${slug(ref)}`, `tab of ${ref} to ground`, {
              mode: 'ohms',
              red: { ref, pin: '1' },
              black: ground,
              note: 'On a grounded sink its insulation is what this reads.',
            }),
          ];
    }),
  );
}

/** What a running net shows on a meter with the modes for it. */
function signalChecks(id: string, net: string, circuit: Circuit): Check[] {
  const swings = net in circuit.initial;
  return [
    measure(`ac-${slug(id)}`, `AC volts at ${net}`, { mode: 'acv', red: { testPoint: id }, black: ground }),
    ...(swings ? [measure(`hz-${slug(id)}`, `frequency at ${net}`, { mode: 'frequency', red: { testPoint: id }, black: ground })] : []),
  ];
}

/** Controls that the circuit has as two halves of a track, with the nets they touch. */
function adjustable(known: Known, circuit: Circuit): { readonly ref: Ref; readonly nets: readonly string[] }[] {
  return refsOf(known.lines, 'trimmer', 'potentiometer').flatMap((ref) => {
    if (!controlOf(known, circuit, ref)) return [];
    return [{ ref, nets: netsOfRef(known, circuit, ref) }];
  });
}

/** A control at both ends of its way: what it moves must follow. */
function sweepChecks(
  { ref, nets }: { readonly ref: Ref; readonly nets: readonly string[] },
  points: Sheet['testPoints'],
  rails: readonly { readonly net: string }[],
  at: (net: string) => ProbePoint,
): Check[] {
  const seen = [nets[1], nets[0], nets[2]].find((n) => n !== undefined && n !== GROUND) ?? points[0]?.net ?? rails.at(-1)?.net;
  if (seen === undefined) return [];
  const end = (name: string, value: number, words: string) =>
    measure(`${slug(ref)}-${name}`, `${ref} near its ${words} end`, {
      mode: 'dcv',
      red: at(seen),
      black: ground,
      settings: [{ ref, value, text: `${ref} near its ${words} end` }],
    });
  return [
    end('low', 0.1, 'lower'),
    end('high', 0.9, 'upper'),
    observe(`${slug(ref)}-moves`, `${ref} turns`, `Turn ${ref} slowly from end to end and watch the reading`, 'It follows without jumps'),
  ];
}

/** LEDs that should be lit with the deck as it is. */
function litLamps(known: Known, circuit: Circuit): Check[] {
  return refsOf(known.lines, 'led').flatMap((ref): Check[] => {
    if (elementsOf(known, circuit, ref).length === 0) return [];
    return [observe(`led-${slug(ref)}`, `${ref} lit`, `Look at ${ref}`, `${ref} is lit`, { sign: { ref, amperes: LIT } })];
  });
}
/** Amperes from which on an LED is seen to be lit (common practice, no source). */
const LIT = 3e-4;

/** Loads between two outputs of chips: both ends sit at the same volts. */
function bridgePairs(known: Known, circuit: Circuit, volts: Readonly<Record<string, number>>): [string, string, string][] {
  const chips = refsOf(known.lines, 'opamp', 'ic', 'microcontroller');
  const driven = new Set(
    circuit.parts
      .filter(
        (p) =>
          p.name.includes('.') &&
          (p.kind === 'Q' || p.kind === 'R') &&
          chips.some((r) => elementsOf(known, circuit, r).some((e) => ownerOf(p.name).toLowerCase() === e.toLowerCase())),
      )
      .flatMap((p) => p.nodes.filter((_, i) => (p.ports?.[i] ?? -1) >= 0)),
  );
  return circuit.parts.flatMap((p): [string, string, string][] => {
    if (p.kind !== 'R' || p.name.includes('.') || p.value > MOST_LOAD) return [];
    const [a, b] = [p.nodes[0]!, p.nodes[1]!];
    const high = (net: string) => driven.has(net) && (volts[net] ?? 0) > 1;
    return high(a) && high(b) ? [[a, b, p.name]] : [];
  });
}
/** Ohms up to which a part between two outputs is a load. */
const MOST_LOAD = 100;
