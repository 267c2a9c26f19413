/** The form's validators are our parsers: what they let through is read as it was meant, what they refuse is answered in words. */
import type { FormRule } from 'antd';
import { displayRule, quantityRule, readDisplay, readQuantity, required } from '@/ui/form/rules';

/** What a rule says of a text; null when it lets it through. */
async function said(rule: FormRule, text: string | undefined): Promise<string | null> {
  const { validator } = rule as { validator: (rule: unknown, value: unknown) => Promise<void> };
  try {
    await validator(null, text);
    return null;
  } catch (e) {
    return (e as Error).message;
  }
}

describe('a quantity', () => {
  test.each([
    ['4k7', 'ohm', 4700],
    ['0,1uF', 'F', 1e-7],
    ['12', 'V', 12],
    ['500m', 'A', 0.5],
    ['100ms', 's', 0.1],
    ['1M', 'ohm', 1e6],
  ] as const)('%s in %s', async (text, unit, value) => {
    expect(await said(quantityRule(unit), text)).toBeNull();
    expect(readQuantity(text, unit)).toBeCloseTo(value, 12);
  });
  test.each([
    ['tenk', 'ohm'],
    ['4.7.k', 'ohm'],
    ['5V', 'ohm'],
    ['--3', 'V'],
  ] as const)('“%s” is no quantity in %s, and the field says so', async (text, unit) => {
    const message = await said(quantityRule(unit), text);
    expect(message).toMatch(/^\S.*\.$/);
    expect(readQuantity(text, unit)).toBeNull();
  });
  test('an empty field is left to “required”', async () => {
    for (const text of ['', '   ', undefined]) {
      expect(await said(quantityRule('ohm'), text)).toBeNull();
      expect(readQuantity(text, 'ohm')).toBeNull();
    }
    expect(required('Which value?')).toMatchObject({ required: true, whitespace: true, message: 'Which value?' });
  });
});

describe('a display', () => {
  test.each([
    ['0.2', 'ohm', 0.2],
    ['OL', 'ohm', 'over'],
    ['9.96k', 'ohm', 9960],
    ['-0.5', 'V', -0.5],
  ] as const)('%s in %s', async (text, unit, value) => {
    expect(await said(displayRule(unit), text)).toBeNull();
    expect(readDisplay(text, unit)).toBe(value);
  });
  test.each(['abc', '1..2', '3F'])('“%s” is answered', async (text) => {
    expect(await said(displayRule('ohm'), text)).toMatch(/^\S.*\.$/);
    expect(readDisplay(text, 'ohm')).toBeNull();
  });
});
