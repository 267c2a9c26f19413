import type { KitState } from '@/core/kit';
import type { StageProgress } from '@/core/loop';
import type { Loop } from '../probe/useLoop';
import { SchematicOf } from './SchematicOf';
import { useLiveSchematic } from './useLiveSchematic';

interface Props {
  readonly kit: KitState;
  readonly here: StageProgress;
  readonly loop: Loop;
  readonly suspected?: ReadonlySet<string>;
}

/** The schematic at the bench: the windows and readings of a stage at its nets, its checks under a press, suspects lit. */
export function StageSchematic({ kit, here, loop, suspected }: Props) {
  const live = useLiveSchematic(kit, here, loop, suspected);
  return <SchematicOf kit={kit} stage={here.stage.id} live={live} />;
}
