import { bipolarPlaces } from '../devices/bipolar';
import { diodePlaces } from '../devices/diode';
import { jfetPlaces } from '../devices/jfet';
import { mosfetPlaces } from '../devices/mosfet';
import type { Tenant } from '../kernel/kernel';
import { BIPOLAR_NUMBERS, DIODE_NUMBERS, JFET_NUMBERS, MOSFET_NUMBERS } from '../kernel/shared';
import type { Devices } from './layout';
import type { LinearLayout, LinearNumbers } from './linearParts';
import type { Pattern } from './pattern';

/** A circuit's place in the kernel, and the windows on it through which its values are changed. */
interface Tenancy {
  readonly tenant: Tenant;
  readonly linear: LinearNumbers;
  /** Numbers of diodes, bipolar transistors, MOSFETs, JFETs; and the places of the first two. */
  readonly numbers: readonly [Float64Array, Float64Array, Float64Array, Float64Array];
  readonly places: readonly [Int32Array, Int32Array];
}

/** Consecutive windows of given lengths on one array. */
function windows<A extends Float64Array | Int32Array>(all: A, lengths: readonly number[]): A[] {
  let at = 0;
  return lengths.map((length) => all.subarray(at, (at += length)) as A);
}

/** Lays a circuit out as the kernel reads it (`kernel/assembly/memory.ts`). */
export function tenancyOf(
  size: number,
  nodes: number,
  pattern: Pattern,
  { diagonal, conductances, stamps }: LinearLayout,
  { diodes, bipolars, mosfets, jfets }: Devices,
): Tenancy {
  const spots = [
    diagonal,
    conductances.flatMap((c) => [c.a, c.b]),
    stamps.flatMap((s) => [s.row, s.column]),
    diodePlaces(diodes, pattern),
    bipolarPlaces(bipolars, pattern),
    mosfetPlaces(mosfets, pattern),
    jfetPlaces(jfets, pattern),
  ];
  // Places of devices may need entries of their own: counted only now.
  const entries = pattern.rows.length;
  const lengths = [
    entries,
    size + 1,
    conductances.length,
    stamps.length,
    diodes.length * DIODE_NUMBERS,
    bipolars.length * BIPOLAR_NUMBERS,
    mosfets.length * MOSFET_NUMBERS,
    jfets.length * JFET_NUMBERS,
  ];
  const tenant: Tenant = {
    counts: {
      size,
      nodes,
      entries,
      conductances: conductances.length,
      stamps: stamps.length,
      diodes: diodes.length,
      bipolars: bipolars.length,
      mosfets: mosfets.length,
      jfets: jfets.length,
    },
    numbers: new Float64Array(lengths.reduce((sum, n) => sum + n, 0)),
    places: Int32Array.from(spots.flat()),
    moved: false,
  };
  const [linear, right, siemens, constant, ...numbers] = windows(tenant.numbers, lengths) as [
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  const places = windows(
    tenant.places,
    spots.map((s) => s.length),
  );
  return { tenant, linear: [linear, right, siemens, constant], numbers, places: [places[3]!, places[4]!] };
}
