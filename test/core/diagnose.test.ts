import { deriveStages, type Windows } from '@/core/loop/progress';
import { diagnoserOf, findSuspects } from '@/core/diagnose/investigation';
import { lastVerdict } from '@/core/loop/lastVerdict';
import { checkTargets, currentTarget, findTarget, pieceTargets, targetOfObservable } from '@/core/loop/targets';
import { cardOf } from '@/core/loop/cards';
import { readDeck } from '@/core/circuit/deck/read';
import { readDriven } from '@/core/circuit/meterDrive';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { answer, diagnoserFor } from '@/core/diagnose/request';
import { applyFault } from '@/core/fault/apply';
import type { Board } from '@/core/fault/board';
import { faultKey, HEALTHY } from '@/core/fault/fault';
import { listFaults } from '@/core/fault/list';
import { describeFault } from '@/core/fault/words';
import type { EntryBody, KitState } from '@/core/kit';
import { HANDHELD } from '@/core/meter';
import { boardOf } from '@/core/stage/boardOf';
import { circuitOf } from '@/core/stage/elements';
import { sceneOf } from '@/core/stage/scene';
import { computedWindow, type WindowResult } from '@/core/stage';
import { windowsOf } from '@/core/stage/windows';
import { DEMOS } from '@/stand-in';
import { hideFault, practiceOf, readBoard, readPiece, watchBoard } from '@/stand-in';
import { append, investigationOf, reworked, setupOf } from '../support/kits';

const DECK = `Divider with a lamp
V1 in 0 12
R1 in m 10k
R2 m 0 10k
R3 in l 1k
D1 l 0 LR
Q1 c m 0 NS
R4 in c 4.7k
.model LR D(IS=7.7E-18 N=2 RS=2)
.model NS NPN(IS=1.5E-14 BF=250 VAF=80)
.end`;
const part = (ref: string, kind: Board['parts'][number]['kind'], value: number | null, percent = 5): Board['parts'][number] => ({
  ref,
  element: ref,
  kind,
  value,
  model: null,
  tolerance: [-percent / 100, percent / 100],
  range: kind === 'npn' ? [110, 450] : null,
});
const BOARD: Board = {
  parts: [
    part('V1', 'supply', 12, 2),
    part('R1', 'resistor', 1e4),
    part('R2', 'resistor', 1e4),
    part('R3', 'resistor', 1000),
    part('D1', 'led', null),
    part('Q1', 'npn', null),
    part('R4', 'resistor', 4700),
  ],
  neighbours: [['m', 'l']],
};
const circuit = readDeck(DECK).circuit;

describe('faults as changed circuits', () => {
  const faults = listFaults(circuit, BOARD);

  test('healthy first, none twice, no fault of a supply', () => {
    expect(faults[0]).toEqual(HEALTHY);
    expect(new Set(faults.map(faultKey)).size).toBe(faults.length);
    expect(faults.some((f) => f.parts.some((r) => r === 'V1'))).toBe(false);
  });

  test('ten times, a tenth and the other values of the list; values closer than 1.25 left out', () => {
    const values = faults.flatMap((f) => (f.kind === 'wrong-value' && f.parts[0] === 'R3' ? [f.detail.value] : [])).sort((a, b) => a - b);
    expect(values).toEqual([100, 4700, 10000]);
  });

  test('every fault has words and an operating point', () => {
    for (const fault of faults) {
      expect(describeFault(fault).title).not.toBe('');
      expect(() => operatingPoint(applyFault(circuit, BOARD, fault).circuit)).not.toThrow();
    }
  });

  test('what they do: open takes out, short joins, reversed darkens, exchanged changes two places', () => {
    const at = (fault: Parameters<typeof applyFault>[2], net: string) => operatingPoint(applyFault(circuit, BOARD, fault).circuit).nodes[net]!;
    expect(at({ kind: 'open', parts: ['R3'], detail: {} }, 'l')).toBeLessThan(0.01);
    expect(at({ kind: 'short', parts: ['R4'], detail: {} }, 'c')).toBeGreaterThan(11.9);
    expect(at({ kind: 'reversed', parts: ['D1'], detail: {} }, 'l')).toBeCloseTo(12, 2);
    const { circuit: swapped, pieceAt } = applyFault(circuit, BOARD, { kind: 'swapped', parts: ['R3', 'R4'], detail: {} });
    expect(swapped.parts.filter((p) => p.kind === 'R').map((p) => [p.name, 'value' in p && p.value])).toEqual([
      ['R1', 1e4],
      ['R2', 1e4],
      ['R3', 4700],
      ['R4', 1000],
    ]);
    expect(pieceAt.get('R3')).toBe('R4');
  });
});

describe('the meter drives: supplies off', () => {
  test('ohms of a divider; over-range of nothing; a diode reads differently with the probes swapped', () => {
    const plain = readDeck('t\nV1 a 0 12\nR1 a b 1k\nR2 b 0 2k\nC1 c 0 1u\n').circuit;
    const ohms = (red: string, black: string, supplies: 'off' | 'unplugged') =>
      readDriven(plain, { type: 'ohms', red, black, testVoltage: 0.5, testResistance: 1e4 }, supplies);
    expect(ohms('a', '0', 'unplugged')).toBeCloseTo(3000, 1);
    expect(ohms('b', '0', 'off')).toBeCloseTo(2000 / 3, 1);
    expect(ohms('c', '0', 'unplugged')).toBe('over');
    const diode = readDeck('t\nD1 a 0 DX\n.model DX D(IS=4E-9 N=1.9)').circuit;
    const test = (red: string, black: string) => readDriven(diode, { type: 'diode', red, black, testCurrent: 1e-3, compliance: 2.5 }, 'unplugged');
    // Shockley: V = N VT ln(1 mA/IS + 1)
    expect(test('a', '0')).toBeCloseTo(1.9 * 0.025865 * Math.log(1e-3 / 4e-9 + 1), 3);
    expect(test('0', 'a')).toBe('over');
  });
});

describe('posterior', () => {
  const request = {
    deck: DECK,
    bom: BOARD.parts.map((p) => ({
      ref: p.ref,
      kind: p.kind,
      value: p.value === null ? 'M' : String(p.value),
      tolerance: `${p.tolerance[1] * 100}%`,
      note: p.range ? 'hfe 110..450' : '',
    })),
    testPoints: ['m', 'l', 'c'].map((node) => ({ name: node.toUpperCase(), node })),
    neighbours: [['m', 'l']] as const,
    meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 },
  };

  test.each([
    ['nothing', HEALTHY],
    ['an open resistor', { kind: 'open', parts: ['R2'], detail: {} } as const],
    ['a reversed lamp', { kind: 'reversed', parts: ['D1'], detail: {} } as const],
    ['a bridge', { kind: 'bridge', parts: [], detail: { nets: ['m', 'l'] } } as const],
    ['a wrong value', { kind: 'wrong-value', parts: ['R3'], detail: { value: 10000 } } as const],
  ])('names %s from the voltages that the reference equations give', (_, fault) => {
    const diagnoser = diagnoserFor(request);
    const { nodes, branches } = operatingPoint(applyFault(circuit, BOARD, fault).circuit);
    const readings = [
      { at: 'V1', mode: 'dca', value: -branches['V1']! },
      ...request.testPoints.map((t) => ({ at: t.name, mode: 'dcv', value: nodes[t.node]! })),
    ];
    const { suspects, unexplained, next } = answer(diagnoser, { ...request, readings });
    const total = suspects.reduce((s, x) => s + x.probability, 0) + unexplained;
    expect(total).toBeGreaterThan(0.98);
    expect(total).toBeLessThan(1.000001);
    expect(next).toBeNull();
    const top = suspects.slice(0, fault.kind === 'reversed' || fault.kind === 'open' ? 3 : 1).map((s) => (s.kind === 'pair' ? s.kind : faultKey(s)));
    expect(top).toContain(faultKey(fault));
  });

  test('from the current alone it asks for a reading, worth some bits', () => {
    const { next, suspects } = answer(diagnoserFor(request), { ...request, readings: [{ at: 'V1', mode: 'dca', value: 0.0033 }] });
    expect(next).toMatchObject({ mode: 'dcv' });
    expect(next!.bits).toBeGreaterThan(0.1);
    expect(suspects[0]!.kind).not.toBe('healthy');
  });

  test('bad requests name row, line or node', () => {
    expect(() => diagnoserFor({ ...request, deck: 't\nR1 a' })).toThrow(/line 2/);
    expect(() => diagnoserFor({ ...request, bom: [{ ref: 'R1', kind: 'gizmo', value: '1' }] })).toThrow(/row 1 \(R1\).*gizmo/);
    expect(() => diagnoserFor({ ...request, testPoints: [{ name: 'TP9', node: 'nowhere' }] })).toThrow(/TP9.*nowhere/);
  });
});

describe('the demo, end to end in the core', () => {
  const fresh = () => DEMOS[0]!.kit({ id: 'k', at: '2026-01-01T00:00:00Z' });
  let n = 0;
  const log = (kit: KitState, body: EntryBody) => append(kit, body, { id: `x${++n}`, at: new Date(1e12 + n).toISOString() });
  const allWindows = (kit: KitState): Windows => {
    const whole = circuitOf(kit.sheet);
    return Object.fromEntries(kit.sheet.stages.flatMap((s) => [...windowsOf(sceneOf(setupOf(kit), whole, s), boardOf(setupOf(kit), whole), HANDHELD)]));
  };
  const readStage = (kit: KitState, id: string) => {
    const stage = kit.sheet.stages.find((s) => s.id === id)!;
    return stage.checks.reduce((k, c) => {
      if (c.what === 'observe') return log(k, { kind: 'observed', stage: id, check: c.id, asExpected: watchBoard(practiceOf(k), stage, c) });
      return log(k, { kind: 'read', stage: id, check: c.id, reading: readBoard(practiceOf(k), stage, `${id}/${c.id}`, 1)!, meter: 'handheld' });
    }, kit);
  };

  test('the deck is sound and its design figures are right: rails after guard diode and zener follower', () => {
    const kit = fresh();
    expect(readDeck(kit.sheet.circuit!.deck).diagnostics).toEqual([]);
    const known = allWindows(kit);
    const windows = (id: string) => computedWindow(known[id])!;
    // 12 V less one junction; 5.6 V zener less one junction (common practice, no source).
    expect(windows('empty/tp1').middle).toBeCloseTo(11.3, 1);
    expect(windows('empty/tp3').middle).toBeCloseTo(5, 0);
    // Bridge: 12.5 k of 22.5 k at 5 V; reference 9.7 k of 13 k.
    expect(windows('warm/tp4').middle).toBeCloseTo((windows('warm/@TP3').middle * 12.5) / 22.5, 1);
    expect(windows('cold/input').over).toBe(true);
  });

  test('healthy boards of many seeds stay inside their windows and pass every stage', () => {
    const windows = allWindows(fresh());
    for (let seed = 1; seed <= 12; seed++) {
      let kit = reworked(fresh(), {}, { standIn: { seed, fault: hideFault(HEALTHY), pieces: {} } });
      for (const s of kit.sheet.stages) kit = readStage(kit, s.id);
      expect(deriveStages(kit, windows).map((s) => s.status)).toEqual(kit.sheet.stages.map(() => 'passed'));
    }
  }, 60_000);

  test('the hidden fault: a stage fails, stops those behind it, and R9 is named; after the repair all pass', () => {
    let kit = fresh();
    const windows = allWindows(kit);
    for (const id of ['look', 'cold', 'empty', 'warm']) kit = readStage(kit, id);
    const stages = deriveStages(kit, windows);
    expect(stages.map((s) => s.status)).toEqual(['passed', 'passed', 'passed', 'failed', 'waiting', 'waiting']);
    expect(lastVerdict(kit, windows)).toMatchObject({ verdict: 'out' });
    const investigation = investigationOf(kit)!;
    const findings = findSuspects(investigation, diagnoserOf(investigation));
    expect(describeFault(findings.suspects[0]!.faults[0]!).title).toBe('R9 has an open joint');
    expect(findings.suspects[0]!.probability).toBeGreaterThan(0.8);
    kit = log(kit, { kind: 'repaired', refs: ['R9'], note: 'soldered again' });
    for (const id of ['warm', 'frost', 'release']) kit = readStage(kit, id);
    expect(deriveStages(kit, windows).every((s) => s.status === 'passed')).toBe(true);
  }, 60_000);

  test('measured parts narrow the windows', () => {
    const kit = fresh();
    const before = allWindows(kit)['cold/rail5']!;
    let measured = kit;
    for (const [line, refs] of [
      ['r-3k3', ['R5']],
      ['r-4k7', ['R3', 'R6']],
    ] as const) {
      refs.forEach((ref, piece) => {
        measured = log(measured, { kind: 'measured', line, piece, ref, mode: 'ohms', reading: line === 'r-3k3' ? 3300 : 4700, meter: 'bench' });
      });
    }
    const after = allWindows(measured)['cold/rail5']!;
    const width = (w: WindowResult) => computedWindow(w)!.high - computedWindow(w)!.low;
    expect(width(after)).toBeLessThan(width(before));
  });

  test('targets: what decides most is measured first; a name finds its target; cards say what to do', () => {
    const kit = fresh();
    const targets = pieceTargets(kit);
    expect(targets[0]!.target).toMatchObject({ kind: 'piece', ref: 'R2' });
    expect(findTarget(targets, 'r9')).toMatchObject({ ref: 'R9' });
    expect(findTarget(targets, 'nothing')).toBeNull();
    const windows = allWindows(kit);
    expect(currentTarget(checkTargets(kit, windows), null)).toMatchObject({ kind: 'check', check: { id: 'bridges' } });
    const card = cardOf(kit, targetOfObservable(kit, 'warm/tp6')!, windows);
    expect(card).toMatchObject({ title: 'TP6', red: 'TP6, socket pin 3', black: 'ground post', unit: 'V' });
    expect(
      readPiece(
        practiceOf(kit),
        kit.sheet.lines.find((l) => l.id === 'r-4k7')!,
        1,
        1,
      ),
    ).toBeGreaterThan(44000);
  });
});
