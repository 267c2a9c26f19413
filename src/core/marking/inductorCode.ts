import { decide, type Decoded, INVALID, plainReading, scaled, unranked } from './decoded';
import { toleranceOf } from './tolerance';

/** Print on a small inductor: three figures in µH, R as the point in µH, N as the point in nH (common practice). */
export function decodeInductorCode(text: string): Decoded {
  const match = /^(?:(\d{2})(\d)|(\d*)([RN])(\d*))([FGJKM]?)$/.exec(text.trim().toUpperCase());
  if (!match || (match[4] !== undefined && `${match[3]!}${match[5]!}` === '')) return INVALID;
  const value = match[1] !== undefined ? scaled(match[1], Number(match[2]) - 6) : scaled(`${match[3]! || '0'}.${match[5]! || '0'}`, match[4] === 'N' ? -9 : -6);
  return decide('H', unranked([plainReading(value, { tolerancePercent: toleranceOf(match[6], 'L', value) })]));
}
