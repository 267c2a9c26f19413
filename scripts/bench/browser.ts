/** The same kit in the real browser: append to disk, and key to painted verdict. Needs a build and Chromium; says so without. */
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { documentOf } from '../../src/core/kit';
import { CHROMIUM } from '../chromium';
import { bigKit } from './bigKit';

const PORT = 4189;
/** Keys measured in each phase. */
const KEYS = 30;
/** No answer after this is none, milliseconds. */
const GIVEN_UP = 3000;
/** Between two keys of somebody who reads a meter and types fast, milliseconds. */
const PAUSE = 350;
/** Before the first, milliseconds: what is asked is read. */
const LOOKED = 1000;

const at = (values: readonly number[], share: number) => [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))]!;
const spread = (values: readonly number[]) => `${at(values, 0.5).toFixed(1)} ms median, ${at(values, 0.95).toFixed(1)} ms p95`;

/** Milliseconds from a key to the frame that shows another text at `shown`; null when it does not change. */
async function keyToPaint(page: Page, key: string, shown: string): Promise<number | null> {
  await page.evaluate(
    ([selector, most]) => {
      const text = () => document.querySelector(selector)?.textContent;
      const before = text();
      const w = window as unknown as { painted: Promise<number | null> };
      w.painted = new Promise((done) => {
        addEventListener(
          'keydown',
          () => {
            const from = performance.now();
            setTimeout(() => done(null), most);
            const watch = new MutationObserver(() => {
              if (text() === before) return;
              watch.disconnect();
              requestAnimationFrame(() => setTimeout(() => done(performance.now() - from)));
            });
            watch.observe(document.body, { subtree: true, childList: true, characterData: true });
          },
          { once: true, capture: true },
        );
      });
    },
    [shown, GIVEN_UP] as const,
  );
  await page.keyboard.press(key);
  return page.evaluate(() => (window as unknown as { painted: Promise<number | null> }).painted);
}

/** The same on a page that only counts keys: what the browser and the measuring cost alone. */
async function emptyPage(page: Page): Promise<number[]> {
  await page.setContent('<p id="n">0</p><script>let n=0;addEventListener("keydown",()=>{document.getElementById("n").textContent=++n})</script>');
  const times: number[] = [];
  for (let n = 0; n < KEYS; n++) times.push((await keyToPaint(page, 'x', '#n')) ?? GIVEN_UP);
  return times;
}

const VERDICT = '[aria-label="Last verdict"]';
const TARGET = '[aria-label="Probe bar"] h3';

/** Phases of the loop: what is typed there, and what tells that it was taken. */
const PHASES: readonly {
  readonly name: string;
  readonly hash: string;
  readonly type: ((asked: string, n: number) => string) | null;
  readonly shown: string;
}[] = [
  { name: 'Unpack', hash: 'unpack', type: (_, n) => `${1 + (n % 2)}`, shown: VERDICT },
  // Near what its line says, so that Fit may use it.
  { name: 'Check', hash: 'check', type: (asked, n) => `${/([\d.]+) kΩ/.exec(asked)?.[1] ?? '1'}.0${n % 2}k`, shown: VERDICT },
  { name: 'Fit', hash: 'fit', type: null, shown: TARGET },
  { name: 'Power up', hash: 'power', type: (_, n) => `${1 + (n % 2)}`, shown: VERDICT },
];

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

type Say = (...text: string[]) => void;
type Padded = (text: string) => string;

/** A kit that is made on the page of a new one. */
async function makeKit(page: Page, list: string): Promise<void> {
  await page.goto(`http://localhost:${PORT}/new/`);
  await page.getByLabel('Name of the kit').fill('Measured');
  await page.getByLabel('Parts list').fill(list);
  await page.getByText(/^\d+ lines, \d+ positions/).waitFor();
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await page.getByRole('region', { name: 'Tray' }).waitFor();
}

/** A map of 150 parts is zoomed and dragged about: the longest time that the page was busy without a pause. */
async function mapOf150(page: Page, say: Say, padded: Padded): Promise<void> {
  await makeKit(page, 'R1-R100 10k\nC1-C40 100n\nQ1-Q10 BC547');
  await page.keyboard.press('Alt+3');
  const map = page.getByRole('img', { name: /Board with 150 places/ });
  await map.waitFor();
  await page.waitForTimeout(1000);
  await page.evaluate(() => {
    const w = window as unknown as { longest: number };
    w.longest = 0;
    new PerformanceObserver((list) => {
      for (const e of list.getEntries()) w.longest = Math.max(w.longest, e.duration);
    }).observe({ entryTypes: ['longtask'] });
  });
  const box = (await map.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  for (let n = 0; n < 12; n++) {
    await page.mouse.wheel(0, n < 6 ? -120 : 120);
    await page.waitForTimeout(60);
  }
  await page.mouse.down();
  await page.mouse.move(x + 150, y + 80, { steps: 25 });
  await page.mouse.up();
  await page.waitForTimeout(300);
  const longest = await page.evaluate(() => (window as unknown as { longest: number }).longest);
  say(padded('  map of 150 parts, longest busy time'), longest === 0 ? 'under 50 ms' : `${longest.toFixed(0)} ms`);
}

/** A photo of 20 megapixels, from the file to its place on the sheet. */
async function largePhoto(page: Page, say: Say, padded: Padded): Promise<void> {
  const bytes = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(5472, 3648);
    const brush = canvas.getContext('2d')!;
    for (let n = 0; n < 400; n++) {
      brush.fillStyle = `hsl(${(n * 37) % 360} 60% 50%)`;
      brush.fillRect((n * 997) % 5472, (n * 613) % 3648, 500, 300);
    }
    return [...new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 })).arrayBuffer())];
  });
  await page.keyboard.press('Alt+7');
  await page.getByText('Boards, options, claims').click();
  const photos = page.getByRole('region', { name: 'Photos' });
  const from = Date.now();
  await photos.locator('input[type=file]').setInputFiles({ name: 'board.jpg', mimeType: 'image/jpeg', buffer: Buffer.from(bytes) });
  await photos.getByRole('button', { name: 'Set pins' }).waitFor();
  say(padded('  photo of 20 megapixels, to its place'), `${Date.now() - from} ms`);
}

export async function benchBrowser(say: Say, padded: Padded): Promise<void> {
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
    const blank = await browser.newPage();
    say(padded('  an empty page, key to paint'), spread(await emptyPage(blank)));
    await blank.close();
    say(padded('  append to disk, one put'), spread(await puts(page)));
    const from = Date.now();
    await page
      .locator('input[type=file]')
      .setInputFiles({ name: 'big.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(documentOf(bigKit()))) });
    await page.locator('#entry').or(page.locator('[data-confirm="yes"]')).first().waitFor();
    say(padded('  open its file, to the first target'), `${Date.now() - from} ms`);
    const address = page.url().replace(/#.*/, '');
    await page.goto(`${address}#check`);
    await page.reload();
    const again = Date.now();
    await page.locator('#entry').waitFor();
    say(padded('  open it from storage, to the first target'), `${Date.now() - again} ms`);
    for (const { name, hash, type, shown } of PHASES) {
      await page.goto(`${address}#${hash}`);
      await page.reload();
      await page.locator(type === null ? '[data-confirm="yes"]' : TARGET).waitFor();
      await page.waitForTimeout(LOOKED);
      const times: number[] = [];
      for (let n = 0; n < KEYS; n++) {
        await page.waitForTimeout(PAUSE);
        const entry = page.locator('#entry');
        if (type !== null && (await entry.isVisible())) await entry.fill(type(await page.locator(TARGET).innerText(), n));
        else if (type !== null && !(await page.locator('[data-confirm="yes"]').isVisible())) break;
        const took = await keyToPaint(page, 'Enter', shown);
        if (took === null) break;
        times.push(took);
      }
      say(padded(`  Enter to painted answer, ${name}`), times.length === 0 ? `no answer to: ${await page.getByLabel('Probe bar').innerText()}` : spread(times));
    }
    await mapOf150(page, say, padded);
    await largePhoto(page, say, padded);
  } finally {
    await browser.close();
    server.kill();
  }
}
