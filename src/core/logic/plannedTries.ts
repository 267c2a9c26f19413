import type { BoxFunction, LogicCheck, SeenItem, Step } from './board';
import { GROUND, type MutableChip, pinOf, type Written } from './written';

interface Try {
  readonly act: string;
  readonly steps: readonly Step[];
}

/** Volts cost more than a look (as the contract of such boards has it). */
const VOLTS_COST = 1.5;

/** What is tried on a board, the id of each try being what is done: rest, every key and jumper, every function, one's own, then volts. */
export function plannedTries(w: Written): LogicCheck[] {
  const see: SeenItem[] = [
    ...w.lamps.map((l): SeenItem => ({ what: 'look', part: l.ref })),
    ...w.displays.map((part): SeenItem => ({ what: 'digit', part })),
    ...w.buzzers.map((b): SeenItem => ({ what: 'sound', part: b.ref })),
  ];
  const chips = [...w.chips.values()];
  const tries: Try[] = [
    { act: 'Switch on, touch nothing', steps: [] },
    ...w.keys.map((k) => ({ act: `Press ${k.ref}`, steps: [{ press: k.ref }] })),
    ...w.straps.map((s): Try => {
      const to = s.set === 'a' ? 'b' : 'a';
      return { act: `${s.ref} at ${to.toUpperCase()}`, steps: [{ strap: { [s.ref]: to } }] };
    }),
    ...chips.flatMap((chip) => chip.functions.flatMap((f) => bringAbout(w, chip, f) ?? [])),
    ...w.own,
  ];
  const once = tries.filter((t, i) => tries.findIndex((o) => o.act === t.act || JSON.stringify(o.steps) === JSON.stringify(t.steps)) === i);
  const volts = probesOf(w).map(({ chip, pin, net }): LogicCheck => ({
    id: `Volts at ${chip.ref} pin ${pin}`,
    do: [],
    see: [{ what: 'volts', net }],
    cost: VOLTS_COST,
  }));
  return [...(see.length > 0 ? once.map(({ act, steps }): LogicCheck => ({ id: act, do: steps, see, cost: 1 })) : []), ...volts];
}

/** Lamps that some function makes blink. */
export function mayBlink(w: Written): string[] {
  const nets = new Set(
    [...w.chips.values()].flatMap((chip) =>
      chip.functions.flatMap(({ then = {} }) =>
        Object.entries(then as Readonly<Record<string, unknown>>).flatMap(([pin, level]) => (level === 'blink' ? [chip.pins.get(pin)!] : [])),
      ),
    ),
  );
  return w.lamps.flatMap((l) => (nets.has(l.anode) || nets.has(l.cathode) ? [l.ref] : []));
}

/** Tries that bring a function about which no single key shows: two keys at once, a jumper with a key, a mode. */
function bringAbout(w: Written, chip: MutableChip, f: BoxFunction): Try | null {
  const acts: string[] = [];
  const steps: Step[] = [];
  for (const [pin, level] of Object.entries(f.when ?? {})) {
    if (pin === '$mode') {
      const stepper = chip.functions.find((g) => g.on && g.do && '$mode' in g.do);
      const key = w.keys.find((k) => k.nets.includes(chip.pins.get(Object.keys(stepper?.on ?? {})[0] ?? '') ?? ' '));
      if (key && Number(level) > 0) {
        acts.push(`tap ${key.ref} ${Number(level) === 1 ? 'once' : `${Number(level)} times`}`);
        steps.push({ tap: { key: key.ref, times: Number(level) } });
      }
      continue;
    }
    const net = chip.pins.get(pin)!;
    const strap = w.straps.find((s) => s.common === net);
    const key = w.keys.find((k) => k.nets.includes(net));
    if (strap) {
      const to = (level === 'low') === (strap.a === GROUND) ? 'a' : 'b';
      if (to !== strap.set) {
        acts.push(`${strap.ref} at ${to.toUpperCase()}`);
        steps.push({ strap: { [strap.ref]: to } });
      }
    } else if (key) {
      acts.push(`press ${key.ref}`);
      steps.push({ press: key.ref });
    }
  }
  if (steps.length === 0) return null;
  const act = acts.join(', ');
  return { act: act.charAt(0).toUpperCase() + act.slice(1), steps };
}

/** Where volts tell most: supply pins of every chip, then what lamps hang on. */
function probesOf(w: Written): { chip: MutableChip; pin: string; net: string }[] {
  const chips = [...w.chips.values()];
  const supplies = chips.flatMap((chip) => (chip.vdd === null ? [] : [{ chip, pin: chip.vdd, net: chip.pins.get(chip.vdd)! }]));
  const held = chips.flatMap((chip) => chip.needsHigh.map((pin) => ({ chip, pin, net: chip.pins.get(pin)! })));
  const lamps = w.lamps.flatMap((l) => pinOf(w, l.anode) ?? pinOf(w, l.cathode) ?? []).map(({ chip, pin }) => ({ chip, pin, net: chip.pins.get(pin)! }));
  return [...supplies, ...held, ...lamps].filter((p, i, all) => all.findIndex((q) => q.chip === p.chip && q.pin === p.pin) === i);
}
