import { criticalVoltage, GMIN, limitDrain, limitGate, limitJunction, safeExp, VT } from '../solve/junction';
import { type Pattern } from '../solve/pattern';
import { blockSlots, type DeviceBank } from './bank';

export interface MosfetSpec {
  readonly drain: number;
  readonly gate: number;
  readonly source: number;
  readonly bulk: number;
  /** +1 for n-channel, −1 for p-channel. */
  readonly polarity: 1 | -1;
  readonly params: Readonly<Record<string, number>>;
  /** W/L times the number of devices. */
  readonly scale: number;
}

interface Mosfet {
  readonly t: readonly [number, number, number, number];
  readonly slots: readonly number[];
  readonly sign: 1 | -1;
  vto: number;
  kp: number;
  readonly scale: number;
  readonly lambda: number;
  readonly gamma: number;
  readonly phi: number;
  readonly is: number;
  readonly critical: number;
  vgs: number;
  vds: number;
  vbs: number;
}

/** Field-effect transistors with insulated gate, level 1 (Shichman & Hodges 1968; limits as in SPICE 3, from memory). */
export class MosfetBank implements DeviceBank {
  private readonly devices: Mosfet[];

  constructor(specs: readonly MosfetSpec[], pattern: Pattern) {
    this.devices = specs.map((s) => ({
      t: [s.drain, s.gate, s.source, s.bulk],
      slots: blockSlots(pattern, [s.drain, s.gate, s.source, s.bulk]),
      sign: s.polarity,
      vto: s.params['VTO']! * s.polarity,
      kp: s.params['KP']!,
      scale: s.scale,
      lambda: s.params['LAMBDA']!,
      gamma: s.params['GAMMA']!,
      phi: Math.max(0.1, s.params['PHI']!),
      is: s.params['IS']!,
      critical: criticalVoltage(s.params['IS']!, VT),
      vgs: 0,
      vds: 0,
      vbs: 0,
    }));
  }

  set(i: number, param: 'VTO' | 'KP', value: number): void {
    const d = this.devices[i]!;
    if (param === 'VTO') d.vto = value * d.sign;
    else d.kp = value;
  }

  coldStart(): void {
    for (const d of this.devices) {
      d.vgs = d.vto;
      d.vds = 0;
      d.vbs = 0;
    }
  }

  warmStart(x: Float64Array): void {
    for (const d of this.devices) {
      const vs = x[d.t[2]]!;
      d.vds = d.sign * (x[d.t[0]]! - vs);
      d.vgs = d.sign * (x[d.t[1]]! - vs);
      d.vbs = d.sign * (x[d.t[3]]! - vs);
    }
  }

  load(x: Float64Array, a: Float64Array, f: Float64Array, bold: boolean): boolean {
    let limited = false;
    for (const d of this.devices) if (loadOne(d, x, a, f, bold)) limited = true;
    return limited;
  }
}

/** Volts by which a limited voltage may differ from the wanted one through rounding alone. */
const ROUNDING = 1e-9;

function loadOne(d: Mosfet, x: Float64Array, a: Float64Array, f: Float64Array, bold: boolean): boolean {
  const { t, sign } = d;
  const vs = x[t[2]]!;
  const wantedDs = sign * (x[t[0]]! - vs);
  const wantedGs = sign * (x[t[1]]! - vs);
  const wantedBs = sign * (x[t[3]]! - vs);
  const { vgs, vds, vbs } = limitVoltages(d, wantedGs, wantedDs, wantedBs, bold);
  const limited = Math.abs(vgs - wantedGs) + Math.abs(vds - wantedDs) + Math.abs(vbs - wantedBs) > ROUNDING;
  d.vgs = vgs;
  d.vds = vds;
  d.vbs = vbs;

  const forward = vds >= 0;
  const channel = channelCurrent(d, forward ? vgs : vgs - vds, Math.abs(vds), forward ? vbs : vbs - vds);
  // Derivatives of the drain current with respect to vgs, vds, vbs as seen from the labelled source.
  const id = forward ? channel.i : -channel.i;
  const gGs = forward ? channel.gm : -channel.gm;
  const gBs = forward ? channel.gmb : -channel.gmb;
  const gDs = forward ? channel.gds : channel.gm + channel.gds + channel.gmb;

  const bulkSource = bulkDiode(d, vbs);
  const bulkDrain = bulkDiode(d, vbs - vds);
  const offGs = wantedGs - vgs;
  const offDs = wantedDs - vds;
  const offBs = wantedBs - vbs;
  const iBs = bulkSource.i + bulkSource.g * offBs;
  const iBd = bulkDrain.i + bulkDrain.g * (offBs - offDs);
  const iD = sign * (id + gGs * offGs + gDs * offDs + gBs * offBs - iBd);
  const iB = sign * (iBs + iBd);
  f[t[0]] = f[t[0]]! + iD;
  f[t[3]] = f[t[3]]! + iB;
  f[t[2]] = f[t[2]]! - iD - iB;

  // Rows: drain, (gate carries nothing), source, bulk; columns d g s b.
  const dd = gDs + bulkDrain.g;
  const dg = gGs;
  const db = gBs - bulkDrain.g;
  const bd = -bulkDrain.g;
  const bb = bulkSource.g + bulkDrain.g;
  const dsum = dd + dg + db;
  const bsum = bd + bb;
  const { slots } = d;
  a[slots[0]!]! += dd;
  a[slots[1]!]! += dg;
  a[slots[2]!]! -= dsum;
  a[slots[3]!]! += db;
  a[slots[8]!]! -= dd + bd;
  a[slots[9]!]! -= dg;
  a[slots[10]!]! += dsum + bsum;
  a[slots[11]!]! -= db + bb;
  a[slots[12]!]! += bd;
  a[slots[14]!]! -= bsum;
  a[slots[15]!]! += bb;
  return limited;
}

function limitVoltages(d: Mosfet, wantedGs: number, wantedDs: number, wantedBs: number, bold: boolean): { vgs: number; vds: number; vbs: number } {
  if (d.vds >= 0) {
    const vgs = limitGate(wantedGs, d.vgs, d.vto);
    const vds = limitDrain(vgs - (wantedGs - wantedDs), d.vds);
    return { vgs, vds, vbs: limitJunction(wantedBs, d.vbs, VT, d.critical, bold) };
  }
  const vgd = limitGate(wantedGs - wantedDs, d.vgs - d.vds, d.vto);
  const vds = -limitDrain(-(wantedGs - vgd), -d.vds);
  return { vgs: vgd + vds, vds, vbs: limitJunction(wantedBs, d.vbs, VT, d.critical, bold) };
}

function channelCurrent(d: Mosfet, vgs: number, vds: number, vbs: number): { i: number; gm: number; gds: number; gmb: number } {
  const root = vbs <= 0 ? Math.sqrt(d.phi - vbs) : Math.max(0, Math.sqrt(d.phi) - vbs / (2 * Math.sqrt(d.phi)));
  const threshold = d.vto + d.gamma * (root - Math.sqrt(d.phi));
  const slope = root > 0 ? d.gamma / (2 * root) : 0;
  const over = vgs - threshold;
  if (over <= 0) return { i: 0, gm: 0, gds: 0, gmb: 0 };
  const beta = d.kp * d.scale;
  const early = 1 + d.lambda * vds;
  if (over <= vds) {
    const i = beta * early * over * over * 0.5;
    const gm = beta * early * over;
    return { i, gm, gds: d.lambda * beta * over * over * 0.5, gmb: gm * slope };
  }
  const shape = vds * (over - 0.5 * vds);
  const gm = beta * early * vds;
  return { i: beta * early * shape, gm, gds: beta * early * (over - vds) + d.lambda * beta * shape, gmb: gm * slope };
}

function bulkDiode(d: Mosfet, v: number): { i: number; g: number } {
  if (v <= -3 * VT) return { i: GMIN * v - d.is, g: GMIN };
  const e = safeExp(v / VT);
  return { i: d.is * (e - 1) + GMIN * v, g: (d.is * e) / VT + GMIN };
}
