/** A kind of fault and its place. Exactly these can be put into a circuit; `parts` are refs of the board. */
export type Fault =
  | Shape<'healthy', readonly []>
  | Shape<'open' | 'short' | 'reversed' | 'turned' | 'weak' | 'leaky' | 'no-supply' | 'low-supply' | 'reversed-supply' | 'blank', readonly [string]>
  | Shape<'open-pin', readonly [string], { readonly pin: string }>
  | Shape<'short-pins', readonly [string], { readonly pins: readonly [string, string] }>
  | Shape<'wrong-value', readonly [string], { readonly value: number }>
  | Shape<'swapped', readonly [string, string]>
  | Shape<'wrong-type', readonly [string], { readonly model: string }>
  | Shape<'wrong-type', readonly [string, string]>
  | Shape<'bridge', readonly [], { readonly nets: readonly [string, string] }>
  /** A jumper or strap in another position than the option's choice says. */
  | Shape<'strap', readonly [], { readonly option: string; readonly choice: string }>
  /** A track broken so that some parts of its net are cut off. */
  | Shape<'track', readonly [], { readonly net: string; readonly beyond: readonly string[] }>
  | Shape<'stuck', readonly [string], { readonly level: 'high' | 'low'; readonly pin?: string | undefined }>;

interface Shape<K extends string, P extends readonly string[], D extends object = Record<string, never>> {
  readonly kind: K;
  readonly parts: P;
  readonly detail: D;
}

export type FaultKind = Fault['kind'];

export const FAULT_KINDS = [
  'healthy',
  'open',
  'short',
  'reversed',
  'turned',
  'weak',
  'open-pin',
  'short-pins',
  'wrong-value',
  'swapped',
  'wrong-type',
  'bridge',
  'stuck',
  'leaky',
  'no-supply',
  'low-supply',
  'reversed-supply',
  'strap',
  'blank',
  'track',
] as const satisfies readonly FaultKind[];

export const HEALTHY: Fault = { kind: 'healthy', parts: [], detail: {} };

/** Where a fault is mended: refs, the nets of a bridge, the net of a track, the option of a strap. */
export function mendedAt(fault: Fault): readonly string[] {
  if (fault.kind === 'bridge') return fault.detail.nets;
  if (fault.kind === 'track') return [fault.detail.net];
  return fault.kind === 'strap' ? [fault.detail.option] : fault.parts;
}

/** A text that is the same for the same fault, whatever the order of parts, pins or nets. */
export function faultKey(f: Fault): string {
  const detail = Object.entries(f.detail).map(
    ([k, v]) => `${k}=${Array.isArray(v) ? [...(v as string[])].sort().join('+') : typeof v === 'number' ? v.toPrecision(4) : String(v)}`,
  );
  return [f.kind, [...f.parts].sort().join('+'), ...detail].join('|');
}
