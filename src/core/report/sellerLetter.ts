import { deriveTray, expectationOf, type KitState, meterOf } from '../kit';
import { print } from '../quantity';

/** What is missing and what is wrong in the bag, with the readings as evidence, as Markdown. Null when there is nothing to write about. */
export function sellerLetter(kit: KitState): string | null {
  const tray = deriveTray(kit);
  const short = tray.filter((c) => c.counted !== null && c.counted < c.line.quantity);
  const wrong = tray.flatMap((c) => c.pieces.filter((p) => p.verdict === 'out' && p.entry).map((p) => ({ line: c.line, piece: p })));
  if (short.length === 0 && wrong.length === 0) return null;
  const meter = meterOf(kit);
  const out = [
    `Subject: ${kit.sheet.title}${kit.sheet.edition ? `, ${kit.sheet.edition}` : ''}: parts missing or wrong`,
    '',
    'Hello,',
    '',
    `I have unpacked the kit **${kit.sheet.title}** and checked every part against the list.`,
    '',
  ];
  if (short.length > 0)
    out.push(
      'Missing:',
      '',
      ...short.map(
        (c) =>
          `- ${c.line.quantity - c.counted!} × ${c.line.label} (${c.line.refs.join(', ') || 'no position'}): ${c.line.quantity} on the list, ${c.counted!} in the bag`,
      ),
      '',
    );
  if (wrong.length > 0) {
    out.push('Wrong, measured out of circuit:', '', '| position | listed | limits | reads |', '|---|---|---|---|');
    for (const { line, piece } of wrong) {
      const unit = expectationOf(line)?.unit ?? null;
      const limits = piece.reckoning ? `${print(piece.reckoning.low, unit)} to ${print(piece.reckoning.high, unit)}` : '';
      const reads = piece.reckoning ? `${print(piece.reckoning.corrected, unit)} ± ${print(piece.reckoning.halfWidth, unit, 2)}` : 'over-range';
      out.push(`| ${piece.ref ?? 'spare'} | ${line.label} | ${limits} | ${reads} |`);
    }
    out.push('', `Meter: ${meter.name}.`, '');
  }
  out.push('Could you please send what is needed? I keep the wrong parts until you answer.', '', 'Kind regards');
  return out.join('\n');
}
