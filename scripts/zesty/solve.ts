import { readDeck } from '../../src/core/circuit/deck/read';
import { describe } from '../../src/core/circuit/diagnostic';
import { removeParts, setValues } from '../../src/core/circuit/edit';
import { type MeterDrive, readDriven, type SupplyState } from '../../src/core/circuit/meterDrive';
import { type Circuit, findNet, findPart, GROUND, netsOf } from '../../src/core/circuit/netlist';
import { statisticsOf, type TraceStatistics } from '../../src/core/circuit/traceStatistics';
import { transient } from '../../src/core/circuit/transient';
import { operatingPoint } from '../../src/core/circuit/operatingPoint';
import { arrayAt, numberAt, objectAt, textAt } from './fields';
import type { Request } from './main';

export function solve(request: Request): object {
  const circuit = circuitOf(request);
  const analysis = request['analysis'] === undefined ? { type: 'op' } : objectAt(request, 'analysis');
  switch (analysis['type']) {
    case 'op': {
      const { nodes, branches } = operatingPoint(circuit);
      return { nodes, branches };
    }
    case 'ohms':
      return {
        ohms: readDriven(
          circuit,
          {
            type: 'ohms',
            ...probes(circuit, analysis),
            testVoltage: orDefault(analysis, 'testVoltage', 0.5),
            testResistance: orDefault(analysis, 'testResistance', 1e4),
          },
          supplies(analysis),
        ),
      };
    case 'diode': {
      const drive: MeterDrive = {
        type: 'diode',
        ...probes(circuit, analysis),
        testCurrent: orDefault(analysis, 'testCurrent', 1e-3),
        compliance: orDefault(analysis, 'compliance', 2.5),
      };
      return { volts: readDriven(circuit, drive, supplies(analysis)) };
    }
    case 'tran':
      return { nodes: transientStatistics(circuit, analysis) };
    default:
      throw new Error(`analysis type ${JSON.stringify(analysis['type'])} is not known; known: op, ohms, diode, tran`);
  }
}

function circuitOf(request: Request): Circuit {
  const { circuit, diagnostics } = readDeck(textAt(request, 'deck'));
  const error = diagnostics.find((d) => d.severity === 'error');
  if (error) throw new Error(describe(error));
  const remove = (request['remove'] ?? []) as unknown;
  if (!Array.isArray(remove) || remove.some((r) => typeof r !== 'string')) throw new Error('"remove" must be a list of part names');
  for (const name of remove as string[])
    if (!findPart(circuit, name) && !circuit.parts.some((p) => p.name.toLowerCase().startsWith(`${name.toLowerCase()}.`)))
      throw new Error(`remove: no part is called ${name}`);
  const set = request['set'] === undefined ? {} : objectAt(request, 'set');
  for (const key of Object.keys(set)) numberAt(set, key);
  return removeParts(setValues(circuit, set as Record<string, number>), remove as string[]);
}

function transientStatistics(circuit: Circuit, analysis: Request): Record<string, TraceStatistics> {
  const stop = numberAt(analysis, 'stop');
  const settle = orDefault(analysis, 'settle', 0);
  if (!(stop > 0) || !(settle >= 0) || settle >= stop) throw new Error('"stop" must be greater than "settle", and both not negative, in seconds');
  const names =
    analysis['nodes'] === undefined ? netsOf(circuit).filter((n) => n !== GROUND && !n.includes('.')) : arrayAt(analysis, 'nodes').map((n) => String(n));
  const nets = names.map((name) => {
    const net = findNet(circuit, name);
    if (net === undefined) throw new Error(`nodes: no node is called ${name}`);
    return net;
  });
  const trace = transient(circuit, { stop, from: settle, nets });
  return Object.fromEntries(names.map((name, i) => [name, statisticsOf(trace.times, trace.volts[nets[i]!]!)]));
}

const orDefault = (analysis: Request, key: string, value: number) => (analysis[key] === undefined ? value : numberAt(analysis, key));

function probes(circuit: Circuit, analysis: Request): { red: string; black: string } {
  const net = (key: 'red' | 'black') => {
    const name = textAt(analysis, key);
    const found = findNet(circuit, name);
    if (found === undefined) throw new Error(`${key}: no node is called ${name}`);
    return found;
  };
  return { red: net('red'), black: net('black') };
}

function supplies(analysis: Request): SupplyState {
  const state = analysis['supplies'] ?? 'unplugged';
  if (state !== 'unplugged' && state !== 'off') throw new Error('"supplies" must be "unplugged" or "off"');
  return state;
}
