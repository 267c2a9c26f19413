/** Practice rounds that follow the program's advice: how many readings they take, how often the fault is found, and what is looked at in vain. */
import { makeSheet, readDraft } from '../../src/core/draft';
import { type KitState, newKit } from '../../src/core/kit';
import { setupOf } from '../../src/core/stage';
import { DEMOS, type Difficulty, hideTrouble, playRound } from '../../src/stand-in';

const STAMP = { id: 'bench', at: '2026-01-01T00:00:00Z' };
const SEEDS = [1, 2, 3, 4, 5, 6];

/** A kit as somebody makes it in five minutes: a list and a deck, and the ladder that is proposed from them. */
const OWN_DECK = `A zener supply with a lamp
V1 in 0 12
D1 in p R
C1 p 0 100u
R1 p z 470
D2 0 z Z
Q1 p z out N
R2 out 0 1k
R3 out l 470
D3 l 0 L
.model R D(IS=7E-9 N=1.8)
.model Z D(IS=1E-14 BV=6.2 IBV=5m)
.model N NPN(IS=1E-14 BF=150)
.model L D(IS=1E-18 N=2)`;
const OWN_LIST = 'R1,R3 470\nR2 1k\nD1 1N4007\nD2 zener 6.2V\nD3 LED red\nQ1 BC337\nC1 100uF/25V electrolytic';
const own = (): KitState => newKit(makeSheet('Own', readDraft(OWN_LIST, OWN_DECK), OWN_DECK, ['in', 'p', 'z', 'out', 'l']), STAMP);

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0;

export function benchPractice(say: (...text: string[]) => void, padded: (text: string) => string): void {
  say('practice rounds by the program’s own advice');
  // The one that never rests takes a transient a fault: it is left to the browser tests.
  const kits = [
    ...DEMOS.filter((d) => d.slug !== 'crossing-flasher').map((d) => [d.title, d.kit(STAMP)] as const),
    ['a kit made in five minutes', own()] as const,
  ];
  for (const [title, kit] of kits)
    for (const difficulty of ['easy', 'fair'] satisfies Difficulty[]) {
      const rounds = SEEDS.map((seed) => {
        const standIn = hideTrouble(setupOf(kit), { trouble: 'fault', difficulty, seed });
        const { steps, looks } = playRound(newKit(kit.sheet, STAMP, { standIn }));
        return { readings: steps.length, found: looks.at(-1)?.right ?? false, wrong: looks.filter((l) => !l.right).length };
      });
      const found = rounds.filter((r) => r.found);
      say(
        padded(`  ${title}, ${difficulty}`),
        `${median(rounds.map((r) => r.readings))} readings (median), found ${found.length} of ${rounds.length}, ${median(rounds.map((r) => r.wrong))} looked at in vain (median)`,
      );
    }
}
