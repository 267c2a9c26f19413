import { type Part, type Semiconductor, VT } from '../circuit';
import { type BoxFunction, type Chip, type LogicBoard, type LogicCheck, type Level, netsOfBoard, type Outputs, type SeenItem, type Step } from './board';
import { type Card, CARDS, type ChipState, type Drive, type Readings, WEAK_HIGH } from './cards';
import type { LogicFault } from './fault';
import { type Branch, type Contact, Network, type Slot, type Solved } from './network';

/** What one item of a check shows: amperes of a lamp, of a digit's segments a to g, of a buzzer; a rate; volts. */
export type Shown =
  | { readonly what: 'look' | 'sound'; readonly amperes: number }
  | { readonly what: 'digit'; readonly amperes: readonly number[] }
  | { readonly what: 'blink'; readonly rate: BlinkRate }
  | { readonly what: 'volts'; readonly volts: number };
export type BlinkRate = 'no' | 'slow' | 'normal' | 'fast';

const CLOSED = 0.05;
const FLOATING = 1e8;
const METER = 1e7;
const MOST_ROUNDS = 30;
/** A reversed supply of a chip is clamped by its protection, volts. */
const TURNED_CLAMP = 1.4;
const REG5 = { volts: 5, dropout: 6.5, in: '1', gnd: '2', out: '3' } as const;
/** A stuck-high open output has nothing that lifts it but leakage. */
const STUCK_OPEN: Branch = { ohms: 1e9, volts: 5 };
/** A lamp blinks when its current crosses this, amperes. */
const BLINK_AMPERES = 3e-4;

/** Settings of a pin's slot. */
const OFF = 0;
const HIGH = 1;
const LOW = 2;
const INPUT = 3;
const WEAK = 4;
const SETTING: Readonly<Record<Drive, number>> = { high: HIGH, low: LOW, z: OFF, weak: WEAK };

/** One chip on the board as the fault has it. */
interface Placed {
  readonly chip: Chip;
  readonly card: Card | null;
  readonly works: boolean;
  readonly blank: boolean;
  readonly clocked: boolean;
  readonly rate: number;
  readonly inputs: readonly InputPin[];
  readonly outputs: readonly OutputPin[];
  readonly low: number;
  readonly high: number;
}
interface InputPin {
  /** Name of a card's pin, number of a black box's. */
  readonly name: string;
  readonly net: string | null;
  readonly slot: number;
  /** What an input without net reads. */
  readonly alone: 0 | 1;
}
interface OutputPin {
  readonly name: string;
  readonly slot: number;
  readonly stuck: number | null;
  readonly both: boolean;
}
interface ChipNow {
  readings: Readings | null;
  state: ChipState;
  vars: Readonly<Record<string, number>>;
  scanned: Readings | null;
  running: boolean;
  drives: Readonly<Record<string, Drive>>;
}

/** The board with one fault, on benches whose open inputs read low or high. */
export class Bench {
  private readonly network: Network;
  private readonly chips: readonly Placed[];
  private now: ChipNow[];
  private readonly contactOf = new Map<string, number>();
  private readonly strapOf = new Map<string, { readonly a: number; readonly b: number }>();
  private readonly said = new Map<string, 'a' | 'b'>();
  private readonly lamps = new Map<string, Lamp>();
  private phase = false;
  private frame = 0;
  private readonly frames: number;
  private readonly rate: number;
  private readonly hasClockChip: boolean;
  private readonly rootOf: (net: string) => string;
  private readonly begun: Snapshot;

  constructor(
    private readonly board: LogicBoard,
    private readonly fault: LogicFault,
    floatsHigh: boolean,
    solved: Solved,
  ) {
    const is = (kind: LogicFault['kind'], ref: string) => fault.kind === kind && (fault.parts as readonly string[]).includes(ref);
    const openPin = (ref: string, pin: string) => is('open-pin', ref) && (fault.detail as { pin: string }).pin === pin;
    this.rootOf = merged(board, fault);
    const root = this.rootOf;

    // What hangs between the nets.
    const contacts: Contact[] = [];
    const parts: Part[] = [];
    const loose = new Set<string>();
    const own = (ref: string, pin: string, net: string) => {
      if (!openPin(ref, pin)) return root(net);
      const alone = `~${ref}.${pin}`;
      loose.add(alone);
      return alone;
    };
    for (const p of board.circuit.parts) {
      const owner = board.parts.find((x) => (x.kind === 'buzzer' ? x.element : x.ref).toLowerCase() === p.name.toLowerCase());
      if (!owner || p.kind === 'V' || p.kind === 'C') continue;
      if (is('open', owner.ref)) continue;
      const pins = p.kind === 'Q' ? ['C', 'B', 'E'] : [];
      let nodes = p.nodes.map((n, i) => (pins[i] ? own(owner.ref, pins[i], n) : root(n)));
      if (is('reversed', owner.ref)) nodes = [...nodes].reverse();
      if (is('turned', owner.ref)) nodes = [nodes[2]!, nodes[1]!, nodes[0]!];
      const part: Part = { ...p, nodes };
      parts.push(p.kind === 'R' && is('wrong-value', owner.ref) ? { ...p, nodes, value: (fault.detail as { value: number }).value } : part);
      if (owner.kind === 'led') this.lamps.set(owner.ref, lampOf(part as Semiconductor));
      if (owner.kind === 'buzzer' && part.kind === 'R') this.lamps.set(owner.ref, { nets: [nodes[0]!, nodes[1]!], ohms: part.value, is: 0, nvt: 1 });
    }
    for (const p of board.parts) {
      if (p.kind === 'key' && !is('open', p.ref)) {
        this.contactOf.set(p.ref, contacts.length);
        contacts.push({ nets: [root(p.pins[0]), root(p.pins[1])], ohms: CLOSED });
      } else if (p.kind === 'strap' && !is('open', p.ref)) {
        this.strapOf.set(p.ref, { a: contacts.length, b: contacts.length + 1 });
        contacts.push({ nets: [root(p.common), root(p.a)], ohms: CLOSED }, { nets: [root(p.common), root(p.b)], ohms: CLOSED });
      } else if (p.kind === 'display' && !is('open', p.ref)) {
        const model =
          board.circuit.parts.find((x): x is Semiconductor => x.kind === 'D' && x.model.name.toLowerCase() === p.model.toLowerCase())?.model ??
          modelOf(board, p.model);
        const common = own(p.ref, 'com', p.pins['com']!);
        for (const s of SEGMENT_NAMES) {
          if (p.pins[s] === undefined) continue;
          const net = own(p.ref, s, p.pins[s]);
          const nodes = p.common === 'cathode' ? [net, common] : [common, net];
          const led: Semiconductor = { kind: 'D', name: `${p.ref}.${s}`, nodes, model, scale: 1, multiple: 1 };
          parts.push(led);
          this.lamps.set(`${p.ref}.${s}`, lampOf(led));
        }
      }
      if (p.kind === 'strap') this.said.set(p.ref, p.set);
    }

    const nets = new Set([...[...netsOfBoard(board)].map(root), ...loose]);
    const positions = placed(board, fault);
    const fixed = this.fixedNets(parts, contacts, nets, positions, solved);

    const slots: Slot[] = [];
    const slotFor = (net: string | null, settings: readonly (Branch | null)[]) => {
      if (net === null) return -1;
      slots.push({ net, settings });
      return slots.length - 1;
    };
    this.chips = positions
      .filter(({ chip }) => chip.card !== 'REG5')
      .map(({ chip, pins }) => placeChip(chip, pins, { fault, board, root, fixed, floatsHigh, slotFor, openPin, is }));
    this.network = new Network(parts, fixed, slots, contacts, nets, solved);
    const clock = this.chips.find((c) => c.chip.card === 'OSC8');
    this.hasClockChip = clock !== undefined;
    this.rate = clock?.rate ?? 1;
    this.frames = Math.max(1, ...board.chips.flatMap((c) => (c.functions ?? []).map((f) => (f.then && isFrames(f.then) ? f.then.frames.length : 1))));
    this.now = this.chips.map(() => fresh());
    this.powerOn();
    this.begun = this.snapshot();
  }

  /** Nets whose voltage is given: ground, the supply, a working regulator's output; a turned chip holds its supply low. */
  private fixedNets(
    parts: readonly Part[],
    contacts: readonly Contact[],
    nets: ReadonlySet<string>,
    positions: readonly Position[],
    solved: Solved,
  ): Map<string, number> {
    const { board, fault } = this;
    const root = this.rootOf;
    const fixed = new Map<string, number>([[root('0'), 0]]);
    for (const p of board.circuit.parts) if (p.kind === 'V' && !fixed.has(root(p.nodes[0]!))) fixed.set(root(p.nodes[0]!), p.dc);
    for (const { chip, pins } of positions) {
      if (chip.card !== 'REG5' || (fault.kind === 'dead' && fault.parts[0] === chip.ref)) continue;
      const net = (pin: string) =>
        pins[pin] === undefined || (fault.kind === 'open-pin' && fault.parts[0] === chip.ref && fault.detail.pin === pin) ? null : root(pins[pin]);
      const [input, ground, out] = [net(REG5.in), net(REG5.gnd), net(REG5.out)];
      if (input === null || ground === null || out === null || !fixed.has(ground) || fixed.has(out)) continue;
      const bare = new Network(parts, fixed, [], contacts, nets, solved);
      for (const [ref, strap] of this.strapOf) {
        const to = this.strapNow(ref);
        bare.close(strap.a, to === 'a');
        bare.close(strap.b, to === 'b');
      }
      if (bare.volts(input) - fixed.get(ground)! >= REG5.dropout) fixed.set(out, fixed.get(ground)! + REG5.volts);
    }
    if (fault.kind === 'turned') {
      const held = positions.find((p) => p.chip.ref === fault.parts[0]);
      const supply = held ? supplyPins(held.chip) : null;
      if (held && supply?.vdd && Math.abs(Number(supply.vdd) - Number(supply.gnd)) === pinCount(held.chip) / 2) {
        const [vdd, gnd] = [held.pins[supply.vdd], held.pins[supply.gnd]];
        if (vdd !== undefined && gnd !== undefined && root(gnd) === root('0') && (fixed.get(root(vdd)) ?? 0) > TURNED_CLAMP) fixed.set(root(vdd), TURNED_CLAMP);
      }
    }
    return fixed;
  }

  private strapNow(ref: string): 'a' | 'b' {
    const said = this.said.get(ref)!;
    const wrong = this.fault.kind === 'strap' && this.fault.parts[0] === ref;
    return wrong ? (said === 'a' ? 'b' : 'a') : said;
  }

  private applyStraps(): void {
    for (const [ref, strap] of this.strapOf) {
      const to = this.strapNow(ref);
      this.network.close(strap.a, to === 'a');
      this.network.close(strap.b, to === 'b');
    }
  }

  private powerOn(): void {
    this.applyStraps();
    for (const c of this.chips) this.put(c, {});
    this.settle(true);
    for (const n of this.now) {
      n.readings = null;
      n.scanned = null;
      n.running = false;
    }
    this.settle(false);
  }

  /** Everything as it was after power-on. */
  private restart(): void {
    this.phase = false;
    this.frame = 0;
    this.restore(this.begun);
  }

  private restore(to: Snapshot): void {
    for (const [ref, set] of to.said) this.said.set(ref, set);
    this.now = to.now.map((n) => ({ ...n }));
    to.settings.forEach((s, i) => this.network.set(i, s));
    to.closed.forEach((c, i) => this.network.close(i, c === 1));
  }

  private snapshot(): Snapshot {
    return { said: [...this.said], now: this.now.map((n) => ({ ...n })), settings: this.network.settings.slice(), closed: this.network.closed.slice() };
  }

  /** Rounds of solve, read, state, drive until nothing changes. `held`: every chip's state is kept at its start. */
  private settle(held: boolean): void {
    for (let round = 0; round < MOST_ROUNDS; round++) {
      const read = this.chips.map((c, i) => (c.works ? this.read(c, this.now[i]!.readings) : null));
      const scans = this.chips.map((c, i) => (c.works && c.chip.scan && this.isRunning(c, read[i]!) ? this.scan(c) : null));
      const after = this.chips.map((c, i) => (c.works ? this.step(c, this.now[i]!, read[i]!, scans[i] ?? null, held) : this.now[i]!));
      const changed = after.some((n, i) => !sameNow(this.now[i]!, n));
      this.now = after;
      this.chips.forEach((c, i) => {
        if (c.works) this.put(c, this.now[i]!.drives);
      });
      if (!changed) return;
    }
  }

  private read(c: Placed, before: Readings | null): Readings {
    const now: Record<string, 0 | 1> = {};
    for (const pin of c.inputs) {
      if (pin.net === null) {
        now[pin.name] = pin.alone;
        continue;
      }
      const volts = this.network.volts(pin.net);
      now[pin.name] = volts <= c.low ? 0 : volts >= c.high ? 1 : (before?.[pin.name] ?? 0);
    }
    return now;
  }

  private isRunning(c: Placed, read: Readings): boolean {
    const { needs } = c.chip;
    return !c.blank && c.clocked && (needs?.high ?? []).every((p) => read[p] === 1) && (needs?.low ?? []).every((p) => read[p] === 0);
  }

  private step(c: Placed, was: ChipNow, readings: Readings, scanned: Readings | null, held: boolean): ChipNow {
    if (c.card) {
      const state = held ? c.card.start : c.card.next(was.state.length > 0 || c.card.start.length === 0 ? was.state : c.card.start, readings, was.readings);
      const drives =
        c.chip.card === 'OSC8'
          ? { OUT: c.clocked && readings['RST'] === 1 && this.phase ? ('high' as const) : ('low' as const) }
          : c.card.drive(state, readings);
      return { ...was, readings, state, drives };
    }
    const running = this.isRunning(c, readings);
    const start = c.chip.vars ?? {};
    if (!running) return { ...was, readings, scanned: null, running: false, vars: start, drives: {} };
    const functions = c.chip.functions ?? [];
    const vars = was.running ? was.vars : start;
    const edges = was.running && was.readings !== null && !held;
    const next: Record<string, number> = { ...vars };
    if (edges)
      for (const f of functions)
        if (
          f.on &&
          f.do &&
          Object.entries(f.on).every(([pin, edge]) => cameEdge(pin, edge, readings, was.readings!, scanned, was.scanned)) &&
          holds(f, readings, scanned, vars)
        )
          for (const [name, change] of Object.entries(f.do)) next[name] = 'set' in change ? change.set : ((vars[name] ?? 0) + change.add) % change.mod;
    const after = held ? start : next;
    return { readings, scanned, running: true, state: was.state, vars: after, drives: this.boxDrives(c.chip, readings, scanned, after) };
  }

  private boxDrives(chip: Chip, readings: Readings, scanned: Readings | null, vars: Readonly<Record<string, number>>): Readonly<Record<string, Drive>> {
    const levels: Record<string, Level> = {};
    for (const [pin, role] of Object.entries(chip.roles!)) if (role.out) levels[pin] = role.rest ?? 'z';
    for (const f of chip.functions ?? []) {
      if (!f.then || !holds(f, readings, scanned, vars)) continue;
      const then = isFrames(f.then) ? (f.then.frames[this.frame % f.then.frames.length] ?? {}) : f.then;
      Object.assign(levels, then);
    }
    return Object.fromEntries(Object.entries(levels).map(([pin, level]) => [pin, level === 'blink' ? (this.phase ? 'high' : 'low') : level]));
  }

  /** Each drive pin low in turn, the others at z; what the read pins show. */
  private scan(c: Placed): Readings {
    const { drive, read } = c.chip.scan!;
    const outs = c.outputs.filter((o) => drive.includes(o.name));
    const before = outs.map((o) => (o.slot < 0 ? 0 : this.network.settings[o.slot]!));
    const found: Record<string, 0 | 1> = {};
    for (const d of drive) {
      for (const o of outs) if (o.slot >= 0 && o.stuck === null) this.network.set(o.slot, o.name === d ? LOW : o.both ? INPUT : OFF);
      for (const r of read) {
        const pin = c.inputs.find((p) => p.name === r);
        const volts = pin?.net == null ? null : this.network.volts(pin.net);
        found[`${d}/${r}`] = volts === null ? (pin?.alone ?? 0) : volts >= c.high ? 1 : 0;
      }
    }
    outs.forEach((o, i) => {
      if (o.slot >= 0) this.network.set(o.slot, before[i]!);
    });
    return found;
  }

  private put(c: Placed, drives: Readonly<Record<string, Drive>>): void {
    for (const o of c.outputs) {
      if (o.slot < 0) continue;
      if (o.stuck !== null) this.network.set(o.slot, c.works ? o.stuck : OFF);
      else {
        const d = drives[o.name] ?? 'z';
        this.network.set(o.slot, !c.works ? OFF : d === 'z' && o.both && !c.blank ? INPUT : SETTING[d]);
      }
    }
    for (const i of c.inputs) if (i.slot >= 0) this.network.set(i.slot, c.works && !c.blank ? INPUT : OFF);
    if (this.heldLow !== null && this.heldLow >= 0) this.network.set(this.heldLow, LOW);
  }

  /** The single acts that a step stands for: `tap` three times is six. */
  private actsOf(step: Step): Act[] {
    if ('press' in step) return [{ key: step.press, on: true }];
    if ('release' in step) return [{ key: step.release, on: false }];
    if ('tap' in step) return Array.from({ length: 2 * step.tap.times }, (_, i) => ({ key: step.tap.key, on: i % 2 === 0 }));
    if ('ticks' in step) return Array.from({ length: Math.floor(step.ticks * this.rate + 0.5) }, () => 'tick' as const);
    return [step];
  }

  private act(act: Act): void {
    if (act === 'tick') this.tick();
    else if ('key' in act) {
      const contact = this.contactOf.get(act.key);
      if (contact !== undefined) this.network.close(contact, act.on);
      this.settle(false);
    } else if ('strap' in act) {
      for (const [ref, to] of Object.entries(act.strap)) this.said.set(ref, to);
      this.applyStraps();
      this.settle(false);
    } else this.send(act.send);
  }

  /** From power-on through these steps. What checks have in common at their beginning is done once. */
  private through(steps: readonly Step[]): void {
    const acts = steps.flatMap((s) => this.actsOf(s));
    const keys: string[] = [];
    for (const act of acts) keys.push(`${keys.at(-1) ?? ''}/${JSON.stringify(act)}`);
    let done = keys.length;
    while (done > 0 && !this.reached.has(keys[done - 1]!)) done--;
    this.restart();
    if (done > 0) this.restore(this.reached.get(keys[done - 1]!)!);
    for (let i = done; i < acts.length; i++) {
      this.act(acts[i]!);
      if (this.reached.size < MOST_KEPT) this.reached.set(keys[i]!, this.snapshot());
    }
  }
  private readonly reached = new Map<string, Snapshot>();

  private tick(seen?: () => void): void {
    for (const high of [true, false]) {
      this.phase = high;
      this.settle(false);
      seen?.();
    }
  }

  private send({ from, address, byte }: { readonly from: string; readonly address: number; readonly byte: number }): void {
    const at = this.chips.findIndex((c) => c.chip.ref === from);
    const box = this.chips[at];
    const bus = box?.chip.bus;
    if (!box?.works || !bus || !this.now[at]!.running) return;
    const slotOf = (pin: string) => box.outputs.find((o) => o.name === pin)?.slot ?? -1;
    const before = this.snapshot();
    const heard = this.chips.map((): string[] => []);
    const mine: string[] = [];
    for (const low of [null, bus.sda, bus.scl]) {
      this.restore(before);
      this.heldLow = low === null ? null : slotOf(low);
      if (this.heldLow !== null && this.heldLow >= 0) this.network.set(this.heldLow, LOW);
      this.settle(false);
      const own = this.now[at]!.readings!;
      mine.push(`${own[bus.sda] ?? 0}${own[bus.scl] ?? 0}`);
      this.chips.forEach((c, i) => {
        if (c.chip.card === 'PE8' && c.works) heard[i]!.push(`${this.now[i]!.readings!['SDA']!}${this.now[i]!.readings!['SCL']!}`);
      });
      this.heldLow = null;
    }
    this.restore(before);
    if (mine[0] === '11')
      this.chips.forEach((c, i) => {
        const n = this.now[i]!;
        if (c.chip.card !== 'PE8' || !c.works || heard[i]!.join(' ') !== '11 01 10') return;
        const r = n.readings!;
        if (r['A0']! + 2 * r['A1']! + 4 * r['A2']! + 32 === address) this.now[i] = { ...n, state: [byte] };
      });
    this.settle(false);
  }

  /** Slot of a pin that is held low from outside while the board settles. */
  private heldLow: number | null = null;

  /** What a check shows, from power-on. */
  run(check: LogicCheck): Shown[] {
    this.through(check.do);
    const after = this.snapshot();
    const wanted = new Set(
      check.see.flatMap((s) => (s.what === 'look' || s.what === 'sound' ? [s.part!] : s.what === 'digit' ? SEGMENT_NAMES.map((n) => `${s.part!}.${n}`) : [])),
    );
    const currents = this.meanCurrents(wanted);
    const shown = check.see.map((item) => (item.what === 'blink' ? null : this.see(item, currents)));
    this.restore(after);
    return check.see.map((item, i) => shown[i] ?? this.blink(item, after));
  }

  private see(item: SeenItem, currents: ReadonlyMap<string, number>): Shown {
    if (item.what === 'volts') return { what: 'volts', volts: this.network.voltsLoaded(this.rootOf(item.net!), METER) };
    if (item.what === 'digit') return { what: 'digit', amperes: SEGMENT_NAMES.map((s) => currents.get(`${item.part!}.${s}`) ?? 0) };
    return { what: item.what as 'look' | 'sound', amperes: currents.get(item.part!) ?? 0 };
  }

  /** Currents as the eye takes them: means over the frames of whatever is scanned faster than one sees. */
  private meanCurrents(refs: ReadonlySet<string>): Map<string, number> {
    const sums = new Map<string, number>();
    const add = () => {
      for (const ref of refs) {
        const lamp = this.lamps.get(ref);
        if (lamp) sums.set(ref, (sums.get(ref) ?? 0) + this.current(lamp));
      }
    };
    if (this.frames === 1) {
      add();
      return sums;
    }
    const after = this.snapshot();
    for (let f = 0; f < this.frames; f++) {
      this.restore(after);
      this.frame = f;
      this.settle(false);
      add();
    }
    this.frame = 0;
    this.restore(after);
    return new Map([...sums].map(([ref, sum]) => [ref, sum / this.frames]));
  }

  private current({ nets, ohms, is, nvt }: Lamp): number {
    const volts = this.network.volts(nets[0]) - this.network.volts(nets[1]);
    return ohms > 0 ? Math.abs(volts) / ohms : is * Math.expm1(Math.min(volts / nvt, 80));
  }

  private blink(item: SeenItem, after: Snapshot): Shown {
    const lamp = new Set([item.part!]);
    const seen = new Set<boolean>();
    const look = () => {
      seen.add((this.meanCurrents(lamp).get(item.part!) ?? 0) >= BLINK_AMPERES);
    };
    look();
    const ticks = Math.min(20, Math.max(10, Math.floor(10 * this.rate + 0.5)));
    for (let i = 0; i < ticks; i++) this.tick(look);
    this.restore(after);
    if (seen.size < 2) return { what: 'blink', rate: 'no' };
    return { what: 'blink', rate: !this.hasClockChip ? 'normal' : this.rate < 1 / 3 ? 'slow' : this.rate > 3 ? 'fast' : 'normal' };
  }
}

/** One act of a builder at the board. */
type Act = 'tick' | { readonly key: string; readonly on: boolean } | Extract<Step, { strap: unknown } | { send: unknown }>;

interface Snapshot {
  readonly said: readonly (readonly [string, 'a' | 'b'])[];
  readonly now: readonly ChipNow[];
  readonly settings: Uint8Array;
  readonly closed: Uint8Array;
}
/** States kept for checks that begin alike. */
const MOST_KEPT = 500;

const SEGMENT_NAMES = ['a', 'b', 'c', 'd', 'e', 'f', 'g'];

interface Lamp {
  readonly nets: readonly [string, string];
  readonly ohms: number;
  readonly is: number;
  readonly nvt: number;
}
const lampOf = (d: Semiconductor): Lamp => ({
  nets: [d.nodes[0]!, d.nodes[1]!],
  ohms: 0,
  is: d.model.params['IS'] ?? 1e-14,
  nvt: (d.model.params['N'] ?? 1) * VT,
});

function modelOf(board: LogicBoard, name: string): Semiconductor['model'] {
  return { name, kind: 'D', params: board.models.get(name.toLowerCase()) ?? { IS: 1e-18, N: 2 } };
}

const fresh = (): ChipNow => ({ readings: null, state: [], vars: {}, scanned: null, running: false, drives: {} });
type Frames = { readonly frames: readonly Outputs[] };
const isFrames = (then: Outputs | Frames): then is Frames => Array.isArray((then as Frames).frames);

function sameNow(a: ChipNow, b: ChipNow): boolean {
  return (
    a.running === b.running &&
    same(a.readings, b.readings) &&
    same(a.scanned, b.scanned) &&
    same(a.vars, b.vars) &&
    same(a.drives, b.drives) &&
    a.state.length === b.state.length &&
    a.state.every((s, i) => s === b.state[i])
  );
}
function same(a: Readonly<Record<string, unknown>> | null, b: Readonly<Record<string, unknown>> | null): boolean {
  if (a === b) return true;
  if (a === null || b === null) return false;
  for (const k in a) if (a[k] !== b[k]) return false;
  for (const k in b) if (!(k in a)) return false;
  return true;
}

/** Whether all conditions of a function hold. */
function holds(f: BoxFunction, readings: Readings, scanned: Readings | null, vars: Readonly<Record<string, number>>): boolean {
  return Object.entries(f.when ?? {}).every(([name, want]) => {
    if (typeof want === 'number') return (vars[name] ?? 0) === want;
    const got = name.includes('/') ? scanned?.[name] : readings[name];
    return got === (want === 'high' ? 1 : 0);
  });
}

function cameEdge(name: string, edge: 'falls' | 'rises', now: Readings, was: Readings, scanned: Readings | null, wasScanned: Readings | null): boolean {
  const [before, after] = name.includes('/') ? [wasScanned?.[name], scanned?.[name]] : [was[name], now[name]];
  return edge === 'falls' ? before === 1 && after === 0 : before === 0 && after === 1;
}

/** Nets that are one: wires of connectors, bridges. */
function merged(board: LogicBoard, fault: LogicFault): (net: string) => string {
  const parent = new Map<string, string>();
  const root = (net: string): string => {
    let at = net;
    while ((parent.get(at) ?? at) !== at) at = parent.get(at)!;
    return at;
  };
  const join = (a: string, b: string) => {
    const [x, y] = [root(a), root(b)];
    // Ground keeps its name.
    if (x !== y) parent.set(x === '0' ? y : x, x === '0' ? x : y);
  };
  for (const p of board.parts) {
    if (p.kind !== 'connector') continue;
    const mine = (fault.parts as readonly string[]).includes(p.ref);
    if (mine && fault.kind === 'open') continue;
    for (const [pin, [near, far]] of Object.entries(p.wires)) {
      if (mine && fault.kind === 'open-pin' && fault.detail.pin === pin) continue;
      if (mine && fault.kind === 'crossed' && fault.detail.pins.includes(pin)) {
        const other = fault.detail.pins.find((x) => x !== pin)!;
        join(near, p.wires[other]![1]);
      } else join(near, far);
    }
  }
  if (fault.kind === 'bridge') join(...fault.detail.nets);
  return root;
}

interface Position {
  readonly chip: Chip;
  readonly pins: Readonly<Record<string, string>>;
}
/** Which chip sits where: missing ones are none, exchanged ones in each other's sockets. */
function placed(board: LogicBoard, fault: LogicFault): Position[] {
  const [a, b] = fault.kind === 'swapped' ? fault.parts : [null, null];
  return board.chips
    .filter((c) => !(fault.kind === 'open' && fault.parts[0] === c.ref))
    .map((chip) => {
      const socket = chip.ref === a ? b : chip.ref === b ? a : chip.ref;
      return { chip, pins: board.chips.find((c) => c.ref === socket)!.pins };
    });
}

function supplyPins(chip: Chip): { vdd: string | null; gnd: string } {
  if (chip.card === 'box') return { vdd: chip.supply!.vdd, gnd: chip.supply!.gnd };
  const card = CARDS[chip.card]!;
  return { vdd: card.supply === null ? null : String(card.pins.indexOf(card.supply) + 1), gnd: String(card.pins.indexOf(card.ground) + 1) };
}
const pinCount = (chip: Chip) => (chip.card === 'box' ? Number(/\d+/.exec(chip.package ?? '')?.[0] ?? 0) : CARDS[chip.card]!.pins.length);

interface Surroundings {
  readonly fault: LogicFault;
  readonly board: LogicBoard;
  readonly root: (net: string) => string;
  readonly fixed: ReadonlyMap<string, number>;
  readonly floatsHigh: boolean;
  readonly slotFor: (net: string | null, settings: readonly (Branch | null)[]) => number;
  readonly openPin: (ref: string, pin: string) => boolean;
  readonly is: (kind: LogicFault['kind'], ref: string) => boolean;
}

/** A chip as it sits on this board: whether it works, and what each of its pins can do to its net. */
function placeChip(chip: Chip, pins: Readonly<Record<string, string>>, s: Surroundings): Placed {
  const card = chip.card === 'box' ? null : CARDS[chip.card]!;
  const netOf = (pin: string) => (pins[pin] === undefined || s.openPin(chip.ref, pin) ? null : s.root(pins[pin]));
  const supply = supplyPins(chip);
  const volts = (pin: string | null) => (pin === null ? undefined : s.fixed.get(netOf(pin) ?? '~'));
  const ground = volts(supply.gnd);
  const top = card?.supply === null ? ground : volts(supply.vdd);
  const min = card?.min ?? chip.supply!.min;
  const supplied = ground !== undefined && top !== undefined && top - ground >= min;
  const works = supplied && !s.is('dead', chip.ref) && !s.is('turned', chip.ref);
  const [g, v] = [ground ?? 0, top ?? 0];
  const { roh, rol, vol } = card ?? { ...chip.electrical!, vol: 0 };
  const blank = s.is('blank', chip.ref) || (chip.card === 'box' && chip.programmed === false);
  const drives: readonly (Branch | null)[] = [null, { ohms: roh, volts: v }, { ohms: rol, volts: g + vol }];
  const loadOf = (pull: readonly ['up' | 'down', number] | undefined): Branch =>
    pull
      ? { ohms: pull[1], volts: pull[0] === 'up' ? v : g }
      : { ohms: FLOATING, volts: s.floatsHigh && card?.supply !== null ? v : s.floatsHigh ? topOf(s) : 0 };
  const inputNames = card ? card.inputs : Object.entries(chip.roles!).flatMap(([pin, r]) => (r.in ? [pin] : []));
  const outputNames = card ? card.outputs : Object.entries(chip.roles!).flatMap(([pin, r]) => (r.out ? [pin] : []));
  const numberOf = (name: string) => (card ? String(card.pins.indexOf(name) + 1) : name);
  const pullOf = (name: string): readonly ['up' | 'down', number] | undefined =>
    card ? (card.pullDown ? ['down', card.pullDown] : undefined) : chip.roles![name]!.pull;
  const onFixed = (net: string | null) => (net !== null && s.fixed.has(net) ? null : net);
  const outputs = outputNames.map((name): OutputPin => {
    const pin = numberOf(name);
    const stuck = s.fault.kind === 'stuck' && s.fault.parts[0] === chip.ref && s.fault.detail.pin === pin ? s.fault.detail.level : null;
    const open = card?.supply === null;
    const high = open && stuck === 'high' ? STUCK_OPEN : drives[1]!;
    const both = inputNames.includes(name);
    const settings = [null, high, drives[2]!, loadOf(pullOf(name)), { ohms: WEAK_HIGH, volts: v }];
    return { name, slot: s.slotFor(onFixed(netOf(pin)), settings), stuck: stuck === null ? null : stuck === 'high' ? HIGH : LOW, both };
  });
  const inputs = inputNames.map((name): InputPin => {
    const net = netOf(numberOf(name));
    const shared = outputNames.includes(name);
    const pull = pullOf(name);
    const alone = pull ? (pull[0] === 'up' ? 1 : 0) : s.floatsHigh ? 1 : 0;
    const load = loadOf(pull);
    return { name, net, slot: shared ? -1 : s.slotFor(onFixed(net), [null, null, null, load]), alone };
  });
  const [vil, vih] = card ? [card.vil, card.vih] : [chip.electrical!.vil, chip.electrical!.vih];
  const span = card?.absolute ? 1 : v - g;
  return {
    chip,
    card,
    works,
    blank,
    clocked: clockRuns(chip, pins, s),
    rate: rateOf(chip, s),
    inputs,
    outputs,
    low: g + vil * span,
    high: g + vih * span,
  };
}

/** The highest fixed voltage of the board: what an open input of a chip without supply pin floats to. */
const topOf = (s: Surroundings) => Math.max(0, ...s.fixed.values());

function clockRuns(chip: Chip, pins: Readonly<Record<string, string>>, s: Surroundings): boolean {
  const clock = chip.clock ?? chip.timing;
  if (!clock) return true;
  if (s.is('no-clock', chip.ref)) return false;
  if (clock.parts.some((ref) => s.is('open', ref))) return false;
  const drawn = clock.pins.map((p) => chip.pins[p]);
  if (clock.pins.some((p, i) => s.openPin(chip.ref, p) || pins[p] !== drawn[i])) return false;
  return !(s.fault.kind === 'bridge' && s.fault.detail.nets.some((n) => drawn.includes(n)));
}

/** Rate of an oscillator against its nominal one, from its resistors. */
function rateOf(chip: Chip, s: Surroundings): number {
  if (!chip.timing) return 1;
  const ohms = (real: boolean) =>
    Object.entries(chip.timing!.weights).reduce((sum, [ref, weight]) => {
      const part = s.board.circuit.parts.find((p) => p.name.toLowerCase() === ref.toLowerCase());
      const value = part?.kind === 'R' ? part.value : 0;
      return sum + weight * (real && s.fault.kind === 'wrong-value' && s.fault.parts[0] === ref ? s.fault.detail.value : value);
    }, 0);
  return ohms(false) / ohms(true);
}
