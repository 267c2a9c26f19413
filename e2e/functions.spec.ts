import { expect, test } from '@playwright/test';
import { expectAccessible, makeKit, storedKit } from './bench';

const SENTENCES = `U1 programmed chip, 20 pins: plus 20, ground 10, reset 1
R1 10k: U1 1 to plus
K1-K4: U1 2-5 to ground, pulled up inside
D1-D4 red: U1 12-15 through R11-R14 330 to ground
K1-K4 pressed: D1-D4 light
K1 and K2 pressed: D3 lights`;

test('a board round a chip: written in sentences, tried by keyboard, two outputs that fight are found', async ({ page }) => {
  await makeKit(page, 'Signal box', 'R1 10k\nR11-R14 330\nD1-D4 LED red\nK1-K4 push button\nU1 controller DIP20');
  await page.getByRole('button', { name: 'Functions' }).click();
  await page.getByRole('button', { name: 'Write the functions' }).click();
  const field = page.getByRole('textbox', { name: 'Sentences' });
  // A slip is told with its line and keeps the text from being used.
  await field.fill(SENTENCES.replace('D1-D4 light', 'D1-D5 light'));
  await expect(page.getByText('Line 5: 4 keys and 5 lamps: write as many of each, or one sentence for each.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Use these sentences' })).toBeDisabled();
  // The pins of a known chip are shown by their names.
  await page.getByRole('combobox', { name: /Chips with a card/ }).fill('165');
  await page.keyboard.press('Enter');
  await expect(page.getByText('1 PL · 2 CLK')).toBeVisible();
  await field.fill(SENTENCES);
  await expect(page.getByText(/^Understood: \d+ tries/)).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Use these sentences' }).click();

  const hand = page.getByRole('region', { name: 'The try in hand' });
  await expect(hand.getByRole('heading', { name: 'Switch on, touch nothing' })).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Enter');
  await expect(page.getByText('Suspects after 1 try')).toBeVisible();
  // Keys 1 and 2: both lamps glow dimly with either key.
  const tries = page.getByRole('region', { name: 'Functions' });
  for (const key of ['Press K1', 'Press K2']) {
    await tries.getByRole('button', { name: key, exact: false }).first().click();
    await expect(hand.getByRole('heading', { name: key, exact: true })).toBeVisible();
    for (const lamp of ['D1', 'D2']) {
      const indicator = hand.getByRole('button', { name: new RegExp(`^${lamp} `) });
      while ((await indicator.getAttribute('aria-label')) !== `${lamp} dim`) await indicator.click();
    }
    await hand.getByRole('group').focus();
    await page.keyboard.press('Enter');
  }
  const suspects = page.getByRole('list', { name: 'Suspects by probability' }).getByRole('listitem');
  await expect(suspects.first()).toContainText('Solder bridge between U1 pin 12 and U1 pin 13');
  await expect(page.getByText(/Not as expected\. Press K1: D1 dim, D2 dim/)).toBeVisible();

  // It is in the log, survives a reload, and is taken back like anything else.
  expect((await storedKit(page)).log.filter((e) => e.kind === 'tried')).toHaveLength(3);
  await page.reload();
  await expect(suspects.first()).toContainText('Solder bridge between U1 pin 12 and U1 pin 13');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Suspects after 2 tries')).toBeVisible();
});
