import type { EntryBody, KitState, ReadingValue } from '../kit';
import { parseDisplay } from '../quantity';
import type { TargetCard } from './cards';
import { bareFigure } from './bareFigure';
import { readPileEntry } from './pileEntry';
import type { Target } from './target';

const MOST_PIECES = 10_000;

/** The log entry for what was typed at a target, or a sentence about what is wrong with it. */
export function entryOf(kit: KitState, target: Target, card: TargetCard, text: string): EntryBody | string {
  if (target.kind === 'count') return countOf(target.line.id, target.line.quantity, text);
  if (target.kind === 'loose') {
    const unclear = bareFigure(kit, target.part, text);
    if (unclear !== null) return unclear;
    const read = readPileEntry(text, target.part);
    return read.ok ? { kind: 'loose', ...read.body, meter: kit.settings.meter } : `${read.message}.`;
  }
  if (!card.unit) return 'Press Enter when it is done.';
  const parsed = parseDisplay(text, card.unit);
  if (!parsed.ok) return `${parsed.message} (character ${parsed.at + 1}).`;
  const reading: ReadingValue = parsed.kind === 'over' ? 'over' : parsed.value;
  const { meter } = kit.settings;
  switch (target.kind) {
    case 'piece':
      return {
        kind: 'measured',
        line: target.line.id,
        piece: target.piece,
        ...(target.ref ? { ref: target.ref } : {}),
        mode: target.expected.mode,
        reading,
        meter,
      };
    case 'check':
      return { kind: 'read', stage: target.stage.id, check: target.check.id, reading, meter };
    case 'probe':
      return { kind: 'probed', stage: target.stage.id, testPoint: target.testPoint.id, reading, meter };
    case 'fit':
    case 'inspect':
    case 'trace':
    case 'prepare':
      return 'Press Enter when it is done.';
  }
}

/** An empty field means "as listed". */
function countOf(line: string, listed: number, text: string): EntryBody | string {
  const quantity = text.trim() === '' ? listed : Number(text.trim());
  if (!Number.isInteger(quantity) || quantity < 0 || quantity > MOST_PIECES) return `"${text}" is not a count. Type a whole number, 0 if there is none.`;
  return { kind: 'counted', line, quantity };
}

/** The entry for an answer that needs no typing: fitted, or an observation as expected or not, a look, a beep. */
export function answerOf(target: Target, asExpected: boolean): EntryBody | null {
  if (target.kind === 'fit') return { kind: 'fitted', refs: [...target.refs] };
  if (target.kind === 'inspect') return { kind: 'inspected', item: target.item.id, title: target.item.title, good: asExpected };
  if (target.kind === 'prepare')
    return asExpected
      ? {
          kind: 'prepared',
          stage: target.stage.id,
          confirmed: [...target.open.map((p) => `open: ${p.text}`), ...target.presets].join('; '),
          ...(target.open.length > 0 ? { open: target.open.map(({ kind, refs }) => ({ kind, refs: [...refs] })) } : {}),
        }
      : null;
  if (target.kind === 'trace') return { kind: 'traced', pads: [...target.pads], nets: [...target.nets], drawn: target.drawn, beep: asExpected };
  if (target.kind !== 'check' || target.check.what !== 'observe') return null;
  const base = { kind: 'observed', stage: target.stage.id, check: target.check.id, asExpected } as const;
  return target.channel ? { ...base, channel: target.channel } : base;
}
