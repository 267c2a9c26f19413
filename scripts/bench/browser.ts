/** The same kit in the real browser: append to disk, and key to painted verdict. Needs a build and Chromium; says so without. */
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { documentOf } from '../../src/core/kit';
import { CHROMIUM } from '../chromium';
import { bigKit } from './bigKit';

const PORT = 4189;

const at = (values: readonly number[], share: number) => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
const spread = (values: readonly number[]) => `${at(values, 0.5).toFixed(1)} ms median, ${at(values, 0.95).toFixed(1)} ms p95`;

/** Milliseconds from a key to the frame in which `shown` has changed. */
async function keyToPaint(page: Page, key: string, shown: string): Promise<number> {
  await page.evaluate((selector) => {
    const before = document.querySelector(selector)?.textContent;
    const w = window as unknown as { painted: Promise<number> };
    w.painted = new Promise((done) => {
      addEventListener(
        'keydown',
        () => {
          const from = performance.now();
          const frame = () => {
            if (document.querySelector(selector)?.textContent !== before) requestAnimationFrame(() => setTimeout(() => done(performance.now() - from)));
            else requestAnimationFrame(frame);
          };
          requestAnimationFrame(frame);
        },
        { once: true, capture: true },
      );
    });
  }, shown);
  await page.keyboard.press(key);
  return page.evaluate(() => (window as unknown as { painted: Promise<number> }).painted);
}

/** One put of a small record into a database of the kind that kits live in, milliseconds. */
const puts = (page: Page) =>
  page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((ok) => {
      const request = indexedDB.open('bench');
      request.onupgradeneeded = () => request.result.createObjectStore('log');
      request.onsuccess = () => ok(request.result);
    });
    const times: number[] = [];
    for (let n = 0; n < 60; n++) {
      const from = performance.now();
      await new Promise((ok) => {
        const put = db
          .transaction('log', 'readwrite')
          .objectStore('log')
          .put({ kind: 'noted', text: 'x', id: `${n}`, at: `${n}` }, `e:${n}`);
        put.onsuccess = ok;
      });
      times.push(performance.now() - from);
    }
    db.close();
    return times;
  });

export async function benchBrowser(say: (...text: string[]) => void, padded: (text: string) => string): Promise<void> {
  if (!existsSync('out/index.html') || !existsSync(CHROMIUM.executablePath)) {
    say('in the browser: not measured (needs npm run build, and Chromium)');
    return;
  }
  const server = spawn('node', ['scripts/serve.mjs'], { env: { ...process.env, PORT: String(PORT) } });
  await new Promise((ready) => server.stdout.once('data', ready));
  const browser = await chromium.launch(CHROMIUM);
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' })).newPage();
    await page.goto(`http://localhost:${PORT}/`);
    await page.getByText('The shelf is empty').waitFor();
    say('in the browser, the kit of 300 lines and 5 000 entries');
    const empty = await page.evaluate(
      () =>
        new Promise<number>((done) => {
          const from = performance.now();
          requestAnimationFrame(() => setTimeout(() => done(performance.now() - from)));
        }),
    );
    say(padded('  an empty frame'), `${empty.toFixed(1)} ms`);
    say(padded('  append to disk, one put'), spread(await puts(page)));
    const from = Date.now();
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'big.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(documentOf(bigKit()))) });
    await page.locator('#entry').or(page.locator('[data-confirm="yes"]')).first().waitFor();
    say(padded('  open its file, to the first target'), `${Date.now() - from} ms`);
    await page.goto(page.url().replace(/#.*|$/, '#check'));
    await page.reload();
    const again = Date.now();
    await page.locator('#entry').waitFor();
    say(padded('  open it from storage, to the first target'), `${Date.now() - again} ms`);
    const times: number[] = [];
    for (let n = 0; n < 30; n++) {
      await page.locator('.cell').nth(n).click();
      await page.locator('#entry').fill('1.01k');
      times.push(await keyToPaint(page, 'Enter', '.verdict-line'));
    }
    say(padded('  Enter to painted verdict, Check'), spread(times));
  } finally {
    await browser.close();
    server.kill();
  }
}
