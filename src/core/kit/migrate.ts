import { KIT_VERSION } from './document';

type Raw = Record<string, unknown>;

/** One step each: from version n to n + 1. */
const STEPS: Readonly<Record<number, (kit: Raw) => Raw>> = {
  // Version 1 had no settings; the meter stood beside the sheet.
  1: ({ meter, ...kit }) => ({ ...kit, settings: { meter: typeof meter === 'string' ? meter : 'handheld', school: 'simple', standIn: null } }),
  // Version 2 knew only the typical meters and one order of measuring.
  2: ({ settings, ...kit }) => ({ ...kit, settings: { measure: 'matters', meters: [], ...(settings as Raw) } }),
};

/** Brings a kit of an older version up to the present one; the result is still to be checked against the schema. */
export function migrate(kit: Raw, version: number): Raw {
  let current = kit;
  for (let v = version; v < KIT_VERSION; v++) current = { ...(STEPS[v]?.(current) ?? current), version: v + 1 };
  return current;
}
