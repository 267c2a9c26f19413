/** Sources that differ: found or written down, settled with a reason, never silently; and what is fitted beside the list. */
import { connectionsOf } from '@/core/circuit';
import { foundDifferences, settleDifference } from '@/core/draft';
import { type EntryBody, type KitState, newKit, put, type Sheet } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { answerOf, entryText, everythingFitted, openBeforePower, openMatters } from '@/core/loop';
import { at, log } from '../support/kits';

const resistor = (id: string, value: number, refs: string[]) => ({
  id,
  kind: 'resistor' as const,
  label: `${value}`,
  value,
  tolerance: null,
  quantity: refs.length,
  refs,
});
const sheet = (more: Partial<Sheet> = {}): Sheet => ({
  ...EMPTY_SHEET,
  lines: [resistor('a', 4700, ['R1', 'R2']), resistor('b', 1000, ['R3'])],
  circuit: { deck: 'x\nV1 in 0 9\nR1 in a 4.7k\nR2 a 0 47k\nR3 a 0 1.01k\n.end', neighbours: [] },
  ...more,
});
const kit = (more: Partial<Sheet> = {}): KitState => newKit(sheet(more), at(0));
let counted = 0;
const newId = () => `new-${++counted}`;
const valueInDeck = (k: KitState, ref: string) =>
  connectionsOf(k.sheet.circuit!.deck)
    .find((c) => c.name === ref)
    ?.rest.trim();

describe('list and diagram', () => {
  it('are held against one another part by part; rounding is no difference', () => {
    expect(foundDifferences(kit())).toEqual([{ id: 'found-R2', about: 'R2', list: '4.7 kΩ', diagram: '47 kΩ' }]);
  });

  it('settled for the diagram: the list gets a line of its own with the reason, and nothing differs any more', () => {
    const k = kit();
    const settled = log(
      k,
      ...settleDifference(k, { ...foundDifferences(k)[0]!, id: 'd1' }, { right: 'diagram', by: 'calculation', why: 'the base needs 90 µA' }, newId),
    );
    const own = settled.sheet.lines.find((l) => l.refs.includes('R2'))!;
    expect(own).toMatchObject({ value: 47_000, quantity: 1, amendment: 'the diagram is right, by calculation: the base needs 90 µA' });
    expect(settled.sheet.lines.find((l) => l.id === 'a')).toMatchObject({ refs: ['R1'], quantity: 1 });
    expect(foundDifferences(settled)).toEqual([]);
    expect(settled.sheet.differences).toEqual([
      { id: 'd1', about: 'R2', list: '4.7 kΩ', diagram: '47 kΩ', right: 'diagram', by: 'calculation', why: 'the base needs 90 µA' },
    ]);
  });

  it('settled for the list: the circuit follows', () => {
    const k = kit();
    const settled = log(k, ...settleDifference(k, { ...foundDifferences(k)[0]!, id: 'd1' }, { right: 'list', by: 'looking', why: '' }, newId));
    expect(Number(valueInDeck(settled, 'R2'))).toBe(4700);
    expect(settled.sheet.lines).toEqual(k.sheet.lines);
    expect(foundDifferences(settled)).toEqual([]);
  });
});

describe('print and board', () => {
  const noted = (): KitState => log(kit(), put(kit(), 'differences', { id: 'd', about: 'R3', print: '1k5', board: '1.0 k' }));

  it('written down stay open until they are settled, and hinder the end', () => {
    expect(openMatters(noted(), {})).toContain('sources differ on R3');
    const settled = log(noted(), ...settleDifference(noted(), noted().sheet.differences[0]!, { right: 'print', by: 'data sheet', why: 'page 2' }, newId));
    expect(openMatters(settled, {})).not.toContain('sources differ on R3');
    expect(settled.sheet.lines.find((l) => l.refs.includes('R3'))!.value).toBe(1500);
    expect(Number(valueInDeck(settled, 'R3'))).toBe(1500);
  });

  it('about a pin: the circuit gets it where the right one says; a part of two pins is turned round, as one batch', () => {
    const diode = { id: 'd1', kind: 'diode' as const, label: '1N4148', value: null, tolerance: null, quantity: 1, refs: ['D1'] };
    const deck = 'x\nV1 in 0 9\nR1 in a 4.7k\nR2 a 0 47k\nD1 a 0 D\n.model D D(IS=1e-14)\n.end';
    const pins = (k: KitState, ref: string) =>
      connectionsOf(k.sheet.circuit!.deck)
        .find((c) => c.name === ref)!
        .pins.map((p) => p.net);
    const says = (about: string, board: string) => {
      const before = kit({ lines: [...sheet().lines, diode], circuit: { deck, neighbours: [] } });
      const k = log(before, put(before, 'differences', { id: 'd', about, diagram: 'as drawn', board }));
      return log(k, ...settleDifference(k, k.sheet.differences[0]!, { right: 'board', by: 'tracing', why: '' }, newId));
    };
    expect(pins(says('D1.K', 'net a'), 'D1')).toEqual(['0', 'a']);
    expect(pins(says('D1.K', 'ground'), 'D1')).toEqual(['a', '0']);
    expect(pins(says('R2.1', 'in'), 'R2')).toEqual(['in', '0']);
    const settled = says('R2.1', 'in');
    expect(settled.sheet.differences[0]).toMatchObject({ right: 'board', by: 'tracing' });
    expect(settled.log.map((e) => entryText(settled, e))).toContain('Sources of R2.1: settled, the board is right by tracing');
    // A net that the circuit lacks is no place.
    expect(pins(says('R2.1', 'nowhere'), 'R2')).toEqual(['a', '0']);
  });

  it('about something that is no value: kept with its reason, nothing else is touched', () => {
    const k = log(kit(), put(kit(), 'differences', { id: 'd', about: 'D1', print: 'band to the left', diagram: 'band to the right' }));
    const entries = settleDifference(k, k.sheet.differences[0]!, { right: 'diagram', by: 'tracing', why: '' }, newId);
    expect(entries.map((e) => (e as { room?: string }).room)).toEqual(['differences']);
  });
});

describe('what the list names without a position', () => {
  const mechanical = (id: string, kind: 'link' | 'socket' | 'mechanical', label: string) => ({
    id,
    kind,
    label,
    value: null,
    tolerance: null,
    quantity: 2,
    refs: [],
  });
  const chip = { id: 'u', kind: 'opamp' as const, label: 'dual op-amp DIP-8', value: null, tolerance: null, quantity: 1, refs: ['U1'] };
  const lines = [
    mechanical('w', 'link', 'wire link'),
    mechanical('s', 'socket', 'DIP-8 socket'),
    mechanical('m', 'mechanical', 'M3 screw'),
    mechanical('p', 'mechanical', 'PCB'),
    resistor('a', 4700, ['R1', 'R2']),
    chip,
  ];
  const names = (k: KitState, all = true) =>
    everythingFitted(k).flatMap((s) =>
      !all && s.done ? [] : [s.target.kind === 'inspect' ? s.target.item.title : s.target.kind === 'fit' ? s.target.refs.join(' ') : '?'],
    );

  it('is asked for at its time: links first, sockets before their chips, screws last, paper never', () => {
    expect(names(kit({ lines, circuit: null }))).toEqual(['2 × wire link', 'R1 R2', '2 × DIP-8 socket', 'U1', '2 × M3 screw']);
  });

  it('is ticked like a look, and a chip that sits in its socket says that the socket is there', () => {
    const k = kit({ lines, circuit: null });
    const [links] = everythingFitted(k);
    const ticked = log(k, answerOf(links!.target, true) as EntryBody, { kind: 'fitted', refs: ['U1'] });
    expect(names(ticked, false)).toEqual(['R1 R2', '2 × M3 screw']);
  });

  it('a link that only the circuit has is asked for with the nets that it joins', () => {
    const k = kit({ circuit: { deck: 'x\nV1 in 0 9\nRJ1 in a 0.01\nR1 a 0 4.7k\nR2 a 0 4.7k\nR3 a 0 1k\n.end', neighbours: [] } });
    const first = everythingFitted(k)[0]!.target;
    expect(first.kind === 'inspect' && [first.item.title, first.item.good]).toEqual([
      'Wire link J1, which is on no list',
      'A piece of clipped lead joins in and a.',
    ]);
  });

  it('a sink, what lies under the tab and their screws come before the tab is soldered: no joint may carry them', () => {
    const regulator = { id: 'v', kind: 'regulator' as const, label: '7805', package: 'TO-220', value: 5, tolerance: null, quantity: 1, refs: ['U2'] };
    const k = kit({ lines: [regulator, mechanical('h', 'mechanical', 'heat sink')], circuit: null });
    expect(names(k)).toEqual(['2 × heat sink', 'Between the tab of U2 and the heat sink', 'U2']);
    const more = kit({
      lines: [...lines, regulator, mechanical('h', 'mechanical', 'heat sink for U2'), mechanical('f', 'mechanical', 'spacer 10 mm')],
      circuit: null,
    });
    expect(names(more).filter((n) => !/R1|U1|link|socket/.test(n))).toEqual([
      '2 × heat sink for U2',
      'Between the tab of U2 and the heat sink',
      '2 × M3 screw',
      'U2',
      '2 × spacer 10 mm',
    ]);
    // Once the part is in, what was left out is asked for at once.
    expect(names(log(k, { kind: 'fitted', refs: ['U2'] }), false)).toEqual(['2 × heat sink', 'Between the tab of U2 and the heat sink']);
  });

  it('what cools or holds the board is told before power, what belongs to the case is not', () => {
    const regulator = { id: 'v', kind: 'regulator' as const, label: '7805', package: 'TO-220', value: 5, tolerance: null, quantity: 1, refs: ['U2'] };
    const stage = { id: 'p', title: 'First power', kind: 'power' as const, fits: ['U2'], supplies: [], checks: [] };
    const k = log(
      kit({
        lines: [regulator, mechanical('h', 'mechanical', 'heat sink'), mechanical('f', 'mechanical', 'spacer'), mechanical('k', 'mechanical', 'knob')],
        circuit: null,
        stages: [stage],
      }),
      { kind: 'fitted', refs: ['U2'] },
    );
    expect(openBeforePower(k, stage).find((p) => p.kind === 'hardware')?.text).toBe(
      'not ticked off: 2 × heat sink, Between the tab of U2 and the heat sink, 2 × spacer',
    );
  });
});
