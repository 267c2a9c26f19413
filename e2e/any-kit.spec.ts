/** Kits made up on the spot, as a builder makes them: with the interface alone, none of the demo's help. */
import { expect, type Page, test } from '@playwright/test';
import { choose, command, expectAccessible, inHand, makeKit, storedKit } from './bench';

/** What the console says that it should not. */
function complaints(page: Page): string[] {
  const found: string[] = [];
  page.on('pageerror', (e) => found.push(e.message));
  page.on('console', (m) => {
    if (m.type() === 'error') found.push(m.text());
  });
  return found;
}

/** Counts, then fits, everything as listed, by keys. */
async function throughTheParts(page: Page): Promise<void> {
  const { lines } = (await storedKit(page)).sheet;
  for (const phase of ['1', '3']) {
    await page.keyboard.press(`Alt+${phase}`);
    for (let i = 0; i < lines.length; i++) {
      const target = inHand(page);
      if ((await target.count()) === 0) break;
      const before = (await target.textContent())!;
      await page.keyboard.press('Enter');
      await expect(target.filter({ hasText: before })).toHaveCount(0);
    }
  }
  const path = page.getByRole('navigation', { name: 'Phases' });
  await expect(path.getByRole('button', { name: /Unpack/ })).toContainText('done');
  await expect(path.getByRole('button', { name: /^Fit/ })).toContainText('done');
}

/** Every view stands, says no nonsense, and what is empty says what to do. */
async function lookAround(page: Page): Promise<void> {
  for (const view of ['Unpack', 'Check', 'Fit', 'Power up', 'Find fault', 'Logbook', 'Sheet', 'Circuit', 'Instruments', 'Practice']) {
    await command(page, view);
    await page.waitForTimeout(250);
    expect(await page.locator('body').innerText(), view).not.toMatch(/NaN|undefined|Infinity/);
    if (view === 'Fit') await atTheBoard(page);
    if (view === 'Power up') await switchOn(page);
  }
}

/** Its first power, by every way that somebody may have: what to set, what to watch, when to switch off. */
async function switchOn(page: Page): Promise<void> {
  await page
    .getByRole('region', { name: 'Stages', exact: true })
    .getByText(/First power/)
    .first()
    .click();
  await expect(page.getByRole('button', { name: /all set/ })).toBeVisible();
  const card = page.getByRole('region', { name: 'Switching on' });
  for (const [way, says] of [
    ['fuse', /fuse/i],
    ['lamp', /the lamp/i],
    ['battery', /weak battery/i],
    ['USB', /meter|5 V/],
    ['bench', /limit|winding/],
  ] as const) {
    await expect(async () => {
      await choose(card.getByLabel('Power source'), way);
      await expect(card.getByText('Switch off at once')).toBeVisible({ timeout: 10_000 });
      await expect(card.getByRole('listitem').or(card.getByRole('alert')).filter({ hasText: says }).first()).toBeVisible({ timeout: 5000 });
    }, way).toPass({ timeout: 60_000 });
    expect(await card.innerText(), way).not.toMatch(/NaN|undefined|Infinity/);
  }
  await card.getByLabel('Power source').blur();
}

/** What is done at the board beside fitting asks its first question, or says what it lacks; the plan has every line. */
async function atTheBoard(page: Page): Promise<void> {
  const why = page.getByRole('complementary', { name: 'Why' });
  const mode = (name: string) => page.getByLabel('What is done at the board').getByText(name, { exact: true }).click();
  for (const [name, says] of [
    ['Bare board', /Look before you solder/],
    ['Second look', /The likeliest and most harmful come first/],
    ['Trace', /Power off and unplugged|Tracing needs to know which pads should be connected/],
  ] as const) {
    await mode(name);
    await expect(why.getByText(says)).toBeVisible();
    expect(await page.locator('body').innerText(), name).not.toMatch(/NaN|undefined|Infinity/);
  }
  await mode('Fit');
  await page.getByRole('tab', { name: 'Plan' }).click();
  const plan = page.getByRole('region', { name: 'Plan' });
  const shown = plan.getByRole('button', { name: /^Show \d+ fitted/ });
  const refs = (await storedKit(page)).sheet.lines.flatMap((l) => l.refs);
  // The plan comes from a worker: what it shows first need not be all.
  await expect(async () => {
    if (await shown.isVisible()) await shown.click();
    const steps = (await plan.getByRole('list', { name: 'Steps' }).innerText({ timeout: 1000 })).split(/\s+/);
    expect(refs.filter((ref) => !steps.includes(ref))).toEqual([]);
  }).toPass({ timeout: 30_000 });
}

test('a list alone, in a foreign script: counted, fitted, looked through; lines added by hand are read as lists are', async ({ page }) => {
  const found = complaints(page);
  await makeKit(
    page,
    'Foreign list',
    '电阻 R1-R5 10k 5个\n电解电容 C1 100uF/25V\n三极管 Q1 S8050\n蜂鸣器 BZ1\n发光二极管 D1 红色 5mm\n9 V battery, not included',
  );
  const tray = page.getByRole('region', { name: 'Tray' });
  for (const title of ['10 kΩ', '100 µF 25 V', 'S8050', 'buzzer', 'red LED']) await expect(tray.getByText(title, { exact: true }).first()).toBeVisible();
  await expect(tray.getByText(/电解电容/)).toBeVisible();
  await throughTheParts(page);
  await lookAround(page);
  await command(page, 'Power up');
  // A ladder from the list alone: look, ohms of the rails, first power from the battery that it needs.
  const ladder = page.getByRole('region', { name: 'Stages', exact: true });
  for (const title of ['Look', 'Cold: ohms of the rails', 'First power, limited', 'In use'])
    await expect(ladder.getByText(title, { exact: true })).toBeVisible();
  await expectAccessible(page);
  await command(page, 'Sheet');
  for (const [text, said] of [
    ['BC557 Q7', 'Added BC557.'],
    ['7805 TO-220 U4', 'Added 7805.'],
    ['2200uF/35V C9', 'Added 2200 µF 35 V.'],
  ] as const) {
    await page.getByLabel('Add a line').fill(text);
    await page.getByLabel('Add a line').press('Enter');
    await expect(page.getByText(said)).toBeVisible();
  }
  const { lines } = (await storedKit(page)).sheet;
  expect(lines.slice(-3).map((l) => l.kind)).toEqual(['pnp', 'regulator', 'electrolytic']);
  expect(found).toEqual([]);
});

test('two boards with the same designators: their positions stay apart on tray, map and in the command box', async ({ page }) => {
  const found = complaints(page);
  await makeKit(
    page,
    'Two boards',
    'board;refs;value;qty\nMast;R1,R2;10k;2\nMast;C1;100nF;1\nMast;U1;555;1\nDial;R1;470;1\nDial;LED1;LED green;1\nDial;U1;4017 DIP-16;1',
  );
  const tray = page.getByRole('region', { name: 'Tray' });
  await expect(tray.getByText('MAST:R1 MAST:R2')).toBeVisible();
  await expect(tray.getByText('4017', { exact: true }).first()).toBeVisible();
  await throughTheParts(page);
  await command(page, 'DIAL:R1');
  await expect(inHand(page)).toHaveText(/DIAL:R1/);
  await command(page, 'Fit');
  await expect(page.getByRole('img', { name: 'Board with 7 places, 7 fitted' })).toBeVisible();
  await lookAround(page);
  expect(found).toEqual([]);
});

test('a kit fed by a winding: taken in, counted and fitted; its sources and stages stand in every view', async ({ page }) => {
  const found = complaints(page);
  await makeKit(
    page,
    'Winding',
    'D1-D4 1N4007\nC1 1000uF/35V\nR1 1k\nTransformer 9 V AC, not included',
    'Winding\nV1 a b SIN(0 12.7 50)\nD1 a p DR\nD2 b p DR\nD3 0 a DR\nD4 0 b DR\nC1 p 0 1000u\nR1 p 0 1k\n.model DR D(IS=1E-9 N=1.8)\n.end',
  );
  await throughTheParts(page);
  await lookAround(page);
  await command(page, 'Circuit');
  await page.getByText('In time', { exact: true }).click();
  await page.getByRole('button', { name: 'Run it' }).click();
  await expect(page.getByText(/A DC meter shows/)).toBeVisible({ timeout: 30_000 });
  expect(found).toEqual([]);
});

test('a check of a later stage is gone to by its name, and the work goes on where it was', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: /Try the demo/ }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  await command(page, 'after guard diode');
  await expect(inHand(page)).toHaveText(/guard diode/);
  const stages = page.getByRole('region', { name: 'Stages' });
  await expect(stages.getByRole('button', { name: /after guard diode/ })).toHaveAttribute('aria-current', 'true');
  await expect(page.getByText('Earlier stages have not passed')).toBeVisible();
  await command(page, 'solder side');
  await expect(inHand(page)).toHaveText(/solder side/);
  await page.keyboard.press('Enter');
  await expect(inHand(page)).toHaveText(/orientation/);
});
