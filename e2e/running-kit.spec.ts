import { expect, test } from '@playwright/test';
import { expectAccessible, storedKit } from './bench';

const DECK = `Two lamps in turn
V1 vcc 0 9
R1 vcc c1 1k
R2 vcc c2 1k
R3 vcc b1 47k
R4 vcc b2 47k
C1 c1 b2 1u
C2 c2 b1 1u
Q1 c1 b1 0 NS
Q2 c2 b2 0 NS
.ic V(c1)=0 V(b2)=-3
.model NS NPN(IS=1.5E-14 BF=250 VAF=80 BR=4 RC=0.5 RE=0.1)
.end`;

test('a kit that never rests: averages and a frequency have windows, a dead flasher is traced to its base resistor', async ({ page }) => {
  await page.goto('/new/');
  await page.getByLabel('Name of the kit').fill('Two lamps');
  await page.getByLabel('Circuit (SPICE').fill(DECK);
  await expect(page.getByText('9 parts, 5 nets.')).toBeVisible();
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  await page.keyboard.press('Alt+4');
  const entry = page.locator('#entry');
  const take = async (text: string) => {
    await expect(page.getByText('Computing the window')).toHaveCount(0, { timeout: 30_000 });
    await entry.fill(text);
    await entry.press('Enter');
    await expect(entry).toHaveValue('');
  };
  // The supply to ground, cold; then R4 is not connected: Q2 never conducts, the board stands still.
  await take('101k');
  await expect(page.getByText('Limited power')).toBeVisible();
  const shows: Record<string, string> = { vcc: '9.01', c1: '0.03', c2: '9.00', b1: '0.68', b2: '0' };
  await take('9.1m');
  for (let i = 0; i < 8; i++) {
    if ((await storedKit(page)).log.length >= 7) break;
    const title = (await page.locator('.probe-bar h3').first().textContent())!;
    const net = Object.keys(shows).find((n) => title.includes(n));
    if (!net) break;
    await take(shows[net]!);
  }
  await expect(page.getByText('Stop here')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Find the fault' }).click();
  await expect(page.locator('.suspect').first()).toBeVisible({ timeout: 90_000 });
  await expect(page.locator('.suspect').filter({ hasText: /R4|Q2/ }).first()).toBeVisible();
  await expectAccessible(page);

  // The timing capacitors twice as large: half the frequency.
  await page.getByRole('button', { name: 'Circuit' }).click();
  await page.getByText('What if', { exact: true }).click();
  await page.getByLabel('If this part').selectOption('C1');
  await page.getByLabel('namely').fill('2u');
  await page.getByRole('button', { name: 'Solve it' }).click();
  await expect(page.getByRole('row', { name: /frequency at c1/ })).toBeVisible({ timeout: 60_000 });
});
