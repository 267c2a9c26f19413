import type { LogicBoard, LogicCheck } from './board';
import { alike, doubtOf, likelihood, type Noted, plainly, sigmaOf, validateNoted } from './evidence';
import { HEALTHY, listFaults, type LogicFault, weightOf } from './fault';
import type { Solved } from './network';
import { Bench, type Shown } from './simulate';

/** What was noted of one check. */
export interface Result {
  readonly check: string;
  readonly saw: readonly unknown[];
}

export interface LogicSuspect {
  readonly fault: LogicFault;
  readonly probability: number;
}

export interface LogicDiagnosis {
  readonly suspects: readonly LogicSuspect[];
  readonly unexplained: number;
  /** Faults that no check of the board tells apart, one group a set of two and more. */
  readonly groups: readonly (readonly LogicFault[])[];
  /** Items that seem wrongly noted. */
  readonly doubts: readonly { readonly check: string; readonly item: number; readonly probability: number }[];
}

/** Beliefs before, and how often an item is wrongly noted (choices of this product). */
const HEALTHY_BEFORE = 0.2;
const OUTSIDE_BEFORE = 0.03;
const WRONG = 0.001;
/** On a board that no fault explains many items disagree with the nearest one. */
const WRONG_OUTSIDE = 0.03;
const LEAST_SHOWN = 1e-4;
const LEAST_DOUBT = 0.02;
const WORTH_GROUPING = 0.005;

/** Inputs that hang on nothing read low on one half of all boards, high on the other: evenly, unknown. */
const FLOATS = [false, true] as const;

/** What one check can show: each way once, and which way every fault shows, by fault and kind of floating. */
interface Views {
  readonly ways: readonly (readonly Shown[])[];
  readonly of: Int32Array;
}

/** A board with what every fault shows in every check. Made once, asked after every try. */
export class LogicDiagnoser {
  readonly faults: readonly LogicFault[];
  private readonly before: Float64Array;
  /** By check. */
  private readonly views: readonly Views[];
  private readonly span: number;
  private likeness: Int32Array | null = null;

  constructor(
    readonly board: LogicBoard,
    progress?: (share: number) => void,
  ) {
    this.faults = listFaults(board);
    const weights = this.faults.map((f) => weightOf(f, board));
    const all = weights.reduce((a, b) => a + b, 0);
    this.before = Float64Array.from(weights, (w, i) => (i === 0 ? HEALTHY_BEFORE : ((1 - HEALTHY_BEFORE) * w) / all));
    const solved: Solved = new Map();
    const keys = board.checks.map(() => new Map<string, number>());
    const ways = board.checks.map((): (readonly Shown[])[] => []);
    const of = board.checks.map(() => new Int32Array(2 * this.faults.length));
    this.faults.forEach((fault, f) => {
      progress?.(f / this.faults.length);
      FLOATS.forEach((floats, s) => {
        const bench = new Bench(board, fault, floats, solved);
        board.checks.forEach((check, c) => {
          const shown = bench.run(check);
          const key = JSON.stringify(shown);
          const known = keys[c]!.get(key) ?? ways[c]!.push(shown) - 1;
          keys[c]!.set(key, known);
          of[c]![2 * f + s] = known;
        });
      });
    });
    this.views = board.checks.map((_, c) => ({ ways: ways[c]!, of: of[c]! }));
    const supply = board.circuit.parts.find((p) => p.kind === 'V');
    this.span = 1.1 * Math.max(1, supply?.kind === 'V' ? supply.dc : 1);
  }

  private checkIndex(id: string): number {
    const at = this.board.checks.findIndex((c) => c.id === id);
    if (at < 0) throw new Error(`the board has no check “${id}”`);
    return at;
  }

  /** Likelihood of all results, by fault and floating, in logarithms. */
  private evidence(results: readonly Result[], wrong: number): Float64Array {
    const sums = new Float64Array(2 * this.faults.length);
    const seen = new Set<string>();
    for (const { check, saw } of results) {
      const at = this.checkIndex(check);
      if (seen.has(check)) throw new Error(`check ${check} is given twice`);
      seen.add(check);
      const noted: readonly unknown[] = saw;
      validateNoted(this.board.checks[at]!, noted);
      const { ways, of } = this.views[at]!;
      const told = ways.map((shown) => shown.reduce((sum, x, i) => sum + Math.log(likelihood(x, noted[i] as Noted, wrong, this.span)), 0));
      of.forEach((way, i) => {
        sums[i]! += told[way]!;
      });
    }
    return sums;
  }

  /** Probabilities by fault and floating, and of a board that no fault explains. */
  private posterior(results: readonly Result[]): { readonly p: Float64Array; readonly outside: number } {
    const inside = this.evidence(results, WRONG);
    const loose = this.evidence(results, WRONG_OUTSIDE);
    const most = Math.max(...inside, ...loose);
    const p = inside.map((l, i) => (1 - OUTSIDE_BEFORE) * 0.5 * this.before[i >> 1]! * Math.exp(l - most));
    let outside = 0;
    loose.forEach((l, i) => {
      if (i > 1) outside += 0.5 * this.before[i >> 1]! * Math.exp(l - most);
    });
    outside *= OUTSIDE_BEFORE / (1 - HEALTHY_BEFORE);
    const sum = p.reduce((a, b) => a + b, outside);
    return { p: p.map((x) => x / sum), outside: outside / sum };
  }

  /** Ranks the faults by what was noted. @throws Error that names a wrong check, item or word. */
  suspects(results: readonly Result[]): LogicDiagnosis {
    const { p, outside } = this.posterior(results);
    const ranked = this.faults.map((fault, f) => ({ fault, f, probability: p[2 * f]! + p[2 * f + 1]! })).sort((a, b) => b.probability - a.probability);
    const shown = ranked.filter((s) => s.probability >= LEAST_SHOWN);
    const tail = ranked.reduce((sum, s) => sum + (s.probability < LEAST_SHOWN ? s.probability : 0), 0);
    const groupOf = this.groups();
    const wanted = new Set(shown.filter((s) => s.probability >= WORTH_GROUPING).map((s) => groupOf[s.f]!));
    const groups = [...wanted].map((g) => this.faults.filter((_, f) => groupOf[f] === g)).filter((g) => g.length > 1);
    return {
      suspects: shown.map(({ fault, probability }) => ({ fault, probability })),
      unexplained: outside + tail,
      groups,
      doubts: this.doubts(results, p),
    };
  }

  private doubts(results: readonly Result[], p: Float64Array): LogicDiagnosis['doubts'] {
    const inside = p.reduce((a, b) => a + b, 0);
    return results
      .flatMap(({ check, saw }) => {
        const at = this.checkIndex(check);
        return saw.map((noted, item) => {
          const { ways, of } = this.views[at]!;
          const told = ways.map((shown) => doubtOf(shown[item]!, noted as Noted, WRONG, this.span));
          const doubt = of.reduce((sum, way, i) => sum + p[i]! * told[way]!, 0);
          return { check, item, probability: inside > 0 ? doubt / inside : 0 };
        });
      })
      .filter((d) => d.probability >= LEAST_DOUBT)
      .sort((a, b) => b.probability - a.probability);
  }

  /** Group of each fault: those that no check tells apart, on boards that float low and on those that float high. */
  groups(): Int32Array {
    if (this.likeness) return this.likeness;
    const n = this.faults.length;
    const group = Int32Array.from({ length: n }, (_, i) => i);
    const root = (i: number): number => {
      let at = i;
      while (group[at] !== at) at = group[at]!;
      return at;
    };
    for (let a = 0; a < n; a++) for (let b = a + 1; b < n; b++) if (root(a) !== root(b) && this.same(a, b)) group[root(b)] = root(a);
    this.likeness = group.map((_, i) => root(i));
    return this.likeness;
  }

  private same(a: number, b: number): boolean {
    return this.views.every(({ ways, of }) =>
      [0, 1].every((s) => {
        const [x, y] = [of[2 * a + s]!, of[2 * b + s]!];
        return x === y || ways[x]!.every((shown, i) => alike(shown, ways[y]![i]!));
      }),
    );
  }

  /** The check not done yet that tells most for its effort; null when none tells anything. */
  next(results: readonly Result[]): string | null {
    const { p } = this.posterior(results);
    const done = new Set(results.map((r) => r.check));
    let best: { id: string; worth: number } | null = null;
    this.board.checks.forEach((check, c) => {
      if (done.has(check.id)) return;
      const worth = this.information(p, check, c) / check.cost;
      if (best === null || worth > best.worth) best = { id: check.id, worth };
    });
    const found = best as { id: string; worth: number } | null;
    return found === null || found.worth < LEAST_WORTH ? null : found.id;
  }

  /** Bits that a check is expected to tell of the fault: entropy of what it shows, less what floating inputs alone leave open. */
  private information(p: Float64Array, check: LogicCheck, c: number): number {
    const volts = check.see.length === 1 && check.see[0]!.what === 'volts';
    if (volts) return this.voltsInformation(p, c);
    const outcomes = new Map<string, number>();
    let left = 0;
    const { ways, of } = this.views[c]!;
    const noted = ways.map(outcomeOf);
    this.faults.forEach((_, f) => {
      const [low, high] = [p[2 * f]!, p[2 * f + 1]!];
      if (low + high < NEGLIGIBLE) return;
      const [a, b] = [noted[of[2 * f]!]!, noted[of[2 * f + 1]!]!];
      outcomes.set(a, (outcomes.get(a) ?? 0) + low);
      outcomes.set(b, (outcomes.get(b) ?? 0) + high);
      if (a !== b) left += entropy([low, high]);
    });
    const all = [...outcomes.values()];
    const sum = all.reduce((x, y) => x + y, 0);
    return sum > 0 ? entropy(all) / sum - left / sum : 0;
  }

  /** Differential entropy of the mixture of readings, less that of a single reading. */
  private voltsInformation(p: Float64Array, c: number): number {
    const at = new Map<number, number>();
    let within = 0;
    let sum = 0;
    const { ways, of } = this.views[c]!;
    const volts = ways.map(([shown]) => Math.round((shown as { volts: number }).volts * 200) / 200);
    this.faults.forEach((_, f) => {
      const [low, high] = [p[2 * f]!, p[2 * f + 1]!];
      if (low + high < NEGLIGIBLE) return;
      const [a, b] = [volts[of[2 * f]!]!, volts[of[2 * f + 1]!]!];
      at.set(a, (at.get(a) ?? 0) + low);
      at.set(b, (at.get(b) ?? 0) + high);
      sum += low + high;
      within += low * noiseEntropy(a) + high * noiseEntropy(b);
      if (Math.abs(a - b) > 4 * (sigmaOf(a) + sigmaOf(b))) within += entropy([low, high]);
    });
    if (sum === 0) return 0;
    const means = [...at.keys()].sort((a, b) => a - b);
    const [from, to] = [means[0]! - 0.3, means[means.length - 1]! + 0.5];
    const step = Math.max(0.01, (to - from) / GRID);
    let mixed = 0;
    for (let v = from; v <= to; v += step) {
      let density = 0;
      for (const m of means) {
        const sigma = sigmaOf(m);
        const z = (v - m) / sigma;
        if (Math.abs(z) < 5) density += ((at.get(m)! / sum) * Math.exp(-0.5 * z * z)) / (sigma * Math.sqrt(2 * Math.PI));
      }
      if (density > 0) mixed -= density * Math.log2(density) * step;
    }
    return Math.max(0, mixed - within / sum);
  }
}

const NEGLIGIBLE = 1e-7;
const LEAST_WORTH = 1e-4;
const GRID = 1500;
const outcomeOf = (shown: readonly Shown[]) => shown.map(plainly).join('|');
/** Unnormalised: −Σ w log2(w / Σ w), bits times weight. */
function entropy(weights: readonly number[]): number {
  const sum = weights.reduce((a, b) => a + b, 0);
  return weights.reduce((h, w) => (w > 0 ? h - w * Math.log2(w / sum) : h), 0);
}
const noiseEntropy = (volts: number) => 0.5 * Math.log2(2 * Math.PI * Math.E * sigmaOf(volts) ** 2);

/** What every check of the healthy board shows. */
export function expectation(board: LogicBoard, fault: LogicFault = HEALTHY): { readonly check: string; readonly saw: readonly Noted[] }[] {
  const bench = new Bench(board, fault, false, new Map());
  return board.checks.map((check) => ({ check: check.id, saw: bench.run(check).map(plainly) }));
}
