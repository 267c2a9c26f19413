const NUMBER = '(\\d+(?:[.,]\\d+)?|[.,]\\d+)';
const MINUS = '[-−–]';
/** `-20/+80 %`, `+80/-20%`, `−20 % / +80 %`, in running words too: a percent sign stands somewhere in it. */
const UNEQUAL: readonly RegExp[] = [
  new RegExp(`(?<![\\d.,])${MINUS}\\s*(?<low>${NUMBER})\\s*%?\\s*[/,]?\\s*\\+\\s*(?<high>${NUMBER})\\s*%`),
  new RegExp(`(?<![\\d.,])${MINUS}\\s*(?<low>${NUMBER})\\s*%\\s*[/,]?\\s*\\+\\s*(?<high>${NUMBER})`),
  new RegExp(`\\+\\s*(?<high>${NUMBER})\\s*%?\\s*[/,]?\\s*${MINUS}\\s*(?<low>${NUMBER})\\s*%`),
  new RegExp(`\\+\\s*(?<high>${NUMBER})\\s*%\\s*[/,]?\\s*${MINUS}\\s*(?<low>${NUMBER})`),
];
const EQUAL = new RegExp(`(?:±|\\+\\s*/?\\s*${MINUS})?\\s*${NUMBER}\\s*%`);

const percent = (text: string) => Number(text.replace(',', '.').replace(/^\./, '0.'));

export interface FoundTolerance {
  /** Percent, such as −20 and 80. */
  readonly percent: readonly [number, number];
  /** The text that says so. */
  readonly text: string;
}

/** The first tolerance that stands in a text, with its percent sign; null without one. */
export function findTolerance(text: string): FoundTolerance | null {
  for (const pattern of UNEQUAL) {
    const match = pattern.exec(text);
    if (match) return { percent: [-percent(match.groups!['low']!), percent(match.groups!['high']!)], text: match[0] };
  }
  const one = EQUAL.exec(text);
  return one ? { percent: [-percent(one[1]!), percent(one[1]!)], text: one[0] } : null;
}

/** What a tolerance cell says, with or without a percent sign: `5%`, `±5 %`, `10`, `-20/+80%`, `+80/-20`; null when nothing is given. */
export function readTolerance(text: string): [number, number] | null {
  const found = findTolerance(text) ?? findTolerance(`${text.trim()}%`);
  if (!found) return null;
  const [low, high] = found.percent;
  return high > 0 || low < 0 ? [low / 100, high / 100] : null;
}

/** `±5 %`, or `−20 / +80 %` when the limits differ. */
export function printTolerance([low, high]: readonly [number, number]): string {
  const shown = (share: number) => String(Math.round(Math.abs(share) * 1000) / 10);
  return low === -high ? `±${shown(high)} %` : `−${shown(low)} / +${shown(high)} %`;
}
