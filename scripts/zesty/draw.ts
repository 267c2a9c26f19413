import { draw as drawCircuit, readDrawable } from '../../src/core/draw';
import type { Request } from './main';

/** The schematic of a deck, as geometry. */
export const draw = (request: Request): object => drawCircuit(readDrawable(request));
