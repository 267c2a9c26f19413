import type { Line } from '../kit';
import { printNominal } from '../quantity';
import { factsOf, packageOf, type Shape } from '../vocabulary';

/** Kinds whose value alone says what they are: `4.7 kΩ`, `100 nF`, `10 mH`. */
const BY_VALUE = new Set<Line['kind']>(['resistor', 'capacitor', 'electrolytic', 'tantalum', 'inductor']);
/** Words of our own: letters and signs that the shipped faces draw without a foreign script. */
const LATIN = /^[\p{Script=Latin}\p{Number}\p{Punctuation}\p{Symbol}\sΩµμ]+$/u;
/** Bodies that say what a part is which has no kind of its own. */
const SHAPE_WORDS: Readonly<Partial<Record<Shape, string>>> = {
  buzzer: 'buzzer',
  loudspeaker: 'loudspeaker',
  battery: 'battery clip',
  'coin-clip': 'coin-cell clip',
  crystal: 'crystal',
  screw: 'screw',
};
const LONGEST_OWN_LABEL = 26;

/** What a line is, in our words: value, kind, type. The seller's words stand beneath where they say more. */
export function lineTitle(line: Line): string {
  const { unit, word } = factsOf(line.kind);
  const volts = (line.kind === 'electrolytic' || line.kind === 'tantalum') && line.rating?.volts ? ` ${line.rating.volts} V` : '';
  if (line.value !== null && BY_VALUE.has(line.kind)) return `${printNominal(line.value, unit)}${volts}`;
  if (line.kind === 'led') return line.colour ? `${line.colour} LED` : 'LED';
  if (line.value !== null && line.kind === 'zener') return `Zener ${printNominal(line.value, unit)}`;
  if (
    line.value !== null &&
    (line.kind === 'trimmer' ||
      line.kind === 'potentiometer' ||
      line.kind === 'loudspeaker' ||
      line.kind === 'thermistor' ||
      line.kind === 'crystal' ||
      line.kind === 'network')
  )
    return `${printNominal(line.value, unit)} ${line.kind === 'thermistor' ? 'thermistor' : word}`;
  const told = packageOf(line);
  if (line.kind === 'other' && told.known) return SHAPE_WORDS[told.shape] ?? word;
  // A type that is printed on the part, not the name of a model.
  if (line.type && line.label.includes(line.type)) return line.type;
  return LATIN.test(line.label) && line.label.length <= LONGEST_OWN_LABEL ? line.label : (line.type ?? word);
}

/** Letters of a word that say no more than a unit or a code does. */
const LEAST_TELLING = 3;
const SAID_BY_KIND: Readonly<Partial<Record<Line['kind'], string>>> = { thermistor: 'ntc ptc', electrolytic: 'elko', led: 'led' };

/** The seller's own words for a line; null where our title says the same. */
export function sellerWords(line: Line): string | null {
  const said = `${lineTitle(line)} ${factsOf(line.kind).word} ${SAID_BY_KIND[line.kind] ?? ''}`.toLowerCase();
  const telling = line.label.toLowerCase().match(/\p{Script=Latin}+|[^\p{Script=Latin}\p{N}\p{P}\p{S}\s]+/gu) ?? [];
  const more = telling.filter(
    (word) => (word.length >= LEAST_TELLING || !/\p{Script=Latin}/u.test(word)) && !/^(ohm|µf|uf|nf|pf)$/.test(word) && !said.includes(word),
  );
  return more.length > 0 ? line.label : null;
}
