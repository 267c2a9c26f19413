import { type ChildProcess, fork } from 'node:child_process';
import { join } from 'node:path';

interface Vector {
  readonly name: string;
  readonly values: readonly number[];
}

const waiting = new Map<number, { readonly done: (vectors: readonly Vector[]) => void; readonly failed: (reason: Error) => void }>();
let child: ChildProcess | null = null;
let last = 0;

/** Kept only as long as somebody waits for an answer, so that a finished test process can end. */
function hold(process: ChildProcess, held: boolean) {
  if (held) {
    process.ref();
    process.channel?.ref();
  } else {
    process.unref();
    process.channel?.unref();
  }
}

function simulator(): ChildProcess {
  if (child) return child;
  const started = fork(join(process.cwd(), 'test/support/simulatorProcess.mjs'), { execArgv: [], stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
  started.on('message', ({ id, vectors }: { id: number; vectors: readonly Vector[] }) => {
    waiting.get(id)?.done(vectors);
    waiting.delete(id);
    hold(started, waiting.size > 0);
  });
  started.on('exit', (code) => {
    child = null;
    for (const { failed } of waiting.values()) failed(new Error(`the reference simulator ended with code ${code}`));
    waiting.clear();
  });
  child = started;
  return started;
}

async function run(deck: string, commands: string): Promise<readonly Vector[]> {
  const process = simulator();
  hold(process, true);
  return new Promise((done, failed) => {
    const id = ++last;
    waiting.set(id, { done, failed });
    process.send({ id, deck: `${deck.replace(/^\.end\s*$/im, '').trimEnd()}\n${commands}\n.end\n` });
  });
}

/**
 * Operating point of a deck by the general-purpose simulator of the dev dependencies: lower-case vector names to values.
 * With `nets` each of them gets the shunt to ground as a resistor: on nets held by leakage alone it decides, and the
 * simulator's own option does not reach them all.
 */
export async function referenceOp(deck: string, nets: readonly string[] = []): Promise<ReadonlyMap<string, number>> {
  const body = deck.replace(/^\.end\s*$/im, '').trimEnd();
  const shunts = nets.map((net, i) => `Rshunt${i} ${net} 0 1E12`);
  const option = nets.length > 0 ? '' : 'rshunt=1e12 ';
  const vectors = await run([body, ...shunts].join('\n'), `.options ${option}gmin=1e-12 reltol=1e-6 abstol=1e-15 vntol=1e-8\n.op`);
  return new Map(vectors.map((v) => [v.name, v.values[0]!]));
}

/** Course of one net by the same simulator, on its own time steps. */
export async function referenceTransient(deck: string, net: string, stop: number): Promise<{ times: Float64Array; volts: Float64Array }> {
  const vectors = await run(deck, `.options rshunt=1e12 reltol=1e-5\n.tran ${stop / 4000} ${stop} 0 ${stop / 4000}`);
  const column = (name: string) => {
    const found = vectors.find((v) => v.name === name);
    if (!found) throw new Error(`the reference has no vector ${name}`);
    return Float64Array.from(found.values);
  };
  const volts = vectors.some((v) => v.name === `v(${net})`) ? `v(${net})` : net;
  return { times: column('time'), volts: column(volts) };
}
