/** `5%`, `±5 %`, `-20/+80%`; null when nothing is given. */
export function readTolerance(text: string): [number, number] | null {
  const both = /-\s*([\d.,]+)\s*%?\s*\/\s*\+\s*([\d.,]+)\s*%?/.exec(text);
  if (both) return [-percent(both[1]!), percent(both[2]!)];
  const one = /([\d.,]+)\s*%?/.exec(text);
  if (!one) return null;
  const share = percent(one[1]!);
  return share > 0 ? [-share, share] : null;
}

const percent = (text: string) => Number(text.replace(',', '.')) / 100;

/** `±5 %`, or `−20 / +80 %` when the limits differ. */
export function printTolerance([low, high]: readonly [number, number]): string {
  const shown = (share: number) => String(Math.round(Math.abs(share) * 1000) / 10);
  return low === -high ? `±${shown(high)} %` : `−${shown(low)} / +${shown(high)} %`;
}
