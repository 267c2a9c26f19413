/** The report: what was done is told, what was not is left out; nothing from the kit becomes markup. */
import fc from 'fast-check';
import { buildReport, reportHtml, reportMarkdown, type ReportPart } from '@/core/report';
import { demo, log, windowsOfKit } from '../support/kits';

const part = (report: readonly ReportPart[], section: string) => report.find((p) => p.section === section);
const words = (p: ReportPart | undefined) => JSON.stringify(p?.blocks ?? []);

test('a kit that nothing was done to tells its parts, and no stage, fault or change', () => {
  const report = buildReport(demo(), {});
  expect(report.map((p) => p.section)).toEqual(['built', 'parts', 'open']);
  expect(words(part(report, 'built'))).toContain('Counted 0 of 22 lines, measured 0 of');
});

test('what was measured, read, found and mended stands in its section, with expected and read', () => {
  const kit = log(
    demo(),
    { kind: 'measured', line: 'r-4k7', piece: 1, ref: 'R6', mode: 'ohms', reading: 47_000, meter: 'handheld' },
    { kind: 'fitted', refs: ['R1', 'R2'] },
    { kind: 'removed', refs: ['R3'] },
    { kind: 'noted', text: 'Smells of flux' },
    { kind: 'found', fault: { kind: 'open', parts: ['R9'], detail: {} }, probability: 0.93 },
    { kind: 'repaired', refs: ['R9'], note: 'soldered anew' },
    { kind: 'modified', change: { what: 'link', nets: ['a', 'b'] }, temporary: true, why: 'bridged the fuse' },
    // Read anew after the repair: what was read before it is void.
    { kind: 'read', stage: 'warm', check: 'tp5', reading: 3.7, meter: 'handheld' },
    { kind: 'tried', check: 'Press K1', saw: [{ of: 'D1', saw: 'dim' }], asExpected: false },
  );
  const report = buildReport(kit, windowsOfKit(kit));
  expect(report.map((p) => p.section)).toEqual(['built', 'parts', 'stages', 'functions', 'faults', 'changes', 'notes', 'open']);
  expect(words(part(report, 'parts'))).toMatch(/"R6","4\.7 kΩ.*?","47\.00? kΩ","out of range"/);
  expect(words(part(report, 'parts'))).toMatch(/"R3",[^\]]*"left out"/);
  expect(words(part(report, 'functions'))).toContain('"Press K1","D1 dim"');
  expect(words(part(report, 'faults'))).toMatch(/R9.*soldered anew/);
  expect(words(part(report, 'changes'))).toContain('for a test, bridged the fuse');
  expect(words(part(report, 'notes'))).toContain('Smells of flux');
  expect(words(part(report, 'open'))).toContain('left out: R3');
});

test('law: whatever a builder writes, HTML stays text and a Markdown table keeps its columns', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), (title, text) => {
      const report: ReportPart[] = [
        {
          section: 'parts',
          title: 'Parts',
          blocks: [
            { kind: 'table', head: ['a', 'b'], rows: [[text, title]] },
            { kind: 'list', items: [text] },
          ],
        },
      ];
      const html = reportHtml(title, report);
      expect(html.match(/<\/?(?!doctype|html|meta|title|style|h1|h2|table|thead|tbody|tr|td|th|ul|li)\w/gi)).toBeNull();
      const row = reportMarkdown(title, report)
        .split('\n')
        .filter((l) => l.startsWith('|'))
        .at(-1)!;
      expect(row.replace(/\\\|/g, '').split('|')).toHaveLength(4);
    }),
  );
});
