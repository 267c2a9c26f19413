/** Genuine or a copy: Bayes by signs, limits of the data sheet, and probabilities checked on simulated parts. */
import fc from 'fast-check';
import { adviceFor, assessGenuine, doubtfulLines, examinedOf, figureRatio, ORIGINS, signRatio, SIGNS, wholeKit } from '@/core/genuine';
import type { EntryBody } from '@/core/kit';
import { sellerLetter } from '@/core/report';
import { randomStream } from '@/core/statistics';
import { demo, log } from '../support/kits';

const NOTHING = { origin: 'unknown' as const, signs: new Map<string, boolean>(), figures: [] };
const seen = (...ids: string[]) => ({ ...NOTHING, signs: new Map(ids.map((id) => [id, true] as const)) });
const sign = (id: string) => SIGNS.find((s) => s.id === id)!;

describe('one sign', () => {
  test('before anything was looked at the origin decides', () => {
    expect(assessGenuine(NOTHING).fake).toBeCloseTo(ORIGINS.unknown.fake, 9);
    expect(assessGenuine({ ...NOTHING, origin: 'market' }).fake).toBeCloseTo(0.3, 9);
  });
  test('moves the odds by its likelihood ratio (Bayes)', () => {
    // 0.1/0.9 · 0.35/0.04 = 0.972; 0.972/1.972 = 0.493
    expect(assessGenuine(seen('wipes')).fake).toBeCloseTo(0.493, 3);
    expect(signRatio(sign('wipes'), false)).toBeCloseTo(0.65 / 0.96, 9);
  });
  test('of the same group counts less beside a stronger one, of another group in full', () => {
    const odds = (p: number) => p / (1 - p);
    const both = assessGenuine(seen('sanded', 'wipes')).fake;
    const apart = assessGenuine(seen('sanded', 'legs')).fake;
    const one = assessGenuine(seen('sanded')).fake;
    expect(odds(both) / odds(one)).toBeLessThan(signRatio(sign('wipes'), true));
    expect(odds(apart) / odds(one)).toBeCloseTo(signRatio(sign('legs'), true), 6);
  });
});

describe('a figure against its data sheet', () => {
  // Reference of the common adjustable regulator: 1.20 to 1.30 V (data sheet, from memory).
  const at = (reading: number, standard = 0.003) => figureRatio({ reading, low: 1.2, high: 1.3, standard });
  test('within its limits speaks a little for a genuine part, far outside strongly against it', () => {
    expect(at(1.25)).toBeLessThan(1);
    expect(at(1.25)).toBeGreaterThan(0.5);
    expect(at(1.0)).toBeGreaterThan(30);
    expect(at(1.0)).toBeLessThanOrEqual(40.001);
  });
  test('just outside, by less than the meter can tell, says little; a better meter says more', () => {
    expect(at(1.196, 0.02)).toBeLessThan(1.2);
    expect(at(1.18, 0.002)).toBeGreaterThan(at(1.18, 0.02));
  });
  test('one limit alone, and none', () => {
    expect(figureRatio({ reading: 5, low: 100, high: null, standard: 1 })).toBeGreaterThan(10);
    expect(figureRatio({ reading: 130, low: 100, high: null, standard: 1 })).toBeLessThan(1);
    expect(figureRatio({ reading: 1, low: null, high: null, standard: 1 })).toBe(1);
  });
  test('never without bounds, whatever is typed', () => {
    const number = fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e6, max: 1e6 });
    fc.assert(
      fc.property(number, fc.option(number), fc.option(number), fc.double({ min: 0, max: 1e3, noNaN: true }), (reading, low, high, standard) => {
        const ratio = figureRatio({ reading, low, high: low !== null && high !== null && high < low ? low : high, standard });
        expect(ratio).toBeGreaterThan(0.5);
        expect(ratio).toBeLessThanOrEqual(40.001);
      }),
    );
  });
});

/**
 * Simulated parts: signs of a group come together (one throw for the group in half of the parts), figures as the model of copies
 * and genuine parts says. What is called 70 % has to be a copy seven times in ten.
 */
test('probabilities are calibrated on simulated parts, whose signs come together', () => {
  const random = randomStream(20261);
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const bins = Array.from({ length: 5 }, () => ({ n: 0, said: 0, copies: 0 }));
  const PARTS = 20_000;
  for (let i = 0; i < PARTS; i++) {
    const origin = random() < 0.5 ? ('market' as const) : ('unknown' as const);
    const copy = random() < ORIGINS[origin].fake;
    const together = random() < 0.5;
    const throws = new Map([...new Set(SIGNS.map((s) => s.group))].map((g) => [g, random()]));
    const signs = new Map(SIGNS.map((s) => [s.id, (together ? throws.get(s.group)! : random()) < (copy ? s.onFake : s.onGenuine)] as const));
    const good = random() < (copy ? 0.6 : 0.99);
    const truth = good ? 1.2 + 0.1 * random() : 1.25 + 0.5625 * normal();
    const figures = random() < 0.5 ? [] : [{ title: 'reference', reading: truth + 0.003 * normal(), low: 1.2, high: 1.3, standard: 0.003 }];
    const { fake } = assessGenuine({ origin, signs, figures });
    const bin = bins[Math.min(4, Math.floor(fake * 5))]!;
    bin.n++;
    bin.said += fake;
    bin.copies += copy ? 1 : 0;
  }
  const error = bins.reduce((sum, b) => sum + Math.abs(b.said - b.copies), 0) / PARTS;
  expect(error).toBeLessThan(0.05);
  // The sure ones are sure.
  expect(bins[4]!.copies / bins[4]!.n).toBeGreaterThan(0.85);
  expect(bins[0]!.copies / bins[0]!.n).toBeLessThan(0.08);
});

test('advice goes by use: what will do in a toy need not do where nothing may fail', () => {
  expect(adviceFor(0.01).map((a) => a.fit)).toEqual([true, true, true]);
  expect(adviceFor(0.1).map((a) => a.fit)).toEqual([true, true, false]);
  expect(adviceFor(0.9).map((a) => a.fit)).toEqual([false, false, false]);
});

describe('in a kit', () => {
  const look = (id: string, yes = true): EntryBody => ({ kind: 'examined', line: 'r-4k7', sign: id, title: sign(id).title, seen: yes });
  test('a sign said twice counts once, the last word stands, and so does the last origin', () => {
    const origin = (o: string): EntryBody => ({ kind: 'examined', line: 'r-4k7', sign: `origin/${o}`, title: o, seen: true });
    const kit = log(demo(), look('wipes'), look('wipes'), look('legs'), look('legs', false), origin('market'), origin('distributor'));
    const line = kit.sheet.lines.find((l) => l.id === 'r-4k7')!;
    expect(examinedOf(kit, line)).toMatchObject({
      origin: 'distributor',
      signs: new Map([
        ['wipes', true],
        ['legs', false],
      ]),
    });
  });
  test('what its pieces measured counts, by the worst of the packet', () => {
    const measure = (piece: number, reading: number): EntryBody => ({ kind: 'measured', line: 'r-4k7', piece, mode: 'ohms', reading, meter: 'handheld' });
    const kit = log(demo(), look('wipes'), measure(0, 4710), measure(1, 9900));
    const [doubtful] = doubtfulLines(kit);
    expect(doubtful!.evidence.map((e) => e.title)).toEqual(expect.arrayContaining([expect.stringMatching(/9\.\d+ kΩ/)]));
    expect(doubtful!.evidence).toHaveLength(2);
  });
  test('what is probably a copy goes into the letter, with its signs; a mere doubt does not', () => {
    expect(sellerLetter(log(demo(), look('mixed-dates')))).toBeNull();
    const letter = sellerLetter(log(demo(), look('sanded'), look('two-makers')))!;
    expect(letter).toMatch(/doubt whether these are genuine/i);
    expect(letter).toContain('The top is sanded');
  });
});

describe('the kit as a whole', () => {
  const kit = demo();
  const lines = kit.sheet.lines.filter((l) => l.refs.length > 0).slice(0, 4);
  const examined = (line: string, sign: string, seen: boolean): EntryBody => ({ kind: 'examined', line, sign, title: sign, seen });
  const copy = (line: string) => ['sanded', 'legs', 'weight'].filter((id) => SIGNS.some((s) => s.id === id)).map((id) => examined(line, id, true));
  const good = (line: string) => ['sanded', 'legs', 'wipes'].map((id) => examined(line, id, false));

  test('says nothing before two parts were examined', () => {
    expect(wholeKit(kit)).toBeNull();
    expect(wholeKit(log(kit, ...copy(lines[0]!.id)))).toBeNull();
  });

  test('copies make the next chip of the parcel suspect, good ones clear it; in between by the mean of a beta distribution', () => {
    const next = (...bodies: EntryBody[]) => wholeKit(log(kit, ...bodies))!.next;
    const [a, b, c] = lines.map((l) => l.id) as [string, string, string];
    const [bad, mixed, fine] = [next(...copy(a), ...copy(b), ...copy(c)), next(...copy(a), ...good(b), ...good(c)), next(...good(a), ...good(b), ...good(c))];
    expect(bad).toBeGreaterThan(mixed);
    expect(mixed).toBeGreaterThan(fine);
    expect(fine).toBeLessThan(ORIGINS.unknown.fake);
    const all = doubtfulLines(log(kit, ...copy(a), ...good(b)));
    // Four lines' worth of the general suspicion, and what was found on two.
    expect(next(...copy(a), ...good(b))).toBeCloseTo((4 * ORIGINS.unknown.fake + all.reduce((s, d) => s + d.fake, 0)) / 6, 9);
  });

  test('two copies are written to the seller as a doubt about the kit', () => {
    const letter = (n: number) => sellerLetter(log(kit, ...lines.slice(0, n).flatMap((l) => copy(l.id)))) ?? '';
    expect(letter(1)).not.toContain('kit as a whole');
    expect(letter(3)).toContain('Of 3 parts that I examined 3 are probably copies');
  });
});
