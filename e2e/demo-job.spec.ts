import { expect, test } from '@playwright/test';
import { appears, expectAccessible, giveFile, openDemo, readFromMeter, storedKit, suspects } from './bench';

test('the whole job: from the bag to the hidden fault, repaired, exported and opened elsewhere', async ({ page, browser }) => {
  await page.goto('/');
  await expect(page.getByText('The shelf is empty')).toBeVisible();
  await expectAccessible(page);
  await openDemo(page);

  // Unpack with the keyboard alone: every line, as the simulated bag holds it.
  for (let i = 0; i < 22; i++) await readFromMeter(page);
  await expect(page.getByText('1 × 100 nF missing')).toBeVisible();
  await expectAccessible(page);

  await page.keyboard.press('Alt+2');
  await expect(page.getByRole('textbox', { name: 'Meter shows' })).toBeFocused();
  while (await page.getByRole('textbox', { name: 'Meter shows' }).isVisible()) await readFromMeter(page);
  await expect(page.getByRole('complementary', { name: 'Why' }).getByText(/R6 reads 47\.\d+ kΩ/)).toBeVisible();
  await expectAccessible(page);

  await page.keyboard.press('Alt+3');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/lines to go\. Tick/)).toBeVisible();
  await expectAccessible(page);

  // Power up: go on until a stage stops the work.
  await page.keyboard.press('Alt+4');
  await expect(page.getByRole('region', { name: 'Stages' })).toBeVisible();
  await expectAccessible(page);
  const find = page.getByRole('button', { name: 'Find the fault' });
  for (let i = 0; i < 30 && !(await appears(find)); i++) {
    await expect(page.getByText('Working out the limits')).toHaveCount(0);
    await readFromMeter(page);
  }
  await expect(page.getByText('after the stage above passes').or(page.getByText('Fit nothing further'))).toBeVisible();

  // Find fault: follow the proposed readings until one suspect holds at least 80 %.
  await find.click();
  const first = suspects(page).first();
  const counted = page.getByRole('heading', { name: /Suspects after/ });
  const advice = page.getByText(/One more reading helps|again first|No further reading|Supply off\. .* measure this stage again/);
  for (let i = 0; i < 8; i++) {
    await expect(advice).toBeVisible({ timeout: 60_000 });
    if ((await page.getByText(/One more reading helps/).count()) === 0) break;
    const before = (await counted.textContent())!;
    await readFromMeter(page);
    await expect(counted).not.toHaveText(before, { timeout: 60_000 });
  }
  await expect(first).toContainText('R9 has an open joint');
  const share = Number(/(\d+) %/.exec((await first.textContent()) ?? '')?.[1]);
  expect(share).toBeGreaterThanOrEqual(80);
  await expectAccessible(page);

  // Repair it; the stage is measured again and passes, and so do those behind it.
  await page.getByRole('button', { name: 'I found it' }).click();
  const passed = page.getByText('All stages have passed.').first();
  for (let i = 0; i < 30 && !(await appears(passed)); i++) await readFromMeter(page);
  await expect(passed).toBeVisible();

  await page.keyboard.press('Alt+6');
  await expect(page.getByText('Found: R9 has an open joint')).toBeVisible();
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export the kit' }).click();
  const file = await (await download).path();
  const before = await storedKit(page);

  // A fresh profile finds everything again.
  const elsewhere = await (await browser.newContext()).newPage();
  await elsewhere.goto('/');
  await giveFile(elsewhere, file);
  await expect(elsewhere.getByRole('navigation', { name: 'Phases' })).toBeVisible();
  expect(await storedKit(elsewhere)).toEqual(before);
  await elsewhere.keyboard.press('Alt+6');
  await expect(elsewhere.getByText('Found: R9 has an open joint')).toBeVisible();
});

test('nothing entered is lost: reload in mid-entry, withdraw, two tabs', async ({ page, context }) => {
  await openDemo(page);
  await readFromMeter(page);
  const entry = page.getByRole('textbox', { name: 'How many' });
  await entry.fill('7');
  await page.waitForTimeout(150);
  await page.reload();
  await expect(entry).toHaveValue('7');
  await entry.press('Enter');
  await expect(page.getByText('6 spare', { exact: true }).first()).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('6 spare', { exact: true })).toHaveCount(0);

  const second = await context.newPage();
  await second.goto(page.url());
  await readFromMeter(second);
  await readFromMeter(page);
  await expect.poll(async () => (await storedKit(page)).log.length).toBe(5);
});

test('answers nonsense at the entry field and takes OL', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+2');
  const entry = page.getByRole('textbox', { name: 'Meter shows' });
  for (const [text, message] of [
    ['abc', 'no number'],
    ['1..2', 'one decimal mark'],
    ['3V', 'expected here'],
  ] as const) {
    await entry.fill(text);
    await entry.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: message })).toBeVisible();
  }
  await entry.fill('OL');
  await entry.press('Enter');
  await expect(page.getByRole('contentinfo').getByText('reads over-range')).toBeVisible();
});
