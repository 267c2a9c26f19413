export { arranged, draw, type Drawing, type Layout, layout } from './draw';
export { drawableOf } from './ofSheet';
export { type Drawable, readDrawable } from './request';
