import { type Compartment, expectationOf, type KitState, meterOf } from '../kit';
import { rangeFor } from '../meter';
import { lotReport, type LotReport } from '../parcel';

/** Lots of the tray that are not what they claim, judged over all their pieces. */
export function lotFindings(kit: KitState, tray: readonly Compartment[]): { readonly compartment: Compartment; readonly report: LotReport }[] {
  return tray.flatMap((compartment) => {
    const known = found.get(compartment);
    if (known?.meter === kit.settings.meter) return known.finding;
    const finding = findingOf(kit, compartment);
    found.set(compartment, { meter: kit.settings.meter, finding });
    return finding;
  });
}

type LotFinding = ReturnType<typeof lotFindings>[number];
/** A compartment that did not change is not judged again. */
const found = new WeakMap<Compartment, { readonly meter: string; readonly finding: readonly LotFinding[] }>();

function findingOf(kit: KitState, compartment: Compartment): readonly LotFinding[] {
  const expected = expectationOf(compartment.line);
  if (!expected || !(expected.mode === 'ohms' || expected.mode === 'capacitance' || expected.mode === 'inductance')) return [];
  const taken = kit.tallies.get(compartment.line.id)?.pieces.values().next().value;
  const range = rangeFor(taken?.meter ?? meterOf(kit), expected.mode, expected.nominal);
  // Pieces of another value altogether are strangers, not a wide lot.
  const readings = compartment.pieces.flatMap((p) => (p.reckoning && Math.abs(p.reckoning.deviation) < STRANGE ? [p.reckoning.corrected] : []));
  const report = range ? lotReport(expected.nominal, expected.tolerance, readings, range) : null;
  return report && report.finding !== 'as-claimed' && report.probability > SURE_ENOUGH ? [{ compartment, report }] : [];
}

const STRANGE = 0.4;
const SURE_ENOUGH = 0.8;

/** `Sold as ±1 %, all three read 2.8 % high; the meter explains ±0.9 %.` */
export function lotText({ report }: { report: LotReport }): string {
  const percent = (share: number) => `${(Math.abs(share) * 100).toFixed(1)} %`;
  const meter = `The meter explains ±${percent(report.meter)}.`;
  return report.finding === 'biased'
    ? `All ${report.pieces} read ${percent(report.bias)} ${report.bias < 0 ? 'low' : 'high'} together. ${meter} The batch is off its value; usable where the circuit allows it.`
    : `The ${report.pieces} spread by ${percent(report.spread)}. ${meter} The batch has a wider tolerance than it was sold with.`;
}
