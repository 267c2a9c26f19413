export { draw, type Drawing } from './draw';
export { drawableOf } from './ofSheet';
export { type Drawable, readDrawable } from './request';
