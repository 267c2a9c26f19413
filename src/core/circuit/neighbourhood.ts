import { ownerOf } from './edit';
import { type Circuit, GROUND, PINS } from './netlist';

/** A part beside a net, with the nets on its other pins. */
export interface NeighbourPart {
  readonly name: string;
  readonly label: string;
  readonly pins: readonly { readonly pin: string; readonly net: string }[];
}

export interface Neighbourhood {
  readonly centre: string;
  readonly parts: readonly NeighbourPart[];
  readonly nets: readonly string[];
}

const MOST_PARTS = 24;

/** Parts that meet at a net (or a part itself), and the nets one step further. Chips count as one part. */
export function neighbourhood(circuit: Circuit, centre: string): Neighbourhood {
  const grouped = new Map<string, { label: string; pins: { pin: string; net: string }[] }>();
  for (const p of circuit.parts) {
    const owner = ownerOf(p.name);
    const known = grouped.get(owner) ?? { label: owner === p.name ? labelOf(p) : 'chip', pins: [] };
    grouped.set(owner, known);
    p.nodes.forEach((net, i) => {
      const pin = owner === p.name ? PINS[p.kind][i]! : '';
      if (!net.includes('.') && !known.pins.some((k) => k.net === net && (pin === '' || k.pin === pin))) known.pins.push({ pin, net });
    });
  }
  const here = [...grouped].filter(([name, g]) => name.toLowerCase() === centre.toLowerCase() || g.pins.some((p) => p.net === centre));
  const parts = here.slice(0, MOST_PARTS).map(([name, g]): NeighbourPart => ({ name, label: g.label, pins: g.pins }));
  const nets = [...new Set(parts.flatMap((p) => p.pins.map((k) => k.net)))].sort((a, b) => Number(a === GROUND) - Number(b === GROUND));
  return { centre, parts, nets };
}

function labelOf(p: Circuit['parts'][number]): string {
  if ('value' in p) return shortValue(p.value);
  if ('model' in p) return p.model.name;
  if ('wave' in p && p.wave) return 'wave';
  return 'dc' in p ? `${shortValue(p.dc)}${p.kind === 'V' ? ' V' : ' A'}` : `×${shortValue(p.gain)}`;
}

const shortValue = (value: number) => {
  const steps: readonly (readonly [number, string])[] = [
    [1e6, 'M'],
    [1e3, 'k'],
    [1, ''],
    [1e-3, 'm'],
    [1e-6, 'µ'],
    [1e-9, 'n'],
    [1e-12, 'p'],
  ];
  const [factor, prefix] = steps.find(([f]) => Math.abs(value) >= f * 0.9999) ?? [1, ''];
  return `${Number((value / factor).toPrecision(3))}${prefix}`;
};
