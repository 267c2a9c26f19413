/** Parts that one figure does not tell: further figures, looking and listening; and a reading that contradicts all others. */
import { expect, test } from '@playwright/test';
import { FOLLOWER, command, expectAccessible, inHand, makeKit, readFirstPower, storedKit, suspects, toSuspects } from './bench';

test('an electrolytic by ESR, a control by its sweep: each says how it is taken, is judged, and goes on the shopping list when it is bad', async ({ page }) => {
  await makeKit(page, 'Figures', 'C1 100uF/25V electrolytic\nRV1 trimmer 10k\nLED1 LED red', '');
  await command(page, 'Check');
  const figures = page.getByRole('region', { name: 'Further figures' });
  const goTo = async (ref: string) => {
    await command(page, ref);
    await expect(inHand(page)).toContainText(ref);
  };
  await goTo('C1');
  await expect(figures.getByText('ESR', { exact: true })).toBeVisible();
  await expect(figures.getByText('at most 2.65 Ω')).toBeVisible();
  await figures.getByRole('button', { name: 'How to take it: ESR' }).click();
  await expect(page.getByText(/tan δ 0.2 at 120 Hz/)).toBeVisible();
  await page.keyboard.press('Escape');
  const reading = figures.getByLabel('Reading, ESR');
  await reading.fill('nonsense');
  await reading.press('Enter');
  await expect(figures.locator('.ant-form-item-explain-error')).toBeVisible();
  await reading.fill('9.1');
  await reading.press('Enter');
  await expect(page.getByText(/C1: esr not good/)).toBeVisible();
  await expectAccessible(page);

  await goTo('RV1');
  await figures.getByRole('button', { name: 'Wiper sweep: good' }).click();
  await expect.poll(async () => (await storedKit(page)).log.filter((e) => e.kind === 'figured').length).toBe(2);
  await command(page, 'Sheet');
  await page.getByRole('radiogroup', { name: 'Parts of the sheet' }).getByText('Shopping and parcels').click();
  const row = page.getByRole('region', { name: 'Shopping list' }).getByRole('row', { name: /100 µF/ });
  await expect(row).toContainText('1 out of tolerance');
  // The new piece is asked for again.
  await row.getByRole('button', { name: 'It came' }).click();
  await expect(page.getByRole('region', { name: 'Shopping list' }).getByRole('row', { name: /100 µF/ })).toHaveCount(0);
});

test('a reading with the wrong sign is named where the fault is looked for, and read again', async ({ page }) => {
  await makeKit(page, 'Wrong sign', FOLLOWER.list, FOLLOWER.deck);
  await readFirstPower(page, [
    [/current of V1/, '6.9m'],
    [/rail vcc/, '12.0'],
    [/TP\d+ ?a\b/, '5.88'],
    [/TP\d+ ?b\b/, '-3.75'],
    [/TP\d+ ?e\b/, '5.2'],
    [/TP\d+ ?f\b/, '2.6'],
  ]);
  await toSuspects(page);
  const doubt = page.getByText(/contradicts everything else .* with the probes swapped it would fit/);
  await expect(doubt).toBeVisible({ timeout: 30_000 });
  await expect(suspects(page).first()).toContainText(/healthy|nothing/i);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Read it again' }).click();
  await expect(page.locator('#entry')).toBeVisible();
});

test('two faults at once stand as one suspect where no single one explains the readings', async ({ page }) => {
  await makeKit(page, 'Two faults', FOLLOWER.list, FOLLOWER.deck);
  // R4 and R7 are not connected: b stands at the supply, f at its emitter.
  await readFirstPower(page, [
    [/current of V1/, '5.85m'],
    [/rail vcc/, '12.0'],
    [/TP\d+ ?a\b/, '5.87'],
    [/TP\d+ ?b\b/, '12.0'],
    [/TP\d+ ?e\b/, '5.2'],
    [/TP\d+ ?f\b/, '5.2'],
  ]);
  await toSuspects(page);
  const pair = suspects(page).filter({ hasText: /R4 has an open joint.*R7 has an open joint|R7 has an open joint.*R4 has an open joint/ });
  await expect(pair.first()).toBeVisible({ timeout: 60_000 });
  await expect(pair.first()).toContainText('two faults at once');
  await expectAccessible(page);
});

test('readings that nothing listed explains are said to be so', async ({ page }) => {
  await makeKit(page, 'Strange', FOLLOWER.list, FOLLOWER.deck);
  await readFirstPower(page, [
    [/current of V1/, '31m'],
    [/rail vcc/, '9.1'],
    [/TP\d+ ?a\b/, '6.9'],
    [/TP\d+ ?b\b/, '2.2'],
    [/TP\d+ ?e\b/, '4.4'],
    [/TP\d+ ?f\b/, '3.3'],
  ]);
  await toSuspects(page);
  await expect(suspects(page).filter({ hasText: 'An unknown fault' }).first()).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('Repeat each odd reading')).toBeVisible();
  await expect(page.getByText('Closest known faults')).toBeVisible();
});
