import type { Sheet, Stage } from './sheet';

/** Two 32-bit FNV-1a sums over a text, from both ends (Fowler, Noll, Vo): no secret is kept, two states of one kit only must differ. */
function sumOf(text: string): string {
  let [a, b] = [0x811c9dc5, 0x811c9dc5];
  for (let i = 0; i < text.length; i++) {
    a = Math.imul(a ^ text.charCodeAt(i), 0x01000193);
    b = Math.imul(b ^ text.charCodeAt(text.length - 1 - i), 0x01000193);
  }
  return [a, b].map((n) => (n >>> 0).toString(36)).join('-');
}

/**
 * What limits from simulated boards were worked out from: circuit, list, supplies, and the build up to a stage. With another key they
 * hold no longer.
 */
function limitsKey({ lines, needs, circuit }: Pick<Sheet, 'lines' | 'needs' | 'circuit'>, stages: readonly Stage[], stage: Stage): string {
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
  return sumOf(JSON.stringify(from));
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
