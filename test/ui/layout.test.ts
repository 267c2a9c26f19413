/** Places on the map, rows of the tray, and that colours stand in one file. */
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { deriveTray } from '@/core/kit';
import { DEMOS } from '@/stand-in';
import { overlaps, placeLabels, placeParts } from '@/ui/board/layout';
import { trayRows } from '@/ui/tray/rows';
import { at, log } from '../support/kits';

const kit = DEMOS[0]!.kit(at(0));

describe('the board map', () => {
  test('labels of the demo cover no part and no other label', () => {
    const parts = placeParts(kit.sheet);
    const labels = placeLabels(
      parts.map((p) => ({ id: p.ref, text: p.ref, around: p })),
      parts,
    );
    expect(labels).toHaveLength(29);
    for (const [i, a] of labels.entries()) {
      expect(parts.filter((p) => overlaps(a, p, 0.01)).map((p) => p.ref)).toEqual([]);
      expect(labels.slice(i + 1).filter((b) => overlaps(a, b, 0.01))).toEqual([]);
    }
  });
  test('parts without a place stand in rows and cover nothing', () => {
    const parts = placeParts({ ...kit.sheet, placement: [] });
    expect(parts).toHaveLength(30);
    for (const [i, a] of parts.entries()) expect(parts.slice(i + 1).filter((b) => overlaps(a, b, 0.01))).toEqual([]);
  });
  test('what has no place yet stands beneath those that have one', () => {
    const few = kit.sheet.placement.slice(0, 5);
    const parts = placeParts({ ...kit.sheet, placement: few });
    expect(parts).toHaveLength(29);
    const bottom = Math.max(...parts.slice(0, 5).map((p) => p.y));
    expect(parts.slice(5).every((p) => p.y > bottom)).toBe(true);
  });
  test('a label is never lost, however crowded it is', () => {
    const box = fc.record({ x: fc.integer({ min: 0, max: 60 }), y: fc.integer({ min: 0, max: 60 }), width: fc.constant(6), height: fc.constant(3) });
    fc.assert(
      fc.property(fc.array(box, { maxLength: 30 }), (boxes) => {
        const labels = placeLabels(
          boxes.map((around, i) => ({ id: String(i), text: `R${i}`, around })),
          boxes,
        );
        expect(labels.map((l) => l.id)).toEqual(boxes.map((_, i) => String(i)));
        expect(labels.every((l) => Number.isFinite(l.x) && Number.isFinite(l.y))).toBe(true);
      }),
    );
  });
});

describe('the tray', () => {
  const all = { filter: 'all', search: '', byKind: false } as const;
  const cells = (rows: ReturnType<typeof trayRows>) => rows.flatMap((r) => ('cells' in r ? r.cells : []));
  test('every line is in exactly one compartment, whatever the width and the grouping', () => {
    const tray = deriveTray(kit);
    for (const columns of [1, 2, 5, 9])
      for (const byKind of [false, true]) {
        const rows = trayRows(tray, 'unpack', { ...all, byKind }, columns);
        expect(
          cells(rows)
            .map((c) => c.line.id)
            .sort(),
        ).toEqual(tray.map((c) => c.line.id).sort());
        expect(rows.every((r) => 'heading' in r || r.cells.length <= columns)).toBe(true);
      }
  });
  test('what is missing, what is left, what a search means', () => {
    const tray = deriveTray(log(kit, { kind: 'counted', line: 'c-100n', quantity: 1 }));
    expect(cells(trayRows(tray, 'unpack', { ...all, filter: 'missing' }, 5)).map((c) => c.line.id)).toEqual(['c-100n']);
    expect(cells(trayRows(tray, 'unpack', { ...all, filter: 'to do' }, 5))).toHaveLength(tray.length - 1);
    expect(cells(trayRows(tray, 'check', { ...all, search: 'r9' }, 5)).map((c) => c.line.id)).toEqual(['r-10k']);
    expect(trayRows(tray, 'check', { ...all, search: 'nothing like it' }, 5)).toEqual([]);
  });
});

describe('one place for colours', () => {
  const walk = (folder: string): string[] =>
    readdirSync(folder).flatMap((name) => (statSync(join(folder, name)).isDirectory() ? walk(join(folder, name)) : [join(folder, name)]));
  const sheets = [...walk('src/ui'), ...walk('src/app')].filter((f) => f.endsWith('.css'));
  test.each(sheets)('%s names no colour of its own', (file) => {
    expect(readFileSync(file, 'utf8').match(/#[0-9a-f]{3,8}\b|\b(?:rgb|hsl)a?\(/gi) ?? []).toEqual([]);
  });
  test('the global sheet stays small, and only it is global', () => {
    expect(readFileSync('src/app/globals.css', 'utf8').split('\n').length).toBeLessThan(100);
    expect(sheets.filter((f) => !f.endsWith('.module.css'))).toEqual(['src/app/globals.css']);
  });
});
