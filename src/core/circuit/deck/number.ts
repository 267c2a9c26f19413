/** Scale suffixes of SPICE numbers; `m` is milli and `meg` mega, whatever the case. */
const SUFFIX: readonly (readonly [string, number])[] = [
  ['meg', 1e6],
  ['mil', 25.4e-6],
  ['t', 1e12],
  ['g', 1e9],
  ['k', 1e3],
  ['m', 1e-3],
  ['u', 1e-6],
  ['µ', 1e-6],
  ['μ', 1e-6],
  ['n', 1e-9],
  ['p', 1e-12],
  ['f', 1e-15],
];

const NUMBER = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-zµμΩω%]*)$/i;

/**
 * Reads a SPICE number such as `4.7k`, `10MEG`, `100nF`, `1e-6`.
 * Letters after the suffix are a unit and are ignored; returns null when the text is no number.
 */
export function readSpiceNumber(text: string): number | null {
  const match = NUMBER.exec(text);
  if (!match) return null;
  const base = Number(match[1]);
  if (!Number.isFinite(base)) return null;
  const tail = (match[2] ?? '').toLowerCase();
  const suffix = SUFFIX.find(([s]) => tail.startsWith(s));
  return suffix ? Number((base * suffix[1]).toPrecision(15)) : base;
}

/** Writes a value so that every SPICE reads it back: plain exponent form, no suffix traps. */
export function writeSpiceNumber(value: number): string {
  return String(Number(value.toPrecision(12)));
}
