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
