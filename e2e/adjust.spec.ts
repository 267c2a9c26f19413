/** Two controls that move each other, turned in turn until both hold; and what is tried one by one, as a matrix. */
import { writeFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { documentOf, type MeasureCheck, newKit, type Sheet } from '../src/core/kit';
import { EMPTY_SHEET } from '../src/core/kit/sheet';
import { choose, expectAccessible, giveFile, inHand, storedKit } from './bench';

const trimmer = (ref: string) => ({
  id: ref,
  kind: 'trimmer' as const,
  label: '10 k, 25-turn',
  value: 10_000,
  tolerance: null,
  quantity: 1,
  refs: [ref],
});
const turned = (id: string, net: string, adjust: string, low: number, high: number): MeasureCheck => ({
  id,
  what: 'measure',
  title: `volts at ${net}`,
  mode: 'dcv',
  red: { net },
  black: { net: '0' },
  adjust,
  window: { low, high },
});

/** A kit file as another device would send it: two dividers joined by a resistor, eight keys on two sides. */
function kitFile(path: string): string {
  const sheet: Sheet = {
    ...EMPTY_SHEET,
    title: 'Two trimmers',
    lines: [trimmer('RV1'), trimmer('RV2'), { ...trimmer('R9'), kind: 'resistor', label: '4.7 k', value: 4700 }],
    circuit: { deck: 'two\nV1 in 0 10\nRV1a in a 5k\nRV1b a 0 5k\nRV2a in b 5k\nRV2b b 0 5k\nR9 a b 4.7k\n.end', neighbours: [] },
    stages: [
      {
        id: 's',
        title: 'Adjust',
        kind: 'adjust',
        fits: ['RV1', 'RV2', 'R9'],
        supplies: [{ source: 'V1', volts: 10, limit: 0.1 }],
        checks: [
          turned('a', 'a', 'RV1', 3.9, 4.1),
          turned('b', 'b', 'RV2', 5.9, 6.1),
          {
            id: 'keys',
            what: 'observe',
            title: 'keys',
            action: 'Press each key on each side',
            expect: 'its lamp lights',
            channels: ['K1 left', 'K1 right', 'K2 left', 'K2 right'],
          },
        ],
      },
    ],
  };
  writeFileSync(path, JSON.stringify(documentOf(newKit(sheet, { id: 'two-trimmers', at: '2026-01-01T00:00:00.000Z' }))));
  return path;
}

async function reads(page: Page, volts: string): Promise<void> {
  const readings = async () => (await storedKit(page)).log.filter((e) => e.kind === 'read').length;
  const before = await readings();
  await page.locator('#entry').fill(volts);
  await page.locator('#entry').press('Enter');
  await expect.poll(readings).toBe(before + 1);
}

test('two trimmers in turn: which way and how far is said, what was disturbed is read again, keys and sides are ticked in a matrix', async ({ page }, info) => {
  await page.goto('/');
  await giveFile(page, kitFile(info.outputPath('two.json')));
  await expect(page.getByRole('navigation', { name: 'Phases' })).toBeVisible();
  await page.keyboard.press('Alt+4');
  await page.getByRole('button', { name: /all set/ }).click();
  const panel = page.getByRole('region', { name: 'Adjusting' });
  await expect(panel.getByRole('heading', { name: 'Turn RV1' })).toBeVisible();
  await expect(panel.getByText(/RV2 moves this reading too.*until all hold, in about \d+ rounds/)).toBeVisible({ timeout: 30_000 });

  // Half way the reading is too high: it is said where to, and the stage has not failed.
  await reads(page, '5.0');
  await expect(panel.getByText(/Turn towards its lower end, by about \d+\.\d turns/)).toBeVisible();
  await expect(page.getByText('Stop here')).toHaveCount(0);
  await expect(inHand(page)).toContainText('volts at a');
  await expectAccessible(page);
  await reads(page, '5.0');
  await reads(page, '5.0');
  await expect(panel.getByText(/The reading does not change while you turn/)).toBeVisible();
  await reads(page, '4.0');

  // RV2 is turned: what it moved has to be read again.
  await expect(panel.getByRole('heading', { name: 'Turn RV2' })).toBeVisible();
  await reads(page, '4.6');
  await reads(page, '6.0');
  await expect(inHand(page)).toContainText('volts at a');
  await reads(page, '4.05');
  const bar = page.getByRole('contentinfo', { name: 'Probe bar' });
  await expect(bar).toContainText('K1 left');

  // Keys × sides: untried ones stay in sight.
  const matrix = page.getByRole('group', { name: 'keys, one by one' });
  await expect(matrix.getByRole('columnheader', { name: 'left' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(matrix.getByRole('button', { name: 'K1 left: as expected' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(matrix.getByRole('button', { name: 'K1 right: not so' })).toBeVisible();
  await expect(matrix.getByText('2 of 4 not tried yet')).toBeVisible();
  await page.reload();
  await expect(matrix.getByText('2 of 4 not tried yet')).toBeVisible();
  const { log } = await storedKit(page);
  expect(log.filter((e) => e.kind === 'read')).toHaveLength(7);

  // New firmware: what was set right before it is due again, and the end is not reached without it.
  await page.keyboard.press('Alt+b');
  const dialog = page.getByRole('dialog', { name: 'Change the board' });
  await choose(dialog.getByLabel('What happens'), 'Something else');
  await dialog.getByLabel('What is changed').fill('firmware 1.2');
  await dialog.getByRole('button', { name: 'Note it' }).click();
  const since = page.getByRole('note', { name: 'Changed since it was read' });
  await expect(since).toContainText('firmware 1.2');
  await expect(since).toContainText(/Due again:.*RV1 \(volts at a\), RV2 \(volts at b\)/);
  expect(log.filter((e) => e.kind === 'observed')).toHaveLength(2);
});
