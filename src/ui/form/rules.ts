import type { FormRule } from 'antd';
import { parseDisplay, parseQuantity, type Unit } from '@/core/quantity';
import type { ReadingValue } from '@/core/kit';

/** Our parsers as the form's validators: an error stands at its field, in words. An empty field is left to `required`. */

const rule = (problemOf: (text: string) => string | null): FormRule => ({
  validator: (_, text: string | undefined) => {
    const problem = (text ?? '').trim() === '' ? null : problemOf(text!);
    return problem === null ? Promise.resolve() : Promise.reject(new Error(problem));
  },
});

export const required = (what: string): FormRule => ({ required: true, whitespace: true, message: what });

/** A quantity as people write it: `4k7`, `0,1uF`. */
export const quantityRule = (unit: Unit | null): FormRule =>
  rule((text) => {
    const parsed = parseQuantity(text, unit);
    return parsed.ok ? null : `${parsed.message}.`;
  });

/** What a display shows, over-range included. */
export const displayRule = (unit: Unit): FormRule =>
  rule((text) => {
    const parsed = parseDisplay(text, unit);
    return parsed.ok ? null : `${parsed.message}.`;
  });

export const readQuantity = (text: string | undefined, unit: Unit | null): number | null => {
  const parsed = (text ?? '').trim() === '' ? null : parseQuantity(text!, unit);
  return parsed?.ok ? parsed.value : null;
};

export const readDisplay = (text: string | undefined, unit: Unit): ReadingValue | null => {
  const parsed = parseDisplay(text ?? '', unit);
  return parsed.ok ? (parsed.kind === 'over' ? 'over' : parsed.value) : null;
};
