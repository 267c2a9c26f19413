import type { Stage } from './sheet';

const POWERED: readonly Stage['kind'][] = ['power', 'adjust', 'load', 'run'];

/** Whether a board is switched on at a stage: by a supply of its circuit or, where no circuit names one, by what kind of stage it is. */
export const isPowered = (stage: Stage): boolean => stage.supplies.length > 0 || (stage.power === undefined && POWERED.includes(stage.kind));
