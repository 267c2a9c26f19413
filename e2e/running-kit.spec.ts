import { expect, test } from '@playwright/test';
import { choose, expectAccessible, inHand, makeKit, storedKit, suspects } from './bench';
import { FLASHER } from '../test/support/decks';

test('a kit that never rests: averages and a frequency have windows, a dead flasher is traced to its base resistor', async ({ page }) => {
  await makeKit(page, 'Two lamps', '', FLASHER);
  await page.keyboard.press('Alt+4');
  const entry = page.locator('#entry');
  const take = async (text: string) => {
    await expect(page.getByText('Working out the limits')).toHaveCount(0, { timeout: 30_000 });
    await entry.fill(text);
    await entry.press('Enter');
    // Where an observation is asked for next, the field is gone.
    await expect(page.locator('#entry:not([value=""])')).toHaveCount(0);
  };
  // Looked through; then cold; then R4 has an open joint: Q2 never conducts, the board stands still.
  const shows: Record<string, string> = { current: '9.1m', swapped: 'OL', 'vcc to ground': '101k', vcc: '9.01', c1: '0.03', c2: '9.00', b1: '0.68', b2: '0' };
  for (let i = 0; i < 12; i++) {
    // All of the stage is read, whether it stopped or not: the collector alone would speak for R1 as well.
    if ((await inHand(page).count()) === 0) break;
    const title = (await inHand(page).textContent())!;
    const seen = page.getByRole('button', { name: /as expected|all set/ });
    if (await seen.isVisible()) await seen.click();
    else {
      const at = Object.keys(shows).find((n) => title.includes(n));
      if (!at) break;
      await take(shows[at]!);
    }
    await expect.poll(async () => (await inHand(page).count()) === 0 || (await inHand(page).textContent()) !== title).toBe(true);
  }
  await expect(page.getByText('Stop here')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Find the fault' }).click();
  await expect(suspects(page).first()).toBeVisible({ timeout: 90_000 });
  await expect(suspects(page).filter({ hasText: /R4|Q2/ }).first()).toBeVisible();
  await expectAccessible(page);

  // The timing capacitors twice as large: half the frequency.
  await page.getByRole('button', { name: 'Circuit' }).click();
  await page.getByText('What if', { exact: true }).click();
  await choose(page.getByLabel('If this part'), 'C1');
  await page.getByLabel('namely').fill('2u');
  await page.getByRole('button', { name: 'Solve it' }).click();
  await expect(page.getByRole('row', { name: /Hz/ }).first()).toBeVisible({ timeout: 60_000 });
});

test('a slow frequency is counted by tapping a key at each blink, and looked at beeps as well', async ({ page }) => {
  await makeKit(page, 'Two lamps', '', FLASHER);
  await page.keyboard.press('Alt+4');
  const ladder = page.getByRole('region', { name: 'Stages', exact: true });
  const bar = page.getByRole('contentinfo', { name: 'Probe bar' });
  // Something to look at comes first: there the taps are only counted.
  await expect(inHand(page)).toContainText('joints');
  await page.keyboard.press('t');
  await page.keyboard.press('t');
  await expect(bar.getByText('2 taps')).toBeVisible();
  await ladder.getByText('Signals', { exact: true }).click();
  await ladder
    .getByRole('button', { name: /frequency/ })
    .first()
    .click();
  await expect(inHand(page)).toContainText('frequency');
  const entry = page.locator('#entry');
  await entry.focus();
  for (let i = 0; i < 6; i++) {
    await page.keyboard.press('t');
    await page.waitForTimeout(400);
  }
  await expect(bar.getByText(/6 taps/)).toBeVisible();
  const told = Number(await entry.inputValue());
  expect(told).toBeGreaterThan(1);
  expect(told).toBeLessThan(2.6);
  await entry.press('Enter');
  await expect.poll(async () => (await storedKit(page)).log.flatMap((e) => (e.kind === 'read' && 'reading' in e ? [e.reading] : [])).at(-1)).toBe(told);
  await expect(bar.getByText(/6 taps/)).toHaveCount(0);
});
