import type { BoxFunction, Level, LogicCheck, LogicPart, SeenItem, Step } from './board';
import { CARDS } from './cards';
import { cardNamed, chipOf, type Key, type Lamp, type MutableChip, neighboursOf, newChip, ohmsOf, pinsIn, rangeOf, type Strap } from './written';

/** What is wrong or unsure in a sentence; `ask` leaves the sentence standing as it was taken. */
export interface SentenceRemark {
  /** From 1; 0 speaks of the board as a whole. */
  readonly line: number;
  readonly severity: 'error' | 'ask';
  readonly message: string;
}

/** A board written in sentences, as the description that `readBoard` takes. The id of a check is what is done: `Press K3`. */
export interface Sentences {
  readonly description: object;
  readonly remarks: readonly SentenceRemark[];
}

const PLUS = 'vcc';
const GROUND = '0';
/** Inside pull-ups of programmed chips, ohms (common practice, no source). */
const INSIDE_PULL = 40_000;
/** Model cards by colour: volts of common lamps at some milliamperes. */
const LAMPS: Readonly<Record<string, string>> = { red: 'LRED', green: 'LGRN', yellow: 'LYEL', orange: 'LYEL', blue: 'LBLU', white: 'LBLU' };
const MODELS = `.model LRED D(IS=1e-18 N=2)
.model LGRN D(IS=1e-19 N=2.1)
.model LYEL D(IS=5e-19 N=2.05)
.model LBLU D(IS=1e-25 N=2.2)`;
const BUZZER_OHMS = 400;

const RANGE = String.raw`[A-Za-z]{1,4}\d+(?:\s*(?:-|–|\.\.)\s*[A-Za-z]{0,4}\d+)?(?:\s*(?:,|and|&)\s*[A-Za-z]{1,4}\d+(?:\s*(?:-|–|\.\.)\s*[A-Za-z]{0,4}\d+)?)*`;
const rule = (source: string) => new RegExp(`^${source.replaceAll('RANGE', RANGE)}$`, 'i');

/** Reads a board that is written in sentences, one a line. Never throws; what is not understood is a remark with its line. */
export function readSentences(text: string): Sentences {
  return new Reader().read(text);
}

class Reader {
  private readonly remarks: SentenceRemark[] = [];
  private readonly chips = new Map<string, MutableChip>();
  private readonly keys: Key[] = [];
  private readonly lamps: Lamp[] = [];
  private readonly straps: Strap[] = [];
  private readonly parts: LogicPart[] = [{ ref: 'V1', kind: 'supply' }];
  private readonly cards: string[] = [];
  private readonly displays: string[] = [];
  private readonly buzzers: { readonly ref: string; readonly net: string }[] = [];
  private readonly own: { readonly act: string; readonly steps: readonly Step[] }[] = [];
  private readonly refs = new Set<string>();
  private volts = 5;
  private line = 0;
  private nets = 0;

  read(text: string): Sentences {
    const sentences = text.split(/\r?\n/).map((t) => t.replace(/\s*(?:#|\/\/).*$/, '').trim());
    // Functions speak of parts that may be written below them.
    const later: { line: number; sentence: string }[] = [];
    sentences.forEach((sentence, i) => {
      this.line = i + 1;
      if (sentence === '') return;
      if (FUNCTION.test(sentence)) later.push({ line: this.line, sentence });
      else this.wiring(sentence.replace(/[.;]$/, ''));
    });
    for (const { line, sentence } of later) {
      this.line = line;
      this.behaviour(sentence.replace(/[.;]$/, ''));
    }
    this.line = 0;
    this.whole();
    return this.finished();
  }

  private error(message: string): void {
    this.remarks.push({ line: this.line, severity: 'error', message });
  }
  private ask(message: string): void {
    this.remarks.push({ line: this.line, severity: 'ask', message });
  }

  private take(ref: string): boolean {
    if (this.refs.has(ref)) {
      this.error(`${ref} was written before. Each part once.`);
      return false;
    }
    this.refs.add(ref);
    return true;
  }

  /** Wires, parts and chips. */
  private wiring(sentence: string): void {
    const rules: readonly (readonly [RegExp, (m: RegExpExecArray) => void])[] = [
      [/^(?:supply|powered (?:by|from))\s*:?\s*([\d.,]+)\s*V?(?:olts?)?$/i, (m) => void (this.volts = Number(m[1]!.replace(',', '.')))],
      [
        /^(U\d+|IC\d+)\s*(?:is|:)?\s*(?:an?\s+)?programmed(?: chip)?,?\s*(?:dip-?)?(\d+)?(?:\s*pins)?\s*[:,]?\s*(.*)$/i,
        (m) => this.box(m[1]!, m[2] ?? '20', m[3]!),
      ],
      [/^(U\d+|IC\d+)\s*(?:is|:)?\s*(?:an?\s+)?([A-Za-z]*\d+[A-Za-z]*\d*)\s*:\s*(.*)$/i, (m) => this.libraryChip(m[1]!, m[2]!, m[3]!)],
      [rule(String.raw`(RANGE)((?:\s+[\w.,]+)*)\s*:\s*(.+?)\s+to\s+(.+?)(,?\s*pull(?:ed)?[- ]?ups? inside)?`), (m) => this.keysOrLamps(m)],
      [/^(\w+)\s+(?:crystal|resonator)\s*:\s*(\S.*?)\s+to\s+(\S.*)$/i, (m) => this.crystal(m[1]!, m[2]!, m[3]!)],
      [/^(J\w+|JP\w+|S\w+)\s*:\s*(.+?)\s+to\s+(.+?)\s*\(?A\)?\s+or\s+(.+?)\s*\(?B\)?(?:,?\s*(?:set|at|now)(?: at| to)?\s*([AB]))?$/i, (m) => this.strap(m)],
    ];
    const named = /^(\S+?)\s+(display|digit|buzzer)\b(.*)$/i.exec(sentence);
    if (named) {
      this.named(named[1]!, named[2]!.toLowerCase(), named[3]!);
      return;
    }
    const strap = rules[5]![0].exec(sentence);
    if (strap) {
      this.strap(strap);
      return;
    }
    for (const [reads, does] of rules) {
      const m = reads.exec(sentence);
      if (m) {
        does(m);
        return;
      }
    }
    this.error('Not understood. Write one of the sentences beside this field.');
  }

  private newNet(): string {
    return `n${++this.nets}`;
  }

  /** `U1 12`, `U1 pin 12`, `U1.12`, `ground`, `plus`, or the name of a net; ranges where several are meant. */
  private netsAt(text: string, count: number): string[] | null {
    const t = text.trim();
    if (/^(?:ground|gnd|0|minus|0 ?V)$/i.test(t)) return Array<string>(count).fill(GROUND);
    if (/^(?:plus|vcc|vdd|\+|\+?\d+(?:[.,]\d+)? ?V)$/i.test(t)) return Array<string>(count).fill(PLUS);
    const chip = /^(U\d+|IC\d+)(?:\s+pins?\s+|\s+|\.)([\d\s,–-]+)$/i.exec(t);
    if (chip) {
      const pins = rangeOf(chip[2]!.trim().replace(/\s+(?=\d)/g, ','));
      if (pins.length !== count && pins.length !== 1) {
        this.error(`${count} parts and ${pins.length} pins: write as many pins as parts.`);
        return null;
      }
      const of = this.chips.get(chip[1]!.toUpperCase());
      if (!of) {
        this.error(`${chip[1]!} is not written yet. Write the chip above this sentence.`);
        return null;
      }
      return Array.from({ length: count }, (_, i) => this.pinNet(of, pins[pins.length === 1 ? 0 : i]!));
    }
    if (/^[A-Za-z_]\w*$/.test(t)) return Array<string>(count).fill(t.toLowerCase());
    this.error(`“${t}” is no place. Write ground, plus, U1 12, or the name of a net.`);
    return null;
  }

  private pinNet(chip: MutableChip, pin: string): string {
    const known = chip.pins.get(pin);
    if (known !== undefined) return known;
    const most = pinsIn(chip.package);
    if (Number(pin) < 1 || Number(pin) > most) this.error(`${chip.ref} has ${most} pins, not a pin ${pin}.`);
    const net = `${chip.ref.toLowerCase()}p${pin}`;
    chip.pins.set(pin, net);
    return net;
  }

  private box(ref: string, pins: string, rest: string): void {
    if (!this.take(ref.toUpperCase())) return;
    const chip = newChip(ref.toUpperCase(), 'box', `dip${pins}`);
    this.chips.set(chip.ref, chip);
    for (const item of rest.split(/\s*[,;]\s*/).filter(Boolean)) {
      const plus = /^(?:plus|vcc|vdd|supply)\s*(?:pin)?\s*(\d+)$/i.exec(item) ?? /^(\d+)\s*(?:plus|vcc|vdd)$/i.exec(item);
      const ground = /^(?:ground|gnd|minus)\s*(?:pin)?\s*(\d+)$/i.exec(item) ?? /^(\d+)\s*(?:ground|gnd)$/i.exec(item);
      const high = /^(?:reset|needs high)\s*(?:pin)?\s*(\d+)$/i.exec(item);
      const crystal = /^(?:crystal|resonator)\s+(\w+)\s+(?:at|between|on)\s+(?:pins?\s+)?(\d+)\s*(?:and|-|\/|&|\s)\s*(\d+)$/i.exec(item);
      if (plus) chip.pins.set((chip.vdd = plus[1]!), PLUS);
      else if (ground) chip.pins.set((chip.gnd = ground[1]!), GROUND);
      else if (high) {
        chip.needsHigh.push(high[1]!);
        chip.roles.set(high[1]!, { in: true });
        this.pinNet(chip, high[1]!);
      } else if (crystal) {
        const nets = [this.pinNet(chip, crystal[2]!), this.pinNet(chip, crystal[3]!)] as const;
        if (this.take(crystal[1]!.toUpperCase())) this.parts.push({ ref: crystal[1]!.toUpperCase(), kind: 'crystal', pins: nets });
        chip.clock = { pins: [crystal[2]!, crystal[3]!], parts: [crystal[1]!.toUpperCase()] };
      } else this.error(`“${item}” is not understood. Write plus 20, ground 10, reset 1, crystal Y1 at 4 and 5.`);
    }
    if (chip.vdd === null || chip.gnd === null) this.error(`${chip.ref}: say its supply pins: plus 20, ground 10.`);
  }

  private libraryChip(ref: string, type: string, rest: string): void {
    const card = cardNamed(type);
    if (!card) {
      this.error(`${type} has no card here. Known: ${Object.keys(CARDS).join(', ')}. Or write it as a programmed chip with its functions.`);
      return;
    }
    if (!this.take(ref.toUpperCase())) return;
    const of = CARDS[card]!;
    const chip = newChip(ref.toUpperCase(), card, of.package);
    this.chips.set(chip.ref, chip);
    of.pins.forEach((name, i) => {
      if (name === of.supply) chip.pins.set((chip.vdd = String(i + 1)), PLUS);
      if (name === of.ground) chip.pins.set((chip.gnd = String(i + 1)), GROUND);
    });
    for (const item of rest.split(/\s*[,;]\s*/).filter(Boolean)) {
      const m = /^(?:pins?\s+)?([A-Za-z]?\w*)\s*(?:to|=|\s)\s*(.+)$/i.exec(item);
      const pin = m && (/^\d+$/.test(m[1]!) ? m[1]! : String(of.pins.findIndex((p) => p.toLowerCase() === m[1]!.toLowerCase()) + 1));
      const nets = m && pin !== '0' ? this.netsAt(m[2]!, 1) : null;
      if (!m || pin === '0' || pin === null) this.error(`“${item}” is not understood. Write a pin and its net: 14 clk, or CLK clk.`);
      else if (nets) this.join(chip, pin, nets[0]!);
    }
  }

  /** A pin that had a net of its own takes the other one. */
  private join(chip: MutableChip, pin: string, net: string): void {
    chip.pins.set(pin, net);
  }

  /** Keys from pins to ground, lamps with their resistors, resistors by their value. */
  private keysOrLamps(m: RegExpExecArray): void {
    const [, range, words, from, to, inside] = m;
    const refs = rangeOf(range!).map((r) => r.toUpperCase());
    if (/^(?:D|LED)\d/.test(refs[0]!)) this.addLamps(refs, words!, from!, to!);
    else if (/^R\d/.test(refs[0]!)) this.addResistors(refs, words!, from!, to!);
    else if (/^[KS]/.test(refs[0]!)) this.addKeys(refs, from!, to!, inside !== undefined);
    else this.error(`${refs[0]!} is no key, no lamp and no resistor: keys are K or S, lamps D or LED, resistors R.`);
  }

  private addResistors(refs: readonly string[], words: string, from: string, to: string): void {
    const value = words.replace(/\b(?:resistors?|each)\b/gi, '').trim();
    const ohms = ohmsOf(value);
    const [a, b] = [this.netsAt(from, refs.length), this.netsAt(to, refs.length)];
    if (ohms === null) this.error(`Write the value behind the name: ${refs[0]!} 10k: U1 1 to plus`);
    else if (a && b)
      refs.forEach((ref, i) => {
        if (!this.take(ref)) return;
        this.cards.push(`${ref} ${a[i]!} ${b[i]!} ${ohms}`);
        this.parts.push({ ref, kind: 'resistor' });
      });
  }

  private addKeys(refs: readonly string[], from: string, to: string, inside: boolean): void {
    const [a, b] = [this.netsAt(from, refs.length), this.netsAt(to, refs.length)];
    if (!a || !b) return;
    refs.forEach((ref, i) => {
      if (!this.take(ref)) return;
      this.keys.push({ ref, nets: [a[i]!, b[i]!] });
      this.parts.push({ ref, kind: 'key', pins: [a[i]!, b[i]!] });
      const at = this.pinOf(a[i]!);
      if (at?.chip.card === 'box') at.chip.roles.set(at.pin, { in: true, ...(inside && b[i] === GROUND ? { pull: ['up', INSIDE_PULL] as const } : {}) });
    });
  }

  private addLamps(refs: readonly string[], words: string, from: string, to: string): void {
    const through = /^(.*?)\s*(?:through|via|over)\s+(\S.*?)\s+(\d[\w.,]*)\s*(?:ohms?|Ω)?$/i.exec(from);
    const colour = /\b(red|green|yellow|orange|blue|white)\b/i.exec(words)?.[1]?.toLowerCase();
    const [a, b] = [this.netsAt(through ? through[1]! : from, refs.length), this.netsAt(to, refs.length)];
    if (!a || !b) return;
    const resistors = through ? rangeOf(through[2]!).map((r) => r.toUpperCase()) : [];
    const ohms = through ? ohmsOf(through[3]!) : null;
    if (through && (ohms === null || resistors.length !== refs.length)) {
      this.error(`Write as many resistors as lamps, and their value: through R1-R${refs.length} 470`);
      return;
    }
    if (!through) this.ask(`${refs.join(', ')}: no resistor is written. Taken as 470 Ω inside the sentence; write “through R1 470”.`);
    refs.forEach((ref, i) => {
      if (!this.take(ref)) return;
      const anode = this.newNet();
      const resistor = resistors[i] ?? `R${ref}`;
      if (!this.take(resistor)) return;
      this.cards.push(`${resistor} ${a[i]!} ${anode} ${ohms ?? 470}`, `${ref} ${anode} ${b[i]!} ${LAMPS[colour ?? 'red']!}`);
      this.parts.push({ ref: resistor, kind: 'resistor' }, { ref, kind: 'led' });
      this.lamps.push({ ref, anode: a[i]!, cathode: b[i]! });
    });
  }

  private named(ref: string, kind: string, rest: string): void {
    const R = ref.toUpperCase();
    if (kind === 'buzzer') {
      const m = /^\s*:\s*(.+?)\s+to\s+(.+)$/i.exec(rest);
      const [a, b] = m ? [this.netsAt(m[1]!, 1), this.netsAt(m[2]!, 1)] : [null, null];
      if (!m) this.error(`Write its two ends: ${R} buzzer: U1 18 to ground`);
      else if (a && b && this.take(R)) {
        this.cards.push(`R${R} ${a[0]!} ${b[0]!} ${BUZZER_OHMS}`);
        this.parts.push({ ref: R, kind: 'buzzer', element: `R${R}` });
        this.buzzers.push({ ref: R, net: a[0] === PLUS ? b[0]! : a[0]! });
      }
    } else this.display(R, rest);
  }

  private display(ref: string, rest: string): void {
    const m =
      /^\s*,?\s*(?:common\s+(cathode|anode))?\s*:\s*a-g\s+(?:at|to|from)\s+(.+?)\s+through\s+(\S+?)\s+([\d.,]+\w*)\s*(?:ohms?|Ω)?,?\s*common\s+to\s+(.+)$/i.exec(
        rest,
      );
    if (!m) {
      this.error(`Write it so: ${ref} display common cathode: a-g at U2 13 12 11 10 9 15 14 through R1-R7 330, common to ground`);
      return;
    }
    const [pins, common] = [this.netsAt(m[2]!, 7), this.netsAt(m[5]!, 1)];
    const resistors = rangeOf(m[3]!).map((r) => r.toUpperCase());
    const ohms = ohmsOf(m[4]!);
    if (!pins || !common || ohms === null) return;
    if (resistors.length !== 7) {
      this.error('A digit has seven segments: name seven resistors, such as R1-R7.');
      return;
    }
    if (!this.take(ref) || !resistors.every((r) => this.take(r))) return;
    const nets = resistors.map((r, i) => {
      const net = this.newNet();
      this.cards.push(`${r} ${pins[i]!} ${net} ${ohms}`);
      this.parts.push({ ref: r, kind: 'resistor' });
      return net;
    });
    const anode = m[1]?.toLowerCase() === 'anode';
    this.parts.push({
      ref,
      kind: 'display',
      common: anode ? 'anode' : 'cathode',
      model: 'LRED',
      pins: { ...Object.fromEntries(nets.map((n, i) => ['abcdefg'[i]!, n])), com: common[0]! },
    });
    this.displays.push(ref);
  }

  private crystal(ref: string, a: string, b: string): void {
    const [from, to] = [this.netsAt(a, 1), this.netsAt(b, 1)];
    if (!from || !to || !this.take(ref.toUpperCase())) return;
    this.parts.push({ ref: ref.toUpperCase(), kind: 'crystal', pins: [from[0]!, to[0]!] });
    const [x, y] = [this.pinOf(from[0]!), this.pinOf(to[0]!)];
    if (x && y && x.chip === y.chip) x.chip.clock = { pins: [x.pin, y.pin], parts: [ref.toUpperCase()] };
  }

  private strap(m: RegExpExecArray): void {
    const [common, a, b] = [this.netsAt(m[2]!, 1), this.netsAt(m[3]!, 1), this.netsAt(m[4]!, 1)];
    const ref = m[1]!.toUpperCase();
    if (!common || !a || !b || !this.take(ref)) return;
    if (m[5] === undefined) this.ask(`${ref}: which way is it set now? Taken as A; write “, at B” where it is not.`);
    const strap = { ref, common: common[0]!, a: a[0]!, b: b[0]!, set: m[5]?.toUpperCase() === 'B' ? ('b' as const) : ('a' as const) };
    this.straps.push(strap);
    this.parts.push({ ...strap, kind: 'strap' });
    const at = this.pinOf(strap.common);
    if (at?.chip.card === 'box') at.chip.roles.set(at.pin, { in: true });
  }

  private pinOf(net: string): { readonly chip: MutableChip; readonly pin: string } | null {
    if (net === GROUND || net === PLUS) return null;
    for (const chip of this.chips.values()) for (const [pin, n] of chip.pins) if (n === net) return { chip, pin };
    return null;
  }

  /** `K3 pressed: D3 lights`, `K1-K8 pressed: D1-D8 light`, `J1 at B: D6 blinks`, `K4 steps 3 modes`, `mode 1: D5 lights`. */
  private behaviour(sentence: string): void {
    const own = /^try\s*:?\s*(.+)$/i.exec(sentence);
    if (own) {
      this.ownTry(own[1]!);
      return;
    }
    const steps = /^(\w+)\s+steps(?:\s+through)?\s+(\d+)\s+modes$/i.exec(sentence);
    if (steps) {
      const at = this.inputOf(steps[1]!.toUpperCase());
      if (!at) return;
      at.chip.modes = Number(steps[2]);
      at.chip.functions.push({ on: { [at.pin]: at.level === 'low' ? 'falls' : 'rises' }, do: { $mode: { add: 1, mod: Number(steps[2]) } } });
      return;
    }
    const m = FUNCTION.exec(sentence)!;
    const conditions = m[1]!.trim();
    const outcomes = m[2]!.trim();
    const ranged = rule(String.raw`(RANGE)\s+(?:is |are )?(?:pressed|held|down)`).exec(conditions);
    const outs = rule(String.raw`(RANGE)\s+(lights?|lit|is lit|blinks?|sounds?|is dark|off|goes out)`).exec(outcomes);
    const keys = ranged && !/\band\b|,|&/.test(ranged[1]!) ? rangeOf(ranged[1]!) : null;
    const targets = outs ? rangeOf(outs[1]!) : null;
    // One each: as many keys as lamps.
    if (keys && targets && outs && (keys.length > 1 || targets.length === 1)) {
      if (keys.length !== targets.length) this.error(`${keys.length} keys and ${targets.length} lamps: write as many of each, or one sentence for each.`);
      else keys.forEach((k, i) => this.one(`${k} pressed`, `${targets[i]!} ${outs[2]!}`));
      return;
    }
    this.one(conditions, outcomes);
  }

  private one(conditions: string, outcomes: string): void {
    const when: Record<string, 'low' | 'high' | number> = {};
    let chip: MutableChip | null = null;
    const meet = (found: { chip: MutableChip; pin: string } | null, level: 'low' | 'high'): boolean => {
      if (!found) return false;
      chip ??= found.chip;
      when[found.pin] = level;
      return true;
    };
    for (const c of conditions.split(/\s*(?:,|\band\b|&)\s*(?=\w)/).filter(Boolean)) {
      const mode = /^(?:in )?mode (\d+)$/i.exec(c);
      const strap = /^(\w+) (?:is )?at ([AB])$/i.exec(c);
      const key = /^(\w+)(?: (?:is |are )?(?:pressed|held|down))?$/i.exec(c);
      if (/^(?:always|at (?:the )?start|power on)$/i.test(c)) continue;
      if (mode) when['$mode'] = Number(mode[1]);
      else if (strap) {
        const of = this.straps.find((s) => s.ref === strap[1]!.toUpperCase());
        const net = of?.[strap[2]!.toLowerCase() as 'a' | 'b'];
        if (!of || (net !== GROUND && net !== PLUS)) {
          this.error(`${strap[1]!} is no jumper that leads a pin to plus or ground.`);
          return;
        }
        if (!meet(this.pinOf(of.common), net === GROUND ? 'low' : 'high')) {
          this.error(`${of.ref} leads to no pin of a programmed chip.`);
          return;
        }
      } else if (key) {
        const at = this.inputOf(key[1]!.toUpperCase());
        if (!at) return;
        meet(at, at.level);
      } else {
        this.error(`“${c}” is not understood. Write K3 pressed, J1 at B, mode 1, or always.`);
        return;
      }
    }
    const then: Record<string, Level> = {};
    for (const o of outcomes.split(/\s*(?:,|\band\b)\s*(?=[A-Z]+\d)/i).filter(Boolean)) {
      const m = new RegExp(`^(${RANGE})\\s+(lights?|lit|is lit|blinks?|sounds?|is dark|off|goes out)$`, 'i').exec(o);
      if (!m) {
        this.error(`“${o}” is not understood. Write D3 lights, D3 blinks, D3 is dark, or BZ1 sounds.`);
        return;
      }
      for (const ref of rangeOf(m[1]!).map((r) => r.toUpperCase())) {
        const out = this.outputOf(ref);
        if (!out) return;
        chip ??= out.chip;
        if (out.chip !== chip) {
          this.error(`${ref} is driven by ${out.chip.ref}, the rest by ${chip.ref}: write them apart.`);
          return;
        }
        then[out.pin] = /blink/i.test(m[2]!) ? 'blink' : /dark|off|out/i.test(m[2]!) ? out.rest : out.rest === 'low' ? 'high' : 'low';
      }
    }
    if (chip === null) return;
    chip.functions.push({ ...(Object.keys(when).length > 0 ? { when } : {}), then });
  }

  private inputOf(ref: string): { readonly chip: MutableChip; readonly pin: string; readonly level: 'low' | 'high' } | null {
    const key = this.keys.find((k) => k.ref === ref);
    if (!key) return this.nothing(`${ref} is no key of this board. Write it: ${ref}: U1 2 to ground`);
    const [a, b] = key.nets;
    const at = this.pinOf(a) ?? this.pinOf(b);
    if (at?.chip.card !== 'box') return this.nothing(`${ref} leads to no pin of a programmed chip.`);
    return { ...at, level: a === GROUND || b === GROUND ? 'low' : 'high' };
  }

  private outputOf(ref: string): { readonly chip: MutableChip; readonly pin: string; readonly rest: 'low' | 'high' } | null {
    const lamp = this.lamps.find((l) => l.ref === ref);
    const buzzer = this.buzzers.find((b) => b.ref === ref);
    if (!lamp && !buzzer) return this.nothing(`${ref} is no lamp and no buzzer of this board. Write it: ${ref}: U1 12 through R1 470 to ground`);
    const sinks = lamp ? lamp.anode === PLUS : false;
    const at = this.pinOf(lamp ? (sinks ? lamp.cathode : lamp.anode) : buzzer!.net);
    if (at?.chip.card !== 'box') return this.nothing(`${ref} hangs on no pin of a programmed chip.`);
    const rest = sinks ? 'high' : 'low';
    at.chip.roles.set(at.pin, { out: 'push-pull', rest });
    return { ...at, rest };
  }

  private nothing(message: string): null {
    this.error(message);
    return null;
  }

  /** `try press K1 and K2`, `try tap K4 3 times`, `try J1 at B, press K1`, `try wait 4`. */
  private ownTry(text: string): void {
    const steps: Step[] = [];
    for (const part of text.split(/\s*(?:,|;|\bthen\b)\s*/).filter(Boolean)) {
      const press = rule(String.raw`(?:press|hold)\s+(RANGE)`).exec(part);
      const tap = /^tap\s+(\w+)(?:\s+(\d+)(?:\s*(?:x|times))?)?$/i.exec(part);
      const strap = /^(\w+)\s+(?:at|to)\s+([AB])$/i.exec(part);
      const wait = /^wait\s+(\d+)(?:\s*(?:beats?|pulses?|periods?|ticks?))?$/i.exec(part);
      if (press) steps.push(...rangeOf(press[1]!).map((k): Step => ({ press: k.toUpperCase() })));
      else if (tap) steps.push({ tap: { key: tap[1]!.toUpperCase(), times: Number(tap[2] ?? 1) } });
      else if (strap) steps.push({ strap: { [strap[1]!.toUpperCase()]: strap[2]!.toLowerCase() as 'a' | 'b' } });
      else if (wait) steps.push({ ticks: Number(wait[1]) });
      else {
        this.error(`“${part}” is not understood. Write press K1, tap K4 3 times, J1 at B, or wait 4.`);
        return;
      }
    }
    for (const s of steps) {
      const ref = 'press' in s ? s.press : 'tap' in s ? s.tap.key : null;
      if (ref !== null && !this.keys.some((k) => k.ref === ref)) {
        this.error(`${ref} is no key of this board.`);
        return;
      }
      if ('strap' in s && !this.straps.some((j) => j.ref in s.strap)) {
        this.error(`${Object.keys(s.strap).join()} is no jumper of this board.`);
        return;
      }
    }
    this.own.push({ act: text.charAt(0).toUpperCase() + text.slice(1), steps });
  }

  /** What the functions need and the wiring lacks. */
  private whole(): void {
    if (this.chips.size === 0) this.error('No chip is written yet. Begin with: U1 programmed chip, 20 pins: plus 20, ground 10');
    const resistors = this.cards.filter((c) => c.startsWith('R')).map((c) => c.split(' '));
    const pulled = (net: string, to: string) => resistors.some(([, a, b]) => (a === net && b === to) || (b === net && a === to));
    const inside: string[] = [];
    for (const k of this.keys) {
      const [net, rail] = k.nets[0] === GROUND || k.nets[0] === PLUS ? [k.nets[1], k.nets[0]] : k.nets;
      const at = this.pinOf(net);
      const other = rail === GROUND ? PLUS : GROUND;
      if (!at || pulled(net, other) || at.chip.roles.get(at.pin)?.pull) continue;
      if (at.chip.card === 'box' && rail === GROUND) {
        at.chip.roles.set(at.pin, { in: true, pull: ['up', INSIDE_PULL] });
        inside.push(`${k.ref} (${at.chip.ref} pin ${at.pin})`);
      } else
        this.error(`${k.ref}: nothing holds ${at.chip.ref} pin ${at.pin} when it is open. Write a resistor from it to ${other === PLUS ? 'plus' : 'ground'}.`);
    }
    if (inside.length > 0)
      this.ask(`Nothing is written that pulls up ${inside.join(', ')}. Taken as pulled up inside the chip; write a resistor where there is one.`);
    for (const chip of this.chips.values())
      for (const pin of chip.needsHigh)
        if (!pulled(chip.pins.get(pin)!, PLUS)) {
          chip.roles.set(pin, { in: true, pull: ['up', INSIDE_PULL] });
          this.ask(`${chip.ref} pin ${pin} (reset): nothing pulls it up. Taken as pulled up inside.`);
        }
  }

  private finished(): Sentences {
    const chips = [...this.chips.values()];
    const see: SeenItem[] = [
      ...this.lamps.map((l): SeenItem => ({ what: 'look', part: l.ref })),
      ...this.displays.map((part): SeenItem => ({ what: 'digit', part })),
      ...this.buzzers.map((b): SeenItem => ({ what: 'sound', part: b.ref })),
    ];
    const checks: LogicCheck[] = [];
    const add = (act: string, steps: readonly Step[], blinking: ReadonlySet<string> = NONE) => {
      if (see.length === 0 || checks.some((c) => c.id === act || JSON.stringify(c.do) === JSON.stringify(steps))) return;
      const seen = see.map((item): SeenItem => (item.part !== undefined && blinking.has(item.part) ? { what: 'blink', part: item.part } : item));
      checks.push({ id: act, do: steps, see: seen, cost: 1 });
    };
    add('Switch on, touch nothing', []);
    for (const k of this.keys) add(`Press ${k.ref}`, [{ press: k.ref }]);
    for (const s of this.straps) {
      const to = s.set === 'a' ? 'b' : 'a';
      add(`${s.ref} at ${to.toUpperCase()}`, [{ strap: { [s.ref]: to } }]);
    }
    for (const chip of chips) {
      for (const f of chip.functions) this.functionTries(chip, f, add);
    }
    for (const { act, steps } of this.own) add(act, steps);
    for (const { chip, pin, net } of this.probes(chips))
      checks.push({ id: `Volts at ${chip.ref} pin ${pin}`, do: [], see: [{ what: 'volts', net }], cost: 1.5 });
    return {
      description: {
        name: 'sentences',
        deck: `* Written in sentences\nV1 ${PLUS} 0 ${this.volts}\n${this.cards.join('\n')}\n${MODELS}\n.end\n`,
        parts: this.parts,
        chips: chips.map(chipOf),
        neighbours: neighboursOf(chips),
        meters: [],
        checks,
      },
      remarks: this.remarks,
    };
  }

  /** Tries that bring a function about which no single key shows: two keys at once, a jumper with a key, a mode. */
  private functionTries(chip: MutableChip, f: BoxFunction, add: (act: string, steps: readonly Step[], blinking: ReadonlySet<string>) => void): void {
    const acts: string[] = [];
    const steps: Step[] = [];
    for (const [pin, level] of Object.entries(f.when ?? {})) {
      if (pin === '$mode') {
        const stepper = chip.functions.find((g) => g.on && g.do && '$mode' in g.do);
        const key = this.keys.find((k) => k.nets.includes(chip.pins.get(Object.keys(stepper?.on ?? {})[0] ?? '') ?? ' '));
        if (key && Number(level) > 0) {
          acts.push(`tap ${key.ref} ${Number(level) === 1 ? 'once' : `${Number(level)} times`}`);
          steps.push({ tap: { key: key.ref, times: Number(level) } });
        }
        continue;
      }
      const net = chip.pins.get(pin)!;
      const strap = this.straps.find((s) => s.common === net);
      const key = this.keys.find((k) => k.nets.includes(net));
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
    if (steps.length === 0) return;
    const act = acts.join(', ');
    add(act.charAt(0).toUpperCase() + act.slice(1), steps, this.blinkingIn(chip, f));
  }

  /** Lamps that a function makes blink. */
  private blinkingIn(chip: MutableChip, { then = {} }: BoxFunction): Set<string> {
    const pins = Object.entries(then as Readonly<Record<string, unknown>>).flatMap(([pin, level]) => (level === 'blink' ? [chip.pins.get(pin)!] : []));
    return new Set(this.lamps.flatMap((l) => (pins.includes(l.anode) || pins.includes(l.cathode) ? [l.ref] : [])));
  }

  /** Where volts tell most: supply pins of every chip, then what lamps hang on. */
  private probes(chips: readonly MutableChip[]): { chip: MutableChip; pin: string; net: string }[] {
    const supplies = chips.flatMap((chip) => (chip.vdd === null ? [] : [{ chip, pin: chip.vdd, net: chip.pins.get(chip.vdd)! }]));
    const held = chips.flatMap((chip) => chip.needsHigh.map((pin) => ({ chip, pin, net: chip.pins.get(pin)! })));
    const lamps = this.lamps
      .flatMap((l) => this.pinOf(l.anode) ?? this.pinOf(l.cathode) ?? [])
      .map(({ chip, pin }) => ({ chip, pin, net: chip.pins.get(pin)! }));
    return [...supplies, ...held, ...lamps].filter((p, i, all) => all.findIndex((q) => q.chip === p.chip && q.pin === p.pin) === i);
  }
}

const NONE: ReadonlySet<string> = new Set();
const FUNCTION = /^((?:[^:]*\b(?:pressed|held|down|at [AB]|mode \d+|always|start|power on)\b)[^:]*)\s*:\s*(.+)$|^\w+\s+steps\b.*$|^try\b.*$/i;
