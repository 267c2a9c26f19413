import { type MeterProfile, uncertaintyOf } from './profile';

/** Leads of a sound meter read at most this with the probes together, ohms (common practice, no source). */
const LEADS_AT_MOST = 0.5;

type Shown = number | 'over';

export interface MeterCheckVerdict {
  readonly sound: boolean;
  readonly findings: readonly string[];
}

/** Judges the short test of a meter: probes together, probes apart, and a part of known value (ohms, percent). */
export function judgeMeterCheck(
  meter: MeterProfile,
  together: Shown,
  apart: Shown,
  known: { readonly nominal: number; readonly percent: number; readonly reading: Shown } | null,
): MeterCheckVerdict {
  const findings: string[] = [];
  if (together === 'over') findings.push('Over-range with the probes together: a broken lead, a blown fuse or a plug in the wrong socket.');
  else if (together < 0) findings.push('Negative with the probes together: the meter has a zero offset. Press its zero or REL key, then test again.');
  else if (together > LEADS_AT_MOST)
    findings.push(`The leads read more than ${LEADS_AT_MOST} Ω: clean plugs and tips, press harder, or change the leads. A flat battery does this too.`);
  if (apart !== 'over') findings.push('Not over-range with the probes apart: dirt or damp between the sockets, fingers on both tips, or a flat battery.');
  if (known) {
    const finding = knownPart(meter, together === 'over' ? 0 : together, known);
    if (finding) findings.push(finding);
  }
  return { sound: findings.length === 0, findings };
}

function knownPart(meter: MeterProfile, leads: number, known: { readonly nominal: number; readonly percent: number; readonly reading: Shown }): string | null {
  if (known.reading === 'over') return 'Over-range on a known part: the lead, the fuse or the range.';
  const error = uncertaintyOf(meter, 'ohms', known.reading)?.halfWidth ?? 0;
  const off = known.reading - leads - known.nominal;
  if (Math.abs(off) <= error + (known.percent / 100) * known.nominal) return null;
  const percent = ((100 * off) / known.nominal).toFixed(1);
  return `A known part reads ${percent} % off, more than the part and the meter allow: change the battery, then test again.`;
}
