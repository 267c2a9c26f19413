import { readQuantity } from '../form/rules';
import type { Given, Sum } from './sum';

/** What stands in the fields of a form. */
export type Values = Readonly<Record<string, string | undefined>>;

/** The fields of a sum as it reads them: a quantity that makes no sense there is refused by the name of its field. */
export function givenOf({ fields }: Sum, values: Values): Given {
  const maybe = (key: string): number | null => {
    const { label, unit = null, least } = fields.find((f) => f.key === key)!;
    const value = readQuantity(values[key], unit);
    if (value === null || least === 'any' || value > 0 || (least === 0 && value === 0)) return value;
    throw new Error(`“${label}” must be ${least === 0 ? 'zero or more' : 'more than zero'}.`);
  };
  return {
    maybe,
    of: (key) => {
      const value = maybe(key);
      if (value === null) throw new Error(`“${fields.find((f) => f.key === key)!.label}” needs a number.`);
      return value;
    },
    text: (key) => values[key] ?? '',
  };
}
