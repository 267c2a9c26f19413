/** Signs that tell a genuine part from a copy, each once. */

/** Signs of one group often come together: they are not counted as if each stood for itself. */
export type SignGroup = 'print' | 'date' | 'maker' | 'legs' | 'body';

export interface Sign {
  readonly id: string;
  readonly group: SignGroup;
  readonly title: string;
  /** How it is looked for. */
  readonly how: string;
  /** How often it is seen on a copy, and on a genuine part, 0..1 (rule of thumb: own figures, after common practice). */
  readonly onFake: number;
  readonly onGenuine: number;
}

export const SIGNS: readonly Sign[] = [
  { id: 'wipes', group: 'print', title: 'The print wipes off', how: 'Rub it with a little acetone on a cotton bud.', onFake: 0.35, onGenuine: 0.04 },
  {
    id: 'new-print',
    group: 'print',
    title: 'Fresh laser print on an old body',
    how: 'A lens: sharp white print over scratches or a dull, sanded face.',
    onFake: 0.35,
    onGenuine: 0.04,
  },
  {
    id: 'sanded',
    group: 'print',
    title: 'The top is sanded',
    how: 'Slanting light: fine lines all one way, the mould mark half filled.',
    onFake: 0.25,
    onGenuine: 0.01,
  },
  {
    id: 'logo',
    group: 'print',
    title: 'Logo or font is not the maker’s',
    how: 'Beside one that you trust, or the data sheet’s picture.',
    onFake: 0.4,
    onGenuine: 0.05,
  },
  {
    id: 'two-makers',
    group: 'maker',
    title: 'Top and bottom name different makers',
    how: 'Turn it over: mould marks and countries against the logo.',
    onFake: 0.15,
    onGenuine: 0.005,
  },
  {
    id: 'impossible-date',
    group: 'date',
    title: 'A date code that cannot be',
    how: 'Week above 53, or a year before the type existed.',
    onFake: 0.15,
    onGenuine: 0.005,
  },
  { id: 'future-date', group: 'date', title: 'A date code after the purchase', how: 'Four figures, year and week.', onFake: 0.05, onGenuine: 0.001 },
  { id: 'mixed-dates', group: 'date', title: 'Different date codes in one tube', how: 'Look along the tube or tape.', onFake: 0.35, onGenuine: 0.08 },
  { id: 'old-date', group: 'date', title: 'Decades old', how: 'Old stock is sold as new, and re-marked as well.', onFake: 0.25, onGenuine: 0.08 },
  {
    id: 'legs',
    group: 'legs',
    title: 'Legs scratched or tinned anew',
    how: 'A lens at the bends and tips: solder, flux, marks of a socket.',
    onFake: 0.45,
    onGenuine: 0.06,
  },
  {
    id: 'steel',
    group: 'legs',
    title: 'Legs are magnetic',
    how: 'A small magnet. Some genuine diodes and transistors have steel legs too.',
    onFake: 0.35,
    onGenuine: 0.12,
  },
  {
    id: 'weight',
    group: 'body',
    title: 'Lighter or thicker than a known one',
    how: 'A letter balance, a calliper: beside one that you trust.',
    onFake: 0.3,
    onGenuine: 0.05,
  },
];

/** Where it was bought, and how many of such parts are copies (rule of thumb: own figures). */
export const ORIGINS = {
  distributor: { title: 'an authorised distributor', fake: 0.003 },
  maker: { title: 'with a kit of a known maker', fake: 0.03 },
  unknown: { title: 'I do not know', fake: 0.1 },
  market: { title: 'a marketplace, cheap', fake: 0.3 },
} as const;
export type Origin = keyof typeof ORIGINS;
