import { expect, test } from '@playwright/test';
import { choose, command, expectAccessible, FOLLOWER, inHand, makeKit, readFirstPower, storedKit, toSuspects } from './bench';

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

test('a board without places is laid out from its circuit; parts are dragged and typed to where they are, neighbours found, printed at 1:1', async ({
  page,
}) => {
  await makeKit(page, 'Night lamp', LIST, DECK);
  await page.keyboard.press('Alt+3');
  await expect(page.getByText('laid out by the circuit, not to scale')).toBeVisible();

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
  await expect(page.getByText(/Picked up draggable item R3/)).toBeAttached();
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

  // A probe’s place is pressed there: nobody knows how a resistor lies, so its end is asked for.
  await command(page, 'Sheet');
  await page.getByRole('radiogroup', { name: 'Parts of the sheet' }).getByText('Stages and checks', { exact: true }).click();
  await page.getByRole('button', { name: 'Add measurement' }).click();
  const drawer = page.getByRole('dialog', { name: 'New measurement' });
  await drawer.getByRole('button', { name: 'Red probe: press it on the map' }).click();
  const press = page.getByRole('dialog', { name: 'Red probe: press the place' });
  await press.getByRole('button', { name: 'Pin 2 of R3' }).click();
  const ends = press.getByRole('group', { name: 'Which end of R3' });
  await expectAccessible(page);
  await ends.getByRole('button', { name: 'ground' }).click();
  await expect(drawer.getByLabel('Red probe', { exact: true })).toHaveValue('R3.2');
  await drawer.getByRole('button', { name: 'Leave it as it was' }).click();
  await page.keyboard.press('Alt+3');

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
  await choose(which.getByLabel('Part without a mark'), 'D1');
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

test('points are pressed on the map: the check there comes into the hand, under power and where the fault is looked for', async ({ page }) => {
  await makeKit(page, 'Follower', FOLLOWER.list, FOLLOWER.deck);
  await command(page, 'Power up');
  const ladder = page.getByRole('region', { name: 'Stages', exact: true });
  await ladder.getByText('First power, limited', { exact: true }).click();
  await page.keyboard.press('Enter');
  const map = page.getByRole('region', { name: 'Board map' });
  const points = map.getByRole('button', { name: /^TP\d: / });
  await expect(points.first()).toBeVisible();
  const wanted = (await points.nth(2).getAttribute('aria-label'))!;
  await points.nth(2).click();
  await expect(inHand(page)).toContainText(wanted.split(':')[0]!);
  await expectAccessible(page);

  await readFirstPower(page, [
    [/TP\d+ ?a\b/, '5.87'],
    [/TP\d+ ?e\b/, '0.02'],
  ]);
  await toSuspects(page);
  await page.getByText('Map', { exact: true }).click();
  const anywhere = page.getByRole('region', { name: 'Read at the map' });
  const there = anywhere.getByRole('button', { name: /^Read TP\d/ });
  await there.nth(1).click();
  await expect(inHand(page)).toContainText((await there.nth(1).getAttribute('aria-label'))!.replace('Read ', '').slice(0, 3));
  await expectAccessible(page);
  await page.locator('#entry').fill('3.75');
  await page.locator('#entry').press('Enter');
  await expect.poll(async () => (await storedKit(page)).log.filter((e) => e.kind === 'read' || e.kind === 'probed').length).toBe(3);
});

test('a claim is reckoned, kept with what it depends on, read, and stands proved; an event is what a control is turned to', async ({ page }) => {
  await makeKit(page, 'Follower', FOLLOWER.list, FOLLOWER.deck);
  await command(page, 'Power up');
  await page.getByRole('button', { name: 'Load, heat, waveforms, claims' }).click();
  const desk = page.getByRole('dialog', { name: 'Load, heat, waveforms, claims' });
  await choose(desk.getByLabel('Calculation'), 'Claimed lowest input');
  await desk.getByLabel('Output').fill('5');
  await desk.getByLabel('Claimed to work from').fill('5.5');
  await desk.getByRole('button', { name: 'Calculate' }).click();
  await expect(desk.getByText(/Impossible: 500 mV are left/)).toBeVisible();
  await desk.getByLabel('Claimed to work from').fill('9');
  await desk.getByRole('button', { name: 'Calculate' }).click();
  await expect(desk.getByText(/Possible: 4.00 V are left/)).toBeVisible();
  await desk.getByLabel('Red probe at').fill('net e');
  await expectAccessible(page);
  await desk.getByRole('button', { name: 'Save and check it' }).click();
  const { sheet } = await storedKit(page);
  const check = sheet.stages.flatMap((s) => s.checks.map((c) => ({ s, c }))).find(({ c }) => c.title === 'Output at 9.00 V in')!;
  expect(sheet.claims).toHaveLength(1);
  expect(sheet.claims[0]!.check).toBe(`${check.s.id}/${check.c.id}`);
  await desk.getByRole('button', { name: 'To its check' }).click();
  await expect(inHand(page)).toContainText('Output at 9.00 V in');
  await page.locator('#entry').fill('5.04');
  await page.locator('#entry').press('Enter');
  await page.getByRole('button', { name: 'Load, heat, waveforms, claims' }).click();
  await expect(desk.getByText(/It was proved/)).toBeVisible();

  // A recording over what the circuit should do at a net.
  await choose(desk.getByLabel('Calculation'), 'Waveform');
  const rows = Array.from({ length: 40 }, (_, i) => `${i / 1000},${(5.2 + 0.001 * (i % 2)).toFixed(4)}`).join('\n');
  await desk.getByRole('textbox').last().fill(`time,volts\n${rows}`);
  await desk.getByRole('button', { name: 'Calculate' }).click();
  await choose(desk.getByLabel('Net that was recorded'), 'e');
  await expect(desk.getByRole('img', { name: 'The recording, and dashed what the circuit should do' })).toBeVisible({ timeout: 30_000 });
  await expect(desk.getByRole('row', { name: /Average/ })).toContainText('5.2');

  // A long file of two channels: read in a worker, the second one when it is chosen.
  const file = desk.locator('input[type="file"]');
  const long = Array.from({ length: 300_000 }, (_, i) => `${i * 1e-5};${i % 200 < 50 ? 3 : 0};${i % 400 < 200 ? 12.5 : -12.5}`);
  await file.setInputFiles({ name: 'two.csv', mimeType: 'text/csv', buffer: Buffer.from(['Zeit (s);CH1 (V);CH2 (mV)', ...long].join('\n')) });
  await expect(desk.getByText('Frequency 500.0 Hz, duty 25.0 %.')).toBeVisible({ timeout: 30_000 });
  await choose(desk.getByLabel('Channel of the recording'), 'CH2');
  await expect(desk.getByText('Frequency 250.0 Hz, duty 50.0 %.')).toBeVisible({ timeout: 30_000 });
  await expect(desk.getByText(/From −12\.\d mV to 12\.\d mV/)).toBeVisible();
  await file.setInputFiles({ name: 'wrong.csv', mimeType: 'text/csv', buffer: Buffer.from('time,volts\n0,1') });
  await expect(desk.getByText(/needs at least 8 rows/)).toBeVisible();
  await expectAccessible(page);
});

test('turned until it happens, a long run with its clock, a load test over a healthy board, a part that the deck calls otherwise', async ({ page }) => {
  // The list calls the transistor T1, the deck Q7.
  await makeKit(page, 'Named otherwise', FOLLOWER.list.replace('Q1 BC547', 'T1 BC547\nRV1 10k trimmer'), FOLLOWER.deck.replaceAll('Q1 ', 'Q7 '));
  await command(page, 'Circuit');
  await page.getByText('Findings', { exact: true }).click();
  const names = page.getByRole('region', { name: 'Other names in the deck' });
  await choose(names.getByLabel('Name of T1 in the deck'), 'Q7');
  await expect.poll(async () => (await storedKit(page)).sheet.circuit!.elements).toEqual({ T1: 'Q7' });
  await expect(page.getByText(/T1 .* is on the list but not in the circuit/)).toHaveCount(0);
  await expectAccessible(page);

  // A check that is turned until something happens, written in its form.
  await page.keyboard.press('Alt+7');
  await page.getByText('Stages and checks').click();
  await page.getByText('Under load', { exact: true }).click();
  await page.getByRole('button', { name: 'Add observation' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Title').fill('tone stops');
  await form.getByLabel('Do this').fill('Listen at the output');
  await form.getByLabel('Expect that').fill('The tone just stops.');
  await form.getByLabel('Turned until it happens').fill('RV1');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form).toHaveCount(0);
  await command(page, 'Power up');
  const ladder = page.getByRole('region', { name: 'Stages', exact: true });
  await ladder.getByText('Under load', { exact: true }).click();
  await page.keyboard.press('Enter');
  await ladder.getByRole('button', { name: /tone stops/ }).click();
  await expect(page.getByRole('region', { name: 'Adjusting' })).toContainText('Turn RV1');
  await expect(page.getByRole('region', { name: 'Adjusting' })).toContainText('The tone just stops.');

  // The long run rings for each of its touch tests.
  await ladder
    .getByRole('button', { name: /long run/ })
    .first()
    .click();
  const run = page.getByRole('region', { name: 'Long run' });
  await expect(run).toContainText('At 1 min, 5 min, 10 min');
  await run.getByRole('button', { name: 'Start the clock' }).click();
  await expect(run.getByRole('button', { name: 'The clock is running' })).toBeDisabled();
  expect((await storedKit(page)).log.filter((e) => e.kind === 'waiting')).toHaveLength(3);
  await expectAccessible(page);

  // A load test: 2 kΩ hang on e behind a follower, so it sags by millivolts; read far lower it is apart.
  await page.getByRole('button', { name: 'Load, heat, waveforms, claims' }).click();
  const desk = page.getByRole('dialog', { name: 'Load, heat, waveforms, claims' });
  await choose(desk.getByLabel('Calculation'), 'Load test');
  await desk.getByRole('textbox').first().fill('0 5.2 12\n0.001 5.2 12\n0.002 5.1 12\n0.005 3 12');
  await desk.getByRole('button', { name: 'Calculate' }).click();
  const beside = desk.getByRole('region', { name: 'Against a healthy board' });
  await choose(beside.getByLabel('Net of the output'), 'e');
  await expect(beside.getByRole('img', { name: /dashed that of a healthy board/ })).toBeVisible({ timeout: 30_000 });
  await expect(beside.getByRole('row', { name: /^5.00 mA/ })).toContainText('-4');
  await expectAccessible(page);
});
