import { expect, test } from '@playwright/test';
import { choose, command, expectAccessible, makeKit, storedKit } from './bench';

test('a stage that fails is gone on behind with a reason, done again, and load, claims and recordings are reckoned beside it', async ({ page }) => {
  await makeKit(page, 'Small supply', 'R1 240\nR2 5k\nC1 100u\nU1 regulator LM317');
  await command(page, 'Sheet');
  await page.getByText('Stages and checks', { exact: true }).click();
  await command(page, 'Power up');
  const story = page.getByRole('complementary', { name: 'Why' });
  await expect(story).toBeVisible();

  // Left out with its reason; without one nothing is written.
  await story.getByRole('button', { name: 'Skip this stage' }).click();
  const dialog = page.getByRole('dialog', { name: 'Continue anyway' });
  await dialog.getByRole('button', { name: 'Go on' }).click();
  await expect(dialog.getByText(/Give a reason in a few words/)).toBeVisible();
  await expectAccessible(page);
  await dialog.getByLabel('Because').fill('looked at before');
  await dialog.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByText('continued: looked at before')).toBeVisible();
  expect((await storedKit(page)).log.at(-1)).toMatchObject({ kind: 'gated', go: 'on', reason: 'looked at before' });

  // Beside the readings: what the box claims, how hot it gets, what a recording says.
  await story.getByRole('button', { name: 'Load, heat, waveforms, claims' }).click();
  const desk = page.getByRole('dialog', { name: 'Load, heat, waveforms, claims' });
  await choose(desk.getByLabel('Calculation'), 'Claimed power');
  await desk.getByRole('button', { name: 'Calculate' }).click();
  await expect(desk.getByText(/Impossible: at most 7\.03 W/)).toBeVisible();
  await choose(desk.getByLabel('Calculation'), 'Heat');
  await desk.getByLabel('Seconds and °C, one reading a line').fill('0 20\n60 51.1\n120 74.1\n240 103.9\n480 129.1');
  await desk.getByLabel('Power in it').fill('a lot');
  await desk.getByRole('button', { name: 'Calculate' }).click();
  await expect(desk.locator('.ant-form-item-explain-error')).toBeVisible();
  await desk.getByLabel('Power in it').fill('10W');
  await desk.getByRole('button', { name: 'Calculate' }).click();
  await expect(desk.getByText(/Stop now: the junction passes its limit/)).toBeVisible();
  await expect(desk.getByRole('img', { name: /Forecast of the sink/ })).toBeVisible();
  await expectAccessible(page);
  await desk.getByRole('button', { name: 'Save to the logbook' }).click();
  await expect(desk.getByText('Saved in the logbook')).toBeVisible();
  await choose(desk.getByLabel('Calculation'), 'Load test');
  await desk.getByLabel(/Amperes, volts/).fill('0 9.01 10.5\n0.2 9 10.5\n0.4 8.99 10.5\n0.6 8.98 10.5\n0.8 8.5 10.5');
  await desk.getByLabel('Set to').fill('9');
  await desk.getByRole('button', { name: 'Calculate' }).click();
  await expect(desk.getByText(/drop-out/).first()).toBeVisible();
  const notes = (await storedKit(page)).log.filter((e) => e.kind === 'noted');
  expect(notes).toHaveLength(1);
});

test('a timer outlives a reload, a delivery shows on the shelf, a kit is finished with what stays open', async ({ page }) => {
  await makeKit(page, 'To its end', 'R1 1k', 'V1 vcc 0 9\nR1 vcc 0 1k\n.end');
  await page.keyboard.press('Alt+w');
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Start the timer' }).click();
  await expect(dialog.getByText('What is waited for?')).toBeVisible();
  await dialog.getByLabel('What for').fill('the board to cool');
  await dialog.getByLabel('Minutes').fill('0.2');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Start the timer' }).click();
  await expect(page.getByText(/Waiting: the board to cool, 0:\d\d left/)).toBeVisible();
  await page.reload();
  await expect(page.getByText(/Waiting: the board to cool, 0:\d\d left/)).toBeVisible();
  await expect(page.getByRole('alert').getByText('Over: the board to cool')).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Go on: the board to cool' }).click();
  await expect(page.getByText('Over: the board to cool')).toHaveCount(0);

  await page.keyboard.press('Alt+w');
  await dialog.getByText('a part, an answer').click();
  await dialog.getByLabel('What for').fill('C3, ordered');
  await dialog.getByLabel('Expected on').fill('next week');
  await dialog.getByRole('button', { name: 'Note it' }).click();
  await expect(dialog.getByText(/A day as year-month-day/)).toBeVisible();
  await dialog.getByLabel('Expected on').fill('2031-01-01');
  await dialog.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByText(/Waiting: C3, ordered, expected in \d+ days/)).toBeVisible();

  // Every stage is gone on behind, or passed; then what is open is named.
  await command(page, 'Power up');
  const end = page.getByRole('region', { name: 'The end' });
  const skip = page.getByRole('button', { name: /Skip this stage|Continue anyway|Accept it/ });
  const { stages } = (await storedKit(page)).sheet;
  for (let n = 1; n <= stages.length; n++) {
    await skip.click();
    await dialog.getByLabel('Because').fill('tried before');
    await dialog.getByRole('button', { name: 'Go on' }).click();
    await expect(dialog).toHaveCount(0);
    // The view follows what was written: the next stage, or the end.
    await expect(page.getByText('continued: tried before')).toHaveCount(n);
  }
  await expect(end.getByText('waiting: C3, ordered')).toBeVisible();
  await expectAccessible(page);
  await end.getByRole('button', { name: 'Finish it, with this open' }).click();
  await expect(end.getByText(/Finished, with this open: .*C3, ordered/)).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('article', { name: 'To its end' }).getByText(/Waiting: C3, ordered, until 2031-01-01/)).toBeVisible();
});

test('there is no programmer: what depends on it waits, the rest goes on, and it is open again when it has come', async ({ page }) => {
  await makeKit(page, 'Blinker', 'R1 10k\nU1 microcontroller DIP-8\nC1 100n\n5 V supply 100 mA, not included\nProgrammer, not included');
  await command(page, 'Sheet');
  await page.getByText('Stages and checks', { exact: true }).click();
  const ladder = page.getByRole('region', { name: 'Ladder' });
  await ladder.getByRole('button', { name: 'Add stage' }).click();
  const drawer = page.getByRole('dialog', { name: 'New stage' });
  await drawer.getByLabel('Title').fill('Chip programmed');
  await drawer.getByRole('checkbox', { name: /^Programmer/ }).check();
  await drawer.getByRole('button', { name: 'Save' }).click();
  await expect(drawer).toBeHidden();
  await expect.poll(async () => (await storedKit(page)).sheet.stages.at(-1)?.needs?.length).toBe(1);

  const sentence = page.getByLabel('Add a check as a sentence');
  await sentence.fill('U1.1 to ground 4.75-5.25 V');
  await sentence.press('Enter');
  await expect(page.getByText(/^Added/)).toBeVisible();

  await command(page, 'Power up');
  const story = page.getByRole('complementary', { name: 'Why' });
  // Windows that arrive meanwhile can move the ladder away below the pointer.
  await expect(async () => {
    await page.getByRole('region', { name: 'Stages', exact: true }).getByText('Chip programmed').click();
    await expect(story.getByText('Needs:')).toBeVisible({ timeout: 2000 });
  }).toPass({ timeout: 30_000 });
  await story.getByRole('button', { name: 'I have none' }).click();
  await expect(story.getByText('Waits for:')).toBeVisible();
  await expectAccessible(page);
  expect((await storedKit(page)).log.at(-1)).toMatchObject({ kind: 'owned', owned: { none: true } });
  await story.getByRole('button', { name: 'I have it now' }).click();
  await expect(story.getByText('Needs:')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(story.getByText('Waits for:')).toBeVisible();
});
