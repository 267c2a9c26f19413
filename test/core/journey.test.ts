/** Whole jobs without a screen: a simulated builder follows the proposed readings until the fault is named. */
import { diagnoserOf, findSuspects } from '@/core/diagnose/investigation';
import { currentStage, deriveStages, type Windows } from '@/core/loop/progress';
import { readDeck } from '@/core/circuit/deck/read';
import { readDraft, makeSheet, suggestedNets } from '@/core/draft/newKit';
import { type Fault, faultKey } from '@/core/fault/fault';
import { type KitState, newKit } from '@/core/kit';
import { hideFault, practiceOf } from '@/stand-in';
import { DEMOS } from '@/stand-in';
import { ENGINE } from '@/workers/engine';
import { at, investigationOf, log, windowsOfKit } from '../support/kits';

const NO_PROGRESS = () => undefined;

const withFault = (kit: KitState, fault: Fault, seed = 5): KitState => ({
  ...kit,
  settings: { ...kit.settings, standIn: { fault: hideFault(fault), seed, pieces: {} } },
});

/** Takes every check of the stages in turn until one fails or all have passed. */
function powerUp(kit: KitState, windows: Windows): KitState {
  for (let k = kit; ;) {
    const stage = currentStage(deriveStages(k, windows));
    if (!stage || stage.status === 'failed') return k;
    const before = k.log.length;
    for (const { check } of stage.checks) {
      if (check.what === 'measure') {
        const reading = ENGINE.readBoard(
          { practice: { ...practiceOf(k), attempt: k.log.length }, stage: stage.stage.id, observable: `${stage.stage.id}/${check.id}` },
          NO_PROGRESS,
        );
        if (reading !== null) k = log(k, { kind: 'read', stage: stage.stage.id, check: check.id, reading, meter: 'handheld' });
      } else
        for (const channel of check.channels ?? [undefined])
          k = log(k, {
            kind: 'observed',
            stage: stage.stage.id,
            check: check.id,
            channel,
            asExpected: ENGINE.watchBoard({ practice: practiceOf(k), stage: stage.stage.id, check: check.id }, NO_PROGRESS),
          });
      const now = deriveStages(k, windows).find((s) => s.stage.id === stage.stage.id)!;
      if (now.status === 'failed') return k;
    }
    if (k.log.length === before) return k;
  }
}

/** Follows the proposed readings: how many it took until the fault (or one that looks the same everywhere) led with 80 %. */
function hunt(kit: KitState, fault: Fault, most = 10): { readings: number; rank: number; probability: number; alike: boolean } {
  let k = kit;
  const first = investigationOf(k);
  if (!first) return { readings: 0, rank: Infinity, probability: 0, alike: false };
  const diagnoser = diagnoserOf(first);
  for (let readings = 0; ; readings++) {
    const investigation = investigationOf(k)!;
    // Predictions do not depend on the readings as long as the stages are the same.
    const findings = findSuspects(investigation, investigation.key === first.key ? diagnoser : diagnoserOf(investigation));
    const rank = findings.suspects.findIndex((s) => s.faults.length === 1 && faultKey(s.faults[0]!) === faultKey(fault));
    const probability = findings.suspects[rank]?.probability ?? 0;
    // Nothing left to read in this stage: those that are about as likely as the first look alike there.
    const alike = !findings.next && probability > findings.suspects[0]!.probability / 2;
    if (!findings.next || readings >= most || probability > 0.8) return { readings, rank: rank < 0 ? Infinity : rank, probability, alike };
    const [stage, place] = findings.next.id.split('/') as [string, string];
    const reading = ENGINE.readBoard({ practice: { ...practiceOf(k), attempt: k.log.length }, stage: stage, observable: findings.next.id }, NO_PROGRESS);
    if (reading === null) return { readings, rank, probability, alike };
    k = log(
      k,
      place.startsWith('@')
        ? { kind: 'probed', stage, testPoint: place.slice(1), reading, meter: 'handheld' }
        : { kind: 'read', stage, check: place, reading, meter: 'handheld' },
    );
  }
}

const plain = (kind: 'open' | 'short' | 'reversed' | 'turned', ref: string): Fault => ({ kind, parts: [ref], detail: {} });

describe('the demo, with one fault or another on its board', () => {
  const kit = DEMOS[0]!.kit(at(0));
  const windows = windowsOfKit(kit);
  test.each<[string, Fault]>([
    ['R9 not connected', plain('open', 'R9')],
    ['R6 ten times too large', { kind: 'wrong-value', parts: ['R6'], detail: { value: 47_000 } }],
    ['R5 not connected', plain('open', 'R5')],
    ['the zener the wrong way round', plain('reversed', 'D2')],
    ['solder between ts and rf', { kind: 'bridge', parts: [], detail: { nets: ['ts', 'rf'] } }],
    ['R4 and R5 exchanged', { kind: 'swapped', parts: ['R4', 'R5'], detail: {} }],
  ])('%s: a stage fails, and the readings that are proposed lead to it', (_, fault) => {
    const faulty = powerUp(withFault(kit, fault), windows);
    expect(deriveStages(faulty, windows).some((s) => s.status === 'failed')).toBe(true);
    // Some faults look alike at every point (a part in series with another): it stands among the first three, or is as likely as they.
    const { rank, alike } = hunt(faulty, fault);
    expect(rank < 3 || alike).toBe(true);
  });

  // Boards whose threshold lies low or high, too: near it some healthy specimens would not switch at all.
  test.each([
    [5, 0.7],
    [1, 0.5],
    [4, 0.7],
    [6, 0.7],
    [10, 0.7],
  ])('a healthy board passes every stage, and nobody is accused: specimen %d', (seed, least) => {
    const done = powerUp(withFault(kit, { kind: 'healthy', parts: [], detail: {} }, seed), windows);
    expect(deriveStages(done, windows).map((s) => s.status)).toEqual(kit.sheet.stages.map(() => 'passed'));
    const investigation = investigationOf(done)!;
    const [top] = findSuspects(investigation, diagnoserOf(investigation)).suspects;
    expect(top!.faults).toEqual([]);
    expect(top!.probability).toBeGreaterThan(least);
  });

  test('a repair voids what was read before it: the stage is read anew and passes', () => {
    const fault = plain('open', 'R9');
    const faulty = powerUp(withFault(kit, fault), windows);
    const mended = powerUp(log(faulty, { kind: 'found', fault, probability: 0.9 }, { kind: 'repaired', refs: ['R9'], note: 'soldered' }), windows);
    expect(deriveStages(mended, windows).every((s) => s.status === 'passed')).toBe(true);
  });
});

describe('kits that nobody prepared', () => {
  const DECKS: readonly (readonly [string, string, Fault])[] = [
    [
      'a divider with a follower',
      'V1 vcc 0 9\nR1 vcc a 10k\nR2 a 0 10k\nQ1 vcc a e N\nR3 e 0 1k\nR4 vcc l 680\nD1 l 0 L\n.model N NPN(IS=1E-14 BF=200)\n.model L D(IS=1E-18 N=2)',
      plain('open', 'R2'),
    ],
    [
      'a zener supply',
      'V1 in 0 12\nD1 in p R\nR1 p z 470\nD2 0 z Z\nQ1 p z o N\nR2 o 0 1k\nC1 p 0 100u\n.model R D(IS=7E-9 N=1.8)\n.model Z D(IS=1E-14 BV=5.6 IBV=5m)\n.model N NPN(IS=1E-14 BF=150)',
      plain('reversed', 'D2'),
    ],
    [
      'a two-stage amplifier at rest',
      'V1 vcc 0 12\nR1 vcc b 100k\nR2 b 0 22k\nQ1 c b e N\nR3 vcc c 4.7k\nR4 e 0 1k\nQ2 vcc c o N\nR5 o 0 2.2k\nC1 in b 1u\nR6 in 0 100k\n.model N NPN(IS=1E-14 BF=250 VAF=80)',
      { kind: 'wrong-value', parts: ['R4'], detail: { value: 10_000 } },
    ],
    [
      'a MOSFET switch',
      'V1 vcc 0 12\nR1 vcc g 10k\nR2 g 0 47k\nM1 d g 0 0 M\nR3 vcc d 470\nR4 vcc k 1k\nD1 k d L\n.model M NMOS(LEVEL=1 VTO=2 KP=0.2)\n.model L D(IS=1E-18 N=2)',
      plain('open', 'R1'),
    ],
  ];
  test.each(DECKS)('%s: list from the deck, stages of their own, the hidden fault among the first three', (_, lines, fault) => {
    const deck = `Own kit\n${lines}\n.end`;
    expect(readDeck(deck).diagnostics).toEqual([]);
    const draft = readDraft('', deck);
    const kit = withFault(newKit(makeSheet('Own kit', draft, deck, suggestedNets(draft)), at(0)), fault);
    const windows = windowsOfKit(kit);
    const faulty = powerUp(kit, windows);
    expect(deriveStages(faulty, windows).some((s) => s.status === 'failed')).toBe(true);
    expect(hunt(faulty, fault).rank).toBeLessThan(3);
  });
});
