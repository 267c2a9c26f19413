import { expect, test } from '@playwright/test';
import { expectAccessible, makeKit } from './bench';

test('hands free: off at first; then the verdict and the next target are spoken, toned and large', async ({ page }) => {
  await page.addInitScript(() => {
    const heard: string[] = [];
    Object.assign(window, { heard });
    Object.defineProperty(window, 'speechSynthesis', {
      value: { cancel: () => undefined, speak: (words: SpeechSynthesisUtterance) => heard.push(words.text) },
    });
    const start = Object.getOwnPropertyDescriptor(AudioScheduledSourceNode.prototype, 'start')!.value as (
      this: AudioScheduledSourceNode,
      when?: number,
    ) => void;
    OscillatorNode.prototype.start = function (when) {
      heard.push(`tone ${this.frequency.value}`);
      start.call(this, when);
    };
  });
  const heard = () => page.evaluate(() => (window as unknown as { heard: string[] }).heard);
  await makeKit(page, 'Quiet kit', 'R1-R3 10k\nR4 1k\nC1 100n');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 3, name: /1 kΩ/ })).toBeVisible();
  expect(await heard()).toEqual([]);
  const on = async (what: string) => {
    await page.getByRole('button', { name: 'Comfort and more' }).click();
    await page.getByText('Hands free', { exact: true }).hover();
    await page.getByText(what, { exact: true }).click();
    await page.keyboard.press('Escape');
  };
  await on('Speak verdict and next target');
  await on('A tone for each verdict');
  await on('Large figures, for two metres');
  await expect(page.getByRole('status', { name: 'Seen from afar' })).toContainText('1 kΩ');
  await page.getByRole('textbox', { name: /How many/ }).press('Enter');
  await expect.poll(heard).toContainEqual(expect.stringMatching(/Next: .*100 nF/));
  expect(await heard()).toContainEqual('tone 880');
  await expect(page.getByRole('status', { name: 'Seen from afar' })).toContainText('100 nF');
  await expectAccessible(page);
});
