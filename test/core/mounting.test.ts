/** How a part is mounted: trade facts (common practice, no source). */
import { type EntryBody, type KitState, type Line, newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { mountingRemarks } from '@/core/loop';
import { at, log } from '../support/kits';

const line = (kind: Line['kind'], label: string, more: Partial<Line> = {}): Line => ({
  id: 'x',
  kind,
  label,
  value: null,
  tolerance: null,
  quantity: 2,
  refs: ['X1', 'X2'],
  ...more,
});
const kit = (own: Line, pads: KitState['sheet']['pads'] = []): KitState => newKit({ ...EMPTY_SHEET, lines: [own], pads }, at(0));
const remarks = (own: Line) => mountingRemarks(kit(own), own, own.refs);

test.each([
  [line('resistor', '2R2 5 W', { value: 2.2, rating: { watts: 5 } }), /^Height: 3 to 5 mm/],
  [line('regulator', '7805', { package: 'TO-220' }), /screw it to its sink first/],
  [line('led', 'LED red'), /three seconds a joint/],
  [line('diode', '1N34 germanium'), /Heat destroys germanium/],
  [line('crystal', '8 MHz'), /a millimetre above the board/],
  [line('relay', 'relay 12 V'), /Solder one pin/],
])('%#: %j', (own, wanted) => {
  expect(remarks(own).join('\n')).toMatch(new RegExp(wanted.source, 'm'));
});

test('a small resistor has no height and no heat of its own', () => {
  expect(remarks(line('resistor', '10 k', { value: 1e4 })).filter((r) => !r.startsWith('Leads'))).toEqual([]);
});

test('leads are bent for the holes that a file told, each for its own where they differ', () => {
  const own = line('resistor', '10 k', { value: 1e4 });
  const pad = (ref: string, pin: string, x: number) => ({ ref, pin, x, y: 0 });
  const of = (second: number) =>
    mountingRemarks(kit(own, [pad('X1', '1', 0), pad('X1', '2', 10.16), pad('X2', '1', 0), pad('X2', '2', second)]), own, own.refs);
  expect(of(10.16)).toEqual(['Leads: bent 10.2 mm apart, as its holes are.']);
  expect(of(12.7)).toEqual(['Leads: its holes are 10.2 to 12.7 mm apart: bend each to fit its own.']);
  expect(remarks(own)[0]).toContain('no nearer than 2 mm to the body');
});

test('the pieces that were measured for these positions are named', () => {
  const own = line('resistor', '10 k', { value: 1e4, tolerance: [-0.05, 0.05] });
  const measured = (piece: number, ref: string, reading: number): EntryBody => ({
    kind: 'measured',
    line: 'x',
    piece,
    ref,
    mode: 'ohms',
    reading,
    meter: 'handheld',
  });
  const k = log(kit(own), measured(0, 'X1', 9970), measured(1, 'X2', 10_050));
  expect(mountingRemarks(k, own, ['X2'])[0]).toMatch(/^Which piece: X2 the one that measured 10\.[01] kΩ\.$/);
});
