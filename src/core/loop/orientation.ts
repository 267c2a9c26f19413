import type { LineKind } from '../kit';

/** How a kind of part is turned the right way round, with its exceptions, and how to make sure (common practice, no source). */
export interface OrientationCard {
  /** In one line, as the probe bar says it. */
  readonly rule: string;
  /** Where red and black go when a loose one is measured; null where it does not matter. */
  readonly probes: { readonly red: string; readonly black: string } | null;
  readonly exceptions: readonly string[];
  readonly check: string;
}

const DIODE: OrientationCard = {
  probes: { red: 'end without the stripe', black: 'striped end' },
  rule: 'The stripe is the cathode: it goes to the stripe on the board.',
  exceptions: ['On glass bodies the stripe may be nearly worn off: then measure.', 'Upright: the stripe’s lead goes where the board marks the cathode.'],
  check: 'Diode test: it reads about 0.5 to 0.7 V with red on the plain end, over-range the other way.',
};
const TRANSISTOR: OrientationCard = {
  probes: null,
  rule: 'Flat side as printed. Pin order differs between types: look at its data sheet.',
  exceptions: ['Pin order differs between types and makers: the type card or the tester decides, not the outline.', 'NPN and PNP look alike: read the print.'],
  check: 'Diode test from base to each other leg: both conduct, red on base for NPN, black on base for PNP. A component tester shows the pins.',
};
const FET: OrientationCard = {
  probes: null,
  rule: 'Flat side as printed on the board.',
  exceptions: ['Pin order differs between types.', 'Gates die of static charge: touch ground first, keep it in its foam.'],
  check: 'Diode test between source and drain shows the body diode one way only.',
};
const CHIP: OrientationCard = {
  probes: null,
  rule: 'Notch or dot at the pin 1 end; pins count anticlockwise from above.',
  exceptions: ['A notch at both ends: look for the dot.', 'Text the right way up: pin 1 is at the lower left.'],
  check: 'Fit the socket by its notch, and the chip only when the supply pins are right.',
};

/** Parts without a right way round: both leads are alike. */
const EITHER: OrientationCard = {
  probes: null,
  rule: 'Either way round.',
  exceptions: [],
  check: 'Turn the print outwards: it is read again when something is wrong.',
};
/** Parts that fit one way, by their holes. */
const BY_HOLES: OrientationCard = {
  probes: null,
  rule: 'As its outline is printed.',
  exceptions: ['Some fit the holes both ways: compare the opening or the key with the print.'],
  check: 'Compare with the print before the second joint.',
};

const CARDS: Readonly<Record<LineKind, OrientationCard>> = {
  resistor: EITHER,
  capacitor: EITHER,
  inductor: EITHER,
  thermistor: EITHER,
  ldr: EITHER,
  lamp: EITHER,
  fuse: EITHER,
  link: EITHER,
  network: {
    probes: { red: 'pin at the dot', black: 'any other pin' },
    rule: 'The dot (common pin) goes to pin 1, a square pad.',
    exceptions: ['Networks of single resistors have no common pin and fit both ways: measure.', 'Turned round it fits, and fails.'],
    check: 'Ohms from the dot’s pin to every other one: all alike. Between two others: twice that.',
  },
  regulator: {
    probes: null,
    rule: 'Tab or flat side as printed. Pin order differs between types: look at its data sheet.',
    exceptions: [
      'Seen from the print side: in, ground, out for large fixed positive ones; out, ground, in for their small flat-sided sisters; adjust, out, in for the common adjustable one.',
      'The tab is not always ground: on the common adjustable one it is the output.',
    ],
    check: 'A type card has the pins, typed once from the data sheet.',
  },
  timer: CHIP,
  optocoupler: { ...CHIP, check: 'Diode test on the LED side, pins 1 and 2: about 1.0 to 1.2 V with red on pin 1.' },
  module: { ...BY_HOLES, check: 'Compare the names of its pins with the print before the second joint.' },
  bridge: {
    probes: { red: 'minus pin', black: 'plus pin' },
    rule: 'Plus to plus: the longest lead or the cut corner is plus.',
    exceptions: ['The two pins marked ~ may be swapped with each other, never with plus or minus.'],
    check: 'Diode test with red on minus and black on plus: about 1 V. The other way: over-range.',
  },
  buzzer: {
    ...BY_HOLES,
    rule: 'Plus to plus: the longer lead, or the plus on its top or sticker.',
    exceptions: ['Leave the sticker on until the board is washed.', 'A plain piezo disc fits either way.'],
    check: 'From a 3 V cell an active buzzer sounds; a passive one only clicks.',
  },
  microphone: {
    ...BY_HOLES,
    rule: 'The pin joined to the can is minus: it goes to the ground pad.',
    exceptions: ['Dynamic capsules fit either way.'],
    check: 'Continuity from the can to one pin: that pin is minus.',
  },
  display: {
    ...BY_HOLES,
    rule: 'Decimal point at the lower right, or pin 1 to the square pad.',
    exceptions: ['Common anode and common cathode look alike: compare the type.'],
    check: 'Diode test from the common pin to one segment: it lights one way only.',
  },
  battery: { ...BY_HOLES, rule: 'Plus to plus, as printed in the holder.' },
  holder: { ...BY_HOLES, rule: 'The plus end as printed; red lead to plus.' },
  motor: { ...EITHER, rule: 'Red lead to plus; swapped leads only turn it the other way.' },
  loudspeaker: { ...EITHER, rule: 'Either way round; several loudspeakers all the same way.' },
  transformer: {
    probes: { red: 'one end of the secondary', black: 'its other end' },
    rule: 'Primary to the mains side: the winding with the higher resistance.',
    exceptions: ['Audio and pulse transformers are marked by a dot at the start of each winding.'],
    check: 'Ohms of both windings: a step-down primary reads many times the secondary.',
  },
  varistor: EITHER,
  heatsink: BY_HOLES,
  case: BY_HOLES,
  board: BY_HOLES,
  wire: EITHER,
  consumable: EITHER,
  document: EITHER,
  socket: {
    ...BY_HOLES,
    rule: 'Notch to the notch on the print.',
    exceptions: ['Turned round it works as well, but the chip will follow it: mind the print then.'],
  },
  connector: BY_HOLES,
  switch: BY_HOLES,
  mechanical: BY_HOLES,
  other: BY_HOLES,
  diode: DIODE,
  zener: {
    ...DIODE,
    exceptions: [...DIODE.exceptions, 'Signal and zener diodes look the same in glass: read the print.'],
    check: 'Diode test as for any diode; its zener voltage needs a supply and a resistor.',
  },
  led: {
    probes: { red: 'long leg', black: 'short leg, flat side' },
    rule: 'Long lead = anode (plus). Flat on the rim = cathode; the flat survives when the legs are cut.',
    exceptions: ['Some makes cut the legs alike.', 'An LED that changes colour by itself has a chip inside: its forward voltage is no plain LED’s.'],
    check: 'Diode test, or a 3 V coin cell for a moment: it lights with plus on the anode.',
  },
  electrolytic: {
    probes: { red: 'long leg', black: 'leg at the stripe' },
    rule: 'The stripe is minus, the long lead plus.',
    exceptions: ['Tantalum and polymer chips carry the bar at plus.', 'Board print: the hatched or solid half is minus, a square pad plus.'],
    check: 'No quick test tells: look twice. Reversed, it can burst: wear eye protection at first power.',
  },
  tantalum: {
    probes: { red: 'lead at the bar or the +', black: 'other lead' },
    rule: 'The bar is plus. On aluminium cans the stripe is minus: do not mix them up.',
    exceptions: ['Wired drops carry a + and have the longer lead at plus.'],
    check: 'No quick test tells: look twice. Reversed, it catches fire: wear eye protection at first power.',
  },
  npn: TRANSISTOR,
  pnp: TRANSISTOR,
  nmos: FET,
  pmos: FET,
  njf: FET,
  pjf: FET,
  opamp: CHIP,
  ic: CHIP,
  microcontroller: CHIP,
  crystal: {
    probes: null,
    rule: 'Either way round; a can oscillator has pin 1 at its square corner.',
    exceptions: ['The can may want a wire to ground.'],
    check: 'Compare with the print.',
  },
  potentiometer: {
    probes: { red: 'one outer lug', black: 'other outer lug' },
    rule: 'The shaft points off the board; the middle lug is the wiper.',
    exceptions: ['With the outer lugs swapped it turns the wrong way.', 'A is logarithmic, B is linear on most, the reverse on some.'],
    check: 'Ohms between the outer lugs stay the same while you turn.',
  },
  trimmer: {
    probes: { red: 'one outer leg', black: 'other outer leg' },
    rule: 'Three legs in a triangle fit one way; the wiper is the middle one.',
    exceptions: ['Legs in one row fit both ways: then the direction of turning changes.'],
    check: 'Ohms between the outer legs stay the same while you turn.',
  },
  relay: {
    probes: { red: 'coil pin', black: 'other coil pin' },
    rule: 'The coil pins stand apart from the contacts.',
    exceptions: ['Some coils have a plus pin.'],
    check: 'Ohms: only the coil reads a few hundred ohms.',
  },
};

export const orientationCard = (kind: LineKind): OrientationCard => CARDS[kind];

/** Whether a part of this kind can sit the wrong way round. */
export const hasWayRound = (kind: LineKind): boolean => CARDS[kind] !== EITHER;
