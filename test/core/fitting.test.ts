/** Fitting otherwise than the list has it, doubtful pieces, and a pad that tracing found elsewhere. */
import { connectionsOf } from '@/core/circuit';
import { padMoved } from '@/core/draft';
import { type EntryBody, type KitState, newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { badPieces, fitTargets, inOtherPlace, leftOut, otherValue } from '@/core/loop';
import { circuitAt, circuitOf } from '@/core/stage';
import { findPart } from '@/core/circuit';
import { at, log, setupOf } from '../support/kits';

const line = (id: string, value: number, refs: string[]) => ({
  id,
  kind: 'resistor' as const,
  label: `${value}`,
  value,
  tolerance: [-0.05, 0.05] as [number, number],
  quantity: refs.length,
  refs,
});
const DECK = 'two\nV1 in 0 10\nR1 in a 1k\nR2 a 0 4.7k\nD1 a 0 DD\n.model DD D(IS=1E-14)\n.end';
const kit = (): KitState =>
  newKit(
    {
      ...EMPTY_SHEET,
      lines: [line('one', 1000, ['R1']), line('four', 4700, ['R2'])],
      circuit: { deck: DECK, neighbours: [] },
      pads: [{ ref: 'R2', pin: '1', x: 1, y: 1, net: 'a' }],
      stages: [{ id: 's', title: 'On', kind: 'power', fits: ['R1', 'R2'], supplies: [{ source: 'V1', volts: 10, limit: 0.1 }], checks: [] }],
    },
    at(0),
  );
const measured = (lineId: string, ref: string, reading: number): EntryBody => ({
  kind: 'measured',
  line: lineId,
  piece: 0,
  ref,
  mode: 'ohms',
  reading,
  meter: 'handheld',
});
const ohmsOf = (k: KitState, ref: string) => {
  const part = findPart(circuitAt(setupOf(k), circuitOf(k.sheet), k.sheet.stages[0]!), ref);
  return part?.kind === 'R' ? part.value : null;
};
const open = (k: KitState) => fitTargets(k).flatMap((t) => (t.done || t.target.kind !== 'fit' ? [] : [...t.target.refs]));

test('a piece that is out or doubtful is asked about, a good one and an unmeasured one are not', () => {
  expect(badPieces(log(kit(), measured('one', 'R1', 1001)), ['R1', 'R2'])).toEqual([]);
  const [bad] = badPieces(log(kit(), measured('one', 'R1', 2200)), ['R1']);
  expect(bad).toMatchObject({ ref: 'R1', verdict: 'out', key: 'piece:one:0' });
  expect(bad!.text).toMatch(/The piece for R1 reads 2\.\d+ kΩ, listed as .*: out\./);
  const guarded = newKit(kit().sheet, at(0), { school: 'guarded' });
  expect(badPieces(log(guarded, measured('one', 'R1', 1049)), ['R1'])[0]?.verdict).toBe('doubtful');
  expect(badPieces(log(kit(), measured('one', 'R1', 2200)), ['R2'])).toEqual([]);
});

test('what is left out is asked for no more, and is not in the circuit; fitted after all it is', () => {
  const without = log(kit(), leftOut(['R2']));
  expect(open(without)).toEqual(['R1']);
  expect(ohmsOf(without, 'R2')).toBeNull();
  expect(ohmsOf(log(without, { kind: 'fitted', refs: ['R2'] }), 'R2')).toBe(4700);
});

test('another value changes the circuit', () => {
  const other = log(kit(), ...otherValue('R2', 3900));
  expect(open(other)).toEqual(['R1']);
  expect(ohmsOf(other, 'R2')).toBe(3900);
});

test('a piece in another place gives that place its value; its own stays open', () => {
  const exchanged = log(kit(), ...inOtherPlace(kit(), 'R1', 'R2'));
  expect(ohmsOf(exchanged, 'R2')).toBe(1000);
  expect(open(exchanged)).toEqual(['R1']);
  // Two of one value: nothing changes but the tick.
  const same = newKit({ ...EMPTY_SHEET, lines: [line('one', 1000, ['R1', 'R2'])] }, at(0));
  expect(inOtherPlace(same, 'R1', 'R2')).toEqual([{ kind: 'fitted', refs: ['R2'] }]);
});

describe('the board is right', () => {
  const pinsOf = (k: KitState, name: string) =>
    connectionsOf(k.sheet.circuit!.deck)
      .find((c) => c.name === name)!
      .pins.map((p) => p.net);
  test('pad and circuit move to the net that was found, in one batch', () => {
    const changes = padMoved(kit(), { ref: 'R2', pin: '1', to: 'GND' });
    expect(changes.map((c) => c.room)).toEqual(['pads', 'circuit']);
    const corrected = log(kit(), ...changes);
    expect(corrected.sheet.pads[0]!.net).toBe('GND');
    expect(pinsOf(corrected, 'R2')).toEqual(['0', '0']);
  });
  test('pins go by number or by name; what the circuit does not have is left alone', () => {
    expect(pinsOf(log(kit(), ...padMoved(kit(), { ref: 'D1', pin: 'K', to: 'in' })), 'D1')).toEqual(['a', 'in']);
    expect(padMoved(kit(), { ref: 'R9', pin: '1', to: 'a' })).toEqual([]);
    expect(padMoved(kit(), { ref: 'R1', pin: '7', to: 'a' })).toEqual([]);
  });
});
