import { diagnoserOf, findSuspects, investigate, investigationInputs } from '@/core/diagnose';
import { type Fault, faultKey, mendedAt } from '@/core/fault';
import { type EntryBody, extend, type KitState, type ReadingValue } from '@/core/kit';
import { currentStage, deriveStages } from '@/core/loop';
import { allWindows, windowInputs } from '@/core/stage';
import { readBoard, watchBoard } from './board';
import { hiddenFaults, practiceOf } from './practice';

/** One reading of a round, and who leads after it. */
export interface PlayedStep {
  readonly observable: string;
  readonly reading: ReadingValue;
  /** Null while the stages are read in their order: nobody is suspected before one is out. */
  readonly lead: { readonly faults: readonly Fault[]; readonly probability: number } | null;
}

/** A suspect that was looked at when no reading told more, and whether it was to blame. */
export interface PlayedLook {
  readonly faults: readonly Fault[];
  readonly right: boolean;
}

export interface Played {
  readonly steps: readonly PlayedStep[];
  readonly looks: readonly PlayedLook[];
  readonly kit: KitState;
}

/** From here on a suspect is taken for the fault (as the screen does). */
const SETTLED = 0.8;
const MOST_PROPOSED = 14;
const MOST_LOOKS = 5;

/**
 * A practice round as the program would play it by its own advice: the stages in order until one is out, then the readings
 * that it proposes until one suspect leads with 80 %; then the suspects are looked at, the first one first.
 */
export function playRound(fresh: KitState): Played {
  let kit = fresh;
  let stamp = 0;
  const write = (body: EntryBody) => {
    stamp++;
    kit = extend(kit, { ...body, id: `play-${stamp}`, at: new Date(Date.parse(fresh.created) + 1000 * stamp).toISOString() });
  };
  const inputs = windowInputs(kit);
  const windows = inputs ? allWindows(inputs) : {};
  const steps: PlayedStep[] = [];
  const take = (stageId: string, observable: string): ReadingValue | null => {
    const stage = kit.sheet.stages.find((s) => s.id === stageId)!;
    const place = observable.slice(stageId.length + 1);
    const reading = readBoard(practiceOf(kit), stage, observable);
    if (reading === null) return null;
    const { meter } = kit.settings;
    write(
      place.startsWith('@')
        ? { kind: 'probed', stage: stageId, testPoint: place.slice(1), reading, meter }
        : { kind: 'read', stage: stageId, check: place, reading, meter },
    );
    return reading;
  };

  for (let before = -1; before < kit.log.length;) {
    before = kit.log.length;
    const here = currentStage(deriveStages(kit, windows));
    if (!here || here.status === 'failed') break;
    for (const { check } of here.checks) {
      if (check.what === 'measure') {
        const observable = `${here.stage.id}/${check.id}`;
        const reading = take(here.stage.id, observable);
        if (reading !== null) steps.push({ observable, reading, lead: null });
      } else {
        const asExpected = watchBoard(practiceOf(kit), here.stage, check);
        for (const channel of check.channels ?? [undefined])
          write({ kind: 'observed', stage: here.stage.id, check: check.id, asExpected, ...(channel === undefined ? {} : { channel }) });
      }
      if (deriveStages(kit, windows).some((s) => s.status === 'failed')) break;
    }
  }

  const diagnosers = new Map<string, ReturnType<typeof diagnoserOf>>();
  const findingsNow = () => {
    const gathered = investigationInputs(kit);
    const investigation = gathered && investigate(gathered);
    if (!investigation) return null;
    const diagnoser = diagnosers.get(investigation.key) ?? diagnoserOf(investigation);
    diagnosers.set(investigation.key, diagnoser);
    diagnoser.weigh(investigation.prior);
    return findSuspects(investigation, diagnoser);
  };
  for (let proposed = 0; ; proposed++) {
    const findings = findingsNow();
    if (!findings) break;
    const top = findings.suspects[0];
    const last = steps.at(-1);
    if (last && top) steps[steps.length - 1] = { ...last, lead: { faults: top.faults, probability: top.probability } };
    if (!findings.next || proposed >= MOST_PROPOSED || (top && top.probability >= SETTLED)) break;
    const [stageId = ''] = findings.next.id.split('/');
    const reading = take(stageId, findings.next.id);
    if (reading === null) break;
    steps.push({ observable: findings.next.id, reading, lead: null });
  }

  const guilty = new Set(hiddenFaults(kit.settings.standIn).flatMap(mendedAt));
  const looks: PlayedLook[] = [];
  while (looks.length < MOST_LOOKS && !looks.at(-1)?.right) {
    const suspect = findingsNow()?.suspects.find((s) => s.faults.length > 0 && !looks.some((l) => sameFaults(l.faults, s.faults)));
    if (!suspect) break;
    const right = suspect.faults.some((f) => mendedAt(f).some((place) => guilty.has(place)));
    looks.push({ faults: suspect.faults, right });
    if (!right) for (const fault of suspect.faults) write({ kind: 'ruled-out', fault });
  }
  return { steps, looks, kit };
}

const sameFaults = (a: readonly Fault[], b: readonly Fault[]) => a.map(faultKey).join() === b.map(faultKey).join();
