import { LED_FORWARD } from '../vocabulary';

/** What common types read like on a handheld: diode test volts, current gain (common practice, no source). */
interface TypeFigures {
  readonly vf?: readonly [number, number];
  readonly hfe?: readonly [number, number];
  readonly polarity?: 'NPN' | 'PNP';
}

export const TYPICAL_TYPES: Readonly<Record<string, TypeFigures>> = {
  '1n4148': { vf: [0.6, 0.75] },
  '1n914': { vf: [0.6, 0.75] },
  '1n4007': { vf: [0.5, 0.62] },
  '1n4001': { vf: [0.5, 0.62] },
  '1n5819': { vf: [0.15, 0.32] },
  ...Object.fromEntries(Object.entries(LED_FORWARD).map(([colour, { usual }]) => [colour, { vf: usual }])),
  '2n3904': { polarity: 'NPN', hfe: [100, 300] },
  '2n3906': { polarity: 'PNP', hfe: [100, 300] },
  '2n2222': { polarity: 'NPN', hfe: [120, 300] },
  bc547: { polarity: 'NPN', hfe: [200, 450] },
  bc557: { polarity: 'PNP', hfe: [200, 475] },
};
