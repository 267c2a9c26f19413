import { spawn } from 'node:child_process';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from './chromium';
const PORT = '4310';
const server = spawn('node', ['scripts/serve.mjs'], { env: { ...process.env, PORT }, stdio: 'ignore' });
await new Promise((r) => setTimeout(r, 1500));
const browser = await chromium.launch({ ...CHROMIUM });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('console', (m) => {
  if (m.type() === 'error') console.log('ERR', m.text().slice(0, 200));
});
page.on('pageerror', (e) => console.log('PAGEERR', e.message));
await page.addInitScript(() => localStorage.setItem('zesty-comfort', '{"toured":true}'));
await page.goto(`http://127.0.0.1:${PORT}/`);
const shot = (n: string) => page.screenshot({ path: `/tmp/w/${n}.png` });
const run = (await import(process.argv[2]!)).default as (p: Page, s: typeof shot) => Promise<void>;
try {
  await run(page, shot);
} catch (e) {
  console.log('FAILED', (e as Error).message.slice(0, 600));
  await shot('failed');
}
await browser.close();
server.kill();
