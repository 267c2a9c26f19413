/** What a circuit brings along beside its deck: points with their places, looks; into a new kit, and into one that is there. */
import { findPart, readDeck } from '@/core/circuit';
import { besideChanges, type Beside, makeSheet, placeTemplate, readDraft, suppliesIn, TEMPLATES, withSupplyVolts } from '@/core/draft';
import { type KitState, sheetWith } from '@/core/kit';
import { kitOf, log } from '../support/kits';

const template = TEMPLATES.find((t) => t.id === 'microcontroller')!;
const placed = placeTemplate('', template.build(Object.fromEntries(template.fields.map((f) => [f.key, f.initial]))), [], {
  filled: {},
  absent: new Set(),
  shared: new Set(),
});
const beside: Beside = { where: placed.points, looks: placed.looks };

describe('a new kit', () => {
  const draft = readDraft('', placed.deck);
  const sheet = makeSheet('Controller', draft, placed.deck, draft.nets, beside);
  test('its points say where they are found, in the words of the circuit or by the parts that meet there', () => {
    expect(sheet.testPoints.find((t) => t.net === 'reset')!.where).toBe('reset pin of the socket');
    expect(sheet.testPoints.find((t) => t.net === 'litp')!.where).toMatch(/^net litp, where /);
  });
  test('its looks stand in the last stage under power that is no load test, with the part that shows them', () => {
    const stage = sheet.stages.findLast((s) => s.supplies.length > 0 && s.kind !== 'load')!;
    expect(stage.checks.at(-1)).toMatchObject({ what: 'observe', title: 'the power light is on', sign: { ref: 'D3', amperes: 1e-3 } });
    expect(sheet.stages.flatMap((s) => s.checks).filter((c) => c.title === 'the power light is on')).toHaveLength(1);
  });
  test('without anything beside it, it is the sheet that it always was', () => {
    const plain = makeSheet('Controller', draft, placed.deck, draft.nets);
    expect(plain.stages.flatMap((s) => s.checks).some((c) => c.id.startsWith('look-the-power'))).toBe(false);
  });
});

describe('a kit that is there', () => {
  const base = (): KitState =>
    kitOf(
      sheetWith({
        title: 'Old',
        circuit: { deck: placed.deck, neighbours: [] },
        testPoints: [{ id: 'TP1', net: 'VCC', where: 'as I named it' }],
        stages: [
          { id: 'look', title: 'Look', kind: 'look', fits: [], supplies: [], checks: [] },
          { id: 'on', title: 'On', kind: 'power', fits: [], supplies: [{ source: 'V1', volts: 9, limit: 0.1 }], checks: [] },
        ],
      }),
    );
  const changed = log(base(), ...besideChanges(base(), beside));
  test('points join those that are there; a net that has one keeps it under its own name', () => {
    const { testPoints } = changed.sheet;
    expect(testPoints.filter((t) => t.net.toLowerCase() === 'vcc')).toEqual([{ id: 'TP1', net: 'VCC', where: 'as I named it' }]);
    expect(testPoints).toHaveLength(Object.keys(beside.where).length);
    expect(new Set(testPoints.map((t) => t.id)).size).toBe(testPoints.length);
  });
  test('looks join the stage under power, once', () => {
    const on = changed.sheet.stages.find((s) => s.id === 'on')!;
    expect(on.checks.map((c) => c.title)).toEqual(beside.looks.map((l) => l.title));
    const doubled = makeSheet('x', readDraft('', placed.deck), placed.deck, [], { ...beside, looks: [...beside.looks, ...beside.looks] });
    const ids = doubled.stages.flatMap((st) => st.checks.map((c) => `${st.id}/${c.id}`));
    expect(new Set(ids).size).toBe(ids.length);
    const again = log(changed, ...besideChanges(changed, beside));
    expect(again.sheet.stages.find((s) => s.id === 'on')!.checks).toHaveLength(beside.looks.length);
    expect(again.sheet.testPoints).toHaveLength(changed.sheet.testPoints.length);
  });
  test('nothing beside changes nothing', () => {
    expect(besideChanges(base(), { where: {}, looks: [] })).toEqual([]);
  });
});

test('supplies are read from a deck as they are fed: DC, a bare number, a winding by its RMS (amplitude over √2)', () => {
  expect(suppliesIn('t\nV1 a 0 DC 9\nV2 b 0 5\nV3 c d SIN(0 16.97 60)\nV4 q 0 PULSE(0 5 0 1u 1u 1m 2m)\nR1 a 0 1k')).toEqual([
    { ref: 'V1', volts: 9, kind: 'dc' },
    { ref: 'V2', volts: 5, kind: 'dc' },
    { ref: 'V3', volts: 12, kind: 'winding' },
  ]);
});
test('other volts at a supply: the frequency of a winding and everything else stay', () => {
  const deck = 't\nV3 c d SIN(0 16.97 60)\nR1 c d 1k';
  const [winding] = suppliesIn(deck);
  const changed = withSupplyVolts(deck, winding!, 9);
  expect(findPart(readDeck(changed).circuit, 'V3')).toMatchObject({ nodes: ['c', 'd'], wave: { shape: 'sin', amplitude: 12.728, frequency: 60 } });
  expect(changed.split('\n')[2]).toBe('R1 c d 1k');
});
