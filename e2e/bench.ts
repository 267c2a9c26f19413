import AxeBuilder from '@axe-core/playwright';
import { expect, type Locator, type Page } from '@playwright/test';
import { type Entry, fold, isOfMaking, type Sheet, type UnknownEntry } from '../src/core/kit';

/** Presses M and takes what the simulated meter shows; an observation is answered by M alone. */
export async function readFromMeter(page: Page): Promise<void> {
  const before = await logLength(page);
  const entry = page.getByRole('textbox', { name: /Meter shows|How many/ });
  await expect(entry.or(page.getByRole('button', { name: /as expected|Enter fitted|all set/ }))).toBeVisible();
  const reading = await entry.isVisible();
  await page.keyboard.press('m');
  if (reading) {
    await expect(entry).not.toHaveValue('');
    await entry.press('Enter');
  }
  await expect.poll(() => logLength(page)).toBeGreaterThan(before);
}

/** Whether something is there once the last entry has been painted. */
export const appears = (what: Locator): Promise<boolean> =>
  what.waitFor({ timeout: 300 }).then(
    () => true,
    () => false,
  );

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

/** Gives a deck on the page of a new kit. */
export async function giveDeck(page: Page, deck: string): Promise<Locator> {
  await page.getByRole('button', { name: /^Circuit$|2 ?Circuit/ }).click();
  await page.getByText('A deck', { exact: true }).click();
  const field = page.getByLabel('Circuit (SPICE');
  await field.fill(deck);
  return field;
}

/** A kit from a list, a deck, or both. */
export async function makeKit(page: Page, name: string, list: string, deck = ''): Promise<void> {
  await page.goto('/new/');
  await page.getByLabel('Name of the kit').fill(name);
  if (list) {
    await page.getByLabel('Parts list').fill(list);
    await expect(page.getByText(/^\d+ lines, \d+ positions/)).toBeVisible();
  }
  if (deck) {
    await giveDeck(page, deck);
    await expect(page.getByText(/^\d+ parts, \d+ nets/)).toBeVisible();
  }
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible({ timeout: 60_000 });
}

/** What stands in the probe bar as the thing in hand. */
export const inHand = (page: Page) => page.getByRole('contentinfo', { name: 'Probe bar' }).getByRole('heading', { level: 3 });

/** The suspects, most probable first. */
export const suspects = (page: Page) => page.getByRole('list', { name: 'Suspects by probability' }).getByRole('listitem');

/** Chooses in a field that offers choices, as a hand on the keyboard does: some letters, Enter. */
export async function choose(field: Locator, text: string): Promise<void> {
  await field.click();
  await field.fill(text);
  await expect(field).toHaveAttribute('aria-expanded', 'true');
  await field.press('Enter');
}

/** Gives a file to the page's file chooser. */
export const giveFile = (page: Page, file: Parameters<Locator['setInputFiles']>[0]) => page.locator('input[type="file"]').first().setInputFiles(file);

/** The smallest picture there is: one pixel. */
export const PIXEL = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');

/** Runs a command or goes to a place through the command box. */
export async function command(page: Page, text: string): Promise<void> {
  await page.keyboard.press('Control+k');
  const box = page.getByRole('combobox', { name: /Where to/ });
  await box.fill(text);
  await box.press('Enter');
  await expect(box).toHaveCount(0);
}

/** axe finds nothing serious on the view as it stands. */
export async function expectAccessible(page: Page): Promise<void> {
  // One page without frames: nothing has to be merged on a second one, and what passes need not be written down.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({ resultTypes: ['violations'] })
    .analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)).toEqual([]);
}

/** Two dividers and a follower: its points a, b, e and f read 5.87, 3.75, 5.2 and 2.6 V where it is healthy. */
export const FOLLOWER = {
  deck: `Two dividers and a follower
V1 vcc 0 12
R1 vcc a 10k
R2 a 0 10k
R3 vcc b 22k
R4 b 0 10k
Q1 vcc a e QN
R5 e 0 1k
R6 e f 4.7k
R7 f 0 4.7k
.model QN NPN(IS=1.5E-14 BF=250 VAF=80 BR=4)
.end`,
  list: 'R1-R2,R4 10k\nR3 22k\nR5 1k\nR6-R7 4.7k\nQ1 BC547',
};

/** Reads checks of the first stage under power, one after another. */
export async function readFirstPower(page: Page, rows: readonly (readonly [RegExp, string])[]): Promise<void> {
  await command(page, 'Power up');
  const ladder = page.getByRole('region', { name: 'Stages', exact: true });
  const readings = async () => (await storedKit(page)).log.filter((e) => e.kind === 'read').length;
  for (const [check, shown] of rows) {
    await ladder.getByText('First power, limited', { exact: true }).click();
    await ladder.getByRole('button', { name: check }).first().click();
    const before = await readings();
    await page.locator('#entry').fill(shown);
    await page.locator('#entry').press('Enter');
    await expect.poll(readings).toBe(before + 1);
  }
}

/** Goes where the fault is looked for, once the suspects are ranked. */
export async function toSuspects(page: Page): Promise<void> {
  await command(page, 'Find fault');
  await expect(suspects(page).first()).toBeVisible({ timeout: 30_000 });
}
