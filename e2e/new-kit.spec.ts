/** The path to a kit: a list and a printed drawing, typed and walked by keys alone; a circuit like this one; a board that is built and dead. */
import { expect, type Page, test } from '@playwright/test';
import { expectAccessible, inHand, storedKit } from './bench';

/** The slip in the bag of an adjustable supply: what is printed on it, nothing else. */
const LIST = [
  'D1-D4 1N4007',
  'C1 1000uF 35V electrolytic',
  'C2 10uF 35V electrolytic',
  'U1 LM317 regulator TO-220',
  'R1 240',
  'RV1 trimmer 2.2k',
  'R2 2.2k',
  'LED1 LED green',
];
/** Where the lines of its drawing go, as one reads it with a finger. */
const DRAWING: Readonly<Record<string, string>> = {
  'V1 one end': 'D1.A',
  'V1 other end': 'D2.A',
  'D1 K': 'raw',
  'D2 K': 'raw',
  'D3 A': 'ground',
  'D3 K': 'D1.A',
  'D4 A': 'ground',
  'D4 K': 'D2.A',
  'C1 +': 'raw',
  'C1 -': 'ground',
  'C2 +': 'vout',
  'C2 -': 'ground',
  'U1 in': 'raw',
  'U1 adjust': 'adj',
  'U1 out': 'vout',
  'R1 1': 'vout',
  'R1 2': 'adj',
  'RV1 1': 'adj',
  'RV1 wiper': 'ground',
  'RV1 3': 'ground',
  'R2 1': 'vout',
  'R2 2': 'LED1.A',
  'LED1 K': 'ground',
};

const question = (page: Page) => page.getByRole('textbox', { name: /^Where / });
const step = (page: Page, name: string) => expect(page.getByRole('region', { name, exact: true })).toBeVisible();

test('a list and a drawing typed from scratch by keys alone reach their first computed window; left half way it is gone on with', async ({ page }) => {
  let entries = 0;
  await page.goto('/new/');
  await page.getByLabel('Name of the kit').focus();
  await page.keyboard.type('Bench supply');
  await page.getByLabel('Parts list').focus();
  for (const line of LIST) {
    await page.keyboard.type(line);
    await page.keyboard.press('Enter');
    entries++;
  }
  await expect(page.getByText('8 lines, 11 positions.')).toBeVisible();
  await page.keyboard.press('Alt+ArrowRight');
  await step(page, 'Circuit');
  // The ways stand in one row: arrows move along it.
  await page.getByRole('radio', { name: 'Nothing yet' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.getByRole('radio', { name: 'Battery or DC supply' }).focus();
  await page.keyboard.press('ArrowRight');
  await page.getByLabel('Volts of the supply').focus();
  await page.getByLabel('Volts of the supply').fill('15 V');
  await page.keyboard.press('Enter');
  entries++;
  const answerAll = async (most: number) => {
    for (let i = 0; i < most; i++) {
      if (!(await question(page).isVisible())) return;
      const asked = /^Where (.*) goes$/.exec((await question(page).getAttribute('aria-label')) ?? '')![1]!;
      // A pin that another answer has settled is not asked again.
      await page.keyboard.type(DRAWING[asked]!);
      await page.keyboard.press('Enter');
      entries++;
      await expect(page.getByRole('textbox', { name: `Where ${asked} goes` })).toHaveCount(0);
    }
  };
  await expect(question(page)).toBeFocused();
  await answerAll(8);
  // A wrong answer is told where it stands.
  await page.keyboard.type('R9.7?');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'no part of the list' })).toBeVisible();
  await expectAccessible(page);
  // The window is closed half way.
  await page.reload();
  await expect(page.getByText('was begun before')).toBeVisible();
  await step(page, 'Circuit');
  await expect(question(page)).toBeFocused();
  await answerAll(40);
  await expect(page.getByText('Every pin is answered')).toBeVisible();
  await page.keyboard.press('Alt+ArrowRight');
  await step(page, 'Probe');
  await page.keyboard.press('Alt+ArrowRight');
  await step(page, 'Power');
  await page.keyboard.press('Alt+ArrowRight');
  await step(page, 'Stages');
  await expect(page.getByRole('list', { name: 'Proposed stages' }).getByText('First power').first()).toBeVisible();
  await page.getByRole('button', { name: 'Make the kit' }).focus();
  await page.keyboard.press('Enter');
  entries++;
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  // The first window that is computed: cold ohms, or volts under power.
  await page.keyboard.press('Alt+4');
  for (let i = 0; i < 5 && !(await page.locator('#entry').isVisible()); i++) {
    await page.keyboard.press('Enter');
    entries++;
    await page.waitForTimeout(300);
  }
  await expect(page.getByText(/(computed for a|from simulated) healthy board/).first()).toBeVisible({ timeout: 30_000 });
  console.log(`walked from a typed list to the first computed window: ${entries} confirmed entries`);
  expect(entries).toBeLessThan(120);
  const { sheet } = await storedKit(page);
  expect(sheet.circuit!.deck).toContain('XU1 raw adj vout ADJUSTABLE');
});

test('a circuit like this one: the same kit in few entries, its parts matched to the list', async ({ page }) => {
  await page.goto('/new/');
  await page.getByLabel('Name of the kit').fill('By template');
  await page.getByLabel('Parts list').fill(LIST.join('\n'));
  await expect(page.getByText('8 lines, 11 positions.')).toBeVisible();
  await page.keyboard.press('Alt+ArrowRight');
  await page.getByText('A circuit like this one').click();
  await page.getByRole('combobox', { name: 'Circuit' }).click();
  await page.getByRole('combobox', { name: 'Circuit' }).fill('adjustable');
  await page.keyboard.press('Enter');
  await expect(page.getByText('reservoir, 2200 µF')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put it into the circuit' }).click();
  await expect(page.getByText(/in the circuit/).first()).toBeVisible();
  await page.keyboard.press('Alt+ArrowRight');
  await expect(page.getByText('adjust pin of the regulator')).toBeVisible();
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  const { sheet } = await storedKit(page);
  expect(sheet.circuit!.deck).toMatch(/^C1 raw 0 0\.001$/m);
  expect(sheet.testPoints.some((t) => t.where === 'adjust pin of the regulator')).toBe(true);
  expect(sheet.stages.flatMap((s) => s.checks).some((c) => c.title === 'the output follows the control')).toBe(true);
});

/** What the first stage under power of a board that was built already is called. */
const BUILT_STAGE = 'Supply, from its plug inwards';

test('a board that is built and dead: everything fitted at once, guided from the supply on, by a template and by a list alone', async ({ page }) => {
  await page.goto('/new/');
  await page.getByLabel('Name of the kit').fill('Dead flasher');
  await page.getByRole('checkbox', { name: /built already/ }).check();
  await page.keyboard.press('Alt+ArrowRight');
  await page.getByText('A circuit like this one').click();
  await page.getByRole('combobox', { name: 'Circuit' }).click();
  await page.getByRole('combobox', { name: 'Circuit' }).fill('battery');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Put it into the circuit' }).click();
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await expect(page).toHaveURL(/#power/);
  const { log } = await storedKit(page);
  expect(log.find((e) => e.kind === 'fitted')).toBeDefined();
  await expect(page.getByRole('region', { name: 'Stages', exact: true }).getByText(BUILT_STAGE)).toBeVisible();

  // With a list alone: the same door, typed windows from its regulator, and no empty sockets.
  await page.goto('/new/');
  await page.getByLabel('Name of the kit').fill('Dead radio');
  await page.getByLabel('Parts list').fill('U1 7805\nU2 LM358 DIP-8\nDIP-8 socket x1\nC1 470u 25V electrolytic\nR1-R4 10k\n12 V adapter, not included');
  await expect(page.getByText(/^6 lines|^5 lines/)).toBeVisible();
  await page.getByRole('checkbox', { name: /built already/ }).check();
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await expect(page).toHaveURL(/#power/);
  const ladder = page.getByRole('region', { name: 'Stages', exact: true });
  await expect(ladder.getByText(BUILT_STAGE)).toBeVisible();
  await expect(ladder.getByText('Chips in')).toHaveCount(0);
  await expect(inHand(page)).toContainText('it is fed');
  await page.keyboard.press('Enter');
  await expect(inHand(page)).toContainText('nothing is burnt');
  await expectAccessible(page);
});
