import { type Circuit, GROUND, type Part } from '../circuit';

const inside = (circuit: Circuit, element: string): Part[] => circuit.parts.filter((p) => p.name.toLowerCase().startsWith(`${element.toLowerCase()}.`));

/** Nets on which the pins of an expanded sub-circuit hang, by pin number from 0; pins that nothing inside uses are left out. */
export function portNets(circuit: Circuit, element: string): Map<number, string> {
  const nets = new Map<number, string>();
  for (const p of inside(circuit, element))
    p.ports?.forEach((port, i) => {
      if (port >= 0) nets.set(port, p.nodes[i]!);
    });
  return new Map([...nets].sort((a, b) => a[0] - b[0]));
}

/** Legs of chips in two rows, such as are put into a socket (JEDEC MS-001). */
const TWO_ROWS = [8, 14, 16, 18, 20, 24, 28, 40];

/** Whether all legs of a sub-circuit are told, and as many as a chip in two rows has: only then it is known how it lies when turned. */
export function isDip(circuit: Circuit, element: string): boolean {
  const pins = [...portNets(circuit, element).keys()];
  return TWO_ROWS.includes(pins.length) && pins.every((pin, i) => pin === i);
}

/** Volts and currents that a sub-circuit makes: what a chip does, and a blank one does not. */
const MAKES: ReadonlySet<Part['kind']> = new Set<Part['kind']>(['V', 'I', 'E', 'G']);
export const makesSomething = (circuit: Circuit, element: string): boolean => inside(circuit, element).some((p) => MAKES.has(p.kind));

/** The circuit with a chip that makes nothing: what is passive in it stays, its outputs hang on nothing. */
export function blankChip(circuit: Circuit, element: string): Circuit {
  const own = new Set(inside(circuit, element).filter((p) => MAKES.has(p.kind)));
  return { ...circuit, parts: circuit.parts.filter((p) => !own.has(p)) };
}

/** Pins, by number from 0, that a sub-circuit drives with volts of its own, straight or through a resistor; ground is none of them. */
export function drivenPorts(circuit: Circuit, element: string): number[] {
  const parts = inside(circuit, element);
  const reached = new Set(parts.flatMap((p) => (p.kind === 'V' || p.kind === 'E' ? p.nodes.slice(0, 2) : [])));
  for (const p of parts) if (p.kind === 'R' && p.nodes.some((n) => reached.has(n) && n.includes('.'))) for (const n of p.nodes) reached.add(n);
  return [...portNets(circuit, element)].flatMap(([port, net]) => (net !== GROUND && reached.has(net) ? [port] : []));
}

/** Nets that a chip is fed from: ground, and the supplies or what loads it against ground. Null where the pin is not told. */
export function railsOf(circuit: Circuit, element: string): { readonly low: string; readonly high: string } | null {
  const nets = new Set(portNets(circuit, element).values());
  if (!nets.has(GROUND)) return null;
  // The highest first: signals that come in, and rails below ground, feed no output.
  const supplies = circuit.parts
    .flatMap((p) => (p.kind === 'V' && p.dc > 0 && p.nodes[1] === GROUND && !p.name.includes('.') ? [p] : []))
    .sort((a, b) => b.dc - a.dc);
  const loads = inside(circuit, element).filter((p) => p.kind === 'R' && p.nodes.includes(GROUND));
  const high = [...supplies, ...loads].flatMap((p) => p.nodes).find((n) => n !== GROUND && nets.has(n));
  return high === undefined ? null : { low: GROUND, high };
}

/** The circuit with the pins of a sub-circuit on other nets: `to` gives the net of a pin number, or undefined for the one it has. */
export function rewirePorts(circuit: Circuit, element: string, to: (port: number) => string | undefined): Circuit {
  const own = new Set(inside(circuit, element));
  const moved = (p: Part): Part => ({ ...p, nodes: p.nodes.map((n, i) => (p.ports && p.ports[i]! >= 0 ? (to(p.ports[i]!) ?? n) : n)) });
  return { ...circuit, parts: circuit.parts.map((p) => (own.has(p) ? moved(p) : p)) };
}
