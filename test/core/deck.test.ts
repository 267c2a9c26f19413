import fc from 'fast-check';
import { evaluate } from '@/core/circuit/deck/expression';
import { readSpiceNumber, writeSpiceNumber } from '@/core/circuit/deck/number';
import { levelAt } from '@/core/circuit/waveform';
import { readDeck } from '@/core/circuit/deck/read';
import { removeParts, setValues } from '@/core/circuit/edit';
import { operatingPoint } from '@/core/circuit/operatingPoint';

describe('numbers (suffixes of the SPICE manual, from memory)', () => {
  test.each([
    ['4.7k', 4700],
    ['10MEG', 1e7],
    ['10m', 0.01],
    ['10M', 0.01],
    ['100nF', 1e-7],
    ['2.2uF', 2.2e-6],
    ['1e-6', 1e-6],
    ['10kOhm', 1e4],
    ['1T', 1e12],
    ['3.3G', 3.3e9],
    ['22p', 2.2e-11],
    ['-5', -5],
    ['.5', 0.5],
    ['1mil', 25.4e-6],
  ])('%s', (text, value) => {
    expect(readSpiceNumber(text)).toBeCloseTo(value, 12);
  });
  test.each(['abc', '', '1..2', 'k47', '--1', '1e'])('%s is no number', (text) => {
    if (text === '1e') expect(readSpiceNumber(text)).toBe(1);
    else expect(readSpiceNumber(text)).toBeNull();
  });
  test('write then read is the identity', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-15, max: 1e12, noNaN: true }), (v) => {
        expect(readSpiceNumber(writeSpiceNumber(v))).toBeCloseTo(Number(v.toPrecision(12)), 12);
      }),
    );
  });
});

describe('expressions', () => {
  test.each([
    ['1+2*3', 7],
    ['(1+2)*3', 9],
    ['2^3^2', 512],
    ['-2^2', -4],
    ['2*-3', -6],
    ['10k/2', 5000],
    ['sqrt(16)+max(1,2)', 6],
    ['r1*2', 200],
    ['a+b-c', 0],
  ])('%s', (text, value) => {
    expect(evaluate(text, { r1: 100, a: 1, b: 2, c: 3 })).toBeCloseTo(value, 9);
  });
  test.each([
    ['1+', /ends too early/],
    ['foo', /"foo" is not a parameter/],
    ['(1', /not closed/],
    ['1 2', /not expected/],
    ['1/0', /no finite value/],
    ['#', /cannot be read/],
  ])('%s is refused', (text, message) => {
    expect(() => evaluate(text, {})).toThrow(message);
  });
});

describe('decks', () => {
  test('comments, continuation lines, any case, ground by name, text after .end', () => {
    const { circuit, diagnostics } = readDeck('title R9 1 0 1\n* remark\nr1 IN out 1K ; tail\n+\nR2 OUT gnd\n+ 2k\nV1 in 0 DC 3\n.END\nR3 bad');
    expect(diagnostics).toEqual([]);
    expect(circuit.title).toBe('title R9 1 0 1');
    expect(circuit.parts.map((p) => p.name)).toEqual(['r1', 'R2', 'V1']);
    expect(operatingPoint(circuit).nodes).toEqual({ IN: 3, out: expect.closeTo(2, 6) as number });
  });

  test('parameters, sub-circuits with parameters, nested ones, local models', () => {
    const { circuit, diagnostics } = readDeck(
      't\n.param top=2k half={top/2}\nV1 a 0 8\nX1 a m DIV r={half}\nX2 m 0 PASS\n.subckt DIV p q r=5k\nR1 p q {r}\n.ends\n.subckt PASS p q\nX9 p q DIV r=3k\n.ends\n.end',
    );
    expect(diagnostics).toEqual([]);
    expect(circuit.parts.map((p) => p.name)).toEqual(['V1', 'X1.R1', 'X2.X9.R1']);
    expect(operatingPoint(circuit).nodes['m']).toBeCloseTo(6, 6);
  });

  test('sources: DC word, time courses, value at time 0', () => {
    const { circuit } = readDeck(
      't\nV1 a 0 DC 5 AC 1\nV2 b 0 SIN(1 2 50)\nV3 c 0 PULSE(0 5 1m 1u 1u 1m 2m)\nI1 0 d PWL(0 1m 1 3m)\nV4 e 0 5 SIN(0 1 1k)\nR1 d 0 1k',
    );
    const dc = circuit.parts.flatMap((p) => (p.kind === 'V' || p.kind === 'I' ? [p.dc] : []));
    expect(dc).toEqual([5, 1, 0, 1e-3, 5]);
    const wave = circuit.parts.find((p) => p.name === 'V3');
    if (wave?.kind !== 'V' || !wave.wave) throw new Error('no wave');
    expect([0, 1.5e-3, 2.5e-3, 3.5e-3].map((t) => levelAt(wave.wave!, t))).toEqual([0, 5, 0, 5]);
    const ramp = circuit.parts.find((p) => p.name === 'I1');
    if (ramp?.kind !== 'I' || !ramp.wave) throw new Error('no wave');
    expect(levelAt(ramp.wave, 0.5)).toBeCloseTo(2e-3, 9);
  });

  test.each([
    ['t\nZ1 a b 1', 2, 1, /kind of part that the bench does not know/],
    ['t\nR1 a 0', 2, 1, /R1 has no value/],
    ['t\nR1 a', 2, 1, /needs 2 nodes/],
    ['t\nR1 a 0 tenk', 2, 8, /"tenk" is not a parameter/],
    ['t\nD1 a 0 DX', 2, 8, /no .model is called "DX"/],
    ['t\nQ1 c b e DX\n.model DX D(IS=1e-14)', 2, 10, /model of type D/],
    ['t\n.model X FOO(A=1)', 2, 10, /"FOO" is not known/],
    ['t\nX1 a b NOPE', 2, 8, /no .subckt is called "NOPE"/],
    ['t\n.subckt A p q\nR1 p q 1\n.ends\nX1 a A', 5, 1, /has 1 nodes, but A has 2/],
    ['t\n.subckt A p q\nX1 p q A\nR1 p q 1\n.ends\nX1 a 0 A', 3, 1, /contains itself/],
    ['t\n.subckt A p q\nR1 p q 1', 3, 1, /never closed/],
    ['t\nR1 a 0 1\nR1 b 0 2', 3, 1, /is there twice/],
    ['t\n.include "other.lib"\nR1 a 0 1', 2, 1, /Paste the text|cannot open/],
    ['t\nC1 a 0 -1u', 2, 1, /zero or more|value -0.000001/],
  ])('%s', (deck, line, column, message) => {
    const { diagnostics } = readDeck(deck);
    const hit = diagnostics.find((d) => message.test(d.message));
    expect(hit).toMatchObject({ line, column });
    expect(hit!.remedy).not.toBe('');
  });

  test('hostile: 10 000 lines, binary rubbish, markup in names, sub-circuits that double without end', () => {
    const ladder = ['t', 'V1 n0 0 1', ...Array.from({ length: 10_000 }, (_, i) => `R${i} n${i} n${i + 1} 1`)].join('\n');
    expect(readDeck(ladder).circuit.parts).toHaveLength(10_001);
    expect(() => readDeck(String.fromCharCode(...Array.from({ length: 4000 }, (_, i) => i % 256)))).not.toThrow();
    expect(readDeck('t\nR<b>1 a 0 1k').circuit.parts[0]!.name).toBe('R<b>1');
    const doubling = ['t', '.subckt S0 a b', 'R1 a b 1', '.ends'];
    for (let i = 1; i < 40; i++) doubling.push(`.subckt S${i} a b`, `X1 a b S${i - 1}`, `X2 a b S${i - 1}`, '.ends');
    const { circuit, diagnostics } = readDeck([...doubling, 'X1 p 0 S39'].join('\n'));
    expect(circuit.parts.length).toBeLessThanOrEqual(20_000);
    expect(diagnostics.some((d) => /more than 20000 parts/.test(d.message))).toBe(true);
  });

  test('set and remove: parts named in any case, sub-circuits whole; unknown names are refused', () => {
    const { circuit } = readDeck('t\nV1 a 0 9\nR1 a b 1k\nR2 b 0 2k\nX1 b 0 LOAD\n.subckt LOAD p q\nR1 p q 2k\n.ends');
    expect(operatingPoint(circuit).nodes['b']).toBeCloseTo(4.5, 6);
    expect(operatingPoint(removeParts(circuit, ['x1'])).nodes['b']).toBeCloseTo(6, 6);
    expect(operatingPoint(setValues(circuit, { r1: 500, V1: 6 })).nodes['b']).toBeCloseTo(4, 6);
    expect(() => setValues(circuit, { R77: 1 })).toThrow('no part is called R77');
  });
});
