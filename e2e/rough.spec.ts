import { spawn } from 'node:child_process';
import { expect, type Locator, test } from '@playwright/test';
import { command, expectAccessible, giveDeck, openDemo, readFromMeter, storedKit } from './bench';

const VIEWS = ['unpack', 'check', 'fit', 'power', 'fault', 'log', 'sheet', 'circuit', 'instruments', 'practice'];

for (const size of [
  { name: 'a tablet', width: 820, height: 1180 },
  { name: 'a phone', width: 390, height: 844 },
])
  test(`every view in the dim theme on ${size.name}: nothing sticks out sideways, axe finds nothing serious`, async ({ page }) => {
    await openDemo(page);
    await readFromMeter(page);
    await command(page, 'Light or dim');
    const address = page.url().split('#')[0]!;
    await page.setViewportSize(size);
    for (const view of VIEWS) {
      await page.goto(`${address}#${view}`);
      await page.reload();
      await expect(page.getByRole('navigation', { name: 'Phases' })).toBeVisible();
      const wide = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth);
      expect(wide, view).toBeLessThanOrEqual(1);
      if (size.width === 820) await expectAccessible(page);
    }
  });

test('full storage: the entry stays on the screen, and a message says how to save it', async ({ page }) => {
  await openDemo(page);
  await readFromMeter(page);
  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  const entry = page.getByRole('textbox', { name: 'How many' });
  await entry.fill('1');
  await entry.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Export the kit to a file now' })).toBeVisible();
  await expect(page.getByText(': here')).toBeVisible();
  await page.keyboard.press('Alt+6');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export the kit' }).click();
  expect(await (await download).path()).toBeTruthy();
});

const setAtOnce = (field: Locator, text: string) =>
  field.evaluate((el, value) => {
    Object.getOwnPropertyDescriptor(HTMLTextAreaElement.prototype, 'value')?.set?.call(el, value);
    el.dispatchEvent(new Event('input', { bubbles: true }));
  }, text);

test('hostile decks and lists: ten thousand lines, markup, a recursive sub-circuit; the keyboard goes on', async ({ page }) => {
  await page.goto('/new/');
  // The browser's own typing of ten thousand lines takes minutes in any text field; an open or drop sets them at once, as here.
  // Typed once, so that the page is known to listen.
  const deck = await giveDeck(page, 't');
  await expect(page.getByText(/No circuit yet/)).toBeVisible();
  await setAtOnce(deck, `big\nV1 a 0 5\n${Array.from({ length: 10_000 }, (_, i) => `R${i} a 0 ${1000 + i}`).join('\n')}\n.end`);
  await expect(page.getByText('10001 parts, 1 nets.')).toBeVisible({ timeout: 30_000 });
  await deck.fill('t\n.subckt A x\nX1 x A\n.ends\nX1 a A\nV1 a 0 5\nR1 a 0 1k');
  await expect(page.getByText(/contains itself/)).toBeVisible();
  await deck.fill('t\nV1 a 0 5\nR1 a <img/src> 1k\nR2 <img/src> 0 1k');
  await expect(page.getByText('3 parts, 2 nets.')).toBeVisible();
  expect(await page.locator('img').count()).toBe(0);
  await page.getByRole('button', { name: /List/ }).click();
  await page.getByLabel('Parts list').fill('ref;value\nR1;=cmd|calc\n<script>;1k');
  await expect(page.getByText(/looks like a formula/)).toBeVisible();
  await expect(page.getByText('What is this? Nothing here names a part.')).toBeVisible();
});

test('notes, withdrawing from the logbook, readings as CSV', async ({ page }) => {
  await openDemo(page);
  await readFromMeter(page);
  await page.keyboard.press('Alt+6');
  await page.getByRole('textbox', { name: 'Note' }).fill('=SUM(A1)');
  await page.getByRole('button', { name: 'Add note' }).click();
  await page.getByRole('button', { name: 'Withdraw' }).last().click();
  await expect(page.getByText('2 entries, 1 withdrawn')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Readings as CSV' }).click();
  const text = await (await (await download).createReadStream()).toArray();
  const csv = Buffer.concat(text as Buffer[]).toString('utf8');
  expect(csv).toContain("'=SUM(A1)");
  expect(csv).toContain('withdrawn');
  expect((await storedKit(page)).log).toHaveLength(3);
});

test('the schema and the demo’s files are served', async ({ request }) => {
  const schema = await request.get('/schema/kit.schema.json');
  expect(((await schema.json()) as { title: string }).title).toMatch(/version 4/);
  for (const [file, begins] of [
    ['frost-sentinel.zesty.json', '{'],
    ['frost-sentinel.csv', 'refs'],
    ['frost-sentinel.cir', 'Frost sentinel'],
  ] as const)
    expect((await (await request.get(`/demo/${file}`)).text()).startsWith(begins)).toBe(true);
});

test.describe('without a network', () => {
  test.use({ serviceWorkers: 'allow' });
  test('once opened, the bench opens again with the server gone: stored kit, a view never seen, workers and all', async ({ page }) => {
    const port = 4197;
    const server = spawn('node', ['scripts/serve.mjs'], { env: { ...process.env, PORT: String(port) } });
    await new Promise((ready) => server.stdout.once('data', ready));
    try {
      await page.goto(`http://localhost:${port}/`);
      await page.evaluate(async () => {
        await navigator.serviceWorker.ready;
      });
      await page.getByRole('button', { name: /Try the demo/ }).click();
      await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
      await readFromMeter(page);
      server.kill();
      await new Promise((gone) => server.once('exit', gone));
      await page.reload();
      await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
      await readFromMeter(page);
      await page.goto(`http://localhost:${port}/new/`);
      await expect(page.getByLabel('Parts list')).toBeVisible();
    } finally {
      server.kill();
    }
  });
});
