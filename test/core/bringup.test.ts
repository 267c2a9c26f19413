/** Ladders by simulated boards: what healthy boards show, what faults do to it, and that nothing of a model's inside is a place. */
import fc from 'fast-check';
import { draft } from '../../scripts/zesty/draft';
import { draftKit, type DraftRequest } from '@/core/draft';
import { entryProblem, type MeasureCheck, newKit, type Sheet } from '@/core/kit';

import { BLINKER, BLINKER_LIST } from '../support/decks';

const ask = (more: Partial<DraftRequest>): DraftRequest => ({
  title: 'Made up',
  list: '',
  circuit: null,
  feeds: [],
  probes: null,
  meter: 'unknown',
  modes: null,
  conditions: [],
  sockets: [],
  ...more,
});
const checksOf = (sheet: Sheet) => sheet.stages.flatMap((s) => s.checks.flatMap((c) => (c.what === 'measure' ? [{ stage: s.id, ...c }] : [])));
const windowAt = (sheet: Sheet, stage: string, id: string) => checksOf(sheet).find((c) => c.stage === stage && c.id === id)?.window;

const FIVE_VOLTS = ask({
  list: '1 x Diode 1N4007 (D1)\n1 x Electrolytic capacitor 470uF 25V (C1)\n1 x Voltage regulator 7805 (U1)\n1 x Electrolytic capacitor 100uF 16V (C2)\n1 x Resistor 330 (R1)\n1 x LED green 5mm (D2)',
  circuit: {
    connections: {
      'D1.A': 'vin',
      'D1.K': 'a',
      'C1.+': 'a',
      'C1.-': '0',
      'U1.1': 'a',
      'U1.2': '0',
      'U1.3': 'v5',
      'C2.+': 'v5',
      'C2.-': '0',
      'R1.1': 'v5',
      'R1.2': 'l',
      'D2.A': 'l',
      'D2.K': '0',
    },
  },
  feeds: [{ net: 'vin', back: '0', kind: 'dc', volts: 12 }],
});

describe('a five volt supply told pin by pin', () => {
  const { sheet, proposal } = draftKit(FIVE_VOLTS);
  test('its output is expected within the data sheet’s 4 % and little beyond (fixed regulators, from memory)', () => {
    const window = windowAt(sheet, 'p-power', 'v-v5');
    expect(window!.low).toBeGreaterThan(4.6);
    expect(window!.low).toBeLessThan(4.8);
    expect(window!.high).toBeGreaterThan(5.2);
    expect(window!.high).toBeLessThan(5.4);
  });
  test('a guard diode’s half volt or more lies between input and reservoir (textbook)', () => {
    const at = windowAt(sheet, 'p-power', 'v-a') ?? windowAt(sheet, 'p-power', 'v-vin');
    expect(at!.low).toBeGreaterThan(10.2);
    expect(at!.high).toBeLessThan(12.6);
  });
  test('shorts and turned parts at the supply are caught before or at first power', () => {
    const early = new Set(proposal!.stages.slice(0, 2).flatMap((s) => s.offers.filter((o) => o.chosen).flatMap((o) => o.catches.map((f) => f.id))));
    const harmful = proposal!.faults.filter((f) => f.harm && !f.id.includes('turned'));
    expect(harmful.filter((f) => !early.has(f.id)).map((f) => f.id)).toEqual([]);
  });
  test('every record of it fits the schema', () => {
    const kit = newKit(sheet, { id: 'k', at: '2026-01-01T00:00:00.000Z' });
    expect(kit.log.map((e) => entryProblem(e)).filter((p) => p !== null)).toEqual([]);
  });
  test('no check stands on a net that the board does not have, and each says what it tells', () => {
    const nets = new Set(['0', 'vin', 'a', 'v5', 'l']);
    const points = new Map(sheet.testPoints.map((t) => [t.id, t.net]));
    const net = (p: MeasureCheck['red']) => ('net' in p ? p.net : 'testPoint' in p ? points.get(p.testPoint) : null);
    for (const c of checksOf(sheet)) {
      expect([c.id, nets.has(net(c.red) ?? '?')]).toEqual([c.id, true]);
      expect([c.id, c.note]).toEqual([c.id, expect.stringContaining('.')]);
    }
  });
});

test('a stand-in’s inner nets and sources are neither test points nor supplies nor checks', () => {
  const { sheet } = draftKit(ask({ list: BLINKER_LIST, circuit: { deck: BLINKER }, feeds: [{ net: 'vcc', back: '0', kind: 'battery', volts: 9 }] }));
  expect(JSON.stringify(sheet.stages)).not.toMatch(/U1o|VU1q/);
  // Two thirds of the supply at the control pin (data sheet, from memory): of 9 to 10.1 V, a new battery's.
  const control = windowAt(sheet, 'p-power', 'v-cv') ?? windowAt(sheet, 'p-chips', 'v-cv');
  expect(control!.low).toBeGreaterThan(5);
  expect(control!.high).toBeLessThan(7.6);
});

test('a winding is AC: 10 to 30 % above its print without load lie inside, and it is set as a winding', () => {
  const { sheet } = draftKit(
    ask({
      list: '4 x Diode 1N4007 (D1 D2 D3 D4)\n1 x Electrolytic capacitor 1000uF 35V (C1)\n1 x Resistor 1k (R1)',
      circuit: {
        connections: {
          'D1.A': 'p',
          'D1.K': 'raw',
          'D2.A': 'q',
          'D2.K': 'raw',
          'D3.A': '0',
          'D3.K': 'p',
          'D4.A': '0',
          'D4.K': 'q',
          'C1.+': 'raw',
          'C1.-': '0',
          'R1.1': 'raw',
          'R1.2': '0',
        },
      },
      feeds: [{ net: 'p', back: 'q', kind: 'winding', volts: 12 }],
    }),
  );
  const power = sheet.stages.find((s) => s.id === 'p-power')!;
  expect(power.supplies).toEqual([expect.objectContaining({ volts: 12, feed: 'winding' })]);
  const ac = checksOf(sheet).find((c) => c.mode === 'acv')!.window!;
  expect(ac.low!).toBeLessThan(12 * 0.94);
  expect(ac.high!).toBeGreaterThan(12 * 1.3 * 1.06);
  // The reservoir holds the peak less two junctions (textbook): of 12 V unloaded by 10 % about 17 V.
  const raw = windowAt(sheet, 'p-power', 'v-raw')!;
  expect(raw.low!).toBeLessThan(12 * 1.1 * Math.SQRT2 - 1.4);
  expect(raw.high!).toBeGreaterThan(12 * 1.3 * Math.SQRT2 - 1.6);
});

test('a chip that nobody knows: no volts are expected where it may pull either way', () => {
  const { sheet } = draftKit(
    ask({
      list: '1 x IC QX1234 (U1)\n1 x Resistor 10k (R1)\n1 x Electrolytic capacitor 100uF 16V (C1)',
      circuit: { connections: { 'U1.1': 'x', 'U1.2': 'vcc', 'U1.3': 'y', 'U1.4': '0', 'R1.1': 'x', 'R1.2': '0', 'C1.+': 'vcc', 'C1.-': '0' } },
      feeds: [{ net: 'vcc', back: '0', kind: 'usb', volts: 5 }],
    }),
  );
  const volts = checksOf(sheet).filter((c) => c.mode === 'dcv');
  expect(volts.map((c) => c.id)).toEqual(['v-vcc']);
});

test('law: of dividers at random the middle lies inside its window, and a short of either resistor is caught', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1000, max: 200_000 }), fc.integer({ min: 25, max: 400 }), fc.integer({ min: 3, max: 24 }), (a, percent, volts) => {
      // A resistor much smaller than the other one vanishes in its tolerance.
      const b = Math.round((a * percent) / 100);
      const { proposal } = draftKit(
        ask({
          list: `1 x Resistor ${a} (R1)\n1 x Resistor ${b} (R2)`,
          circuit: { deck: `t\nV1 in 0 ${volts}\nR1 in m ${a}\nR2 m 0 ${b}\n.end` },
          feeds: [{ net: 'in', back: '0', kind: 'dc', volts }],
          meter: 'bench',
        }),
      );
      const middle = (volts * b) / (a + b);
      const offers = proposal!.stages.flatMap((s) => s.offers);
      const at = offers.find((o) => o.place.mode === 'dcv' && o.place.red === 'm');
      if (at) {
        expect(at.window.low!).toBeLessThan(middle);
        expect(at.window.high!).toBeGreaterThan(middle);
      }
      const caught = new Set(offers.filter((o) => o.chosen).flatMap((o) => o.catches.map((f) => f.id)));
      expect(['R1 short', 'R2 short'].filter((f) => !caught.has(f))).toEqual([]);
    }),
    { numRuns: 25 },
  );
});

test('rubbish is answered: no list, no supply, an unknown template', () => {
  expect(draftKit(ask({})).sheet.stages).toEqual([]);
  expect(draftKit(ask({ list: 'garbage', circuit: { deck: 'x\nV1 a 0 5\n' } })).proposal).toBeNull();
  expect(() => draftKit(ask({ list: 'R1 1k', circuit: { templates: [{ template: 'no-such', parts: {}, figures: {} }] } }))).toThrow('no-such');
});

test('the command line answers limits and settings of every stage, and names what is wrong with a request', () => {
  const asked = {
    id: 'x',
    list: '1 x Potentiometer 10k (P1)\n1 x Resistor 1k (R1)',
    circuit: { connections: { 'P1.1': 'vcc', 'P1.2': 'w', 'P1.3': '0', 'R1.1': 'w', 'R1.2': '0' } },
    supplies: [{ net: 'vcc', back: '0', kind: 'dc', volts: 9 }],
    probes: ['vcc', 'w'],
    meter: { kind: 'handheld', modes: ['dcv', 'dca', 'ohms'] },
  };
  const answer = draft(asked) as { windows: { check: string; low: number | null; high: number | null }[]; setup: { set: { ref: string; value: number }[] }[] };
  // A control stands at its safe end until a check sets it otherwise: there its wiper is at ground.
  expect(answer.setup.some((s) => s.set.some((x) => x.ref === 'P1' && x.value === 0))).toBe(true);
  // Turned up, by whichever of its settings, the wiper carries volts (potential divider).
  const turned = answer.windows.filter((w) => w.check.startsWith('v-w-'));
  expect(turned.map((w) => w.low! > 0.5)).toContain(true);
  expect(() => draft({ ...asked, supplies: [{ net: 'vcc', back: '0', kind: 'solar', volts: 9 }] })).toThrow('"kind" must be "dc"');
  expect(() => draft({ ...asked, circuit: { drawing: 1 } })).toThrow('deck, connections or templates');
});
