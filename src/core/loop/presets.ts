import { isPowered, type KitState, type Stage } from '../kit';
import { print } from '../quantity';

/** What has to be set and confirmed before a stage is begun; nothing for a mere look. */
export function presetsOf(stage: Stage): string[] {
  if (!isPowered(stage)) return stage.kind === 'cold' ? [stage.power === 'off' ? 'supply switched off' : 'supply unplugged', 'capacitors discharged'] : [];
  return [
    // Without a circuit nobody but the instructions knows.
    ...(stage.supplies.length === 0 ? ['supply as the instructions say, its limit low'] : []),
    ...stage.supplies.map(
      (s) => `${s.source} ${print(s.volts, 'V', 3)}${s.feed === 'winding' ? ' AC' : ''}${s.feed === 'winding' ? '' : `, limit ${print(s.limit, 'A', 2)}`}`,
    ),
    ...(stage.settings ?? []).map((s) => s.text),
    ...((stage.without ?? []).length > 0 ? [`${stage.without!.join(', ')} out`] : []),
    ...(stage.kind === 'power' ? ['nothing connected to the outputs'] : stage.kind === 'load' ? ['load connected'] : []),
  ];
}

/** Whether a stage was made ready since it was last begun from the start. */
export function isPrepared(kit: KitState, stage: Stage): boolean {
  const made = kit.prepared.get(stage.id);
  const again = kit.gates.get(stage.id);
  return made !== undefined && (again?.entry.go !== 'again' || made.at > again.at);
}
