import { derivePile, deriveTray, expectationOf, type KitState, listedType, type LoosePiece as LooseEntry, meterOf, offsetOf } from '../kit';
import type { MeterProfile } from '../meter';
import type { LoosePiece, LooseQuantity, ParcelLine, ParcelMeter } from '../parcel';
import { factsOf, type LooseKind } from '../vocabulary';

const QUANTITY: Readonly<Record<LooseKind, LooseQuantity>> = { R: 'resistance', C: 'capacitance', L: 'inductance', D: 'vf', LED: 'vf', Q: 'hfe' };

/** Everything of the pile that the log says and that was not sorted yet. */
export interface Pile {
  readonly entries: readonly LooseEntry['entry'][];
  readonly pieces: readonly LoosePiece[];
  readonly lines: readonly ParcelLine[];
  readonly meter: ParcelMeter;
}

export function pileOf(kit: KitState): Pile {
  const loose = derivePile(kit);
  return {
    entries: loose.map((p) => p.entry),
    pieces: loose.flatMap(({ entry: e, meter }) => {
      const kind = e.part;
      // What only has a name finds no line by itself.
      if (kind === 'X') return [];
      return {
        id: e.id,
        kind,
        quantity: QUANTITY[kind],
        value: e.reading === 'over' || e.reading === null ? null : e.reading - (e.part === 'C' ? offsetOf(meter, 'capacitance') : 0),
        polarity: e.polarity,
        marking: e.marking,
      };
    }),
    lines: parcelLines(kit),
    // One meter a pile: the one that took most of it.
    meter: parcelMeter(mostUsed(loose) ?? meterOf(kit)),
  };
}

function mostUsed(loose: readonly LooseEntry[]): MeterProfile | null {
  const count = new Map<MeterProfile, number>();
  for (const p of loose) count.set(p.meter, (count.get(p.meter) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** Lines that a loose piece may belong to. What was counted by hand is taken off what the pile can still hold. */
function parcelLines(kit: KitState): ParcelLine[] {
  const counted = new Map(deriveTray(kit).map((c) => [c.line.id, c.counted ?? 0]));
  return kit.sheet.lines.flatMap((line, i): ParcelLine[] => {
    const kind = factsOf(line.kind).loose;
    if (!kind || !counted.has(line.id)) return [];
    const expected = expectationOf(line);
    const valued = kind === 'R' || kind === 'C' || kind === 'L';
    if (valued && line.value === null) return [];
    const limits =
      expected && !valued ? ([expected.nominal * (1 + expected.tolerance[0]), expected.nominal * (1 + expected.tolerance[1])] as const) : undefined;
    return [
      {
        number: i + 1,
        kind,
        value: valued ? line.value : null,
        type: valued ? null : line.kind === 'led' ? (line.colour ?? line.label) : listedType(line),
        tolerance: valued && expected ? [expected.tolerance[0] * 100, expected.tolerance[1] * 100] : null,
        quantity: Math.max(0, line.quantity - counted.get(line.id)!),
        ...(limits ? { limits } : {}),
        ...(line.kind === 'npn' || line.kind === 'pnp' ? { polarity: line.kind === 'npn' ? ('NPN' as const) : ('PNP' as const) } : {}),
      },
    ];
  });
}

function parcelMeter(meter: MeterProfile): ParcelMeter {
  const { ohms, capacitance, inductance, diode, hfe } = meter.ranges;
  return {
    leadResistance: meter.leadResistance,
    accuracy: {
      ...(ohms ? { resistance: ohms } : {}),
      ...(capacitance ? { capacitance } : {}),
      ...(inductance ? { inductance } : {}),
      ...(diode ? { vf: diode } : {}),
      ...(hfe ? { hfe } : {}),
    },
  };
}
