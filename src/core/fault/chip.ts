import type { Circuit, Part } from '../circuit';

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

/** The circuit with the pins of a sub-circuit on other nets: `to` gives the net of a pin number, or undefined for the one it has. */
export function rewirePorts(circuit: Circuit, element: string, to: (port: number) => string | undefined): Circuit {
  const own = new Set(inside(circuit, element));
  const moved = (p: Part): Part => ({ ...p, nodes: p.nodes.map((n, i) => (p.ports && p.ports[i]! >= 0 ? (to(p.ports[i]!) ?? n) : n)) });
  return { ...circuit, parts: circuit.parts.map((p) => (own.has(p) ? moved(p) : p)) };
}
