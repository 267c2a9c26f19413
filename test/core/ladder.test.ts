/** Ladders proposed from circuit and list, from the list alone; checks typed as sentences; corrected lists and circuits. */
import fc from 'fast-check';
import { compareDecks, connectionsOf, readDeck, takeDifference } from '@/core/circuit';
import { acceptDifference, acceptStage, amend, diffLines, diffStages, isBuiltLadder, type Places, proposeLadder, readCheckSentence } from '@/core/draft';
import { makeSheet, readDraft } from '@/core/draft/newKit';
import { type Check, entryProblem, type KitState, type Line, move, patch, remove } from '@/core/kit';
import { readList } from '@/core/partslist';
import { computedWindow } from '@/core/stage';
import { demo, kitOf, log, windowsOfKit } from '../support/kits';

const AC_DECK = `AC fed supply
V1 a b SIN(0 16.97 50)
D1 a raw DREC
D2 b raw DREC
D3 0 a DREC
D4 0 b DREC
C1 raw 0 1000u
R1 raw la 1.2k
DLED1 la 0 LG
R2 raw v5 100
D5 0 v5 Z5
C2 v5 0 10u
.model DREC D(IS=7E-9 N=1.8 RS=0.04 BV=400)
.model LG D(IS=2.3E-20 N=2 RS=3)
.model Z5 D(IS=1E-14 N=1.1 RS=6 BV=5.1 IBV=5E-3)
.end`;
const AC_LIST =
  'D1-D4 1N4007\nC1 1000u 35V electrolytic\nC2 10u 25V electrolytic\nR1 1.2k\nR2 100\nLED1 LED green\nD5 zener 5.1V\ntransformer 12 V AC 500 mA, not included';

function kitFrom(list: string, deck: string): KitState {
  const draft = readDraft(list, deck);
  return kitOf(makeSheet('Made up just now', draft, deck, draft.nets.slice(0, 8)));
}
const sound = (kit: KitState) => kit.log.map((e) => entryProblem(e)).filter((p) => p !== null);

describe('a ladder from circuit and list', () => {
  const kit = kitFrom(AC_LIST, AC_DECK);
  const { stages } = kit.sheet;
  test('look, cold, first power, signals, load, in this order; every record fits the schema', () => {
    expect(stages.map((s) => s.kind)).toEqual(['look', 'cold', 'power', 'run', 'load']);
    expect(sound(kit)).toEqual([]);
  });
  test('an AC-fed kit is fed by its winding at RMS volts, and every check that a meter takes has a window', () => {
    expect(stages[2]!.supplies).toEqual([{ source: 'V1', volts: 12, limit: 0.1, feed: 'winding' }]);
    const windows = windowsOfKit(kit);
    const measured = stages.flatMap((s) => s.checks.flatMap((c) => (c.what === 'measure' ? [`${s.id}/${c.id}`] : [])));
    expect(measured.length).toBeGreaterThan(8);
    expect(measured.filter((id) => !computedWindow(windows[id]))).toEqual([]);
    // √2 × 12 V less two junctions (textbook).
    expect(computedWindow(windows['p-power/v-raw'])!.middle).toBeGreaterThan(12 * Math.SQRT2 - 2.2);
    expect(computedWindow(windows['p-power/v-raw'])!.middle).toBeLessThan(12 * Math.SQRT2 - 0.8);
  });
  test('rails are read cold both ways round: junctions read differently with the probes swapped', () => {
    expect(stages[1]!.checks.map((c) => c.id)).toEqual(expect.arrayContaining(['r-raw', 'r-raw-back', 'r-v1']));
  });
  test('chips of a kit with sockets go in after the supply pins of the empty sockets are right', () => {
    const deck = `t\nV1 vcc 0 9\nR1 vcc h 10k\nR2 h 0 10k\nXU1 h out vcc 0 out OPA\nR3 out 0 10k\n.subckt OPA p n vp vn o\nRI p n 5MEG\nRQ vp vn 12k\nG1 0 x p n 2E-5\nRX x 0 2E9\nEB b 0 x 0 1\nRO b o 60\n.ends\n.end`;
    const own = kitFrom('R1,R2 10k\nR3 10k\nU1 LM358 DIP-8\n8-pin DIP socket x1', deck);
    const ids = own.sheet.stages.map((s) => s.id);
    expect(ids).toEqual(['p-look', 'p-cold', 'p-power', 'p-chips', 'p-load']);
    const [, , power, chips] = own.sheet.stages;
    expect(own.sheet.stages[0]!.fits).not.toContain('U1');
    expect(power!.checks.map((c) => c.id)).toContain('socket-u1-vcc');
    expect(chips!.fits).toEqual(['U1']);
  });
  test('a board that is built already has no empty sockets: look, cold, then the supply from its plug inwards, all of it fitted', () => {
    const deck = `t\nV1 vcc 0 9\nR1 vcc h 10k\nR2 h 0 10k\nXU1 h out vcc 0 out OPA\nR3 out 0 10k\n.subckt OPA p n vp vn o\nRI p n 5MEG\nRQ vp vn 12k\nG1 0 x p n 2E-5\nRX x 0 2E9\nEB b 0 x 0 1\nRO b o 60\n.ends\n.end`;
    const list = 'R1,R2 10k\nR3 10k\nU1 LM358 DIP-8\n8-pin DIP socket x1';
    for (const given of [deck, '']) {
      const draft = readDraft(list, given);
      const own = kitOf(makeSheet('Built', draft, given, draft.nets, undefined, true));
      const [look] = own.sheet.stages;
      expect(own.sheet.stages.map((s) => s.id)).not.toContain('p-chips');
      expect(own.sheet.stages.find((s) => s.id === 'p-power')!.title).toBe('Supply, from its plug inwards');
      expect(own.sheet.stages.flatMap((s) => s.checks.map((c) => c.title)).filter((t) => t.includes('socket'))).toEqual([]);
      expect(look!.checks.slice(0, 2).map((c) => c.id)).toEqual(['fed', 'burnt']);
      expect(look!.fits).toContain('U1');
      expect(isBuiltLadder(own.sheet.stages)).toBe(true);
      // What is proposed later is the same ladder.
      expect(diffStages(own, proposeLadder({ ...own.sheet, built: true }, draft.circuit))).toEqual([]);
    }
  });
  test('a control is read at both ends of its way, each with a window of its own', () => {
    const own = kitFrom('RV1 trimmer 10k\nR1 1k\nR2 1k', 't\nV1 vcc 0 10\nR1 vcc t 1k\nRRV1a t w 5k\nRRV1b w g 5k\nR2 g 0 1k\n.end');
    const windows = windowsOfKit(own);
    const [low, high] = ['rv1-low', 'rv1-high'].map((id) => computedWindow(windows[`p-adjust/${id}`])!);
    expect(low!.high).toBeLessThan(high!.low);
  });
  test('the limit is what the builder owns where that is less', () => {
    const { sheet } = kit;
    const weak = proposeLadder({ ...sheet, owned: [{ volts: 12, amperes: 0.05 }] }, readDeck(AC_DECK).circuit);
    expect(weak.find((s) => s.id === 'p-power')!.supplies[0]!.limit).toBe(0.05);
  });
});

describe('a ladder from the list alone', () => {
  const chips = (types: readonly [string, string][], more: readonly Line[] = []) => {
    const line = (id: string, kind: Line['kind'], label: string, refs: string[], type?: string): Line => ({
      id,
      kind,
      label,
      value: null,
      tolerance: null,
      quantity: Math.max(1, refs.length),
      refs,
      ...(type ? { type } : {}),
    });
    const lines = [
      ...types.map(([ref, type]) => line(ref, 'ic', type, [ref], type)),
      line('s', 'socket', 'socket', []),
      line('b', 'battery', '9V battery clip', ['BAT1']),
      ...more,
    ];
    return proposeLadder({ title: 'x', lines, needs: [], circuit: null, testPoints: [] }, null);
  };
  test.each([
    ['NE555', '8', '1'],
    ['CD4017', '16', '8'],
    ['74HC595', '16', '8'],
    ['SN74LS00N', '14', '7'],
    ['74HC14', '14', '7'],
    ['LM324N', '4', '11'],
    ['LM358', '8', '4'],
    ['PIC16F628A', '14', '5'],
  ])('data sheet of %s: supply at pin %s against pin %s, with the battery of the list (data sheets, from memory)', (type, plus, minus) => {
    const [check] = chips([['U1', type]]).flatMap((s) => s.checks.filter((c) => c.id === 'socket-u1')) as Extract<Check, { what: 'measure' }>[];
    expect([check!.red, check!.black]).toEqual([
      { ref: 'U1', pin: plus },
      { ref: 'U1', pin: minus },
    ]);
    // A used battery gives less than it says: 9 V is no adapter.
    expect(check!.window).toEqual({ low: 7.65, high: 10.17, from: 'usual' });
  });
  test('usual limits of a kit of before, which does not say where they come from, are no difference; other figures are', () => {
    const proposed = chips([['U1', 'NE555']]);
    const stored = (low: (v: number | null) => number | null) =>
      ({
        sheet: {
          stages: proposed.map((s) => ({
            ...s,
            checks: s.checks.map((c) => (c.what === 'measure' && c.window ? { ...c, window: { low: low(c.window.low), high: c.window.high } } : c)),
          })),
        },
      }) as unknown as KitState;
    expect(
      diffStages(
        stored((v) => v),
        proposed,
      ),
    ).toEqual([]);
    expect(
      diffStages(
        stored(() => 1),
        proposed,
      ).length,
    ).toBeGreaterThan(2);
  });
  test('of a type that nobody knows the supply pin is asked of the instructions', () => {
    const [check] = chips([['U1', 'XR99']]).flatMap((s) => s.checks.filter((c) => c.id === 'socket-u1')) as Extract<Check, { what: 'measure' }>[];
    expect(check!.red).toEqual({ ref: 'U1', pin: 'supply' });
  });

  const kit = kitFrom(
    'R1-R4 10k\nC1 100u 16V electrolytic\nU1 L7805 TO-220\nU2 NE555 timer DIP-8\nDIP-8 socket x1\nLED1,LED2 LED red\nS1 switch\n12 V adapter 500 mA, not included',
    '',
  );
  test('rails from the regulator and the need of a supply, with typed windows; sockets before chips; LEDs and switches one by one', () => {
    const { stages } = kit.sheet;
    expect(stages.map((s) => s.id)).toEqual(['p-look', 'p-cold', 'p-power', 'p-chips', 'p-load']);
    const check = (stage: number, id: string) => stages[stage]!.checks.find((c) => c.id === id) as Extract<Check, { what: 'measure' }>;
    // Nobody's instructions say so: the limits are called usual ones.
    expect(check(2, 'v-in').window).toEqual({ low: 11.4, high: 12.6, from: 'usual' });
    expect(check(2, 'v-u1').window).toMatchObject({ low: 4.8, high: 5.2 });
    // More than a kilohm between a rail and ground (common practice, no source): over-range is in.
    expect(check(1, 'r-u1').window).toMatchObject({ low: 1000, high: null });
    expect(check(2, 'socket-u2').window).toMatchObject({ low: 4.75, high: 5.25 });
    expect(stages[3]!.checks.find((c) => c.id === 'leds')).toMatchObject({ channels: ['LED1', 'LED2'] });
    expect(sound(kit)).toEqual([]);
  });
  test('no list, no ladder', () => {
    expect(proposeLadder({ title: 'x', lines: [], needs: [], circuit: null, testPoints: [] }, null)).toEqual([]);
  });
});

describe('a proposal beside what the builder has', () => {
  const base = kitFrom(AC_LIST, AC_DECK);
  const proposed = () => proposeLadder(base.sheet, readDeck(AC_DECK).circuit);
  test('nothing differs at first; an edit is a difference, never written over by itself', () => {
    expect(diffStages(base, proposed())).toEqual([]);
    const edited = log(base, patch(base, 'stages', 'p-cold', { title: 'My own cold stage' })!, remove(base, 'checks', 'p-cold/r-raw')!);
    expect(diffStages(edited, proposed()).map((d) => d.what)).toEqual(['other stage', 'new check']);
  });
  test('a stage that was removed comes back at its place, and fits nothing twice', () => {
    const without = log(
      base,
      ...base.sheet.stages
        .filter((s) => s.id === 'p-cold')
        .flatMap((s) => [remove(base, 'stages', s.id)!, ...s.checks.map((c) => remove(base, 'checks', `${s.id}/${c.id}`)!)]),
    );
    const [difference] = diffStages(without, proposed());
    const back = log(without, ...acceptStage(without, difference!, proposed()));
    expect(back.sheet.stages.map((s) => s.id)).toEqual(base.sheet.stages.map((s) => s.id));
    expect(diffStages(back, proposed())).toEqual([]);
  });
  test('law: stages moved about keep all of themselves, even where two tabs gave two of them one place', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(4), fc.nat(5)), { maxLength: 8 }), (moves) => {
        const twins = log(base, ...base.sheet.stages.slice(0, 2).map((s) => ({ ...patch(base, 'stages', s.id, {})!, order: 'a0' })));
        const done = moves.reduce((k, [which, before]) => {
          const ids = k.sheet.stages.map((s) => s.id);
          return log(k, ...move(k, 'stages', ids[which]!, ids[before] ?? null));
        }, twins);
        expect(done.sheet.stages.map((s) => s.id).sort()).toEqual(base.sheet.stages.map((s) => s.id).sort());
      }),
      { numRuns: 20 },
    );
  });
});

describe('a check as a sentence', () => {
  const places: Places = {
    testPoints: [
      { id: 'TP4', net: 'ts', where: '' },
      { id: 'TP5', net: 'rf', where: '' },
    ],
    lines: [{ id: 'l', kind: 'resistor', label: '1k', value: 1000, tolerance: null, quantity: 1, refs: ['R5'] }],
    circuit: null,
    typeCards: [],
    nets: ['vcc', 'out'],
    sources: ['V1'],
  };
  test.each<[string, object]>([
    [
      'TP4 to ground 2.4-3.1 V with sensor warm',
      { mode: 'dcv', red: { testPoint: 'TP4' }, black: { net: '0' }, window: { low: 2.4, high: 3.1 }, note: 'with sensor warm' },
    ],
    ['tp4 2,4…3,1V', { mode: 'dcv', red: { testPoint: 'TP4' }, window: { low: 2.4, high: 3.1 } }],
    ['between TP4 and TP5 at most 20 mV', { red: { testPoint: 'TP4' }, black: { testPoint: 'TP5' }, window: { low: null, high: 0.02 } }],
    ['out about 5 V', { red: { net: 'out' }, window: { low: 4.75, high: 5.25 } }],
    ['vcc 12 V ±2 %', { red: { net: 'vcc' }, window: { low: 11.76, high: 12.24 } }],
    ['vcc to gnd > 1k', { mode: 'ohms', red: { net: 'vcc' }, window: { low: 1000, high: null } }],
    ['R5.1 against ground 950 to 1050 ohm', { mode: 'ohms', red: { ref: 'R5', pin: '1' }, window: { low: 950, high: 1050 } }],
    ['across R5 0.6-0.7 V', { red: { ref: 'R5', pin: '1' }, black: { ref: 'R5', pin: '2' } }],
    ['vcc to ground open', { mode: 'ohms', window: { low: 1e6, high: null } }],
    ['current of V1 below 20 mA', { mode: 'dca', source: 'V1', window: { low: null, high: 0.02 } }],
    ['out 13-15 Hz', { mode: 'frequency', red: { net: 'out' }, window: { low: 13, high: 15 } }],
    ['ripple at vcc < 50 mV', { mode: 'acv', red: { net: 'vcc' }, window: { low: null, high: 0.05 } }],
    ['TP4 11.5-12.5 VAC', { mode: 'acv' }],
    ['TP4 5 V ± 0.1 V', { window: { low: 4.9, high: 5.1 } }],
    ['TP4 2.50 V ±10 mV', { window: { low: 2.49, high: 2.51 } }],
    ['5 V at TP4', { mode: 'dcv', red: { testPoint: 'TP4' }, window: { low: 4.75, high: 5.25 } }],
    ['measure 12 V between vcc and gnd', { red: { net: 'vcc' }, black: { net: '0' } }],
    ['ripple below 10 mV at TP4', { mode: 'acv', title: 'ripple below 10 mV at TP4', window: { low: null, high: 0.01 } }],
    ['V at TP4 4.9..5.1', { mode: 'dcv', window: { low: 4.9, high: 5.1 } }],
    ['TP4 should be 5 V', { title: 'TP4' }],
    ['duty at TP4 50 %', { mode: 'duty' }],
    ['diode test TP4 to ground 0.5-0.7 V', { mode: 'diode', red: { testPoint: 'TP4' } }],
    ['pin 2 of R5 to ground 950 to 1050 ohm', { mode: 'ohms', red: { ref: 'R5', pin: '2' } }],
    ['turn R5 until TP4 2.50 V ±10 mV', { adjust: 'R5', red: { testPoint: 'TP4' }, window: { low: 2.49, high: 2.51 } }],
    ['adjust R5 so that TP4 is 2.5 V', { adjust: 'R5', mode: 'dcv' }],
    ['turn R5 for the least at TP4', { adjust: 'R5', aim: 'least', red: { testPoint: 'TP4' } }],
    ['TP4 to TP5 -3 to -1 V', { mode: 'dcv', window: { low: -3, high: -1 } }],
  ])('%s', (sentence, check) => {
    expect(readCheckSentence(sentence, places)).toMatchObject({ ok: true, check: { what: 'measure', ...check } });
  });
  test('what to do and what happens', () => {
    expect(readCheckSentence('press K1: LED2 lights', places)).toMatchObject({
      ok: true,
      check: { what: 'observe', action: 'press K1', expect: 'LED2 lights' },
    });
    expect(readCheckSentence('outputs 1-16 one by one: LED lit', places)).toMatchObject({
      ok: true,
      check: { what: 'observe', expect: 'LED lit', channels: Array.from({ length: 16 }, (_, i) => `output ${i + 1}`) },
    });
    expect(readCheckSentence('press each of SW1-SW3: one chirp', places)).toMatchObject({ ok: true, check: { channels: ['SW1', 'SW2', 'SW3'] } });
    expect(readCheckSentence('wait 20 min', places)).toMatchObject({ ok: true, check: { what: 'observe', expect: '20 min have passed' } });
    expect(readCheckSentence('wait 5 s: LED1 lights', places)).toMatchObject({ ok: true, check: { action: 'wait 5 s', expect: 'LED1 lights' } });
    expect(readCheckSentence('turn RV9 until TP4 2.5 V', places)).toMatchObject({ ok: false, message: expect.stringContaining('RV9') as string });
    expect(readCheckSentence('LED1 lit', places)).toMatchObject({ ok: true, check: { what: 'observe' } });
  });
  test.each([
    ['', /Write what to measure/],
    ['TP9 to ground 2-3 V', /no test point, net or pin/],
    ['TP4 to TP4 2-3 V', /Both probes are at/],
    ['TP4 3.1-2.4 V', /wrong way round/],
    ['TP4 hello', /No limits were found/],
  ])('“%s” is answered in words', (sentence, words) => {
    expect(readCheckSentence(sentence, places)).toMatchObject({ ok: false, message: expect.stringMatching(words) as unknown });
  });
  test('law: any text is answered, never thrown at', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        const r = readCheckSentence(text, places);
        expect(r.ok ? r.check.title.length <= 200 : r.message.length > 0).toBe(true);
      }),
    );
  });
});

describe('a corrected list', () => {
  const base = kitFrom('R1,R2 10k\nR3 4.7k\nC1 100n', '');
  const corrected = (text: string) => diffLines(base, readList(text, null).lines);
  test('the same list differs in nothing', () => {
    expect(corrected('R1,R2 10k\nR3 4.7k\nC1 100n')).toEqual([]);
  });
  test('another value, a new line, a line that is gone: each by itself', () => {
    const found = corrected('R1,R2 12k\nR3 4.7k\nR4 1k');
    expect(found.map((d) => d.what)).toEqual(['changed', 'new', 'gone']);
    const taken = log(base, ...acceptDifference(base, found[0]!, () => 'n1'));
    expect(taken.sheet.lines.find((l) => l.refs.includes('R1'))!.value).toBe(12_000);
    expect(taken.sheet.lines).toHaveLength(3);
    const added = log(taken, ...acceptDifference(taken, found[1]!, () => 'n1'));
    expect(added.sheet.lines.map((l) => l.id)).toContain('n1');
  });
  test('a line with readings that the corrected list drops says how many entries hang on it', () => {
    const line = base.sheet.lines.find((l) => l.refs.includes('R3'))!;
    const counted = log(
      base,
      { kind: 'counted', line: line.id, quantity: 1 },
      { kind: 'measured', line: line.id, piece: 0, ref: 'R3', mode: 'ohms', reading: 4690, meter: 'handheld' },
    );
    expect(diffLines(counted, readList('R1,R2 10k\nC1 100n', null).lines)).toEqual([expect.objectContaining({ what: 'gone', entries: 2 })]);
  });
  test('what the builder typed beside the list stays', () => {
    const line = base.sheet.lines[0]!;
    const noted = log(base, patch(base, 'lines', line.id, { note: 'from the drawer', amendment: 'slip' })!);
    const [d] = diffLines(noted, readList('R1,R2 15k\nR3 4.7k\nC1 100n', null).lines);
    const taken = log(noted, ...acceptDifference(noted, d!, () => 'x'));
    expect(taken.sheet.lines[0]).toMatchObject({ value: 15_000, note: 'from the drawer', amendment: 'slip' });
  });
});

describe('a corrected circuit', () => {
  const before = 't\nV1 a 0 9\nR1 a b 1k\nD1 b 0 DX\n.model DX D(IS=1e-14)\n.end';
  const after = 't\nV1 a 0 9\nR1 a b 2.2k\nD1 b c DX\nR2 c 0 10\n.model DX D(IS=1e-12)\n.end';
  test('parts and models that differ, each by itself', () => {
    expect(compareDecks(before, after).map((d) => [d.what, d.name])).toEqual([
      ['model', 'dx'],
      ['other part', 'R1'],
      ['other part', 'D1'],
      ['new part', 'R2'],
    ]);
    expect(compareDecks(after, before).map((d) => d.what)).toContain('gone part');
    expect(compareDecks(before, before)).toEqual([]);
  });
  test('law: all differences taken over make the corrected circuit', () => {
    const taken = compareDecks(before, after).reduce(takeDifference, before);
    expect(compareDecks(taken, after)).toEqual([]);
    expect(readDeck(taken).diagnostics).toEqual([]);
  });
});

describe('a slip amends the kit', () => {
  test('a part that was forgotten: list, stage and circuit in one step', () => {
    const kit = demo();
    const changes = amend(kit, { what: 'add', kind: 'R', name: 'R30', value: 4700, nets: ['ts', 'v5'], says: 'add 4.7 k from TS to 5 V' }, () => 'line-new');
    const done = log(kit, ...changes);
    expect(done.sheet.lines.find((l) => l.refs.includes('R30'))).toMatchObject({ value: 4700, amendment: 'add 4.7 k from TS to 5 V' });
    expect(
      connectionsOf(done.sheet.circuit!.deck)
        .find((c) => c.name === 'R30')!
        .pins.map((p) => p.net),
    ).toEqual(['ts', 'v5']);
    expect(done.sheet.stages.some((s) => s.fits.includes('R30'))).toBe(true);
    expect(readDeck(done.sheet.circuit!.deck).diagnostics).toEqual([]);
  });
  test('another value for one of several positions: it leaves its line for one of its own', () => {
    const kit = demo();
    const line = kit.sheet.lines.find((l) => l.kind === 'resistor' && l.refs.length > 1)!;
    const [ref] = line.refs;
    const done = log(kit, ...amend(kit, { what: 'value', ref: ref!, value: 33_000, says: 'slip' }, () => 'line-new'));
    expect(done.sheet.lines.find((l) => l.refs.includes(ref!))).toMatchObject({ value: 33_000, refs: [ref] });
    expect(done.sheet.lines.find((l) => l.id === line.id)!.refs).not.toContain(ref);
    expect(connectionsOf(done.sheet.circuit!.deck).find((c) => c.name === ref)!.rest).toBe('33000');
  });
});
