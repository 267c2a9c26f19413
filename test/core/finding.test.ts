/** What is called what, what is left to do, where things are, what happened: words and lists that the frame shows. */
import { type EntryBody, type Line, put, remove } from '@/core/kit';
import {
  chooseSteps,
  findByName,
  firstOpenPhase,
  lineTitle,
  logSteps,
  phaseProgress,
  PHASES,
  placesOf,
  sellerWords,
  standingOf,
  withdrawalOf,
} from '@/core/loop';
import { DEMOS } from '@/stand-in';
import { at, log } from '../support/kits';

const fresh = () => DEMOS[0]!.kit(at(0));
const line = (kind: Line['kind'], label: string, more: Partial<Line> = {}): Line => ({
  id: 'x',
  kind,
  label,
  value: null,
  tolerance: null,
  quantity: 1,
  refs: [],
  ...more,
});

describe('a line in our words, the seller’s beneath', () => {
  test.each([
    [line('resistor', 'Metallschichtwiderstand 4k7', { value: 4700 }), '4.7 kΩ', true],
    [line('resistor', '4.7 k', { value: 4700 }), '4.7 kΩ', false],
    [line('capacitor', '瓷片电容 104', { value: 1e-7 }), '100 nF', true],
    [line('electrolytic', 'Электролит 100мкФ', { value: 1e-4, rating: { volts: 25 } }), '100 µF 25 V', true],
    [line('led', 'LED green', { colour: 'green' }), 'green LED', false],
    [line('thermistor', '10 k NTC', { value: 10_000 }), '10 kΩ thermistor', false],
    [line('pnp', '三极管 S9012', { type: 'S9012' }), 'S9012', true],
    [line('npn', 'BC547', { type: 'NSMALL' }), 'BC547', false],
    [line('ic', 'Comparator, 8 pins'), 'Comparator, 8 pins', false],
    [line('ic', '音乐芯片'), 'chip', true],
  ])('%#: %j', (given, title, more) => {
    expect(lineTitle(given)).toBe(title);
    expect(sellerWords(given)).toBe(more ? given.label : null);
  });
});

describe('progress is true', () => {
  test('nothing is called done that never was', () => {
    const kit = fresh();
    const progress = phaseProgress(kit, null);
    expect(progress.unpack).toMatchObject({ state: 'open', left: 22, total: 22 });
    expect(progress.fit.state).toBe('open');
    expect(progress.fault.state).toBe('nothing');
    expect(firstOpenPhase(kit, null)).toBe('unpack');
  });
  test('a kit without stages has no power phase, and a kit without parts has none of the others', () => {
    const kit = fresh();
    const noStages = log(kit, ...kit.sheet.stages.map((s) => remove(kit, 'stages', s.id)!));
    expect(phaseProgress(noStages, null).power).toMatchObject({ state: 'nothing', text: 'no stages yet' });
    expect(phaseProgress(noStages, null).fit.state).toBe('open');
    const bare = log(noStages, ...kit.sheet.lines.map((l) => remove(kit, 'lines', l.id)!));
    const progress = phaseProgress(bare, null);
    expect(PHASES.map((p) => progress[p].state)).toEqual(['nothing', 'nothing', 'nothing', 'nothing', 'nothing', 'nothing']);
    expect(firstOpenPhase(bare, null)).toBe('log');
  });
  test('every count makes it one less; all counted is done', () => {
    let kit = fresh();
    for (const [i, l] of kit.sheet.lines.entries()) {
      kit = log(kit, { kind: 'counted', line: l.id, quantity: l.quantity });
      expect(phaseProgress(kit, null).unpack.left).toBe(kit.sheet.lines.length - i - 1);
    }
    expect(phaseProgress(kit, null).unpack).toMatchObject({ state: 'done', text: 'done' });
    expect(firstOpenPhase(kit, null)).toBe('check');
  });
  test('where one was: last done, next, waited for', () => {
    const kit = log(fresh(), { kind: 'counted', line: 'r-680', quantity: 1 }, { kind: 'waiting', reason: 'a 100 nF is ordered' });
    expect(standingOf(kit)).toMatchObject({ phase: 'unpack', next: 'count 1.5 kΩ', waiting: 'a 100 nF is ordered' });
    expect(standingOf(fresh()).last).toBeNull();
  });
});

describe('going to a place by its name', () => {
  const kit = fresh();
  const places = placesOf(kit, 'check');
  const first = (text: string) => findByName(places, text, 5)[0];
  test.each([
    ['r9', 'part', 'R9'],
    ['R1', 'part', 'R1'],
    ['tp4', 'test point', 'TP4'],
    ['vcc', 'net', 'vcc'],
    ['680', 'line', '680 Ω'],
    ['solder side', 'check', 'solder side'],
  ])('%s', (text, kind, title) => {
    expect(first(text)).toMatchObject({ kind, title });
  });
  test('every part can be gone to, and goes to the target that measures it', () => {
    for (const ref of kit.sheet.lines.flatMap((l) => l.refs)) expect(first(ref)?.title).toBe(ref);
    expect(first('r9')).toMatchObject({ phase: 'check' });
    expect(first('r9')!.targets[0]).toMatch(/^piece:r-10k:/);
    expect(findByName(placesOf(kit, 'fit'), 'r9', 1)[0]).toMatchObject({ phase: 'fit' });
  });
  test('a name that is nowhere finds nothing; no name finds the first ones', () => {
    expect(findByName(places, 'zzz', 5)).toEqual([]);
    expect(findByName(places, ' ', 7)).toHaveLength(7);
  });
});

describe('the logbook as steps', () => {
  const count = (id: string): EntryBody => ({ kind: 'counted', line: id, quantity: 1 });
  test('newest first; a withdrawal shows on what it took back; topics and words choose', () => {
    let kit = log(fresh(), count('r-680'), { kind: 'noted', text: 'the bag was torn' });
    const counted = kit.log.find((e) => e.kind === 'counted')!;
    kit = log(kit, { kind: 'withdrawn', entry: counted.id });
    const steps = logSteps(kit);
    expect(steps.map((s) => [s.topic, s.gone, s.making])).toEqual([
      ['notes', false, false],
      ['counting', true, false],
      ['sheet', false, true],
    ]);
    expect(withdrawalOf(kit, steps[1]!)?.kind).toBe('withdrawn');
    const chosen = (choice: Partial<Parameters<typeof chooseSteps>[1]>) =>
      chooseSteps(steps, { topics: [], search: '', withGone: true, ...choice }).map((s) => s.topic);
    expect(chosen({ withGone: false })).toEqual(['notes', 'sheet']);
    expect(chosen({ topics: ['counting'] })).toEqual(['counting']);
    expect(chosen({ search: 'TORN' })).toEqual(['notes']);
  });
  test('a change of the sheet is told in words', () => {
    const kit = fresh();
    const changed = log(kit, put(kit, 'needs', { id: 'n', kind: 'supply', text: '12 V adapter' }));
    expect(logSteps(changed)[0]).toMatchObject({ topic: 'sheet', text: expect.stringContaining('12 V adapter') as string });
  });
});
