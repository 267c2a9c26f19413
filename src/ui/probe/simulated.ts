import { observableOfTarget, type Target } from '@/core/loop';
import type { KitState, ReadingValue } from '@/core/kit';
import { ask } from '@/store/results';

const UNIT_OF_LOOSE = { R: '', C: 'F', L: 'H', D: 'V', LED: 'V', Q: '', X: '' } as const;

/** What the simulated meter shows at a target, what the simulated board does, or null where it has nothing to say. */
export async function readSimulated(kit: KitState, target: Target): Promise<ReadingValue | boolean | null> {
  switch (target.kind) {
    case 'count':
      return ask('countPieces', kit, target.line.id);
    case 'piece':
      return ask('readPiece', kit, { line: target.line.id, piece: target.piece });
    case 'prepare':
      return true;
    case 'fit':
    case 'inspect':
    case 'trace':
    case 'loose':
      return null;
    default: {
      const observable = observableOfTarget(target);
      if (observable) return ask('readBoard', kit, { stage: target.stage.id, observable });
      return target.kind === 'check' ? ask('watchBoard', kit, { stage: target.stage.id, check: target.check.id }) : null;
    }
  }
}

/** The next piece of the simulated bag as somebody would type it: print, then reading. Null when the bag is empty. */
export async function drawFromBag(kit: KitState, number: number): Promise<string | null> {
  const piece = await ask('drawLoose', kit, number);
  if (!piece) return null;
  const marking = typeof piece.marking === 'string' ? piece.marking.replace(/\s+(?=[µn]?F|V\b)/g, '') : '';
  const reading = piece.reading === null ? '' : piece.reading === 'over' ? 'OL' : `${String(piece.reading)}${UNIT_OF_LOOSE[piece.part]}`;
  return [piece.part.toLowerCase(), marking, piece.polarity ?? '', reading].filter(Boolean).join(' ');
}
