import { describe, findNet, findPart, readDeck } from '../../src/core/circuit';
import {
  forecastHeat,
  frequencyClaim,
  type HeatReading,
  lampInSeries,
  type LampLoad,
  type LoadPoint,
  type Oscillator,
  powerClaim,
  rangeClaim,
  readRecording,
  regulationOf,
  type Span,
  trimOf,
  waveformOf,
} from '../../src/core/load';
import { arrayAt, arrayOf, numberAt, objectAt, textAt, wordAt } from './fields';
import type { Request } from './main';

/** Load, heat, recorded signals, claims and controls of a board that runs. */
export function load(request: Request): object {
  switch (wordAt(request, 'type', ['heat', 'waveform', 'table', 'lamp', 'claim', 'trim'])) {
    case 'heat':
      return heat(request);
    case 'waveform':
      return waveformOf(readRecording(textAt(request, 'csv')));
    case 'table':
      return table(request);
    case 'lamp':
      return lamp(request);
    case 'claim':
      return claim(request);
    case 'trim':
      return trim(request);
  }
}

function positive(request: Request, key: string): number {
  const value = numberAt(request, key);
  if (value <= 0) throw new Error(`"${key}" must be positive`);
  return value;
}

function notNegative(request: Request, key: string): number {
  const value = numberAt(request, key);
  if (value < 0) throw new Error(`"${key}" must not be negative`);
  return value;
}

const has = (request: Request, key: string) => request[key] !== undefined && request[key] !== null;

/** A field that may be absent. */
function optional<K extends string>(request: Request, key: K, read: (request: Request, key: string) => number): Partial<Record<K, number>> {
  return has(request, key) ? ({ [key]: read(request, key) } as Record<K, number>) : {};
}

function heat(request: Request): object {
  const readings = arrayOf(request, 'readings').map((r): HeatReading => ({ t: numberAt(r, 't'), celsius: numberAt(r, 'celsius') }));
  if (new Set(readings.map((r) => r.t)).size < 3) throw new Error('"readings" must have at least three different moments');
  const limits = has(request, 'limits') ? objectAt(request, 'limits') : {};
  return forecastHeat({
    readings,
    noise: positive(request, 'noise'),
    watts: positive(request, 'watts'),
    ...optional(request, 'ambient', numberAt),
    limits: { ...optional(limits, 'touch', numberAt), ...optional(limits, 'junction', numberAt) },
    ...optional(request, 'junctionToCase', notNegative),
    ...optional(request, 'caseToSink', notNegative),
  });
}

function table(request: Request): object {
  const points = arrayOf(request, 'points').map((p): LoadPoint => ({
    amps: notNegative(p, 'amps'),
    volts: numberAt(p, 'volts'),
    ...optional(p, 'inputVolts', numberAt),
    ...optional(p, 'inputAmps', numberAt),
  }));
  if (points.length < 4) throw new Error('"points" must be at least four');
  if (new Set(points.map((p) => p.amps)).size < 2) throw new Error('"points" must not all be at one current');
  return regulationOf({
    points,
    setVolts: positive(request, 'setVolts'),
    kind: wordAt(request, 'kind', ['linear', 'rectified']),
    ...optional(request, 'dropout', positive),
  });
}

function lamp(request: Request): object {
  const [bulb, source] = [objectAt(request, 'lamp'), objectAt(request, 'source')];
  const coldRatio = optional(bulb, 'coldRatio', positive);
  if ((coldRatio.coldRatio ?? 1) > 1) throw new Error('"coldRatio" must not be above 1');
  const loads: LampLoad[] = [
    ...(has(request, 'loadOhms') ? [{ kind: 'ohms' as const, ohms: positive(request, 'loadOhms') }] : []),
    ...(has(request, 'loadWatts') ? [{ kind: 'watts' as const, watts: positive(request, 'loadWatts') }] : []),
    ...(request['short'] === true ? [{ kind: 'short' as const }] : []),
  ];
  if (loads.length !== 1) throw new Error('give one of "loadOhms", "short" and "loadWatts"');
  const supply = { volts: positive(source, 'volts'), ohms: 0, ...optional(source, 'ohms', notNegative) };
  const state = lampInSeries({ volts: positive(bulb, 'volts'), watts: positive(bulb, 'watts'), ...coldRatio }, supply, loads[0]!);
  return state ?? { amps: null, lampVolts: null, loadVolts: null, glow: null };
}

function claim(request: Request): object {
  switch (wordAt(request, 'claim', ['power', 'range', 'frequency'])) {
    case 'power':
      return powerClaim({
        topology: wordAt(request, 'topology', ['single-ended', 'bridge', 'split']),
        outputClass: has(request, 'class') ? wordAt(request, 'class', ['ab', 'd']) : 'ab',
        supplyVolts: positive(request, 'supplyVolts'),
        supplyAmps: has(request, 'supplyAmps') ? positive(request, 'supplyAmps') : null,
        loadOhms: positive(request, 'loadOhms'),
        saturationVolts: has(request, 'saturationVolts') ? notNegative(request, 'saturationVolts') : 0,
        claimedWatts: positive(request, 'claimedWatts'),
        claimedAs: has(request, 'claimedAs') ? wordAt(request, 'claimedAs', ['rms', 'peak']) : 'rms',
      });
    case 'range': {
      const rBottom: Span = [has(request, 'rBottomMin') ? notNegative(request, 'rBottomMin') : 0, positive(request, 'rBottomMax')];
      if (rBottom[0] >= rBottom[1]) throw new Error('"rBottomMin" must be below "rBottomMax"');
      return rangeClaim({
        vref: positive(request, 'vref'),
        iadj: has(request, 'iadj') ? notNegative(request, 'iadj') : 0,
        rTop: positive(request, 'rTop'),
        rBottom,
        inputVolts: positive(request, 'inputVolts'),
        dropout: notNegative(request, 'dropout'),
        claimed: claimed(request),
      });
    }
    case 'frequency': {
      const stages = has(request, 'stages') ? notNegative(request, 'stages') : 0;
      return frequencyClaim(oscillator(request), stages, claimed(request));
    }
  }
}

function claimed(request: Request): Span {
  const span: Span = [numberAt(request, 'claimedLow'), numberAt(request, 'claimedHigh')];
  if (span[0] > span[1]) throw new Error('"claimedLow" must not be above "claimedHigh"');
  return span;
}

function oscillator(request: Request): Oscillator {
  const part = (key: string): Span => {
    const value = request[key];
    if (!Array.isArray(value)) return [positive(request, key), positive(request, key)];
    const [least, most] = arrayAt(request, key);
    const ends: Request = { least, most };
    const span: Span = [positive(ends, 'least'), positive(ends, 'most')];
    if (value.length !== 2 || span[0] > span[1]) throw new Error(`"${key}" must be [least, most]`);
    return span;
  };
  switch (wordAt(request, 'form', ['rc-2.3', '555-astable', 'two-transistor'])) {
    case 'rc-2.3':
      return { form: 'rc-2.3', r: part('r'), c: part('c') };
    case '555-astable':
      return { form: '555-astable', ra: part('ra'), rb: part('rb'), c: part('c') };
    case 'two-transistor':
      return { form: 'two-transistor', r1: part('r1'), c1: part('c1'), r2: part('r2'), c2: part('c2') };
  }
}

function trim(request: Request): object {
  const { circuit, diagnostics } = readDeck(textAt(request, 'deck'));
  const error = diagnostics.find((d) => d.severity === 'error');
  if (error) throw new Error(describe(error));
  const between = arrayAt(request, 'between');
  const ends: Request = { low: between[0], high: between[1] };
  const [low, high] = [positive(ends, 'low'), positive(ends, 'high')];
  if (between.length !== 2 || low >= high) throw new Error('"between" must be two rising numbers');
  const names = typeof request['control'] === 'string' ? [request['control']] : arrayAt(request, 'control');
  const parts = names.map((name) => {
    const part = typeof name === 'string' ? findPart(circuit, name) : undefined;
    if (!part) throw new Error(`control: no part is called ${String(name)}`);
    return part.name;
  });
  if (parts.length < 1 || parts.length > 2) throw new Error('"control" must be one resistor or two');
  const measure = objectAt(request, 'measure');
  const net = (key: 'red' | 'black') => {
    const found = findNet(circuit, textAt(measure, key));
    if (found === undefined) throw new Error(`${key}: no node is called ${textAt(measure, key)}`);
    return found;
  };
  return trimOf({
    circuit,
    control: parts.length === 1 ? [parts[0]!] : [parts[0]!, parts[1]!],
    between: [low, high],
    red: net('red'),
    black: net('black'),
    target: numberAt(request, 'target'),
    tolerance: positive(request, 'tolerance'),
  });
}
