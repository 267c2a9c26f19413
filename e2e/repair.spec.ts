/** At the fault: why it is suspected, what one saw there, whether the repair was all; and a board without a circuit. */
import { expect, test } from '@playwright/test';
import { documentOf, extend, newKit, sheetWith } from '../src/core/kit';
import {
  appears,
  choose,
  command,
  expectAccessible,
  FOLLOWER,
  giveFile,
  inHand,
  makeKit,
  openDemo,
  readFirstPower,
  readFromMeter,
  storedKit,
  suspects,
  toSuspects,
} from './bench';

test('a suspect is opened, ruled out by hand and found after all; a repair that does not explain everything says so', async ({ page }) => {
  await makeKit(page, 'Repair', FOLLOWER.list, FOLLOWER.deck);
  // R4 has an open joint: b stands at the supply, as it would behind a shorted R3, for nobody reads the current.
  const healthy: [RegExp, string][] = [
    [/rail vcc/, '12.0'],
    [/TP\d+ ?a\b/, '5.87'],
    [/TP\d+ ?e\b/, '5.2'],
    [/TP\d+ ?f\b/, '2.6'],
  ];
  await readFirstPower(page, [...healthy, [/TP\d+ ?b\b/, '12.0']]);
  await command(page, 'Find fault');
  const first = suspects(page).filter({ hasText: 'R4 has an open joint' });
  await expect(first).toBeVisible({ timeout: 60_000 });
  await first.getByRole('button', { name: 'R4 has an open joint' }).click();
  const card = page.getByRole('region', { name: 'The suspect' });
  await expect(card.getByText(/seen 12\.0\d* V, it would show 12\.0 V/)).toBeVisible();
  await expect(card.getByRole('group', { name: 'Parts around net b' })).toBeVisible();
  await expectAccessible(page);
  const share = async () => Number(/(\d+) %/.exec((await card.getByRole('heading').first().textContent())!)![1]);
  const before = await share();
  await card.getByRole('button', { name: 'I looked: not this' }).click();
  await expect(card.getByText(/you looked for it and did not find it/)).toBeVisible();
  await expect.poll(share, { timeout: 30_000 }).toBeLessThan(before);
  await card.getByRole('button', { name: /it may be this after all/ }).click();
  await expect.poll(share, { timeout: 30_000 }).toBe(before);

  // Something else is mended first: the reading is as wrong as before.
  await page.getByRole('button', { name: 'I found something else' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Mark as repaired' }).click();
  await expect(dialog.getByText('Write a few words for later')).toBeVisible();
  await dialog.getByLabel('What was it?').fill('a hair of wire between two pads');
  await dialog.getByRole('button', { name: 'Mark as repaired' }).click();
  const story = page.getByRole('region', { name: 'After the repair' });
  await expect(story.getByText(/Measure again/)).toBeVisible();
  await readFirstPower(page, [[/TP\d+ ?b\b/, '12.0']]);
  await expect(story.getByText(/It does not explain everything: .*b\b.* is still out of range/)).toBeVisible();
  await expectAccessible(page);

  // Now the joint: all is read again, and it was all.
  await story.getByRole('button', { name: 'Keep looking' }).click();
  await first.getByRole('button', { name: 'R4 has an open joint' }).click({ timeout: 60_000 });
  await card.getByRole('button', { name: 'Found and repaired' }).click();
  await readFirstPower(page, [[/TP\d+ ?b\b/, '3.75']]);
  await expect(story.getByText('the repair explains everything')).toBeVisible();
  const { log } = await storedKit(page);
  expect(log.filter((e) => e.kind === 'repaired')).toHaveLength(2);
  expect(log.filter((e) => e.kind === 'found')).toHaveLength(1);
});

test('a board without a circuit: what it does leads to where to look first', async ({ page }) => {
  await makeKit(page, 'No circuit', 'R1-R3 10k\nD1 LED red\nC1 100uF/25V electrolytic\nU1 NE555 timer');
  await command(page, 'Find fault');
  await expect(page.getByText('Supply first:')).toBeVisible();
  const say = (symptom: string, yes: 'yes' | 'no') => page.getByRole('radiogroup', { name: symptom }).getByText(yes, { exact: true }).click();
  const causes = page.getByRole('list', { name: 'Causes by weight' }).getByRole('listitem');
  await say('The supply is in its current limit at once', 'yes');
  await expect(causes.first()).toContainText('Solder bridge');
  await expect(causes.filter({ hasText: 'Regulator' })).toHaveCount(0);
  await say('The rails are right, a chip does nothing', 'yes');
  await expect(causes.first()).toContainText('Solder bridge');
  await say('The supply is in its current limit at once', 'no');
  await expect(causes.filter({ hasText: 'Solder bridge' })).toHaveCount(0);
  await expectAccessible(page);
  await page.reload();
  await expect(causes.first()).toContainText(/chip/i);
  await command(page, 'Logbook');
  await expect(page.getByText('The rails are right, a chip does nothing: yes')).toBeVisible();
});

test('a doubtful chip is examined: sign by sign it becomes a case, with advice by use, and goes into the letter', async ({ page }) => {
  await makeKit(page, 'Doubtful', 'U1 LM358 op-amp\nR1-R2 10k', '');
  await command(page, 'Check');
  await page.getByRole('button', { name: 'Genuine or not?' }).click();
  const field = page.getByRole('combobox', { name: 'Part that looks doubtful' });
  await field.click();
  await field.fill('358');
  await field.press('Enter');
  const drawer = page.getByRole('dialog');
  await expect(drawer.getByText('10 %')).toBeVisible();
  const say = (sign: string, yes: 'yes' | 'no') => drawer.getByRole('radiogroup', { name: sign }).getByText(yes, { exact: true }).click();
  await say('The top is sanded', 'yes');
  await say('The print wipes off', 'yes');
  await say('Top and bottom name different makers', 'yes');
  await expect(drawer.getByText('> 99 %')).toBeVisible();
  await expect(drawer.getByText('in a toy or gadget: take another')).toBeVisible();
  await expectAccessible(page);
  // A figure against its data sheet: an entry error stands at its field, nothing is lost.
  await drawer.getByLabel('What', { exact: true }).fill('offset, mV');
  await drawer.getByLabel('It reads').fill('about 9');
  await drawer.getByRole('button', { name: 'Hold it against' }).click();
  await expect(drawer.getByText('A plain number, in the unit of the data sheet.')).toBeVisible();
  await drawer.getByLabel('It reads').fill('9');
  await drawer.getByLabel('at most').fill('7');
  await drawer.getByRole('button', { name: 'Hold it against' }).click();
  await expect(drawer.getByRole('list', { name: 'Evidence' }).getByText(/offset, mV reads 9/)).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Write to the seller' }).click();
  await expect(
    page
      .getByRole('dialog')
      .getByText(/I doubt whether these are genuine/)
      .first(),
  ).toBeVisible();
});

test('practice: a round is given up, named and played through; the next number hides the same again', async ({ page }) => {
  await openDemo(page);
  const begin = async () => {
    await command(page, 'Practice');
    await page.getByLabel(/Number of the round/).fill('7');
    const before = page.url();
    await page.getByRole('button', { name: 'Begin' }).click();
    await expect.poll(() => page.url(), { timeout: 60_000 }).not.toBe(before);
    await expect(page.getByRole('region', { name: 'Board map' })).toBeVisible();
    await command(page, 'Practice');
    const round = page.getByRole('region', { name: 'This round' });
    await expect(round.getByText('This round, number 7')).toBeVisible();
    await expect(round.getByText(/is not connected|shorted|wrong way|exchanged|has \d|bridge|stuck|turned/)).toHaveCount(0);
    await round.getByRole('button', { name: 'Show me what it is' }).click();
    await expect(round.getByRole('heading', { name: 'What was hidden' })).toBeVisible({ timeout: 60_000 });
    await expect(round.getByText('What the program would have read')).toBeVisible();
    return round.getByRole('listitem').first().innerText();
  };
  const first = await begin();
  await expectAccessible(page);
  expect(await begin()).toBe(first);
});

test('practice on one’s own kit: two parts in each other’s place are found in six readings at most, and the round is scored', async ({ page }) => {
  await makeKit(page, 'Follower', FOLLOWER.list, FOLLOWER.deck);
  await command(page, 'Practice');
  await choose(page.getByLabel('What is hidden'), 'a part in the wrong place');
  await page.getByLabel(/Number of the round/).fill('9');
  const before = page.url();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect.poll(() => page.url(), { timeout: 60_000 }).not.toBe(before);
  await command(page, 'Power up');
  const readings = async () => (await storedKit(page)).log.filter((e) => e.kind === 'read' || e.kind === 'probed').length;
  const stop = page.getByText('Stop here');
  // Whatever is asked for is looked at, set or read on the simulated bench, until a stage fails.
  for (let n = 0; n < 14 && !(await appears(stop)); n++) await readFromMeter(page);
  await expect(stop).toBeVisible();
  await toSuspects(page);
  const first = suspects(page).first();
  for (let n = await readings(); n < 6 && !/swapped/.test(await first.innerText()); n = await readings()) {
    await readFromMeter(page);
    await expect.poll(readings).toBe(n + 1);
    await expect(page.getByText('Based on earlier readings')).toHaveCount(0, { timeout: 30_000 });
  }
  await expect(first).toContainText('R2 and R3 are swapped');
  expect(await readings()).toBeLessThanOrEqual(6);
  await page.getByRole('button', { name: 'I found it' }).click();
  await command(page, 'Practice');
  const round = page.getByRole('region', { name: 'This round' });
  await expect(round.getByRole('heading', { name: 'Found and repaired' })).toBeVisible({ timeout: 30_000 });
  await expect(round.getByText('No needless repairs, no risks taken.')).toBeVisible();
});

test('where the stage in hand cannot decide, one goes back to an earlier one, and its reading does', async ({ page }) => {
  const line = (id: string) => ({ id, refs: [id], kind: 'resistor' as const, value: 1e4, tolerance: null, label: '10 k', quantity: 1 });
  const measure = (id: string, mode: 'ohms' | 'dcv', net: string) => ({ id, what: 'measure' as const, title: id, mode, red: { net }, black: { net: '0' } });
  const sheet = sheetWith({
    title: 'Three in a row',
    lines: ['R1', 'R2', 'R3'].map(line),
    circuit: { deck: 'Three in a row\nV1 vcc 0 9\nR1 vcc a 10k\nR2 a b 10k\nR3 b 0 10k\n.end', neighbours: [] },
    stages: [
      { id: 'cold', title: 'Cold', kind: 'cold', fits: ['R1', 'R2', 'R3'], supplies: [], checks: [measure('foot', 'ohms', 'b')] },
      { id: 'on', title: 'On', kind: 'power', fits: [], supplies: [{ source: 'V1', volts: 9, limit: 0.1 }], checks: [measure('middle', 'dcv', 'a')] },
    ],
  });
  const made = newKit(sheet, { id: 'made', at: '2026-01-01T00:00:00.000Z' });
  const kit = extend(made, { kind: 'read', stage: 'on', check: 'middle', reading: 9, meter: 'handheld', id: 'r1', at: '2026-01-01T00:01:00.000Z' });
  await page.goto('/');
  await giveFile(page, { name: 'row.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(documentOf(kit))) });
  await expect(page.getByRole('navigation', { name: 'Phases' })).toBeVisible();
  await command(page, 'Find fault');
  await expect(page.getByText(/No further reading of this stage would separate these/)).toBeVisible({ timeout: 30_000 });
  await page.getByRole('button', { name: 'Ask the earlier stages too' }).click();
  await expect(page.getByText(/Go back to “Cold”: foot/)).toBeVisible({ timeout: 30_000 });
  await expectAccessible(page);
  await expect(inHand(page)).toContainText('foot');
  const entry = page.locator('#entry');
  await entry.fill('over');
  await entry.press('Enter');
  await expect(suspects(page).first()).toContainText('R3 has an open joint', { timeout: 30_000 });
});
