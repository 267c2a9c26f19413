import { expect, test } from '@playwright/test';
import { expectAccessible, openDemo, storedKit } from './bench';

test('fitting by keyboard: one line after another, which way round is said, a mistake is taken back, the rest is asked for', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+3');
  const title = page.locator('.probe-bar h3').first();
  await expect(title).toBeVisible();
  const fitted = async () => (await storedKit(page)).log.filter((e) => e.kind === 'fitted').flatMap((e) => (e as unknown as { refs: string[] }).refs);

  // Every line once, each with its way round.
  const seen = new Set<string>();
  for (let i = 0; i < 6; i++) {
    const here = (await title.textContent())!;
    expect(seen.has(here)).toBe(false);
    seen.add(here);
    const before = (await fitted()).length;
    await page.keyboard.press('Enter');
    await expect.poll(async () => (await fitted()).length).toBeGreaterThan(before);
    await expect(title).not.toHaveText(here);
  }
  await expectAccessible(page);

  // The last one was a mistake: it is asked for again, and is not on the board any more.
  const next = (await title.textContent())!;
  const last = [...seen].at(-1)!;
  await page.keyboard.press('Control+z');
  await expect(title).toHaveText(last);
  await page.keyboard.press('Enter');
  await expect(title).toHaveText(next);

  // A reload in the middle goes on where it was.
  const before = await fitted();
  await page.reload();
  await expect(title).toHaveText(next);
  expect(await fitted()).toEqual(before);
  await page.keyboard.press('Alt+6');
  await expect(
    page
      .getByRole('region', { name: 'Log' })
      .getByText(/Fitted/)
      .first(),
  ).toBeVisible();
});
