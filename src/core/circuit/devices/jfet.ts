import { criticalVoltage, GMIN, limitGate, limitJunction, safeExp, VT } from '../solve/junction';
import { type Pattern } from '../solve/pattern';
import { blockSlots, type DeviceBank } from './bank';

export interface JfetSpec {
  readonly drain: number;
  readonly gate: number;
  readonly source: number;
  /** +1 for n-channel, −1 for p-channel. */
  readonly polarity: 1 | -1;
  readonly params: Readonly<Record<string, number>>;
  readonly scale: number;
}

interface Jfet {
  readonly t: readonly [number, number, number];
  readonly slots: readonly number[];
  readonly sign: 1 | -1;
  vto: number;
  readonly beta: number;
  readonly lambda: number;
  readonly is: number;
  readonly critical: number;
  vgs: number;
  vgd: number;
}

/** Junction field-effect transistors (Shichman & Hodges 1968 with gate diodes, as in SPICE 3, from memory). VTO is negative for depletion types of both polarities. */
export class JfetBank implements DeviceBank {
  private readonly devices: Jfet[];

  constructor(specs: readonly JfetSpec[], pattern: Pattern) {
    this.devices = specs.map((s) => ({
      t: [s.drain, s.gate, s.source],
      slots: blockSlots(pattern, [s.drain, s.gate, s.source]),
      sign: s.polarity,
      vto: s.params['VTO']!,
      beta: s.params['BETA']! * s.scale,
      lambda: s.params['LAMBDA']!,
      is: s.params['IS']! * s.scale,
      critical: criticalVoltage(s.params['IS']! * s.scale, VT),
      vgs: 0,
      vgd: 0,
    }));
  }

  set(i: number, value: number): void {
    this.devices[i]!.vto = value;
  }

  coldStart(): void {
    for (const d of this.devices) {
      d.vgs = -1;
      d.vgd = -1;
    }
  }

  warmStart(x: Float64Array): void {
    for (const d of this.devices) {
      d.vgs = d.sign * (x[d.t[1]]! - x[d.t[2]]!);
      d.vgd = d.sign * (x[d.t[1]]! - x[d.t[0]]!);
    }
  }

  load(x: Float64Array, a: Float64Array, f: Float64Array, bold: boolean): boolean {
    let limited = false;
    for (const d of this.devices) if (loadOne(d, x, a, f, bold)) limited = true;
    return limited;
  }
}

function loadOne(d: Jfet, x: Float64Array, a: Float64Array, f: Float64Array, bold: boolean): boolean {
  const { t, sign } = d;
  const wantedGs = sign * (x[t[1]]! - x[t[2]]!);
  const wantedGd = sign * (x[t[1]]! - x[t[0]]!);
  const vgs = limitGate(limitJunction(wantedGs, d.vgs, VT, d.critical, bold), d.vgs, d.vto);
  const vgd = limitGate(limitJunction(wantedGd, d.vgd, VT, d.critical, bold), d.vgd, d.vto);
  const limited = vgs !== wantedGs || vgd !== wantedGd;
  d.vgs = vgs;
  d.vgd = vgd;

  const gs = gateDiode(d, vgs);
  const gd = gateDiode(d, vgd);
  const forward = vgs >= vgd;
  const ch = channel(d, forward ? vgs : vgd, Math.abs(vgs - vgd));
  // Channel current from drain to source, derivatives with respect to vgs and vgd.
  const id = forward ? ch.i : -ch.i;
  const dGs = forward ? ch.gm + ch.gds : ch.gds;
  const dGd = forward ? -ch.gds : -(ch.gm + ch.gds);
  const offGs = wantedGs - vgs;
  const offGd = wantedGd - vgd;
  const iGs = gs.i + gs.g * offGs;
  const iGd = gd.i + gd.g * offGd;
  const iDs = id + dGs * offGs + dGd * offGd;
  f[t[0]] = f[t[0]]! + sign * (iDs - iGd);
  f[t[1]] = f[t[1]]! + sign * (iGs + iGd);
  f[t[2]] = f[t[2]]! - sign * (iDs + iGs);

  // Rows: drain, gate, source; columns d g s.
  const { slots } = d;
  const dd = gd.g - dGd;
  const dg = dGs + dGd - gd.g;
  a[slots[0]!]! += dd;
  a[slots[1]!]! += dg;
  a[slots[2]!]! -= dGs;
  a[slots[3]!]! -= gd.g;
  a[slots[4]!]! += gs.g + gd.g;
  a[slots[5]!]! -= gs.g;
  a[slots[6]!]! -= dd - gd.g;
  a[slots[7]!]! -= dg + gs.g + gd.g;
  a[slots[8]!]! += dGs + gs.g;
  return limited;
}

function channel(d: Jfet, vgs: number, vds: number): { i: number; gm: number; gds: number } {
  const over = vgs - d.vto;
  if (over <= 0) return { i: 0, gm: 0, gds: 0 };
  const early = 1 + d.lambda * vds;
  if (over <= vds) {
    return { i: d.beta * early * over * over, gm: 2 * d.beta * early * over, gds: d.beta * d.lambda * over * over };
  }
  const shape = vds * (2 * over - vds);
  return { i: d.beta * early * shape, gm: 2 * d.beta * early * vds, gds: 2 * d.beta * early * (over - vds) + d.beta * d.lambda * shape };
}

function gateDiode(d: Jfet, v: number): { i: number; g: number } {
  if (v < -5 * VT) return { i: -d.is + GMIN * v, g: GMIN };
  const e = safeExp(v / VT);
  return { i: d.is * (e - 1) + GMIN * v, g: (d.is * e) / VT + GMIN };
}
