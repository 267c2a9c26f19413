import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { type Entry, fold, isOfMaking, type Sheet, type UnknownEntry } from '../src/core/kit';

/** Presses M and takes what the simulated meter shows; an observation is answered by M alone. */
export async function readFromMeter(page: Page): Promise<void> {
  const before = await logLength(page);
  const entry = page.getByRole('textbox', { name: /Meter shows|How many/ });
  await expect(entry.or(page.locator('[data-confirm="yes"]'))).toBeVisible();
  const reading = await entry.isVisible();
  // Between two stages nothing is asked for a moment.
  if (reading) await expect(entry).toBeEnabled();
  await page.keyboard.press('m');
  if (reading) {
    await expect(entry).not.toHaveValue('');
    await entry.press('Enter');
  }
  await expect.poll(() => logLength(page)).toBeGreaterThan(before);
}

/** What is stored of the open kit: its sheet, and what was written since it was made, in the order of the log. */
export async function storedKit(page: Page): Promise<{ log: (Entry | UnknownEntry)[]; sheet: Sheet }> {
  const raw = await page.evaluate(async () => {
    const id = new URLSearchParams(location.search).get('kit')!;
    const db = await new Promise<IDBDatabase>((ok, no) => {
      const request = indexedDB.open(`zesty-kit-${id}`);
      request.onsuccess = () => {
        ok(request.result);
      };
      request.onerror = () => {
        no(new Error('no database'));
      };
    });
    const store = db.transaction('log').objectStore('log');
    const all = <T>(request: IDBRequest<T>) =>
      new Promise<T>((ok) => {
        request.onsuccess = () => {
          ok(request.result);
        };
      });
    const [keys, values] = await Promise.all([all(store.getAllKeys()), all(store.getAll())]);
    db.close();
    return values.filter((_, i) => /^[ce]:/.test(keys[i] as string)).flat() as unknown[];
  });
  const kit = fold('stored', '', raw as Entry[]);
  return { log: kit.log.filter((e) => !isOfMaking(kit, e)), sheet: kit.sheet };
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
