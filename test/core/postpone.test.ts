import fc from 'fast-check';
import { currentTarget, postponed, skippedAfter, type TargetState } from '@/core/loop';
import type { Line, Stage } from '@/core/kit';

const line: Line = { id: 'l', kind: 'resistor', label: '10k', value: 1e4, tolerance: null, quantity: 1, refs: [] };
const stage = (id: string) => ({ id, title: id, kind: 'power', fits: [], supplies: [], checks: [] }) as unknown as Stage;
const parts = (n: number): TargetState[] =>
  Array.from({ length: n }, (_, i) => ({
    target: { kind: 'fit', id: `fit:${i}`, stage: stage(i % 2 === 0 ? 'a' : 'b'), line, refs: [`R${i}`] },
    done: false,
  }));

describe('skipping while parts are fitted', () => {
  test('a skipped part comes after the others of its stage, and before the next stage', () => {
    const order = postponed(parts(6), ['fit:0']).map((s) => s.target.id);
    expect(order).toEqual(['fit:2', 'fit:4', 'fit:0', 'fit:1', 'fit:3', 'fit:5']);
  });

  test('law: Enter and S in any order end with every part once, and nothing that is in is offered', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.array(fc.boolean(), { maxLength: 60 }), (n, keys) => {
        const fitted: string[] = [];
        let skipped: readonly string[] = [];
        const now = () => postponed(parts(n), skipped).map((s) => ({ ...s, done: fitted.includes(s.target.id) }));
        for (const enter of [...keys, ...Array.from({ length: n }, () => true)]) {
          const target = currentTarget(now(), null);
          if (!target) break;
          expect(fitted).not.toContain(target.id);
          if (enter) fitted.push(target.id);
          else skipped = skippedAfter(skipped, target.id);
        }
        expect([...fitted].sort()).toEqual(
          parts(n)
            .map((s) => s.target.id)
            .sort(),
        );
      }),
    );
  });
});
