/** Whole jobs on the demos beside the first: a board that runs, one on a winding, two boards. Counted, powered, the fault found. */
import { expect, test } from '@playwright/test';
import { appears, command, expectAccessible, readFromMeter, suspects } from './bench';

const JOBS = [
  { title: 'Crossing flasher', lines: 8, missing: null, fault: /R4/ },
  { title: 'Nest-box listener', lines: 22, missing: '1 × 1N4007 missing', fault: /R3/ },
  { title: 'Wind dial', lines: 21, missing: '1 × 10 kΩ missing', fault: /M:R2/ },
] as const;

for (const { title, lines, missing, fault } of JOBS)
  test(`${title}: counted, powered up stage by stage, its hidden fault among the first suspects`, async ({ page }) => {
    test.setTimeout(240_000);
    await page.goto('/');
    await page.getByRole('button', { name: `Open ${title}` }).click();
    await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
    for (let i = 0; i < lines; i++) await readFromMeter(page);
    if (missing) await expect(page.getByText(missing).first()).toBeVisible();
    await command(page, 'Power up');
    await expectAccessible(page);
    const find = page.getByRole('button', { name: 'Find the fault' });
    for (let i = 0; i < 30 && !(await appears(find)); i++) {
      await expect(page.getByText('Working out the limits')).toHaveCount(0, { timeout: 60_000 });
      await readFromMeter(page);
    }
    await find.click();
    const advice = page.getByText(/One more reading helps|again first|No further reading|Supply off\. .* measure this stage again|Nothing stands out/);
    const counted = page.getByRole('heading', { name: /Suspects after/ });
    for (let i = 0; i < 6; i++) {
      await expect(advice).toBeVisible({ timeout: 90_000 });
      if ((await page.getByText(/One more reading helps/).count()) === 0) break;
      const before = (await counted.textContent())!;
      await readFromMeter(page);
      await expect(counted).not.toHaveText(before, { timeout: 90_000 });
    }
    await expect(suspects(page).filter({ hasText: fault }).first()).toBeVisible();
    const ranked = await suspects(page).allTextContents();
    expect(ranked.slice(0, 3).some((text) => fault.test(text))).toBe(true);
    await expectAccessible(page);
  });
