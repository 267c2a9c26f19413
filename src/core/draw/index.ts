export { draw, type Drawing } from './draw';
export { type Drawable, readDrawable } from './request';
