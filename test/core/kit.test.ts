import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import {
  append,
  checkKit,
  deriveBoardState,
  deriveMeasuredValues,
  deriveTray,
  deriveWaiting,
  type EntryBody,
  type KitDocument,
  lastStanding,
  newKit,
  openKit,
  standing,
} from '@/core/kit';
import { unite } from '@/store/storage';
import { DEMOS } from '@/stand-in/demos';
import { schemaText, validatorSource } from '../../scripts/generate';

const at = (n: number) => ({ id: `e${n}`, at: new Date(Date.UTC(2026, 0, 1, 0, 0, n)).toISOString() });
const demo = () => DEMOS[0]!.kit(at(0));
const log = (kit: KitDocument, ...bodies: EntryBody[]) => bodies.reduce((k, b) => append(k, b, at(k.log.length + 1)), kit);
const measured = (line: string, piece: number, ref: string, reading: number | 'over'): EntryBody => ({
  kind: 'measured',
  line,
  piece,
  ref,
  mode: 'ohms',
  reading,
  meter: 'handheld',
});

describe('the log', () => {
  test('nothing is overwritten: a withdrawn entry stays readable and counts for nothing', () => {
    const kit = log(
      demo(),
      { kind: 'counted', line: 'r-680', quantity: 1 },
      { kind: 'counted', line: 'r-680', quantity: 3 },
      { kind: 'withdrawn', entry: 'e2' },
    );
    expect(kit.log).toHaveLength(3);
    expect(deriveTray(kit).find((c) => c.line.id === 'r-680')!.counted).toBe(1);
    expect(lastStanding(kit.log)!.id).toBe('e1');
  });

  test('a withdrawal that is itself withdrawn does nothing', () => {
    const kit = log(demo(), { kind: 'noted', text: 'a' }, { kind: 'withdrawn', entry: 'e1' }, { kind: 'withdrawn', entry: 'e2' });
    expect(standing(kit.log).map((e) => e.id)).toEqual(['e1']);
  });

  test('law: withdrawing every entry leaves the tray as it was', () => {
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 5 }), { maxLength: 12 }), (counts) => {
        const fresh = demo();
        let kit = log(fresh, ...counts.map((quantity): EntryBody => ({ kind: 'counted', line: 'r-10k', quantity })));
        while (lastStanding(kit.log)) kit = log(kit, { kind: 'withdrawn', entry: lastStanding(kit.log)!.id });
        expect(deriveTray(kit)).toEqual(deriveTray(fresh));
      }),
      { numRuns: 30 },
    );
  });

  test('two tabs: the union holds every entry once, in order of time and id, whichever side saves last', () => {
    const start = log(demo(), { kind: 'noted', text: 'common' });
    const a = append(start, { kind: 'noted', text: 'left' }, { id: 'left', at: '2026-01-01T00:01:00.000Z' });
    const b = append(start, { kind: 'noted', text: 'right' }, { id: 'right', at: '2026-01-01T00:00:30.000Z' });
    expect(unite(a, b).log.map((e) => e.id)).toEqual(['e1', 'right', 'left']);
    expect(unite(b, a).log).toEqual(unite(a, b).log);
    expect(unite(a, a)).toEqual(a);
  });
});

describe('what follows from the log', () => {
  test('measured pieces: verdict, and the value that replaces the printed one; a piece that is out is not expected on the board', () => {
    const kit = log(demo(), measured('r-10k', 0, 'R4', 10150), measured('r-4k7', 1, 'R6', 46800), measured('r-10k', 1, 'R7', 'over'));
    const tray = deriveTray(kit);
    expect(tray.find((c) => c.line.id === 'r-10k')!.pieces.map((p) => p.verdict)).toEqual(['in', 'out', 'none', 'none']);
    expect(tray.find((c) => c.line.id === 'r-4k7')!.verdict).toBe('out');
    const values = deriveMeasuredValues(kit);
    expect([...values.keys()]).toEqual(['R4']);
    // Lead resistance of the handheld, 0.2 Ω, is subtracted.
    expect(values.get('R4')!.value).toBeCloseTo(10149.8, 6);
  });

  test('the board as it was at a moment', () => {
    const kit = log(
      demo(),
      { kind: 'fitted', refs: ['R1', 'R2'] },
      { kind: 'set', ref: 'VR1', value: 4000 },
      { kind: 'removed', refs: ['R2'] },
      { kind: 'modified', change: { what: 'link', nets: ['a', 'b'] } },
    );
    expect([...deriveBoardState(kit, 2).fitted]).toEqual(['R1', 'R2']);
    const now = deriveBoardState(kit);
    expect([...now.fitted]).toEqual(['R1']);
    expect([...now.removed]).toEqual(['R2']);
    expect(now.set.get('VR1')).toBe(4000);
    expect(now.modifications).toHaveLength(1);
  });

  test('waiting and resuming', () => {
    const waiting = log(demo(), { kind: 'waiting', reason: 'a 100 nF is on its way' });
    expect(deriveWaiting(waiting)!.reason).toMatch(/100 nF/);
    expect(deriveWaiting(log(waiting, { kind: 'resumed', waited: 'e1' }))).toBeNull();
  });
});

describe('the kit file at every door', () => {
  test('out and in again is the identity', () => {
    const kit = log(demo(), measured('r-10k', 0, 'R4', 10150), {
      kind: 'found',
      fault: { kind: 'bridge', parts: [], detail: { nets: ['a', 'b'] } },
      probability: 0.9,
    });
    expect(openKit(JSON.stringify(kit))).toEqual({ ok: true, kit, migratedFrom: null });
  });

  test('the schema knows what later work fills', () => {
    const { sheet } = demo();
    const rich = newKit(
      {
        ...sheet,
        boards: [
          { id: 'A', name: 'Mast board' },
          { id: 'B', name: 'Dial board', revision: '2' },
        ],
        options: [{ id: 'case', text: 'with case', choices: ['yes', 'no'] }],
        lines: [
          ...sheet.lines,
          { id: 'x', kind: 'resistor', label: '1 k', value: 1000, tolerance: null, quantity: 2, refs: ['A:R1', 'B:R1'], option: 'case', notFitted: false },
        ],
        stages: [
          ...sheet.stages,
          {
            id: 'keys',
            title: 'Keys',
            kind: 'run',
            fits: [],
            supplies: [],
            checks: [{ id: 'k', what: 'observe', title: 'keys', action: 'Press each key.', expect: 'Its lamp lights.', channels: ['1', '2', '3'] }],
          },
        ],
        typeCards: [{ type: '7805', pins: { 'TO-220': ['in', 'ground', 'out'] }, figures: [{ name: 'output', value: 5, unit: 'V', source: 'from memory' }] }],
        photos: [{ id: 'p', name: 'top', data: 'data:image/png;base64,', pins: [{ ref: 'R1', x: 1, y: 2 }] }],
      },
      at(0),
    );
    const entries: EntryBody[] = [
      { kind: 'modified', change: { what: 'part-added', name: 'R99', kind: 'R', value: 1000, nets: ['a', 'b'] } },
      { kind: 'modified', change: { what: 'track-cut', ref: 'Q1', pin: 'B' } },
      { kind: 'modified', change: { what: 'value-replaced', ref: 'R1', value: 2200 } },
      { kind: 'modified', change: { what: 'strap', option: 'case', choice: 'no' } },
      { kind: 'observed', stage: 'keys', check: 'k', channel: '2', asExpected: false },
      { kind: 'waiting', reason: 'delivery', until: '2026-02-01' },
      { kind: 'marked', line: 'x', piece: 0, text: '102' },
    ];
    expect(openKit(JSON.stringify(log(rich, ...entries))).ok).toBe(true);
  });

  test('version 1 is brought up to the present', () => {
    const { settings, ...rest } = demo();
    const old = { ...rest, version: 1, meter: 'bench' };
    expect(settings.meter).toBe('handheld');
    const opened = openKit(JSON.stringify(old));
    expect(opened).toMatchObject({
      ok: true,
      migratedFrom: 1,
      kit: { version: 3, settings: { meter: 'bench', school: 'simple', measure: 'matters', meters: [] } },
    });
  });

  test('version 2 gets a way of measuring and room for one’s own meters', () => {
    const { measure, meters, ...settings } = demo().settings;
    expect([measure, meters]).toEqual(['matters', []]);
    expect(openKit(JSON.stringify({ ...demo(), version: 2, settings }))).toMatchObject({
      ok: true,
      migratedFrom: 2,
      kit: { settings: { measure: 'matters', meters: [] } },
    });
  });

  test.each([
    ['truncated', JSON.stringify(demo()).slice(0, 5000), /not a whole JSON file \(line 1, column \d+\)/],
    ['foreign', '{"parts":[]}', /no Zesty Bench kit/],
    ['no object', '[1,2]', /no Zesty Bench kit/],
    ['newer', JSON.stringify({ ...demo(), version: 4 }), /version 4.*newer program/],
    ['no version', JSON.stringify({ ...demo(), version: 'x' }), /no readable version/],
    [
      'wrong type inside',
      JSON.stringify({ ...demo(), log: [{ kind: 'counted', id: 'a', at: 'b', line: 'c', quantity: -1 }] }),
      /\/log\/0.*Nothing was changed/,
    ],
    ['unknown field', JSON.stringify({ ...demo(), extra: 1 }), /does not fit its schema/],
    ['prototype games', '{"__proto__":{"format":"zesty-bench-kit"}}', /no Zesty Bench kit/],
  ])('%s is refused with place and remedy', (_, text, message) => {
    const opened = openKit(text);
    expect(opened.ok).toBe(false);
    if (!opened.ok) expect(opened.message).toMatch(message);
  });

  test('whatever JSON comes, it is answered and never thrown', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(checkKit(value).ok).toBe(false);
      }),
    );
  });

  test('the published schema and the compiled validator are those of the source', () => {
    expect(readFileSync('docs/kit.schema.json', 'utf8')).toBe(schemaText());
    expect(readFileSync('src/core/kit/generated/validateKit.js', 'utf8')).toBe(validatorSource());
  });
});
