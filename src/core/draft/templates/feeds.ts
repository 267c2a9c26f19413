import { type BlockField, type LibraryItem, MODELS } from '../../circuit';
import type { TemplateLook, TemplateValues } from './template';

const MAINS_HERTZ = 50;
const WINDING_OHMS = 0.5;

const field = (key: string, label: string, type: BlockField['type'], initial: string | number): BlockField => ({ key, label, type, initial });
export const volts = (key: string, label: string, initial: number) => field(key, label, 'V', initial);
export const ohms = (key: string, label: string, initial: number) => field(key, label, 'ohm', initial);
export const farads = (key: string, label: string, initial: number) => field(key, label, 'F', initial);
export const colour = (key: string, label: string, initial = 'red') => field(key, label, 'colour', initial);
const rail = (initial = 'vcc') => field('rail', 'Supply net', 'net', initial);
export const output = (initial: string) => field('output', 'Output net', 'net', initial);

export const n = (v: TemplateValues, key: string) => Number(v[key]);
export const s = (v: TemplateValues, key: string) => String(v[key]);
/** Values as a deck writes them, to five digits. */
export const num = (value: number) => String(Number(value.toPrecision(5)));

/** A winding behind a bridge with its reservoir, on `raw`. */
export function bridge(acVolts: number, reservoir: number, raw = 'raw'): { readonly text: string; readonly needs: readonly LibraryItem[] } {
  return {
    text: `
V1 sw sb SIN(0 ${num(acVolts * Math.SQRT2)} ${MAINS_HERTZ})
R1w sw sa ${WINDING_OHMS}
D1 sa ${raw} DRECTIFIER ; bridge
D2 sb ${raw} DRECTIFIER ; bridge
D3 0 sa DRECTIFIER ; bridge
D4 0 sb DRECTIFIER ; bridge
C1 ${raw} 0 ${num(reservoir)} ; reservoir`,
    needs: [MODELS.rectifier],
  };
}

/** A bench supply or battery from a net to ground, unless the kit's circuit feeds that net already. */
export const dcFeed = (v: TemplateValues, key = 'volts') => (n(v, key) > 0 ? `V1 ${s(v, 'rail')} 0 DC ${num(n(v, key))}` : '');
export const feedFields = (initial: number) => [rail(), volts('volts', 'Supply (0: fed from elsewhere)', initial)];

/** A LED is seen from about a milliampere on (common practice, no source). */
const SEEN = 1e-3;

export function look(title: string, action: string, expect: string, ref?: string, amperes = SEEN): TemplateLook {
  return { title, action, expect, ...(ref === undefined ? {} : { shows: { ref, amperes } }) };
}
