import { CARDS } from './cards';
import {
  cardNamed,
  GROUND,
  INSIDE_PULL,
  MOST_PINS,
  type MutableChip,
  newChip,
  ohmsOf,
  pinOf,
  pinsIn,
  PLUS,
  rangeOf,
  rule,
  type Say,
  type Written,
} from './written';

/** Model cards by colour: volts of common lamps at some milliamperes. */
const LAMPS: Readonly<Record<string, string>> = { red: 'LRED', green: 'LGRN', yellow: 'LYEL', orange: 'LYEL', blue: 'LBLU', white: 'LBLU' };
export const LAMP_MODELS = `.model LRED D(IS=1e-18 N=2)
.model LGRN D(IS=1e-19 N=2.1)
.model LYEL D(IS=5e-19 N=2.05)
.model LBLU D(IS=1e-25 N=2.2)`;
const BUZZER_OHMS = 400;

/** Reads sentences that say what is where: chips, keys, lamps, digits, jumpers, and the nets between them. */
export class Wiring {
  private readonly refs = new Set<string>();
  private nets = 0;

  constructor(
    private readonly w: Written,
    private readonly say: Say,
  ) {}

  /** Wires, parts and chips. */
  read(sentence: string): void {
    const rules: readonly (readonly [RegExp, (m: RegExpExecArray) => void])[] = [
      [/^(?:supply|powered (?:by|from))\s*:?\s*([\d.,]+)\s*V?(?:olts?)?$/i, (m) => this.supply(m[1]!)],
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
    this.say.error('Not understood. Write one of the sentences beside this field.');
  }

  private supply(text: string): void {
    const volts = Number(text.replace(',', '.'));
    if (volts > 0) this.w.volts = volts;
    else this.say.error(`“${text}” V feeds nothing. Write supply 5 V.`);
  }

  /** A net that no sentence can name. */
  private newNet(): string {
    return `~${++this.nets}`;
  }

  private take(ref: string): boolean {
    if (this.refs.has(ref)) {
      this.say.error(`${ref} was written before. Each part once.`);
      return false;
    }
    this.refs.add(ref);
    return true;
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
        this.say.error(`${count} parts and ${pins.length} pins: write as many pins as parts.`);
        return null;
      }
      const of = this.w.chips.get(chip[1]!.toUpperCase());
      if (!of) {
        this.say.error(`${chip[1]!} is not written yet. Write the chip above this sentence.`);
        return null;
      }
      return Array.from({ length: count }, (_, i) => this.pinNet(of, pins[pins.length === 1 ? 0 : i]!));
    }
    if (/^[A-Za-z_]\w*$/.test(t)) return Array<string>(count).fill(t.toLowerCase());
    this.say.error(`“${t}” is no place. Write ground, plus, U1 12, or the name of a net.`);
    return null;
  }

  private pinNet(chip: MutableChip, pin: string): string {
    const known = chip.pins.get(pin);
    if (known !== undefined) return known;
    const most = pinsIn(chip.package);
    if (Number(pin) < 1 || Number(pin) > most) this.say.error(`${chip.ref} has ${most} pins, not a pin ${pin}.`);
    const net = `${chip.ref.toLowerCase()}p${pin}`;
    chip.pins.set(pin, net);
    return net;
  }

  private box(ref: string, pins: string, rest: string): void {
    if (Number(pins) > MOST_PINS || Number(pins) % 2 === 1) {
      this.say.error(`A chip with ${pins} pins? Write an even number up to ${MOST_PINS}.`);
      return;
    }
    if (!this.take(ref.toUpperCase())) return;
    const chip = newChip(ref.toUpperCase(), 'box', `dip${pins}`);
    this.w.chips.set(chip.ref, chip);
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
        if (this.take(crystal[1]!.toUpperCase())) this.w.parts.push({ ref: crystal[1]!.toUpperCase(), kind: 'crystal', pins: nets });
        chip.clock = { pins: [crystal[2]!, crystal[3]!], parts: [crystal[1]!.toUpperCase()] };
      } else this.say.error(`“${item}” is not understood. Write plus 20, ground 10, reset 1, crystal Y1 at 4 and 5.`);
    }
    if (chip.vdd === null || chip.gnd === null) this.say.error(`${chip.ref}: say its supply pins: plus 20, ground 10.`);
  }

  private libraryChip(ref: string, type: string, rest: string): void {
    const card = cardNamed(type);
    if (!card) {
      this.say.error(
        `${type} has no card here. Known: ${Object.keys(CARDS)
          .filter((c) => cardNamed(c))
          .join(', ')}. Or write it as a programmed chip with its functions.`,
      );
      return;
    }
    if (!this.take(ref.toUpperCase())) return;
    const of = CARDS[card]!;
    const chip = newChip(ref.toUpperCase(), card, of.package);
    this.w.chips.set(chip.ref, chip);
    of.pins.forEach((name, i) => {
      if (name === of.supply) chip.pins.set((chip.vdd = String(i + 1)), PLUS);
      if (name === of.ground) chip.pins.set((chip.gnd = String(i + 1)), GROUND);
    });
    for (const item of rest.split(/\s*[,;]\s*/).filter(Boolean)) {
      const m = /^(?:pins?\s+)?([A-Za-z]?\w*)\s*(?:to|=|\s)\s*(.+)$/i.exec(item);
      const pin = m && (/^\d+$/.test(m[1]!) ? m[1]! : String(of.pins.findIndex((p) => p.toLowerCase() === m[1]!.toLowerCase()) + 1));
      const nets = m && pin !== '0' ? this.netsAt(m[2]!, 1) : null;
      if (!m || pin === '0' || pin === null) this.say.error(`“${item}” is not understood. Write a pin and its net: 14 clk, or CLK clk.`);
      else if (nets) chip.pins.set(pin, nets[0]!);
    }
  }

  /** Keys from pins to ground, lamps with their resistors, resistors by their value. */
  private keysOrLamps(m: RegExpExecArray): void {
    const [, range, words, from, to, inside] = m;
    const refs = rangeOf(range!).map((r) => r.toUpperCase());
    const odd = refs.find((r) => !/^[A-Z]+\d+$/.test(r));
    if (odd !== undefined) this.say.error(`${odd} is no range. Write at most 100 parts, such as K1-K8.`);
    else if (/^(?:D|LED)\d/.test(refs[0]!)) this.addLamps(refs, words!, from!, to!);
    else if (/^R\d/.test(refs[0]!)) this.addResistors(refs, words!, from!, to!);
    else if (/^[KS]/.test(refs[0]!)) this.addKeys(refs, from!, to!, inside !== undefined);
    else this.say.error(`${refs[0]!} is no key, no lamp and no resistor: keys are K or S, lamps D or LED, resistors R.`);
  }

  private addResistors(refs: readonly string[], words: string, from: string, to: string): void {
    const value = words.replace(/\b(?:resistors?|each)\b/gi, '').trim();
    const ohms = ohmsOf(value);
    const [a, b] = [this.netsAt(from, refs.length), this.netsAt(to, refs.length)];
    if (ohms === null) this.say.error(`Write the value behind the name: ${refs[0]!} 10k: U1 1 to plus`);
    else if (a && b)
      refs.forEach((ref, i) => {
        if (!this.take(ref)) return;
        this.w.cards.push(`${ref} ${a[i]!} ${b[i]!} ${ohms}`);
        this.w.parts.push({ ref, kind: 'resistor' });
      });
  }

  private addKeys(refs: readonly string[], from: string, to: string, inside: boolean): void {
    const [a, b] = [this.netsAt(from, refs.length), this.netsAt(to, refs.length)];
    if (!a || !b) return;
    refs.forEach((ref, i) => {
      if (!this.take(ref)) return;
      this.w.keys.push({ ref, nets: [a[i]!, b[i]!] });
      this.w.parts.push({ ref, kind: 'key', pins: [a[i]!, b[i]!] });
      const at = pinOf(this.w, a[i]!);
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
      this.say.error(`Write as many resistors as lamps, and their value: through R1-R${refs.length} 470`);
      return;
    }
    if (!through) this.say.ask(`${refs.join(', ')}: no resistor is written. Taken as 470 Ω inside the sentence; write “through R1 470”.`);
    refs.forEach((ref, i) => {
      if (!this.take(ref)) return;
      const anode = this.newNet();
      const resistor = resistors[i] ?? `R${ref}`;
      if (!this.take(resistor)) return;
      this.w.cards.push(`${resistor} ${a[i]!} ${anode} ${ohms ?? 470}`, `${ref} ${anode} ${b[i]!} ${LAMPS[colour ?? 'red']!}`);
      this.w.parts.push({ ref: resistor, kind: 'resistor' }, { ref, kind: 'led' });
      this.w.lamps.push({ ref, anode: a[i]!, cathode: b[i]! });
    });
  }

  private named(ref: string, kind: string, rest: string): void {
    const R = ref.toUpperCase();
    if (kind === 'buzzer') {
      const m = /^\s*:\s*(.+?)\s+to\s+(.+)$/i.exec(rest);
      const [a, b] = m ? [this.netsAt(m[1]!, 1), this.netsAt(m[2]!, 1)] : [null, null];
      if (!m) this.say.error(`Write its two ends: ${R} buzzer: U1 18 to ground`);
      else if (a && b && this.take(R)) {
        this.w.cards.push(`R${R} ${a[0]!} ${b[0]!} ${BUZZER_OHMS}`);
        this.w.parts.push({ ref: R, kind: 'buzzer', element: `R${R}` });
        this.w.buzzers.push({ ref: R, net: a[0] === PLUS ? b[0]! : a[0]! });
      }
    } else this.display(R, rest);
  }

  private display(ref: string, rest: string): void {
    const m =
      /^\s*,?\s*(?:common\s+(cathode|anode))?\s*:\s*a-g\s+(?:at|to|from)\s+(.+?)\s+through\s+(\S+?)\s+([\d.,]+\w*)\s*(?:ohms?|Ω)?,?\s*common\s+to\s+(.+)$/i.exec(
        rest,
      );
    if (!m) {
      this.say.error(`Write it so: ${ref} display common cathode: a-g at U2 13 12 11 10 9 15 14 through R1-R7 330, common to ground`);
      return;
    }
    const [pins, common] = [this.netsAt(m[2]!, 7), this.netsAt(m[5]!, 1)];
    const resistors = rangeOf(m[3]!).map((r) => r.toUpperCase());
    const ohms = ohmsOf(m[4]!);
    if (!pins || !common || ohms === null) return;
    if (resistors.length !== 7) {
      this.say.error('A digit has seven segments: name seven resistors, such as R1-R7.');
      return;
    }
    if (!this.take(ref) || !resistors.every((r) => this.take(r))) return;
    const nets = resistors.map((r, i) => {
      const net = this.newNet();
      this.w.cards.push(`${r} ${pins[i]!} ${net} ${ohms}`);
      this.w.parts.push({ ref: r, kind: 'resistor' });
      return net;
    });
    const anode = m[1]?.toLowerCase() === 'anode';
    this.w.parts.push({
      ref,
      kind: 'display',
      common: anode ? 'anode' : 'cathode',
      model: 'LRED',
      pins: { ...Object.fromEntries(nets.map((n, i) => ['abcdefg'[i]!, n])), com: common[0]! },
    });
    this.w.displays.push(ref);
  }

  private crystal(ref: string, a: string, b: string): void {
    const [from, to] = [this.netsAt(a, 1), this.netsAt(b, 1)];
    if (!from || !to || !this.take(ref.toUpperCase())) return;
    this.w.parts.push({ ref: ref.toUpperCase(), kind: 'crystal', pins: [from[0]!, to[0]!] });
    const [x, y] = [pinOf(this.w, from[0]!), pinOf(this.w, to[0]!)];
    if (x && y && x.chip === y.chip) x.chip.clock = { pins: [x.pin, y.pin], parts: [ref.toUpperCase()] };
  }

  private strap(m: RegExpExecArray): void {
    const [common, a, b] = [this.netsAt(m[2]!, 1), this.netsAt(m[3]!, 1), this.netsAt(m[4]!, 1)];
    const ref = m[1]!.toUpperCase();
    if (!common || !a || !b || !this.take(ref)) return;
    if (m[5] === undefined) this.say.ask(`${ref}: which way is it set now? Taken as A; write “, at B” where it is not.`);
    const strap = { ref, common: common[0]!, a: a[0]!, b: b[0]!, set: m[5]?.toUpperCase() === 'B' ? ('b' as const) : ('a' as const) };
    this.w.straps.push(strap);
    this.w.parts.push({ ...strap, kind: 'strap' });
    const at = pinOf(this.w, strap.common);
    if (at?.chip.card === 'box') at.chip.roles.set(at.pin, { in: true });
  }
}
