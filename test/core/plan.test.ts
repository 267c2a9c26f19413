import fc from 'fast-check';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { type FittingSchool, type KitState, type Line, newKit, type Ref, type Sheet, type Stage } from '@/core/kit';
import { advisedSchool, planOf, scheduleOf, testsBefore } from '@/core/plan';
import { DEMOS } from '@/stand-in/demos';

const STAMP = { id: 'k', at: '2026-01-01T00:00:00.000Z' };
const SCHOOLS: readonly FittingSchool[] = ['lowest', 'list', 'blocks', 'least-harm', 'heavy', 'own'];
const demo = (slug: string): KitState => DEMOS.find((d) => d.slug === slug)!.kit(STAMP);
const none: ReadonlySet<Ref> = new Set();

/** Refs and [stages] in order. */
const spell = (kit: KitState, school: FittingSchool) =>
  planOf(kit, none, school)
    .steps.map((s) => (s.kind === 'fit' ? s.refs.join(' ') : s.kind === 'stage' ? `[${s.stage.id}]` : '[rails]'))
    .join(' ');

const line = (id: string, kind: Line['kind'], refs: Ref[], label = id): Line => ({
  id,
  kind,
  label,
  value: null,
  tolerance: null,
  quantity: refs.length,
  refs,
});
const stage = (id: string, kind: Stage['kind'], fits: Ref[]): Stage => ({ id, title: id, kind, fits, supplies: [], checks: [] });
const kitOf = (sheet: Partial<Sheet>): KitState => newKit({ ...EMPTY_SHEET, ...sheet }, STAMP);

describe('orders of fitting on the demos, as written down by hand', () => {
  it('crossing flasher: diode and resistors lie lowest, then transistors, LEDs, cans, the terminal', () => {
    expect(spell(demo('crossing-flasher'), 'lowest')).toBe('D3 R1 R2 R3 R4 Q1 Q2 D1 D2 C1 C2 C3 J1 [look] [cold] [run]');
    expect(spell(demo('crossing-flasher'), 'list')).toBe('R1 R2 R3 R4 C1 C2 C3 D3 D1 D2 Q1 Q2 J1 [look] [cold] [run]');
    expect(spell(demo('crossing-flasher'), 'least-harm')).toBe('R1 R2 R3 R4 C1 C2 C3 J1 D3 Q1 Q2 D1 D2 [look] [cold] [run]');
    expect(spell(demo('crossing-flasher'), 'heavy')).toBe('J1 D3 R1 R2 R3 R4 Q1 Q2 D1 D2 C1 C2 C3 [look] [cold] [run]');
  });

  it('nest-box listener: the supply is fitted and read before the amplifier, the chip after its empty socket', () => {
    expect(spell(demo('nest-box-listener'), 'blocks')).toMatch(
      /^R1 D1 .* U1 \[look\] \[cold\] \[winding\] R11 .* SK1 .* \[empty\] U2 MIC1 \[bias\] \[listen\]$/,
    );
    expect(spell(demo('nest-box-listener'), 'lowest')).toMatch(/C1 J1 U1 \[look\] \[cold\] \[winding\] \[empty\] U2 \[bias\]/);
    expect(spell(demo('nest-box-listener'), 'heavy')).toMatch(/^U1 J1 /);
  });

  it('frost sentinel: the comparator waits for the rails at its socket in every school', () => {
    for (const school of SCHOOLS) expect(spell(demo('frost-sentinel'), school)).toMatch(/SK1.*\[empty\] (?:TH1 )?U1/);
  });

  it('wind dial: two boards, one after the other; the mast’s socket is read before its chip', () => {
    expect(spell(demo('wind-dial'), 'blocks')).toMatch(/^D:.*\[dial-power\] M:.*\[rails\] M:U1 \[mast\]/);
  });

  it('the schools differ, on every demo', () => {
    for (const d of DEMOS) {
      const kit = d.kit(STAMP);
      expect(new Set(['lowest', 'list', 'least-harm', 'heavy'].map((s) => spell(kit, s as FittingSchool))).size).toBe(4);
    }
  });
});

const KINDS: readonly Line['kind'][] = [
  'resistor',
  'capacitor',
  'electrolytic',
  'diode',
  'led',
  'npn',
  'ic',
  'socket',
  'regulator',
  'connector',
  'relay',
  'mechanical',
];
/** Sheets with random lines, stages and rules. */
const sheets = fc
  .record({
    kinds: fc.array(fc.constantFrom(...KINDS), { minLength: 1, maxLength: 14 }),
    stages: fc.array(fc.constantFrom<Stage['kind']>('look', 'cold', 'power', 'run'), { maxLength: 4 }),
    where: fc.array(fc.nat(4), { minLength: 40, maxLength: 40 }),
    rules: fc.array(fc.tuple(fc.nat(30), fc.nat(30)), { maxLength: 4 }),
    order: fc.shuffledSubarray(Array.from({ length: 30 }, (_, i) => `X${i}`)),
  })
  .map(({ kinds, stages, where, rules, order }) => {
    const lines = kinds.map((kind, i) =>
      line(`l${i}`, kind, [`X${2 * i}`, `X${2 * i + 1}`], kind === 'mechanical' ? (i % 2 ? 'screw M3' : 'heat sink') : kind),
    );
    const refs = lines.flatMap((l) => l.refs);
    const ladder = stages.map((kind, i) =>
      stage(
        `s${i}`,
        kind,
        refs.filter((_, k) => where[k] === i),
      ),
    );
    const constraints = rules
      .map(([a, b], i) => ({ id: `c${i}`, ref: refs[a % refs.length]!, before: refs[b % refs.length]!, why: '' }))
      .filter((c) => c.ref !== c.before);
    const kit = kitOf({ lines, stages: ladder, constraints });
    return { kit: { ...kit, settings: { ...kit.settings, order } }, lines, refs, ladder, constraints };
  });

describe('laws of every plan', () => {
  it('has every part and every stage once, whatever the school', () => {
    fc.assert(
      fc.property(sheets, fc.constantFrom(...SCHOOLS), ({ kit, refs, ladder }, school) => {
        const { steps } = planOf(kit, none, school);
        expect(steps.flatMap((s) => (s.kind === 'fit' ? [...s.refs] : [])).sort()).toEqual([...refs].sort());
        expect(steps.flatMap((s) => (s.kind === 'stage' ? [s.stage.id] : []))).toEqual(ladder.map((s) => s.id));
        expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
      }),
    );
  });

  it('fits a socketed chip after every socket of its board and after a test of its rails, and each rule holds or is named', () => {
    fc.assert(
      fc.property(sheets, fc.constantFrom(...SCHOOLS), ({ kit, lines, constraints }, school) => {
        const { steps, contradictions } = planOf(kit, none, school);
        fc.pre(!contradictions.some((c) => c.includes('the order of the stages')));
        const order = steps.flatMap((s): string[] => (s.kind === 'fit' ? [...s.refs] : s.kind === 'stage' ? [s.stage.kind] : ['rails']));
        const at = (id: string) => order.indexOf(id);
        const sockets = lines.filter((l) => l.kind === 'socket').flatMap((l) => l.refs);
        const tests = order.flatMap((id, i) => (['power', 'run', 'rails'].includes(id) ? [i] : []));
        if (sockets.length > 0)
          for (const chip of lines.filter((l) => l.kind === 'ic').flatMap((l) => l.refs)) {
            expect(Math.max(...sockets.map(at))).toBeLessThan(at(chip));
            expect(Math.min(...tests)).toBeLessThan(at(chip));
          }
        const sinks = lines.filter((l) => l.label === 'heat sink').flatMap((l) => l.refs);
        for (const screw of lines.filter((l) => l.label === 'screw M3').flatMap((l) => l.refs))
          for (const sink of sinks) expect(at(sink)).toBeLessThan(at(screw));
        for (const c of constraints) if (!contradictions.some((t) => t.includes(`“${c.ref} before ${c.before}”`))) expect(at(c.ref)).toBeLessThan(at(c.before));
      }),
      { numRuns: 300 },
    );
  });

  it('measures no stage before what it is measured with is in', () => {
    fc.assert(
      fc.property(sheets, fc.constantFrom(...SCHOOLS), ({ kit, ladder }, school) => {
        const { steps, contradictions } = planOf(kit, none, school);
        fc.pre(contradictions.length === 0);
        const seen = new Set<Ref>();
        for (const s of steps) {
          if (s.kind === 'fit') s.refs.forEach((r) => seen.add(r));
          if (s.kind === 'stage') for (const r of ladder.find((x) => x.id === s.stage.id)!.fits) expect(seen.has(r)).toBe(true);
        }
      }),
    );
  });
});

describe('rules and advice', () => {
  const two = [line('a', 'resistor', ['R1']), line('b', 'resistor', ['R2'])];
  const rule = (id: string, ref: Ref, before: Ref) => ({ id, ref, before, why: 'the pad is beneath' });

  it('names rules that contradict one another and keeps the rest', () => {
    const plan = planOf(kitOf({ lines: two, constraints: [rule('1', 'R2', 'R1'), rule('2', 'R1', 'R2')] }), none, 'list');
    expect(plan.contradictions).toHaveLength(1);
    expect(plan.contradictions[0]).toMatch(/cannot hold together.*R1.*R2|R2.*R1/);
    expect(plan.steps).toHaveLength(2);
  });

  it('says what can no longer be tested by itself', () => {
    const lines = [line('a', 'resistor', ['R1']), line('u', 'ic', ['U1'])];
    const ladder = [stage('Supply', 'power', ['R1']), stage('Chip', 'power', ['U1'])];
    const kit = kitOf({ lines, stages: ladder });
    expect(planOf(kit, none, 'lowest').remarks.join(' ')).toMatch(/“Supply” is then measured with U1.*U1 is soldered without a socket/s);
    expect(planOf(kit, none, 'blocks').remarks).toEqual([]);
    expect(advisedSchool(kit.sheet)).toMatchObject({ school: 'blocks' });
    expect(advisedSchool(kitOf({ lines: two }).sheet)).toMatchObject({ school: 'lowest' });
  });

  it('says which tests come before a part, until they have passed', () => {
    const lines = [line('a', 'resistor', ['R1']), line('b', 'resistor', ['R2'])];
    const kit = kitOf({ lines, stages: [stage('Supply', 'power', ['R1']), stage('Rest', 'power', ['R2'])] });
    const plan = planOf(kit, none, 'blocks');
    const second = plan.steps.find((s) => s.kind === 'fit' && s.refs[0] === 'R2')!.id;
    expect(testsBefore(plan, second, none).map((s) => s.id)).toEqual(['Supply']);
    expect(testsBefore(plan, second, new Set(['Supply']))).toEqual([]);
    // Lowest first fits everything before it tests: nothing stands before R2.
    const low = planOf(kit, none, 'lowest');
    expect(testsBefore(low, low.steps.find((s) => s.kind === 'fit' && s.refs[0] === 'R2')!.id, none)).toEqual([]);
  });

  it('parts that no stage names are on the board before the first one, in every school', () => {
    const lines = [line('a', 'resistor', ['R1']), line('b', 'resistor', ['R2']), line('c', 'relay', ['K1'])];
    const kit = kitOf({ lines, stages: [stage('one', 'power', ['R1']), stage('two', 'power', ['R2'])] });
    for (const school of SCHOOLS) expect(spell(kit, school)).toMatch(/K1.*\[one\]/);
  });

  it('says that blocks without stages of their own are not tested between', () => {
    const kit = kitOf({ lines: two, stages: [stage('all', 'power', ['R1', 'R2'])] });
    expect(planOf(kit, none, 'blocks').remarks.join()).toMatch(/nothing is tested between them/);
  });

  it('names a stage in a contradiction by its title', () => {
    const ladder = [{ ...stage('p1', 'power', ['R1']), title: 'First power' }, stage('p2', 'power', ['R2'])];
    const kit = kitOf({ lines: two, stages: ladder, constraints: [{ id: 'c', ref: 'R2', before: 'R1', why: 'the pad is beneath' }] });
    const { contradictions } = planOf(kit, none, 'blocks');
    expect(contradictions.join()).toMatch(/“R2 before R1: the pad is beneath”.*the stage “First power”/);
  });

  it('a ladder that wants a chip before its socket keeps its stages and says so', () => {
    const lines = [line('s', 'socket', ['SK1']), line('u', 'ic', ['U1'])];
    const kit = kitOf({ lines, stages: [stage('one', 'look', ['U1']), stage('two', 'look', []), stage('three', 'look', ['SK1'])] });
    const plan = planOf(kit, none, 'blocks');
    expect(plan.steps.flatMap((s) => (s.kind === 'stage' ? [s.stage.id] : []))).toEqual(['one', 'two', 'three']);
    expect(plan.contradictions.join()).toMatch(/the order of the stages/);
  });

  it('a long chain of rules against the list turns it round', () => {
    const many = Array.from({ length: 60 }, (_, i) => line(`l${i}`, 'resistor', [`X${i}`]));
    const constraints = Array.from({ length: 59 }, (_, i) => ({ id: `c${i}`, ref: `X${i + 1}`, before: `X${i}`, why: '' }));
    const ids = planOf(kitOf({ lines: many, constraints }), none, 'list').steps.flatMap((s) => (s.kind === 'fit' ? [...s.refs] : []));
    expect(ids).toEqual(many.map((l) => l.refs[0]!).reverse());
  });

  it('leaves out what the board does not have', () => {
    expect(planOf(kitOf({ lines: two }), new Set(['R1']), 'list').steps).toMatchObject([{ refs: ['R2'] }]);
  });

  it('blocks of a circuit follow the way from the supply', () => {
    const deck = 'two blocks\nV1 in 0 12\nR1 in a 1k\nC1 a 0 10u\nQ1 b a 0 QN\nR2 in x 1k\nR3 x 0 1k\nR4 x y 10k\nQ2 z y 0 QN\nR5 b y 1k\n.model QN NPN\n.end';
    const lines = ['R1', 'C1', 'Q1', 'R2', 'R3', 'R4', 'R5', 'Q2'].map((r) =>
      line(r, r.startsWith('Q') ? 'npn' : r.startsWith('C') ? 'capacitor' : 'resistor', [r]),
    );
    const apart = deck.replace('R5 b y 1k\n', 'R5 b 0 1k\n');
    const order = spell(kitOf({ lines, circuit: { deck: apart, neighbours: [] } }), 'blocks');
    // The first stage of the two is R1, C1, Q1 and R5 (they share nets a and b), the second R2, R3, R4, Q2.
    expect(order).toBe('R1 R5 C1 Q1 R2 R3 R4 Q2');
  });
});

describe('the schedule', () => {
  const kit = (at: readonly string[]): KitState => {
    const base = kitOf({ lines: Array.from({ length: 40 }, (_, i) => line(`r${i}`, 'resistor', [`R${i}`])), stages: [] });
    const log = at.map((time, i) => ({ kind: 'fitted' as const, refs: [`R${i}`], id: `f${i}`, at: time }));
    return {
      ...base,
      log: [...base.log, ...log],
      board: { ...base.board, fitted: new Set(log.flatMap((e) => e.refs)) },
      settings: { ...base.settings, sitting: 10 },
    };
  };
  const minute = (n: number) => new Date(Date.UTC(2026, 0, 1, 12, 0, n * 60)).toISOString();

  it('counts half a minute a resistor (common practice, no source) and parts the work into sittings', () => {
    const k = kit([]);
    const s = scheduleOf(k, planOf(k, none, 'list'), new Set());
    expect(s.pace).toBeNull();
    expect(s.minutesLeft).toBeCloseTo(20);
    expect(s.sittings.map((x) => [x.minutes, x.ends])).toEqual([
      [10, 'time is up'],
      [10, 'all done'],
    ]);
  });

  it('a tick that was taken back says nothing of the pace', () => {
    const k = kit([0, 1, 2, 3, 4, 5].map(minute));
    const gone = { ...k, gone: new Set(['f5', 'f4']) };
    expect(scheduleOf(gone, planOf(gone, none, 'list'), new Set()).pace).toBeNull();
  });

  it('takes the pace from the log, breaks left out', () => {
    // One a minute: twice as slow as usual; a night in between says nothing.
    const k = kit([0, 1, 2, 3, 4, 700, 701, 702].map(minute));
    const s = scheduleOf(k, planOf(k, none, 'list'), new Set());
    expect(s.pace).toBeCloseTo(2);
    expect(s.minutesLeft).toBeCloseTo(32);
  });
});
