import { type EntryBody, extend, type KitSettings, type KitState, newKit, type Sheet, type Stamp } from '@/core/kit';
import { DEMOS } from '@/stand-in';
import { setupOf } from '@/core/stage';
import { investigate, investigationInputs } from '@/core/diagnose';
import { allWindows, type ComputedWindow, computedWindow, windowInputs, type Windows } from '@/core/stage';

/** Second `n` of the first of January 2026, with an id of its own. */
export const at = (n: number): Stamp => ({ id: `e${n}`, at: new Date(Date.UTC(2026, 0, 1, 0, 0, n)).toISOString() });

/** The kit with one entry more. */
export const append = (kit: KitState, body: EntryBody, stamp: Stamp): KitState => extend(kit, { ...body, ...stamp });

/** Entries beside those that made the kit: their ids are `e1`, `e2`… */
const written = (kit: KitState) => kit.log.filter((e) => /^e\d+$/.test(e.id)).length;

/** The kit with entries one after another, a second apart. */
export const log = (kit: KitState, ...bodies: EntryBody[]): KitState => bodies.reduce((k, b) => append(k, b, at(written(k) + 1)), kit);

export const demo = (): KitState => DEMOS[0]!.kit(at(0));
export const kitOf = (sheet: Sheet, settings: Partial<KitSettings> = {}): KitState => newKit(sheet, at(0), settings);
/** The same kit with another sheet or settings, its work kept. */
export const reworked = (kit: KitState, sheet: Partial<Sheet>, settings: Partial<KitSettings> = {}): KitState =>
  kit.log
    .filter((e) => e.kind !== 'changed')
    .reduce((k, e) => extend(k, e), newKit({ ...kit.sheet, ...sheet }, { id: kit.id, at: kit.created }, { ...kit.settings, ...settings }));

export const windowsOfKit = (kit: KitState): Windows => {
  const inputs = windowInputs(kit);
  return inputs ? allWindows(inputs) : {};
};
/** The window that was computed for an observable. */
export const windowAt = (kit: KitState, id: string): ComputedWindow => {
  const window = computedWindow(windowsOfKit(kit)[id]);
  if (!window) throw new Error(`no window for ${id}`);
  return window;
};
export const investigationOf = (kit: KitState) => {
  const inputs = investigationInputs(kit);
  return inputs && investigate(inputs);
};
export { setupOf };
