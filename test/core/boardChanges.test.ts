/** Changes of the board for a while and for good, later parcels, further figures, feeds of a stage, what follows a renamed record. */
import { findPart } from '@/core/circuit/netlist';
import { deriveTray, type EntryBody, type EntryOf, figuresOf, judgeFigure, type KitState, type Line, put, sheetWith, type Stage, written } from '@/core/kit';
import { entryText, phaseProgress } from '@/core/loop';
import { shoppingList, shoppingText } from '@/core/report';
import { circuitAt, circuitOf, fittedAt } from '@/core/stage';
import { demo, kitOf, log, setupOf, windowAt } from '../support/kits';

const stageOf = (kit: KitState, id: string) => kit.sheet.stages.find((s) => s.id === id)!;
const circuitOfStage = (kit: KitState, id: string) => circuitAt(setupOf(kit), circuitOf(kit.sheet), stageOf(kit, id));
const changed = (change: Extract<EntryBody, { kind: 'modified' }>['change'], more: object = {}): EntryBody => ({ kind: 'modified', change, ...more });

describe('a change of the board that is taken back', () => {
  test('a value put in for a test: the board is as it was before, and readings in between keep the board they met', () => {
    const base = demo();
    const tried = log(base, changed({ what: 'value-replaced', ref: 'R5', value: 33_000 }, { temporary: true, why: 'a try' }));
    expect(findPart(circuitOfStage(tried, 'warm'), 'R5')).toMatchObject({ value: 33_000 });
    const read = log(tried, { kind: 'read', stage: 'warm', check: 'tp5', reading: 1.16, meter: 'handheld' });
    const back = log(read, { kind: 'restored', modification: tried.board.modifications[0]!.entry });
    expect(findPart(circuitOfStage(back, 'warm'), 'R5')).toMatchObject({ value: 3300 });
    expect(back.board.modifications).toEqual([]);
    expect(back.readings.get('warm/tp5')!.at(-1)!.met.board.values.get('R5')).toBe(33_000);
    expect(windowAt(back, 'warm/tp5').middle).toBeCloseTo(windowAt(base, 'warm/tp5').middle, 2);
  });
  test('of two values one after another the earlier one is there again', () => {
    const twice = log(demo(), changed({ what: 'value-replaced', ref: 'R5', value: 33_000 }), changed({ what: 'value-replaced', ref: 'R5', value: 47_000 }));
    const back = log(twice, { kind: 'restored', modification: twice.board.modifications[1]!.entry });
    expect(back.board.values.get('R5')).toBe(33_000);
  });
  test('something unplugged is not on the board, at any stage, until it is plugged in again', () => {
    const pulled = log(demo(), changed({ what: 'unplugged', refs: ['U1'] }, { temporary: true }));
    const last = pulled.sheet.stages.at(-1)!;
    expect(fittedAt(setupOf(pulled), last).has('U1')).toBe(false);
    expect(circuitOfStage(pulled, last.id).parts.some((p) => p.name.startsWith('XU1.'))).toBe(false);
    const back = log(pulled, { kind: 'restored', modification: pulled.board.modifications[0]!.entry });
    expect(fittedAt(setupOf(back), last).has('U1')).toBe(fittedAt(setupOf(demo()), last).has('U1'));
  });
  test('a cut pin of a chip hangs free, and taken back hangs where it hung', () => {
    const cut = log(demo(), changed({ what: 'track-cut', ref: 'U1', pin: '5' }));
    const last = cut.sheet.stages.at(-1)!;
    const nets = (k: KitState) =>
      circuitOfStage(k, last.id)
        .parts.filter((p) => p.name.startsWith('XU1.'))
        .flatMap((p) => p.nodes);
    expect(nets(cut)).not.toContain('out');
    expect(nets(log(cut, { kind: 'restored', modification: cut.board.modifications[0]!.entry }))).toContain('out');
  });
  test('taking back what is not there changes nothing', () => {
    const kit = log(demo(), { kind: 'restored', modification: 'nobody' });
    expect(kit.board).toBe(demo().board);
  });
  test('nothing is finished while something is there for a test', () => {
    const bare = kitOf(
      sheetWith({
        title: 'x',
        stages: [{ id: 's', title: 's', kind: 'look', fits: [], supplies: [], checks: [{ id: 'c', what: 'observe', title: 'c', action: 'a', expect: 'e' }] }],
      }),
    );
    const passed = log(bare, { kind: 'observed', stage: 's', check: 'c', asExpected: true });
    expect(phaseProgress(passed, {}).power.state).toBe('done');
    const tried = log(passed, changed({ what: 'link', nets: ['a', 'b'] }, { temporary: true }), { kind: 'observed', stage: 's', check: 'c', asExpected: true });
    expect(phaseProgress(tried, {}).power).toMatchObject({ state: 'open', text: expect.stringMatching(/for a test to take back/) as unknown });
  });
  test('both are told in words', () => {
    const tried = log(demo(), changed({ what: 'unplugged', refs: ['U1'] }, { temporary: true, why: 'is it the chip?' }));
    const back = log(tried, { kind: 'restored', modification: tried.board.modifications[0]!.entry });
    expect(back.log.slice(-2).map((e) => entryText(back, e))).toEqual([
      'Board changed for a test: U1 unplugged (is it the chip?)',
      'Put back on the board: U1 unplugged',
    ]);
  });
});

describe('an option with more than two choices', () => {
  const base = demo();
  const kit = log(
    base,
    put(base, 'options', { id: 'jp1', text: 'range', choices: ['low', 'middle', 'high'], links: [{ choice: 'high', nets: ['ts', 'rf'] }] }),
  );
  const links = (k: KitState) => circuitOfStage(k, 'warm').parts.filter((p) => p.name.startsWith('~strap'));
  test('connects its nets where it is set so, and nowhere else', () => {
    expect(links(kit)).toEqual([]);
    expect(links(log(kit, changed({ what: 'strap', option: 'jp1', choice: 'middle' })))).toEqual([]);
    const [link] = links(log(kit, changed({ what: 'strap', option: 'jp1', choice: 'high' })));
    expect(link).toMatchObject({ kind: 'R', nodes: ['ts', 'rf'] });
  });
});

describe('how a stage is fed', () => {
  const deck = 't\nV1 a 0 9\nD1 a b DR\nC1 b 0 470u\nR1 b 0 220\n.model DR D(IS=7e-9 N=1.8 RS=0.04)\n.end';
  const line: Line = { id: 'r', kind: 'resistor', label: '220', value: 220, tolerance: [-0.05, 0.05], quantity: 1, refs: ['R1'] };
  const check = { id: 'b', what: 'measure' as const, title: 'b', mode: 'dcv' as const, red: { net: 'b' }, black: { net: '0' } };
  const kit = (supply: Partial<Stage['supplies'][number]>, more: Partial<Stage> = {}) =>
    kitOf(
      sheetWith({
        title: 'x',
        lines: [line],
        circuit: { deck, neighbours: [] },
        stages: [{ id: 's', title: 's', kind: 'power', fits: ['R1'], supplies: [{ source: 'V1', volts: 9, limit: 1, ...supply }], checks: [check], ...more }],
      }),
    );
  test('a bench supply, a winding of the same volts, and a battery with an inner resistance', () => {
    const dc = windowAt(kit({}), 's/b').middle;
    const winding = windowAt(kit({ feed: 'winding' }), 's/b').middle;
    const battery = windowAt(kit({ feed: 'battery', ohms: 20 }), 's/b').middle;
    // One junction less; the peak of the sine less ripple; a divider of 220 with 20 ohms (textbook).
    expect(dc).toBeCloseTo(9 - 0.75, 0);
    expect(winding).toBeGreaterThan(9);
    expect(winding).toBeLessThan(9 * Math.SQRT2);
    expect(battery / dc).toBeCloseTo(220 / 240, 1);
  });
  test('switched off is not unplugged: what feeds the board is a short then', () => {
    const ohms = { ...check, mode: 'ohms' as const };
    const dead = (power: 'unplugged' | 'off') => {
      const k = kit({}, { kind: 'cold', supplies: [], power, checks: [{ ...ohms, red: { net: '0' }, black: { net: 'a' } }] });
      return windowAt(k, 's/b');
    };
    expect(dead('unplugged').middle).toBeGreaterThan(100);
    expect(dead('off').middle).toBeLessThan(5);
  });
  test('checks with settings of their own have windows of their own', () => {
    const two = kit({}, { checks: [check, { ...check, id: 'half', settings: [{ ref: 'R1', value: 20, text: 'R1 at 20 ohms' }] }] });
    expect(windowAt(two, 's/half').middle).toBeLessThan(windowAt(two, 's/b').middle);
  });
});

describe('a later parcel', () => {
  const base = demo();
  const line = base.sheet.lines.find((l) => l.kind === 'resistor' && l.refs.length >= 2)!;
  const cell = (k: KitState) => deriveTray(k).find((c) => c.line.id === line.id)!;
  const counted = log(base, { kind: 'counted', line: line.id, quantity: line.quantity - 1 });
  test('fills what was short, and the shopping list says so', () => {
    expect(shoppingList(counted).find((i) => i.id === line.id)).toMatchObject({ quantity: 1, why: '1 missing' });
    expect(shoppingText(shoppingList(counted))).toMatch(/1 × /);
    const filled = log(counted, { kind: 'received', line: line.id, quantity: 1 });
    expect(cell(filled).counted).toBe(line.quantity);
    expect(shoppingList(filled).some((i) => i.id === line.id)).toBe(false);
  });
  test('pieces that are put aside for it are measured anew', () => {
    const wrong = log(
      base,
      { kind: 'counted', line: line.id, quantity: line.quantity },
      { kind: 'measured', line: line.id, piece: 0, mode: 'ohms', reading: line.value! * 3, meter: 'handheld' },
    );
    expect(shoppingList(wrong).find((i) => i.id === line.id)).toMatchObject({ quantity: 1, instead: [0] });
    const replaced = log(wrong, { kind: 'received', line: line.id, quantity: 1, instead: [0] });
    expect(cell(replaced)).toMatchObject({ counted: line.quantity, verdict: 'none' });
  });
  test('replaced piece for piece before anybody counted, nothing is missing', () => {
    const wrong = log(base, { kind: 'measured', line: line.id, piece: 0, mode: 'ohms', reading: line.value! * 3, meter: 'handheld' });
    const replaced = log(wrong, { kind: 'received', line: line.id, quantity: 1, instead: [0] });
    expect(cell(replaced)).toMatchObject({ counted: null, verdict: 'none' });
    expect(shoppingList(replaced).some((i) => i.id === line.id)).toBe(false);
  });
});

describe('further figures of a loose part', () => {
  const line = (more: Partial<Line>): Line => ({ id: 'x', kind: 'resistor', label: 'x', value: null, tolerance: null, quantity: 1, refs: [], ...more });
  const figured = (reading: number | 'over' | null, good?: boolean): EntryOf<'figured'> => ({
    kind: 'figured',
    id: 'e',
    at: '2026-01-01T00:00:00Z',
    line: 'x',
    piece: 0,
    figure: 'f',
    reading,
    meter: 'handheld',
    ...(good === undefined ? {} : { good }),
  });
  test('an electrolytic by ESR and leakage: tan δ 0.2 at 120 Hz, and the larger of 0.01 C V and 3 µA (data sheets, from memory)', () => {
    const [esr, leakage] = figuresOf(line({ kind: 'electrolytic', value: 100e-6, rating: { volts: 25 } }));
    expect(esr!.limits!.high).toBeCloseTo(2.65, 2);
    expect(leakage!.limits!.high).toBeCloseTo(25e-6, 9);
    expect(judgeFigure(esr!, figured(0.4))).toBe('in');
    expect(judgeFigure(esr!, figured(9))).toBe('out');
    expect(judgeFigure(esr!, figured('over'))).toBe('out');
  });
  test.each<[Line['kind'], Partial<Line>, string[]]>([
    ['trimmer', {}, ['sweep', 'ends']],
    ['relay', {}, ['closed', 'opened', 'clicks']],
    ['zener', { value: 5.1 }, ['zener']],
    ['nmos', { range: [1, 2.5] }, ['threshold', 'channel']],
    ['switch', {}, ['closed', 'opened']],
    ['crystal', {}, ['rings']],
    ['led', {}, ['colour']],
    ['other', { label: 'buzzer 5 V' }, ['sounds']],
    ['other', { label: '8 ohm loudspeaker' }, ['voice-coil', 'crackles']],
    ['resistor', {}, []],
  ])('%s', (kind, more, ids) => {
    expect(figuresOf(line({ kind, ...more })).map((f) => f.id)).toEqual(ids);
  });
  test('an open contact reads over-range; a closed one does not', () => {
    const [closed, opened] = figuresOf(line({ kind: 'switch' }));
    expect(judgeFigure(opened!, figured('over'))).toBe('in');
    expect(judgeFigure(closed!, figured('over'))).toBe('out');
  });
  test('what was looked at and is not so makes the piece a bad one, and it goes on the shopping list', () => {
    const base = demo();
    const led = base.sheet.lines.find((l) => l.kind === 'led')!;
    const bad = log(base, { kind: 'figured', line: led.id, piece: 0, figure: 'colour', reading: null, good: false, meter: 'handheld' });
    expect(deriveTray(bad).find((c) => c.line.id === led.id)!.pieces[0]!.verdict).toBe('out');
    expect(shoppingList(bad).find((i) => i.id === led.id)!.instead).toEqual([0]);
  });
});

describe('a record under another name', () => {
  test('checks go on probing a test point that is called otherwise', () => {
    const base = demo();
    const point = base.sheet.testPoints.find((t) =>
      base.sheet.stages.some((s) => s.checks.some((c) => c.what === 'measure' && 'testPoint' in c.red && c.red.testPoint === t.id)),
    )!;
    const renamed = log(base, ...written(base, 'testPoints', { ...point, id: 'TPX' }, point.id));
    const probes = (k: KitState, id: string) =>
      k.sheet.stages.flatMap((s) => s.checks.filter((c) => c.what === 'measure' && 'testPoint' in c.red && c.red.testPoint === id)).length;
    expect(probes(renamed, 'TPX')).toBe(probes(base, point.id));
    expect(probes(renamed, point.id)).toBe(0);
    expect(renamed.sheet.testPoints.map((t) => t.id).indexOf('TPX')).toBe(base.sheet.testPoints.indexOf(point));
  });
  test('under the same name it is changed where it stands', () => {
    const base = demo();
    const [point] = base.sheet.testPoints;
    const done = log(base, ...written(base, 'testPoints', { ...point!, where: 'elsewhere' }, point!.id));
    expect(done.sheet.testPoints[0]).toMatchObject({ id: point!.id, where: 'elsewhere' });
  });
});
