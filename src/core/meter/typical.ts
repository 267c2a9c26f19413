import { decadeRanges, type MeterProfile } from './profile';

/** Invented meters of the usual classes; figures are common practice for such meters, no source. */
export const HANDHELD: MeterProfile = {
  id: 'handheld',
  name: 'Everyday handheld, 4000 counts',
  ranges: {
    dcv: decadeRanges(0.4, 400, 0.5, 2, 4000),
    dca: decadeRanges(4e-4, 4, 1, 3, 4000),
    ohms: decadeRanges(400, 4e7, 0.8, 3, 4000),
    diode: [{ upTo: 4, percent: 1, counts: 3, resolution: 0.001 }],
    capacitance: decadeRanges(4e-9, 4e-3, 4, 5, 4000),
    inductance: decadeRanges(2e-3, 2, 5, 10, 2000),
    hfe: [{ upTo: 1000, percent: 5, counts: 5, resolution: 1 }],
    frequency: decadeRanges(40, 4e6, 0.1, 3, 4000),
    acv: decadeRanges(0.4, 400, 1.2, 5, 4000),
    duty: [{ upTo: 100, percent: 1, counts: 3, resolution: 0.1 }],
  },
  inputResistance: 1e7,
  leadResistance: 0.2,
  capacitanceZero: 0,
  ohmsVoltage: 0.5,
  ohmsSource: 1e4,
  diodeCurrent: 1e-3,
  diodeCompliance: 2.5,
};

const POCKET: MeterProfile = {
  ...HANDHELD,
  id: 'pocket',
  name: 'Cheap pocket meter, 2000 counts',
  ranges: {
    dcv: decadeRanges(0.2, 200, 0.8, 3, 2000),
    dca: decadeRanges(2e-4, 2, 1.5, 3, 2000),
    ohms: decadeRanges(200, 2e7, 1, 4, 2000),
    acv: [{ upTo: 200, percent: 1.5, counts: 10, resolution: 0.1 }],
    diode: [{ upTo: 2, percent: 1.5, counts: 5, resolution: 0.001 }],
    hfe: [{ upTo: 1000, percent: 10, counts: 10, resolution: 1 }],
  },
  inputResistance: 1e6,
  leadResistance: 0.4,
};

const BENCH: MeterProfile = {
  ...HANDHELD,
  id: 'bench',
  name: 'Good handheld, 20000 counts',
  ranges: {
    ...HANDHELD.ranges,
    dcv: decadeRanges(0.2, 200, 0.05, 3, 20000),
    dca: decadeRanges(2e-4, 2, 0.3, 5, 20000),
    ohms: decadeRanges(200, 2e7, 0.2, 5, 20000),
    acv: decadeRanges(0.2, 200, 0.8, 10, 20000),
    diode: [{ upTo: 3, percent: 0.5, counts: 3, resolution: 0.0001 }],
    capacitance: decadeRanges(2e-9, 2e-2, 1.5, 5, 20000),
  },
  leadResistance: 0.08,
  acResponse: 'true-rms',
};

/** Measures parts by itself, knows nothing of a board under power. */
const TESTER: MeterProfile = {
  ...HANDHELD,
  id: 'tester',
  name: 'Component tester',
  ranges: {
    ohms: [
      { upTo: 100, percent: 1, counts: 5, resolution: 0.01 },
      { upTo: 1e4, percent: 1, counts: 3, resolution: 1 },
      { upTo: 1e6, percent: 1, counts: 3, resolution: 100 },
      { upTo: 5e7, percent: 2, counts: 3, resolution: 1e4 },
    ],
    diode: [{ upTo: 4.5, percent: 1, counts: 3, resolution: 0.001 }],
    capacitance: [
      { upTo: 1e-9, percent: 6, counts: 5, resolution: 1e-12 },
      { upTo: 1e-7, percent: 3, counts: 5, resolution: 1e-11 },
      { upTo: 1e-5, percent: 3, counts: 5, resolution: 1e-9 },
      { upTo: 1e-1, percent: 5, counts: 5, resolution: 1e-7 },
    ],
    inductance: [{ upTo: 10, percent: 5, counts: 5, resolution: 1e-5 }],
    hfe: [{ upTo: 1000, percent: 5, counts: 3, resolution: 1 }],
  },
  leadResistance: 0.1,
  diodeCompliance: 4.5,
};

export const TYPICAL_METERS: readonly MeterProfile[] = [HANDHELD, POCKET, BENCH, TESTER];

export function meterById(id: string): MeterProfile {
  return TYPICAL_METERS.find((m) => m.id === id) ?? HANDHELD;
}

export const meterIsTypical = (id: string): boolean => TYPICAL_METERS.some((m) => m.id === id);
