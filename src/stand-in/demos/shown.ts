/** What the shelf says of the demos; the kits themselves are fetched when one is opened. */
export const SHOWN = [
  {
    slug: 'frost-sentinel',
    title: 'Frost sentinel',
    about:
      'A greenhouse board with 30 parts. One wrong part and one short count in the bag, and a board that does not behave. A simulated meter measures it for you.',
  },
  {
    slug: 'crossing-flasher',
    title: 'Crossing flasher',
    about: 'Two lamps for a model railway that should light in turn: a board that never rests, its averages and its frequency.',
  },
  {
    slug: 'nest-box-listener',
    title: 'Nest-box listener',
    about: 'A microphone amplifier fed by a winding: bridge, regulator, half supply, and a bias to set.',
  },
  {
    slug: 'wind-dial',
    title: 'Wind dial',
    about: 'Two boards with the same designators and a lead between them; sockets that are measured empty, a strap for the unit.',
  },
  {
    slug: 'tram-counter',
    title: 'Tram counter',
    about: 'A board built around chips: keys, lamps, a jumper, a digit. No circuit describes it; each try of a function says what it proves.',
  },
] as const;
