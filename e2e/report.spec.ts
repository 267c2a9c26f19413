import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import { expectAccessible, makeKit } from './bench';

test('the report of a kit: sections chosen, saved as a web page that stands alone, printed without the bench', async ({ page }) => {
  await makeKit(page, 'Lamp <b>', 'R1-R3 10k\nC1 100n');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Alt+6');
  await page.getByRole('textbox', { name: 'Note' }).fill('R1 was hard to reach');
  await page.getByRole('button', { name: 'Add note' }).click();
  await page.getByRole('button', { name: 'Report', exact: true }).click();
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByRole('heading', { name: 'Parts' })).toBeVisible();
  await expect(report.getByText('R1 was hard to reach')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('checkbox', { name: 'Parts' }).uncheck();
  await expect(report.getByRole('heading', { name: 'Parts' })).toHaveCount(0);
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as a web page' }).click()]);
  const html = await readFile(await file.path(), 'utf8');
  expect(html).toContain('<h1>Lamp &lt;b&gt;</h1>');
  expect(html).toContain('R1 was hard to reach');
  expect(html).not.toContain('<h2>Parts</h2>');
  // On paper the report stands alone.
  await page.emulateMedia({ media: 'print' });
  await expect(report).toBeVisible();
  await expect(page.getByRole('navigation', { name: 'Phases' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Save as Markdown' })).toBeHidden();
});
