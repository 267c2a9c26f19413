/** The frame: keyboard alone, command box, comfort, sizes, messages, the shelf, what axe cannot see. */
import { expect, type Page, test } from '@playwright/test';
import { choose, command, expectAccessible, giveFile, inHand, openDemo, readFromMeter, storedKit, PIXEL } from './bench';

const bar = (page: Page) => page.getByRole('contentinfo', { name: 'Probe bar' });
const phases = (page: Page) => page.getByRole('navigation', { name: 'Phases' });

test('a whole kit is unpacked by keyboard alone, from the shelf to the last line', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByText('The shelf is empty')).toBeVisible();
  for (let i = 0; i < 6; i++) {
    if (await page.getByRole('button', { name: /Try the demo/ }).evaluate((el) => el === document.activeElement)) break;
    await page.keyboard.press('Tab');
  }
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  await expect(page.getByRole('textbox', { name: /How many/ })).toBeFocused();
  const lines = (await storedKit(page)).sheet.lines.length;
  for (let i = 0; i < lines; i++) {
    const before = await inHand(page).textContent();
    if (i === 3) {
      // A wrong count, taken back and typed anew.
      await page.keyboard.type('7');
      await page.keyboard.press('Enter');
      await expect(inHand(page)).not.toHaveText(before!);
      await page.keyboard.press('Control+z');
      await expect(inHand(page)).toHaveText(before!);
    }
    await page.keyboard.press('Enter');
    await expect(inHand(page).filter({ hasText: before! })).toHaveCount(0);
  }
  await expect(bar(page)).toContainText('Every line is counted');
  await expect(phases(page).getByRole('button', { name: /Unpack/ })).toContainText('done');
  // On through the compartments by arrows: the one that is reached is in the hand.
  await page.keyboard.press('Alt+2');
  await expect(page.getByRole('textbox', { name: 'Meter shows' })).toBeFocused();
  const tray = page.getByRole('region', { name: 'Tray' });
  await expect(tray.getByText('not measured').first()).toBeVisible();
  await tray.getByRole('button', { name: /680/ }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(inHand(page)).toHaveText(/R1 from/);
  await page.keyboard.press('ArrowDown');
  await expect(inHand(page)).not.toHaveText(/R1 from/);
});

test('the command box goes to a part, a net, a check, a view, and runs commands', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Go to' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Go to' })).toHaveCount(0);
  await command(page, 'check');
  await expect(phases(page).getByRole('button', { name: /^Check/ })).toHaveAttribute('aria-current', 'step');
  await command(page, 'r12');
  await expect(inHand(page)).toHaveText(/^R12/);
  await command(page, 'vcc');
  await expect(page.getByRole('button', { name: /net vcc/ })).toHaveAttribute('aria-current', 'true');
  await command(page, 'solder side');
  await expect(inHand(page)).toHaveText(/solder side/);
  await command(page, 'Logbook');
  await expect(page.getByRole('region', { name: 'Log' })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: /Where to/ }).fill('no such thing');
  await expect(page.getByText('Nothing here has that name.')).toBeVisible();
});

test('where nothing is asked the probe bar is one line, and leads back to the work', async ({ page }) => {
  await openDemo(page);
  await command(page, 'Instruments');
  const height = (await bar(page).boundingBox())!.height;
  expect(height).toBeLessThan(80);
  await page.getByRole('button', { name: 'Back to Unpack' }).click();
  await expect(page.getByRole('textbox', { name: /How many/ })).toBeVisible();
});

for (const size of [
  { name: 'phone', width: 390, height: 844, board: 0.3 },
  { name: 'tablet', width: 820, height: 1180, board: 0.4 },
])
  test(`on a ${size.name} a stage is read: target, field and window in sight, the board above them usable`, async ({ page }) => {
    await page.setViewportSize(size);
    await openDemo(page);
    await command(page, 'Power up');
    const entry = page.getByRole('textbox', { name: 'Meter shows' });
    const answer = page.getByRole('button', { name: /as expected|all set/ });
    for (;;) {
      await expect(entry.or(answer)).toBeVisible();
      if (await entry.isVisible()) break;
      await readFromMeter(page);
    }
    for (const thing of [inHand(page), entry, bar(page).getByRole('img', { name: /expected/ })]) {
      await expect(thing).toBeInViewport();
    }
    const map = page.getByRole('region', { name: 'Board map' });
    const box = (await map.boundingBox())!;
    expect(Math.min(box.y + box.height, (await bar(page).boundingBox())!.y) - box.y).toBeGreaterThan(size.board * 0.5 * size.height);
    await readFromMeter(page);
    await expect(bar(page)).toContainText(/OK,|out of range,|borderline/);
    // What stands beside the work is reached here too.
    if (size.name === 'phone') {
      await page.getByRole('button', { name: 'Comfort and more' }).click();
      await page.getByRole('menuitem', { name: 'Sheet' }).click();
    } else await page.getByRole('button', { name: 'Sheet' }).click();
    await expect(page.getByRole('region', { name: 'Lines' })).toBeVisible();
  });

test('text at 200 %: nothing sticks out sideways, what is asked stays in sight', async ({ page }) => {
  await openDemo(page);
  for (let i = 0; i < 5; i++) await command(page, 'Larger text');
  await expect.poll(() => page.evaluate(() => getComputedStyle(document.documentElement).fontSize)).toBe('32px');
  const entry = page.getByRole('textbox', { name: /How many/ });
  await expect(entry).toBeInViewport();
  for (const view of ['Check', 'Power up', 'Sheet', 'Instruments', 'Logbook']) {
    await command(page, view);
    expect(await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth), view).toBeLessThanOrEqual(1);
  }
  await page.reload();
  await expect(phases(page)).toBeVisible();
  expect(await page.evaluate(() => getComputedStyle(document.documentElement).fontSize)).toBe('32px');
});

test('both themes: axe finds nothing serious on any view at the desk, and the dim one is there before the program is', async ({ page }) => {
  test.setTimeout(240_000);
  await openDemo(page);
  await readFromMeter(page);
  for (const theme of ['light', 'dim']) {
    for (const view of ['Unpack', 'Check', 'Fit', 'Power up', 'Find fault', 'Logbook', 'Sheet', 'Circuit', 'Instruments', 'Practice']) {
      await command(page, view);
      await page.waitForTimeout(300);
      await expectAccessible(page);
    }
    if (theme === 'light') await command(page, 'Light or dim');
  }
  // No script of the app arrives: the page is dim all the same.
  await page.route(/_next\/static\/.*\.js/, (route) => route.abort());
  await page.goto('/');
  const ground = await page.evaluate(() => getComputedStyle(document.body).backgroundColor);
  expect(
    ground
      .match(/\d+/g)!
      .map(Number)
      .every((c) => c < 60),
  ).toBe(true);
  const button = page.getByRole('button', { name: 'New kit' });
  const paper = await button.evaluate((el) => getComputedStyle(el).backgroundColor);
  expect(
    paper
      .match(/\d+/g)!
      .map(Number)
      .slice(0, 3)
      .every((c) => c < 90),
  ).toBe(true);
});

test('single letters can be switched off; the list of keys says so', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('?');
  await page.getByRole('switch', { name: /Single letters/ }).click();
  await page.keyboard.press('Escape');
  const entry = page.getByRole('textbox', { name: /How many/ });
  await entry.focus();
  await page.keyboard.press('m');
  await expect(entry).toHaveValue('m');
  await entry.fill('');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await expect(page.getByRole('dialog', { name: 'Go to' })).toBeVisible();
});

test('focus is never hidden by the probe bar, and everything that can be pressed is large enough', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+9');
  await expect(page.getByRole('region', { name: 'Meters' })).toBeVisible();
  for (let i = 0; i < 40; i++) {
    await page.keyboard.press('Tab');
    const hidden = await page.evaluate(() => {
      const el = document.activeElement;
      if (!el || el === document.body) return null;
      const { left, top, width, height } = el.getBoundingClientRect();
      const seen = document.elementFromPoint(left + width / 2, top + height / 2);
      const shown = el.contains(seen) || seen?.contains(el) || el.closest('label')?.contains(seen);
      return width > 1 && !shown ? el.outerHTML.slice(0, 120) : null;
    });
    expect(hidden).toBeNull();
  }
  // WCAG 2.2 AA, 2.5.8: 24 by 24 pixels at least.
  for (const view of ['Check', 'Power up', 'Logbook', 'Sheet']) {
    await command(page, view);
    const small = await page.evaluate(() =>
      [...document.querySelectorAll('button')]
        .map(
          (b) =>
            ({ name: b.getAttribute('aria-label') ?? b.textContent, ...b.getBoundingClientRect().toJSON() }) as { name: string; width: number; height: number },
        )
        .filter((b) => b.width > 0 && (b.height < 24 || b.width < 24) && !/^\s*$/.test(b.name))
        .map((b) => `${b.name} ${b.width}×${b.height}`),
    );
    expect(small, view).toEqual([]);
  }
});

test('changes are said with the way back; notes carry photos', async ({ page }) => {
  await openDemo(page);
  await command(page, 'Sheet');
  await page.getByLabel('Add a line').fill('Resistor 1k R40');
  await page.getByLabel('Add a line').press('Enter');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await storedKit(page)).sheet.lines.some((l) => l.refs.includes('R40'))).toBe(false);

  await command(page, 'Logbook');
  await page.getByRole('textbox', { name: 'Note' }).fill('a grey joint at R9');
  await giveFile(page, { name: 'joint.png', mimeType: 'image/png', buffer: PIXEL });
  await page.getByRole('button', { name: 'Add note' }).click();
  const log = page.getByRole('region', { name: 'Log' });
  await expect(log.getByRole('img', { name: 'joint.png' })).toBeVisible();
  await page.reload();
  await expect(log.getByRole('img', { name: 'joint.png' })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export the kit' }).click();
  const text = Buffer.concat((await (await (await download).createReadStream()).toArray()) as Buffer[]).toString('utf8');
  expect(Object.keys((JSON.parse(text) as { attachments: object }).attachments)).toHaveLength(1);
  await giveFile(page, { name: 'no.png', mimeType: 'image/png', buffer: Buffer.from('no picture') });
  await page.getByRole('button', { name: 'Add note' }).click();
  await expect(page.getByText('no.png is no picture')).toBeVisible();

  // Filters of the log.
  await page.getByRole('textbox', { name: 'Search the log' }).fill('grey joint');
  await expect(log.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('textbox', { name: 'Search the log' }).fill('');
  await choose(page.getByRole('combobox', { name: 'Topics' }), 'sheet');
  await expect(log.getByText('a grey joint at R9')).toHaveCount(0);
});

test('the shelf: where one was, another one of the same kit, rename, archive, off and back again; a file dropped anywhere', async ({ page }) => {
  await openDemo(page);
  await readFromMeter(page);
  await page.waitForTimeout(1000);
  await page.goto('/');
  const card = (name: string) => page.getByRole('article', { name, exact: true });
  await expect(card('Frost sentinel')).toContainText(/Last: Counted .*Next: Unpack, count/);
  const more = async (name: string, item: RegExp) => {
    await page.getByRole('button', { name: `More about ${name}`, exact: true }).click();
    await page.getByRole('menuitem', { name: item }).click();
    await expect(page.getByRole('menuitem')).toHaveCount(0);
  };
  await more('Frost sentinel', /sheet only/);
  await expect(card('Frost sentinel, another one')).toContainText('0 entries');
  await more('Frost sentinel', /whole log/);
  await expect(card('Frost sentinel, copy')).toContainText('1 entries');
  await more('Frost sentinel, copy', /Rename/);
  await page.getByRole('textbox', { name: /New name/ }).fill('Twin');
  await page.keyboard.press('Enter');
  await expect(card('Twin')).toBeVisible();
  await more('Twin', /^Archive/);
  await expect(page.getByRole('heading', { name: 'Archived' })).toBeVisible();
  await more('Frost sentinel, another one', /Take off/);
  await expect(card('Frost sentinel, another one')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).last().click();
  await expect(card('Frost sentinel, another one')).toBeVisible();
  await expect(page.getByText(/Kept in this browser/)).toBeVisible();
  await expectAccessible(page);

  await page.evaluate(() => {
    const data = new DataTransfer();
    data.items.add(new File(['{"some":"thing"}'], 'strange.json', { type: 'application/json' }));
    dispatchEvent(new DragEvent('drop', { dataTransfer: data, cancelable: true }));
  });
  await expect(page.getByText(/strange\.json: .*no Zesty Bench kit/)).toBeVisible();
});

test('practice: a copy of one’s own kit with a simulated meter and a hidden fault', async ({ page }) => {
  await openDemo(page);
  await command(page, 'Practice');
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByRole('link', { name: /Frost sentinel, practice/ })).toBeVisible();
  await readFromMeter(page);
  const { log, sheet } = await storedKit(page);
  expect(log.map((e) => e.kind)).toEqual(['fitted', 'observed']);
  expect(sheet.lines).toHaveLength(22);
});

test.describe('the first time', () => {
  test.use({ storageState: { cookies: [], origins: [] } });
  test('a tour of at most five steps that does not stand in the way, once', async ({ page }) => {
    await openDemo(page);
    await expect(page.getByText('The probe bar asks for one thing at a time')).toBeVisible();
    // It does not hold up the work.
    await readFromMeter(page);
    for (let i = 0; i < 5; i++) {
      const next = page.getByRole('button', { name: /Next|Finish/ });
      if ((await next.count()) === 0) break;
      await next.click();
    }
    await expect(page.getByText('Everything has a key')).toHaveCount(0);
    await page.reload();
    await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
    await expect(page.getByText('The probe bar asks for one thing at a time')).toHaveCount(0);
  });
});

/** Script that a page asks for until it can be used, kB after gzip, as the server that ships with the app sends it. */
async function scriptOf(page: Page, address: string, usable: string): Promise<number> {
  // What is asked for after that (what lies behind a button, workers, the other page) holds nobody up.
  await page.addInitScript((selector) => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector(selector)) return;
      observer.disconnect();
      (window as unknown as { usableAt: number }).usableAt = performance.now();
    }).observe(document, { childList: true, subtree: true });
  }, usable);
  await page.goto(address, { waitUntil: 'networkidle' });
  // A network at rest is not yet a page that can be used: a busy machine still computes.
  await page.waitForFunction(() => 'usableAt' in window);
  return page.evaluate(() => {
    const at = (window as unknown as { usableAt: number }).usableAt;
    const scripts = (performance.getEntriesByType('resource') as PerformanceResourceTiming[]).filter((r) => /\.js(\?|$)/.test(r.name) && r.startTime < at);
    return scripts.reduce((sum, r) => sum + r.encodedBodySize, 0) / 1000;
  });
}

test('first loads stay within their budgets: shelf 320 kB of script, bench 445', async ({ page, browser }) => {
  expect(await scriptOf(page, '/', 'main button')).toBeLessThan(320);
  await openDemo(page);
  const bench = page.url();
  const state = await page.context().storageState({ indexedDB: true });
  const fresh = await (await browser.newContext({ storageState: state })).newPage();
  const size = await scriptOf(fresh, bench, '[aria-label="Tray"]');
  expect(size).toBeGreaterThan(100);
  expect(size).toBeLessThan(445);
});
