import type { LineKind, TypeCard } from '../kit';

/** A card with the kind of part it describes. */
export interface CommonCard extends TypeCard {
  readonly kind: LineKind;
}

const MEMORY = 'data sheet, from memory';
const PRACTICE = 'common practice, no source';
type Figure = TypeCard['figures'][number];
const figure = (name: string, value: number, unit: string, source = MEMORY): Figure => ({ name, value, unit, source });
const glass: TypeCard['pins'] = { 'DO-35': ['A', 'K (stripe)'] };
const rectifier: TypeCard['pins'] = { 'DO-41': ['A', 'K (stripe)'] };

/**
 * Cards of common generic types. Pins are counted with the flat (or the print) towards you and the leads down, from the
 * left. Makes differ: a card is where to start, the tester and the data sheet of the very make decide.
 */
export const COMMON_CARDS: readonly CommonCard[] = [
  {
    type: '1N4148',
    kind: 'diode',
    pins: glass,
    figures: [figure('reverse voltage', 75, 'V'), figure('forward current', 0.2, 'A'), figure('forward voltage at 1 mA', 0.62, 'V', PRACTICE)],
  },
  {
    type: '1N4007',
    kind: 'diode',
    pins: rectifier,
    figures: [
      figure('reverse voltage', 1000, 'V'),
      figure('forward current', 1, 'A'),
      figure('surge current', 30, 'A'),
      figure('forward voltage at 1 mA', 0.55, 'V', PRACTICE),
    ],
  },
  {
    type: '1N4001',
    kind: 'diode',
    pins: rectifier,
    figures: [figure('reverse voltage', 50, 'V'), figure('forward current', 1, 'A'), figure('surge current', 30, 'A')],
  },
  {
    type: '1N5819',
    kind: 'diode',
    pins: rectifier,
    figures: [
      figure('reverse voltage', 40, 'V'),
      figure('forward current', 1, 'A'),
      figure('surge current', 25, 'A'),
      figure('forward voltage at 1 mA', 0.22, 'V', PRACTICE),
    ],
  },
  {
    type: 'BC547',
    kind: 'npn',
    pins: { 'TO-92': ['C', 'B', 'E'] },
    figures: [
      figure('collector voltage', 45, 'V'),
      figure('collector current', 0.1, 'A'),
      figure('hFE least', 110, 'ratio'),
      figure('hFE most', 800, 'ratio'),
      figure('power', 0.5, 'W'),
    ],
  },
  {
    type: 'BC557',
    kind: 'pnp',
    pins: { 'TO-92': ['C', 'B', 'E'] },
    figures: [
      figure('collector voltage', 45, 'V'),
      figure('collector current', 0.1, 'A'),
      figure('hFE least', 110, 'ratio'),
      figure('hFE most', 800, 'ratio'),
      figure('power', 0.5, 'W'),
    ],
  },
  {
    type: '2N3904',
    kind: 'npn',
    pins: { 'TO-92': ['E', 'B', 'C'] },
    figures: [
      figure('collector voltage', 40, 'V'),
      figure('collector current', 0.2, 'A'),
      figure('hFE least', 100, 'ratio'),
      figure('hFE most', 300, 'ratio'),
      figure('power', 0.625, 'W'),
    ],
  },
  {
    type: '2N3906',
    kind: 'pnp',
    pins: { 'TO-92': ['E', 'B', 'C'] },
    figures: [
      figure('collector voltage', 40, 'V'),
      figure('collector current', 0.2, 'A'),
      figure('hFE least', 100, 'ratio'),
      figure('hFE most', 300, 'ratio'),
      figure('power', 0.625, 'W'),
    ],
  },
  {
    type: '2N2222',
    kind: 'npn',
    pins: { 'TO-92': ['E', 'B', 'C'], 'TO-18': ['E', 'B', 'C'] },
    figures: [figure('collector voltage', 40, 'V'), figure('collector current', 0.6, 'A'), figure('hFE least', 100, 'ratio'), figure('hFE most', 300, 'ratio')],
  },
  {
    type: '2N7000',
    kind: 'nmos',
    pins: { 'TO-92': ['S', 'G', 'D'] },
    figures: [figure('drain voltage', 60, 'V'), figure('drain current', 0.2, 'A'), figure('threshold least', 0.8, 'V'), figure('threshold most', 3, 'V')],
  },
  {
    type: 'BS170',
    kind: 'nmos',
    pins: { 'TO-92': ['D', 'G', 'S'] },
    figures: [figure('drain voltage', 60, 'V'), figure('drain current', 0.5, 'A'), figure('threshold least', 0.8, 'V'), figure('threshold most', 3, 'V')],
  },
  {
    type: '7805',
    kind: 'ic',
    pins: { 'TO-220': ['in', 'ground', 'out'] },
    figures: [
      figure('output', 5, 'V'),
      figure('output tolerance', 4, 'percent'),
      figure('drop-out', 2, 'V'),
      figure('quiescent current', 0.005, 'A'),
      figure('input voltage', 35, 'V'),
      figure('junction to tab', 5, 'K/W'),
    ],
  },
  {
    type: '78L05',
    kind: 'ic',
    pins: { 'TO-92': ['out', 'ground', 'in'] },
    figures: [
      figure('output', 5, 'V'),
      figure('output tolerance', 5, 'percent'),
      figure('drop-out', 1.7, 'V'),
      figure('quiescent current', 0.003, 'A'),
      figure('output current', 0.1, 'A'),
    ],
  },
  {
    type: '317',
    kind: 'ic',
    pins: { 'TO-220': ['adjust', 'out (tab)', 'in'] },
    figures: [
      figure('reference', 1.25, 'V'),
      figure('reference least', 1.2, 'V'),
      figure('reference most', 1.3, 'V'),
      figure('adjust current', 50e-6, 'A'),
      figure('least load', 0.01, 'A'),
      figure('drop-out', 2, 'V'),
    ],
  },
  {
    type: '431',
    kind: 'ic',
    pins: { 'TO-92': ['reference', 'anode', 'cathode'] },
    figures: [figure('reference', 2.495, 'V'), figure('cathode current least', 0.001, 'A'), figure('cathode current most', 0.1, 'A')],
  },
  {
    type: '358',
    kind: 'opamp',
    pins: { 'DIP-8': ['OUT A', 'IN− A', 'IN+ A', 'V−', 'IN+ B', 'IN− B', 'OUT B', 'V+'] },
    figures: [figure('supply voltage', 32, 'V'), figure('offset', 0.007, 'V'), figure('output below supply', 1.5, 'V'), figure('supply current', 0.001, 'A')],
  },
  {
    type: '555',
    kind: 'ic',
    pins: { 'DIP-8': ['ground', 'trigger', 'output', 'reset', 'control', 'threshold', 'discharge', 'V+'] },
    figures: [figure('supply voltage least', 4.5, 'V'), figure('supply voltage most', 16, 'V'), figure('supply current at 5 V', 0.006, 'A')],
  },
];
