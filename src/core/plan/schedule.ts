import { type Entry, isSeenTo, type KitState, stands } from '../kit';
import { fittingFacts } from './bodies';
import type { Plan, PlanStep } from './plan';

export interface Sitting {
  readonly steps: readonly PlanStep[];
  readonly minutes: number;
  /** Why it ends there. */
  readonly ends: 'stage passed' | 'time is up' | 'all done';
}

export interface Schedule {
  /** Own pace against the usual one: 2 is twice as slow. Null until enough was fitted. */
  readonly pace: number | null;
  readonly minutesLeft: number;
  readonly sittings: readonly Sitting[];
}

/** Fewest steps from which a pace is read; what is longer apart than this was a break (minutes). Own figures. */
const FEWEST_STEPS = 5;
const A_BREAK = 20;
/** A sitting may run over to the end of a stage by this part. */
const RUN_OVER = 0.25;

/** What is left, in sittings that end at a sensible point. */
export function scheduleOf(kit: KitState, plan: Plan, passed: ReadonlySet<string>): Schedule {
  const pace = paceOf(kit);
  const left = plan.steps
    .map((s) => ({ ...s, minutes: s.minutes * (pace ?? 1) }))
    .filter((s) =>
      s.kind === 'fit'
        ? s.refs.some((r) => !isSeenTo(kit.board, r))
        : s.kind === 'stage'
          ? !passed.has(s.stage.id)
          : s.chips.some((r) => !isSeenTo(kit.board, r)),
    );
  const sittings: Sitting[] = [];
  let steps: PlanStep[] = [];
  let minutes = 0;
  const close = (ends: Sitting['ends']) => {
    if (steps.length > 0) sittings.push({ steps, minutes, ends });
    [steps, minutes] = [[], 0];
  };
  for (const step of left) {
    const over = minutes + step.minutes > kit.settings.sitting;
    const allowed = step.kind === 'stage' ? kit.settings.sitting * (1 + RUN_OVER) : kit.settings.sitting;
    if (over && minutes + step.minutes > allowed) close(steps.at(-1)?.kind === 'stage' ? 'stage passed' : 'time is up');
    steps.push(step);
    minutes += step.minutes;
    if (step.kind === 'stage' && minutes > kit.settings.sitting * (1 - RUN_OVER)) close('stage passed');
  }
  close('all done');
  return { pace, minutesLeft: left.reduce((sum, s) => sum + s.minutes, 0), sittings };
}

/** Median of minutes taken over minutes usual, from entries that follow one another without a break. */
function paceOf(kit: KitState): number | null {
  const lineOf = new Map(kit.sheet.lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const fitted = kit.log.filter((e): e is Extract<Entry, { kind: 'fitted' }> => e.kind === 'fitted' && stands(kit, e));
  const ratios = fitted.slice(1).flatMap((e, i) => {
    const taken = (Date.parse(e.at) - Date.parse(fitted[i]!.at)) / 60_000;
    const usual = e.refs.reduce((sum, r) => sum + (lineOf.has(r) ? fittingFacts(lineOf.get(r)!).minutes : 0), 0);
    return usual > 0 && taken > 0.05 && taken < Math.max(A_BREAK, 5 * usual) ? [taken / usual] : [];
  });
  if (ratios.length < FEWEST_STEPS) return null;
  const sorted = ratios.sort((a, b) => a - b);
  return Math.min(5, Math.max(0.2, sorted[sorted.length >> 1]!));
}
