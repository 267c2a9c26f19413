/**
 * Rows of plain numbers as people type them: parted by blanks, tabs, semicolons or commas; a decimal comma where blanks part.
 * @throws Error that names the line
 */
export function readRows(text: string, least: number): number[][] {
  return text.split(/\r?\n/).flatMap((line, i): number[][] => {
    if (line.trim() === '') return [];
    const parted = /[;\t ]/.test(line.trim()) ? line.trim().split(/[;\t ]+/) : line.trim().split(',');
    const cells = parted.map((c) => c.replace(/,$/, '')).filter((c) => c !== '');
    const numbers = cells.map((c) => Number(c.replace(',', '.')));
    if (numbers.length < least || numbers.some((n) => !Number.isFinite(n)))
      throw new Error(`Line ${i + 1} needs ${least} numbers or more: “${line.trim().slice(0, 40)}”.`);
    return [numbers];
  });
}
