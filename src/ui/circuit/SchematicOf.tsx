import { Skeleton } from 'antd';
import { type ReactNode, useMemo } from 'react';
import type { Drawing } from '@/core/draw';
import type { KitState } from '@/core/kit';
import { Nothing } from '../drawn/Nothing';
import { useResult } from '../results/useResult';
import { type LiveSchematic, NOT_LIVE } from './live';
import { readAt } from './readAt';
import { SchematicSheet } from './SchematicSheet';
import type { School } from './symbols';

const NO_VOLTS: Readonly<Record<string, number>> = {};

interface Props {
  readonly kit: KitState;
  readonly stage: string | null;
  readonly school?: School;
  readonly live?: LiveSchematic;
  readonly over?: (drawing: Drawing) => ReactNode;
}

/** The drawing alone: volts that should be at its nets in a stage, and those that were read there. */
export function SchematicOf({ kit, stage, school = 'box', live = NOT_LIVE, over }: Props) {
  const { state, value: drawing, progress } = useResult('schematic', kit, undefined);
  const volts = useResult('netVolts', kit, stage);
  const seen = useMemo(() => readAt(kit, stage), [kit, stage]);
  if (drawing)
    return (
      <SchematicSheet
        drawing={drawing}
        school={school}
        volts={volts.state === 'fresh' ? volts.value : NO_VOLTS}
        seen={seen}
        live={live}
        over={over?.(drawing)}
      />
    );
  return state === 'failed' ? <Nothing say="The schematic could not be drawn. Circuit, Connections lists what is joined." /> : <Drawing progress={progress} />;
}

const Drawing = ({ progress }: { progress: number | null }) => (
  <div role="status">
    <p>{progress === null ? 'Drawing the schematic…' : `Drawing the schematic: ${Math.round(100 * progress)} %`}</p>
    <Skeleton active title={false} />
  </div>
);
