import type { Request } from './main';

/** Fields of a request, checked: each function throws an Error that names the field. */
export function textAt(request: Request, key: string): string {
  const value = request[key];
  if (typeof value !== 'string') throw new Error(`"${key}" must be a text`);
  return value;
}

export function numberAt(request: Request, key: string): number {
  const value = request[key];
  if (typeof value !== 'number' || !Number.isFinite(value)) throw new Error(`"${key}" must be a number`);
  return value;
}

/** One of a few words. */
export function wordAt<T extends string>(request: Request, key: string, words: readonly T[]): T {
  const value = words.find((w) => w === request[key]);
  if (value === undefined) throw new Error(`"${key}" must be ${words.map((w) => `"${w}"`).join(' or ')}`);
  return value;
}

export function objectAt(request: Request, key: string): Request {
  const value = request[key];
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new Error(`"${key}" must be an object`);
  return value as Request;
}

export function arrayOf(request: Request, key: string): Request[] {
  const value = request[key];
  if (!Array.isArray(value) || value.some((v) => typeof v !== 'object' || v === null)) throw new Error(`"${key}" must be a list of objects`);
  return value as Request[];
}

export function arrayAt(request: Request, key: string): unknown[] {
  const value = request[key];
  if (!Array.isArray(value)) throw new Error(`"${key}" must be a list`);
  return value as unknown[];
}
