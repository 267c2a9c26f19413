import { type Colour, COLOURS, TOLERANCE_PERCENT } from './colours';

/** Below this tolerance in percent a resistor usually carries five bands (common practice). */
const FIVE_BAND_PERCENT = 2;

/**
 * Bands of a resistor as it lies in the hand (IEC 60062): two digits, multiplier, tolerance; three digits from 2 % down.
 * Null when the value has more figures than the bands can show, or none.
 */
export function bandsOf(ohms: number, percent: number): Colour[] | null {
  if (ohms === 0) return ['black'];
  if (!(ohms > 0)) return null;
  const figures = percent <= FIVE_BAND_PERCENT ? 3 : 2;
  let exponent = Math.floor(Math.log10(ohms) + 1e-9) - (figures - 1);
  let digits = Math.round(ohms / 10 ** exponent);
  if (digits >= 10 ** figures) {
    digits = Math.round(digits / 10);
    exponent++;
  }
  if (Math.abs(digits * 10 ** exponent - ohms) > 1e-6 * ohms) return figures === 2 ? bandsOf(ohms, FIVE_BAND_PERCENT) : null;
  const multiplier = exponent === -1 ? 'gold' : exponent === -2 ? 'silver' : COLOURS[exponent];
  const tolerance = COLOURS.find((c) => TOLERANCE_PERCENT[c] === percent);
  if (multiplier === undefined || exponent > 9) return null;
  return [
    ...String(digits)
      .split('')
      .map((d) => COLOURS[Number(d)]!),
    multiplier,
    ...(tolerance ? [tolerance] : []),
  ];
}

/** Three-figure code as printed on ceramic capacitors: `104` = 100 nF (IEC 60062); null when it has more figures. */
export function capacitorCode(farads: number): string | null {
  const picofarads = farads * 1e12;
  return picofarads < 10 || picofarads > 1e8 ? null : figuresAndExponent(picofarads, 2);
}

/** Code as printed on chip resistors: `103` = 10 kΩ, `4702` = 47 kΩ from 1 % down, `4R7` below 10 Ω (IEC 60062); null when none fits. */
export function chipResistorCode(ohms: number, percent: number): string | null {
  if (ohms === 0) return '0';
  if (!(ohms > 0) || ohms > 1e8) return null;
  const figures = percent < FIVE_BAND_PERCENT ? 3 : 2;
  if (ohms < 10 ** (figures - 1)) {
    const text = String(Number(ohms.toPrecision(figures)));
    return text.includes('.') ? text.replace('.', 'R').replace(/^0/, '') : `${text}R0`;
  }
  return figuresAndExponent(ohms, figures);
}

function figuresAndExponent(value: number, figures: number): string | null {
  const exponent = Math.floor(Math.log10(value) + 1e-9) - (figures - 1);
  const digits = Math.round(value / 10 ** exponent);
  return Math.abs(digits * 10 ** exponent - value) < 1e-6 * value ? `${digits}${exponent}` : null;
}
