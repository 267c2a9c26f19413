/** Evidence besides the board's own readings, each with what it gains on made-up boards: a known-good twin, symptoms of the whole board. */
import { type Symptom, SYMPTOMS, workOf, workReasons } from '@/core/diagnose';
import { answer, diagnoserFor, type DiagnoseRequest } from '@/core/diagnose/request';
import { readDeck } from '@/core/circuit';
import { type Fault, FAULT_KINDS } from '@/core/fault';
import { newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { HANDHELD } from '@/core/meter';
import { FaultSampler, fromScale, MODEL_SPREADS, type Observable } from '@/core/specimen';
import { boardFor } from '@/core/diagnose/request';
import { at, log } from '../support/kits';

const meter = { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 };
const DECK = `Two lamps on a zener rail
V1 in 0 12
R1 in z 470
D1 0 z Z5V1
R2 z a 680
D2 a 0 LED
R3 z b 10k
R4 b 0 10k
.model Z5V1 D(IS=1E-14 N=1.1 RS=6 BV=5.1 IBV=5E-3)
.model LED D(IS=2.3E-20 N=2 RS=3 BV=30 IBV=1E-5)
.end`;
const row = (ref: string, kind: string, value: string, tolerance = '5%') => ({ ref, kind, value, tolerance, note: '' });
const BOM = [
  row('V1', 'supply', '12', '2%'),
  row('R1', 'resistor', '470'),
  row('D1', 'zener', '5.1'),
  row('R2', 'resistor', '680'),
  row('D2', 'led', 'LED', ''),
  row('R3', 'resistor', '10k'),
  row('R4', 'resistor', '10k'),
];
const NETS = ['z', 'a', 'b'];
const request: Omit<DiagnoseRequest, 'id' | 'readings'> = {
  deck: DECK,
  bom: BOM,
  testPoints: NETS.map((net) => ({ name: net, node: net })),
  neighbours: [['a', 'b']],
  meter,
};
const { circuit } = readDeck(DECK);
const board = boardFor(circuit, BOM, [['a', 'b']]);
const observables = NETS.map((net): Observable => ({ id: net, mode: 'dcv', red: net, black: '0' }));
/** Volts that a board of another maker's parts shows with a fault, and what its known-good twin shows. */
function shown(faults: readonly Fault[], specimen: number) {
  const scenes = [
    { circuit, observables },
    { circuit, observables: observables.map((o) => ({ ...o, id: `twin ${o.id}` })), twin: true as const },
  ];
  const healthy = new FaultSampler({ board, scenes, meter: HANDHELD }, [], new Map(), null);
  const sampler = faults.length === 0 ? healthy : new FaultSampler({ board, scenes, meter: HANDHELD }, faults, new Map(), healthy);
  const { values } = sampler.draw(specimen, 1, MODEL_SPREADS[1]!);
  const read = (from: number) => NETS.map((net, i) => ({ at: net, mode: 'dcv', value: Number(fromScale('dcv', values[from + i]!).toPrecision(4)) }));
  return { readings: read(0), twin: read(NETS.length) };
}
const probability = (of: Pick<DiagnoseRequest, 'readings' | 'twin' | 'symptoms'>, fault: Pick<Fault, 'kind' | 'parts'>) => {
  const asked = { ...request, ...of };
  const found = answer(diagnoserFor(asked), asked).suspects.find((s) => s.kind === fault.kind && 'parts' in s && s.parts.join() === fault.parts.join());
  return found?.probability ?? 0;
};
const HEALTHY = { kind: 'healthy', parts: [] } as const;

describe('a known-good twin of the same lots', () => {
  const specimens = Array.from({ length: 12 }, (_, i) => 90_000 + 37 * i);
  test('healthy boards of another maker’s parts are surer to be healthy beside it', () => {
    const gains = specimens.map((s) => {
      const { readings, twin } = shown([], s);
      return Math.log(probability({ readings, twin }, HEALTHY) / probability({ readings }, HEALTHY));
    });
    // On average, as every good reading more: here by a fifth or more in odds, and hardly ever the other way.
    expect(gains.reduce((a, b) => a + b, 0) / gains.length).toBeGreaterThan(0.1);
    expect(gains.filter((g) => g < -0.3)).toEqual([]);
  });
  test('it has no fault and the lots of the board: its lamp drops what the board’s drops, its resistors are its own', () => {
    const open: Fault = { kind: 'open', parts: ['R4'], detail: {} };
    for (const s of specimens.slice(0, 4)) {
      const [sound, broken] = [shown([], s), shown([open], s)];
      expect(broken.twin).toEqual(sound.twin);
      expect(Math.abs(sound.twin[1]!.value - sound.readings[1]!.value)).toBeLessThan(0.12);
      expect(sound.twin[2]!.value).not.toBe(sound.readings[2]!.value);
    }
  });
  test('what the twin was read at and the board lacks is said and left out', () => {
    const asked = { ...request, readings: [], twin: [{ at: 'nowhere', mode: 'dcv', value: 1 }] };
    expect(answer(diagnoserFor(asked), asked).remarks).toEqual(['nowhere of the twin: the board has no such dcv reading; it was left out']);
  });
});

describe('symptoms of the whole board', () => {
  // The lamp's net at nothing: R2 open, or the lamp shorted; nothing read tells the two apart.
  const readings = [
    { at: 'z', mode: 'dcv', value: 5.13 },
    { at: 'a', mode: 'dcv', value: 0 },
  ];
  const open = { kind: 'open', parts: ['R2'] } as const;
  const short = { kind: 'short', parts: ['D2'] } as const;
  test('it works when pressed: the open joint; something gets hot: the short', () => {
    const odds = (symptoms: Record<string, boolean>) => probability({ readings, symptoms }, open) / probability({ readings, symptoms }, short);
    const before = odds({});
    expect(odds({ pressed: true }) / before).toBeCloseTo(6, 1);
    expect(odds({ 'low-hot': true }) / before).toBeCloseTo(1 / 4, 2);
    expect(odds({ pressed: false }) / before).toBeCloseTo(1 / 2, 2);
    // Absences say the same again: they do not add up.
    expect(odds({ pressed: false, dead: false, 'lamp-dark': false, 'one-of-many': false }) / before).toBeCloseTo(1 / 2, 2);
  });
  test('answers of the guide move the odds of a kit’s suspects, with the reason beside them', () => {
    const pressed = SYMPTOMS.find((s: Symptom) => s.id === 'pressed')!;
    const kit = log(newKit(EMPTY_SHEET, at(0)), { kind: 'symptom', symptom: pressed.id, title: pressed.title, seen: true });
    const reasons = workReasons({ kind: 'open', parts: ['R2'], detail: {} }, workOf(kit));
    expect(reasons).toContainEqual({ factor: 6, why: 'it was seen: it works when pressed, warmed or moved' });
    expect(workReasons({ kind: 'weak', parts: ['Q1'], detail: {} }, workOf(kit))).toEqual([]);
  });
  test('every kind that a symptom names is one that there is, and all of them move something', () => {
    for (const { faults = {} } of SYMPTOMS)
      for (const [kind, weight] of Object.entries(faults)) {
        expect(FAULT_KINDS).toContain(kind);
        expect(weight).toBeGreaterThan(1);
      }
  });
});
