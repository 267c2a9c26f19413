/** A long run with its touch tests, each by a timer that outlives a closed lid. */
import { kitOf, log } from '../support/kits';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { isSoaking, openWaits, soakMoments, soakStarted } from '@/core/loop';
import type { ObserveCheck } from '@/core/kit';

const check = (channels?: readonly string[]): ObserveCheck => ({
  id: 'soak',
  what: 'observe',
  title: 'long run',
  action: 'let it run',
  expect: 'cool',
  ...(channels ? { channels } : {}),
});

test('channels that are times are its moments, in their order; any other check is no long run', () => {
  expect(soakMoments(check(['after 10 min', '1 min', 'after 5 minutes'])).map((m) => m.minutes)).toEqual([1, 5, 10]);
  expect(soakMoments(check(['left', 'right']))).toEqual([]);
  expect(soakMoments(check(['after 1 min', 'left']))).toEqual([]);
  expect(soakMoments(check())).toEqual([]);
});

test('its clock rings at each of them, and stands until the last was seen to', () => {
  const now = Date.UTC(2026, 0, 1, 12);
  const kit = kitOf({ ...EMPTY_SHEET, title: 'soak' });
  const soaking = check(['after 1 min', 'after 5 min']);
  expect(isSoaking(kit, soaking)).toBe(false);
  const running = log(kit, ...soakStarted(soaking, now));
  expect(isSoaking(running, soaking)).toBe(true);
  expect(openWaits(running).map((w) => (w.until!.at - now) / 60_000)).toEqual([1, 5]);
  const over = running.waiting.reduce((k, w) => log(k, { kind: 'resumed', waited: w.id }), running);
  expect(isSoaking(over, soaking)).toBe(false);
});
