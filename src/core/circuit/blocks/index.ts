export { type Block, type BlockField, BLOCKS, type BlockText, type FieldType } from './blocks';
export { insertBlock } from './insert';
export { thermistorOhms } from './library';
