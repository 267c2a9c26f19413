import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { Sheet, Stage } from './sheet';

/** Digits of the key: enough that two states of one kit never share one. */
const DIGITS = 12;

/**
 * What limits from simulated boards were worked out from: circuit, list, supplies, and the build up to a stage. With another key they
 * hold no longer.
 */
export function limitsKey({ lines, needs, circuit }: Pick<Sheet, 'lines' | 'needs' | 'circuit'>, stages: readonly Stage[], stage: Stage): string {
  const upTo = stages.slice(0, stages.findIndex((s) => s.id === stage.id) + 1);
  const from = [
    circuit?.deck ?? null,
    circuit?.elements ?? null,
    lines.map((l) => [l.refs, l.kind, l.value, l.type ?? null, l.tolerance ?? null, l.notFitted ?? false]),
    needs.map((n) => [n.kind, n.text, n.volts ?? null]),
    upTo.map((s) => [s.fits, s.without ?? []]),
    stage.supplies.map((s) => [s.source, s.volts, s.feed ?? null]),
    stage.settings ?? [],
  ];
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(from)))).slice(0, DIGITS);
}

/** Stages whose simulated limits name what they follow from. */
export const withLimitsKeys = (sheet: Pick<Sheet, 'lines' | 'needs' | 'circuit'>, stages: readonly Stage[]): Stage[] =>
  stages.map((stage) => {
    const of = limitsKey(sheet, stages, stage);
    return {
      ...stage,
      checks: stage.checks.map((c) => (c.what === 'measure' && c.window?.from === 'simulated' ? { ...c, window: { ...c.window, of } } : c)),
    };
  });

/** Stages without the simulated limits that hold no longer: their checks are read by what the circuit computes until new ones are taken. */
export const withHoldingLimits = (sheet: Pick<Sheet, 'lines' | 'needs' | 'circuit'>, stages: readonly Stage[]): Stage[] =>
  stages.map((stage) => {
    const simulated = stage.checks.some((c) => c.what === 'measure' && c.window?.from === 'simulated');
    if (!simulated) return stage;
    const of = limitsKey(sheet, stages, stage);
    return {
      ...stage,
      checks: stage.checks.map((c) => {
        if (c.what !== 'measure' || c.window?.from !== 'simulated' || c.window.of === of) return c;
        const { window: _outdated, ...rest } = c;
        return rest;
      }),
    };
  });
