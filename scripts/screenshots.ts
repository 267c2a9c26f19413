/** Refreshes docs/screenshots from the demo: one picture of each main view. Needs a build (`npm run build`). */
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM } from './chromium';

const PORT = 4188;
const FOLDER = 'docs/screenshots';

mkdirSync(FOLDER, { recursive: true });
const server = spawn('node', ['scripts/serve.mjs'], { env: { ...process.env, PORT: String(PORT) } });
process.on('exit', () => server.kill());
await new Promise((ready) => server.stdout.once('data', ready));
const browser = await chromium.launch(CHROMIUM);
const page = await (
  await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block', locale: 'en-GB', timezoneId: 'UTC' })
).newPage();
const shot = async (name: string) => {
  await page.waitForTimeout(300);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
};

const LIST = `Pos.;Bauteil;Wert;Toleranz;Menge
R1-R4,R7;Metallschichtwiderstand;10k;1%;5
C1、C2;瓷片电容;104;;2
C3;Electrolítico;100 µF/25V;;1
LED1;Leuchtdiode 5mm;grün;;1
Q1,Q2;Transistor;BC547;;3
R5;Widerstand;4k7 1/4W;5%;1
R6;Widerstand;zehn k;5%;1
;Netzteil 12 V 500 mA 5,5/2,1 mm, nicht enthalten;;;`;

/** One reading from the simulated meter, taken. */
async function read(p: Page): Promise<void> {
  const entry = p.locator('#entry');
  const typed = await entry.isVisible();
  await p.keyboard.press('m');
  if (typed) {
    await p.waitForFunction(() => document.querySelector<HTMLInputElement>('#entry')?.value !== '');
    await p.keyboard.press('Enter');
  }
  await p.waitForTimeout(250);
}

await page.goto(`http://localhost:${PORT}/`);
await page.getByText('The shelf is empty').waitFor();
await shot('shelf');
await page.getByRole('link', { name: /New kit/ }).click();
await page.getByLabel('Parts list').waitFor();
await page.getByLabel('Parts list').fill(LIST);
await page
  .getByText('14 pieces')
  .waitFor({ timeout: 2000 })
  .catch(() => undefined);
await page.evaluate(() => {
  window.scrollTo(0, 330);
});
await shot('list-preview');
await page.goto(`http://localhost:${PORT}/`);
await page.getByRole('button', { name: /Try the demo/ }).click();
await page.locator('.tray').waitFor();
await page.keyboard.press('l');
for (let i = 0; i < 21; i++) await read(page);
await page.waitForTimeout(600);
await shot('loose-pile');
for (let i = 0; i < 21; i++) await page.keyboard.press('Control+z');
await page.keyboard.press('l');
for (let i = 0; i < 22; i++) {
  await read(page);
  if (i === 13) await shot('unpack');
}
await page.keyboard.press('Alt+2');
for (let i = 0; i < 15; i++) await read(page);
await page.keyboard.press('m');
await page.waitForTimeout(400);
await shot('check');
await page.keyboard.press('Escape');
await page.keyboard.press('b');
await page.getByLabel('Marking').fill('bn/rd bk og gd');
await shot('marking-reader');
await page.keyboard.press('Escape');
await page.waitForTimeout(400);
await page.getByRole('button', { name: 'Instruments' }).click();
await page.getByLabel('Probes together').fill('0.3');
await page.getByLabel('Probes apart').fill('OL');
await shot('instruments');
await page.getByRole('button', { name: 'Sheet' }).click();
await shot('sheet');
await page.getByRole('button', { name: 'Circuit' }).click();
await page.locator('.cm-content').waitFor();
await page.locator('.cm-content').click();
await page.keyboard.press('Control+Home');
await page.keyboard.press('End');
await page.keyboard.type('\nR99 vcc nowhere tenk');
await page.getByText('Blocks', { exact: true }).click();
await page.getByLabel('Block', { exact: true }).selectOption('adjustable-regulator');
await page.waitForTimeout(500);
await shot('circuit');
await page.getByRole('button', { name: 'Put it back' }).click();
await page.getByText('Around', { exact: true }).click();
await page.getByLabel('Around net', { exact: true }).selectOption('v5');
await page.waitForTimeout(700);
await shot('around');
await page.getByText('Substitutes', { exact: true }).click();
await page.getByLabel('In place of').selectOption('R5');
await page.getByLabel(/My drawer holds/).fill('1k 2k2 1.1k 4.7k/0.5W 10k 3.9k');
await page.getByRole('button', { name: 'What would do?' }).click();
await page.getByRole('list', { name: 'Substitutes' }).getByRole('listitem').first().waitFor();
await shot('substitutes');
await page.getByText('What if', { exact: true }).click();
await page.getByLabel('If this part').selectOption('D3');
await page.getByLabel('(1N4148)').selectOption('sits the wrong way round');
await page.getByRole('button', { name: 'Solve it' }).click();
await page.getByText('Do not fit: Q2 gets').waitFor();
await shot('what-if');
await page.keyboard.press('Alt+3');
for (let i = 0; i < 9; i++) await page.keyboard.press('Enter');
await shot('fit');
await page.keyboard.press('Alt+4');
const find = page.getByRole('button', { name: 'Find the fault' });
for (let i = 0; i < 30 && !(await find.isVisible()); i++) {
  await page.getByText('Computing the window').waitFor({ state: 'detached' });
  await read(page);
}
await shot('power-up');
await find.click();
await page.locator('.suspect').first().waitFor({ timeout: 60_000 });
await page.getByRole('progressbar').waitFor({ state: 'detached', timeout: 60_000 });
await shot('find-fault');
await page.keyboard.press('Alt+6');
await shot('logbook');
await page.getByRole('button', { name: 'Dim' }).click();
await page.keyboard.press('Alt+2');
await shot('check-dim');
await browser.close();
server.kill();
