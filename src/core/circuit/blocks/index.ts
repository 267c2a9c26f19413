import { type Block } from './block';
import { OPAMP_BLOCKS } from './opamps';
import { PASSIVE_BLOCKS } from './passives';
import { SUPPLY_BLOCKS } from './supplies';
import { TIMING_BLOCKS } from './timing';
import { TRANSISTOR_BLOCKS } from './transistors';

export type { Block, BlockField, BlockText, FieldType } from './block';
export { insertBlock } from './insert';
export { thermistorOhms } from './library';

/** All building blocks, in the order in which they are offered. */
export const BLOCKS: readonly Block[] = [...SUPPLY_BLOCKS, ...PASSIVE_BLOCKS, ...TRANSISTOR_BLOCKS, ...OPAMP_BLOCKS, ...TIMING_BLOCKS];
