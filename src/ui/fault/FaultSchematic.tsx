import { useMemo } from 'react';
import { faultySuspects, type Findings } from '@/core/diagnose';
import type { KitState } from '@/core/kit';
import { deriveStages } from '@/core/loop';
import { StageSchematic } from '../circuit/StageSchematic';
import { Nothing } from '../drawn/Nothing';
import type { Loop } from '../probe/useLoop';
import { useWindows } from '../results/useWindows';

/** Suspects lit on the drawing: those that are worth a look now. */
const MOST_LIT = 3;

/** The schematic while a fault is looked for: windows, readings, the parts under suspicion, and the next point to read. */
export function FaultSchematic({ kit, findings, loop }: { kit: KitState; findings: Findings; loop: Loop }) {
  const windows = useWindows(kit);
  const here = useMemo(() => {
    const stages = deriveStages(kit, windows);
    return stages.find((s) => s.stage.id === kit.lastStage) ?? stages.find((s) => s.stage.supplies.length > 0) ?? null;
  }, [kit, windows]);
  const suspected = useMemo(
    () =>
      new Set(
        faultySuspects(findings.suspects)
          .slice(0, MOST_LIT)
          .flatMap((s) => s.faults.flatMap((f) => f.parts)),
      ),
    [findings],
  );
  return here ? (
    <StageSchematic kit={kit} here={here} loop={loop} suspected={suspected} />
  ) : (
    <Nothing say="No stage is powered: there is nothing to read on the drawing." />
  );
}
