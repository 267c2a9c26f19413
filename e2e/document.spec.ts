/** The document in the real browser: tabs, kills, damaged and foreign storage. Nothing that was entered is lost. */
import { expect, type Page, test } from '@playwright/test';
import { giveFile, makeKit, openDemo, readFromMeter, storedKit } from './bench';

/** A repeatable stream of numbers in 0..1 (a linear congruential generator). */
function stream(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return state / 2147483648;
  };
}

const phase = (page: Page, n: number) => page.keyboard.press(`Alt+${n}`);
const logbook = async (page: Page): Promise<string[]> => {
  await phase(page, 6);
  await expect(page.getByRole('region', { name: 'Log' })).toBeVisible();
  return page.getByRole('region', { name: 'Log' }).getByRole('listitem').allInnerTexts();
};

/** How many entries the logbook says there are. */
const entries = async (page: Page) => Number(/^(\d+) entries/.exec(await page.getByRole('heading', { name: / entries, / }).innerText())?.[1]);

/** One thing that somebody does in a tab; what it writes must be found afterwards. */
async function act(page: Page, n: number, tab: string, dice: number): Promise<string | null> {
  if (dice < 0.3) {
    await phase(page, 1);
    const entry = page.getByRole('textbox', { name: /How many/ });
    if (!(await entry.isVisible())) return null;
    await entry.fill('1');
    await entry.press('Enter');
    return null;
  }
  if (dice < 0.45) {
    await page.keyboard.press('Escape');
    await page.keyboard.press('Control+z');
    return null;
  }
  if (dice < 0.65) {
    const name = `Meter ${tab}${n}`;
    await page.getByRole('button', { name: 'Instruments' }).click();
    await page.getByRole('button', { name: 'Add my own meter' }).click();
    await page.getByLabel('Name', { exact: true }).fill(name);
    await page.getByRole('button', { name: 'Use it' }).click();
    return name;
  }
  if (dice < 0.85) {
    const ref = `R${tab === 'a' ? 100 + n : 200 + n}`;
    await page.getByRole('button', { name: 'Sheet' }).click();
    await page.getByLabel(/As the list prints it|Add a line/).fill(`Resistor 1k ${ref}`);
    await page.getByLabel(/As the list prints it|Add a line/).press('Enter');
    return ref;
  }
  await phase(page, 6);
  await page.getByRole('textbox', { name: 'Note' }).fill(`note ${tab}${n}`);
  await page.getByRole('button', { name: 'Add note' }).click();
  return `note ${tab}${n}`;
}

/** Edits that are worth comparing, and where a tab stops trying. */
const ENOUGH = 10;
const MOST = 60;

test('two tabs write at random for a while: both show the same kit, and no edit is missing', async ({ context, page }) => {
  await openDemo(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(other.getByRole('region', { name: 'Tray' })).toBeVisible();
  const random = stream(20261126);
  const written: string[] = [];
  const work = async (tab: Page, name: string) => {
    const until = Date.now() + 20_000;
    // On a busy machine an edit takes seconds: then it is their number that counts.
    for (let n = 0; n < MOST && (Date.now() < until || written.length <= ENOUGH); n++) {
      const found = await act(tab, n, name, random());
      if (found) written.push(found);
    }
  };
  await Promise.all([work(page, 'a'), work(other, 'b')]);
  expect(written.length).toBeGreaterThan(ENOUGH);
  const missing = async () => {
    const text = JSON.stringify((await storedKit(page)).log);
    return written.filter((w) => !text.includes(w));
  };
  await expect.poll(missing).toEqual([]);
  await expect.poll(async () => (await logbook(page)).join() === (await logbook(other)).join()).toBe(true);
  const here = await logbook(page);
  // A reload shows the same again.
  await page.reload();
  await expect(page.getByRole('region', { name: 'Log' })).toBeVisible();
  expect(await page.getByRole('region', { name: 'Log' }).getByRole('listitem').allInnerTexts()).toEqual(here);
});

test('a record that was changed in two places is a finding with both versions; one click settles it', async ({ page, browser }) => {
  await openDemo(page);
  const meter = async (tab: Page, name: RegExp) => {
    await tab.getByRole('button', { name: 'Instruments' }).click();
    await tab.getByRole('radio', { name }).click();
    await expect(tab.getByRole('radio', { name })).toBeChecked();
  };
  const away = await (await browser.newContext()).newPage();
  await away.goto('/');
  await giveFile(away, await exported(page));
  await expect(away.getByRole('navigation', { name: 'Phases' })).toBeVisible();
  await meter(page, /Component tester/);
  await meter(away, /Good handheld/);
  const back = await exported(away);
  await page.goto('/');
  await giveFile(page, back);
  await expect(page.getByRole('dialog').getByText(/1 record was changed in both/)).toBeVisible();
  await page.getByRole('button', { name: 'Unite the two' }).click();
  await expect(page.getByText('Changed in two places at once')).toBeVisible({ timeout: 45_000 });
  await page.getByRole('button', { name: 'Take this' }).click();
  await expect(page.getByText('Changed in two places at once')).toHaveCount(0);
  await page.getByRole('button', { name: 'Instruments' }).click();
  await expect(page.getByRole('radio', { name: /Component tester/ })).toBeChecked();
});

/** `CLOSINGS=100` for the long run. */
const CLOSINGS = Number(process.env['CLOSINGS'] ?? 40);

test('closed again and again in the middle of writing: at most the unfinished entry is missing', async ({ context, page }) => {
  test.setTimeout(600_000);
  await makeKit(page, 'List only', 'R1-R3 10k\nC1 100n');
  const url = page.url().replace(/#.*|$/, '#log');
  const random = stream(7);
  let shown = 0;
  const writeAndClose = async (n: number): Promise<number> => {
    const tab = await context.newPage();
    await tab.goto(url);
    const note = tab.getByRole('textbox', { name: 'Note' });
    await note.waitFor();
    // What the tabs before showed as written is there.
    expect(await entries(tab)).toBeGreaterThanOrEqual(shown);
    await note.fill(`note ${n}`);
    await note.press('Enter');
    await note.fill(`more ${n}`);
    await note.press('Enter');
    await tab.waitForTimeout(random() * 25);
    const written = await entries(tab);
    await tab.close({ runBeforeUnload: false });
    return written;
  };
  // Two at a time: half the waiting, and they write into one another's way.
  for (let n = 0; n < CLOSINGS; n += 2) shown = Math.max(shown, ...(await Promise.all([writeAndClose(n), writeAndClose(n + 1)])));
  await page.reload();
  const { log } = await storedKit(page);
  expect(log.length).toBeGreaterThanOrEqual(CLOSINGS);
  expect(log.every((e) => e.kind === 'noted')).toBe(true);
  await expect(page.getByText(/damaged/)).toHaveCount(0);
});

test('a held Enter key enters once; what was taken back comes back with Ctrl Shift Z, even after a reload', async ({ page }) => {
  await openDemo(page);
  const entry = page.getByRole('textbox', { name: /How many/ });
  await entry.fill('1');
  for (let n = 0; n < 8; n++) await page.keyboard.down('Enter');
  await page.keyboard.up('Enter');
  await expect.poll(async () => (await storedKit(page)).log.length).toBe(1);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await storedKit(page)).log.length).toBe(2);
  await page.reload();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  await page.keyboard.press('Control+Shift+z');
  await expect.poll(async () => (await storedKit(page)).log.at(-1)?.kind).toBe('withdrawn');
  await phase(page, 6);
  await expect(page.getByText('1 entries, 0 withdrawn')).toBeVisible();
});

test('a mistyped reading is corrected in the logbook: the old one stays readable', async ({ page }) => {
  await openDemo(page);
  await phase(page, 2);
  const entry = page.getByRole('textbox', { name: 'Meter shows' });
  await entry.fill('/r2');
  await entry.press('Enter');
  await expect(page.getByRole('heading', { name: /^R2 from/ })).toBeVisible();
  await entry.fill('68k');
  await entry.press('Enter');
  await expect(page.getByText(/R2 out/)).toBeVisible();
  await phase(page, 6);
  await page.getByRole('button', { name: 'Correct' }).first().click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('What the meter showed').fill('6..8');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  await expect(dialog.getByText(/one decimal mark/)).toBeVisible();
  await dialog.getByLabel('What the meter showed').fill('683');
  await dialog.getByRole('button', { name: 'Correct it' }).click();
  await expect(page.getByText(/Corrected: R2 of 680 Ω reads 683/)).toBeVisible();
  await expect(page.getByText(/R2 OK, 682\.8/)).toBeVisible();
});

/** The open kit as a file. */
async function exported(page: Page): Promise<string> {
  await phase(page, 6);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export the kit' }).click();
  return (await download).path();
}

/** Writes into the open kit's database from outside, as another program would. */
const putInto = (page: Page, key: string, value: unknown) =>
  page.evaluate(
    async ([k, v]) => {
      const id = new URLSearchParams(location.search).get('kit')!;
      const db = await new Promise<IDBDatabase>((ok) => {
        const request = indexedDB.open(`zesty-kit-${id}`);
        request.onsuccess = () => {
          ok(request.result);
        };
      });
      await new Promise((ok) => {
        const put = db.transaction('log', 'readwrite').objectStore('log').put(v, k);
        put.onsuccess = ok;
      });
      db.close();
    },
    [key, value] as const,
  );

test('a damaged record is set aside and can be saved; a kit of a newer program is shown and not changed', async ({ page }) => {
  await openDemo(page);
  await putInto(page, 'e:bad', { kind: 'counted', id: 'bad', at: '2026-01-01T00:00:00.000Z', line: 'r-680', quantity: 'many' });
  await page.reload();
  await expect(page.getByText(/1 stored record is damaged and set aside.*quantity/)).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save them to a file' }).click();
  expect((await download).suggestedFilename()).toBe('damaged-records.json');
  await putInto(page, '~kit', { format: 'zesty-bench-kit', version: 9, id: new URL(page.url()).searchParams.get('kit'), created: '2026-01-01' });
  await page.reload();
  await expect(page.getByText(/of version 9.*cannot be changed here/)).toBeVisible();
  await page.getByRole('textbox', { name: /How many/ }).fill('1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').getByText(/newer program wrote this kit/)).toBeVisible();
  expect((await storedKit(page)).log.map((e) => e.id)).toEqual(['bad']);
});

test('storage that is cleared under an open kit is written anew from the tab', async ({ page }) => {
  await openDemo(page);
  await readFromMeter(page);
  await page.evaluate(async () => {
    for (const { name } of await indexedDB.databases())
      if (name?.startsWith('zesty-kit-')) await new Promise((ok) => (indexedDB.deleteDatabase(name).onsuccess = ok));
  });
  await page.keyboard.press('m');
  await expect(page.getByRole('textbox', { name: /How many/ })).not.toHaveValue('');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').getByText(/storage was cleared/)).toBeVisible();
  await page.reload();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  expect((await storedKit(page)).log).toHaveLength(2);
});

test('a kit goes to another device and back: its file says what it adds before it is united', async ({ page, browser }) => {
  await openDemo(page);
  await readFromMeter(page);
  const file = await exported(page);
  const away = await (await browser.newContext()).newPage();
  await away.goto('/');
  await giveFile(away, file);
  await expect(away.getByRole('navigation', { name: 'Phases' })).toBeVisible();
  await phase(away, 6);
  await away.getByRole('textbox', { name: 'Note' }).fill('seen away');
  await away.getByRole('button', { name: 'Add note' }).click();
  const returned = await exported(away);
  await page.goto('/');
  await giveFile(page, returned);
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('The file adds 1 entry; nothing that is here is lost.')).toBeVisible();
  await expect(dialog.getByText('seen away')).toBeVisible();
  await dialog.getByRole('button', { name: 'Unite the two' }).click();
  await expect(page.getByRole('navigation', { name: 'Phases' })).toBeVisible();
  await phase(page, 6);
  await expect(page.getByText('seen away')).toBeVisible();
});
