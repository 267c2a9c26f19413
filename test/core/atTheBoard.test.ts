/** What is done at the board beside fitting: looking at it bare, a second look, places from files, tracing. */
import { type EntryBody, extend, type KitState, type Line, newKit, type Sheet } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { answerOf, bareBoardItems, lastVerdict, lookFindings, lookTargets, secondLookItems, traceTargets } from '@/core/loop';
import { placesOfKit, placesTaken, readPlaces, takePlaces, writeCentroid } from '@/core/place';
import { traceOf, traceStep } from '@/core/trace';
import { workOf } from '@/core/diagnose';

const STAMP = { id: 'k', at: '2026-01-01T00:00:00.000Z' };
const line = (id: string, kind: Line['kind'], refs: string[], value: number | null = null): Line => ({
  id,
  kind,
  label: id,
  value,
  tolerance: null,
  quantity: refs.length,
  refs,
});
const LINES = [
  line('4k7', 'resistor', ['R1', 'R2'], 4700),
  line('56k', 'resistor', ['R3'], 56e3),
  line('can', 'electrolytic', ['C1'], 1e-5),
  line('npn', 'npn', ['Q1'], 200),
  line('fuse', 'fuse', ['F1'], 1),
];
const DECK = 'small\nV1 in 0 9\nF1 in a 0.1\nR1 a b 4.7k\nR2 b 0 4.7k\nR3 a c 56k\nC1 b 0 10u\nQ1 c b 0 QN\n.model QN NPN\n.end'.replace(
  'F1 in a 0.1',
  'RF1 in a 0.1',
);
const kitOf = (sheet: Partial<Sheet> = {}): KitState =>
  newKit({ ...EMPTY_SHEET, lines: LINES, circuit: { deck: DECK, neighbours: [['a', 'b']] }, ...sheet }, STAMP);
let clock = 0;
const with_ = (kit: KitState, ...bodies: EntryBody[]): KitState =>
  extend(
    kit,
    ...bodies.map((b) => ({
      ...b,
      id: `e${++clock}`,
      at: `2026-01-02T00:${String(Math.floor(clock / 60)).padStart(2, '0')}:${String(clock % 60).padStart(2, '0')}.000Z`,
    })),
  );

describe('the bare board', () => {
  it('asks before anything is soldered; each look is an entry, and what was looked at is done', () => {
    const kit = kitOf();
    const states = lookTargets(kit, bareBoardItems(kit));
    expect(states.map((s) => s.done)).toEqual(states.map(() => false));
    const looked = with_(kit, answerOf(states[1]!.target, false)!);
    expect(lookTargets(looked, bareBoardItems(looked)).map((s) => s.done)).toEqual(states.map((_, i) => i === 1));
    expect(lastVerdict(looked, null)).toMatchObject({ verdict: 'out', title: 'Holes are open: not good' });
  });

  it('asks of every board of a kit', () => {
    const boards = [
      { id: 'A', name: 'A' },
      { id: 'B', name: 'B' },
    ];
    expect(bareBoardItems(kitOf({ boards })).length).toBe(2 * bareBoardItems(kitOf()).length);
  });
});

describe('the second look', () => {
  it('asks for nothing that is not in, and what is likely and harms first', () => {
    expect(secondLookItems(kitOf())).toEqual([]);
    const kit = with_(kitOf(), { kind: 'fitted', refs: ['R1', 'C1', 'Q1'] });
    const ids = secondLookItems(kit).map((i) => i.id);
    expect(ids[0]).toBe('bridge/a~b');
    expect(ids).toContain('way/C1');
    expect(ids).not.toContain('way/R1');
    // A reversed electrolytic bursts, a turned transistor is only taken out again.
    expect(ids.indexOf('way/C1')).toBeLessThan(ids.indexOf('way/Q1'));
  });

  it('names the position that was forgotten and the piece that is left over', () => {
    const kit = with_(kitOf(), { kind: 'counted', line: '56k', quantity: 1 }, { kind: 'fitted', refs: ['R1', 'R2', 'C1', 'Q1', 'F1'] });
    expect(lookFindings(kit).map((f) => f.text)).toEqual([expect.stringMatching(/R3 .*is not ticked.* 1 .* is still in the tray/)]);
    const gone = with_(kitOf(), { kind: 'counted', line: '56k', quantity: 0 }, { kind: 'fitted', refs: ['R1', 'R2', 'C1', 'Q1', 'F1'] });
    expect(lookFindings(gone)[0]!.text).toMatch(/None is left in the tray: was it fitted in another place/);
  });

  it('names two pieces that were measured as each other’s values', () => {
    const measured = (id: string, piece: number, ref: string, reading: number): EntryBody => ({
      kind: 'measured',
      line: id,
      piece,
      ref,
      mode: 'ohms',
      reading,
      meter: 'handheld',
    });
    const kit = with_(kitOf(), measured('4k7', 0, 'R1', 55_800), measured('56k', 0, 'R3', 4690), {
      kind: 'fitted',
      refs: ['R1', 'R2', 'R3', 'C1', 'Q1', 'F1'],
    });
    expect(lookFindings(kit)).toMatchObject([{ refs: ['R1', 'R3'], text: expect.stringMatching(/R1 and R3 look swapped/) as string }]);
  });
});

describe('tracing a kit', () => {
  it('needs something that says what is joined', () => {
    expect(traceOf(kitOf({ circuit: null }))).toBeNull();
  });

  it('asks for pads of the circuit, and takes parts that beep as joints once they are in', () => {
    const bare = traceOf(kitOf())!;
    expect(bare.board.pads.map((p) => p.id)).toEqual(expect.arrayContaining(['R1.1', 'Q1.B', 'C1.2']));
    expect(bare.board.joined).toEqual([]);
    const fitted = traceOf(with_(kitOf(), { kind: 'fitted', refs: ['F1', 'R1'] }))!;
    expect(fitted.board.joined).toHaveLength(1);
  });

  it('goes on asking until the board is proved; an answer from before a fuse was fitted is not held against it', () => {
    let kit = kitOf();
    for (let i = 0; i < 60; i++) {
      const [next] = traceTargets(traceOf(kit)!, 'locate');
      if (next?.target.kind !== 'trace') break;
      expect(next.target.nets[0] === next.target.nets[1]).toBe(next.target.drawn);
      kit = with_(kit, answerOf(next.target, next.target.drawn)!);
      expect(lastVerdict(kit, null)).toMatchObject({ verdict: 'in', detail: 'As drawn.' });
    }
    const done = traceOf(kit)!;
    expect(traceStep(done.board, done.answers, 'locate')).toMatchObject({ kind: 'done', asDrawn: true });
    const later = traceOf(with_(kit, { kind: 'fitted', refs: ['F1'] }))!;
    expect(later.answers).toEqual([]);
  });
});

describe('tracing and mending', () => {
  const traced = (pads: [string, string], nets: [string, string], drawn: boolean, beep: boolean): EntryBody => ({ kind: 'traced', pads, nets, drawn, beep });

  it('asks again what was not as drawn once the board was mended; what was as drawn still holds', () => {
    const found = with_(kitOf(), traced(['R1.1', 'R1.2'], ['a', 'b'], false, true), traced(['R1.2', 'R2.1'], ['b', 'b'], true, true));
    expect(traceOf(found)!.answers).toHaveLength(2);
    const mended = with_(found, { kind: 'repaired', refs: [], note: 'bridge drawn off' });
    expect(traceOf(mended)!.answers).toEqual([traceOf(found)!.answers[1]]);
    expect(workOf(mended).joined).toEqual([]);
    expect(workOf(found).joined).toEqual(['a~b']);
  });

  it('gives pads of a circuit no place: no deck tells which of two like leads lies where', () => {
    const placed = kitOf({ placement: LINES.flatMap((l) => l.refs.map((ref, i) => ({ ref, x: 10 * i, y: 5, rotation: 0 }))) });
    expect(traceOf(placed)!.sides).toBe('nets');
    expect(traceTargets(traceOf(placed)!, 'locate')[0]!.target).toMatchObject({ places: null });
  });

  it('counts what is left down to nothing while all is as drawn', () => {
    let kit = kitOf();
    const left: number[] = [];
    for (let i = 0; i < 60; i++) {
      const trace = traceOf(kit)!;
      const step = traceStep(trace.board, trace.answers, 'locate');
      if (step.kind !== 'ask') break;
      left.push(step.left);
      kit = with_(kit, answerOf(traceTargets(trace, 'locate')[0]!.target, step.drawn)!);
    }
    expect(left).toEqual(left.map((_, i) => left.length - i));
  });
});

describe('places from a file on the map of a kit', () => {
  const file = readPlaces('Ref,X (mm),Y (mm),Rot\nR1,10,20,90\nr2,30,5,0\nX9,1,1,0');
  const taking = { board: null, flipped: false, near: 1.5 };

  it('stand with y down and turned clockwise, refs as the list writes them', () => {
    const taken = takePlaces(kitOf(), file, taking);
    expect(taken.unknown).toEqual(['X9']);
    expect(taken.placement.map((p) => [p.ref, p.rotation])).toEqual([
      ['R1', 270],
      ['R2', 0],
    ]);
    const [r1, r2] = taken.placement as [(typeof taken.placement)[0], (typeof taken.placement)[0]];
    expect(r2.x - r1.x).toBeCloseTo(20);
    expect(r2.y - r1.y).toBeCloseTo(15);
    const flipped = takePlaces(kitOf(), file, { ...taking, flipped: true }).placement;
    expect(flipped[1]!.x - flipped[0]!.x).toBeCloseTo(-20);
  });

  it('of a second board lie beside the first', () => {
    const lines = [line('a', 'resistor', ['A:R1', 'B:R1'])];
    const boards = ['A', 'B'].map((id) => ({ id, name: id }));
    const kit = kitOf({ lines, boards, circuit: null, placement: [{ ref: 'A:R1', x: 40, y: 10, rotation: 0 }] });
    const [b] = takePlaces(kit, readPlaces('Ref,X (mm),Y (mm)\nR1,0,0'), { ...taking, board: 'B' }).placement;
    expect(b!.ref).toBe('B:R1');
    expect(b!.x).toBeGreaterThan(50);
  });

  it('bring pads, and nets whose pads come near one another as neighbours', () => {
    const pad = (net: string, ref: string, pin: string, x: number) =>
      `${`317${net.padEnd(14)}   ${ref.padEnd(6)}-${pin.padEnd(4)}`.padEnd(38)}A00X+${String(x).padStart(6, '0')}Y+000000`;
    const netlist = readPlaces(['P  UNITS CUST 1', pad('A', 'R1', '1', 0), pad('C', 'R3', '2', 1200), pad('GND', 'C1', '2', 9000), '999'].join('\n'));
    const kit = kitOf();
    const taken = takePlaces(kit, netlist, taking);
    expect(taken.neighbours).toEqual([{ nets: ['a', 'c'] }]);
    const after = with_(kit, ...placesTaken(kit, taken));
    expect(after.sheet.pads).toHaveLength(3);
    expect(after.sheet.circuit!.neighbours).toContainEqual(['a', 'c']);
    expect(traceOf(after)!.sides).toBe('places');
  });

  it('turn a part as its pads lie on the bare board, and keep its side', () => {
    const pad = (ref: string, pin: string, x: number, y: number, access: string) =>
      `${`${access === 'A00' ? '317' : '327'}n${pin}`.padEnd(20)}${ref.padEnd(6)}-${pin.padEnd(4)}`.padEnd(38) +
      `${access}X+${String(x).padStart(6, '0')}Y+${String(y).padStart(6, '0')}`;
    const netlist = readPlaces(
      [
        'P  UNITS CUST 1',
        pad('R1', '2', 5000, 12000, 'A00'),
        pad('R1', '1', 5000, 2000, 'A00'),
        pad('R2', '1', 0, 0, 'A02'),
        pad('R2', '2', 10000, 0, 'A02'),
        '999',
      ].join('\n'),
    );
    // R1 stands upright with pad 1 below: on the map, y down, its body is turned by 270 degrees.
    expect(takePlaces(kitOf(), netlist, taking).placement).toMatchObject([
      { ref: 'R1', rotation: 270 },
      { ref: 'R2', rotation: 0, side: 'bottom' },
    ]);
    const kit = with_(kitOf(), ...placesTaken(kitOf(), takePlaces(kitOf(), netlist, taking)));
    expect(placesOfKit(kit).map((p) => p.side)).toEqual(['top', 'bottom']);
  });

  it('go out as a file and come back as they were', () => {
    const kit = with_(kitOf(), ...placesTaken(kitOf(), takePlaces(kitOf(), file, taking)));
    const back = takePlaces(kitOf(), readPlaces(writeCentroid(placesOfKit(kit))), taking);
    expect(back.placement).toEqual(kit.sheet.placement);
  });
});
