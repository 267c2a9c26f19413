import { expect, test } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { choose, expectAccessible, openDemo, readFromMeter, storedKit } from './bench';

test('the circuit: a diagnostic at its place, a block added, connections changed, used for the windows', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Circuit' }).click();
  const editor = page.locator('.cm-content');
  await expect(editor).toContainText('Frost sentinel');
  await expectAccessible(page);

  // An error is named with its line and blocks the use of the deck; undo mends it.
  await editor.click();
  await page.keyboard.press('Control+Home');
  await page.keyboard.press('End');
  await page.keyboard.type('\nR99 vcc nowhere tenk');
  await expect(page.getByRole('list', { name: 'Remarks on the deck' }).getByText(/line 2, column 17: R99/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Use this circuit' })).toBeDisabled();
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(editor).not.toContainText('R99');

  // A block with refs of its own, then one of its nets moved in the table.
  await page.getByText('Blocks', { exact: true }).click();
  await choose(page.getByLabel('Block', { exact: true }), 'LED');
  await page.getByLabel('From net').fill('v5');
  await page.getByRole('button', { name: 'Add it to the circuit' }).click();
  await expect(editor).toContainText('R13 v5 LED1_a 1000');
  await page.getByText('Connections', { exact: true }).click();
  await page.getByLabel('R13 1').fill('vcc');
  await page.getByLabel('R13 1').press('Tab');
  await expect(editor).toContainText('R13 vcc LED1_a 1000');
  await page.getByText('Findings', { exact: true }).click();
  await expect(page.getByText('R13 is in the circuit but on no line of the list.')).toBeVisible();
  await expect(page.getByText(/^No part exceeds a rating from the list or a type card/)).toBeVisible();
  await page.getByRole('button', { name: 'Use this circuit' }).click();
  await expect.poll(async () => JSON.stringify(await storedKit(page))).toContain('R13 vcc LED1_a 1000');
});

test('what if, substitutes, neighbours and time', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Circuit' }).click();
  await page.getByText('What if', { exact: true }).click();
  await choose(page.getByLabel('If this part'), 'R5');
  await page.getByLabel('namely').fill('33k');
  await page.getByRole('button', { name: 'Solve it' }).click();
  await expect(page.getByText('It matters here: do not fit')).toBeVisible();
  await page.getByLabel('namely').fill('3.31k');
  await page.getByRole('button', { name: 'Solve it' }).click();
  await expect(page.getByText('It does not matter here')).toBeVisible();
  await choose(page.getByLabel('(3.3 k'), 'goes through a range');
  await page.getByLabel('from', { exact: true }).fill('1k');
  await page.getByLabel('to', { exact: true }).fill('5k6');
  await page.getByRole('button', { name: 'Solve it' }).click();
  await expect(page.getByRole('columnheader', { name: 'at 5.60 kΩ' })).toBeVisible();
  await choose(page.getByLabel('If this part'), 'D3');
  await choose(page.getByLabel('(1N4148)'), 'sits the wrong way round');
  await page.getByRole('button', { name: 'Solve it' }).click();
  await expect(page.getByText('Do not fit: Q2 would get 4.75 W, rated 500 mW')).toBeVisible();
  await choose(page.getByLabel('(1N4148)'), 'is taken out');
  await page.getByRole('button', { name: 'Solve it' }).click();
  await expect(page.getByText(/No check can tell|It does not matter here/)).toBeVisible();

  await page.getByText('Substitutes', { exact: true }).click();
  await choose(page.getByLabel('In place of'), 'R5');
  await page.getByLabel(/My drawer holds/).fill('2k2 1.1k 4.7k foo');
  await expect(page.getByText('Not understood: foo')).toBeVisible();
  await page.getByRole('button', { name: 'Find substitutes' }).click();
  await expect(page.getByRole('list', { name: 'Substitutes' }).getByRole('listitem').first()).toContainText('2.2 kΩ + 1.1 kΩ = 3.30 kΩ: no check moves');
  await expectAccessible(page);

  await page.getByText('Around', { exact: true }).click();
  await choose(page.getByLabel('Around net', { exact: true }), 'ts');
  await expect(page.getByRole('button', { name: /net v5, 5\.0/ })).toBeVisible();
  await page.getByRole('button', { name: /net v5, 5\.0/ }).press('Enter');
  await expect(page.getByRole('button', { name: /net v5, 5\.0/ })).toHaveAttribute('aria-current', 'true');
  await expectAccessible(page);

  await page.getByText('In time', { exact: true }).click();
  await choose(page.getByLabel('Net', { exact: true }), 'v5');
  await page.getByRole('button', { name: 'Run it' }).click();
  await expect(page.getByText(/A DC meter shows 5\.0/)).toBeVisible();
  await expect(page.getByRole('img', { name: 'Net v5 over time' })).toBeVisible();
});

test('the schematic: drawn in Circuit with the volts of a stage, and in Power up in the place of the map', async ({ page }) => {
  await openDemo(page);
  await page.getByRole('button', { name: 'Circuit' }).click();
  await page.getByText('Schematic', { exact: true }).click();
  const drawing = page.getByRole('region', { name: 'Schematic' });
  await expect(drawing.getByText('R2', { exact: true })).toBeVisible();
  await expect(drawing.getByText('5.01 V')).toBeVisible();
  await page.getByText('Zigzag resistors').click();
  await expectAccessible(page);
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Save as SVG' }).click()]);
  expect(await readFile(await file.path(), 'utf8')).toMatch(/^<\?xml[\s\S]*<svg[^>]*xmlns="http:\/\/www\.w3\.org\/2000\/svg"[\s\S]*>R2<\/text>/);
  // A part that is pressed is supposed to be otherwise.
  await drawing.getByRole('button', { name: 'R2: what if it were different?' }).press('Enter');
  await expect(page.getByRole('button', { name: 'Solve it' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Circuit tools' })).toContainText('R2');
  // At the bench its nets carry the windows, and a press takes the check into the hand.
  await page.keyboard.press('Alt+4');
  for (let look = 0; look < 2; look++) await readFromMeter(page);
  for (let cold = 0; cold < 4; cold++) await readFromMeter(page);
  await page.getByRole('region', { name: 'Board map' }).getByText('Schematic').click();
  const bench = page.getByRole('region', { name: 'Schematic' });
  await expect(bench.getByText('Q1', { exact: true })).toBeVisible();
  await readFromMeter(page);
  const net = bench.getByRole('button', { name: /Select this check/ }).last();
  await expect(net).toBeVisible();
  const title = (await net.getAttribute('aria-label'))!.split(':')[0]!;
  await net.press('Enter');
  await expect(page.getByRole('contentinfo', { name: 'Probe bar' })).toContainText(title);
  await expectAccessible(page);
});

test('symbols are moved by keys and by hand, kept over a reload, undone; the page for paper has the drawing and its volts', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Open Wind dial' }).click();
  await page.getByRole('button', { name: 'Circuit' }).click();
  await page.getByText('Schematic', { exact: true }).click();
  const drawing = page.getByRole('region', { name: 'Schematic' });
  // Two boards, each in its frame.
  await expect(drawing.getByText('Mast board')).toBeVisible();
  await expect(drawing.getByText('Dial board')).toBeVisible();
  await page.getByRole('button', { name: 'Move symbols' }).click();
  const symbol = page.getByRole('button', { name: 'Move M:R2' });
  const places = async () => (await storedKit(page)).log.filter((e) => 'room' in e && e.room === 'symbols').length;
  await symbol.focus();
  await page.keyboard.press('ArrowUp');
  await expect.poll(places).toBe(1);
  await page.keyboard.press('r');
  await expect.poll(places).toBe(2);
  const box = (await symbol.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 90, box.y - 40, { steps: 6 });
  await page.mouse.up();
  await expect.poll(places).toBe(3);
  await expectAccessible(page);
  // Two at once: lined up in a column, and turned together.
  await page.getByRole('button', { name: 'Move M:R1' }).click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'One column' }).click();
  await expect.poll(async () => new Set((await storedKit(page)).log.slice(-2).map((e) => ('after' in e ? (e.after as { x: number }).x : e.id))).size).toBe(1);
  await page.getByRole('button', { name: 'Larger' }).click();
  const wide = await drawing.evaluate((e) => e.scrollWidth > e.clientWidth);
  expect(wide).toBe(true);
  await page.getByRole('button', { name: 'The whole schematic' }).click();
  await page.keyboard.press('Control+z');
  await page.reload();
  await page.getByText('Schematic', { exact: true }).click();
  await page.getByRole('button', { name: 'Move symbols' }).click();
  await expect(page.getByRole('button', { name: 'Put all back' })).toBeEnabled();
  for (let i = 0; i < 3; i++) await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Put all back' })).toBeDisabled();

  await page.getByRole('button', { name: 'Print', exact: true }).click();
  const paper = page.getByRole('dialog', { name: 'The schematic on paper' });
  await expect(paper.getByRole('row', { name: /TP2 .*5\.0/ })).toBeVisible();
  expect((await page.pdf({ format: 'A4' })).toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(1);
});
