import { type Circuit, findPart, type Part } from './netlist';

/** The circuit without these parts; `XU1` also removes everything inside the sub-circuit. */
export function removeParts(circuit: Circuit, names: readonly string[]): Circuit {
  const gone = names.map((n) => n.toLowerCase());
  return { ...circuit, parts: circuit.parts.filter((p) => !gone.some((name) => isOrBelongsTo(p.name, name))) };
}

/** Whether a part has this lower-case name, or stands inside the sub-circuit of that name. */
function isOrBelongsTo(part: string, name: string): boolean {
  if (part.length !== name.length && part[name.length] !== '.') return false;
  return part.slice(0, name.length).toLowerCase() === name;
}

/** Outermost name of a part: `XU1` for `XU1.R3`, the part's own name otherwise. */
export function ownerOf(name: string): string {
  const dot = name.indexOf('.');
  return dot < 0 ? name : name.slice(0, dot);
}

/**
 * The circuit with other values: ohms, farads, henries; volts or amperes DC for sources; gain for E and G.
 * @throws Error naming a part that is not there or has no single value.
 */
export function setValues(circuit: Circuit, values: Readonly<Record<string, number>>): Circuit {
  const wanted = new Map(Object.entries(values).map(([name, value]) => [name.toLowerCase(), value]));
  for (const name of Object.keys(values)) if (!findPart(circuit, name)) throw new Error(`set: no part is called ${name}`);
  const parts = circuit.parts.map((part) => {
    const value = wanted.get(part.name.toLowerCase());
    return value === undefined ? part : withValue(part, value);
  });
  return { ...circuit, parts };
}

/** The circuit with supplies that give whatever is asked of them. */
export const withoutLimits = (circuit: Circuit): Circuit => ({
  ...circuit,
  parts: circuit.parts.map((p) => (p.kind === 'V' && p.limit !== undefined ? { ...p, limit: undefined } : p)),
});

export function withValue(part: Part, value: number): Part {
  if (!Number.isFinite(value)) throw new Error(`set: ${part.name} needs a number`);
  switch (part.kind) {
    case 'R':
      if (value === 0) return { ...part, value: 1e-3 };
      return { ...part, value };
    case 'C':
    case 'L':
      if (value < 0) throw new Error(`set: ${part.name} cannot be ${value}`);
      return { ...part, value };
    case 'V':
    case 'I':
      return { ...part, dc: value, wave: null };
    case 'E':
    case 'G':
      return { ...part, gain: value };
    default:
      throw new Error(`set: ${part.name} has a model, not a value`);
  }
}

/** The circuit with one part exchanged for another (or several). */
export function replacePart(circuit: Circuit, name: string, by: readonly Part[]): Circuit {
  const at = circuit.parts.findIndex((p) => p.name === name);
  return at < 0 ? circuit : { ...circuit, parts: [...circuit.parts.slice(0, at), ...by, ...circuit.parts.slice(at + 1)] };
}

export function addParts(circuit: Circuit, parts: readonly Part[]): Circuit {
  return { ...circuit, parts: [...circuit.parts, ...parts] };
}
