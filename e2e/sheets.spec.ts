/** Sellers' sheets from paste to a right tray: what is unclear is asked, and corrected in the preview. */
import { expect, type Page, test } from '@playwright/test';
import { expectAccessible, storedKit } from './bench';

const GERMAN = `Stückliste Dämmerungsschalter
Pos. Anz. Bauteil
1 2 Widerstand 4k7 R1,R2
2 1 Widerstand 0,47 Ohm 2W R6
3 2 Keramikkondensator 222 C1, C2
4 1 Trimmer 203 RV1
5 1 Transformator EI19 T1
6 3 Elko 10uF 35V C3
7 1 IC-Fassung 8-pol. für IC1
8 1 Kühlkörper für IC2
9 1 Netzteil 12V 1A *
* nicht im Lieferumfang`;

const CHINESE =
  '位号\t名称\t参数\t数量\nR1,R2\t金属膜电阻\t4.7KΩ\t2\nLDR1\t光敏电阻\t5516\t1\nC1\t独石电容\t104\t1\nQ1\t三极管\tS9012\t1\nBUZ1\t蜂鸣器\t5V\t1\n\t螺丝\tM3x6\t4';

const TRANSLATED = `Light control switch electronic kit bill of material
Welding tin wire (need self prepare)
TR1,TR2: BC560C PNP
R101: 5506 Photosensitive resistance
R102,R103: ?K5 5%
BAT1: 4 x AA Battery box
LED1: Light-emitting tube 5mm red
???`;

const paste = async (page: Page, text: string) => {
  await page.goto('/new/');
  await page.getByLabel('Parts list').fill(text);
};
const made = async (page: Page) => {
  await page.getByRole('button', { name: /Make the kit/ }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  return (await storedKit(page)).sheet;
};

test('a German numbered sheet: values are values, what does not agree is asked and corrected in place', async ({ page }) => {
  await paste(page, GERMAN);
  const read = page.getByRole('region', { name: 'How the list was read' });
  await expect(read.getByText('1 of 12 lines need a look.')).toBeVisible();
  await expect(read.getByText('3 pieces for 1 position: which is right?')).toBeVisible();
  await expectAccessible(page);
  // A kit is not made over an open question.
  await page.getByRole('button', { name: /Make the kit/ }).click();
  await expect(page.getByText(/One line of the list is unclear/)).toBeVisible();
  await read.getByRole('button', { name: 'Correct line 8' }).click();
  const form = page.getByRole('form', { name: 'Correct line 8' });
  await form.getByRole('textbox', { name: 'Positions' }).fill('C3-C5');
  await form.getByRole('textbox', { name: 'Positions' }).press('Enter');
  await expect(read.getByText('Every line was read.')).toBeVisible();
  const { lines, needs, title } = await made(page);
  expect(title).toBe('Stückliste Dämmerungsschalter');
  expect(lines.map((l) => [l.kind, l.value, l.quantity, l.refs.join(' ')])).toEqual([
    ['resistor', 4700, 2, 'R1 R2'],
    ['resistor', 0.47, 1, 'R6'],
    ['capacitor', 2.2e-9, 2, 'C1 C2'],
    ['trimmer', 20_000, 1, 'RV1'],
    ['transformer', null, 1, 'T1'],
    ['electrolytic', 1e-5, 3, 'C3 C4 C5'],
    ['socket', null, 1, ''],
    ['heatsink', null, 1, ''],
  ]);
  expect(needs).toMatchObject([{ kind: 'supply', volts: 12, amperes: 1 }]);
});

test('a Chinese sheet with tabs, and a machine-translated one with a smudge and an empty line', async ({ page }) => {
  await paste(page, CHINESE);
  await expect(page.getByText('Every line was read.')).toBeVisible();
  await page.getByLabel('Parts list').fill(TRANSLATED);
  const read = page.getByRole('region', { name: 'How the list was read' });
  await expect(read.getByText('2 of 8 lines need a look.')).toBeVisible();
  await expect(read.getByText('A figure of the value cannot be read.')).toBeVisible();
  await read.getByRole('button', { name: 'Correct line 5' }).click();
  await page.getByRole('form', { name: 'Correct line 5' }).getByRole('textbox', { name: 'Value' }).fill('1k5');
  await page.getByRole('form', { name: 'Correct line 5' }).getByRole('button', { name: 'Correct this line' }).click();
  // What was said outlives a reload.
  await expect(read.getByText('1 of 8 lines need a look.')).toBeVisible();
  await page.reload();
  await expect(read.getByText('1 of 8 lines need a look.')).toBeVisible();
  await read.getByRole('button', { name: 'Not a part' }).click();
  const { lines } = await made(page);
  expect(lines.map((l) => [l.kind, l.type ?? l.value, l.refs.join(' ')])).toEqual([
    ['pnp', 'BC560C', 'TR1 TR2'],
    ['ldr', '5506', 'R101'],
    ['resistor', 1500, 'R102 R103'],
    ['holder', null, 'BAT1'],
    ['led', null, 'LED1'],
  ]);
});
