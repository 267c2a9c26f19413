import {
  type Band,
  type ChipPackage,
  decodeCapacitorCode,
  decodeChipCapacitor,
  decodeChipResistor,
  type Decoded,
  decodeDateCode,
  decodeInductorBands,
  decodeInductorCode,
  decodeLetterValue,
  decodeResistorBands,
  decodeResistorCode,
  decodeToleranceLetter,
  type Reading,
  type ValueKind,
} from '../../src/core/marking';
import { type Doubt, readFreeLine, readSheet } from '../../src/core/partslist';
import { arrayAt, numberAt, textAt } from './fields';
import type { Request } from './main';

/** One marking, or one line of a seller's list. */
export function decode(request: Request): object {
  if (request['task'] === 'sheet') return sheet(request);
  const type = textAt(request, 'type');
  if (type === 'bom-line') return listLine(textAt(request, 'input'));
  if (type === 'tolerance-letter') return toleranceLetter(request);
  return answerOf(decoded(type, request));
}

function decoded(type: string, request: Request): Decoded {
  const text = () => textAt(request, 'input');
  const codes = request['partsList'] === undefined ? [] : arrayAt(request, 'partsList');
  switch (type) {
    case 'resistor-bands':
      return decodeResistorBands(bandsAt(request), {
        direction: request['direction'] === 'fixed' ? 'fixed' : undefined,
        partsList: request['partsList'] === undefined ? undefined : codes.map(Number),
      });
    case 'resistor-code':
      return decodeResistorCode(text());
    case 'smd-resistor':
      return decodeChipResistor(text(), codes.map(String));
    case 'capacitor-code':
      return decodeCapacitorCode(text(), codes.map(String));
    case 'inductor-code':
      return Array.isArray(request['input']) ? decodeInductorBands(bandsAt(request)) : decodeInductorCode(text());
    case 'smd-capacitor':
      return decodeChipCapacitor(text(), textAt(request, 'package') as ChipPackage);
    case 'date-code':
      return decodeDateCode(text(), textAt(request, 'order') as 'YYWW' | 'YWW', textAt(request, 'referenceDate'));
    case 'letter-value':
      return decodeLetterValue(text(), textAt(request, 'kind') as ValueKind);
    default:
      throw new Error(`type "${type}" is not known`);
  }
}

function answerOf(d: Decoded): object {
  if (d.state === 'invalid') return { invalid: true };
  const alternative = (r: Reading) => ({ ...r, unit: d.unit });
  if (d.state === 'ambiguous')
    return { value: null, unit: d.unit, tolerancePercent: null, tempco: null, ratedVoltage: null, ambiguous: true, alternatives: d.readings.map(alternative) };
  return { ...d.reading, unit: d.unit, ambiguous: false, alternatives: d.others.map(alternative) };
}

function toleranceLetter(request: Request): object {
  const found = decodeToleranceLetter(textAt(request, 'input'), textAt(request, 'kind') as ValueKind, numberAt(request, 'nominal'));
  return 'state' in found ? { invalid: true } : { value: null, unit: null, ...found, tempco: null, ratedVoltage: null, ambiguous: false, alternatives: [] };
}

function listLine(text: string): object {
  const { kind, value, unit, quantity, refs } = readFreeLine(text);
  return { kind, value, unit, quantity, refs };
}

/** Bands of a request: a colour each, or the colours that cannot be told apart. */
function bandsAt(request: Request): Band[] {
  const bands = arrayAt(request, 'input');
  const isBand = (b: unknown): b is Band => typeof b === 'string' || (Array.isArray(b) && b.every((c) => typeof c === 'string'));
  if (!bands.every(isBand)) throw new Error('"input" must be a list of colours, or of lists of colours');
  return bands;
}

/** A seller's whole sheet, as text or as the rows of a table. */
function sheet(request: Request): object {
  const source =
    request['rows'] === undefined
      ? textAt(request, 'text')
      : arrayAt(request, 'rows').map((row) => (Array.isArray(row) ? row : [row]).map((cell) => (cell === null || cell === undefined ? '' : String(cell))));
  const { title, lines, ignored, questions } = readSheet(source);
  return {
    title,
    lines: lines.map(({ sources, label: _, printed: __, ...line }) => ({ ...line, source: sources[0], sources })),
    ignored: ignored.map(({ source: at, why }) => ({ source: at, why })),
    questions: questions.map(({ source: at, refs, doubt }) => ({ source: at, refs, what: doubtText(doubt) })),
  };
}

function doubtText(doubt: Doubt): string {
  switch (doubt.what) {
    case 'count':
      return `${doubt.pieces} pieces for ${doubt.positions} positions`;
    case 'repeated':
      return `${doubt.ref} is already on line ${doubt.before}`;
    case 'contradiction':
      return `two values: ${doubt.values.join(' and ')}`;
    case 'no-value':
      return 'no value';
    case 'smudge':
    case 'unreadable':
    case 'says-nothing':
      return `cannot be read: ${doubt.text}`;
  }
}
