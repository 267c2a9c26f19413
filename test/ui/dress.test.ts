/** The dressing: contrast by the formula of WCAG 2.2, commands without a clash, the first frame in the right dress. */
import { runInNewContext } from 'node:vm';
import { COMMAND_IDS, COMMANDS, factsOfCommand } from '@/ui/shell/commands';
import { BOOT_SCRIPT } from '@/ui/theme/boot';
import { DIM, LIGHT, type Palette } from '@/ui/theme/tokens';

/** Relative luminance and contrast ratio, WCAG 2.2 (definitions of "relative luminance" and "contrast ratio"). */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
}
const contrast = (a: string, b: string) => {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (light! + 0.05) / (dark! + 0.05);
};

describe.each([
  ['light', LIGHT],
  ['dim', DIM],
] as const)('the %s palette', (_, p: Palette) => {
  // 1.4.3: text 4.5 to 1; readings are read at arm's length, so ink has 7 (1.4.6).
  test.each(['ground', 'sheet', 'sunk', 'field'] as const)('ink and quiet text on %s', (paper) => {
    expect(contrast(p.ink, p[paper])).toBeGreaterThanOrEqual(7);
    expect(contrast(p.soft, p[paper])).toBeGreaterThanOrEqual(4.5);
  });
  test.each(['in', 'doubt', 'out'] as const)('the verdict “%s” on paper and on its wash', (verdict) => {
    expect(contrast(p[verdict], p.sheet)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(p[verdict], p[`${verdict}-wash`])).toBeGreaterThanOrEqual(4.5);
    expect(contrast(p.ink, p[`${verdict}-wash`])).toBeGreaterThanOrEqual(4.5);
  });
  test('words on the accent and on its wash', () => {
    expect(contrast(p['on-zest'], p.zest)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(p['zest-ink'], p['zest-wash'])).toBeGreaterThanOrEqual(4.5);
  });
  // 1.4.11: what tells a control from its ground, 3 to 1.
  test('the edge of a field is seen', () => {
    expect(contrast(p.edge, p.sheet)).toBeGreaterThanOrEqual(3);
    expect(contrast(p.edge, p.field)).toBeGreaterThanOrEqual(3);
  });
});

test('verdicts differ in lightness too: they are told apart in grey print by shape, and not by hue alone', () => {
  expect(new Set([LIGHT.in, LIGHT.doubt, LIGHT.out]).size).toBe(3);
});

describe('the table of commands', () => {
  test('no key stands for two commands, but Enter, which the field and the answer share', () => {
    const keys = COMMAND_IDS.flatMap((id) => (factsOfCommand(id).keys ?? []).map((k) => k.toLowerCase()));
    expect(keys.filter((k, i) => keys.indexOf(k) !== i)).toEqual([]);
  });
  test('every single letter can be switched off', () => {
    for (const id of COMMAND_IDS) {
      const { keys = [], single } = factsOfCommand(id);
      if (keys.some((k) => /^[a-z?]$/.test(k))) expect([id, single]).toEqual([id, true]);
    }
  });
  test('every phase has its number, in the order of the path', () => {
    expect((['unpack', 'check', 'fit', 'power', 'fault', 'log'] as const).map((p) => COMMANDS[p].shown)).toEqual([1, 2, 3, 4, 5, 6].map((n) => `Alt ${n}`));
  });
});

describe('before anything is painted', () => {
  const boot = (stored: string | null, systemDark: boolean) => {
    const documentElement = { dataset: {} as Record<string, string>, style: {} as Record<string, string> };
    runInNewContext(BOOT_SCRIPT, { localStorage: { getItem: () => stored }, document: { documentElement }, matchMedia: () => ({ matches: systemDark }) });
    return [documentElement.dataset['theme'], documentElement.style['fontSize']];
  };
  test.each([
    [null, false, 'light', undefined],
    [null, true, 'dim', undefined],
    ['{"theme":"light"}', true, 'light', undefined],
    ['{"theme":"dim","text":200}', false, 'dim', '32px'],
    ['{"text":100}', false, 'light', undefined],
  ])('%s, system dark: %s', (stored, dark, theme, size) => {
    expect(boot(stored, dark)).toEqual([theme, size]);
  });
  test('rubbish in the storage is survived', () => {
    expect(() => boot('{not json', false)).not.toThrow();
  });
});
