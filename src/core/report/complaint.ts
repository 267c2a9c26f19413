import { deriveStrangers, deriveTray, type KitState } from '../kit';

/** Whether anything was found that a seller may be asked about: something short, wrong, strange, or examined as doubtful. */
export const mayComplain = (kit: KitState): boolean =>
  kit.examined.size > 0 ||
  deriveStrangers(kit).length > 0 ||
  deriveTray(kit).some((c) => (c.counted !== null && c.counted < c.line.quantity) || c.pieces.some((p) => p.verdict === 'out'));
