import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Presses M and takes what the simulated meter shows; an observation is answered by M alone. */
export async function readFromMeter(page: Page): Promise<void> {
  const before = await logLength(page);
  const entry = page.getByRole('textbox', { name: /Meter shows|How many/ });
  await expect(entry.or(page.locator('[data-confirm="yes"]'))).toBeVisible();
  const reading = await entry.isVisible();
  await page.keyboard.press('m');
  if (reading) {
    await expect(entry).not.toHaveValue('');
    await entry.press('Enter');
  }
  await expect.poll(() => logLength(page)).toBeGreaterThan(before);
}

/** Entries of the open kit, as stored. */
export async function storedKit(page: Page): Promise<{ log: { kind: string }[] }> {
  return page.evaluate(async () => {
    const id = new URLSearchParams(location.search).get('kit')!;
    const db = await new Promise<IDBDatabase>((ok, no) => {
      const request = indexedDB.open('zesty-bench');
      request.onsuccess = () => {
        ok(request.result);
      };
      request.onerror = () => {
        no(new Error('no database'));
      };
    });
    const kit = await new Promise((ok) => {
      const get = db.transaction('kits').objectStore('kits').get(id);
      get.onsuccess = () => {
        ok(get.result);
      };
    });
    db.close();
    return kit as { log: { kind: string }[] };
  });
}

const logLength = async (page: Page) => (await storedKit(page)).log.length;

export async function openDemo(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: /Try the demo/ }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
}

/** axe finds nothing serious on the view as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)).toEqual([]);
}
