import { expect, test } from '@playwright/test';
import { choose, command, expectAccessible, giveFile, inHand, makeKit, openDemo, PIXEL, storedKit } from './bench';

test('a skipped line comes again after the others of its stage; nothing that is in is offered or ticked again', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+3');
  const title = inHand(page);
  await expect(title).toBeVisible();
  const first = (await title.textContent())!;
  await page.keyboard.press('s');
  await expect(title).not.toHaveText(first);
  const second = (await title.textContent())!;
  await page.keyboard.press('s');
  await expect(title).not.toHaveText(second);
  const offered: string[] = [];
  for (let i = 0; i < 4; i++) {
    const here = (await title.textContent())!;
    offered.push(here);
    await page.keyboard.press('Enter');
    await expect(title).not.toHaveText(here);
  }
  expect(new Set(offered).size).toBe(4);
  expect(offered).not.toContain(first);
  const ticks = (await storedKit(page)).log.filter((e) => e.kind === 'fitted');
  expect(ticks).toHaveLength(4);
});

test('fitting by keyboard: one line after another, which way round is said, a mistake is taken back, the rest is asked for', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+3');
  const title = inHand(page);
  await expect(title).toBeVisible();
  const fitted = async () => (await storedKit(page)).log.filter((e) => e.kind === 'fitted').flatMap((e) => (e as unknown as { refs: string[] }).refs);

  // Every line once, each with its way round.
  const seen = new Set<string>();
  for (let i = 0; i < 6; i++) {
    const here = (await title.textContent())!;
    expect(seen.has(here)).toBe(false);
    seen.add(here);
    const before = (await fitted()).length;
    await page.keyboard.press('Enter');
    await expect.poll(async () => (await fitted()).length).toBeGreaterThan(before);
    await expect(title).not.toHaveText(here);
  }
  await expectAccessible(page);

  // The last one was a mistake: it is asked for again, and is not on the board any more.
  const next = (await title.textContent())!;
  const last = [...seen].at(-1)!;
  await page.keyboard.press('Control+z');
  await expect(title).toHaveText(last);
  await page.keyboard.press('Enter');
  await expect(title).toHaveText(next);

  // A reload in the middle goes on where it was.
  const before = await fitted();
  await page.reload();
  await expect(title).toHaveText(next);
  expect(await fitted()).toEqual(before);
  await page.keyboard.press('Alt+6');
  await expect(
    page
      .getByRole('region', { name: 'Log' })
      .getByText(/Fitted/)
      .first(),
  ).toBeVisible();
});

test('the bare board is looked at, a school is chosen, a forgotten part is named, a second look asks what is likely first', async ({ page }) => {
  await openDemo(page);
  await page.keyboard.press('Alt+3');
  const title = inHand(page);

  // Before anything is soldered.
  await page.getByText('Bare board', { exact: true }).click();
  await expect(title).toHaveText(/Revision of the board/);
  await page.keyboard.press('Enter');
  await expect(title).toHaveText(/Holes are open/);
  await page.keyboard.press('n');
  await expect(title).toHaveText(/Holes fit the parts/);
  await expect(page.getByText('2 of 6')).toBeVisible();
  await expect(page.getByText(/Holes are open: not good/)).toBeVisible();
  await expectAccessible(page);

  // The plan in another order, and its consequence.
  await page.getByLabel('What is done at the board').getByText('Fit', { exact: true }).click();
  await page.getByRole('tab', { name: 'Plan' }).click();
  const plan = page.getByRole('region', { name: 'Plan' });
  const steps = plan.getByRole('list', { name: 'Steps' }).getByRole('listitem');
  await expect(plan.getByText(/About .* left, by usual times/)).toBeVisible();
  await choose(page.getByLabel('Order of fitting'), 'Heavy things first');
  await expect(steps.first()).toContainText('K1');
  await expect(title).toHaveText(/K1/);
  await expectAccessible(page);

  // One’s own order by the keyboard: the relay moves behind the terminals.
  const grip = page.getByRole('button', { name: 'Move K1' });
  await grip.focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect(steps.first()).not.toContainText('K1');
  expect((await storedKit(page)).log.at(-1)).toMatchObject({ kind: 'changed', room: 'settings' });

  // Everything but R8 is ticked off; it comes again when nothing else is left.
  await grip.blur();
  const ticked = new Set<string>();
  for (;;) {
    const here = (await title.textContent())!;
    const over = here.startsWith('R8 ') || ticked.has(here);
    ticked.add(here);
    await page.keyboard.press(over ? 'ArrowDown' : 'Enter');
    const went = await expect(title)
      .not.toHaveText(here, { timeout: 3000 })
      .then(
        () => true,
        () => false,
      );
    if (!went) break;
  }
  await page.getByText('Second look', { exact: true }).click();
  await expect(page.getByRole('list', { name: 'From your records' })).toContainText(/R8 .*is not ticked/);
  await expect(title).toHaveText(/bridge/i);
  const first = (await title.textContent())!.trim();
  await page.keyboard.press('n');
  await expect(page.getByText(/No bridge between .*: not good/)).toBeVisible();
  await expect(title).not.toHaveText(first);
  // What is in hand now is photographed: a note of the logbook says what it shows.
  const look = (await title.textContent())!.trim();
  await page.getByRole('button', { name: `Photo: ${look}` }).waitFor();
  await giveFile(page, {
    name: 'gap.png',
    mimeType: 'image/png',
    buffer: PIXEL,
  });
  await expect.poll(async () => (await storedKit(page)).log.flatMap((e) => (e.kind === 'noted' && 'photos' in e ? [e.text] : []))).toEqual([look]);
  await expectAccessible(page);
  const kinds = (await storedKit(page)).log.map((e) => e.kind);
  expect(kinds.filter((k) => k === 'inspected')).toHaveLength(3);
});

test('a kit of one’s own: places and pads from a bare-board netlist, traced with a tester to a pad that was drawn wrongly', async ({ page }) => {
  const deck =
    'lamp with a switch transistor\nV1 vcc 0 9\nR1 vcc a 470\nD1 a c DLED\nQ1 c b 0 QN\nR2 in b 10k\nR3 b 0 100k\n.model DLED D(IS=1e-18 N=2)\n.model QN NPN\n.end';
  await makeKit(page, 'Night lamp', 'R1 470\nR2 10k\nR3 100k\nLED red D1\nQ1 BC547', deck);
  await page.keyboard.press('Alt+3');

  // A file that is none is refused in words; the netlist brings places, pads and what lies side by side.
  await page.getByRole('button', { name: 'Places from a file' }).click();
  const dialog = page.getByRole('dialog', { name: 'Places from a file' });
  await dialog.getByLabel('Text of the file').fill('a shopping list');
  await expect(dialog.getByText('This cannot be read')).toBeVisible();
  const pad = (net: string, ref: string, pin: string, x: number, y: number) =>
    `${`317${net.padEnd(14)}   ${ref.padEnd(6)}-${pin.padEnd(4)}`.padEnd(38)}A00X+${String(x).padStart(6, '0')}Y+${String(y).padStart(6, '0')}`;
  const file = [
    'P  UNITS CUST 1',
    ...[
      pad('vcc', 'R1', '1', 2540, 2540),
      pad('a', 'R1', '2', 12700, 2540),
      pad('a', 'D1', 'A', 20320, 2540),
      pad('c', 'D1', 'K', 22860, 2540),
      pad('c', 'Q1', 'C', 20320, 10160),
      pad('b', 'Q1', 'B', 22860, 10160),
      pad('GND', 'Q1', 'E', 25400, 10160),
      pad('in', 'R2', '1', 2540, 10160),
      pad('b', 'R2', '2', 12700, 10160),
      pad('b', 'R3', '1', 2540, 15240),
      pad('GND', 'R3', '2', 12700, 15240),
    ],
    '999',
  ].join('\n');
  await dialog.getByLabel('Text of the file').fill(file);
  await expect(dialog.getByRole('status')).toContainText('5 parts, 11 pads read; 5 of them are in this kit');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Take 5 places' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByRole('img', { name: 'Board with 5 places, 0 fitted' })).toBeVisible();

  // On the true board R3 leads to the LED, not to the base.
  const truth: Record<string, string> = {
    'R3.1': 'c',
    'R1.1': 'vcc',
    'R1.2': 'a',
    'D1.A': 'a',
    'D1.K': 'c',
    'Q1.C': 'c',
    'Q1.B': 'b',
    'Q1.E': 'GND',
    'R2.1': 'in',
    'R2.2': 'b',
    'R3.2': 'GND',
  };
  await page.getByText('Trace', { exact: true }).click();
  const title = inHand(page);
  await expect(title).toContainText('–');
  for (let i = 0; i < 40 && (await title.count()) > 0; i++) {
    const asked = (await title.textContent())!;
    const [a, b] = /(\S+) – (\S+)/.exec(asked)!.slice(1) as [string, string];
    await page.keyboard.press(truth[a] === truth[b] ? 'Enter' : 'n');
    await expect(title.filter({ hasText: asked })).toHaveCount(0);
  }
  await expect(page.getByRole('list', { name: 'What differs' })).toContainText('R3.1 is on c, not on b as drawn');
  await expectAccessible(page);

  const { log } = await storedKit(page);
  expect(log.filter((e) => e.kind === 'traced').length).toBeLessThan(25);
});

test('pins set on one’s own photo become the map, with the photo beneath the drawing', async ({ page }) => {
  await makeKit(page, 'Photographed', 'R1-R2 10k\nC1 100n');
  await page.keyboard.press('Alt+7');
  await page.getByText('Boards, options, claims').click();
  const photos = page.getByRole('region', { name: 'Photos' });
  // A generated picture, twice as wide as high.
  const picture = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(1200, 600);
    const brush = canvas.getContext('2d')!;
    brush.fillStyle = 'green';
    brush.fillRect(0, 0, 1200, 600);
    const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer());
    return [...bytes];
  });
  await photos.locator('input[type=file]').setInputFiles({ name: 'board.png', mimeType: 'image/png', buffer: Buffer.from(picture) });
  await photos.getByRole('button', { name: 'Set pins' }).click();
  const dialog = page.getByRole('dialog', { name: 'Pins on “board.png”' });
  const photo = dialog.getByRole('img', { name: /Photo with/ });
  const box = (await photo.boundingBox())!;
  const click = (x: number, y: number) => page.mouse.click(box.x + x * box.width, box.y + y * box.width);
  await expect(dialog.getByText('R1', { exact: true }).first()).toBeVisible();
  await click(0.2, 0.1);
  await expect(dialog.getByText('Click where R2 sits')).toBeVisible();
  await click(0.7, 0.1);
  // The third by the keyboard alone: set somewhere, then by its figures.
  await click(0.5, 0.3);
  await dialog.getByLabel('C1, from the top').fill('40');
  await dialog.getByLabel('C1, from the top').press('Tab');
  await expect(dialog.getByRole('button', { name: 'Make it the map' })).toBeDisabled();
  await dialog.getByLabel('Distance').fill('50');
  await dialog.getByLabel('Distance').press('Tab');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Make it the map' }).click();
  await expect(dialog).toHaveCount(0);

  // Half of the width is 50 mm: C1 lies 30 mm right of R1 and 30 mm below it.
  const { placement } = (await storedKit(page)).sheet;
  const at = (ref: string) => placement.find((p) => p.ref === ref)!;
  expect(at('R2').x - at('R1').x).toBeCloseTo(50, 0);
  expect(Math.abs(at('R2').y - at('R1').y)).toBeLessThan(0.6);
  expect(at('C1').x - at('R1').x).toBeCloseTo(30, 0);
  expect(at('C1').y - at('R1').y).toBeCloseTo(30, 0);

  await page.keyboard.press('Alt+3');
  await expect(page.getByRole('img', { name: 'Board with 3 places, 0 fitted' }).locator('image')).toHaveCount(1);
  await page.getByRole('button', { name: 'Zoom in' }).click();
  await page.getByRole('button', { name: 'The whole board' }).click();
  await page.getByRole('switch', { name: 'From the copper side' }).click();
  await expectAccessible(page);
});

test('what goes in otherwise than listed: a piece that is out is asked about, another value, left out', async ({ page }) => {
  await makeKit(page, 'Otherwise', 'R1 1k\nR2 4.7k\nR3 10k', '');
  await command(page, 'Check');
  const entry = page.locator('#entry');
  await command(page, 'R1');
  await entry.fill('2.2k');
  await entry.press('Enter');
  await command(page, 'Fit');
  const kinds = async () => (await storedKit(page)).log.map((e) => e.kind);
  await command(page, 'R1');
  await expect(inHand(page)).toContainText('R1');
  await expect(page.getByRole('complementary', { name: 'Why' }).getByText(/The piece for R1 reads 2\.2/)).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').getByText(/press Enter again to fit it all the same/)).toBeVisible();
  expect(await kinds()).not.toContain('fitted');
  await page.keyboard.press('Enter');
  await expect.poll(kinds).toContain('fitted');

  await command(page, 'R2');
  await page.getByRole('button', { name: 'Another value' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Note it' }).click();
  await expect(dialog.getByText('Which value?')).toBeVisible();
  await dialog.getByLabel('Value that goes in').fill('3k9');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Note it' }).click();
  await expect.poll(kinds).toContain('modified');

  await expect(inHand(page)).toContainText('R3');
  await page.getByRole('button', { name: 'Left out' }).click();
  await expect.poll(kinds).toContain('removed');
  // All is seen to: nothing is asked any more.
  await expect(inHand(page)).toHaveCount(0);
});
