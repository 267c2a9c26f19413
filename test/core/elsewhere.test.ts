/** Where the stage in hand cannot decide, a reading of an earlier stage can: it is asked for when one wants to go back. */
import { diagnoserOf, findSuspects, investigate, investigationInputs } from '@/core/diagnose';
import { faultKey } from '@/core/fault';
import { type KitState, type Line, sheetWith, type Stage } from '@/core/kit';
import { kitOf, log } from '../support/kits';

const DECK = `Three in a row
V1 vcc 0 9
R1 vcc a 10k
R2 a b 10k
R3 b 0 10k
.end`;
const line = (id: string): Line => ({ id, refs: [id], kind: 'resistor', value: 1e4, tolerance: null, label: '10 k', quantity: 1 });
const stage = (id: string, more: Partial<Stage>): Stage => ({ id, title: id, kind: 'power', fits: [], supplies: [], checks: [], ...more });
const measure = (id: string, mode: 'ohms' | 'dcv', net: string) => ({ id, what: 'measure', title: id, mode, red: { net }, black: { net: '0' } }) as const;
const SUPPLY = [{ source: 'V1', volts: 9, limit: 0.1 }];
const kit = (): KitState =>
  kitOf(
    sheetWith({
      title: 'three in a row',
      lines: ['R1', 'R2', 'R3'].map(line),
      circuit: { deck: DECK, neighbours: [] },
      stages: [
        stage('cold', { kind: 'cold', fits: ['R1', 'R2', 'R3'], checks: [measure('foot', 'ohms', 'b')] }),
        stage('on', { supplies: SUPPLY, checks: [measure('mid', 'dcv', 'a')] }),
        stage('late', { supplies: [{ ...SUPPLY[0]!, volts: 12 }], checks: [measure('more', 'dcv', 'b')] }),
      ],
    }),
  );
// Above the divider all of the supply is seen: R2 or R3 carries nothing.
const dead = () => log(kit(), { kind: 'read', stage: 'on', check: 'mid', reading: 9, meter: 'handheld' });
const findingsOf = (k: KitState, elsewhere: boolean) => {
  const investigation = investigate(investigationInputs(k, elsewhere)!)!;
  return findSuspects(investigation, diagnoserOf(investigation));
};
const named = (f: ReturnType<typeof findingsOf>, group: readonly number[]) => group.map((i) => f.suspects[i]!.faults.map(faultKey).join()).sort();

test('of the stage in hand nothing is left that would tell: both stand as one group', () => {
  const findings = findingsOf(dead(), false);
  expect(findings.next).toBeNull();
  expect(named(findings, findings.alike[0]!)).toEqual(expect.arrayContaining(['open|R2', 'open|R3']));
});
test('one goes back: the ohms of the stage before tell, and the two stand apart', () => {
  const findings = findingsOf(dead(), true);
  expect(findings.next?.id).toBe('cold/foot');
  expect(findings.alike.filter((g) => ['open|R2', 'open|R3'].every((k) => named(findings, g).includes(k)))).toEqual([]);
});
test('a stage that the ladder has not reached is never asked for: its supply may be another', () => {
  const investigation = investigate(investigationInputs(dead(), true)!)!;
  expect(investigation.open).not.toContain('late/more');
  expect(investigation.open).toContain('cold/foot');
});
test.each([
  [10_000, 'open|R2'],
  ['over', 'open|R3'],
] as const)('read there: %s, and it is %s', (reading, first) => {
  const k = log(dead(), { kind: 'read', stage: 'cold', check: 'foot', reading, meter: 'handheld' });
  const findings = findingsOf(k, true);
  expect(findings.suspects[0]!.faults.map(faultKey)).toEqual([first]);
  // Solder bridges are thought of as well: nobody said which nets are neighbours.
  expect(findings.assumedBridges).toBeGreaterThan(0);
  expect(findings.suspects[0]!.probability).toBeGreaterThan(0.7);
});
