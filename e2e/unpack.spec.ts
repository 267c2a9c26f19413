import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import writeXlsx from 'write-excel-file/node';
import { choose, expectAccessible, giveFile, openDemo, readFromMeter, storedKit } from './bench';

test('the loose pile, with the keyboard alone: the wrong value and the short count are named and written to the seller', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('l');
  await expect(page.getByRole('region', { name: 'Loose pile' })).toBeVisible();
  const why = page.getByRole('complementary', { name: 'Why' });
  await expect(why.getByText('23 pieces')).toBeVisible();
  for (let i = 0; i < 22; i++) await readFromMeter(page);
  await expect(why.getByText(/one 4\.7 kΩ missing, one 4\d\.\d kΩ too many/)).toBeVisible();
  await expect(why.getByText('one 100 nF missing')).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('m');
  await expect(page.getByRole('alert').filter({ hasText: 'The simulated bag is empty' })).toBeVisible();

  // One typed by hand, with its bands, goes where it belongs; withdrawn, it is gone.
  const entry = page.getByRole('textbox', { name: 'Meter shows' });
  await entry.fill('r bn bk og gd 9.98k');
  await entry.press('Enter');
  await expect(why.getByText(/9\.78 kΩ|9\.98 kΩ goes to 10 kΩ/)).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(why.getByText('22 of 23 pieces')).toBeVisible();

  await page.getByRole('button', { name: 'Use this in the tray' }).click();
  await expect(page.getByText('belong to no line')).toBeVisible();
  await expect(why.getByText(/The unlisted piece of 4\d\.\d kΩ in place of the missing 4\.7 kΩ\?/)).toBeVisible({ timeout: 20_000 });
  await page.getByRole('button', { name: 'Write to the seller' }).click();
  await expect(page.getByRole('textbox', { name: 'Letter' })).toHaveValue(/1 × 100 nF \(C3, C4\): 2 on the list, 1 in the bag/);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as Markdown' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('**Frost sentinel**');
});

test('bands that cannot be told apart are settled by the list, by keys', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+2');
  await page.keyboard.press('/');
  const entry = page.getByRole('textbox', { name: 'Meter shows' });
  await entry.fill('/r9');
  await entry.press('Enter');
  await expect(page.getByRole('heading', { name: /R9/ })).toBeVisible();
  await page.keyboard.press('b');
  await page.getByRole('textbox', { name: 'Marking' }).fill('bn/rd bk og gd');
  await expect(page.getByText('only one is on this kit’s list')).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await storedKit(page)).log.at(-1)).toMatchObject({ kind: 'marked', line: 'r-10k', text: 'bn/rd bk og gd = 10 kΩ, ±5 %' });
});

test('lists in Chinese and German, and a workbook, become kits; columns can be corrected', async ({ page }) => {
  await page.goto('/new/');
  const list = page.getByLabel('Parts list');
  const lines = page.getByRole('region', { name: 'Lines understood' });
  await list.fill('位号\t名称\t参数\t数量\nR1,R2\t金属膜电阻\t4.7k\t2\nC3\t瓷片电容\t104\t1\nQ1\t三极管\tS9012\t1');
  await expect(lines.getByText('100 nF')).toBeVisible();
  await expect(lines.getByText('PNP transistor')).toBeVisible();
  await list.fill('Widerstand 4k7 1/4W R1, R2 2 Stk.\nElko 100uF 25V C1\nNetzteil 12 V 1 A, nicht enthalten\nSiehe Rückseite');
  await expect(page.getByText('1 of 4 lines need a look.')).toBeVisible();
  await expect(lines.getByText('needed, not supplied')).toBeVisible();
  await expect(lines.getByRole('row', { name: /Siehe Rückseite/ })).toContainText('What is this?');

  const workbook = await writeXlsx([
    [{ value: 'Part' }, { value: 'Where' }, { value: 'Value' }, { value: 'Count' }],
    [{ value: 'Resistor' }, { value: 'R1-R3' }, { value: '10k' }, { value: 3, type: Number }],
    [{ value: 'Capacitor' }, { value: 'C1' }, { value: '104' }, { value: 1, type: Number }],
  ]).toBuffer();
  await giveFile(page, { name: 'list.xlsx', mimeType: 'application/vnd.ms-excel', buffer: workbook });
  await expect(page.getByText('read as XLSX')).toBeVisible();
  await choose(page.getByRole('combobox', { name: 'Column 2' }), 'positions');
  await expect(lines.getByText('R1 R2 R3')).toBeVisible();
  await expectAccessible(page);

  await giveFile(page, { name: 'photo.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(Array.from({ length: 600 }, (_, i) => (i * 7) % 29)) });
  await expect(page.getByRole('alert').filter({ hasText: 'photo.jpg is no text and no XLSX' })).toBeVisible();
  await expect(lines.getByText('R1 R2 R3')).toBeVisible();
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  await expect(page.getByRole('button', { name: /R1 R2 R3/ })).toBeVisible();
});

test('meters: the thirty-second check is noted and its leads are subtracted; two instruments are compared; a need is met', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Instruments' }).click();
  await page.getByLabel('Probes together').fill('OL');
  await page.getByLabel('Probes apart').fill('OL');
  await expect(page.getByText('a blown fuse')).toBeVisible();
  await page.getByLabel('Probes together').fill('0.4');
  await expect(page.getByText('The meter is sound; 0.4 Ω of leads')).toBeVisible();
  await page.getByRole('button', { name: 'Note it' }).first().click();
  await expect(page.getByText('its leads count as 0.4 Ω')).toBeVisible();
  await page.getByLabel('Instrument', { exact: true }).fill('my tester');
  await page.getByLabel('It reads').nth(1).fill('10.0k');
  await page.getByLabel('The meter in use reads').fill('10.9k');
  await page.getByRole('button', { name: 'Note it' }).nth(1).click();
  await expect(page.getByText('do not agree')).toBeVisible();
  await page.getByRole('button', { name: 'Add my own meter' }).click();
  await page.getByLabel('Name').fill('Attic meter');
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByRole('radio', { name: /Attic meter/ })).toBeChecked();
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Sheet' }).click();
  await page.getByRole('button', { name: 'Does what I own meet it?' }).click();
  await page.getByLabel('Volts').fill('9');
  await page.getByRole('button', { name: 'Does it do?' }).click();
  await expect(page.getByText('a healthy board will look faulty')).toBeVisible();
  await page.getByLabel('Add a line').fill('links LK1-LK3');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('cell', { name: 'LK1 LK2 LK3' })).toBeVisible();
  await expectAccessible(page);
});
