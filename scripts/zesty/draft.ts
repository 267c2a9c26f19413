import { type Condition, type Feed, METER_KINDS } from '../../src/core/bringup';
import { draftKit, type ToldCircuit } from '../../src/core/draft';
import { documentOf, newKit, type Stamp } from '../../src/core/kit';
import { arrayAt, arrayOf, numberAt, objectAt, textAt, wordAt } from './fields';
import type { Request } from './main';

const FEEDS = ['dc', 'usb', 'battery', 'winding'] as const;

/** A kit from list, circuit, supplies and meter: its ladder and its windows. */
export function draft(request: Request): object {
  const meter = request['meter'] === undefined ? {} : objectAt(request, 'meter');
  const id = textAt(request, 'id');
  const list = textAt(request, 'list');
  const { sheet, proposal } = draftKit({
    title: id,
    list,
    circuit: circuitAt(request),
    feeds: (request['supplies'] === undefined ? [] : arrayOf(request, 'supplies')).map((s): Feed => ({
      net: textAt(s, 'net'),
      back: textAt(s, 'back'),
      kind: wordAt(s, 'kind', FEEDS),
      volts: numberAt(s, 'volts'),
      ...(s['limit'] === undefined ? {} : { limit: numberAt(s, 'limit') }),
    })),
    probes: textsAt(request, 'probes'),
    meter: meter['kind'] === undefined ? 'unknown' : wordAt(meter, 'kind', METER_KINDS),
    modes: textsAt(meter, 'modes'),
    conditions: (request['conditions'] === undefined ? [] : arrayOf(request, 'conditions')).map((c): Condition => ({
      ref: textAt(c, 'ref'),
      text: textAt(c, 'text'),
      states: objectAt(c, 'states') as Condition['states'],
    })),
    sockets: textsAt(request, 'sockets') ?? [],
  });
  const kit = documentOf(newKit(sheet, stamps()));
  return {
    kit,
    windows: sheet.stages.flatMap((s) =>
      s.checks.flatMap((c) =>
        c.what === 'measure'
          ? [{ stage: s.id, check: c.id, ...(c.window ? { low: c.window.low ?? null, high: c.window.high ?? null } : { none: 'no window' }) }]
          : [],
      ),
    ),
    setup: sheet.stages.map((s) => ({ stage: s.id, set: s.settings ?? [] })),
    ...(proposal ? { missed: proposal.missed.map((f) => f.text) } : {}),
  };
}

function textsAt(request: Request, key: string): string[] | null {
  if (request[key] === undefined || request[key] === null) return null;
  const found = arrayAt(request, key);
  if (found.some((v) => typeof v !== 'string')) throw new Error(`"${key}" must be a list of texts`);
  return found as string[];
}

function circuitAt(request: Request): ToldCircuit | null {
  if (request['circuit'] === undefined || request['circuit'] === null) return null;
  const circuit = objectAt(request, 'circuit');
  if ('deck' in circuit) return { deck: textAt(circuit, 'deck') };
  if ('connections' in circuit) return { connections: objectAt(circuit, 'connections') as Readonly<Record<string, string>> };
  if ('templates' in circuit)
    return {
      templates: arrayOf(circuit, 'templates').map((t) => ({
        template: textAt(t, 'template'),
        parts: objectAt(t, 'parts') as Readonly<Record<string, string>>,
        figures: objectAt(t, 'figures') as Readonly<Record<string, string | number>>,
      })),
    };
  throw new Error('"circuit" must have a deck, connections or templates');
}

/** The caller gives ids of its own: the same request has the same answer. */
const stamps = (): Stamp => ({ at: '2000-01-01T00:00:00.000Z', id: '00000000-0000-4000-8000-000000000000' });
