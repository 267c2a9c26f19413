import { type Fault, mendedAt } from '@/core/fault';
import type { Phase } from '@/core/loop';
import { useBench } from '@/store/bench';

/** Writes down what was found and mended, of the list or not, and leads back to the stage: what was read there is to be repeated. */
export function useFound(go: (phase: Phase) => void) {
  const append = useBench((s) => s.append);
  return {
    fault: (faults: readonly Fault[], probability: number, note: string) => {
      const refs = faults.flatMap((f) => mendedAt(f));
      void append([...faults.map((fault) => ({ kind: 'found' as const, fault, probability })), { kind: 'repaired', refs, note }]).then(() => {
        go('power');
      });
    },
    other: (note: string, refs: readonly string[]) => {
      void append({ kind: 'repaired', refs: [...refs], note }).then(() => {
        go('power');
      });
    },
  };
}
