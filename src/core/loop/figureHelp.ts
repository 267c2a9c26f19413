import type { Line, PartFigure } from '../kit';
import { printNominal } from '../quantity';

/** How a further figure is taken, and where its limits come from. */
export interface FigureHelp {
  readonly title: string;
  /** With a meter alone. */
  readonly how: string;
  /** With a component tester, where that shows it by itself. */
  readonly tester?: string;
  readonly from: string;
}

const PRACTICE = 'common practice';
const volts = (line: Line) => (line.rating?.volts === undefined ? 'its rated volts' : `its rated ${printNominal(line.rating.volts, 'V')}`);

const HELP: Readonly<Record<PartFigure['id'], (line: Line) => FigureHelp>> = {
  esr: () => ({
    title: 'ESR',
    how: 'A meter cannot read it. Compare: charge it through 1 k, take it off, and see whether a fresh one of the same value holds longer.',
    tester: 'it is shown beside the capacitance. Discharge the part first.',
    from: 'tan δ 0.2 at 120 Hz over 2π f C',
  }),
  leakage: (line) => ({
    title: 'Leakage',
    how: `From a supply at ${volts(line)} through 10 k, plus to plus, for two minutes: volts across the resistor divided by 10 k. Then discharge it through the resistor.`,
    from: 'the larger of 0.01 C V and 3 µA after two minutes',
  }),
  zener: (line) => ({
    title: 'Zener voltage',
    how: `From at least ${printNominal((line.value ?? 0) + 3, 'V')} through 1 k, stripe to plus: volts across it. On the diode test it looks like any diode.`,
    from: line.tolerance ? 'as listed' : 'usual ±7 %, make and test current',
  }),
  sweep: () => ({
    title: 'Wiper sweep',
    how: 'Ohms from the wiper to one end, turned slowly from stop to stop: it follows without a jump or a gap, and comes close to zero at the stop.',
    from: PRACTICE,
  }),
  ends: () => ({ title: 'Both halves add up', how: 'Ohms from the wiper to each end at any position: together they make the track.', from: PRACTICE }),
  closed: () => ({
    title: 'Contact closed',
    how: 'Ohms across the contact while it is worked; take off what the leads show when they touch. Work it ten times: it must read the same each time.',
    from: PRACTICE,
  }),
  opened: () => ({ title: 'Contact open', how: 'Ohms across the contact at rest: over-range. Try the other throw as well.', from: PRACTICE }),
  clicks: (line) => ({ title: 'Pulls in', how: `Its coil at ${volts(line)}: it clicks and holds.`, from: PRACTICE }),
  threshold: (line) => ({
    title: 'Gate threshold',
    how: 'Gate and drain joined, to plus through 10 k from 9 V (p-channel: everything the other way round): volts between them and the source. Touch ground first.',
    tester: 'it shows Vt by itself.',
    from: line.range ? 'as listed' : 'usual for small and power MOSFETs',
  }),
  channel: () => ({
    title: 'Channel opens and closes',
    how: 'Diode test drain to source, black on source: OL. Touch the gate with red: it conducts. Gate to source joined: OL again (p-channel: probes swapped).',
    from: PRACTICE,
  }),
  rings: () => ({
    title: 'Oscillates',
    how: 'It can only be tried in its circuit; look for a dent in the can, shake it beside the ear: nothing rattles.',
    tester: 'some show its frequency.',
    from: PRACTICE,
  }),
  colour: () => ({ title: 'Colour', how: 'On the diode test it glows: is it the colour that the list says, and is it steady?', from: PRACTICE }),
  'voice-coil': () => ({ title: 'Voice coil', how: 'Ohms at its lugs: some four fifths of what is printed.', from: PRACTICE }),
  crackles: () => ({ title: 'Crackles', how: 'Touch its lugs with 1.5 V for a moment: it crackles, and the cone moves freely.', from: PRACTICE }),
  sounds: () => ({ title: 'Sounds', how: 'At its rated volts, plus to plus: it sounds steadily (one without a driver only clicks).', from: PRACTICE }),
};

export const figureHelp = (figure: PartFigure, line: Line): FigureHelp => HELP[figure.id](line);
