/** Switching on: what a healthy board draws and keeps, by what it is fed, and the cautions that apply. */
import {
  cautionsOf,
  CAUTIONS,
  chargingTime,
  firstPower,
  firstPowerUnknown,
  forecastStage,
  fuseFor,
  limitFor,
  starvedBy,
  type StageForecast,
} from '@/core/power';
import type { KitState, Sheet, Stage } from '@/core/kit';
import { newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { presetsOf } from '@/core/loop/presets';
import { answerOf, checkTargets } from '@/core/loop';
import { setupOf } from '@/core/stage';
import { at, log } from '../support/kits';

const stage = (over: Partial<Stage>): Stage => ({ id: 's', title: 'First power', kind: 'power', fits: [], supplies: [], checks: [], ...over });
const kitOf = (deck: string, stages: readonly Stage[], over: Partial<Sheet> = {}): KitState =>
  newKit({ ...EMPTY_SHEET, circuit: { deck, neighbours: [] }, stages: [...stages], ...over }, at(0));
const forecastOf = (kit: KitState, id = 's') => forecastStage(setupOf(kit), id)!;

const resistor = (ref: string, value: number, tolerance = 0.01) => ({
  id: ref,
  kind: 'resistor' as const,
  label: `${value} ohm`,
  value,
  tolerance: [-tolerance, tolerance] as [number, number],
  quantity: 1,
  refs: [ref],
});

describe('a resistor and a capacitor on 10 V', () => {
  // Worked by hand: 10 V ± 2 % over 1 kΩ ± 1 % draws 9.7 to 10.3 mA; 1000 µF at 10 V keep 50 mJ and 10 mC.
  const kit = kitOf('rc\nV1 in 0 10\nR1 in 0 1k\nC1 in 0 1000u\n.end', [stage({ supplies: [{ source: 'V1', volts: 10, limit: 0.1 }] })], {
    lines: [resistor('R1', 1000), { ...resistor('R7', 1e-3), kind: 'electrolytic', label: '1000 µF', refs: ['EC1'] }],
    circuit: { deck: 'rc\nV1 in 0 10\nR1 in 0 1k\nC1 in 0 1000u\n.end', neighbours: [], elements: { EC1: 'C1' } },
  });
  const forecast = forecastOf(kit);

  test('current, charge and energy are those of the formulas', () => {
    const [v1] = forecast.supplies;
    expect(v1!.amperes[0]).toBeGreaterThan(0.0097);
    expect(v1!.amperes[1]).toBeLessThan(0.0103);
    expect(forecast.charge).toBeCloseTo(0.01, 6);
    expect(forecast.stored).toMatchObject({ ref: 'EC1', volts: 10 });
    expect(forecast.stored!.joules).toBeCloseTo(0.05, 6);
    expect(forecast.dcVolts).toBeCloseTo(10, 6);
    expect(forecast.warm).toEqual([{ ref: 'R1', watts: expect.closeTo(0.1, 3) as number }]);
  });

  test('the limit leaves room of two, and the charge says how long the display stands there', () => {
    expect(limitFor(forecast.supplies[0]!)).toBe(0.025);
    // t = Q / (limit − drawn)
    expect(chargingTime(0.01, 0.03, 0.01)).toBeCloseTo(0.5, 9);
    expect(chargingTime(0.01, 0.01, 0.02)).toBe(Infinity);
    const { set, watch } = firstPower({ by: 'bench' }, forecast);
    expect(set).toEqual(['V1: 10.0 V, current limit 25 mA']);
    expect(watch[0]).toMatch(/9\.7 mA to 10 mA once it has settled; the display shows the limit for about 6[78]0 ms/);
  });

  test('a limit of the stage below what a healthy board takes is said, one above it is not', () => {
    const fed = (limit: number) => starvedBy(forecast, { supplies: [{ source: 'v1', volts: 10, limit }] });
    expect(fed(0.009)).toEqual([
      'V1: a healthy board takes 9.7 mA to 10 mA; at the limit of 9.0 mA that this stage says its supply sags, and every voltage reads low.',
    ]);
    expect(fed(0.011)).toEqual([]);
    expect(starvedBy(forecast, { supplies: [] })).toEqual([]);
  });

  test('a weak battery loses volts inside it', () => {
    const { watch, against } = firstPower({ by: 'battery', volts: 10, ohms: 50 }, forecast);
    expect(watch.join()).toMatch(/about 9\.\d+ V.*5\d0 mV are lost/);
    expect(against).toEqual([]);
    expect(firstPower({ by: 'battery', volts: 6, ohms: 5 }, forecast).against.join()).toMatch(
      /needs 10\.0 V: at 6\.00 V the windows of this stage do not hold/,
    );
  });

  test('what does not fit is said: a port of 5 V, a lamp that is too large or too small', () => {
    expect(firstPower({ by: 'usb' }, forecast).against.join()).toMatch(/needs 10\.0 V; a port gives 5 V/);
    expect(firstPower({ by: 'lamp', volts: 12, watts: 60 }, forecast).against.join()).toMatch(/much larger/);
    expect(firstPower({ by: 'lamp', volts: 12, watts: 5 }, forecast).off.join()).toMatch(/stays bright|half bright/);
    const hungry: StageForecast = { ...forecast, supplies: [{ ...forecast.supplies[0]!, amperes: [4, 4], watts: 40 }] };
    expect(firstPower({ by: 'lamp', volts: 12, watts: 5 }, hungry).against.join()).toMatch(/more than this lamp lets through/);
    expect(firstPower({ by: 'usb' }, { ...hungry, supplies: [{ ...hungry.supplies[0]!, volts: 5 }] }).against.join()).toMatch(/gives up/);
  });
});

test('a fuse is the next of its series above one and a half times the current', () => {
  expect(fuseFor(0.1)).toBe(0.16);
  expect(fuseFor(0.21)).toBe(0.315);
  expect(fuseFor(20)).toBeNull();
});

describe('a board behind a winding', () => {
  // 12 V RMS into 120 Ω: 100 mA RMS and 1.2 W (Ohm's law); a forecast of a running board allows a quarter more.
  const kit = kitOf('ac\nV1 a 0 SIN(0 16.97 50)\nR1 a 0 120\n.end', [stage({ supplies: [{ source: 'V1', volts: 12, limit: 1, feed: 'winding' }] })], {
    lines: [resistor('R1', 120)],
  });
  test('its current is RMS, its power the mean; a bench supply cannot feed it', () => {
    const [v1] = forecastOf(kit).supplies;
    expect((v1!.amperes[0] + v1!.amperes[1]) / 2).toBeCloseTo(0.1, 3);
    expect(v1!.watts / 1.25).toBeCloseTo(1.2, 2);
    expect(firstPower({ by: 'bench' }, forecastOf(kit)).against.join()).toMatch(/it gives AC/);
  });
  test('the mains side of its transformer is warned of, low volts are not', () => {
    const cautions = cautionsOf(kit, kit.sheet.stages[0]!, forecastOf(kit));
    expect(cautions).toContain(CAUTIONS.transformer);
    expect(cautions).not.toContain(CAUTIONS.mains);
  });
});

test('a stage without a supply that the circuit knows has no forecast', () => {
  const kit = kitOf('rc\nV1 in 0 10\nR1 in 0 1k\n.end', [stage({}), stage({ id: 't', supplies: [{ source: 'V7', volts: 5, limit: 0.1 }] })]);
  expect(forecastStage(setupOf(kit), 's')).toBeNull();
  expect(forecastStage(setupOf(kit), 't')).toBeNull();
  expect(forecastStage(setupOf(kit), 'nowhere')).toBeNull();
});

describe('cautions stand exactly where they apply', () => {
  const supplies = (volts: number, feed?: 'winding') => [{ source: 'V1', volts, limit: 0.1, ...(feed ? { feed } : {}) }];
  const deck = (volts: number) => `x\nV1 in 0 ${volts}\nR1 in 0 100k\nC1 in 0 470u\n.end`;
  const electrolytic = { id: 'c', kind: 'electrolytic' as const, label: '470u', value: 470e-6, tolerance: null, quantity: 1, refs: ['C1'] };
  const of = (kit: KitState, i = 0) => cautionsOf(kit, kit.sheet.stages[i]!, forecastStage(setupOf(kit), kit.sheet.stages[i]!.id));
  test.each([
    [9, false],
    [119, false],
    [150, true],
  ])('%d V DC: work for somebody licensed %p', (volts, licensed) => {
    const kit = kitOf(deck(volts), [stage({ supplies: supplies(volts) })], { lines: [resistor('R1', 1e5)] });
    expect(of(kit).includes(CAUTIONS.mains)).toBe(licensed);
  });
  test('eye protection at the first power of electrolytics, not at a later stage', () => {
    const kit = kitOf(deck(9), [stage({ supplies: supplies(9) }), stage({ id: 't', supplies: supplies(9) })], { lines: [electrolytic] });
    expect(of(kit)).toContain(CAUTIONS.power);
    expect(of(kit, 1)).not.toContain(CAUTIONS.power);
  });
  test('a charge that cracks is named with its energy', () => {
    // ½ · 470 µF · (60 V)² = 0.85 J
    const kit = kitOf(deck(60), [stage({ supplies: supplies(60) })], { lines: [electrolytic] });
    expect(of(kit).join()).toMatch(/C1 keeps 850 mJ at 60 V/);
  });
  test('lithium cells, ohms and currents', () => {
    const check = (mode: 'ohms' | 'dca') => [{ id: 'c', what: 'measure' as const, title: 'c', mode, red: { net: 'in' }, black: { net: '0' } }];
    const kit = kitOf(deck(9), [stage({ kind: 'cold', checks: check('ohms') }), stage({ id: 't', supplies: supplies(9), checks: check('dca') })], {
      needs: [{ id: 'n', kind: 'supply', text: 'two Li-ion cells' }],
    });
    expect(of(kit)).toEqual([CAUTIONS.cold]);
    expect(of(kit, 1)).toEqual([CAUTIONS.lithium, CAUTIONS.across]);
  });
  test('what somebody wrote for the stage comes first and stands once', () => {
    const kit = kitOf(deck(9), [stage({ supplies: supplies(9), cautions: ['Mind the cat.', CAUTIONS.power] })], { lines: [electrolytic] });
    expect(of(kit)).toEqual(['Mind the cat.', CAUTIONS.power]);
  });
});

describe('making ready', () => {
  const measured = { id: 'c', what: 'measure' as const, title: 'c', mode: 'dcv' as const, red: { net: 'in' }, black: { net: '0' } };
  const powered = stage({
    supplies: [{ source: 'V1', volts: 9, limit: 0.05 }],
    settings: [{ ref: 'VR1', value: 0, text: 'VR1 at its low end' }],
    without: ['U1'],
    checks: [measured],
  });
  test('supplies, settings and what is out are named; a look wants nothing', () => {
    expect(presetsOf(powered)).toEqual(['V1 9.00 V, limit 50 mA', 'VR1 at its low end', 'U1 out', 'nothing connected to the outputs']);
    expect(presetsOf(stage({ kind: 'cold' }))).toEqual(['supply unplugged', 'capacitors discharged']);
    expect(presetsOf(stage({ kind: 'cold', power: 'off' }))[0]).toBe('supply switched off');
    expect(presetsOf(stage({ kind: 'look' }))).toEqual([]);
  });
  test('its settings take the place of positions that were noted before', () => {
    const kit = kitOf('x\nV1 in 0 9\nR1 in 0 1k\n.end', [powered]);
    const turned = log(kit, { kind: 'set', ref: 'VR1', value: 0.4 }, { kind: 'set', ref: 'VR2', value: 0.7 });
    const ready = log(turned, { kind: 'prepared', stage: 's', confirmed: 'VR1 at its low end' });
    expect([...ready.board.set]).toEqual([['VR2', 0.7]]);
    expect(log(ready, { kind: 'set', ref: 'VR1', value: 0.5 }).board.set.get('VR1')).toBe(0.5);
    // A stage that sets none of them leaves the board as it is.
    const other = log(log(kit, { kind: 'set', ref: 'VR2', value: 0.7 }), { kind: 'prepared', stage: 's', confirmed: '' });
    expect(other.board.set.size).toBe(1);
  });
  test('a stage under power without a circuit wants its supply as well, a look and a cold one do not', () => {
    expect(presetsOf(stage({}))).toEqual(['supply as the instructions say, its limit low', 'nothing connected to the outputs']);
    expect(presetsOf(stage({ kind: 'load' }))).toContain('load connected');
    // Switched off on purpose: nothing is set.
    expect(presetsOf(stage({ power: 'off' }))).toEqual([]);
  });
  test('what nobody computed begins with the least, whatever feeds it', () => {
    expect(firstPowerUnknown({ by: 'bench' }).set.join()).toMatch(/current limit 20 mA/);
    expect(firstPowerUnknown({ by: 'battery', volts: 9, ohms: 5 }).set.join()).toMatch(/no more than 1\.8 A/);
    expect(firstPowerUnknown({ by: 'lamp', volts: 12, watts: 6 }).set.join()).toMatch(/about 500 mA/);
    for (const by of ['usb', 'fuse'] as const) expect(firstPowerUnknown({ by }).off.join()).toMatch(/smoke/);
  });
  test('a stage is made ready first, once, and again when it is done again', () => {
    const kit = kitOf('x\nV1 in 0 9\nR1 in 0 1k\n.end', [powered]);
    const [first] = checkTargets(kit, null);
    expect(first).toMatchObject({ target: { kind: 'prepare' }, done: false });
    expect(answerOf(first!.target, false)).toBeNull();
    const ready = log(kit, answerOf(first!.target, true)!);
    expect(checkTargets(ready, null)[0]).toMatchObject({ target: { kind: 'prepare' }, done: true });
    const again = log(ready, { kind: 'gated', stage: 's', go: 'again', reason: 'moved the board' });
    expect(checkTargets(again, null)[0]).toMatchObject({ done: false });
  });
});
