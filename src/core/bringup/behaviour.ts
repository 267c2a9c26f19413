import { GROUND, type Part } from '../circuit';
import type { Chip } from './chips';
import { about, C, D, type Draw, E, evenly, G, I, inDecades, LIMIT, Q, R, V } from './parts';

/** What a chip is made of on one board: while it is fed, and cold under a meter. */
export interface Behaviour {
  readonly powered: readonly Part[];
  readonly cold: readonly Part[];
}

/**
 * Chips by behaviour, each board with a make of its own. Ranges of idle current, offset, swing and reference are those of usual
 * makes (common practice, no source; data sheets from memory). `volts`: what feeds it, for the ohms that draw its idle current.
 */
export function behave(chip: Chip, draw: Draw, volts: number): Behaviour {
  const n = (name: string) => `${chip.ref}.${name}`;
  const u = (name: string) => draw(`${chip.ref}:${name}`);
  const pin = (name: string) => chip.pins[name];
  const gnd = pin('gnd') ?? GROUND;
  const feed = pin('vs') ?? pin('in');
  const idle = (range: readonly [number, number], from: string | undefined = feed): Part[] =>
    from === undefined || from === gnd ? [] : [R(n('idle'), from, gnd, volts / inDecades(range, u('idle')))];
  const cold = (...passive: readonly Part[]): Part[] => [...passive, ...underMeter(chip, draw)];
  switch (chip.family) {
    case 'fixed': {
      const [input, output] = [pin('in'), pin('out')];
      if (input === undefined || output === undefined) return { powered: [...idle([1e-3, 2e-2]), ...anything(chip, draw)], cold: cold() };
      const set = (chip.volts ?? 5) * about(0.045, u('reference'));
      return { powered: [...idle([2.3e-3, 9.5e-3], input), ...pass(n, { input, output, back: gnd, set, drop: evenly([1.3, 2.3], u('drop')) })], cold: cold() };
    }
    case 'adjustable': {
      const [input, output, adjust] = [pin('in'), pin('out'), pin('adj')];
      if (input === undefined || output === undefined || adjust === undefined) return { powered: anything(chip, draw), cold: cold() };
      return {
        powered: [
          ...pass(n, { input, output, back: adjust, set: evenly([1.195, 1.305], u('reference')), drop: evenly([1.3, 2.6], u('drop')) }),
          I(n('adj'), input, adjust, evenly([30e-6, 110e-6], u('adj'))),
          // What it needs flows out of its output, wanted or not; it ends where there is nothing left to drop.
          R(n('least'), input, output, Math.max(1, volts) / evenly([0.8e-3, 4.8e-3], u('idle'))),
        ],
        cold: cold(),
      };
    }
    case 'opamp':
      return {
        powered: [...idle([0.25e-3 * unitsOf(chip), 2.5e-3 * unitsOf(chip)]), ...units(chip, (k) => amplifier(chip, k, draw, feed ?? GROUND, gnd))],
        cold: cold(),
      };
    case 'comparator':
      return { powered: [...idle([0.25e-3 * unitsOf(chip), 2.5e-3 * unitsOf(chip)]), ...units(chip, (k) => comparator(chip, k, draw, gnd))], cold: cold() };
    case 'audio': {
      const [out, byp] = [pin('out'), pin('byp')];
      if (out === undefined || feed === undefined) return { powered: [...idle([2e-3, 1e-2]), ...anything(chip, draw)], cold: cold() };
      const half = byp ?? n('half');
      const divider = 15e3 * about(0.3, u('divider'));
      const inputs = ['inn', 'inp'].flatMap((p) => (pin(p) === undefined || pin(p) === gnd ? [] : [R(n(`r${p}`), pin(p)!, gnd, 50e3 * about(0.3, u(p)))]));
      const split = [R(n('ra'), feed, half, divider), R(n('rb'), half, gnd, divider)];
      return {
        powered: [
          ...idle([2.3e-3, 9.5e-3]),
          ...split,
          ...inputs,
          E(n('e'), [n('o'), n('z')], [half, gnd], 1),
          V(n('v'), n('z'), gnd, 0.5 * volts * evenly([-0.065, 0.065], u('half'))),
          R(n('ro'), n('o'), out, 1),
        ],
        cold: cold(...inputs, ...split),
      };
    }
    case 'bridge': {
      const [a, b] = [pin('out1'), pin('out2')];
      if (a === undefined || b === undefined || feed === undefined) return { powered: [...idle([1e-2, 6e-2]), ...anything(chip, draw)], cold: cold() };
      const shift = 0.5 * volts * evenly([-0.055, 0.055], u('half'));
      const one = (name: string, out: string) => [
        E(n(`e${name}`), [n(name), n(`${name}z`)], [feed, gnd], 0.5),
        V(n(`v${name}`), n(`${name}z`), gnd, shift + evenly([-0.045, 0.045], u(`offset${name}`))),
        R(n(`r${name}`), n(name), out, 0.5),
      ];
      const inputs = ['inn', 'inp', 'inn1', 'inp1', 'mode'].flatMap((p) =>
        pin(p) === undefined || pin(p) === gnd ? [] : [R(n(`r${p}`), pin(p)!, gnd, (p === 'mode' ? 300e3 : 30e3) * about(0.4, u(p)))],
      );
      return { powered: [...idle([9e-3, 62e-3]), ...inputs, ...one('a', a), ...one('b', b)], cold: cold(...inputs) };
    }
    case 'timer':
      return { powered: [...idle([1.4e-3, 6e-3]), ...timer(chip, draw, volts)], cold: cold(...timerDivider(chip, draw)) };
    case 'unknown':
      if (chip.inside.length > 0) return { powered: asDrawn(chip, draw), cold: cold() };
      return { powered: [...idle([2e-4, 2e-2]), ...anything(chip, draw)], cold: cold() };
    case 'gates':
      return { powered: [...idle([1e-7, 1e-3]), ...anything(chip, draw)], cold: cold() };
  }
}

/** What the builder's deck says it does, but with the idle current of any make: ohms across its supply are no data of a chip. */
function asDrawn(chip: Chip, draw: Draw): Part[] {
  const ends = new Set([chip.pins['vs'], chip.pins['gnd'] ?? GROUND, GROUND]);
  const by = inDecades([0.4, 2.5], draw(`${chip.ref}:idle`));
  return chip.inside.map((p) => (p.kind === 'R' && p.nodes.every((n) => ends.has(n)) ? { ...p, value: p.value * by } : p));
}

/**
 * Pins of which nobody knows what they do are pulled up and down at random: what hangs on them is then expected anywhere, and no check
 * is made of it.
 */
function anything(chip: Chip, draw: Draw): Part[] {
  const { vs, gnd = GROUND } = chip.pins;
  if (vs === undefined) return [];
  const known = new Set([vs, gnd, GROUND]);
  return chip.order.flatMap((net, i) => {
    const input = chip.does[i]?.startsWith('in') ?? false;
    if (known.has(net) || input) return [];
    return [
      R(`${chip.ref}.up${i}`, vs, net, inDecades(PULLS, draw(`${chip.ref}:up${i}`))),
      R(`${chip.ref}.down${i}`, net, gnd, inDecades(PULLS, draw(`${chip.ref}:down${i}`))),
    ];
  });
}
const PULLS = [100, 1e7] as const;

/**
 * A timer chip: two comparators set and reset a latch, its output pulls up with a follower and down with a switch, and a second switch
 * discharges. All of it between 0 and 1 V at the latch; the trigger wins over the threshold, reset over both (data sheet, from memory).
 */
function timer(chip: Chip, draw: Draw, volts: number): Part[] {
  const n = (name: string) => `${chip.ref}.${name}`;
  const { vs, out, trig, thr, gnd = GROUND } = chip.pins;
  if (vs === undefined || out === undefined || trig === undefined || thr === undefined) return anything(chip, draw);
  const cv = chip.pins['cv'] ?? n('cv');
  const reset = chip.pins['reset'] ?? vs;
  // A comparator between 0 and 1 V: 100 times the difference, limited.
  const compare = (name: string, plus: string, minus: string): Part[] => [
    E(n(`e${name}`), [n(`d${name}`), gnd], [plus, minus], 100),
    R(n(`r${name}`), n(`d${name}`), n(name), 1e4),
    D(n(`h${name}`), n(name), n('one'), LIMIT),
    D(n(`l${name}`), gnd, n(name), LIMIT),
  ];
  return [
    ...timerDivider({ ...chip, pins: { ...chip.pins, cv } }, draw),
    // What every pin has anyway, and what keeps a control pin without its capacitor from chattering.
    C(n('cc'), cv, gnd, 1e-9),
    C(n('co'), out, gnd, 1e-10),
    V(n('v1'), n('one'), gnd, 1),
    E(n('eh'), [n('half'), gnd], [cv, gnd], 0.5),
    ...compare('s', n('half'), trig),
    ...compare('q', thr, cv),
    ...compare('z', n('low'), reset),
    V(n('vz'), n('low'), gnd, 0.7),
    // The latch: set 4, reset by the threshold 2, by the pin 8, against a feedback of 1 that holds.
    C(n('c'), n('x'), gnd, 1e-9),
    G(n('gs'), [gnd, n('x')], [n('s'), gnd], 4e-3),
    G(n('gq'), [n('x'), gnd], [n('q'), gnd], 2e-3),
    G(n('gz'), [n('x'), gnd], [n('z'), gnd], 8e-3),
    V(n('vm'), n('mid'), gnd, 0.5),
    G(n('gf'), [gnd, n('x')], [n('x'), n('mid')], 1e-3),
    D(n('hx'), n('x'), n('one'), LIMIT),
    D(n('lx'), gnd, n('x'), LIMIT),
    // Output: a follower below the supply while set, a switch to ground while not; the same switch at the discharge pin.
    E(n('ei'), [n('i'), gnd], [n('one'), n('x')], 10),
    E(n('eb'), [n('b1'), n('b0')], [n('x'), n('one')], 20 + volts),
    E(n('ev'), [n('b0'), gnd], [vs, gnd], 1),
    R(n('rb'), n('b1'), n('b'), 2e3),
    D(n('lb'), gnd, n('b'), LIMIT),
    V(n('vd'), n('b'), n('bb'), evenly([0.3, 1.6], draw(`${chip.ref}:high`))),
    Q(n('qh'), [vs, n('bb'), n('o')], 'NPN', { BF: 300 }),
    R(n('ro'), n('o'), out, 5),
    R(n('rl'), n('i'), n('bl'), 5e3),
    Q(n('ql'), [n('ol'), n('bl'), gnd], 'NPN', { BF: 100 }),
    R(n('rq'), n('ol'), out, inDecades([2, 25], draw(`${chip.ref}:low`))),
    ...(chip.pins['dis'] === undefined ? [] : [R(n('rd'), n('i'), n('bd'), 5e3), Q(n('qd'), [chip.pins['dis'], n('bd'), gnd], 'NPN', { BF: 100 })]),
  ];
}

const timerDivider = (chip: Chip, draw: Draw): Part[] => {
  const { cv, vs, gnd = GROUND } = chip.pins;
  if (chip.family !== 'timer' || cv === undefined || vs === undefined) return [];
  // Three alike from the supply to ground; a third of the whole hangs above the control pin.
  const whole = inDecades([11e3, 20e3], draw(`${chip.ref}:divider`));
  return [R(`${chip.ref}.ra`, vs, cv, whole / 3), R(`${chip.ref}.rb`, cv, gnd, (2 * whole) / 3)];
};

const unitsOf = (chip: Chip) => Math.max(1, Object.keys(chip.pins).filter((p) => /^out\d$/.test(p)).length);
const units = (chip: Chip, unit: (k: string) => Part[]): Part[] => ['', '1', '2', '3', '4'].flatMap((k) => (chip.pins[`out${k}`] === undefined ? [] : unit(k)));

/**
 * A chip without its supply under a meter: a diode from ground to every pin, and unknown paths through its inside, on some makes hardly
 * any (common practice, no source).
 */
function underMeter(chip: Chip, draw: Draw): Part[] {
  const gnd = chip.pins['gnd'] ?? GROUND;
  const nets = [...new Set(chip.order)].filter((net) => net !== gnd && net !== GROUND);
  const lot = inDecades([1e-15, 3e-12], draw(`${chip.ref}:clamp`));
  const feed = chip.pins['vs'] ?? chip.pins['in'];
  const outputs = new Set(Object.entries(chip.pins).flatMap(([does, net]) => (does.startsWith('out') ? [net] : [])));
  const paths = (net: string) => (net === feed ? PATHS.supply : outputs.has(net) ? PATHS.output : PATHS.input);
  // A regulator's reference and its drive conduct from some junctions on.
  const regulates = chip.family === 'fixed' || chip.family === 'adjustable';
  const inside = (net: string, i: number): Part[] =>
    regulates ? [D(`${chip.ref}.inside${i}`, net, gnd, { IS: inDecades(JUNCTIONS, draw(`${chip.ref}:inside${i}`)), N: 3, RS: 100 })] : [];
  return nets.flatMap((net, i) => [
    ...inside(net, i),
    D(`${chip.ref}.clamp${i}`, gnd, net, { IS: lot, RS: 5 }),
    R(`${chip.ref}.path${i}`, net, gnd, inDecades(paths(net), draw(`${chip.ref}:path${i}`))),
  ]);
}

/** Saturation current of a string of junctions that takes 1.2 to 3 V at a milliampere. */
const JUNCTIONS = [1.6e-20, 2e-10] as const;
/** Ohms through the inside of a chip from a pin to ground, by what the pin does. */
const PATHS = { supply: [3e3, 3e6], output: [2e3, 3e6], input: [3e4, 3e7] } as const;

interface Pass {
  readonly input: string;
  readonly output: string;
  /** What its reference stands on. */
  readonly back: string;
  readonly set: number;
  readonly drop: number;
}

/** A series regulator: its output follows the reference, never above the input less its drop; it only delivers, 1.5 A at most. */
function pass(n: (name: string) => string, { input, output, back, set, drop }: Pass): Part[] {
  return [
    E(n('ea'), [n('ra'), GROUND], [back, GROUND], 1),
    V(n('vr'), n('rr'), n('ra'), set),
    R(n('rr'), n('rr'), n('rb'), 1e3),
    D(n('dc'), n('rb'), n('rc'), LIMIT),
    E(n('ee'), [n('re'), GROUND], [input, GROUND], 1),
    V(n('vd'), n('re'), n('rc'), drop),
    G(n('gx'), [GROUND, n('x')], [n('rb'), output], 20),
    R(n('rx'), n('x'), GROUND, 1e4),
    D(n('dx'), n('x'), n('xl'), LIMIT),
    V(n('vl'), n('xl'), GROUND, 15e3),
    D(n('dn'), GROUND, n('x'), LIMIT),
    G(n('go'), [input, output], [n('x'), GROUND], 1e-4),
  ];
}

/** Volts between the base drive and the output of a follower. */
const FOLLOWER = 0.65;

/** One of several units of a chip: names of its own, its pins, and its input with an offset. */
interface Unit {
  readonly n: (name: string) => string;
  readonly out: string;
  readonly minus: string;
  readonly input: readonly Part[];
}
function unitOf(chip: Chip, k: string, draw: Draw): Unit | null {
  const n = (name: string) => `${chip.ref}.${k}${name}`;
  const [out, plus, minus] = [chip.pins[`out${k}`], chip.pins[`inp${k}`], chip.pins[`inn${k}`]];
  if (out === undefined || plus === undefined || minus === undefined) return null;
  return { n, out, minus, input: [V(n('vo'), n('in'), plus, evenly([-5.5e-3, 5.5e-3], draw(`${chip.ref}:offset${k}`))), R(n('ri'), n('in'), minus, 5e6)] };
}

/** One op-amp: offset, output between its limits, and the supply carries what it delivers. */
function amplifier(chip: Chip, k: string, draw: Draw, vp: string, vn: string): Part[] {
  const unit = unitOf(chip, k, draw);
  if (!unit) return [];
  const { n, out, minus, input } = unit;
  return [
    ...input,
    G(n('g'), [GROUND, n('x')], [n('in'), minus], 1e-3),
    R(n('rx'), n('x'), GROUND, 1e8),
    E(n('eh'), [n('hr'), GROUND], [vp, GROUND], 1),
    V(n('vh'), n('hr'), n('hl'), evenly([0.85, 1.75], draw(`${chip.ref}:upper`)) - FOLLOWER),
    R(n('rh'), n('hl'), n('hd'), 10),
    D(n('dh'), n('x'), n('hd'), LIMIT),
    E(n('el'), [n('lr'), GROUND], [vn, GROUND], 1),
    V(n('vl'), n('ll'), n('lr'), evenly([0.01, 1.45], draw(`${chip.ref}:lower`)) - FOLLOWER),
    R(n('rl'), n('ll'), n('ld'), 10),
    D(n('dl'), n('ld'), n('x'), LIMIT),
    E(n('eb'), [n('b'), GROUND], [n('x'), GROUND], 1),
    Q(n('qh'), [vp, n('b'), n('o')], 'NPN', { BF: 200 }),
    Q(n('ql'), [vn, n('b'), n('o')], 'PNP', { BF: 200 }),
    R(n('ro'), n('o'), out, 50),
  ];
}

/** One comparator whose output can only pull down. */
function comparator(chip: Chip, k: string, draw: Draw, vn: string): Part[] {
  const unit = unitOf(chip, k, draw);
  if (!unit) return [];
  const { n, out, minus, input } = unit;
  return [
    ...input,
    G(n('g'), [vn, n('x')], [minus, n('in')], 1e-2),
    R(n('rx'), n('x'), vn, 1e7),
    D(n('dh'), n('x'), n('h'), LIMIT),
    V(n('vh'), n('h'), vn, 2),
    D(n('dl'), vn, n('x'), LIMIT),
    R(n('rb'), n('x'), n('b'), 2e3),
    Q(n('q'), [n('c'), n('b'), vn], 'NPN', { BF: 100 }),
    R(n('ro'), n('c'), out, inDecades([1, 60], draw(`${chip.ref}:low`))),
  ];
}
