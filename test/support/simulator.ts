import { Simulation } from 'eecircuit-engine';

let started: Promise<InstanceType<typeof Simulation>> | null = null;

async function simulator() {
  started ??= (async () => {
    const sim = new Simulation();
    await sim.start();
    return sim;
  })();
  return started;
}

/** Operating point of a deck by the general-purpose simulator of the dev dependencies: lower-case vector names to values. */
export async function referenceOp(deck: string): Promise<ReadonlyMap<string, number>> {
  const sim = await simulator();
  sim.setNetList(`${deck.replace(/^\.end\s*$/im, '').trimEnd()}\n.options rshunt=1e12 gmin=1e-12 reltol=1e-6\n.op\n.end\n`);
  const result = await sim.runSim();
  return new Map(result.data.map((d) => [d.name.toLowerCase(), (d.values as number[])[0]!]));
}

/** Course of one net by the same simulator, on its own time steps. */
export async function referenceTransient(deck: string, net: string, stop: number): Promise<{ times: Float64Array; volts: Float64Array }> {
  const sim = await simulator();
  sim.setNetList(`${deck.replace(/^\.end\s*$/im, '').trimEnd()}\n.options rshunt=1e12\n.tran ${stop / 4000} ${stop} 0 ${stop / 4000}\n.end\n`);
  const result = await sim.runSim();
  const column = (name: string) => {
    const found = result.data.find((d) => d.name.toLowerCase() === name);
    if (!found) throw new Error(`the reference has no vector ${name}`);
    return Float64Array.from(found.values as number[]);
  };
  const volts = result.data.some((d) => d.name.toLowerCase() === `v(${net})`) ? `v(${net})` : net;
  return { times: column('time'), volts: column(volts) };
}
