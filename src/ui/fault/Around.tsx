import { useMemo } from 'react';
import { type Circuit, findNet, neighbourhood } from '@/core/circuit';
import type { Fault } from '@/core/fault';
import type { KitState } from '@/core/kit';
import { elementsOf, fittedAt, setupOf } from '@/core/stage';
import type { Verdict } from '@/core/verdict';
import { BoardMap } from '../board/BoardMap';
import map from '../board/BoardMap.module.css';
import { NeighbourDrawing } from '../circuit/NeighbourDrawing';
import { readAt } from '../circuit/readAt';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';
import styles from './Fault.module.css';

const NO_VOLTS: Readonly<Record<string, number>> = {};
const NO_VERDICTS: ReadonlyMap<string, Verdict> = new Map();

/** Where a suspect sits: on the board, and in the circuit with what each net should carry and what was read there. */
export function Around({ kit, circuit, faults }: { kit: KitState; circuit: Circuit; faults: readonly Fault[] }) {
  const stage = kit.sheet.stages.find((s) => s.id === kit.lastStage) ?? kit.sheet.stages.find((s) => s.supplies.length > 0);
  const { state, value } = useResult('netVolts', kit, stage?.id ?? null);
  const centre = useMemo(() => centreOf(kit, circuit, faults), [kit, circuit, faults]);
  const around = useMemo(() => (centre === null ? null : neighbourhood(circuit, centre)), [circuit, centre]);
  const refs = useMemo(() => new Set(faults.flatMap((f): readonly string[] => (f.kind === 'track' ? f.detail.beyond : f.parts))), [faults]);
  const present = useMemo(() => (stage ? fittedAt(setupOf(kit), stage) : kit.board.fitted), [kit, stage]);
  return (
    <>
      {kit.sheet.placement.length > 0 && refs.size > 0 && (
        <>
          <h3 className={`${zones.label} ${zones.section}`}>On the board</h3>
          <div className={`${map.frame} ${styles.map}`}>
            <BoardMap sheet={kit.sheet} present={present} marked={refs} points={kit.sheet.testPoints} verdicts={NO_VERDICTS} red={null} black={null} />
          </div>
        </>
      )}
      {around && (
        <>
          <h3 className={`${zones.label} ${zones.section}`}>
            {state === 'fresh' && Object.keys(value).length === 0
              ? 'In the circuit: it oscillates, so nets show readings only'
              : 'In the circuit: computed volts of a healthy board, readings beneath'}
          </h3>
          <div className={styles.around}>
            <NeighbourDrawing around={around} volts={state === 'fresh' ? value : NO_VOLTS} seen={readAt(kit, stage?.id ?? null)} />
          </div>
        </>
      )}
    </>
  );
}

/** The part or net that the drawing is about. */
function centreOf(kit: KitState, circuit: Circuit, faults: readonly Fault[]): string | null {
  for (const f of faults) {
    if (f.kind === 'bridge') return findNet(circuit, f.detail.nets.find((n) => n !== '0') ?? '0') ?? null;
    if (f.kind === 'track') return findNet(circuit, f.detail.net) ?? null;
    const [ref] = f.parts;
    const [element] = ref === undefined ? [] : elementsOf(kit.sheet, circuit, ref);
    const part = circuit.parts.find((p) => p.name === element || p.name.startsWith(`${element ?? '?'}.`));
    const net = part?.nodes.find((n) => n !== '0' && !n.includes('.'));
    if (net !== undefined) return net;
  }
  return null;
}
