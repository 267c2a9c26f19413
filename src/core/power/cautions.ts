import { isPowered, type KitState, type Stage } from '../kit';
import { print } from '../quantity';
import type { StageForecast } from './forecast';

/** The usual cautions in the words in which they stand everywhere. Local codes and licensed practice decide. */
export const CAUTIONS = {
  power: 'Wear eye protection at first power: a reversed electrolytic can burst.',
  mains: 'Above 50 V AC or 120 V DC this is work for somebody licensed; local codes decide.',
  cold: 'Supply unplugged and capacitors discharged before ohms are measured.',
  hot: 'Sinks and resistors may be too hot to touch.',
  transformer: 'A transformer’s primary carries mains: cover it, and leave its wiring to somebody licensed. One hand while it is on.',
  lithium: 'Lithium and car batteries deliver hundreds of amperes into a short: never first, and only behind a fuse.',
  across: 'The current is read on the supply’s display, or with the meter in the lead: never across the supply.',
} as const;

/** Limits of extra-low voltage (IEC 61140 and 60364, from memory). */
const EXTRA_LOW = { ac: 50, dc: 120 };
/** From here on a charge cracks and pits a probe, joules (own figure, after common practice). */
const FELT_JOULES = 0.1;
/** From here on a part burns a finger, watts without a sink (common practice, no source). */
const HOT_WATTS = 1;

/** Cautions of a stage, only where they apply: what somebody wrote for it first. The forecast is null while it is not known. */
export function cautionsOf(kit: KitState, stage: Stage, forecast: StageForecast | null): string[] {
  const powered = isPowered(stage);
  const first = kit.sheet.stages.find(isPowered) === stage;
  const windings = stage.supplies.some((s) => s.feed === 'winding') || (forecast?.supplies.some((s) => s.winding) ?? false);
  const electrolytics = kit.sheet.lines.some((l) => !l.notFitted && (l.kind === 'electrolytic' || l.kind === 'tantalum'));
  const lithium =
    kit.sheet.needs.some((n) => /li-?(?:ion|po)|lithium|18650|car battery/i.test(n.text)) && powered && stage.supplies.every((s) => s.feed !== 'winding');
  const ohms = stage.checks.some((c) => c.what === 'measure' && (c.mode === 'ohms' || c.mode === 'diode'));
  const ampere = stage.checks.some((c) => c.what === 'measure' && c.mode === 'dca');
  const { stored = null, dcVolts = 0, acVolts = 0, warm = [] } = forecast ?? {};
  const high = dcVolts > EXTRA_LOW.dc || acVolts > EXTRA_LOW.ac || stage.supplies.some((s) => s.volts > (s.feed === 'winding' ? EXTRA_LOW.ac : EXTRA_LOW.dc));
  const found: (string | false)[] = [
    high && CAUTIONS.mains,
    powered && windings && CAUTIONS.transformer,
    powered && first && electrolytics && CAUTIONS.power,
    powered &&
      stored !== null &&
      stored.joules >= FELT_JOULES &&
      `${stored.ref} keeps ${print(stored.joules, 'J', 2)} at ${print(stored.volts, 'V', 2)} after switching off: let it discharge through a resistor before you touch the board or measure ohms.`,
    powered && lithium && CAUTIONS.lithium,
    (warm[0]?.watts ?? 0) >= HOT_WATTS && CAUTIONS.hot,
    !powered && ohms && CAUTIONS.cold,
    ampere && CAUTIONS.across,
  ];
  return [...new Set([...(stage.cautions ?? []), ...found.filter((c) => c !== false)])];
}
