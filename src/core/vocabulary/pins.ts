/** Pins of parts as data sheets and the fault vocabulary name them, in the order of the circuit's elements. */
export const BIPOLAR_PINS = ['C', 'B', 'E'] as const;
export const FET_PINS = ['D', 'G', 'S'] as const;
/** Order in which an instance of an op-amp sub-circuit lists its nets. */
export const OPAMP_PINS = ['IN+', 'IN-', 'V+', 'V-', 'OUT'] as const;

const PIN_WORDS: Readonly<Record<string, string>> = {
  C: 'collector',
  B: 'base',
  E: 'emitter',
  D: 'drain',
  G: 'gate',
  S: 'source',
  'IN+': '+ input',
  'IN-': '− input',
  'V+': 'plus supply pin',
  'V-': 'minus supply pin',
  OUT: 'output',
  W: 'wiper or common pin',
};

/** A pin in words; a number stays `pin 3`. */
export const pinWord = (pin: string): string => PIN_WORDS[pin] ?? (/^\d+$/.test(pin) ? `pin ${pin}` : pin);

/** One name for what models, data sheets and people call a pin: `vin`, `IN` and `input` are `in`; a number alone is the leg's (`p3` is `3`). */
export function pinCalled(name: string): string {
  const word = name
    .trim()
    .toLowerCase()
    .replace(/−/g, '-')
    .replace(/\s*\(.*\)$/, '');
  return CALLED[word] ?? /^p(\d+)$/.exec(word)?.[1] ?? name.trim();
}
const CALLED: Readonly<Record<string, string>> = {
  vin: 'in', input: 'in', in: 'in',
  vout: 'out', output: 'out', out: 'out',
  gnd: 'ground', ground: 'ground',
  adj: 'adjust', adjust: 'adjust',
  inp: 'IN+', 'in+': 'IN+', inn: 'IN-', 'in-': 'IN-',
  vp: 'V+', 'v+': 'V+', vcc: 'V+', vdd: 'V+', vn: 'V-', 'v-': 'V-', vee: 'V-', vss: 'V-',
  a: 'A', anode: 'A', k: 'K', cathode: 'K', r: 'reference', ref: 'reference', reference: 'reference',
  c: 'C', collector: 'C', b: 'B', base: 'B', e: 'E', emitter: 'E',
  d: 'D', drain: 'D', g: 'G', gate: 'G', s: 'S', source: 'S',
}; // prettier-ignore
