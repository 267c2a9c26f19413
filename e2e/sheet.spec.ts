import { expect, test } from '@playwright/test';
import { command, expectAccessible, inHand, openDemo, storedKit } from './bench';

const labels = async (page: Parameters<typeof storedKit>[0]) => (await storedKit(page)).sheet.lines.map((l) => l.label);

test('the sheet: a line out and back, a slip that amends the list, a type card that a tester contradicts', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Sheet' }).click();
  const lines = page.getByRole('region', { name: 'Lines', exact: true });
  await expect(page.getByRole('button', { name: 'Take back the last change' })).toHaveCount(0);
  await lines.getByRole('button', { name: 'Remove 680' }).click();
  await expect.poll(() => labels(page)).not.toContain('680');
  await page.getByRole('button', { name: 'Take back the last change' }).click();
  await expect.poll(async () => (await labels(page)).some((l) => l.startsWith('680'))).toBe(true);

  // A ref that stands in another line is refused with its place; a new one with its slip is kept.
  await page.getByLabel('Add a line').fill('Resistor 10k R2');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('R2 is on another line already')).toBeVisible();
  await page.getByLabel('Add a line').fill('Resistor 1k R30');
  await page.getByLabel('From a slip that amends the list').fill('a bleeder was forgotten');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(lines.getByText('amended: a bleeder was forgotten')).toBeVisible();
  await page.getByLabel('Add a line').fill('something nobody knows');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Write what it is, its value and its positions')).toBeVisible();

  // A card typed once; figures that are none are named.
  const cards = page.getByRole('region', { name: 'Needs and cards' });
  await cards.getByLabel('Type', { exact: true }).fill('BC547');
  await cards.getByLabel('The tester shows the pins').fill('E B C');
  await expect(cards.getByText('The tester says EBC, the card CBE (TO-92): mirrored')).toBeVisible();
  await cards.getByLabel('Type', { exact: true }).fill('OWN12');
  await cards.getByLabel('Pins from the left').fill('B C E');
  await cards.getByLabel('Figures: name value unit; …').fill('collector voltage');
  await cards.getByRole('button', { name: 'Keep the card' }).click();
  await expect(cards.getByText('"collector voltage" is no figure')).toBeVisible();
  await cards.getByLabel('Figures: name value unit; …').fill('collector voltage 30 V; power 0,4 W');
  await cards.getByRole('button', { name: 'Keep the card' }).click();
  await expect(cards.getByText('OWN12 is in your collection, for every kit.')).toBeVisible();
  await expectAccessible(page);

  // What was added is asked for in Unpack.
  await page.keyboard.press('Alt+1');
  await expect(page.getByRole('region', { name: 'Tray' }).getByText('R30')).toBeVisible();
});

test('the keyboard: the list of keys, phases, jumping, going up and down, skipping, and nothing while a field is typed in', async ({ page }) => {
  await openDemo(page);
  const entry = page.locator('#entry');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await expect(page.getByText('Jump: type a ref behind it')).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toHaveCount(0);

  await page.keyboard.press('Alt+2');
  const title = inHand(page);
  let first: string | null = null;
  // What matters most first is computed meanwhile: down and up again lead back when the order stands.
  await expect(async () => {
    first = await title.textContent();
    await page.keyboard.press('ArrowDown');
    await expect(title).not.toHaveText(first!, { timeout: 2000 });
    await page.keyboard.press('ArrowUp');
    await expect(title).toHaveText(first!, { timeout: 2000 });
  }).toPass();
  await page.keyboard.press('s');
  await expect.poll(async () => (await storedKit(page)).log.at(-1)?.kind).toBe('skipped');
  await expect(title).not.toHaveText(first!);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await storedKit(page)).log.at(-1)?.kind).toBe('withdrawn');

  // A letter in the middle of a value is part of it, and a ref that is not there is answered.
  await entry.fill('4k7');
  await entry.press('m');
  await expect(entry).toHaveValue('4k7m');
  await entry.fill('/R99');
  await entry.press('Enter');
  await expect(page.getByText(/R99/).first()).toBeVisible();
  await entry.fill('/d3');
  await entry.press('Enter');
  await expect(page.getByRole('heading', { name: /D3/ })).toBeVisible();

  await command(page, 'Light or dim');
  await expectAccessible(page);
});

test('packet labels say what each packet is, and what it measured', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+2');
  const entry = page.locator('#entry');
  await entry.fill('/r2');
  await entry.press('Enter');
  await expect(page.getByRole('heading', { name: /R2/ })).toBeVisible();
  await entry.fill('683');
  await entry.press('Enter');
  await expect.poll(async () => (await storedKit(page)).log.at(-1)).toMatchObject({ kind: 'measured', line: 'r-680', reading: 683 });
  await page.getByRole('button', { name: 'Packet labels' }).click();
  const labelsSheet = page.getByRole('dialog', { name: 'Labels for the packets' });
  await expect(labelsSheet.getByText('683 Ω')).toBeVisible();
  await expect(labelsSheet.getByText('not measured').first()).toBeVisible();
  await expectAccessible(page);
});
