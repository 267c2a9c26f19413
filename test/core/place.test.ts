import fc from 'fast-check';
import { type PlacedPad, type PlacedPart, readPlaces, textOfBytes, writeBareBoard, writeCentroid } from '@/core/place';

const codes = (text: string, refs?: string[]) => readPlaces(text, refs).findings.map((f) => f.code);
const only = (text: string) => readPlaces(text).parts[0]!;

describe('centroid files', () => {
  it.each([
    ['Ref,X (mm),Y (mm)\nR1,12.5,3', 12.5, 3],
    ['Designator;Center-X(mil);Center-Y(mil)\nR1;1000;-500', 25.4, -12.7],
    ['ref\tpos x\tpos y\nR1\t1,5in\t.5in', 38.1, 12.7],
    ['# units: inch\nRef  X  Y\nR1   1  2', 25.4, 50.8],
    ['Ref X-Pos Y-Pos Side\nR1 \u22125mm 4um Top', -5, 0.004],
    ['# Ref, X, Y\n# all positions in mil\n"R1",100,200', 2.54, 5.08],
    // An inch is 25.4 mm exactly, a mil its thousandth (ISO 31-1, from memory).
    ['Ref,Mid X,Mid Y,X,Y (mm)\nR1,1",2",9,9', 25.4, 50.8],
  ])('reads %j', (text, x, y) => {
    const part = only(text);
    expect(part.ref).toBe('R1');
    expect(part.x).toBeCloseTo(x, 9);
    expect(part.y).toBeCloseTo(y, 9);
  });

  it('guesses a unit by the size that boards have, and says so', () => {
    const rows = (far: number) => `Ref,X,Y\nR1,0,0\nR2,${far},0`;
    expect(readPlaces(rows(3000)).parts[1]!.x).toBeCloseTo(76.2);
    expect(readPlaces(rows(3)).parts[1]!.x).toBeCloseTo(76.2);
    expect(readPlaces(rows(80)).parts[1]!.x).toBe(80);
    expect(codes(rows(80))).toEqual(['unit-guessed']);
    expect(codes('Ref,X (mm),Y\nR1,1,2')).toEqual([]);
  });

  it('names what it leaves out and what does not meet the list', () => {
    const text = 'Ref,X (mm),Y (mm),Rot,Side\nR1,1,2,0,top\nr1,5,5,0,top\nR2,left,2,0,top\nFID1,0,0,0,top\nR9,1,2,0,bottom\n"open,1,2\n';
    const { parts, findings } = readPlaces(text, ['R1', 'R7']);
    expect(parts.map((p) => p.ref)).toEqual(['R1', 'FID1', 'R9']);
    expect(findings.map((f) => [f.code, f.line ?? null])).toEqual([
      ['bad-row', 4],
      ['bad-row', 7],
      ['duplicate-ref', 3],
      ['unknown-ref', null],
      ['missing-ref', null],
    ]);
    for (const f of findings) expect(f.text).not.toBe('');
  });

  it('turns a mirrored bottom round only where the file says that it is mirrored', () => {
    const body = 'Ref,X (mm),Y (mm),Side\nR1,5,1,Bottom\nR2,6,1,Top';
    expect(readPlaces(body).parts.map((p) => p.x)).toEqual([5, 6]);
    expect(readPlaces(`# bottom side is mirrored\n${body}`).parts.map((p) => p.x)).toEqual([-5, 6]);
    expect(readPlaces(`# bottom side is not mirrored\n${body}`).parts.map((p) => p.x)).toEqual([5, 6]);
  });

  it('brings rotations to one turn and leaves the bottom side’s alone', () => {
    const rotation = (cell: string) => only(`Ref,X (mm),Y (mm),Rot (deg),Side\nR1,1,1,${cell},bottom`).rotation;
    expect([rotation('-90'), rotation('450'), rotation('90°'), rotation(''), rotation('360 deg')]).toEqual([270, 90, 90, 0, 0]);
  });

  it('takes a heading that comes again, footers as rows, and a side of the whole file', () => {
    const { parts, findings } = readPlaces('Side: bottom\nRef,X (mm),Y (mm)\nR1,1,2\nX (mm),Y (mm),Ref\n3,4,R2\nTotal 2 parts\n-----\n');
    expect(parts).toMatchObject([
      { ref: 'R1', x: 1, y: 2, side: 'bottom' },
      { ref: 'R2', x: 3, y: 4, side: 'bottom' },
    ]);
    expect(findings.map((f) => f.code)).toEqual(['bad-row']);
  });

  it.each(['', ' \n\t', 'Qty,Value\n4,10k', '<html>\nRef,X,Y\nR1,1,2', 'PK\u0003\u0004 [Content_Types].xml'])('refuses %j in words', (text) => {
    expect(() => readPlaces(text)).toThrow(/neither a centroid file/);
  });
});

/** Columns of the records: IPC-D-356, from memory. */
const record = (code: string, net: string, ref: string, pin: string, access: string, x: string, y: string) =>
  `${`${code}${net.padEnd(14)}   ${ref.padEnd(6)}-${pin.padEnd(4)}`.padEnd(38)}${access}X${x}Y${y}`;

describe('bare-board netlists', () => {
  it('reads pads by their columns, parts in the middle of their pads, long nets by their names', () => {
    const text = [
      'C  a comment',
      'P  UNITS CUST 1',
      'P  NNAME1 SUPPLY BEHIND THE FUSE',
      record('317', 'NNAME1', 'R1', '1', 'A00', '+001000', '+002000'),
      record('317', 'N/C', 'R1', '2', 'A00', '+011160', ' 002000'),
      record('327', 'GND', 'U12345', 'A1', 'A02', '-005000', '+000500'),
      record('317', 'GND', 'VIA', '', 'A00', '+000000', '+000000'),
      record('317', 'GND', 'R2', '1', 'Axx', '+000000', '+000000'),
      '999',
      'what follows is ignored',
    ].join('\r\n');
    const { format, parts, pads, findings } = readPlaces(text);
    expect(format).toBe('ipc-d-356');
    expect(parts).toEqual([
      { ref: 'R1', x: 6.08, y: 2, rotation: null, side: 'top' },
      { ref: 'U12345', x: -5, y: 0.5, rotation: null, side: 'bottom' },
    ]);
    expect(pads!.map((p) => [p.ref, p.pin, p.net, p.side])).toEqual([
      ['R1', '1', 'SUPPLY BEHIND THE FUSE', 'both'],
      ['R1', '2', null, 'both'],
      ['U12345', 'A1', 'GND', 'bottom'],
    ]);
    expect(findings.map((f) => f.code)).toEqual(['bad-row']);
  });

  it('counts in tenths of a mil unless told otherwise, and says when the end is missing', () => {
    const { pads, findings } = readPlaces(record('317', 'A', 'R1', '1', 'A00', '+010000', '+000100'));
    expect(pads![0]!.x).toBeCloseTo(25.4);
    expect(pads![0]!.y).toBeCloseTo(0.254);
    expect(findings.map((f) => f.code)).toEqual(['no-end']);
  });

  it('says which ref, pin or place does not fit its columns', () => {
    const pad: PlacedPad = { ref: 'R1', pin: '1', net: 'A', x: 0, y: 0, side: 'both' };
    expect(() => writeBareBoard([{ ...pad, ref: 'SENSOR7' }])).toThrow(/SENSOR7.*6 columns/);
    expect(() => writeBareBoard([{ ...pad, pin: '12345' }])).toThrow(/4 columns/);
    expect(() => writeBareBoard([{ ...pad, x: 1000 }])).toThrow(/999\.999/);
  });
});

const mm = fc.integer({ min: -999_999, max: 999_999 }).map((n) => n / 1000);
const word = (most: number) => fc.stringMatching(new RegExp(`^[A-Za-z0-9_+#"/,;.-]{1,${most}}$`));
const side = fc.constantFrom('top' as const, 'bottom' as const);

describe('what is written is read back', () => {
  it('centroid, whatever the refs look like', () => {
    const part = fc.record({ ref: word(12), x: mm, y: mm, rotation: fc.integer({ min: 0, max: 35_999 }).map((n) => n / 100), side });
    fc.assert(
      fc.property(fc.uniqueArray(part, { selector: (p) => p.ref.toLowerCase(), maxLength: 30 }), (parts: PlacedPart[]) => {
        const back = readPlaces(writeCentroid(parts));
        expect(back.findings).toEqual([]);
        expect(back.parts.map((p) => [p.ref, p.side])).toEqual(parts.map((p) => [p.ref, p.side]));
        back.parts.forEach((p, i) => {
          expect(p.x).toBeCloseTo(parts[i]!.x, 6);
          expect(p.y).toBeCloseTo(parts[i]!.y, 6);
          expect(p.rotation).toBeCloseTo(parts[i]!.rotation!, 6);
        });
      }),
    );
  });

  it('bare-board netlist, long and strange nets included', () => {
    const net = fc.oneof(word(40), fc.constantFrom('N/C', 'NNAME3', 'VCC 5V', 'a net with blanks that is long'), fc.constant(null));
    const pad = fc.record({
      ref: word(6).filter((r) => r !== 'VIA'),
      pin: fc.oneof(word(4), fc.constant('')),
      net,
      x: mm,
      y: mm,
      side: fc.constantFrom('top' as const, 'bottom' as const, 'both' as const),
    });
    fc.assert(
      fc.property(fc.array(pad, { minLength: 1, maxLength: 30 }), (pads: PlacedPad[]) => {
        const back = readPlaces(writeBareBoard(pads));
        expect(back.findings).toEqual([]);
        expect(back.pads!.map((p) => ({ ...p, x: Math.round(p.x * 1000), y: Math.round(p.y * 1000) }))).toEqual(
          pads.map((p) => ({ ...p, x: Math.round(p.x * 1000), y: Math.round(p.y * 1000) })),
        );
      }),
    );
  });

  it('any text at all is read or refused, never worse', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string({ unit: 'binary', maxLength: 300 }),
          fc.string({ maxLength: 300 }).map((t) => `Ref,X,Y\n${t}`),
        ),
        (text) => {
          try {
            expect(readPlaces(text).format).toMatch(/centroid|ipc/);
          } catch (error) {
            expect((error as Error).message).toMatch(/neither a centroid file/);
          }
        },
      ),
    );
  });
});

describe('bytes', () => {
  it('are UTF-16 with a mark, UTF-8 where valid, else windows-1252', () => {
    expect(textOfBytes(Uint8Array.of(0xff, 0xfe, 0x52, 0, 0x31, 0))).toBe('R1');
    expect(textOfBytes(Uint8Array.of(0xfe, 0xff, 0, 0x52, 0, 0x31))).toBe('R1');
    expect(textOfBytes(new TextEncoder().encode('1 \u00b5m'))).toBe('1 \u00b5m');
    // windows-1252 puts the micro sign at B5 (code page table).
    expect(textOfBytes(Uint8Array.of(0x31, 0xb5, 0x6d))).toBe('1\u00b5m');
  });
});
