/** What the bench says: cards, verdicts, the log, targets. */
import { KIND_FACTS } from '@/core/vocabulary';
import { cardOf, expectationText } from '@/core/loop/cards';
import { lastVerdict } from '@/core/loop/lastVerdict';
import { entryText } from '@/core/loop/logText';
import { orientationCard } from '@/core/loop/orientation';
import { fitTargets } from '@/core/loop/fitTargets';
import { countTargets, currentTarget, findTarget, looseTargets, observableOfTarget, pieceTargets, targetOfObservable } from '@/core/loop/targets';
import type { EntryBody, LineKind, MeasuringSchool } from '@/core/kit';
import { DEMOS } from '@/stand-in';
import { at, log, windowsOfKit } from '../support/kits';

const fresh = () => DEMOS[0]!.kit(at(0));
const measured = (line: string, piece: number, ref: string, reading: number | 'over', mode: 'ohms' | 'diode' | 'capacitance' | 'hfe' = 'ohms'): EntryBody => ({
  kind: 'measured',
  line,
  piece,
  ref,
  mode,
  reading,
  meter: 'handheld',
});
const WINDOWS = windowsOfKit(fresh());
const verdictAfter = (...bodies: EntryBody[]) => lastVerdict(log(fresh(), ...bodies), WINDOWS);

describe('the last verdict', () => {
  test.each([
    ['all counted', { kind: 'counted', line: 'r-4k7', quantity: 3 }, 'in', /all 3 here/, /^$/],
    ['one short', { kind: 'counted', line: 'r-4k7', quantity: 2 }, 'out', /1 missing/, /second small packet/],
    ['one spare', { kind: 'counted', line: 'r-4k7', quantity: 4 }, 'in', /1 spare/, /Keep the spare/],
    ['a good piece', measured('r-680', 0, 'R2', 682), 'in', /R2 OK/, /above the middle, .* likely within limits/],
    ['ten times too large', measured('r-4k7', 1, 'R6', 47_100), 'out', /R6 out/, /Ten times or more too large/],
    ['another line’s value', measured('r-680', 0, 'R2', 2190), 'out', /R2 out/, /fits the 2\.2 kΩ line/],
    ['over-range', measured('r-680', 0, 'R2', 'over'), 'out', /over-range/, /Open, dead/],
    ['a diode', measured('d-4148', 0, 'D3', 0.61, 'diode'), 'in', /D3 OK, 610/, /likely within limits/],
    ['a reading in its window', { kind: 'read', stage: 'empty', check: 'tp1', reading: 11.3, meter: 'handheld' }, 'in', /TP1 OK/, /./],
    ['a reading too low', { kind: 'read', stage: 'empty', check: 'tp1', reading: 2, meter: 'handheld' }, 'out', /too low/, /expected/],
    ['swapped probes', { kind: 'read', stage: 'empty', check: 'tp1', reading: -11.3, meter: 'handheld' }, 'out', /TP1/, /probes are swapped/],
    ['a probed point', { kind: 'probed', stage: 'warm', testPoint: 'TP8', reading: 5, meter: 'handheld' }, 'out', /TP8 out/, /./],
    ['not as expected', { kind: 'observed', stage: 'look', check: 'bridges', asExpected: false }, 'out', /Not as expected/, /stops here/],
    ['repaired', { kind: 'repaired', refs: ['R9'], note: 'soldered' }, 'none', /Repaired R9/, /Measure this stage again/],
  ] as const)('%s', (_, body, verdict, title, detail) => {
    const last = verdictAfter(body)!;
    expect(last.verdict).toBe(verdict);
    expect(last.title).toMatch(title);
    expect(last.detail).toMatch(detail);
    expect(JSON.stringify(last)).not.toMatch(/NaN|undefined|Infinity/);
  });
  test('shows its reckoning: the leads subtracted, the limits, the meter, the probability', () => {
    const { reckoning } = verdictAfter(measured('r-680', 0, 'R2', 682))!;
    expect(reckoning.join('\n')).toMatch(/less the leads: 682.0 Ω − 200.0 mΩ = 681.8 Ω/);
    expect(reckoning.join('\n')).toMatch(/limits 646.0 Ω to 714.0 Ω \(as listed\)/);
    expect(reckoning.join('\n')).toMatch(/meter ±/);
  });
  test('nothing logged, nothing said; a withdrawn entry says nothing', () => {
    expect(lastVerdict(fresh(), WINDOWS)).toBeNull();
    expect(verdictAfter({ kind: 'counted', line: 'r-4k7', quantity: 3 }, { kind: 'withdrawn', entry: 'e1' })).toBeNull();
  });
});

describe('the log in sentences', () => {
  const bodies: readonly (readonly [EntryBody, RegExp])[] = [
    [{ kind: 'counted', line: 'r-680', quantity: 1 }, /^Counted 1 × 680 Ω$/],
    [measured('r-680', 0, 'R2', 682), /^R2 of 680 Ω reads 682\.0 Ω$/],
    [{ kind: 'marked', line: 'r-680', piece: 0, text: 'bu gy bn gd' }, /Marking on 680 Ω: bu gy bn gd/],
    [{ kind: 'loose', part: 'R', reading: 9660, marking: ['brown', 'black'], polarity: null, meter: 'handheld' }, /Loose piece brown black reads 9\.660 kΩ/],
    [{ kind: 'sorted', pieces: [{ loose: 'x', line: null }] }, /Sorted 1 loose pieces: 1 on no line/],
    [{ kind: 'meter-checked', meter: 'handheld', together: 0.2, apart: 'over', known: null }, /together 200\.0 mΩ, apart over-range/],
    [
      { kind: 'compared', mode: 'ohms', instrument: 'my tester', reading: 100, against: { value: 101, percent: 1 } },
      /my tester reads 100\.0 Ω, known 101\.0 Ω/,
    ],
    [{ kind: 'owned', need: 'psu', owned: { volts: 12 } }, /compared with the need “12 V DC/],
    [{ kind: 'skipped', target: 'x', reason: 'out of reach' }, /Skipped x \(out of reach\)/],
    [{ kind: 'fitted', refs: ['R1', 'R2'] }, /Fitted R1, R2/],
    [{ kind: 'removed', refs: ['R1'] }, /Removed R1/],
    [{ kind: 'set', ref: 'VR1', value: 5000 }, /Set VR1 to 5000/],
    [{ kind: 'read', stage: 'warm', check: 'tp5', reading: 3.74, meter: 'handheld' }, /Chip in, sensor warm: frost reference reads 3\.740 V/],
    [{ kind: 'probed', stage: 'warm', testPoint: 'TP8', reading: 0.7, meter: 'handheld' }, /TP8 reads 700\.0 mV/],
    [{ kind: 'observed', stage: 'look', check: 'bridges', asExpected: true }, /solder side as expected/],
    [{ kind: 'found', fault: { kind: 'open', parts: ['R9'], detail: {} }, probability: 0.93 }, /Found: R9 has an open joint \(93 %\)/],
    [{ kind: 'repaired', refs: ['R9'], note: 'soldered' }, /Repaired R9: soldered/],
    [{ kind: 'modified', change: { what: 'link', nets: ['a', 'b'] } }, /Board changed: link/],
    [{ kind: 'noted', text: 'tea' }, /^tea$/],
    [{ kind: 'waiting', reason: 'delivery' }, /Waiting: delivery/],
    [{ kind: 'resumed', waited: 'x' }, /Went on/],
    [{ kind: 'withdrawn', entry: 'x' }, /Undid an entry/],
  ];
  test.each(bodies.map(([body, words]) => [body.kind, body, words] as const))('%s', (_, body, words) => {
    const kit = log(fresh(), body);
    expect(
      entryText(
        kit,
        kit.log.find((e) => e.id === 'e1')!,
      ),
    ).toMatch(words);
  });
});

describe('targets', () => {
  const kit = fresh();
  test('every line is counted, and the first open one is in hand', () => {
    const states = countTargets(kit);
    expect(states).toHaveLength(22);
    expect(currentTarget(states, null)!.id).toBe('count:r-680');
    expect(currentTarget(states, 'count:r-1m')!.id).toBe('count:r-1m');
    expect(currentTarget(countTargets(log(kit, { kind: 'counted', line: 'r-680', quantity: 1 })), null)!.id).toBe('count:r-1k5');
  });
  test.each([
    ['all', 23, 'R2'],
    ['one-per-packet', 16, 'R2'],
    ['unreadable', 8, 'R5'],
    ['matters', 23, 'R2'],
  ] as const)('the school “%s” measures %d pieces', (measure: MeasuringSchool, count, first) => {
    const states = pieceTargets({ ...kit, settings: { ...kit.settings, measure } });
    const refs = states.flatMap((s) => (s.target.kind === 'piece' ? [s.target.ref] : []));
    expect(states.length).toBeGreaterThanOrEqual(count - 3);
    expect(refs).toContain(first);
    if (measure === 'one-per-packet') expect(refs).not.toContain('R6');
    if (measure === 'unreadable') expect(refs).not.toContain('R4');
  });
  test('what matters most comes first once it is known', () => {
    const first = currentTarget(pieceTargets(kit, { R12: 0.1, R5: 9, R2: 1 }), null);
    expect(first).toMatchObject({ kind: 'piece', ref: 'R5' });
    const all = pieceTargets({ ...kit, settings: { ...kit.settings, measure: 'all' } }, { R5: 9 });
    expect(all[0]!.target).toMatchObject({ ref: 'R2' });
  });
  test('a name finds its target: exactly first, then by its beginning', () => {
    const states = pieceTargets(kit);
    expect(findTarget(states, 'r1')).toMatchObject({ ref: 'R1' });
    expect(findTarget(states, 'BC5')).toMatchObject({ line: { id: 'q-npn' } });
    expect(findTarget(states, '')).toBeNull();
    expect(findTarget(states, 'nothing')).toBeNull();
  });
  test('fitting goes stage by stage; loose pieces are numbered', () => {
    expect(fitTargets(kit)[0]!.target).toMatchObject({ kind: 'fit', stage: { id: 'look' } });
    expect(looseTargets(log(kit, { kind: 'loose', part: 'R', reading: 1, marking: null, polarity: null, meter: 'handheld' }), 'C')[0]!.target).toMatchObject({
      number: 1,
      part: 'C',
    });
  });
  test('observables and targets name each other', () => {
    for (const id of ['warm/tp5', 'warm/@TP8']) expect(observableOfTarget(targetOfObservable(kit, id)!)).toBe(id);
    expect(targetOfObservable(kit, 'nowhere/x')).toBeNull();
  });
});

describe('cards', () => {
  const kit = fresh();
  const card = (id: string) => cardOf(kit, [...countTargets(kit), ...pieceTargets(kit), ...fitTargets(kit)].find((s) => s.target.id === id)!.target, WINDOWS);
  test('a piece: what to set, where red and black go, what to expect', () => {
    expect(card('piece:r-680:0')).toMatchObject({ title: 'R2', entry: 'reading', unit: 'ohm' });
    expect(card('piece:r-680:0').setting).toMatch(/ohms, 4 kΩ range, out of circuit/);
    expect(card('piece:d-4007:0')).toMatchObject({ red: 'end without the stripe', black: 'striped end' });
    expect(expectationText(card('piece:r-680:0'))).toBe('646.2 – 714.2 Ω');
  });
  test('a check on the board: its window and where it came from', () => {
    const c = cardOf(kit, targetOfObservable(kit, 'empty/tp1')!, WINDOWS);
    expect(c.expected).toMatchObject({ over: false, from: 'computed for a healthy board' });
    expect(c.red).toMatch(/TP1, stripe end of D1/);
    expect(expectationText(cardOf(kit, targetOfObservable(kit, 'cold/input')!, WINDOWS))).toBe('over-range (OL)');
  });
  test('without a window it says why', () => {
    expect(cardOf(kit, targetOfObservable(kit, 'empty/tp1')!, null).why).toMatch(/Working out/);
    expect(cardOf(kit, targetOfObservable(kit, 'empty/tp1')!, { 'empty/tp1': { none: 'The circuit has no net called q.' } }).why).toMatch(/no net called q/);
  });
  test('a loose piece says what may be typed', () => {
    expect(cardOf(kit, looseTargets(kit, 'R')[0]!.target, {}).note).toMatch(/9\.66k/);
  });
});

test('every kind of part that can be turned has its rule, an exception and a way to make sure', () => {
  const turned: readonly LineKind[] = [
    'diode',
    'zener',
    'led',
    'electrolytic',
    'npn',
    'pnp',
    'nmos',
    'pmos',
    'njf',
    'pjf',
    'opamp',
    'ic',
    'trimmer',
    'relay',
    'crystal',
  ];
  for (const kind of turned) {
    const found = orientationCard(kind);
    expect(found.rule).toMatch(/\.$/);
    expect(found.exceptions.length).toBeGreaterThan(0);
    expect(found.check).toMatch(/\.$/);
  }
  // "Either way round" is said only of parts for which it is true (common practice, no source).
  const either: readonly LineKind[] = ['resistor', 'capacitor', 'inductor', 'thermistor', 'ldr', 'lamp', 'fuse', 'link', 'crystal', 'varistor', 'loudspeaker'];
  const noDirection: readonly LineKind[] = ['wire', 'consumable', 'document'];
  for (const kind of Object.keys(KIND_FACTS) as LineKind[])
    expect([kind, /either way round/i.test(orientationCard(kind).rule)]).toEqual([kind, [...either, ...noDirection].includes(kind)]);
});
