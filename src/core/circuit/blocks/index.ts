import type { Block } from './block';
import { OPAMP_BLOCKS } from './opamps';
import { PASSIVE_BLOCKS } from './passives';
import { SUPPLY_BLOCKS } from './supplies';
import { TIMING_BLOCKS } from './timing';
import { TRANSISTOR_BLOCKS } from './transistors';

export type { Block, BlockField, BlockText, FieldType } from './block';
export { insertBlock } from './insert';
export { ledModel, type LibraryItem, MODELS, thermistorOhms, zenerModel } from './library';

/** All building blocks by theme, in the order in which they are offered. */
export const BLOCK_GROUPS: readonly { readonly title: string; readonly blocks: readonly Block[] }[] = [
  { title: 'Supplies and references', blocks: SUPPLY_BLOCKS },
  { title: 'Dividers, controls, sensors, loads', blocks: PASSIVE_BLOCKS },
  { title: 'Transistor stages', blocks: TRANSISTOR_BLOCKS },
  { title: 'Op-amps and comparators', blocks: OPAMP_BLOCKS },
  { title: 'Oscillators, logic, sockets', blocks: TIMING_BLOCKS },
];

export const BLOCKS: readonly Block[] = BLOCK_GROUPS.flatMap((g) => g.blocks);
