/** Every door by which data comes in: entries of a kit file one by one, requests on the command line, whatever they hold. */
import fc from 'fast-check';
import { checkKit, documentOf, type EntryBody, type EntryKind, type KitState, openKit } from '@/core/kit';
import { entryText } from '@/core/loop/logText';
import { deriveTray } from '@/core/kit';
import { DEMOS } from '@/stand-in';
import { decode } from '../../scripts/zesty/decode';
import { diagnose } from '../../scripts/zesty/diagnose';
import { receive } from '../../scripts/zesty/receive';
import { solve } from '../../scripts/zesty/solve';
import { verdict } from '../../scripts/zesty/verdict';
import { at, investigationOf, log, windowsOfKit } from '../support/kits';

const fresh = () => DEMOS[0]!.kit(at(0));

/** One good example of every kind of entry, and the same with one thing wrong. */
const EXAMPLES: Readonly<Record<EntryKind, readonly [good: EntryBody, broken: Readonly<Record<string, unknown>>]>> = {
  counted: [{ kind: 'counted', line: 'r-4k7', quantity: 3 }, { quantity: -1 }],
  measured: [{ kind: 'measured', line: 'r-4k7', piece: 0, ref: 'R3', mode: 'ohms', reading: 4700, meter: 'handheld' }, { mode: 'weight' }],
  marked: [{ kind: 'marked', line: 'r-4k7', piece: 0, text: 'ye vt rd gd' }, { piece: 'first' }],
  loose: [{ kind: 'loose', part: 'R', reading: 4700, marking: ['yellow', 'violet'], polarity: null, meter: 'handheld' }, { part: 'Y' }],
  sorted: [{ kind: 'sorted', pieces: [{ loose: 'e1', line: null }] }, { pieces: [{ loose: 'e1' }] }],
  'meter-checked': [{ kind: 'meter-checked', meter: 'handheld', together: 0.2, apart: 'over', known: null }, { together: 'low' }],
  compared: [{ kind: 'compared', mode: 'ohms', instrument: 'tester', reading: 4700, against: { value: 4700, percent: 1 } }, { reading: 'over' }],
  owned: [{ kind: 'owned', need: 'supply', owned: { volts: 12, amperes: 0.5 } }, { owned: { volts: '12' } }],
  skipped: [{ kind: 'skipped', target: 'piece:r-4k7:0', reason: 'cannot reach it' }, { target: 7 }],
  fitted: [{ kind: 'fitted', refs: ['R1'] }, { refs: 'R1' }],
  removed: [{ kind: 'removed', refs: ['R1', 'R2'] }, { refs: [1] }],
  set: [{ kind: 'set', ref: 'VR1', value: 4700 }, { value: null }],
  read: [{ kind: 'read', stage: 'warm', check: 'tp5', reading: 3.7, meter: 'handheld' }, { reading: 'OL' }],
  probed: [{ kind: 'probed', stage: 'warm', testPoint: 'TP5', reading: 'over', meter: 'handheld' }, { testPoint: '' }],
  observed: [{ kind: 'observed', stage: 'warm', check: 'led', asExpected: false, note: 'dark' }, { asExpected: 'no' }],
  tried: [{ kind: 'tried', check: 'Press K1', saw: [{ of: 'D1', saw: 'lit' }], asExpected: true }, { saw: [{ of: 'D1' }] }],
  referenced: [{ kind: 'referenced', stage: 'warm', check: 'tp5', reading: 3.1, meter: 'handheld' }, { reading: 'OL' }],
  found: [{ kind: 'found', fault: { kind: 'open', parts: ['R9'], detail: {} }, probability: 0.9 }, { fault: { kind: 'cursed', parts: [], detail: {} } }],
  repaired: [{ kind: 'repaired', refs: ['R9'], note: 'soldered' }, { note: 5 }],
  figured: [{ kind: 'figured', line: 'r-10k', piece: 0, figure: 'esr', reading: 0.4, meter: 'handheld' }, { figure: 5 }],
  received: [{ kind: 'received', line: 'r-10k', quantity: 1, instead: [0] }, { quantity: -1 }],
  inspected: [{ kind: 'inspected', item: 'way/D1', good: false, note: 'turned' }, { good: 'yes' }],
  traced: [{ kind: 'traced', pads: ['R1.1', 'D1.A'], beep: true }, { pads: ['R1.1'] }],
  gated: [{ kind: 'gated', stage: 'warm', go: 'on', reason: 'the lamp is missing' }, { go: 'back' }],
  prepared: [{ kind: 'prepared', stage: 'warm', confirmed: 'V1 12.0 V' }, { confirmed: null }],
  'ruled-out': [{ kind: 'ruled-out', fault: { kind: 'open', parts: ['R9'], detail: {} }, note: 'joint is good' }, { fault: 'R9' }],
  symptom: [{ kind: 'symptom', symptom: 'dead', title: 'Nothing at all', seen: true }, { seen: 'yes' }],
  examined: [{ kind: 'examined', line: 'r-4k7', sign: 'wipes', title: 'The print wipes off', seen: true }, { seen: 'a little' }],
  restored: [{ kind: 'restored', modification: 'e1' }, { modification: 7 }],
  modified: [{ kind: 'modified', change: { what: 'link', nets: ['a', 'b'] } }, { change: { what: 'link', nets: ['a'] } }],
  finished: [{ kind: 'finished', open: ['C3 is missing'] }, { open: 'C3' }],
  noted: [{ kind: 'noted', text: 'smells' }, { text: { a: 1 } }],
  waiting: [{ kind: 'waiting', reason: 'parts', until: '2026-02-01' }, { reason: null }],
  resumed: [{ kind: 'resumed', waited: 'e1' }, { waited: 1 }],
  withdrawn: [{ kind: 'withdrawn', entry: 'e1' }, { entry: [] }],
  changed: [
    { kind: 'changed', room: 'needs', record: 'n1', before: null, after: { id: 'n1', kind: 'supply', text: '12 V' } },
    { after: { id: 'n1', kind: 'wish', text: '12 V' } },
  ],
};

describe.each(Object.entries(EXAMPLES))('an entry "%s" in a kit file', (kind, [good, broken]) => {
  const written = () => log(fresh(), good);
  const entry = (kit: KitState) => kit.log.find((e) => e.id === 'e1')!;
  const spoilt = (change: object) => {
    const kit = documentOf(written());
    return { ...kit, log: kit.log.map((e) => (e.id === 'e1' ? { ...e, ...change } : e)) };
  };
  test('goes out and in again unchanged, and has words of its own', () => {
    const kit = written();
    const opened = openKit(JSON.stringify(documentOf(kit)));
    expect(opened).toMatchObject({ ok: true });
    if (opened.ok) expect(opened.kit).toEqual(documentOf(kit));
    const text = entryText(kit, entry(kit));
    expect(text.length).toBeGreaterThan(3);
    expect(text).not.toMatch(/undefined|NaN|\[object/);
  });
  test('with one thing wrong is refused in words that name entry and field; the rest could be opened', () => {
    const opened = openKit(JSON.stringify(spoilt(broken)));
    expect(opened.ok).toBe(false);
    if (opened.ok) return;
    expect(opened.message).toMatch(/e1/);
    expect(opened.message).toMatch(new RegExp(Object.keys(broken)[0]!));
    expect(opened.rest!.kit.log).toHaveLength(fresh().log.length);
    expect(opened.rest!.damaged).toHaveLength(1);
  });
  test('with a field that nobody knows is refused', () => {
    expect(checkKit(spoilt({ surprise: 1 })).ok).toBe(false);
  });
  test('can be withdrawn, and then counts for nothing', () => {
    if (kind === 'withdrawn') return;
    const kit = log(fresh(), good, { kind: 'withdrawn', entry: 'e1' });
    expect(deriveTray(kit)).toEqual(deriveTray(fresh()));
    expect(kit.board).toEqual(fresh().board);
    expect(kit.sheet).toEqual(fresh().sheet);
  });
});

describe('law: whatever a log holds, every view of it can be computed', () => {
  const any = fc.constantFrom(...Object.values(EXAMPLES).map(([good]) => good));
  test('tray, board and words', () => {
    fc.assert(
      fc.property(fc.array(any, { maxLength: 25 }), (bodies) => {
        const kit = log(fresh(), ...bodies);
        expect(checkKit(JSON.parse(JSON.stringify(documentOf(kit)))).ok).toBe(true);
        const all = JSON.stringify([deriveTray(kit), [...kit.board.set], kit.log.map((e) => entryText(kit, e))]);
        expect(all).not.toMatch(/NaN|undefined/);
      }),
      { numRuns: 60 },
    );
  });
  test('windows: refs and nets that are not there are passed over, never thrown at the builder', () => {
    const kit = log(
      fresh(),
      { kind: 'removed', refs: ['R99'] },
      { kind: 'set', ref: 'NOWHERE', value: 1 },
      { kind: 'modified', change: { what: 'link', nets: ['no', 'where'] } },
      { kind: 'modified', change: { what: 'track-cut', ref: 'R99', pin: '1' } },
      { kind: 'modified', change: { what: 'value-replaced', ref: 'R99', value: 5 } },
      { kind: 'read', stage: 'gone', check: 'gone', reading: 5, meter: 'gone' },
    );
    expect(Object.keys(windowsOfKit(kit)).length).toBeGreaterThan(0);
    expect(investigationOf(kit)).toBeNull();
  });
});

describe('requests on the command line, whatever they hold', () => {
  const verbs = { decode, diagnose, receive, solve, verdict } as const;
  /** Fields that the verbs know, with anything in them. */
  const request = fc.dictionary(
    fc.constantFrom(
      'deck',
      'type',
      'input',
      'analysis',
      'set',
      'remove',
      'bom',
      'testPoints',
      'readings',
      'meter',
      'list',
      'pieces',
      'reading',
      'nominal',
      'school',
    ),
    fc.oneof(fc.jsonValue({ maxDepth: 2 }), fc.constantFrom('resistor-bands', 'capacitor-code', 't\nR1 a 0 1k\nV1 a 0 5', 'simple')),
    { maxKeys: 6 },
  );
  test.each(Object.entries(verbs))('%s answers with an object or an error that says something', (_, verb) => {
    fc.assert(
      fc.property(request, (r) => {
        try {
          expect(typeof verb(r)).toBe('object');
        } catch (error) {
          expect(error).toBeInstanceOf(Error);
          // A message for people, not the innards of the program.
          expect((error as Error).message.length).toBeGreaterThan(5);
          expect((error as Error).message).not.toMatch(/Cannot read propert|is not a function|is not iterable|undefined \(/);
        }
      }),
      { numRuns: 150 },
    );
  });
  test('decks of rubbish: a message, or a circuit that can be asked for its points', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 30 }), { maxLength: 15 }), (lines) => {
        try {
          solve({ deck: ['title', ...lines].join('\n') });
        } catch (error) {
          expect((error as Error).message.length).toBeGreaterThan(5);
        }
      }),
      { numRuns: 200 },
    );
  });
  test('decks that are nearly right: letters, nets and values mixed up', () => {
    const word = fc.constantFrom(
      'R1',
      'C1',
      'V1',
      'Q1',
      'M1',
      'D1',
      'X1',
      'a',
      'b',
      '0',
      '1k',
      '-5',
      'QN',
      'NPN(',
      ')',
      '.model',
      '.subckt',
      '.ends',
      '+',
      '{x}',
      '=',
      'DC',
      'SIN(0',
      '1e400',
      'nan',
    );
    fc.assert(
      fc.property(fc.array(fc.array(word, { maxLength: 7 }), { maxLength: 12 }), (lines) => {
        try {
          const { nodes } = solve({ deck: ['title', ...lines.map((l) => l.join(' '))].join('\n') }) as { nodes: Record<string, number> };
          for (const v of Object.values(nodes)) expect(Number.isFinite(v)).toBe(true);
        } catch (error) {
          expect((error as Error).message).not.toMatch(/Cannot read propert|is not a function|is not iterable/);
        }
      }),
      { numRuns: 400 },
    );
  });
});
