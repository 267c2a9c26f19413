import { type Compartment, deriveStrangers, deriveTray, expectationOf, type KitState, type LoosePiece, type Piece } from '../kit';
import { type DoubtfulLine, doubtfulLines, type WholeKit, wholeKit } from '../genuine';
import { judgeClaim } from '../load';
import { print } from '../quantity';
import { LOOSE_FACTS, unitOf } from '../vocabulary';

interface Wrong {
  readonly line: Compartment['line'];
  readonly piece: Piece;
  readonly meter: string;
}

/** What is missing and what is wrong in the bag, with the readings as evidence, as Markdown. Null when there is nothing to write about. */
export function sellerLetter(kit: KitState): string | null {
  const tray = deriveTray(kit);
  const short = tray.filter((c) => c.counted !== null && c.counted < c.line.quantity);
  const wrong = tray.flatMap(({ line, pieces }) =>
    pieces.flatMap((piece): Wrong[] => {
      const measured = kit.tallies.get(line.id)?.pieces.get(piece.index);
      return piece.verdict === 'out' && measured ? [{ line, piece, meter: measured.meter.name }] : [];
    }),
  );
  const strangers = deriveStrangers(kit);
  const copies = doubtfulLines(kit).filter((d) => d.fake >= PROBABLY);
  const impossible = kit.sheet.claims.flatMap((c) => (c.means && !judgeClaim(c.means).possible ? [`- “${c.text}”: ${judgeClaim(c.means).text}.`] : []));
  if (short.length === 0 && wrong.length === 0 && strangers.length === 0 && copies.length === 0 && impossible.length === 0) return null;
  const meters = [...new Set([...wrong.map((w) => w.meter), ...strangers.filter((s) => s.entry.reading !== null).map((s) => s.meter.name)])];
  return [
    `Subject: ${kit.sheet.title}${kit.sheet.edition ? `, ${kit.sheet.edition}` : ''}: parts missing or wrong`,
    '',
    'Hello,',
    '',
    `I have unpacked the kit **${kit.sheet.title}**: ${done(tray)}.`,
    '',
    ...missing(short),
    ...wrongOnes(wrong),
    ...strange(strangers, kit.sheet),
    ...doubted(copies),
    ...wholly(wholeKit(kit)),
    ...(impossible.length > 0 ? ['Claimed, but not possible with these parts:', '', ...impossible, ''] : []),
    ...(meters.length > 0 ? [`${meters.length === 1 ? 'Meter' : 'Meters'}: ${meters.join('; ')}.`, ''] : []),
    'Could you please send what is needed? I keep the wrong parts until you answer.',
    '',
    'Kind regards',
  ].join('\n');
}

function missing(short: readonly Compartment[]): string[] {
  if (short.length === 0) return [];
  const item = ({ line, counted }: Compartment) =>
    `- ${line.quantity - counted!} × ${line.label} (${line.refs.join(', ') || 'no position'}): ${line.quantity} on the list, ${counted!} in the bag`;
  return ['Missing:', '', ...short.map(item), ''];
}

function wrongOnes(wrong: readonly Wrong[]): string[] {
  if (wrong.length === 0) return [];
  const row = ({ line, piece }: Wrong) => {
    const unit = expectationOf(line)?.unit ?? null;
    const limits = piece.reckoning ? `${print(piece.reckoning.low, unit)} to ${print(piece.reckoning.high, unit)}` : '';
    const reads = piece.reckoning ? `${print(piece.reckoning.corrected, unit)} ± ${print(piece.reckoning.halfWidth, unit, 2)}` : 'over-range';
    return `| ${piece.ref ?? 'spare'} | ${line.label} | ${limits} | ${reads} |`;
  };
  return ['Wrong, measured out of circuit:', '', '| position | listed | limits | reads |', '|---|---|---|---|', ...wrong.map(row), ''];
}

/** From here on a seller is asked about it. */
const PROBABLY = 0.5;

function doubted(copies: readonly DoubtfulLine[]): string[] {
  if (copies.length === 0) return [];
  const item = ({ line, evidence }: DoubtfulLine) => {
    const signs = evidence.filter((e) => e.seen && e.ratio > 1).map((e) => e.title);
    return `- ${line.label} (${line.refs.join(', ') || 'no position'}): ${signs.join('; ')}`;
  };
  return ['I doubt whether these are genuine:', '', ...copies.map(item), ''];
}

/** Several copies in one parcel are no accident. */
const wholly = (whole: WholeKit | null): string[] =>
  whole && whole.copies >= 2 ? [`Of ${whole.examined} parts that I examined ${whole.copies} are probably copies: I doubt the kit as a whole.`, ''] : [];

/** Pieces that belong to no line: often a wrong value in place of something missing. */
function strange(strangers: readonly LoosePiece[], sheet: KitState['sheet']): string[] {
  if (strangers.length === 0) return [];
  const item = ({ entry: e }: LoosePiece) => {
    const listed = sheet.lines.find((l) => l.id === e.instead);
    const { word, mode } = LOOSE_FACTS[e.part];
    const printed = e.marking === null ? '' : `, marked ${typeof e.marking === 'string' ? e.marking : e.marking.join(' ')}`;
    const reads = e.reading === null ? '' : e.reading === 'over' ? ', reads over-range' : `, reads ${print(e.reading, unitOf(mode))}`;
    return `- ${/^[aeiouL]/.test(word) ? 'an' : 'a'} ${word}${printed}${reads}${listed ? `, in place of ${listed.label}` : ''}`;
  };
  return ['In the bag, but not on the list:', '', ...strangers.map(item), ''];
}

/** Only what was done is claimed: lines counted, pieces measured. */
function done(tray: readonly Compartment[]): string {
  const pieces = tray.flatMap((c) => c.pieces);
  const measured = pieces.filter((p) => p.entry !== null).length;
  return `${tray.filter((c) => c.counted !== null).length} of ${tray.length} lines counted, ${measured} of ${pieces.length} pieces measured`;
}
