/** Where parts lie: laid out from the circuit, moved by hand, under a photo of either side, and what then lies side by side. */
import fc from 'fast-check';
import { type KitState, type Line, newKit, type Sheet } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { laidOut, neighboursOnMap, partPlaced, pinsAtPad, photoOnMap, photoOverPlaces, pinsTaken } from '@/core/place';
import { packageOf } from '@/core/vocabulary';
import { DEMOS } from '@/stand-in';
import { at, log } from '../support/kits';

const resistor = (ref: string) => ({ id: `line-${ref}`, kind: 'resistor' as const, label: '1 k', value: 1000, tolerance: null, quantity: 1, refs: [ref] });
const sheet = (more: Partial<Sheet> = {}): Sheet => ({
  ...EMPTY_SHEET,
  lines: ['R1', 'R2', 'R3'].map(resistor),
  circuit: { deck: 'three\nV1 in 0 9\nR1 in a 1k\nR2 a b 1k\nR3 b 0 1k\n.end', neighbours: [] },
  ...more,
});
const kit = (more: Partial<Sheet> = {}): KitState => newKit(sheet(more), at(0));
const place = (ref: string, x: number, y: number, rotation = 0) => ({ ref, x, y, rotation });

describe('a map laid out from the circuit', () => {
  it.each(DEMOS.map((d) => [d.slug, d] as const))('gives every part of %s one place, none over another, about as wide as a board', (_, demo) => {
    const own = demo.kit(at(0)).sheet;
    const places = laidOut(own);
    const refs = own.lines.filter((l) => !l.notFitted).flatMap((l) => l.refs);
    expect(places.map((p) => p.ref).sort()).toEqual([...refs].sort());
    const body = (ref: string) => packageOf(own.lines.find((l) => l.refs.includes(ref))!);
    const over = places.flatMap((a, i) =>
      places
        .slice(i + 1)
        .filter((b) => Math.abs(a.x - b.x) < (body(a.ref).width + body(b.ref).width) / 2 && Math.abs(a.y - b.y) < (body(a.ref).height + body(b.ref).height) / 2)
        .map((b) => `${a.ref} ${b.ref}`),
    );
    expect(over).toEqual([]);
    const [wide, high] = [Math.max(...places.map((p) => p.x)), Math.max(...places.map((p) => p.y))];
    expect(wide / high).toBeGreaterThan(0.5);
    expect(wide / high).toBeLessThan(3.5);
  });

  it('puts parts that are joined beside one another, and is the same every time', () => {
    const places = new Map(laidOut(sheet()).map((p) => [p.ref, p]));
    const far = (a: string, b: string) => Math.hypot(places.get(a)!.x - places.get(b)!.x, places.get(a)!.y - places.get(b)!.y);
    expect(far('R1', 'R2')).toBeLessThan(far('R1', 'R3'));
    expect(laidOut(sheet())).toEqual(laidOut(sheet()));
  });
});

describe('a part that is moved', () => {
  it('takes over the whole drawing where nothing had a place, and only itself where it had', () => {
    const shown = laidOut(sheet());
    const first = log(kit(), ...partPlaced(kit(), place('R2', 30.004, 12), shown));
    expect(first.sheet.placement).toHaveLength(3);
    expect(first.sheet.placement.find((p) => p.ref === 'R2')).toEqual(place('R2', 30, 12));
    const second = partPlaced(first, place('R1', 1, 2, 450), shown);
    expect(second).toHaveLength(1);
    expect(log(first, ...second).sheet.placement.find((p) => p.ref === 'R1')).toEqual(place('R1', 1, 2, 90));
  });

  it('takes its pads along, and turned back it is as it was', () => {
    const placement = [place('R1', 10, 10)];
    const pads = [
      { ref: 'R1', pin: '1', x: 5, y: 10, net: 'in' },
      { ref: 'R1', pin: '2', x: 15, y: 10, net: 'a' },
    ];
    const k = kit({ placement, pads });
    const turned = log(k, ...partPlaced(k, place('R1', 20, 30, 90), placement));
    expect(turned.sheet.pads.map(({ pin, x, y }) => [pin, x, y])).toEqual([
      ['1', 20, 25],
      ['2', 20, 35],
    ]);
    const back = log(turned, ...partPlaced(turned, place('R1', 10, 10, 0), placement));
    expect(back.sheet.pads).toEqual(pads);
  });
});

describe('nets side by side', () => {
  // An axial body of 1/4 W spans about 10 mm: two of them end to end leave their pads beside one another.
  const span = packageOf(resistor('R1')).pads[1]!.x - packageOf(resistor('R1')).pads[0]!.x;
  const k = kit({ placement: [place('R1', 20, 20), place('R3', 20 + span + 1, 20), place('R2', 20, 60)] });

  it('are found by the bodies where no file gave pads, within the distance asked for', () => {
    const pairs = (near: number) => neighboursOnMap(k, near).map((n) => n.nets.join(' '));
    expect(pairs(0.5)).toEqual([]);
    // R1 lies between in and a, R3 between b and ground: either end may be the near one.
    expect(pairs(1.2).sort()).toEqual(['0 a', '0 in', 'a b', 'b in']);
  });

  it('are those of the pads where a file gave some', () => {
    const pads = [
      { ref: 'R1', pin: '2', x: 10, y: 10, net: 'a' },
      { ref: 'R3', pin: '1', x: 11, y: 10, net: 'b' },
      { ref: 'R2', pin: '1', x: 10.5, y: 10, net: 'a' },
    ];
    expect(neighboursOnMap(kit({ pads }), 1.2)).toEqual([{ nets: ['a', 'b'] }]);
  });
});

describe('a photo laid on a map that is there', () => {
  const pins = [
    { ref: 'R1', x: 0.2, y: 0.3 },
    { ref: 'R2', x: 0.7, y: 0.4 },
    { ref: 'R3', x: 0.5, y: 0.1 },
  ];
  const photo = { id: 'p', name: 'board', hash: 'h', type: 'image/jpeg', size: 1, pins };

  it('puts both known parts where they are, whatever the turn, from above and from below', () => {
    const coordinate = fc.double({ min: 5, max: 90, noNaN: true });
    fc.assert(
      fc.property(coordinate, coordinate, coordinate, coordinate, fc.constantFrom('top' as const, 'bottom' as const), (ax, ay, bx, by, side) => {
        fc.pre(Math.hypot(ax - bx, ay - by) > 1);
        const k = kit({ placement: [place('R1', ax, ay), place('R2', bx, by)] });
        const onMap = photoOverPlaces(pins, k, { from: 'R1', to: 'R2' }, side)!;
        // All pins taken anew come out where R1 and R2 were.
        const again = log(k, ...pinsTaken(k, photo, onMap)).sheet.placement;
        for (const [ref, x, y] of [
          ['R1', ax, ay],
          ['R2', bx, by],
        ] as const) {
          const p = again.find((q) => q.ref === ref)!;
          expect(Math.abs(p.x - x)).toBeLessThan(0.011);
          expect(Math.abs(p.y - y)).toBeLessThan(0.011);
        }
      }),
    );
  });

  it('gives only what is missing a place, and leaves the rest alone', () => {
    const k = kit({ placement: [place('R1', 10, 10, 90), place('R2', 60, 20)] });
    const onMap = photoOverPlaces(pins, k, { from: 'R1', to: 'R2' })!;
    const laid = log(k, ...pinsTaken(k, photo, onMap, 'missing'));
    expect(laid.sheet.placement.slice(0, 2)).toEqual(k.sheet.placement);
    expect(laid.sheet.placement[2]).toMatchObject({ ref: 'R3', x: 40, y: -10 });
  });

  it('from the copper side mirrors left and right: what is left in the photo is right on the map', () => {
    const scale = { from: 'R1', to: 'R2', millimetres: 50, lies: 'as photographed' as const };
    const x = (side: 'top' | 'bottom', ref: string) => {
      const k = kit();
      return log(k, ...pinsTaken(k, photo, photoOnMap(pins, scale, side)!)).sheet.placement.find((p) => p.ref === ref)!.x;
    };
    expect(x('top', 'R1')).toBeLessThan(x('top', 'R2'));
    expect(x('bottom', 'R1')).toBeGreaterThan(x('bottom', 'R2'));
  });

  it('is refused where the two parts have no places, or one place', () => {
    expect(photoOverPlaces(pins, kit(), { from: 'R1', to: 'R2' })).toBeNull();
    expect(photoOverPlaces(pins, kit({ placement: [place('R1', 5, 5), place('R2', 5, 5)] }), { from: 'R1', to: 'R2' })).toBeNull();
    expect(photoOverPlaces(pins, kit({ placement: [place('R1', 5, 5)] }), { from: 'R1', to: 'R9' })).toBeNull();
  });
});

describe('which pin of the circuit a pad may be', () => {
  const DECK = `Pads
V1 vcc 0 9
R1 vcc b 10k
R2 e e 1k
Q1 vcc b e QN
XU1 p1 p2 p3 0 p5 p6 p7 vcc CHIP
XU2 vcc 0 e REG
.model QN NPN
.subckt CHIP 1 2 3 4 5 6 7 8
R1 1 2 1k
R2 3 4 1k
R3 5 6 1k
R4 7 8 1k
.ends
.subckt REG 1 2 3
R1 1 2 1k
R2 3 2 1k
.ends
.end`;
  const line = (ref: string, kind: Line['kind'], more: Partial<Line> = {}) => ({
    id: ref,
    kind,
    label: ref,
    value: null,
    tolerance: null,
    quantity: 1,
    refs: [ref],
    ...more,
  });
  const of = (pads: Sheet['pads'] = []) =>
    kit({
      lines: [
        line('R1', 'resistor'),
        line('R2', 'resistor'),
        line('R9', 'resistor'),
        line('Q1', 'npn', { type: 'XQ1' }),
        line('U1', 'ic', { package: 'DIP-8' }),
        line('U2', 'regulator'),
      ],
      pads,
      typeCards: [{ type: 'XQ1', pins: { 'TO-92': ['E', 'B', 'C'] }, figures: [] }],
      circuit: { deck: DECK, neighbours: [] },
    });
  const pins = (ref: string, pad: number, k = of()) => pinsAtPad(k, ref, pad).map((c) => `${c.pin} ${c.net}`);

  it('either end of a part that may lie either way; one where both are on one net', () => {
    expect(pins('R1', 1)).toEqual(['1 vcc', '2 b']);
    expect(pins('R2', 2)).toEqual(['1 e']);
  });
  it('the one that the type card names: leg 1 of an E B C type is what the deck calls its third', () => {
    expect([1, 2, 3].flatMap((pad) => pins('Q1', pad))).toEqual(['3 e', '2 b', '1 vcc']);
  });
  it('the one that a file of the board tells', () => {
    expect(pins('R1', 2, of([{ ref: 'R1', pin: '2', x: 0, y: 0, net: 'VCC' }]))).toEqual(['1 vcc']);
  });
  it('legs of a chip in two rows as they are counted; any of a regulator, whose three stand in many orders', () => {
    expect([1, 4, 8].flatMap((pad) => pins('U1', pad))).toEqual(['1 p1', '4 0', '8 vcc']);
    expect(pins('U2', 1)).toEqual(['1 vcc', '2 0', '3 e']);
  });
  it('none where the circuit has no such part', () => {
    expect(pins('R9', 1)).toEqual([]);
  });
});

describe('the layout of any circuit (property)', () => {
  const KINDS = ['resistor', 'capacitor', 'electrolytic', 'diode', 'npn', 'regulator', 'ic', 'relay', 'connector'] as const;
  const kits = fc
    .array(fc.record({ kind: fc.constantFrom(...KINDS), nets: fc.tuple(fc.nat(6), fc.nat(6)), board: fc.constantFrom('', 'A:', 'B:') }), {
      minLength: 1,
      maxLength: 25,
    })
    .map((parts) => {
      const named = parts.map((p, i) => ({ ...p, ref: `${p.board}R${i + 1}`, element: `R${i + 1}` }));
      const deck = ['any', 'V1 n0 0 9', ...named.map((p) => `${p.element} n${p.nets[0]} ${p.nets[1] === 0 ? '0' : `n${p.nets[1]}`} 1k`), '.end'].join('\n');
      const lines = named.map((p) => ({ id: p.ref, kind: p.kind, label: p.ref, value: null, tolerance: null, quantity: 1, refs: [p.ref] }));
      return sheet({ lines, circuit: { deck, neighbours: [], elements: Object.fromEntries(named.map((p) => [p.ref, p.element])) } });
    });

  it('gives every part a place of its own on the positive side, boards beside one another', () => {
    fc.assert(
      fc.property(kits, (own) => {
        const places = laidOut(own);
        expect(places.map((p) => p.ref).sort()).toEqual(own.lines.flatMap((l) => l.refs).sort());
        const size = (ref: string) => packageOf(own.lines.find((l) => l.refs[0] === ref)!);
        for (const p of places) {
          expect(p.x - size(p.ref).width / 2).toBeGreaterThanOrEqual(0);
          expect(p.y - size(p.ref).height / 2).toBeGreaterThanOrEqual(0);
        }
        places.forEach((a, i) => {
          for (const b of places.slice(i + 1)) {
            const apart =
              Math.abs(a.x - b.x) >= (size(a.ref).width + size(b.ref).width) / 2 - 0.11 ||
              Math.abs(a.y - b.y) >= (size(a.ref).height + size(b.ref).height) / 2 - 0.11;
            expect([a.ref, b.ref, apart]).toEqual([a.ref, b.ref, true]);
          }
        });
        // One board's parts lie all to one side of another's.
        const span = (board: string) => {
          const xs = places.filter((p) => (p.ref.includes(':') ? p.ref[0] : '') === board).map((p) => p.x);
          return xs.length === 0 ? null : ([Math.min(...xs), Math.max(...xs)] as const);
        };
        const spans = ['', 'A', 'B'].flatMap((b) => {
          const s = span(b);
          return s ? [s] : [];
        });
        spans.forEach((a, i) => {
          for (const b of spans.slice(i + 1)) expect(a[1] < b[0] || b[1] < a[0]).toBe(true);
        });
      }),
      { numRuns: 40 },
    );
  });
});
