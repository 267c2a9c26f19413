import { checkKit, type OpenResult } from '@/core/kit';

/** A kit of an older version as one of the present version: fetched only where such a kit lies. */
export const bringUp = (value: unknown): OpenResult => checkKit(value);
