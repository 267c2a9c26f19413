import { expect, test } from '@playwright/test';
import { expectAccessible, giveDeck, giveFile, inHand, makeKit, readFirstPower, storedKit, suspects, toSuspects } from './bench';

const LIST =
  'refs,kind,value,tolerance,qty\nR1,resistor,470,5%,1\nR2-R3,resistor,10k,1%,2\nC1,electrolytic,100u,20%,1\nD1,LED,red,,1\nQ1,transistor,BC547,,1\n';
const DECK = `Lamp switch
V1 vcc 0 9
R1 vcc la 470
D1 la c LRED
R2 vcc b 10k
R3 b 0 10k
Q1 c b 0 NSMALL
C1 vcc 0 100u
.model LRED D(IS=7.7E-18 N=2 RS=2)
.model NSMALL NPN(IS=1.5E-14 BF=250 VAF=80)
.end`;

test('a kit of one’s own from a pasted list and deck runs the same loop to a suspect', async ({ page }) => {
  await page.goto('/new/');
  await page.getByLabel('Name of the kit').fill('Lamp switch');
  await page.getByLabel('Parts list').fill(LIST);
  const deck = await giveDeck(page, DECK.replace('R3 b 0 10k', 'R3 b 0 tenk\nZ9 a b 1'));
  await expect(page.getByText(/line 6, column 8: R3/)).toBeVisible();
  await expect(page.getByText(/"Z9" begins with Z/)).toBeVisible();
  await page.getByRole('button', { name: 'Make the kit' }).click();
  await expect(page.getByText('The circuit has errors')).toBeVisible();
  await deck.fill(DECK);
  await expect(page.getByText('7 parts, 4 nets.')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Make the kit' }).click();

  // Count as listed, skip the measuring, read the board by hand: the lamp D1 is the wrong way round.
  await expect(page.getByRole('region', { name: 'Tray' })).toBeVisible();
  const entry = page.locator('#entry');
  for (let i = 0; i < 5; i++) await entry.press('Enter');
  await page.keyboard.press('Alt+4');
  const type = async (text: string) => {
    await expect(page.getByText('Working out the limits')).toHaveCount(0);
    await entry.fill(text);
    await entry.press('Enter');
    // After the last one nothing is asked: the field is gone.
    await expect(page.locator('#entry:not([value=""])')).toHaveCount(0);
  };
  // The proposed ladder: look first, then cold both ways round, then a limited supply.
  for (const title of ['joints and bridges', 'the right way round']) {
    await expect(inHand(page)).toContainText(title);
    await page.getByRole('button', { name: /as expected/ }).click();
  }
  const allSet = page.getByRole('button', { name: /all set/ });
  await allSet.click();
  await type('20.1k');
  await expect(page.getByText('First power, limited').first()).toBeVisible();
  await allSet.click();
  await expect(inHand(page)).toContainText('current of V1');
  await type('0.84m');
  await page.getByRole('button', { name: 'Find the fault' }).click();
  await expect(suspects(page).first()).toBeVisible({ timeout: 30_000 });
  const answers: Record<string, string> = { vcc: '9.01', la: '9.01', c: '3m', b: '0.66', V1: '0.84m' };
  for (let i = 0; i < 5; i++) {
    await expect(page.getByText('Based on earlier readings')).toHaveCount(0, { timeout: 30_000 });
    await page.waitForTimeout(500);
    if (!(await page.locator('#entry').isVisible())) break;
    const net = (await inHand(page).textContent())!.trim().split(' ').at(-1)!;
    await type(answers[net]!);
  }
  await expect(suspects(page).first()).toContainText(/D1 (is backwards|has an open joint)/);
  expect((await storedKit(page)).log.length).toBeGreaterThan(7);
});

test('a short on the board: the supply stands in its limit, which is said, and the capacitor across it is found', async ({ page }) => {
  await makeKit(page, 'Lamp switch', LIST, DECK);
  const { stages } = (await storedKit(page)).sheet;
  const { limit } = stages.find((s) => s.title === 'First power, limited')!.supplies[0]!;
  // The limit through a tenth of an ohm, and next to nothing behind it.
  await readFirstPower(page, [[/current of V1/, String(limit)]]);
  await expect(page.getByText(/V1 is in its current limit/).first()).toBeVisible();
  await readFirstPower(page, [
    [/vcc/, String(limit / 10)],
    [/\bb\b/, String(limit / 20)],
  ]);
  await toSuspects(page);
  await expect(suspects(page).first()).toContainText(/C1 is shorted|across C1/);
});

test('a microcontroller without its program: its outputs hang on nothing, and it is named beside what reads the same', async ({ page }) => {
  const list =
    'refs,kind,value,tolerance,qty\nR1,resistor,470,5%,1\nR2,resistor,10k,1%,1\nR3,resistor,1k,5%,1\nD1,LED,red,,1\nU1,microcontroller,"programmed, 8 pins",,1\n';
  const deck = `Blinker without a clock
V1 vcc 0 5
XU1 vcc 0 in o1 o2 CHIP
R1 o1 la 470
D1 la 0 LRED
R2 vcc in 10k
R3 o2 0 1k
.subckt CHIP vdd gnd in out1 out2
Rq vdd gnd 2k
Rin in gnd 1MEG
E1 x1 gnd vdd gnd 1
Ro1 x1 out1 40
E2 x2 gnd vdd gnd 0.5
Ro2 x2 out2 40
.ends CHIP
.model LRED D(IS=7.7E-18 N=2 RS=2)
.end`;
  await makeKit(page, 'Blinker', list, deck);
  expect((await storedKit(page)).sheet.lines.map((l) => l.kind)).toContain('microcontroller');
  // Its own 2 kΩ and the pull-up draw as ever; both outputs are dead.
  await readFirstPower(page, [[/current of V1/, '2.51m']]);
  await readFirstPower(page, [
    [/vcc/, '5.00'],
    [/rail in/, '4.95'],
    [/o1/, '0'],
    [/o2/, '0'],
  ]);
  await toSuspects(page);
  await expect(suspects(page).first()).toContainText('U1 is not programmed');
  await expect(page.getByText(/ask the maker whether it comes programmed/).first()).toBeVisible();
});

test('refuses files that are no whole kit, says why, and changes nothing', async ({ page }) => {
  await page.goto('/');
  const cases: readonly (readonly [string, string])[] = [
    ['{"format":"zesty-bench-kit","version":2,', 'not a whole JSON file'],
    ['{"some":"thing"}', 'no Zesty Bench kit'],
    ['{"format":"zesty-bench-kit","version":99}', 'newer program'],
    ['{"format":"zesty-bench-kit","version":2,"id":"x","created":"","sheet":{},"log":[],"settings":{}}', 'does not fit its schema'],
  ];
  for (const [text, message] of cases) {
    await giveFile(page, { name: 'kit.json', mimeType: 'application/json', buffer: Buffer.from(text) });
    await expect(page.getByText(message).last()).toBeVisible();
  }
  await expect(page.getByText('The shelf is empty')).toBeVisible();
});
