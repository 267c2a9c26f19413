/** Ohms and diode tests with the supply off: the meter drives. Against the reference simulator and closed forms. */
import { readDeck } from '@/core/circuit/deck/read';
import { writeDeck } from '@/core/circuit/deck/write';
import { meterCircuit, type MeterDrive, readDriven } from '@/core/circuit/meterDrive';
import { netsOf } from '@/core/circuit/netlist';
import { CIRCUITS } from '../support/circuits';
import { referenceOp } from '../support/simulator';

const ohms = (red: string, black: string): MeterDrive => ({ type: 'ohms', red, black, testVoltage: 0.5, testResistance: 1e4 });
const diode = (red: string, black: string): MeterDrive => ({ type: 'diode', red, black, testCurrent: 1e-3, compliance: 2.5 });
const circuitOf = (deck: string) => readDeck(deck).circuit;
const read = (deck: string, drive: MeterDrive, supplies: 'unplugged' | 'off' = 'unplugged') => readDriven(circuitOf(deck), drive, supplies);

describe('against the reference simulator: the voltage at the probes within 1 mV or 0.1 %', () => {
  const cases = CIRCUITS.flatMap(([name, deck]) => {
    const [, red = 'a', black = '0'] = netsOf(circuitOf(deck));
    return (['ohms', 'diode'] as const).map(
      (mode) => [`${name}, ${mode} from ${red} to ${black}`, deck, mode === 'ohms' ? ohms(red, black) : diode(red, black)] as const,
    );
  });
  test.each(cases)(
    '%s',
    async (_, deck, drive) => {
      const circuit = circuitOf(deck);
      const driven = meterCircuit(circuit, drive, 'off');
      const reference = await referenceOp(writeDeck(driven));
      const at = (net: string) => (net === '0' ? 0 : (reference.get(net.toLowerCase()) ?? reference.get(`v(${net.toLowerCase()})`))!);
      const theirs = at(drive.red) - at(drive.black);
      const mine = readDriven(circuit, drive, 'off');
      if (drive.type === 'diode') {
        if (mine === 'over') expect(theirs).toBeGreaterThan(2.49);
        else expect(Math.abs(mine - theirs)).toBeLessThan(Math.max(5e-3, 1e-3 * Math.abs(theirs)));
        return;
      }
      // V/I at the probes from the voltage alone: I = (0.5 V − V)/10 k.
      const wanted = theirs / ((0.5 - theirs) / 1e4);
      if (mine === 'over') expect(wanted > 3.9e7 || wanted < 0).toBe(true);
      else if (wanted > 0.5) expect(Math.abs(mine / wanted - 1)).toBeLessThan(0.01);
    },
    60_000,
  );
});

describe('closed forms', () => {
  test('resistors in series and parallel', () => {
    expect(read('t\nR1 a b 1k\nR2 b 0 2.2k', ohms('a', '0'))).toBeCloseTo(3200, 0);
    expect(read('t\nR1 a 0 1k\nR2 a 0 1k', ohms('a', '0'))).toBeCloseTo(500, 1);
    expect(read('t\nR1 a b 1k\nR2 b 0 2.2k', ohms('a', 'b'))).toBeCloseTo(1000, 0);
  });
  test('a parallel path always reads low', () => {
    const alone = read('t\nR1 a 0 10k', ohms('a', '0')) as number;
    const inCircuit = read('t\nV1 v 0 5\nR1 a 0 10k\nR2 v a 22k\nR3 v 0 1k', ohms('a', '0')) as number;
    expect(inCircuit).toBeLessThan(alone);
  });
  test('a supply that is switched off is no open circuit', () => {
    const deck = 't\nV1 v 0 5\nR1 v a 1k\nR2 a 0 1k';
    expect(read(deck, ohms('a', '0'), 'unplugged')).toBeCloseTo(1000, 1);
    expect(read(deck, ohms('a', '0'), 'off')).toBeCloseTo(500, 1);
  });
  test('swapped probes read a junction otherwise', () => {
    const deck = 't\nD1 a 0 DX\nR1 a 0 1meg\n.model DX D(IS=1e-9)';
    const forward = read(deck, ohms('a', '0')) as number;
    const backward = read(deck, ohms('0', 'a')) as number;
    expect(forward).toBeLessThan(backward / 5);
    expect(backward).toBeCloseTo(1e6, -4);
  });
  test('nothing between the probes is over-range; a capacitor is, once it is charged; a coil is nearly nothing', () => {
    expect(read('t\nR1 a b 1k\nR2 c 0 1k', ohms('a', '0'))).toBe('over');
    expect(read('t\nC1 a 0 1u\nR1 a b 1k', ohms('a', '0'))).toBe('over');
    expect(read('t\nL1 a 0 1m\nR1 a b 1k', ohms('a', '0'))).toBeLessThan(0.01);
  });
  test('diode test: the diode equation at 1 mA; two in series give up at 2.5 V only when they reach it', () => {
    const vt = 0.025865;
    const one = read('t\nD1 a 0 DX\n.model DX D(IS=1e-9)', diode('a', '0')) as number;
    expect(one).toBeCloseTo(vt * Math.log(1e6), 3);
    const two = read('t\nD1 a b DX\nD2 b 0 DX\n.model DX D(IS=1e-9)', diode('a', '0')) as number;
    expect(two).toBeCloseTo(2 * one, 3);
    expect(read('t\nD1 a 0 LB\n.model LB D(IS=1e-30 N=2)', diode('a', '0'))).toBe('over');
  });
  test('a resistor on diode test shows its millivolts: 1 mA × R', () => {
    expect(read('t\nR1 a 0 470', diode('a', '0'))).toBeCloseTo(0.47, 3);
  });
  test('a board that floats is read between any two of its nets', () => {
    expect(read('t\nR1 a b 4.7k\nR2 b c 10k', ohms('a', 'c'))).toBeCloseTo(14_700, -1);
  });
});
