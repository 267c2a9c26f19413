/** Colours of the bands, by the letters that are quick to type with one hand. */
export const COLOURS = ['black', 'brown', 'red', 'orange', 'yellow', 'green', 'blue', 'violet', 'grey', 'white', 'gold', 'silver'] as const;
export type Colour = (typeof COLOURS)[number];

/** Tolerance colours, percent (IEC 60062, ed. 2016, from memory). */
export const TOLERANCE_PERCENT: Readonly<Partial<Record<Colour, number>>> = {
  silver: 10,
  gold: 5,
  brown: 1,
  red: 2,
  orange: 0.05,
  yellow: 0.02,
  green: 0.5,
  blue: 0.25,
  violet: 0.1,
  grey: 0.01,
};

/** Power of ten of the multiplier band (IEC 60062, from memory). */
export function multiplierExponent(colour: Colour): number {
  if (colour === 'gold') return -1;
  if (colour === 'silver') return -2;
  return COLOURS.indexOf(colour);
}

/** Digit of a band; null for gold and silver. */
export function digitOf(colour: Colour): number | null {
  const digit = COLOURS.indexOf(colour);
  return digit < 10 ? digit : null;
}

export const isColour = (text: string): text is Colour => (COLOURS as readonly string[]).includes(text);

/** Temperature coefficient band, ppm/K (IEC 60062, from memory). */
export const TEMPCO_PPM: Readonly<Partial<Record<Colour, number>>> = {
  black: 250,
  brown: 100,
  red: 50,
  orange: 15,
  yellow: 25,
  green: 20,
  blue: 10,
  violet: 5,
  grey: 1,
};
