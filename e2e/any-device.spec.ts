import { spawn } from 'node:child_process';
import { request } from 'node:http';
import { readFile } from 'node:fs/promises';
import { chromium, expect, test } from '@playwright/test';
import { CHROMIUM } from '../scripts/chromium';
import { giveFile, makeKit, openDemo, storedKit } from './bench';

const PLAIN_PORT = '4181';

/** The bench as a club serves it without a certificate: another name than this machine's, no secure page. */
async function servedPlainly() {
  const server = spawn(process.execPath, ['scripts/serve.mjs'], { env: { ...process.env, HOST: '0.0.0.0', PORT: PLAIN_PORT } });
  await new Promise<void>((ok) => {
    server.stdout.once('data', () => {
      ok();
    });
  });
  return server;
}

test('plain HTTP from a tablet: a demo is counted, nothing is missed but what is said', async () => {
  const server = await servedPlainly();
  const browser = await chromium.launch({ ...CHROMIUM, args: [...CHROMIUM.args, '--host-resolver-rules=MAP bench.lan 127.0.0.1'] });
  try {
    const page = await browser.newPage({ baseURL: `http://bench.lan:${PLAIN_PORT}` });
    const errors: string[] = [];
    page.on('pageerror', (e) => errors.push(e.message));
    await page.addInitScript(() => {
      localStorage.setItem('zesty-comfort', '{"toured":true}');
    });
    await page.goto('/');
    expect(await page.evaluate(() => window.isSecureContext)).toBe(false);
    await expect(page.getByText(/Opened over plain HTTP/)).toBeVisible();
    await openDemo(page);
    await page.keyboard.press('Enter');
    await expect.poll(async () => (await storedKit(page)).log.length).toBe(1);
    await page.reload();
    await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
    expect((await storedKit(page)).log).toHaveLength(1);
    expect(errors).toEqual([]);
  } finally {
    await browser.close();
    server.kill();
  }
});

test('the server reads only, answers to its own name, and refuses addresses that are none', async ({ baseURL }) => {
  const ask = (method: string, path: string, host?: string) =>
    new Promise<number>((ok, no) => {
      const { port } = new URL(baseURL!);
      const sent = request({ host: 'localhost', port, method, path, ...(host ? { headers: { host } } : {}) }, (answer) => {
        answer.resume();
        ok(answer.statusCode ?? 0);
      });
      sent.on('error', no);
      sent.end();
    });
  expect(await ask('GET', '/')).toBe(200);
  expect(await ask('POST', '/')).toBe(405);
  expect(await ask('GET', '/index.html%00')).toBe(400);
  expect(await ask('GET', '/%E0%A4%A')).toBe(400);
  expect(await ask('GET', '/', 'another.example')).toBe(421);
});

test('the whole shelf as one file, and back on another device; once more it brings nothing', async ({ page, browser }) => {
  await makeKit(page, 'First of the shelf', 'R1-R3 10k\nC1 100n');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await storedKit(page)).log.length).toBe(1);
  await makeKit(page, 'Second of the shelf', 'R1 1k');
  await page.goto('/');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Back up the shelf' }).click()]);
  const text = await readFile(await download.path(), 'utf8');
  await expect(page.getByText('2 kits in the file.')).toBeVisible();

  const away = await (await browser.newContext()).newPage();
  await away.goto('/');
  const file = { name: 'shelf.zesty.json', mimeType: 'application/json', buffer: Buffer.from(text) };
  await giveFile(away, file);
  await expect(away.getByRole('dialog').getByText('“First of the shelf”: new')).toBeVisible();
  await away.getByRole('button', { name: 'Take 2 in' }).click();
  await expect(away.getByText('Second of the shelf')).toBeVisible();
  await expect(away.getByText('First of the shelf')).toBeVisible();
  await giveFile(away, file);
  await expect(away.getByRole('dialog').getByText('Everything in it is here already.')).toBeVisible();
  await away.context().close();
});
