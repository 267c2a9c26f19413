/** What parts bear against what they stand, controls, and what is supposed of a board. */
import { readDeck } from '@/core/circuit/deck/read';
import { findPart } from '@/core/circuit/netlist';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { type Consequence, ConsequenceSolver, consequenceText } from '@/core/consequence';
import { ratingsOf } from '@/core/consequence/ratings';
import { overloads, powerOf, switchOnOverloads } from '@/core/consequence/stress';
import { type KitState, type Line, type LineKind, newKit, type Sheet, type Stage, type TypeCard } from '@/core/kit';
import { circuitAt } from '@/core/stage/circuitAt';
import { controlOf } from '@/core/stage/elements';
import { checkPlaces } from '@/core/stage/placesCheck';

import { DEMOS } from '@/stand-in';
import { setupOf, windowsOfKit } from '../support/kits';

const line = (kind: LineKind, refs: string[], rest: Partial<Line> = {}): Line => ({
  id: refs.join('-'),
  kind,
  label: rest.type ?? kind,
  value: null,
  tolerance: null,
  quantity: refs.length,
  refs,
  ...rest,
});

function kitOf(deck: string, lines: readonly Line[], stages: readonly Stage[] = [], typeCards: readonly TypeCard[] = []): KitState {
  const sheet: Sheet = {
    title: 'Test',
    boards: [{ id: 'A', name: 'Board' }],
    lines,
    needs: [],
    options: [],
    circuit: { deck: `t\n${deck}\n.end`, neighbours: [] },
    testPoints: [],
    placement: [],
    symbols: [],
    pads: [],
    stages,
    claims: [],
    typeCards,
    photos: [],
    constraints: [],
    differences: [],
    functions: null,
  };
  return newKit(sheet, { id: 'k', at: '2026-01-01T00:00:00Z' });
}
const circuitOf = (kit: KitState) => readDeck(kit.sheet.circuit!.deck).circuit;
const burnt = (deck: string, lines: readonly Line[], cards: readonly TypeCard[] = []) => {
  const kit = kitOf(deck, lines, [], cards);
  return overloads(setupOf(kit), circuitOf(kit)).map((o) => `${o.ref} ${o.what}`);
};

describe('ratings', () => {
  const kit = kitOf('R1 a 0 1k', []);
  test('a type card’s limits, the list’s before them', () => {
    expect(ratingsOf(setupOf(kit), line('diode', ['D1'], { type: '1N4148' }))).toEqual({ volts: 75, amperes: 0.2 });
    expect(ratingsOf(setupOf(kit), line('diode', ['D1'], { type: '1N4007' }))).toMatchObject({ volts: 1000, amperes: 1, surge: 30 });
    expect(ratingsOf(setupOf(kit), line('npn', ['Q1'], { type: 'BC547', rating: { watts: 0.3 } }))).toMatchObject({ volts: 45, amperes: 0.1, watts: 0.3 });
  });
  test('a resistor has only what the list prints; an unknown type has nothing', () => {
    expect(ratingsOf(setupOf(kit), line('resistor', ['R1'], { value: 1000, rating: { watts: 0.25 } }))).toEqual({ watts: 0.25 });
    expect(ratingsOf(setupOf(kit), line('diode', ['D1'], { type: 'XYZ99' }))).toEqual({});
  });
  test('a card of the kit’s own goes before the common one', () => {
    const own = kitOf('R1 a 0 1k', [], [], [{ type: '1N4148', pins: {}, figures: [{ name: 'forward current', value: 0.15, unit: 'A', source: 'typed' }] }]);
    expect(ratingsOf(setupOf(own), line('diode', ['D1'], { type: '1N4148' }))).toEqual({ amperes: 0.15 });
  });
});

describe('at the operating point (P = U I, Ohm)', () => {
  test('power of a resistor: 12 V on 470 Ω is 306 mW', () => {
    const at = (watts: number) => burnt('V1 a 0 12\nR1 a 0 470', [line('resistor', ['R1'], { value: 470, rating: { watts } })]);
    expect(at(0.25)).toEqual(['R1 power']);
    expect(at(0.5)).toEqual([]);
    const kit = kitOf('V1 a 0 12\nR1 a 0 470', []);
    expect(powerOf(setupOf(kit), circuitOf(kit), 'R1')).toBeCloseTo(144 / 470, 9);
    expect(powerOf(setupOf(kit), circuitOf(kit), 'R9')).toBe(0);
  });
  test('voltage of a capacitor, either way round', () => {
    for (const v of [20, -20])
      expect(burnt(`V1 a 0 ${v}\nR1 a b 1k\nC1 b 0 10u`, [line('electrolytic', ['C1'], { value: 1e-5, rating: { volts: 16 } })])).toEqual(['C1 voltage']);
  });
  test('a diode: forward current and reverse voltage, each only in its direction', () => {
    const diode = [line('diode', ['D1'], { type: '1N4148' })];
    const model = '.model X D(IS=4E-9 N=1.9)';
    expect(burnt(`V1 a 0 12\nR1 a b 39\nD1 b 0 X\n${model}`, diode)).toEqual(['D1 current']);
    expect(burnt(`V1 a 0 12\nR1 a b 100\nD1 b 0 X\n${model}`, diode)).toEqual([]);
    expect(burnt(`V1 a 0 -80\nR1 a b 39\nD1 b 0 X\n${model}`, diode)).toEqual(['D1 voltage']);
  });
  test('a transistor: collector current, power, voltage', () => {
    const q = [line('npn', ['Q1'], { type: 'BC547' })];
    const stage = (supply: number, collector: number, base: string) =>
      burnt(`V1 v 0 ${supply}\nR1 v c ${collector}\nR2 v b ${base}\nQ1 c b 0 X\n.model X NPN(IS=1E-14 BF=250)`, q);
    expect(stage(12, 1000, '100k')).toEqual([]);
    expect(stage(12, 60, '10k')).toEqual(['Q1 current']);
    expect(stage(40, 400, '195k')).toEqual(expect.arrayContaining(['Q1 power']));
    expect(stage(60, 10_000, '1G')).toEqual(['Q1 voltage']);
  });
  test('a MOSFET: drain current', () => {
    const m = [line('nmos', ['M1'], { type: '2N7000' })];
    const deck = (ohms: number) => `V1 v 0 12\nR1 v d ${ohms}\nM1 d v 0 0 X\n.model X NMOS(VTO=2 KP=0.2)`;
    expect(burnt(deck(1000), m)).toEqual([]);
    expect(burnt(deck(40), m)).toEqual(['M1 current']);
  });
  test('an exact rating is no overload; a part without one is never named', () => {
    expect(burnt('V1 a 0 10\nR1 a 0 400', [line('resistor', ['R1'], { value: 400, rating: { watts: 0.25 } })])).toEqual([]);
    expect(burnt('V1 a 0 400\nR1 a 0 1', [line('resistor', ['R1'], { value: 1 })])).toEqual([]);
  });
});

describe('running', () => {
  const half = `V1 a 0 SIN(0 20 50)\nD1 a b X\nR1 b 0 100\n.model X D(IS=4E-9 N=1.9)`;
  test('a rectifier diode bears the mean of its half waves, û/(π R), and the whole peak backwards', () => {
    const kit = kitOf(half, [line('diode', ['D1'], { rating: { amperes: 0.05, volts: 15 } })]);
    const found = overloads(setupOf(kit), circuitOf(kit));
    const mean = found.find((o) => o.what === 'current')!;
    // 0.85 V stay across the diode: (20 − 0.85) / (π 100), a little less for the angle lost.
    expect(mean.value).toBeGreaterThan(0.054);
    expect(mean.value).toBeLessThan(20 / (Math.PI * 100));
    expect(found.find((o) => o.what === 'voltage')!.value).toBeCloseTo(20, 0);
  });
  test('a resistor bears the mean of its power: û²/(4 R) of a half wave', () => {
    const kit = kitOf(half, [line('resistor', ['R1'], { value: 100, rating: { watts: 0.5 } })]);
    const [found] = overloads(setupOf(kit), circuitOf(kit));
    expect(found!.what).toBe('power');
    expect(found!.value).toBeLessThan(1);
    expect(found!.value).toBeGreaterThan(0.85);
  });
});

describe('at switch-on', () => {
  test('an empty reservoir draws a surge through its diode: more than a small diode’s card allows', () => {
    const deck = 'V1 a 0 12\nD1 a b X\nC1 b 0 220u\nR1 b 0 10k\n.model X D(IS=7E-9 N=1.8 RS=0.04)';
    const small = kitOf(
      deck,
      [line('diode', ['D1'], { label: 'own', type: 'OWN1' })],
      [],
      [{ type: 'OWN1', pins: {}, figures: [{ name: 'surge current', value: 2, unit: 'A', source: 'typed' }] }],
    );
    const [surge] = switchOnOverloads(setupOf(small), circuitOf(small), ['V1']);
    expect(surge).toMatchObject({ ref: 'D1', what: 'current', when: 'switch-on', rating: 2 });
    // At most the supply less a junction, over the resistances in the loop (0.5 Ω and 0.04 Ω).
    expect(surge!.value).toBeLessThan(12 / 0.54);
    expect(surge!.value).toBeGreaterThan(10);
    const rectifier = kitOf(deck, [line('diode', ['D1'], { type: '1N4007' })]);
    expect(switchOnOverloads(setupOf(rectifier), circuitOf(rectifier), ['V1'])).toEqual([]);
  });
  test('a coil and a capacitor ring to twice the supply: 16 V are too little on 12 V', () => {
    const deck = 'V1 a 0 12\nL1 a b 10m\nC1 b 0 1u\nR1 b 0 100k';
    const kit = kitOf(deck, [line('capacitor', ['C1'], { value: 1e-6, rating: { volts: 16 } })]);
    expect(overloads(setupOf(kit), circuitOf(kit))).toEqual([]);
    const [ring] = switchOnOverloads(setupOf(kit), circuitOf(kit), ['V1']);
    expect(ring).toMatchObject({ ref: 'C1', what: 'voltage', when: 'switch-on' });
    expect(ring!.value).toBeGreaterThan(22);
    expect(ring!.value).toBeLessThan(24.1);
  });
});

describe('a control of two halves', () => {
  const pot = `V1 v 0 10\nRV1a v w 5k\nRV1b w 0 5k\nR1 w 0 1MEG`;
  const circuit = readDeck(`t\n${pot}`).circuit;
  test('the wiper divides the track; a track never reads nothing at its end', () => {
    const control = controlOf({ circuit: null }, circuit, 'RV1')!;
    expect(control.at(0.25)).toEqual([
      ['RV1a', 7500],
      ['RV1b', 2500],
    ]);
    expect(control.at(0)[1]).toEqual(['RV1b', 1]);
    expect(control.at(7)[0]).toEqual(['RV1a', 1]);
    expect(controlOf({ circuit: null }, circuit, 'R1')).toBeNull();
    expect(controlOf({ circuit: null }, readDeck('t\nV1 v 0 1\nRV1a v w 1k\nRV1b w 0 1k').circuit, 'V1')).toBeNull();
  });
  const stage: Stage = {
    id: 's',
    title: 'Power',
    kind: 'power',
    fits: [],
    supplies: [{ source: 'V1', volts: 10, limit: 0.1 }],
    settings: [{ ref: 'RV1', value: 0.8, text: 'nearly up' }],
    checks: [{ id: 'w', what: 'measure', title: 'wiper', mode: 'dcv', red: { net: 'w' }, black: { net: '0' } }],
  };
  const kit = kitOf(pot, [line('trimmer', ['RV1'], { value: 1e4 }), line('resistor', ['R1'], { value: 1e6 })], [stage]);
  test('a stage sets it by its position, and the list knows it has its place', () => {
    const { nodes } = operatingPoint(circuitAt(setupOf(kit), circuitOf(kit), stage));
    expect(nodes['w']).toBeCloseTo(8, 1);
    expect(checkPlaces(kit.sheet, circuitOf(kit))).toEqual([]);
  });
  test('its range is what a sweep of its position gives', () => {
    const [swept] = new ConsequenceSolver(setupOf(kit)).sweep('RV1', [0, 0.5, 1]);
    const [low, middle, high] = swept!.readings as number[];
    expect(low!).toBeCloseTo(0, 2);
    expect(middle!).toBeCloseTo(5, 1);
    expect(high!).toBeCloseTo(10, 2);
  });
});

describe('an adjustable supply (Vout = 1.25 V (1 + R2/R1), data sheets of the type)', () => {
  // An ideal reference between output and adjust, as a voltage source would hold it.
  const deck = 'V1 in 0 20\nE1 x 0 adj 0 1\nVref out x 1.25\nR1 out adj 240\nRV1 adj 0 2.4k\nR9 in 0 10k';
  const stage: Stage = {
    id: 's',
    title: 'Adjust',
    kind: 'adjust',
    fits: [],
    supplies: [{ source: 'V1', volts: 20, limit: 0.5 }],
    checks: [{ id: 'o', what: 'measure', title: 'output', mode: 'dcv', red: { net: 'out' }, black: { net: '0' } }],
  };
  test('the range that the control covers', () => {
    const kit = kitOf(deck, [line('resistor', ['R1'], { value: 240 }), line('trimmer', ['RV1'], { value: 2400 })], [stage]);
    const out = new ConsequenceSolver(setupOf(kit)).sweep('RV1', [1, 1200, 2400]).find((s) => s.observable === 's/o')!;
    const expected = [1, 1200, 2400].map((r) => 1.25 * (1 + r / 240));
    (out.readings as number[]).forEach((v, i) => {
      expect(v).toBeCloseTo(expected[i]!, 2);
    });
  });
});

describe('what is supposed of the demo', () => {
  const kit = DEMOS[0]!.kit({ id: 'd', at: '2026-01-01T00:00:00Z' });
  const windows = windowsOfKit(kit);
  const solver = new ConsequenceSolver(setupOf(kit));
  const says = (c: Consequence) => consequenceText(kit, c);

  test('nothing: nothing moves, nothing flips, nothing burns', () => {
    const c = solver.of({}, windows);
    expect(Math.max(...c.shifts.map((s) => s.share))).toBeLessThan(1e-6);
    expect([c.flips, c.overloads, c.unsolved]).toEqual([[], [], []]);
  });
  test('the free-wheel diode the wrong way round shorts the coil: the transistor dies', () => {
    const c = solver.of({ fault: { kind: 'reversed', parts: ['D3'], detail: {} } }, windows);
    expect(c.overloads.map((o) => `${o.ref} ${o.what}`)).toEqual(expect.arrayContaining(['D3 current', 'Q2 power', 'Q2 current']));
    expect(says(c).title).toBe('Do not fit: Q2 would get 4.75 W, rated 500 mW');
    expect(says(c).detail).toMatch(/Also: Q2 would get 478 mA, rated 100 mA; D3 would get 474 mA, rated 200 mA\./);
  });
  test('without it nothing that is read at rest can tell, which is why it is a look and not a reading', () => {
    expect(says(solver.of({ removed: ['D3'] }, windows))).toMatchObject({ usable: true });
  });
  test('an LED the wrong way round stays dark: its observation comes out otherwise, or its point moves', () => {
    const c = solver.of({ fault: { kind: 'reversed', parts: ['D4'], detail: {} } }, windows);
    expect(c.flips.length + c.shifts.filter((s) => s.leaves).length).toBeGreaterThan(0);
    expect(says(c).usable).toBe(false);
  });
  test('two resistors exchanged', () => {
    const c = solver.of({ fault: { kind: 'swapped', parts: ['R2', 'R5'], detail: {} } }, windows);
    expect(says(c)).toMatchObject({ usable: false, title: 'It matters here: do not fit' });
  });
  test('a chip out of its socket: the comparator’s output falls to nothing', () => {
    const c = solver.of({ removed: ['U1'] }, windows);
    const out = c.shifts.filter((s) => s.stage === 'frost' && s.observable.endsWith('@TP7'));
    for (const s of out) expect(Math.abs(s.after as number)).toBeLessThan(0.5);
    expect(says(c).usable).toBe(false);
  });
  test('law: a part taken out and a part of a million megohms read alike', () => {
    const out = solver.of({ removed: ['R12'] }, windows).shifts;
    const huge = solver.of({ values: { R12: 1e12 } }, windows).shifts;
    out.forEach((s, i) => {
      if (typeof s.after === 'number' && typeof huge[i]!.after === 'number')
        expect(Math.abs(s.after - huge[i]!.after)).toBeLessThan(1e-3 + 1e-3 * Math.abs(s.after));
    });
  });
  test('a sweep names only what moves, and at its own value nothing has moved', () => {
    const own = (findPart(readDeck(kit.sheet.circuit!.deck).circuit, 'R5') as { value: number }).value;
    expect(solver.sweep('R5', [own, own])).toEqual([]);
    const swept = solver.sweep('R5', [own / 2, own * 2]);
    expect(swept.length).toBeGreaterThan(0);
    expect(swept.every((s) => s.readings.length === 2)).toBe(true);
  });
});
