/** Refreshes docs/screenshots from the demo: one picture of each main view. Needs a build (`npm run build`). */
import { spawn } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { chromium, type Locator, type Page } from '@playwright/test';
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
  // Away from whatever was pressed last: a hint beside it covers what stands there.
  await page.mouse.move(1, 400);
  // What was just changed is said for a while, over the heads of the view.
  await page.getByRole('button', { name: 'Undo', exact: true }).waitFor({ state: 'hidden' });
  await page.waitForTimeout(300);
  await page.screenshot({ path: `${FOLDER}/${name}.png` });
};

const WINDING = `Supply for the nest box
V1 a b SIN(0 16.97 50)
D1 a raw DREC
D2 b raw DREC
D3 0 a DREC
D4 0 b DREC
C1 raw 0 1000u
R1 raw la 1.2k
DLED1 la 0 LG
R2 raw v5 100
D5 0 v5 Z5
C2 v5 0 10u
.model DREC D(IS=7E-9 N=1.8 RS=0.04 BV=400)
.model LG D(IS=2.3E-20 N=2 RS=3)
.model Z5 D(IS=1E-14 N=1.1 RS=6 BV=5.1 IBV=5E-3)
.end`;

const LIST = `Pos.;Bauteil;Wert;Toleranz;Menge
R1-R4,R7;Metallschichtwiderstand;10k;1%;5
C1、C2;瓷片电容;104;;2
C3;Electrolítico;100 µF/25V;;1
LED1;Leuchtdiode 5mm;grün;;1
Q1,Q2;Transistor;BC547;;3
R5;Widerstand;4k7 1/4W;5%;1
R6;Widerstand;zehn k;5%;1
;Netzteil 12 V 500 mA 5,5/2,1 mm, nicht enthalten;;;`;

/** Some letters of a choice, then Enter. */
async function choose(field: Locator, text: string): Promise<void> {
  await field.click();
  await field.fill(text);
  await field.press('Enter');
}

/** Another dress, kept as the menu keeps it. */
async function comfort(change: object): Promise<void> {
  await page.evaluate((c) => {
    localStorage.setItem('zesty-comfort', JSON.stringify({ ...JSON.parse(localStorage.getItem('zesty-comfort') ?? '{}'), ...c }));
  }, change);
  await page.reload();
  await page.getByRole('navigation', { name: 'Phases' }).waitFor();
}

/** One reading from the simulated meter, taken. */
async function read(p: Page): Promise<void> {
  const entry = p.locator('#entry');
  await entry.or(p.locator('[data-confirm="yes"]')).first().waitFor();
  const typed = await entry.isVisible();
  await p.keyboard.press('m');
  if (typed) {
    await p.waitForFunction(() => document.querySelector<HTMLInputElement>('#entry')?.value !== '');
    await p.keyboard.press('Enter');
  }
  await p.waitForTimeout(250);
}

await page.addInitScript(() => {
  localStorage.setItem('zesty-comfort', localStorage.getItem('zesty-comfort') ?? '{"toured":true,"theme":"light"}');
});
await page.goto(`http://localhost:${PORT}/`);
await page.getByText('The shelf is empty').waitFor();
await shot('shelf');
await page.getByRole('button', { name: /New kit/ }).click();
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
await page.getByRole('button', { name: 'Back to the shelf' }).click();
await page.getByRole('button', { name: /Try the demo/ }).waitFor();
await page.goto(`http://localhost:${PORT}/`);
await page.getByRole('button', { name: /Try the demo/ }).click();
await page.getByRole('region', { name: 'Tray' }).waitFor();
await page.keyboard.press('l');
for (let i = 0; i < 21; i++) await read(page);
await page.waitForTimeout(600);
await shot('loose-pile');
for (let i = 0; i < 21; i++) {
  await page.keyboard.press('Control+z');
  await page.waitForTimeout(120);
}
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
await page.getByRole('button', { name: 'Sheet' }).click();
await shot('sheet');
await page.getByRole('button', { name: 'Circuit' }).click();
await page.locator('.cm-content').waitFor();
await page.locator('.cm-content').click();
await page.keyboard.press('Control+Home');
await page.keyboard.press('End');
await page.keyboard.type('\nR99 vcc nowhere tenk');
await page.getByText('Blocks', { exact: true }).click();
await choose(page.getByLabel('Block', { exact: true }), 'adjustable regulator');
await page.waitForTimeout(500);
await shot('circuit');
await page.getByRole('button', { name: 'Put it back' }).click();
await page.keyboard.press('Alt+3');
for (let i = 0; i < 14; i++) {
  await page.keyboard.press('Enter');
  await page.waitForTimeout(200);
}
await page.getByRole('tab', { name: 'Plan' }).click();
await page.getByRole('region', { name: 'Plan' }).waitFor();
await shot('fit');
await page.getByText('Second look', { exact: true }).click();
await page.keyboard.press('Enter');
await page.waitForTimeout(300);
await page.keyboard.press('n');
await shot('second-look');
await page.keyboard.press('Alt+4');
const find = page.getByRole('button', { name: 'Find the fault' });
for (let i = 0; i < 30 && !(await find.isVisible()); i++) {
  await page.getByText('Working out the limits').waitFor({ state: 'detached' });
  await read(page);
  const feed = page.getByLabel('Power source');
  if ((await feed.isVisible()) && (await page.getByText('In the first ten seconds').count()) === 0) {
    await choose(feed, 'bench');
    await page.getByText('In the first ten seconds').waitFor({ timeout: 30_000 });
    await feed.blur();
    await shot('power-up');
  }
}
await find.click();
await page.getByRole('list', { name: 'Suspects by probability' }).getByRole('listitem').first().waitFor({ timeout: 60_000 });
await page.getByRole('progressbar').waitFor({ state: 'detached', timeout: 60_000 });
await shot('find-fault');
await comfort({ theme: 'dim' });
await page.getByRole('list', { name: 'Suspects by probability' }).getByRole('button').first().click();
await page.getByRole('group', { name: /Parts around net/ }).waitFor();
await shot('suspect-dim');
await comfort({ theme: 'light' });
await page.keyboard.press('Alt+6');
await page.getByRole('region', { name: 'Log' }).waitFor();
await page.getByText('Working out').waitFor({ state: 'detached' });
await shot('logbook');
await comfort({ theme: 'dim' });
await page.setViewportSize({ width: 820, height: 1180 });
await page.keyboard.press('Alt+4');
await page.getByText('Stop here').waitFor({ timeout: 30_000 });
await shot('power-up-tablet');
await comfort({ theme: 'light' });
await page.setViewportSize({ width: 390, height: 844 });
await page.keyboard.press('Alt+2');
await page.locator('[data-line]').first().click();
await shot('check-phone');
await page.setViewportSize({ width: 1280, height: 800 });
// A kit of one's own, fed by a winding: what its ladder proposes.
await page.goto(`http://localhost:${PORT}/new/`);
await page.getByRole('button', { name: 'Begin anew' }).click();
await page
  .getByLabel('Parts list')
  .fill('D1-D4 1N4007\nC1 1000u 35V electrolytic\nC2 10u 25V electrolytic\nR1 1.2k\nR2 100\nLED1 LED green\nD5 zener 5.1V\ntransformer 12 V AC, not included');
await page.getByLabel('Name of the kit').fill('Supply for the nest box');
await page.getByText(/7 lines, 10 positions/).waitFor();
await page.getByRole('button', { name: 'Next' }).click();
await page.getByText('A circuit like this one').click();
await choose(page.getByRole('combobox', { name: 'Circuit' }), 'bridge rectifier');
await page.getByRole('button', { name: 'Put it into the circuit' }).waitFor();
await page.waitForTimeout(500);
await shot('like-this');
await page.getByText('Walk the drawing').click();
await page.getByText('AC winding').click();
await page.getByLabel('Volts of the supply').fill('12 V');
await page.getByLabel('Volts of the supply').press('Enter');
for (const answer of ['D1.A', 'D2.A', 'raw', 'raw', 'ground', 'D1.A']) {
  const asked = page.getByRole('textbox', { name: /^Where / });
  await asked.fill(answer);
  await asked.press('Enter');
  await page.waitForTimeout(250);
}
await page.getByRole('textbox', { name: /^Where / }).fill('gr');
await shot('walk');
await page.getByText('A deck', { exact: true }).click();
await page.getByLabel('Circuit (SPICE').fill(WINDING);
await page.getByText(/^\d+ parts, \d+ nets/).waitFor();
await page.getByRole('button', { name: 'Make the kit' }).click();
await page.getByRole('region', { name: 'Tray' }).waitFor({ timeout: 120_000 });
await page.getByRole('button', { name: 'Sheet' }).click();
await page.getByText('Stages and checks', { exact: true }).click();
await page.getByRole('button', { name: /^First power, limited/ }).click();
await page
  .getByText(/1[2-6](\.\d+)? – 2[1-4](\.\d+)? V/)
  .first()
  .waitFor({ timeout: 60_000 });
await shot('stages');
await page.goto(`http://localhost:${PORT}/new/`);
await page.getByLabel('Name of the kit').fill('Signal box');
await page
  .getByLabel('Parts list')
  .fill('R1 10k\nR11-R16 330\nR2 1k\nD1-D6 LED red\nD7 LED green\nK1-K4 push button\nU1 controller DIP20\nBZ1 buzzer\nY1 crystal 8 MHz\nJ1 jumper');
await page.getByRole('button', { name: 'Make the kit' }).click();
await page.getByRole('region', { name: 'Tray' }).waitFor({ timeout: 120_000 });
await page.getByRole('button', { name: 'Functions' }).click();
await page.getByRole('button', { name: 'Write the functions' }).click();
await page.getByRole('button', { name: 'Begin with an example' }).click();
await page.getByRole('button', { name: 'Use these sentences' }).click();
const inHand = page.getByRole('region', { name: 'The try in hand' });
await inHand.getByRole('heading', { name: 'Switch on, touch nothing' }).waitFor();
await page.keyboard.press('Enter');
for (const key of ['K1', 'K2']) {
  await page
    .getByRole('region', { name: 'Functions' })
    .getByRole('button', { name: new RegExp(`Press ${key}$`) })
    .first()
    .click();
  await inHand.getByRole('heading', { name: `Press ${key}`, exact: true }).waitFor();
  for (const lamp of ['D1', 'D2']) {
    const indicator = inHand.getByRole('button', { name: new RegExp(`^${lamp} `) });
    while ((await indicator.getAttribute('aria-label')) !== `${lamp} dim`) await indicator.click();
  }
  await inHand.getByRole('group').focus();
  await page.keyboard.press('Enter');
}
await page.getByText('Suspects after 3 tries').waitFor();
await shot('functions');
await browser.close();
server.kill();
