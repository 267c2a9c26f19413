/** Ohms and diode tests with a meter that nobody knows: what it drives them with varies, and a healthy board is not accused for it. */
import { answer, diagnoserFor, type DiagnoseRequest } from '@/core/diagnose/request';
import { coldTestOf, driveIn, OHMS_RANGES } from '@/core/specimen/coldTest';

const DECK = 'bridge\nV1 vin 0 9\nD1 vin a DR\nR1 a b 1k\nR2 b 0 2.2k\nC1 a 0 10u\n.model DR D(IS=7E-9 N=1.8 RS=0.04)\n.end';
const REQUEST: Omit<DiagnoseRequest, 'id' | 'readings'> = {
  deck: DECK,
  bom: [
    { ref: 'V1', kind: 'supply', value: '9', tolerance: '2%' },
    { ref: 'D1', kind: 'diode', value: 'DR' },
    { ref: 'R1', kind: 'resistor', value: '1k', tolerance: '5%' },
    { ref: 'R2', kind: 'resistor', value: '2.2k', tolerance: '5%' },
    { ref: 'C1', kind: 'electrolytic', value: '10u', tolerance: '20%' },
  ],
  testPoints: [
    { name: 'TPV', node: 'vin' },
    { name: 'TPA', node: 'a' },
    { name: 'TPB', node: 'b' },
  ],
  neighbours: [],
  meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000, coldTest: 'unknown' },
};

test('meters differ as the contract says: 0.3 to 3 V, 0.1 µA to 1 mA, and one meter is one meter', () => {
  const meters = Array.from({ length: 200 }, (_, i) => coldTestOf(i));
  expect(Math.min(...meters.map((m) => m.volts))).toBeLessThan(0.5);
  expect(Math.max(...meters.map((m) => m.volts))).toBeGreaterThan(2);
  expect(coldTestOf(5)).toEqual(coldTestOf(5));
  for (const m of meters)
    for (const [range] of OHMS_RANGES.entries()) {
      const drive = driveIn({ type: 'ohms', red: 'a', black: '0', testVoltage: 1, testResistance: 1 }, m, range);
      if (drive.type !== 'ohms') throw new Error('not ohms');
      const short = drive.testVoltage / drive.testResistance;
      expect(short).toBeGreaterThanOrEqual(0.99e-7);
      expect(short).toBeLessThanOrEqual(1.01e-3);
    }
});

// 3.2 kΩ in series behind a diode: a meter of 2 V conducts it, one of 0.3 V reads megohms. Both are healthy.
test.each([5200, 250_000])('through the diode %s Ω may be read: a healthy board stays healthy', (value) => {
  const readings = [
    { at: 'TPV', mode: 'ohms', value, to: '0' },
    { at: 'TPA', mode: 'ohms', value: 3200, to: '0' },
    { at: 'TPB', mode: 'ohms', value: 2200, to: '0' },
  ];
  const { suspects, unexplained } = answer(diagnoserFor({ ...REQUEST, readings }), { ...REQUEST, readings });
  expect(unexplained).toBeLessThan(0.5);
  expect(suspects[0]!.kind).toBe('healthy');
});

test('a short is a short on every meter', () => {
  const readings = [
    { at: 'TPA', mode: 'ohms', value: 0.4, to: '0' },
    { at: 'TPB', mode: 'ohms', value: 690, to: '0' },
  ];
  const { suspects } = answer(diagnoserFor({ ...REQUEST, readings }), { ...REQUEST, readings });
  expect(suspects[0]).toMatchObject({ kind: 'short', parts: ['C1'] });
});
