/** Readings that nobody types: a meter at a line, hold and take; evidence from a known-good board; what came unlisted; one's own meter. */
import { expect, type Locator, type Page, test } from '@playwright/test';
import { command, expectAccessible, inHand, makeKit, openDemo, storedKit } from './bench';

const readings = async (page: Page) => (await storedKit(page)).log.filter((e) => e.kind === 'read');

/** What is looked at and made ready before it is answered by hand, until a reading is asked for. */
async function toFirstReading(page: Page): Promise<Locator> {
  const entry = page.getByRole('textbox', { name: 'Meter shows' });
  await expect(async () => {
    if (!(await entry.isVisible())) await page.keyboard.press('Enter');
    expect(await entry.isVisible()).toBe(true);
  }).toPass({ timeout: 30_000 });
  return entry;
}

test('the simulated meter: readings that hold still are taken without a key, over-range is left to the hand, unplugged it says so', async ({ page }) => {
  await openDemo(page);
  await command(page, 'Instruments');
  await page.getByRole('button', { name: 'Connect the simulated meter' }).click();
  await expect(page.getByText('Simulated bench meter')).toBeVisible();
  await expectAccessible(page);
  await command(page, 'Power up');
  // Two looks and the stage’s preparation are answered by hand; the first ohms then come by themselves.
  await toFirstReading(page);
  await expect.poll(async () => (await readings(page)).length, { timeout: 30_000 }).toBeGreaterThanOrEqual(2);
  const taken = await readings(page);
  expect(taken).toEqual(taken.map(() => expect.objectContaining({ stage: 'cold' }) as unknown));
  await expect(inHand(page)).toContainText('input, against D1');
  const live = page.getByRole('group', { name: 'Connected meter' });
  await expect(live).toContainText('over-range');
  await page.waitForTimeout(2500);
  expect((await readings(page)).length).toBe(taken.length);
  await live.getByRole('button', { name: 'take it now' }).click();
  await expect.poll(async () => (await readings(page)).length).toBe(taken.length + 1);
  await command(page, 'Instruments');
  await page.getByRole('button', { name: 'Disconnect it' }).click();
  await expect(page.getByRole('button', { name: 'Connect the simulated meter' })).toBeVisible();
});

test('the simulated supply: set limit first for the stage, switched by hand, its current taken from it; it warns where hands go to the board', async ({
  page,
}) => {
  await openDemo(page);
  await command(page, 'Instruments');
  await page.getByRole('button', { name: 'Connect the simulated supply' }).click();
  await expect(page.getByText('Simulated bench supply')).toBeVisible();
  await expectAccessible(page);
  await command(page, 'Power up');
  const stages = page.getByRole('region', { name: 'Stages', exact: true });
  await stages.getByText('12 V, socket empty').click();
  const supply = page.getByRole('region', { name: 'Bench supply' });
  await expect(supply.getByText('output off', { exact: true })).toBeVisible();
  await supply.getByRole('button', { name: 'Set 12.0 V, at most 50 mA' }).click();
  await supply.getByRole('button', { name: 'Output on' }).click();
  // The stages before it were not done: that is asked about once.
  await page.getByRole('button', { name: 'Switch on', exact: true }).click();
  await expect(supply.getByText(/^12\.\d+ V, /)).toBeVisible();
  await stages
    .getByRole('button', { name: /supply current/ })
    .first()
    .click();
  const before = (await readings(page)).length;
  const take = supply.getByRole('button', { name: /^Take [\d.]+ mA/ });
  await expect(take).toBeVisible();
  const shown = Number(/[\d.]+/.exec(await take.innerText())![0]) / 1000;
  await take.click();
  await expect.poll(async () => (await readings(page)).length).toBe(before + 1);
  expect((await readings(page)).at(-1)).toMatchObject({ reading: expect.closeTo(shown, 3) });
  await expectAccessible(page);
  await command(page, 'Fit');
  const warned = page.getByRole('alert').filter({ hasText: 'The connected supply is on' });
  await expect(warned).toBeVisible();
  await warned.getByRole('button', { name: 'Output off' }).click();
  await expect(warned).toBeHidden();
});

test('one’s own meter, mode by mode: a mode that it lacks is not offered by its profile', async ({ page }) => {
  await openDemo(page);
  await command(page, 'Instruments');
  await page.getByRole('button', { name: 'Add my own meter' }).click();
  const form = page.getByRole('dialog', { name: 'My own meter' });
  await form.getByLabel('Name').fill('Attic meter');
  await form.getByRole('checkbox', { name: /capacitance/ }).uncheck();
  await form.getByLabel('DC volts: percent of the reading').fill('1.2');
  await form.getByLabel('Ohms: volts with the probes apart').fill('1.5');
  await form.getByLabel('Diode test: current').fill('0.8m');
  await expectAccessible(page);
  await form.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByRole('radio', { name: /Attic meter/ })).toBeChecked();
  const own = (await storedKit(page)).log.flatMap((e) => ('room' in e && e.room === 'meters' && e.after ? [e.after] : []))[0]!;
  expect(own).toMatchObject({ name: 'Attic meter', coldTest: 'known', ohmsVoltage: 1.5, diodeCurrent: 0.0008 });
  expect(own.ranges.dcv![0]!.percent).toBe(1.2);
  expect(own.ranges).not.toHaveProperty('capacitance');
});

test('while counting: a wrong value in place of another and a part of no line go into tray and letter in one step each', async ({ page }) => {
  await openDemo(page);
  await page.getByText('Something else came').click();
  const form = page.locator('form[name="unlisted"], #unlisted');
  await page.getByLabel('Marking or value').fill('47k');
  await page.getByLabel('Came in place of').click();
  await page.keyboard.type('4.7 kΩ');
  await page.keyboard.press('Enter');
  await form.getByRole('button', { name: 'Add these pieces' }).click();
  await expect(page.getByText(/Noted: 1 × 47k in place of 4\.7 kΩ/)).toBeVisible();
  await page.getByRole('combobox', { name: 'Kind' }).click();
  await page.getByTitle('something else').click();
  await page.getByLabel('Marking or value').fill('heat sink');
  await form.getByRole('button', { name: 'Add these pieces' }).click();
  await expect(page.getByText(/Noted: 1 × heat sink, not on the list/)).toBeVisible();
  await page.getByRole('button', { name: 'Write to the seller' }).click();
  const letter = page.getByRole('dialog', { name: 'Letter to the seller' });
  await expect(letter).toContainText('In the bag, but not on the list');
  await expect(letter.getByLabel('Letter')).toHaveValue(/a resistor, reads 47\.\d+ kΩ, in place of/);
  await expect(letter.getByLabel('Letter')).toHaveValue(/a part, marked heat sink/);
});

test('a kit of a list alone: a finished board beside one’s own shows where they differ; the worth of a test order is told', async ({ page }) => {
  await makeKit(page, 'Two channels', 'R1-R4 10k\nC1, C2 100n\nU1 LM358\n12 V adapter 500 mA, not included');
  await command(page, 'Power up');
  const entry = await toFirstReading(page);
  await entry.fill('9.2');
  await entry.press('Enter');
  await expect.poll(async () => (await readings(page)).length).toBe(1);
  const [read] = await readings(page);
  await command(page, 'Find fault');
  const beside = page.getByRole('region', { name: 'Known-good board' });
  await beside.getByRole('textbox').first().fill('rubbish');
  await beside.getByRole('textbox').first().press('Enter');
  await expect(beside.getByRole('alert')).toBeVisible();
  await beside.getByRole('textbox').first().fill('40k');
  await beside.getByRole('textbox').first().press('Enter');
  await expect.poll(async () => (await storedKit(page)).log.filter((e) => e.kind === 'referenced').length).toBe(1);
  expect((await storedKit(page)).log.find((e) => e.kind === 'referenced')).toMatchObject({ reading: 40_000 });
  expect(read).toBeDefined();
  await openDemo(page);
  await command(page, 'Sheet');
  await page.getByText('Stages and checks').first().click();
  await page.getByRole('button', { name: 'Worth of this test order' }).click();
  const worth = page.getByRole('dialog', { name: 'Worth of this test order' });
  await expect(worth.getByText(/checks catch \d+ % of the usual faults/)).toBeVisible({ timeout: 60_000 });
  await expect(worth.getByText('What slips through')).toBeVisible();
  await expectAccessible(page);
});
