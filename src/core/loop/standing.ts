import { deriveWaiting, isOfMaking, type KitState, stands } from '../kit';
import { entryText } from './logText';
import { lineTitle } from './lineWords';
import { firstOpenPhase } from './phases';
import { fitTargets } from './fitTargets';
import type { Phase, Target } from './target';
import { checkTargets, countTargets, currentTarget, pieceTargets } from './targets';

/** Where one was in a kit, for whoever comes back to it. */
export interface Standing {
  readonly last: string | null;
  readonly phase: Phase;
  readonly next: string;
  readonly waiting: string | null;
}

const LONGEST = 120;

const nameOf = (t: Target): string => {
  switch (t.kind) {
    case 'count':
      return `count ${lineTitle(t.line)}`;
    case 'piece':
      return `measure ${t.ref ?? lineTitle(t.line)}`;
    case 'fit':
      return `fit ${t.refs.slice(0, 4).join(' ')}`;
    case 'check':
      return `${t.stage.title}: ${t.check.title}`;
    case 'prepare':
      return `make ready: ${t.stage.title}`;
    case 'inspect':
      return `look: ${t.item.title}`;
    case 'trace':
      return `trace ${t.pads.join(' to ')}`;
    case 'loose':
    case 'probe':
      return 'go on reading';
  }
};

/** What is waited for, and until when where that is known: a day, or the time of a day. */
function waitingOf(kit: KitState): string | null {
  const waiting = deriveWaiting(kit);
  if (!waiting) return null;
  return waiting.until === undefined ? waiting.reason : `${waiting.reason}, until ${waiting.until.replace(/T(\d\d:\d\d).*/, ' $1 UTC')}`;
}

/** Last done, next, and what is waited for. Windows are not worked out for it: a stage's next check is the first unread one. */
export function standingOf(kit: KitState): Standing {
  const phase = firstOpenPhase(kit, {});
  const states = { unpack: countTargets, check: pieceTargets, fit: fitTargets, power: (k: KitState) => checkTargets(k, {}) };
  const target = phase in states ? currentTarget(states[phase as keyof typeof states](kit), null) : null;
  let last: string | null = null;
  for (let i = kit.log.length - 1; i >= 0 && last === null; i--) {
    const e = kit.log[i]!;
    if (e.kind !== 'withdrawn' && stands(kit, e) && !isOfMaking(kit, e)) last = entryText(kit, e).slice(0, LONGEST);
  }
  if (kit.finished !== null && kit.finished.at > (kit.change?.at ?? -1)) return { last, phase: 'log', next: 'finished', waiting: waitingOf(kit) };
  return { last, phase, next: target ? nameOf(target) : phase === 'log' ? 'look at the logbook' : 'go on', waiting: waitingOf(kit) };
}
