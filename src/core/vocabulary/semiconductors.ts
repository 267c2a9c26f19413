type Range = readonly [number, number];

/** What a type number says about how a good piece reads on a handheld meter. */
export interface TypeReadings {
  /** The type without its maker's letters: `BC547B`, `1N4148`. */
  readonly type: string;
  /** The type without its gain grade: `BC547`. */
  readonly family: string;
  readonly body: 'diode' | 'transistor';
  readonly polarity: 'NPN' | 'PNP' | null;
  /** Volts on a diode test: what most read, and what a good one may read. */
  readonly forward: { readonly usual: Range; readonly limits: Range } | null;
  /** Gain: the grade's range in the data sheet; `usual` where no grade is printed and one is sold most. */
  readonly gain: { readonly usual: Range; readonly limits: Range } | null;
}

interface Family {
  /** Matches the type at the start of a word; group 1: the family, group 2: the grade, if any. */
  readonly reads: RegExp;
  readonly name: (match: RegExpExecArray) => string;
  readonly body: TypeReadings['body'];
  readonly polarity?: (match: RegExpExecArray) => 'NPN' | 'PNP';
  readonly forward?: TypeReadings['forward'];
  readonly gain?: (grade: string | null) => NonNullable<TypeReadings['gain']>;
}

const same = (range: Range) => ({ usual: range, limits: range });
const graded =
  (grades: Readonly<Record<string, Range>>, plain: Range, usual: Range = plain) =>
  (grade: string | null) => {
    const known = grade === null ? undefined : grades[grade];
    return known ? same(known) : { usual, limits: plain };
  };

/** Gain grades of small transistors, letters and figures (common practice, no source). */
const LETTERS = graded({ A: [110, 220], B: [200, 450], C: [420, 800] }, [110, 800], [200, 450]);
const FIGURES = graded({ '16': [100, 250], '25': [160, 400], '40': [250, 630] }, [100, 630]);

/** Word borders as people write types: `BC 547 B`, `bc547b,`, `2 x BC547B`, a maker's letters and a dash in front. */
const begin = String.raw`(?<![A-Z0-9.])`;
const end = String.raw`(?![0-9])`;

/** Small diodes and transistors of kits (from memory; gains and volts common practice, no source). */
const FAMILIES: readonly Family[] = [
  {
    reads: new RegExp(`${begin}(?:[1IL]N[ -]?(4148|4448|914|4150|4151)|(4148))[A-Z]{0,2}${end}`),
    name: (m) => `1N${m[1] ?? m[2]!}`,
    body: 'diode',
    forward: { usual: [0.6, 0.75], limits: [0.53, 0.78] },
  },
  {
    reads: new RegExp(`${begin}(?:1|I|L)N[ -]?(400[1-7]|540[0-8])[A-Z]?${end}`),
    name: (m) => `1N${m[1]!}`,
    body: 'diode',
    forward: { usual: [0.5, 0.62], limits: [0.45, 0.7] },
  },
  { reads: new RegExp(`${begin}(UF400[1-7]|UF540[0-8]|FR10[1-7]|HER10[1-8])${end}`), name: (m) => m[1]!, body: 'diode', forward: same([0.42, 0.7]) },
  {
    reads: new RegExp(`${begin}(?:1|I|L)N[ -]?(58(?:1[7-9]|2[0-5]))${end}`),
    name: (m) => `1N${m[1]!}`,
    body: 'diode',
    forward: { usual: [0.15, 0.32], limits: [0.1, 0.4] },
  },
  {
    reads: new RegExp(`${begin}(BAT[ -]?\\d{2}|(?:SB|SR|MBR)[ -]?\\d{2,5}|SS[ -]?[1-5]\\d{1,2})[A-Z]{0,2}${end}`),
    name: (m) => m[1]!.replace(/[ -]/, ''),
    body: 'diode',
    forward: { usual: [0.15, 0.38], limits: [0.1, 0.45] },
  },
  {
    reads: new RegExp(`${begin}(1N34|1N60|OA\\d{2,3}|AA\\d{3})A?${end}`),
    name: (m) => m[1]!,
    body: 'diode',
    forward: { usual: [0.2, 0.4], limits: [0.15, 0.5] },
  },
  {
    reads: new RegExp(`${begin}(?:[A-Z]{0,3}?BC|C|B)[ -]?(54[6-9]|550|55[6-9]|560|10[7-9]|17[7-9])[ -]?([ABC])?(?![A-Z0-9])`),
    name: (m) => `BC${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (/^(55[6-9]|560|17)/.test(m[1]!) ? 'PNP' : 'NPN'),
    gain: LETTERS,
  },
  {
    reads: new RegExp(`${begin}(?:[A-Z]{0,3}?BC|C|B)[ -]?(3[23][78])(?:[ -]?(16|25|40))?(?![A-Z0-9])`),
    name: (m) => `BC${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (m[1]!.startsWith('32') ? 'PNP' : 'NPN'),
    gain: FIGURES,
  },
  {
    reads: new RegExp(`${begin}(?:[2Z]N[ -]?|[MP]MBT)(3904|3906|4401|4403|5551|5401|2222|2907|2369)A?(?![A-Z0-9])`),
    name: (m) => `2N${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (['3906', '4403', '5401', '2907'].includes(m[1]!) ? 'PNP' : 'NPN'),
    gain: () => same([100, 300]),
  },
  {
    reads: new RegExp(`${begin}[A-Z]{0,3}[ -]?(901[1-8])(?:[ -]?([A-Z]))?(?![A-Z0-9])`),
    name: (m) => `S${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (['9012', '9015'].includes(m[1]!) ? 'PNP' : 'NPN'),
    gain: () => same([64, 1000]),
  },
  {
    reads: new RegExp(`${begin}[A-Z]{1,3}[ -]?(8050|8550)[A-Z]?(?:[ -]?([BCD]))?(?![A-Z0-9])`),
    name: (m) => `S${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (m[1] === '8550' ? 'PNP' : 'NPN'),
    gain: graded({ B: [85, 160], C: [120, 200], D: [160, 300] }, [85, 400]),
  },
  {
    reads: new RegExp(`${begin}(?:2S)?[ -]?(C1815|A1015|C945|A733)(?:[ -]?(GR|BL|O|Y|P|Q|R|K))?(?![A-Z0-9])`),
    name: (m) => `2S${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (m[1]!.startsWith('A') ? 'PNP' : 'NPN'),
    gain: graded({ O: [70, 140], Y: [120, 240], GR: [200, 400], BL: [350, 700] }, [70, 700]),
  },
  {
    reads: new RegExp(`${begin}(BD1(?:3[5-9]|40))(?:[ -]?(6|10|16))?(?![A-Z0-9])`),
    name: (m) => m[1]!,
    body: 'transistor',
    polarity: (m) => (['BD136', 'BD138', 'BD140'].includes(m[1]!) ? 'PNP' : 'NPN'),
    gain: graded({ '6': [40, 100], '10': [63, 160], '16': [100, 250] }, [25, 300], [40, 250]),
  },
  {
    reads: new RegExp(`${begin}TIP[ -]?(29|3[0-2]|4[12])[ABC]?(?![A-Z0-9])`),
    name: (m) => `TIP${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (['30', '32', '42'].includes(m[1]!) ? 'PNP' : 'NPN'),
    gain: () => ({ usual: [20, 150], limits: [10, 300] }),
  },
  {
    reads: new RegExp(`${begin}(?:2S)?[ -]?(D882|B772)(?:[ -]?(R|Q|P|E))?(?![A-Z0-9])`),
    name: (m) => `2S${m[1]!}`,
    body: 'transistor',
    polarity: (m) => (m[1] === 'B772' ? 'PNP' : 'NPN'),
    gain: graded({ R: [60, 120], Q: [100, 200], P: [160, 320], E: [200, 400] }, [30, 450], [60, 400]),
  },
];

/** The first known diode or transistor type in a text; null where none is. */
export function typeReadings(text: string): TypeReadings | null {
  const upper = text.toUpperCase();
  for (const f of FAMILIES) {
    const match = f.reads.exec(upper);
    if (!match) continue;
    const grade = f.gain ? (match[2] ?? null) : null;
    const family = f.name(match);
    return {
      type: `${family}${grade === null ? '' : /^\d/.test(grade) ? `-${grade}` : grade}`,
      family,
      body: f.body,
      polarity: f.polarity?.(match) ?? null,
      forward: f.forward ?? null,
      gain: f.gain?.(grade) ?? null,
    };
  }
  return null;
}

/** How a printed type stands to a listed one; `grade`: the family is right, another gain grade. */
export type TypeMatch = 'same' | 'grade' | 'other';

/** Compares types as people write them: spaces, dashes, a maker's letters in front and package letters behind do not count. */
export function matchTypes(printed: string, listed: string): TypeMatch {
  const [p, l] = [typeReadings(printed), typeReadings(listed)];
  if (p && l) {
    if (p.family !== l.family) return 'other';
    // A list without a grade takes every grade; a print without one says nothing against the list's.
    return p.type === l.type || p.type === p.family || l.type === l.family ? 'same' : 'grade';
  }
  if (p || l) return 'other';
  const key = (t: string) => t.toUpperCase().replace(/[^A-Z0-9]/g, '');
  const core = (t: string) => key(t).replace(/^[A-Z]{1,3}(?=\d{3})/, '');
  const [a, b] = [core(printed), core(listed)];
  if (a === '' || b === '') return 'other';
  const [short, long] = a.length < b.length ? [a, b] : [b, a];
  return key(printed) === key(listed) || (/\d{3}/.test(short) && long.startsWith(short) && /^[A-Z]*$/.test(long.slice(short.length))) ? 'same' : 'other';
}
