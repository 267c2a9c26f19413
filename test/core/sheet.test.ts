import fc from 'fast-check';
import { readSheet, type SheetLine } from '@/core/partslist';

/** A part as a printer has it before it goes onto paper. */
interface Printed {
  readonly name: string;
  readonly spec: string;
  readonly refs: readonly string[];
  readonly want: Partial<SheetLine>;
}

const PARTS: readonly Printed[] = [
  { name: 'Carbon film resistor', spec: '0.47Ω 2W 5%', refs: ['R6'], want: { kind: 'resistor', value: 0.47, rating: { W: 2 }, tolerance: [-5, 5] } },
  { name: 'Metal film resistor', spec: '4k7 1/4W', refs: ['R1', 'R2', 'R3'], want: { kind: 'resistor', value: 4700, rating: { W: 0.25 } } },
  { name: 'Ceramic capacitor', spec: '222', refs: ['C1', 'C2'], want: { kind: 'capacitor', value: 2.2e-9 } },
  { name: 'Electrolytic capacitor', spec: '100uF/25V', refs: ['C3'], want: { kind: 'electrolytic', value: 1e-4, rating: { V: 25 } } },
  { name: 'Trimmer', spec: '203', refs: ['RV1'], want: { kind: 'trimmer', value: 20_000 } },
  { name: 'Potentiometer', spec: 'B50K', refs: ['POT1'], want: { kind: 'potentiometer', value: 50_000 } },
  { name: 'Thermistor NTC', spec: '10k', refs: ['NTC1'], want: { kind: 'thermistor', value: 10_000 } },
  { name: 'Photoresistor', spec: '5516', refs: ['LDR1'], want: { kind: 'ldr', type: '5516', value: null } },
  { name: 'Diode', spec: '1N4148', refs: ['D1', 'D2'], want: { kind: 'diode', type: '1N4148' } },
  { name: 'LED', spec: '5mm red', refs: ['LED1', 'LED2'], want: { kind: 'led', color: 'red', package: '5mm' } },
  { name: 'Zener diode', spec: '5V6 1W', refs: ['ZD1'], want: { kind: 'zener', value: 5.6 } },
  { name: 'Transistor', spec: 'BC557B', refs: ['Q1'], want: { kind: 'pnp', type: 'BC557B' } },
  { name: 'Transformer', spec: 'EI19', refs: ['T1'], want: { kind: 'transformer', type: 'EI19' } },
  { name: 'Bridge rectifier', spec: 'DB107', refs: ['BR1'], want: { kind: 'bridge', type: 'DB107' } },
  { name: 'Optocoupler', spec: 'PC817', refs: ['OK1'], want: { kind: 'optocoupler', type: 'PC817' } },
  { name: 'IC', spec: 'CD4017', refs: ['U1'], want: { kind: 'ic', type: 'CD4017' } },
  { name: 'Buzzer', spec: '5V', refs: ['BUZ1'], want: { kind: 'buzzer', rating: { V: 5 } } },
  { name: 'Loudspeaker', spec: '8Ω 1W', refs: ['LS1'], want: { kind: 'loudspeaker', value: 8 } },
  { name: 'Screw terminal', spec: '2 pins', refs: ['J1', 'J2'], want: { kind: 'connector', pins: 2 } },
  { name: 'Screw', spec: 'M3x6', refs: [], want: { kind: 'mechanical', type: 'M3x6' } },
  { name: 'Fuse', spec: 'T500mA', refs: ['F1'], want: { kind: 'fuse', rating: { A: 0.5 } } },
];

type Printer = (parts: readonly Printed[]) => string;
const count = (p: Printed) => Math.max(1, p.refs.length);
const table =
  (mark: string, order: readonly number[], heading: readonly string[] | null): Printer =>
  (parts) =>
    [
      ...(heading ? [order.map((i) => heading[i]!).join(mark)] : []),
      ...parts.map((p) => order.map((i) => [p.name, p.spec, p.refs.join(mark === ',' ? ' ' : ', '), String(count(p))][i]!).join(mark)),
    ].join('\n');
const HEADING = ['Part', 'Specification', 'Position', 'Qty'];
const LAYOUTS: Readonly<Record<string, Printer>> = {
  'numbered, count first': (ps) => ps.map((p, i) => `${i + 1} ${count(p)} ${p.name} ${p.spec} ${p.refs.join(', ')}`).join('\n'),
  'numbered with a dot': (ps) => ps.map((p, i) => `${i + 1}. ${p.name} ${p.spec} x${count(p)} ${p.refs.join(' ')}`).join('\n'),
  'count first': (ps) =>
    ps
      .map((p) => `${count(p)} x ${p.name} ${p.spec} (${p.refs.join(', ')})`)
      .join('\n')
      .replaceAll(' ()', ''),
  'positions, equals sign': (ps) => ps.map((p) => (p.refs.length > 0 ? `${p.refs.join(', ')} = ${p.name} ${p.spec}` : `${p.name} ${p.spec}`)).join('\n'),
  'long dashes': (ps) => ps.map((p) => [p.refs.join(', '), p.name, p.spec, `${count(p)} pcs`].filter(Boolean).join(' — ')).join('\n'),
  'count in brackets behind': (ps) => ps.map((p) => `${p.name} ${p.spec} ${p.refs.join('/')} [${count(p)}]`).join('\n'),
  bullets: (ps) => ps.map((p) => `• ${p.name}, ${p.spec}, ${p.refs.join(' ')} (${count(p)} pcs)`).join('\n'),
  tabs: table('\t', [0, 1, 2, 3], HEADING),
  'tabs without heading': table('\t', [2, 0, 1, 3], null),
  semicolons: table(';', [3, 2, 0, 1], HEADING),
  'commas in double quotes': (ps) => ['Qty,Part,Value,Ref', ...ps.map((p) => `${count(p)},${p.name},${p.spec},"${p.refs.join(',')}"`)].join('\n'),
  'bars as in a wiki': (ps) =>
    ['| Ref | Part | Value | Qty |', '|---|---|---|---|', ...ps.map((p) => `| ${p.refs.join(', ')} | ${p.name} | ${p.spec} | ${count(p)} |`)].join('\n'),
  columns: (ps) =>
    [
      'Qty  Part                    Spec          Ref',
      ...ps.map((p) => `${String(count(p)).padEnd(5)}${p.name.padEnd(24)}${p.spec.padEnd(14)}${p.refs.join(',')}`.trimEnd()),
    ].join('\n'),
  'number column, tabs': (ps) =>
    ['No.\tName\tValue\tDesignator\tQuantity', ...ps.map((p, i) => `${i + 1}\t${p.name}\t${p.spec}\t${p.refs.join(',')}\t${count(p)}`)].join('\n'),
};

const fieldsOf = (line: SheetLine, want: Partial<SheetLine>) => Object.fromEntries(Object.keys(want).map((k) => [k, line[k as keyof SheetLine]]));

describe('a whole sheet, set in many ways', () => {
  test.each(Object.entries(LAYOUTS))('%s: every part as it was printed', (_, print) => {
    const { lines, questions } = readSheet(print(PARTS));
    expect(lines.map((l, i) => ({ ...fieldsOf(l, PARTS[i]?.want ?? {}), refs: l.refs, quantity: l.quantity }))).toEqual(
      PARTS.map((p) => ({ ...p.want, refs: p.refs, quantity: count(p) })),
    );
    expect(questions).toEqual([]);
  });

  test('law: nothing vanishes, whatever is printed', () => {
    const layout = fc.constantFrom(...Object.values(LAYOUTS));
    const parts = fc.shuffledSubarray([...PARTS], { minLength: 2 });
    const junk = fc.array(
      fc.tuple(
        fc.nat(30),
        fc.oneof(fc.constantFrom('Resistors:', '???', 'Page 1 of 2', 'Mind the polarity of diodes.', '---', 'Total 12 pcs'), fc.string({ maxLength: 40 })),
      ),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(layout, parts, junk, (print, some, extra) => {
        const text = print(some).split('\n');
        for (const [at, line] of extra) text.splice(Math.min(at, text.length), 0, line.replace(/[\n\r]/g, ' '));
        const sheet = readSheet(text.join('\n'));
        const told = new Set(sheet.entries.flatMap((e) => e.sources));
        const printable = (line: string) =>
          line
            .normalize('NFKC')
            .replace(/[\u200b-\u200f\u202a-\u202e\u2060\u2066-\u2069\ufeff]/g, '')
            .trim() !== '';
        expect(text.flatMap((line, i) => (printable(line) && !told.has(i + 1) ? [line] : []))).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
});

describe('what a practitioner minds on a sheet', () => {
  const one = (text: string) => readSheet(text).lines[0]!;

  test('a running number is no value and no count', () => {
    const { lines } = readSheet('1 1 Widerstand 4k7 R1\n2 2 Keramikkondensator 222 C1, C2\n3 1 Widerstand 0,47 Ohm 2W R6');
    expect(lines.map((l) => [l.value, l.quantity, l.refs])).toEqual([
      [4700, 1, ['R1']],
      [2.2e-9, 2, ['C1', 'C2']],
      [0.47, 1, ['R6']],
    ]);
  });

  test('what stands behind "for" is not the part', () => {
    expect(one('Heat sink for IC2')).toMatchObject({ kind: 'heatsink', refs: [], note: 'for IC2' });
    expect(one('IC socket DIP-8 for IC1')).toMatchObject({ kind: 'socket', refs: [], pins: 8 });
  });

  test('a word beats the designator', () => {
    expect(one('T1 transformer EI14')).toMatchObject({ kind: 'transformer', refs: ['T1'], type: 'EI14' });
    expect(one('R5 LDR 5516')).toMatchObject({ kind: 'ldr', refs: ['R5'], value: null });
  });

  test('what the paper does not settle is asked', () => {
    const { questions } = readSheet('3x Resistor 10k (R1,R2)\n1x Resistor ?7k (R3)\n1x Resistor 22k (R1)\n2x Resistor — (R5,R6)\n2 x ???');
    expect(questions.map((q) => [q.source, q.doubt.what])).toEqual([
      [1, 'count'],
      [2, 'smudge'],
      [3, 'repeated'],
      [4, 'no-value'],
      [5, 'says-nothing'],
    ]);
  });

  test('spares explain pieces that are too many; stars point to their footnote', () => {
    const { lines, questions } = readSheet(
      '3x Resistor 10k (R1,R2) (1 spare)\n1x Loudspeaker 8Ω * (LS1)\n1x Resistor 1k ** (R9)\n* not included in the kit\n** not fitted',
    );
    expect(questions).toEqual([]);
    expect(lines.map((l) => [l.quantity, l.supplied, l.notFitted])).toEqual([
      [3, true, false],
      [1, false, false],
      [1, true, true],
    ]);
  });

  test('sections say what is not in the kit; two boards are kept apart', () => {
    const { lines } = readSheet('Board A:\n1x Resistor 10k (R1)\nBoard B:\n1x Resistor 22k (R1)\nRequired but not supplied:\n1x Battery 9V');
    expect(lines.map((l) => [l.refs, l.supplied])).toEqual([
      [['A:R1'], true],
      [['B:R1'], true],
      [[], false],
    ]);
  });

  test('hostile lengths are read in time', () => {
    const started = process.hrtime.bigint();
    readSheet(`${'R1,'.repeat(4000)}\n${'9'.repeat(10_000)}\n${'x'.repeat(10_000)}`);
    readSheet(Array.from({ length: 2000 }, (_, i) => `${i + 1} 1 Resistor ${i + 1}k R${i + 1}`).join('\n'));
    // A pattern that backtracks would take minutes: the limit only tells the one from the other.
    expect(Number(process.hrtime.bigint() - started) / 1e9).toBeLessThan(30);
  });
});
