import type { KitState } from '../kit';
import { currentStage, deriveStages, type KnownWindows, isBehind } from './progress';
import type { Phase, TargetState } from './target';
import { countTargets, pieceTargets } from './targets';
import { everythingFitted } from './unlisted';

/** The phases of the work, in its order. */
export const PHASES = ['unpack', 'check', 'fit', 'power', 'fault', 'log'] as const satisfies readonly Phase[];
export type WorkPhase = (typeof PHASES)[number];

/** How far a phase is: `nothing` where this kit gives it nothing to do, so that nothing is called done that never was. */
export interface PhaseProgress {
  readonly state: 'nothing' | 'open' | 'done' | 'stopped';
  readonly left: number;
  readonly total: number;
  /** What is left, in words for a screen reader and a tooltip. */
  readonly text: string;
}

const NOTHING: PhaseProgress = { state: 'nothing', left: 0, total: 0, text: '' };

function counted(states: readonly TargetState[], noun: string, without: string): PhaseProgress {
  const left = states.filter((s) => !s.done).length;
  const total = states.length;
  if (total === 0) return { ...NOTHING, text: without };
  return { state: left === 0 ? 'done' : 'open', left, total, text: left === 0 ? 'done' : `${left} of ${total} ${noun} to go` };
}

/** What is left in every phase, in numbers. */
export function phaseProgress(kit: KitState, windows: KnownWindows): Readonly<Record<WorkPhase, PhaseProgress>> {
  const stages = deriveStages(kit, windows);
  const here = currentStage(stages);
  const forTest = kit.board.modifications.filter((m) => m.temporary).length;
  const passed = stages.filter((s) => isBehind(s.status)).length;
  const power: PhaseProgress =
    stages.length === 0
      ? { ...NOTHING, text: 'no stages yet' }
      : {
          state: here === null ? (forTest > 0 ? 'open' : 'done') : here.status === 'failed' ? 'stopped' : 'open',
          left: stages.length - passed + (here === null ? forTest : 0),
          total: stages.length,
          text:
            here === null
              ? forTest > 0
                ? `${forTest} ${forTest === 1 ? 'change that was' : 'changes that were'} for a test to take back`
                : 'done'
              : here.status === 'failed'
                ? `stopped at “${here.stage.title}”`
                : `${stages.length - passed} of ${stages.length} stages to go`,
        };
  return {
    unpack: counted(countTargets(kit), 'lines', 'no parts list yet'),
    check: counted(pieceTargets(kit), 'pieces', 'nothing that a meter could measure'),
    fit: counted(everythingFitted(kit), 'lines', 'no positions on the list'),
    power,
    fault: here?.status === 'failed' ? { state: 'open', left: 1, total: 1, text: `“${here.stage.title}” does not read as a healthy board` } : NOTHING,
    log: NOTHING,
  };
}

/** Where to begin: the first phase with something left to do. */
export function firstOpenPhase(kit: KitState, windows: KnownWindows): Phase {
  const progress = phaseProgress(kit, windows);
  return PHASES.find((p) => progress[p].state === 'open') ?? (progress.power.state === 'nothing' ? 'log' : 'power');
}
