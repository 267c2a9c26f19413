import { type Static, type TSchema, Type } from '@sinclair/typebox';

/** Pieces that every schema of the document is made of. */
export const Text = Type.String({ title: 'Text', maxLength: 4000 });
export const Id = Type.String({ title: 'Name', minLength: 1, maxLength: 200 });
export const Num = Type.Number();
export const Positive = Type.Number({ title: 'Positive number', exclusiveMinimum: 0 });
export const Count = Type.Integer({ title: 'Count', minimum: 0, maximum: 100000 });
/** ISO 8601 instant. */
export const Instant = Type.String({ title: 'Instant', minLength: 1, maxLength: 40 });
export const Flag = Type.Boolean();

export const OneOf = <const T extends readonly string[]>(...values: T) => Type.Unsafe<T[number]>({ type: 'string', enum: values });
export const List = <T extends TSchema>(items: T, maxItems = 2000) => Type.Array(items, { maxItems });
export const Refs = Type.Array(Id, { title: 'Refs', maxItems: 2000 });
export const Optional = <T extends TSchema>(schema: T) => Type.Optional(schema);
export const Nullable = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()]);
export const Pair = <T extends TSchema>(item: T) => Type.Tuple([item, item]);

/** An object of exactly these fields. `title` says in words what it is: whatever has one becomes a definition of its own. */
export const Shape = <T extends Record<string, TSchema>>(title: string, fields: T) => Type.Object(fields, { title, additionalProperties: false });

/** A value as the program holds it: readonly all the way down; what may be absent may be undefined. */
export type Frozen<T> = T extends string | number | boolean | null | undefined
  ? T
  : { readonly [K in keyof T]: string extends K ? Frozen<T[K]> : object extends Pick<T, K> ? Frozen<T[K]> | undefined : Frozen<T[K]> };
export type Of<T extends TSchema> = Frozen<Static<T>>;
