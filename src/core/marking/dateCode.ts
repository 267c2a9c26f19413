import { decide, type Decoded, INVALID, plainReading, unranked } from './decoded';

/** No part with a four-figure date code is older (choice of this product). */
const EARLIEST_YEAR = 1965;
/** One-figure years reach this far back. */
const YEARS_BACK = 29;

interface Week {
  readonly year: number;
  readonly week: number;
}

/** ISO 8601 week of a calendar day given as `YYYY-MM-DD`. */
function isoWeek(date: string): Week {
  const [y, m, d] = date.split('-').map(Number) as [number, number, number];
  const thursday = new Date(Date.UTC(y, m - 1, d));
  thursday.setUTCDate(thursday.getUTCDate() + 4 - (thursday.getUTCDay() || 7));
  const year = thursday.getUTCFullYear();
  return { year, week: Math.ceil(((thursday.getTime() - Date.UTC(year, 0, 1)) / 86_400_000 + 1) / 7) };
}

/** 28 December always lies in the last ISO week of its year. */
const weeksIn = (year: number) => isoWeek(`${year}-12-28`).week;

/** Date code of year and week (EIA-476, from memory); candidates after the reference day or too old do not count. */
export function decodeDateCode(text: string, order: 'YYWW' | 'YWW', referenceDate: string): Decoded {
  const code = text.trim();
  const reference = isoWeek(referenceDate);
  const match = (order === 'YYWW' ? /^(\d\d)(\d\d)$/ : /^(\d)(\d\d)$/).exec(code);
  if (!match || !Number.isFinite(reference.week)) return INVALID;
  const week = Number(match[2]);
  const step = order === 'YYWW' ? 100 : 10;
  const earliest = order === 'YYWW' ? EARLIEST_YEAR : reference.year - YEARS_BACK;
  const years: number[] = [];
  for (let year = reference.year; year >= earliest; year--) if (year % step === Number(match[1])) years.push(year);
  const possible = years.filter((year) => week >= 1 && week <= weeksIn(year) && (year < reference.year || week <= reference.week));
  return decide('week', unranked(possible.map((year) => plainReading(`${year}-W${String(week).padStart(2, '0')}`))));
}
