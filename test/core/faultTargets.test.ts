/** What is read while a fault is looked for: any point asked for by hand, then what tells most. */
import { type KitState, newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { entryOf, cardOf, faultTargets } from '@/core/loop';
import { at } from '../support/kits';

const kit = (): KitState =>
  newKit(
    {
      ...EMPTY_SHEET,
      circuit: { deck: 'x\nV1 in 0 9\nR1 in a 1k\nR2 a 0 1k\n.end', neighbours: [] },
      testPoints: [
        { id: 'TP1', net: 'in', where: 'pad' },
        { id: 'TP2', net: 'a', where: 'pad' },
      ],
      stages: [
        {
          id: 's',
          title: 'On',
          kind: 'power',
          fits: [],
          supplies: [{ source: 'V1', volts: 9, limit: 0.1 }],
          checks: [{ id: 'rail', what: 'measure', title: 'rail', mode: 'dcv', red: { testPoint: 'TP1' }, black: { net: '0' } }],
        },
      ],
    },
    at(0),
  );
const ids = (next: string | null, asked: readonly string[]) => faultTargets(kit(), next, asked).map((t) => t.target.id);

test('without anything asked for the advised reading alone, or none', () => {
  expect(ids('s/@TP2', [])).toEqual(['probe:s/@TP2']);
  expect(ids('s/rail', [])).toEqual(['check:s:rail']);
  expect(ids(null, [])).toEqual([]);
});

test('what was asked for comes first, once, whatever is advised', () => {
  expect(ids('s/@TP2', ['check:s:rail'])).toEqual(['check:s:rail', 'probe:s/@TP2']);
  expect(ids('s/@TP2', ['probe:s/@TP2'])).toEqual(['probe:s/@TP2']);
});

test('what the kit does not have is not asked for', () => {
  expect(ids('s/@TP9', ['probe:t/@TP1', 'check:s:gone', 'fit:s:R1', ''])).toEqual([]);
});

test('a point that is pressed is read like any other', () => {
  const { target } = faultTargets(kit(), null, ['probe:s/@TP2'])[0]!;
  expect(entryOf(kit(), target, cardOf(kit(), target, {}), '4.5')).toMatchObject({ kind: 'probed', stage: 's', testPoint: 'TP2', reading: 4.5 });
});
