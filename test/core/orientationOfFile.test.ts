/** Files of two conventions: after one look at one part of each family the map lies as the board does. */
import fc from 'fast-check';
import { familyTurned, orientationQuestions, placesTaken, readPlaces, takePlaces } from '@/core/place';
import { demo, log } from '../support/kits';

const file = (turn: number) => `Ref,X (mm),Y (mm),Rotation,Side
D1,10,10,${turn},top
D3,20,10,${(turn + 90) % 360},top
C1,30,10,0,top
U1,40,10,0,top
R1,50,10,0,top`;
const taking = { board: null, flipped: false, near: 1 };

test('one of each family that has a way round is asked about; a resistor is not', () => {
  const kit = demo();
  const taken = takePlaces(kit, readPlaces(file(0)), taking);
  const asked = orientationQuestions(kit, taken.placement, new Set());
  expect(asked.map((q) => [q.family, q.example.ref, q.refs])).toEqual([
    ['diodes', 'D1', ['D1', 'D3']],
    ['polarised capacitors', 'C1', ['C1']],
    ['chips', 'U1', ['U1']],
  ]);
  // A bare-board netlist brings pads: they tell by themselves.
  expect(orientationQuestions(kit, taken.placement, new Set(['D1', 'D3', 'C1', 'U1']))).toEqual([]);
});

test('law: files whose zero degrees differ give the same map once the family was turned by what one part shows', () => {
  fc.assert(
    fc.property(fc.constantFrom(0, 90, 180, 270), (turn) => {
      const kit = demo();
      const right = log(kit, ...placesTaken(kit, takePlaces(kit, readPlaces(file(0)), taking)));
      const other = log(kit, ...placesTaken(kit, takePlaces(kit, readPlaces(file(turn)), taking)));
      const [diodes] = orientationQuestions(other, takePlaces(kit, readPlaces(file(turn)), taking).placement, new Set());
      const at = (k: typeof kit, ref: string) => k.sheet.placement.find((p) => p.ref === ref)!.rotation;
      const by = (at(right, 'D1') - at(other, 'D1') + 360) % 360;
      const mended = log(other, ...familyTurned(other, diodes!.refs, by));
      for (const ref of ['D1', 'D3', 'C1', 'U1', 'R1']) expect([ref, at(mended, ref)]).toEqual([ref, at(right, ref)]);
    }),
  );
});
