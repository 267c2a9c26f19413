import type { Check, Line, ObserveCheck } from '@/core/kit';

/** What the demos' sheets are put together from. */

const QUARTER_WATT = { watts: 0.25 };
const spread = (percent: number): [number, number] => [-percent / 100, percent / 100];

export const resistor = (id: string, value: number, label: string, refs: string[], percent = 5): Line => ({
  id,
  kind: 'resistor',
  label,
  value,
  tolerance: spread(percent),
  quantity: refs.length,
  refs,
  rating: QUARTER_WATT,
});
export const capacitor = (id: string, value: number, label: string, refs: string[]): Line => ({
  id,
  kind: 'capacitor',
  label,
  value,
  tolerance: spread(20),
  quantity: refs.length,
  refs,
});
export const electrolytic = (id: string, value: number, label: string, refs: string[], rated: number): Line => ({
  id,
  kind: 'electrolytic',
  label,
  value,
  tolerance: [-0.2, 0.8],
  quantity: refs.length,
  refs,
  rating: { volts: rated },
});
/** A part known by its type alone. */
export const typed = (id: string, kind: Line['kind'], label: string, refs: string[], more: Partial<Line> = {}): Line => ({
  id,
  kind,
  label,
  value: null,
  tolerance: null,
  quantity: refs.length,
  refs,
  ...more,
});

const GROUND_POST = { net: '0' } as const;
export const volts = (tp: string, title: string): Check => ({
  id: tp.toLowerCase(),
  what: 'measure',
  title,
  mode: 'dcv',
  red: { testPoint: tp },
  black: GROUND_POST,
});
export const hertz = (tp: string, title: string): Check => ({
  id: `${tp.toLowerCase()}-hz`,
  what: 'measure',
  title,
  mode: 'frequency',
  red: { testPoint: tp },
  black: GROUND_POST,
});
export const ohms = (id: string, title: string, red: string, black: string): Check => ({
  id,
  what: 'measure',
  title,
  mode: 'ohms',
  red: { net: red },
  black: { net: black },
});
export const supplyCurrent = (source: string, net: string): Check => ({
  id: 'current',
  what: 'measure',
  title: 'supply current',
  mode: 'dca',
  red: { net },
  black: GROUND_POST,
  source,
});
export const look = (id: string, title: string, action: string, expect: string, sign?: ObserveCheck['sign']): Check => ({
  id,
  what: 'observe',
  title,
  action,
  expect,
  ...(sign ? { sign } : {}),
});

export const BURST = 'Wear eye protection at first power: a reversed electrolytic can burst.';
/** Places on the drawing of a board: ref, x, y in millimetres from the upper left corner, rotation in degrees. */
export const places = (rows: readonly (readonly [string, number, number, number])[]) => rows.map(([ref, x, y, rotation]) => ({ ref, x, y, rotation }));
