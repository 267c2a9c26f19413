export type { Drawing, Layout } from './assemble';
export { arranged, draw, layout } from './draw';
export { grown, type Laid } from './grow';
export { drawableOf } from './ofSheet';
export { type Drawable, readDrawable } from './request';
