import type { Level, Step } from './board';
import { GROUND, INSIDE_PULL, MOST_STEPS, type MutableChip, pinOf, PLUS, RANGE, rangeOf, rule, type Say, type Written } from './written';

/** A sentence that says what happens, or what is tried; all others say what is where. */
export const FUNCTION = /^((?:[^:]*\b(?:pressed|held|down|at [AB]|mode \d+|always|start|power on)\b)[^:]*)\s*:\s*(.+)$|^\w+\s+steps\b.*$|^try\b.*$/i;

/** Reads sentences that say what a programmed chip does; the pins behind keys and lamps are found in the wiring. */
export class Behaviour {
  constructor(
    private readonly w: Written,
    private readonly say: Say,
  ) {}

  /** `K3 pressed: D3 lights`, `K1-K8 pressed: D1-D8 light`, `J1 at B: D6 blinks`, `K4 steps 3 modes`, `mode 1: D5 lights`. */
  read(sentence: string): void {
    const own = /^try\s*:?\s*(.+)$/i.exec(sentence);
    if (own) {
      this.ownTry(own[1]!);
      return;
    }
    const steps = /^(\w+)\s+steps(?:\s+through)?\s+(\d+)\s+modes$/i.exec(sentence);
    if (steps) {
      const at = this.inputOf(steps[1]!.toUpperCase());
      if (!at) return;
      if (Number(steps[2]) < 2 || Number(steps[2]) > MOST_STEPS) {
        this.say.error(`Modes are 2 to ${MOST_STEPS}.`);
        return;
      }
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
      if (keys.length !== targets.length) this.say.error(`${keys.length} keys and ${targets.length} lamps: write as many of each, or one sentence for each.`);
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
        const of = this.w.straps.find((s) => s.ref === strap[1]!.toUpperCase());
        const net = of?.[strap[2]!.toLowerCase() as 'a' | 'b'];
        if (!of || (net !== GROUND && net !== PLUS)) {
          this.say.error(`${strap[1]!} is no jumper that leads a pin to plus or ground.`);
          return;
        }
        if (!meet(pinOf(this.w, of.common), net === GROUND ? 'low' : 'high')) {
          this.say.error(`${of.ref} leads to no pin of a programmed chip.`);
          return;
        }
      } else if (key) {
        const at = this.inputOf(key[1]!.toUpperCase());
        if (!at) return;
        meet(at, at.level);
      } else {
        this.say.error(`“${c}” is not understood. Write K3 pressed, J1 at B, mode 1, or always.`);
        return;
      }
    }
    const then: Record<string, Level> = {};
    for (const o of outcomes.split(/\s*(?:,|\band\b)\s*(?=[A-Z]+\d)/i).filter(Boolean)) {
      const m = new RegExp(`^(${RANGE})\\s+(lights?|lit|is lit|blinks?|sounds?|is dark|off|goes out)$`, 'i').exec(o);
      if (!m) {
        this.say.error(`“${o}” is not understood. Write D3 lights, D3 blinks, D3 is dark, or BZ1 sounds.`);
        return;
      }
      for (const ref of rangeOf(m[1]!).map((r) => r.toUpperCase())) {
        const out = this.outputOf(ref);
        if (!out) return;
        chip ??= out.chip;
        if (out.chip !== chip) {
          this.say.error(`${ref} is driven by ${out.chip.ref}, the rest by ${chip.ref}: write them apart.`);
          return;
        }
        then[out.pin] = /blink/i.test(m[2]!) ? 'blink' : /dark|off|out/i.test(m[2]!) ? out.rest : out.rest === 'low' ? 'high' : 'low';
      }
    }
    if (chip === null) return;
    chip.functions.push({ ...(Object.keys(when).length > 0 ? { when } : {}), then });
  }

  private inputOf(ref: string): { readonly chip: MutableChip; readonly pin: string; readonly level: 'low' | 'high' } | null {
    const key = this.w.keys.find((k) => k.ref === ref);
    if (!key) return this.nothing(`${ref} is no key of this board. Write it: ${ref}: U1 2 to ground`);
    const [a, b] = key.nets;
    const at = pinOf(this.w, a) ?? pinOf(this.w, b);
    if (at?.chip.card !== 'box') return this.nothing(`${ref} leads to no pin of a programmed chip.`);
    return { ...at, level: a === GROUND || b === GROUND ? 'low' : 'high' };
  }

  private outputOf(ref: string): { readonly chip: MutableChip; readonly pin: string; readonly rest: 'low' | 'high' } | null {
    const lamp = this.w.lamps.find((l) => l.ref === ref);
    const buzzer = this.w.buzzers.find((b) => b.ref === ref);
    if (!lamp && !buzzer) return this.nothing(`${ref} is no lamp and no buzzer of this board. Write it: ${ref}: U1 12 through R1 470 to ground`);
    const sinks = lamp ? lamp.anode === PLUS : false;
    const at = pinOf(this.w, lamp ? (sinks ? lamp.cathode : lamp.anode) : buzzer!.net);
    if (at?.chip.card !== 'box') return this.nothing(`${ref} hangs on no pin of a programmed chip.`);
    const rest = sinks ? 'high' : 'low';
    at.chip.roles.set(at.pin, { out: 'push-pull', rest });
    return { ...at, rest };
  }

  private nothing(message: string): null {
    this.say.error(message);
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
        this.say.error(`“${part}” is not understood. Write press K1, tap K4 3 times, J1 at B, or wait 4.`);
        return;
      }
    }
    for (const s of steps) {
      if (('tap' in s ? s.tap.times : 'ticks' in s ? s.ticks : 1) > MOST_STEPS) {
        this.say.error(`At most ${MOST_STEPS} taps or beats in a try.`);
        return;
      }
      const ref = 'press' in s ? s.press : 'tap' in s ? s.tap.key : null;
      if (ref !== null && !this.w.keys.some((k) => k.ref === ref)) {
        this.say.error(`${ref} is no key of this board.`);
        return;
      }
      if ('strap' in s && !this.w.straps.some((j) => j.ref in s.strap)) {
        this.say.error(`${Object.keys(s.strap).join()} is no jumper of this board.`);
        return;
      }
    }
    this.w.own.push({ act: text.charAt(0).toUpperCase() + text.slice(1), steps });
  }
}

/** What the functions need and the wiring lacks. */
export function whatLacks(w: Written, say: Say): void {
  if (w.chips.size === 0) say.error('No chip is written yet. Begin with: U1 programmed chip, 20 pins: plus 20, ground 10');
  const resistors = w.cards.filter((c) => c.startsWith('R')).map((c) => c.split(' '));
  const pulled = (net: string, to: string) => resistors.some(([, a, b]) => (a === net && b === to) || (b === net && a === to));
  const inside: string[] = [];
  for (const k of w.keys) {
    const [net, rail] = k.nets[0] === GROUND || k.nets[0] === PLUS ? [k.nets[1], k.nets[0]] : k.nets;
    const at = pinOf(w, net);
    const other = rail === GROUND ? PLUS : GROUND;
    if (!at || pulled(net, other) || at.chip.roles.get(at.pin)?.pull) continue;
    if (at.chip.card === 'box' && rail === GROUND) {
      at.chip.roles.set(at.pin, { in: true, pull: ['up', INSIDE_PULL] });
      inside.push(`${k.ref} (${at.chip.ref} pin ${at.pin})`);
    } else
      say.error(`${k.ref}: nothing holds ${at.chip.ref} pin ${at.pin} when it is open. Write a resistor from it to ${other === PLUS ? 'plus' : 'ground'}.`);
  }
  if (inside.length > 0)
    say.ask(`Nothing is written that pulls up ${inside.join(', ')}. Taken as pulled up inside the chip; write a resistor where there is one.`);
  for (const chip of w.chips.values())
    for (const pin of chip.needsHigh)
      if (!pulled(chip.pins.get(pin)!, PLUS)) {
        chip.roles.set(pin, { in: true, pull: ['up', INSIDE_PULL] });
        say.ask(`${chip.ref} pin ${pin} (reset): nothing pulls it up. Taken as pulled up inside.`);
      }
}
