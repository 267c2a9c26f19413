/** Schematics: the netlist rebuilt from the geometry is the deck's; nothing lies on anything; the same circuit gives the same drawing. */
import fc from 'fast-check';
import { arranged, draw, type Drawable, drawableOf, type Drawing, grown, type Laid, layout, readDrawable } from '@/core/draw';
import { DEMOS } from '@/stand-in/demos';

type Box = Drawing['box'];
const key = (x: number, y: number) => `${x},${y}`;

/** Nets by what the wires, touching pins and flags of one name join; a crossing without a dot joins nothing. */
function rebuilt(d: Drawing): Map<string, string> {
  const parent = new Map<string, string>();
  const root = (k: string): string => {
    let at = k;
    while ((parent.get(at) ?? at) !== at) at = parent.get(at)!;
    return at;
  };
  const join = (a: string, b: string) => void parent.set(root(a), root(b));
  const dots = new Set(d.junctions.map(([x, y]) => key(x, y)));
  const dirs = new Map<string, number>();
  const edges: [number, number, number, number][] = [];
  for (const { points } of d.wires)
    for (let i = 1; i < points.length; i++) {
      let [x, y] = points[i - 1]!;
      const [tx, ty] = points[i]!;
      while (x !== tx || y !== ty) {
        const [nx, ny] = [x + Math.sign(tx - x), y + Math.sign(ty - y)];
        edges.push([x, y, nx, ny]);
        const vertical = nx === x;
        dirs.set(key(x, y), (dirs.get(key(x, y)) ?? 0) | (vertical ? (ny > y ? 2 : 8) : nx > x ? 1 : 4));
        dirs.set(key(nx, ny), (dirs.get(key(nx, ny)) ?? 0) | (vertical ? (ny > y ? 8 : 2) : nx > x ? 4 : 1));
        [x, y] = [nx, ny];
      }
    }
  const crossed = (k: string) => dirs.get(k) === 15 && !dots.has(k);
  const name = (x: number, y: number, vertical: boolean) => (crossed(key(x, y)) ? `${key(x, y)} ${vertical ? 'v' : 'h'}` : key(x, y));
  for (const [x, y, nx, ny] of edges) join(name(x, y, nx === x), name(nx, ny, nx === x));
  const byNet = new Map<string, string>();
  for (const f of d.flags) {
    const k = key(f.x, f.y);
    if (byNet.has(f.net)) join(byNet.get(f.net)!, k);
    else byNet.set(f.net, k);
  }
  return new Map(d.symbols.flatMap((s) => Object.entries(s.pins).map(([pin, [x, y]]) => [`${s.ref}.${pin}`, root(key(x, y))] as const)));
}

const lap = (a: Box, b: Box) => Math.min(a[2], b[2]) - Math.max(a[0], b[0]) > 1e-9 && Math.min(a[3], b[3]) - Math.max(a[1], b[1]) > 1e-9;

interface Element {
  readonly kind: 'R' | 'C' | 'D' | 'Q';
  readonly nets: readonly number[];
  /** Words wider than the symbol set parts in a row further apart. */
  readonly wordy?: boolean | undefined;
}
const request = (elements: readonly Element[]) => {
  const net = (n: number) => ['0', 'vcc', 'a', 'b', 'c', 'd', 'e'][n]!;
  const parts = elements.map(({ kind, nets, wordy }, i) => {
    const ref = `${kind}${i + 1}`;
    const pins =
      kind === 'Q' ? { C: `${ref}.1`, B: `${ref}.2`, E: `${ref}.3` } : kind === 'D' ? { A: `${ref}.1`, K: `${ref}.2` } : { 1: `${ref}.1`, 2: `${ref}.2` };
    return {
      ref,
      kind: { R: 'resistor', C: 'capacitor', D: 'diode', Q: 'npn' }[kind],
      value: wordy ? '100 nF, film, 5 mm' : kind === 'R' ? '4k7' : 'x',
      elements: [ref],
      pins,
      card: `${ref} ${nets.map(net).join(' ')} ${kind === 'R' ? '4k7' : kind === 'C' ? '1n' : 'M'}`,
    };
  });
  const deck = `t\nV1 vcc 0 9\n${parts.map((p) => p.card).join('\n')}\n.end`;
  return {
    deck,
    parts: [{ ref: 'V1', kind: 'source', value: '9V', elements: ['V1'], pins: { '+': 'V1.1', '-': 'V1.2' } }, ...parts.map(({ card: _, ...p }) => p)],
  };
};

const element = fc.oneof(
  fc.record({ kind: fc.constantFrom('R' as const, 'C' as const, 'D' as const), nets: fc.tuple(fc.nat(6), fc.nat(6)), wordy: fc.boolean() }),
  fc.record({ kind: fc.constant('Q' as const), nets: fc.tuple(fc.nat(6), fc.nat(6), fc.nat(6)) }),
);

/** The netlist of the drawing is the circuit’s, and no symbol or flag lies on another. */
function expectSound(drawable: Drawable, drawing: Drawing): void {
  const at = rebuilt(drawing);
  const groups = new Map<string, Set<string>>();
  for (const p of drawable.parts)
    for (const pin of p.pins) {
      const where = at.get(`${p.ref}.${pin}`)!;
      groups.set(where, (groups.get(where) ?? new Set()).add(p.net[pin]!));
    }
  // No two nets are one.
  for (const nets of groups.values()) expect([...nets]).toHaveLength(1);
  // No net is in pieces.
  for (const pins of drawable.nets.values())
    if (pins.length > 1) expect(new Set(pins.map((q) => at.get(`${drawable.parts[q.part]!.ref}.${q.pin}`))).size).toBe(1);
  const boxes = [...drawing.symbols.map((s) => s.box), ...drawing.flags.map((f) => f.box)];
  boxes.forEach((a, i) => {
    boxes.slice(i + 1).forEach((b) => {
      expect(lap(a, b)).toBe(false);
    });
  });
}

describe('any circuit', () => {
  test('law: the netlist of the drawing is the deck’s, and no symbol lies on another', () => {
    fc.assert(
      fc.property(fc.array(element, { minLength: 1, maxLength: 8 }), (elements) => {
        const drawable = readDrawable(request(elements));
        const drawing = draw(drawable);
        expectSound(drawable, drawing);
      }),
      { numRuns: 20 },
    );
  });

  test('two parts in parallel between nets of their own: both nets are drawn', () => {
    const drawing = draw(
      readDrawable(
        request([
          { kind: 'R', nets: [2, 3] },
          { kind: 'R', nets: [2, 3] },
          { kind: 'R', nets: [0, 0] },
        ]),
      ),
    );
    const at = rebuilt(drawing);
    expect(at.get('R1.1')).toBe(at.get('R2.1'));
    expect(at.get('R1.2')).toBe(at.get('R2.2'));
    expect(at.get('R1.1')).not.toBe(at.get('R1.2'));
  });

  test('a long row with long words beside its parts is drawn', () => {
    const { symbols } = draw(
      readDrawable(
        request([
          { kind: 'R', nets: [2, 3], wordy: true },
          { kind: 'C', nets: [3, 4], wordy: true },
          { kind: 'R', nets: [4, 5], wordy: true },
          { kind: 'Q', nets: [1, 5, 0] },
        ]),
      ),
    );
    expect(symbols).toHaveLength(5);
  });

  test.each(DEMOS.map((d) => [d.slug, d] as const).filter(([slug]) => slug !== 'tram-counter'))('the demo %s is drawn, every part once', (_, demo) => {
    const drawable = drawableOf(demo.kit({ id: 'k', at: '2026-01-01T00:00:00.000Z' }).sheet)!;
    expect(
      draw(drawable)
        .symbols.map((s) => s.ref)
        .sort(),
    ).toEqual(drawable.parts.map((p) => p.ref).sort());
  });

  test('the same circuit gives the same drawing', () => {
    const q = request([
      { kind: 'R', nets: [1, 2] },
      { kind: 'Q', nets: [2, 3, 0] },
      { kind: 'R', nets: [1, 3] },
    ]);
    expect(draw(readDrawable(q))).toEqual(draw(readDrawable(q)));
  });
});

describe('places by hand', () => {
  const turns = fc.constantFrom(0 as const, 90 as const, 180 as const, 270 as const);
  const put = fc.record({ at: fc.nat(8), x: fc.integer({ min: -20, max: 40 }), y: fc.integer({ min: -20, max: 40 }), rotation: turns, mirror: fc.boolean() });

  test('law: wherever symbols are put, the netlist stays and nothing lies on anything; one that is put on free ground stands there', () => {
    fc.assert(
      fc.property(fc.array(element, { minLength: 2, maxLength: 8 }), fc.array(put, { minLength: 1, maxLength: 4 }), (elements, puts) => {
        const drawable = readDrawable(request(elements));
        const chosen = new Map(puts.map(({ at, ...p }) => [drawable.parts[at % drawable.parts.length]!.ref, p]));
        const [first, ...rest] = [...chosen].map(([ref, p]) => ({ ref, ...p }));
        const drawing = arranged(drawable, layout(drawable), [first!, ...rest]);
        expectSound(drawable, drawing);
        expect(drawing.symbols.find((s) => s.ref === first!.ref)).toMatchObject(first!);
      }),
      { numRuns: 20 },
    );
  });
  test('what is far from the moved symbol stands as it did; nothing put changes nothing', () => {
    const drawable = readDrawable(
      request([
        { kind: 'R', nets: [1, 2] },
        { kind: 'C', nets: [2, 0] },
        { kind: 'Q', nets: [1, 2, 3] },
        { kind: 'R', nets: [3, 0] },
      ]),
    );
    const made = layout(drawable);
    expect(arranged(drawable, made, [])).toBe(made.drawing);
    const moved = arranged(drawable, made, [{ ref: 'Q3', x: 200, y: 200, rotation: 0 }]);
    const alone = (d: Drawing) => d.symbols.filter((s) => s.ref === 'V1').map(({ x, y }) => [x, y]);
    expect(alone(moved)).toEqual(alone(made.drawing));
    expect(arranged(drawable, made, [{ ref: 'not there', x: 0, y: 0, rotation: 0 }])).toBe(made.drawing);
  });
});

describe('a drawing that grows', () => {
  const laidOut = (elements: readonly Element[]): Laid => {
    const drawable = readDrawable(request(elements));
    return { drawable, layout: layout(drawable), since: 0 };
  };
  const standing = ({ layout: { drawing } }: Laid) => new Map(drawing.symbols.map((s) => [s.ref, `${s.x} ${s.y} ${s.rotation}`]));

  test('law: after any part more, the netlist is the deck’s and nothing lies on anything', () => {
    fc.assert(
      fc.property(fc.array(element, { minLength: 2, maxLength: 9 }), fc.nat(3), (elements, more) => {
        let laid = laidOut(elements.slice(0, Math.max(1, elements.length - more)));
        for (let n = Math.max(1, elements.length - more) + 1; n <= elements.length; n++) {
          const drawable = readDrawable(request(elements.slice(0, n)));
          const next = grown(drawable, laid);
          if (!next) return;
          expectSound(drawable, next.layout.drawing);
          laid = next;
        }
      }),
      { numRuns: 12 },
    );
  });

  const amplifier: readonly Element[] = [
    { kind: 'R', nets: [1, 2] },
    { kind: 'R', nets: [2, 0] },
    { kind: 'Q', nets: [3, 2, 4] },
    { kind: 'R', nets: [1, 3] },
    { kind: 'R', nets: [4, 0] },
    { kind: 'C', nets: [3, 5] },
    { kind: 'R', nets: [5, 0] },
  ];
  test('a part more between nets that are led already moves nothing, and stands beside what it is joined to', () => {
    const before = laidOut(amplifier);
    const after = grown(readDrawable(request([...amplifier, { kind: 'C', nets: [4, 0] }])), before)!;
    const now = standing(after);
    expect([...standing(before)].filter(([ref, at]) => now.get(ref) !== at)).toEqual([]);
    const at = (ref: string) => after.layout.drawing.symbols.find((s) => s.ref === ref)!;
    expect(Math.hypot(at('C8').x - at('R5').x, at('C8').y - at('R5').y)).toBeLessThan(16);
  });
  test('a part that is joined to nothing yet stands at the side, and beside its nets once it is joined; the drawing stays together', () => {
    const begun = laidOut(amplifier);
    const loose = grown(readDrawable(request([...amplifier, { kind: 'D', nets: [0, 6] }])), begun)!;
    const joined = grown(readDrawable(request([...amplifier, { kind: 'D', nets: [0, 4] }])), loose)!;
    const wide = ({ layout: { drawing } }: Laid) => [drawing.box[2] - drawing.box[0], drawing.box[3] - drawing.box[1]] as const;
    for (const after of [loose, joined]) {
      expect(wide(after)[0]).toBeLessThan(wide(begun)[0] + 24);
      expect(wide(after)[1]).toBeLessThan(wide(begun)[1] + 16);
    }
    const at = (ref: string) => joined.layout.drawing.symbols.find((s) => s.ref === ref)!;
    expect(Math.hypot(at('D8').x - at('R5').x, at('D8').y - at('R5').y)).toBeLessThan(20);
  });
  test('another value, and a part less, move nothing; another circuit is laid out anew', () => {
    const before = laidOut(amplifier);
    const wordy = grown(readDrawable(request(amplifier.map((e, i) => (i === 0 ? { ...e, wordy: true } : e)))), before)!;
    expect(standing(wordy)).toEqual(standing(before));
    expect(wordy.layout.drawing.labels.find((k) => k.ref === 'R1' && k.what === 'value')!.text).toBe('100 nF, film, 5 mm');
    const less = standing(grown(readDrawable(request(amplifier.slice(0, -1))), before)!);
    expect([...less].filter(([ref, at]) => standing(before).get(ref) !== at)).toEqual([]);
    expect(grown(readDrawable(request(amplifier.map(({ kind }) => (kind === 'Q' ? { kind, nets: [6, 5, 2] } : { kind, nets: [6, 5] })))), before)).toBeNull();
  });
});

describe('two boards', () => {
  const sheet = DEMOS.find((d) => d.slug === 'wind-dial')!.kit({ id: 'k', at: '2026-01-01T00:00:00.000Z' }).sheet;
  test('each has a frame, its parts lie in it, the frames lie apart, and the lead joins them', () => {
    const drawable = drawableOf(sheet)!;
    const drawing = draw(drawable);
    expect(drawing.frames!.map((f) => f.title)).toEqual(sheet.boards.map((b) => b.name));
    expect(lap(drawing.frames![0]!.box, drawing.frames![1]!.box)).toBe(false);
    for (const s of drawing.symbols) {
      const at = Math.max(
        0,
        sheet.boards.findIndex((b) => s.ref.startsWith(`${b.id}:`)),
      );
      expect(lap(s.box, drawing.frames![at]!.box)).toBe(true);
    }
    expectSound(drawable, drawing);
  });
});

describe('habits of the trade', () => {
  test('supply above, ground below: a divider stands upright in line', () => {
    const { symbols } = draw(
      readDrawable(
        request([
          { kind: 'R', nets: [1, 2] },
          { kind: 'R', nets: [2, 0] },
        ]),
      ),
    );
    const [upper, lower] = ['R1', 'R2'].map((ref) => symbols.find((s) => s.ref === ref)!);
    expect(upper!.pins['1']![0]).toBe(lower!.pins['1']![0]);
    expect(upper!.y).toBeLessThan(lower!.y);
  });
  test('a bad request names element, part or pin', () => {
    expect(() => readDrawable({ deck: 't\nR1 a', parts: [] })).toThrow(/R1: nodes are missing/);
    expect(() => readDrawable({ deck: 't\nR1 a 0 1k', parts: [{ ref: 'R1', kind: 'spring', elements: ['R1'], pins: { 1: 'R1.1', 2: 'R1.2' } }] })).toThrow(
      /kind “spring”/,
    );
    expect(() => readDrawable({ deck: 't\nR1 a 0 1k', parts: [{ ref: 'R1', kind: 'resistor', elements: ['R1'], pins: { 1: 'R1.1' } }] })).toThrow(
      /pin 2 is missing/,
    );
  });
});
