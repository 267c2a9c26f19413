import { expect, test } from '@playwright/test';
import { choose, expectAccessible, inHand, makeKit, storedKit } from './bench';

/** A night lamp with what lists name without a position; its list and its drawing differ in R2. */
const LIST = 'R1 470\nR2 10k\nR3 100k\nLED red D1\nQ1 BC547\nDIP-8 socket x1\nwire link x2';
const DECK = `Night lamp
V1 vcc 0 9
R1 vcc a 470
D1 a c DLED
Q1 c b 0 QN
R2 in b 1k
R3 b 0 100k
.model DLED D(IS=1e-18 N=2)
.model QN NPN
.end`;

test('a board without places is laid out from its circuit; parts are dragged and typed to where they are, neighbours found, printed at 1:1', async ({ page }) => {
  await makeKit(page, 'Night lamp', LIST, DECK);
  await page.keyboard.press('Alt+3');
  await expect(page.getByText('laid out as the circuit joins them, not to scale')).toBeVisible();

  // What has no position is asked for at its time: the links before everything else.
  await expect(inHand(page)).toContainText('2 ×');
  await page.keyboard.press('Enter');
  await expect(inHand(page)).not.toContainText('2 ×');

  const files = page.getByRole('region', { name: 'Board', exact: true });
  await files.locator('.ant-dropdown-trigger').click();
  await page.getByRole('menuitem', { name: 'Move parts by hand' }).click();
  const grip = page.getByRole('button', { name: 'Move R1', exact: true });
  const box = (await grip.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 40, box.y + box.height / 2 + 30, { steps: 6 });
  await page.mouse.up();
  // The whole drawing became the kit's places, R1 at its new one.
  await expect.poll(async () => (await storedKit(page)).sheet.placement.length).toBe(5);
  const tools = page.getByRole('group', { name: 'Moving parts' });
  await expect(tools.getByText('R1', { exact: true })).toBeVisible();
  await tools.getByLabel('R1, from the left').fill('30');
  await tools.getByLabel('R1, from the left').press('Tab');
  await expect.poll(async () => (await storedKit(page)).sheet.placement.find((p) => p.ref === 'R1')?.x).toBe(30);
  await tools.getByRole('button', { name: 'Turn' }).click();
  await expect.poll(async () => (await storedKit(page)).sheet.placement.find((p) => p.ref === 'R1')?.rotation).toBe(90);

  // By keys alone: taken with Enter, moved with the arrows, put down with Enter.
  const y = (await storedKit(page)).sheet.placement.find((p) => p.ref === 'R3')!.y;
  await page.getByRole('button', { name: 'Move R3', exact: true }).focus();
  await page.keyboard.press('Enter');
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect.poll(async () => (await storedKit(page)).sheet.placement.find((p) => p.ref === 'R3')!.y - y).toBeCloseTo(2, 0);
  await expectAccessible(page);
  await tools.getByRole('button', { name: 'Done' }).click();
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await storedKit(page)).sheet.placement.find((p) => p.ref === 'R3')!.y).toBe(y);

  await files.locator('.ant-dropdown-trigger').click();
  await page.getByRole('menuitem', { name: 'Neighbours from the map' }).click();
  const near = page.getByRole('dialog', { name: 'Neighbours from the map' });
  await near.getByLabel('Neighbours within').fill('10');
  await near.getByLabel('Neighbours within').press('Tab');
  await near.getByRole('button', { name: /^Take [1-9]\d* pairs/ }).click();
  await expect.poll(async () => (await storedKit(page)).sheet.circuit!.neighbours.length).toBeGreaterThan(0);

  // On paper the drawing is as large as the board.
  await files.locator('.ant-dropdown-trigger').click();
  await page.getByRole('menuitem', { name: 'Print at 1:1' }).click();
  const print = page.getByRole('dialog', { name: 'The board at 1:1' });
  await page.emulateMedia({ media: 'print' });
  const drawing = print.getByRole('img', { name: /Board with 5 places/ });
  const millimetres = Number((await drawing.getAttribute('viewBox'))!.split(' ')[2]);
  // A CSS millimetre is 96/25.4 pixels (CSS Values 4).
  expect((await drawing.boundingBox())!.width / millimetres).toBeCloseTo(96 / 25.4, 1);
  await expect(page.getByRole('contentinfo', { name: 'Probe bar' })).toBeHidden();
  await page.emulateMedia({ media: 'screen' });
});

test('sources that differ stand side by side until one is settled with its reason; pads without a mark are told apart', async ({ page }) => {
  await makeKit(page, 'Night lamp', LIST, DECK);
  await page.keyboard.press('Alt+7');
  await page.getByText('Corrected list or circuit').click();
  const differ = page.getByRole('region', { name: 'Sources that differ' }).first();
  await expect(differ.getByText('R2: list and diagram do not say the same')).toBeVisible();
  await expectAccessible(page);
  await choose(differ.getByLabel('Which is right about R2'), 'List');
  await differ.getByLabel('Why', { exact: true }).fill('1 k would pull the base current over its limit');
  await differ.getByRole('button', { name: 'Settle it' }).click();
  await expect(differ.getByText('R2: list and diagram do not say the same')).toHaveCount(0);
  const { sheet } = await storedKit(page);
  expect(sheet.circuit!.deck).toMatch(/R2 in b 10000|R2 in b 10k/i);
  expect(sheet.differences[0]).toMatchObject({ about: 'R2', right: 'list', by: 'data sheet' });

  // The print says one thing, the diagram another: noted by hand, and settled by tracing.
  await differ.getByRole('button', { name: 'Add difference' }).click();
  const form = page.getByRole('dialog', { name: 'New difference' });
  await form.getByLabel('About').fill('D1');
  await form.getByLabel('The print on the board says').fill('flat side to the left');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByText('Write what at least two of them say.')).toBeVisible();
  await form.getByLabel('The diagram says').fill('cathode to the transistor');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(differ.getByText('D1: the sources do not say the same')).toBeVisible();

  // Which pad is the cathode is told by the tester, and said again when the part goes in.
  await page.keyboard.press('Alt+3');
  await page.getByText('Trace', { exact: true }).click();
  const which = page.getByRole('region', { name: 'Which way round' });
  await choose(which.getByLabel('What carries no mark'), 'D1');
  await which.getByRole('button', { name: 'the right or lower pad beeps' }).click();
  await expect(which.getByRole('status')).toContainText('D1: the right (or lower) pad is the cathode');
  await expectAccessible(page);
  await page.getByText('Fit', { exact: true }).last().click();
  const entry = page.getByRole('contentinfo', { name: 'Probe bar' });
  for (let i = 0; i < 8 && !(await inHand(page).textContent())!.includes('D1'); i++) {
    const before = await inHand(page).textContent();
    await page.keyboard.press('Enter');
    await expect(inHand(page)).not.toHaveText(before!);
  }
  await expect(page.getByRole('complementary', { name: 'Why' }).or(entry).getByText('the right (or lower) pad is the cathode').first()).toBeVisible();
});
