import type { Circuit, Model, Part, Waveform } from '../netlist';
import { MODEL_DEFAULTS } from './models';
import { writeSpiceNumber } from './number';

/**
 * Writes a flat circuit as a deck that any SPICE reads: sub-circuits are expanded, so names inside them get an
 * underscore for their dot, and every element the letter of its kind in front where it lacks it.
 */
export function writeDeck(circuit: Circuit): string {
  const models = new Map<string, Model>();
  const lines = circuit.parts.map((p) => partLine(p, models));
  const initial = Object.entries(circuit.initial).map(([net, volts]) => `.ic V(${safe(net)})=${writeSpiceNumber(volts)}`);
  return [circuit.title.replace(/[\r\n]+/g, ' ') || 'circuit', ...lines, ...[...models].map(([name, m]) => modelLine(name, m)), ...initial, '.end', ''].join(
    '\n',
  );
}

/** Names as every SPICE reads them. */
const safe = (name: string) => name.replace(/[^A-Za-z0-9_+-]/g, '_');
const elementName = (p: Part) => (p.name[0]?.toUpperCase() === p.kind && !p.name.includes('.') ? safe(p.name) : `${p.kind}${safe(p.name)}`);

function partLine(p: Part, models: Map<string, Model>): string {
  const nodes = p.nodes.map(safe);
  const head = [elementName(p), ...nodes];
  switch (p.kind) {
    case 'R':
    case 'C':
    case 'L':
      return [...head, writeSpiceNumber(p.value)].join(' ');
    case 'V':
    case 'I':
      return [...head, 'DC', writeSpiceNumber(p.dc), ...(p.wave ? [waveText(p.wave)] : [])].join(' ');
    case 'E':
    case 'G':
      return [...head, writeSpiceNumber(p.gain)].join(' ');
    case 'M': {
      const name = modelName(p.model, models);
      // W/L and the number in parallel are one factor here.
      return [
        ...head,
        name,
        `W=${writeSpiceNumber((p.scale / p.multiple) * UNIT_LENGTH)}`,
        `L=${writeSpiceNumber(UNIT_LENGTH)}`,
        ...(p.multiple === 1 ? [] : [`M=${p.multiple}`]),
      ].join(' ');
    }
    default:
      return [...head, modelName(p.model, models), ...(p.scale === 1 ? [] : [writeSpiceNumber(p.scale)])].join(' ');
  }
}

const UNIT_LENGTH = 1e-4;

/** One name per different card: cards of one name with other figures (a weak transistor) get a number. */
function modelName(model: Model, models: Map<string, Model>): string {
  const base = safe(model.name);
  for (let n = 1; ; n++) {
    const name = n === 1 ? base : `${base}_${n}`;
    const known = models.get(name);
    if (!known) models.set(name, model);
    if (!known || JSON.stringify(known.params) === JSON.stringify(model.params)) return name;
  }
}

/** Geometry is written with the element, and zero stands for "not given" in these. */
const NOT_WRITTEN = new Set(['W', 'L', 'LD', 'TOX', 'UO']);

function modelLine(name: string, m: Model): string {
  const defaults = MODEL_DEFAULTS[m.kind];
  const params = Object.entries(m.params).filter(([key, value]) => value !== defaults[key] && !NOT_WRITTEN.has(key));
  const level = m.kind === 'NMOS' || m.kind === 'PMOS' ? ['LEVEL=1'] : [];
  return `.model ${name} ${m.kind}(${[...level, ...params.map(([key, value]) => `${key}=${writeSpiceNumber(value)}`)].join(' ')})`;
}

function waveText(w: Waveform): string {
  const list = (...values: number[]) => values.filter(Number.isFinite).map(writeSpiceNumber).join(' ');
  switch (w.shape) {
    case 'sin':
      return `SIN(${list(w.offset, w.amplitude, w.frequency, w.delay, w.damping, w.phase)})`;
    case 'pulse':
      return `PULSE(${list(w.low, w.high, w.delay, w.rise, w.fall, w.width, w.period)})`;
    case 'pwl':
      return `PWL(${list(...w.times.flatMap((t, i) => [t, w.levels[i] ?? 0]))})`;
  }
}
