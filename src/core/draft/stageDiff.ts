import { dequal } from 'dequal';
import { type Check, type ChangedBody, type KitState, patch, put, putAll, type Stage } from '../kit';

/** How a proposed ladder differs from the one that the kit has: edits are never written over. */
export type StageDifference =
  | { readonly what: 'new stage'; readonly stage: Stage }
  | { readonly what: 'new check'; readonly stage: Stage; readonly check: Check }
  | { readonly what: 'other check'; readonly stage: Stage; readonly check: Check; readonly before: Check }
  | { readonly what: 'other stage'; readonly stage: Stage; readonly before: Stage; readonly fields: readonly StageField[] };

const FIELDS = ['title', 'kind', 'note', 'fits', 'supplies', 'cautions', 'power'] as const;
type StageField = (typeof FIELDS)[number];

/** A check whose usual limits are compared by their figures: kits of before do not say where theirs come from. */
const limitsAlone = (c: Check | undefined): Check | undefined =>
  c?.what === 'measure' && c.window?.from === 'usual' ? { ...c, window: { low: c.window.low, high: c.window.high } } : c;

/** Differences in the order of the proposal. What the builder added or removed beside it stays as it is. */
export function diffStages(kit: KitState, proposed: readonly Stage[]): StageDifference[] {
  return proposed.flatMap((stage): StageDifference[] => {
    const before = kit.sheet.stages.find((s) => s.id === stage.id);
    if (!before) return [{ what: 'new stage', stage }];
    const fields = FIELDS.filter((f) => !dequal(before[f] ?? null, stage[f] ?? null));
    const checks = stage.checks.flatMap((check): StageDifference[] => {
      const held = before.checks.find((c) => c.id === check.id);
      if (!held) return [{ what: 'new check', stage, check }];
      return dequal(limitsAlone(held), limitsAlone(check)) ? [] : [{ what: 'other check', stage, check, before: held }];
    });
    return [...(fields.length > 0 ? [{ what: 'other stage' as const, stage, before, fields }] : []), ...checks];
  });
}

/** The changes that take one difference over. A new stage stands where the proposal has it. */
export function acceptStage(kit: KitState, d: StageDifference, proposed: readonly Stage[]): ChangedBody[] {
  switch (d.what) {
    case 'new stage': {
      const { checks, ...stage } = d.stage;
      const fitted = new Set(kit.sheet.stages.flatMap((s) => s.fits));
      const behind = proposed.slice(proposed.findIndex((s) => s.id === d.stage.id) + 1).find((s) => kit.rooms.stages.has(s.id));
      return [
        ...putAll(kit, 'stages', [{ ...stage, fits: stage.fits.filter((r) => !fitted.has(r)) }], behind?.id ?? null),
        ...putAll(
          kit,
          'checks',
          checks.map((c) => ({ stage: stage.id, ...c })),
        ),
      ];
    }
    case 'new check':
    case 'other check':
      return [put(kit, 'checks', { stage: d.stage.id, ...d.check })];
    case 'other stage': {
      const change = patch(kit, 'stages', d.stage.id, Object.fromEntries(d.fields.map((f) => [f, d.stage[f]])) as Partial<Omit<Stage, 'checks'>>);
      return change ? [change] : [];
    }
  }
}
