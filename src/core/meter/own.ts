import type { MeterMode } from '../vocabulary';
import { decadeRanges, type MeterProfile } from './profile';

/** Modes that a meter has ranges of its own for. */
export const RANGED_MODES = [
  'dcv',
  'acv',
  'dca',
  'ohms',
  'diode',
  'capacitance',
  'inductance',
  'frequency',
  'hfe',
  'duty',
] as const satisfies readonly MeterMode[];
export type RangedMode = (typeof RANGED_MODES)[number];

/** One mode as a manual gives it: smallest and largest range (SI), accuracy as ±(percent + counts). */
export interface ModeFigures {
  readonly from: number;
  readonly to: number;
  readonly percent: number;
  readonly counts: number;
}

/** A meter as its manual describes it; a mode that is left out it does not have. */
export interface MeterFigures {
  readonly name: string;
  readonly displayCounts: number;
  readonly modes: Readonly<Partial<Record<RangedMode, ModeFigures>>>;
  readonly acResponse: NonNullable<MeterProfile['acResponse']>;
  readonly inputResistance: number;
  readonly leadResistance: number;
  readonly capacitanceZero: number;
  /** Null where the manual does not say: then junctions may read otherwise. */
  readonly ohmsVoltage: number | null;
  readonly diodeCurrent: number | null;
  readonly diodeCompliance: number | null;
}

/** Figures of a meter, for a form that begins with those of another one. */
export function figuresOfMeter(m: MeterProfile): MeterFigures {
  const modes = RANGED_MODES.flatMap((mode) => {
    const ranges = m.ranges[mode];
    const [first] = ranges ?? [];
    return first ? [[mode, { from: first.upTo, to: ranges!.at(-1)!.upTo, percent: first.percent, counts: first.counts }] as const] : [];
  });
  const volts = m.ranges.dcv?.[0] ?? m.ranges.ohms?.[0];
  const known = m.coldTest === 'known';
  return {
    name: m.name,
    displayCounts: volts ? Math.round(volts.upTo / volts.resolution) : 4000,
    modes: Object.fromEntries(modes),
    acResponse: m.acResponse ?? 'average',
    inputResistance: m.inputResistance,
    leadResistance: m.leadResistance,
    capacitanceZero: m.capacitanceZero,
    ohmsVoltage: known ? m.ohmsVoltage : null,
    diodeCurrent: known ? m.diodeCurrent : null,
    diodeCompliance: known ? m.diodeCompliance : null,
  };
}

/** The profile of a meter from its manual's figures; what the manual leaves out is as usual (`base`). */
export function meterFromFigures(id: string, f: MeterFigures, base: MeterProfile): MeterProfile {
  const ranges = Object.fromEntries(
    RANGED_MODES.flatMap((mode) => {
      const one = f.modes[mode];
      return one ? [[mode, decadeRanges(one.from, Math.max(one.from, one.to), one.percent, one.counts, f.displayCounts)] as const] : [];
    }),
  );
  return {
    id,
    name: f.name,
    ranges,
    acResponse: f.acResponse,
    inputResistance: f.inputResistance,
    leadResistance: f.leadResistance,
    capacitanceZero: f.capacitanceZero,
    coldTest: f.ohmsVoltage !== null && f.diodeCurrent !== null ? 'known' : 'unknown',
    ohmsVoltage: f.ohmsVoltage ?? base.ohmsVoltage,
    ohmsSource: base.ohmsSource,
    diodeCurrent: f.diodeCurrent ?? base.diodeCurrent,
    diodeCompliance: f.diodeCompliance ?? base.diodeCompliance,
  };
}
