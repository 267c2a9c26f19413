/** Suspects that no reading left can tell apart stand as one group; a point that tells them breaks it up. */
import { diagnoserOf, findSuspects } from '@/core/diagnose';
import { newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { at, investigationOf, log } from '../support/kits';

const line = (ref: string) => ({
  id: ref,
  kind: 'resistor' as const,
  label: '1 k',
  value: 1000,
  tolerance: [-0.01, 0.01] as [number, number],
  quantity: 1,
  refs: [ref],
});
// Two equal resistors in a row above a third: open, either of them reads 0 V at a.
const kitWith = (points: readonly string[]) =>
  newKit(
    {
      ...EMPTY_SHEET,
      lines: ['R1', 'R2', 'R3'].map(line),
      circuit: { deck: 'row\nV1 in 0 9\nR1 in m 1k\nR2 m a 1k\nR3 a 0 1k\n.end', neighbours: [] },
      testPoints: points.map((net, i) => ({ id: `TP${i + 1}`, net, where: 'pad' })),
      stages: [
        {
          id: 's',
          title: 'On',
          kind: 'power',
          fits: ['R1', 'R2', 'R3'],
          supplies: [{ source: 'V1', volts: 9, limit: 0.05 }],
          checks: [{ id: 'a', what: 'measure', title: 'a', mode: 'dcv', red: { net: 'a' }, black: { net: '0' } }],
        },
      ],
    },
    at(0),
  );
const groups = (points: readonly string[]) => {
  const kit = log(kitWith(points), { kind: 'read', stage: 's', check: 'a', reading: 0, meter: 'handheld' });
  const investigation = investigationOf(kit)!;
  const findings = findSuspects(investigation, diagnoserOf(investigation));
  return findings.alike.map((g) => g.flatMap((i) => findings.suspects[i]!.faults.map((f) => `${f.kind} ${f.parts.join()}`)).sort());
};

test('two open resistors in a row read alike where nothing between them can be touched', () => {
  expect(groups(['in'])).toContainEqual(expect.arrayContaining(['open R1', 'open R2']) as string[]);
});

test('the point between them tells: they are no group', () => {
  expect(groups(['in', 'm']).filter((g) => g.includes('open R1') && g.includes('open R2'))).toEqual([]);
});
