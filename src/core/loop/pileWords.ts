import type { KitState, Line } from '../kit';
import type { LoosePiece, Pattern } from '../parcel';
import { print } from '../quantity';
import { LOOSE_FACTS, unitOf } from '../vocabulary';
import type { Pile } from './pile';
import type { SortedPile } from './sortPile';
import { lineTitle } from './lineWords';

const lineAt = (kit: KitState, number: number): Line => kit.sheet.lines[number - 1]!;
const times = (count: number, name: string) => (count === 1 ? `one ${name}` : `${count} × ${name}`);

/** A loose piece in few words: what it reads, else what is printed on it. */
export function pieceName(p: LoosePiece): string {
  if (p.value !== null) return print(p.value, unitOf(LOOSE_FACTS[p.kind].mode), 3);
  if (p.marking !== null) return typeof p.marking === 'string' ? p.marking : p.marking.join(' ');
  return 'over-range';
}

/** A pattern of the bag in a sentence, and what to do about it. */
export function patternText(kit: KitState, pile: Pile, pattern: Pattern): { readonly title: string; readonly advice: string } {
  const piece = (id: string) => pile.pieces.find((p) => p.id === id);
  switch (pattern.kind) {
    case 'wrong-value': {
      const line = lineAt(kit, pattern.line);
      const first = piece(pattern.pieces[0]!);
      const off =
        pattern.decades === null ? '' : ` ${pattern.decades > 0 ? 'One band too high' : 'One band too low'} by a factor of ${10 ** Math.abs(pattern.decades)}:`;
      return {
        title: `${times(pattern.count, lineTitle(line))} missing, ${times(pattern.count, first ? pieceName(first) : 'unlisted piece')} too many`,
        advice:
          `${off || ' '} a wrong value in the bag, not a miscount. Do not fit it for ${line.refs.join(', ') || lineTitle(line)}; ask the seller for the right one.`.trim(),
      };
    }
    case 'exchanged': {
      const [short, over] = [lineAt(kit, pattern.missing), lineAt(kit, pattern.surplus)];
      return {
        title: `${times(pattern.count, lineTitle(short))} missing, ${times(pattern.count, lineTitle(over))} too many`,
        advice: 'A value of the list was packed in place of another. Measure one of each again before you write to the seller.',
      };
    }
    case 'missing': {
      const line = lineAt(kit, pattern.line);
      return {
        title: `${times(pattern.count, lineTitle(line))} missing`,
        advice: `Look for a second small packet and in the paper tape before you write to the seller.`,
      };
    }
    case 'spare':
      return { title: `${times(pattern.count, lineTitle(lineAt(kit, pattern.line)))} spare`, advice: 'Label it and keep it.' };
    case 'stranger': {
      const first = piece(pattern.pieces[0]!);
      return {
        title: `${times(pattern.pieces.length, first ? pieceName(first) : 'piece')} on no line`,
        advice: 'Not on the list. Keep it apart: it may be a spare of another kit, or replace something missing.',
      };
    }
  }
}

/** The one measurement or look that would settle the least sure place; null when all are sure. */
export function settlingStep(kit: KitState, pile: Pile, { sorted, doubts }: SortedPile): string | null {
  const worst = [...doubts].sort((a, b) => a.probability - b.probability)[0];
  const piece = worst && pile.pieces.find((p) => p.id === worst.piece);
  if (!worst || !piece) return null;
  const here = sorted.assignment[piece.id] ?? null;
  const name = (line: number | null) => (line === null ? 'no line' : lineTitle(lineAt(kit, line)));
  return `${pieceName(piece)} may belong to ${name(here)} (${Math.round(100 * worst.probability)} %) or to ${name(worst.instead)}. ${howToSettle(piece)}`;
}

function howToSettle(piece: LoosePiece): string {
  switch (piece.kind) {
    case 'LED':
      return 'Light it for a moment with a coin cell: the colour tells.';
    case 'Q':
      return piece.polarity === null ? 'A component tester tells NPN from PNP and shows its gain.' : 'Read the type on the flat side with a lens.';
    case 'D':
      return piece.value === null ? 'Measure its forward voltage.' : 'Read the print on the glass with a lens.';
    default:
      if (piece.value === null) return 'Measure it.';
      return piece.marking === null ? 'Read its marking, if only half of it.' : 'Measure it on a finer range or with a better meter.';
  }
}
