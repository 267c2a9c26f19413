import { create } from 'zustand';
import type { InstrumentSession, LineFormat, LineTransport, Polled, Protocol, Shown } from '@/core/instrument';
import type { MeterMode } from '@/core/vocabulary';

/** A simulated meter whose probes the program moves: it stands in for a bench. */
export interface Probes {
  touch: (touched: { readonly mode: MeterMode; readonly value: Shown } | null) => void;
}

/** The instrument at the end of the line, while this page is open. Nothing of it is kept. */
export interface Link {
  readonly session: InstrumentSession | null;
  readonly simulated: Probes | null;
  readonly name: string;
  /** Readings that hold still are taken by themselves. */
  readonly hold: boolean;
  /** What it said last, and how far it has held still, 0..1. */
  readonly said: Polled | null;
  readonly steady: number;
  /** Why the line ended; empty while all is well. */
  readonly lost: string;
  /** How a meter that only talks writes its lines, as it was learnt. */
  readonly format: LineFormat | null;
}

export const useLink = create<Link>(() => ({ session: null, simulated: null, name: '', hold: true, said: null, steady: 0, lost: '', format: null }));

export function disconnect(why = ''): void {
  const { session } = useLink.getState();
  useLink.setState({ session: null, simulated: null, said: null, steady: 0, lost: why });
  void session?.close().catch(() => undefined);
}

/**
 * Connects what is at the end of a line.
 * @returns what went wrong, in words; null when it answers.
 */
async function connect(line: LineTransport, protocol: Protocol, simulated: Probes | null): Promise<string | null> {
  const { InstrumentSession: Session } = await import('@/core/instrument');
  const session = new Session(line, protocol);
  const name = await session.identify();
  if (name === null) {
    await session.close();
    return 'Nothing answered. Check speed, cable and whether the meter’s output is switched on.';
  }
  useLink.setState({ session, simulated, name, lost: '', said: null, steady: 0 });
  return null;
}

export const connectLine = (line: LineTransport, protocol: Protocol): Promise<string | null> => connect(line, protocol, null);

/** Seeds of simulated meters: none is like the other. */
const SEEDS = 1e6;

export async function connectSimulated(): Promise<string | null> {
  const { SimulatedMeter } = await import('@/stand-in/simulatedMeter');
  const meter = new SimulatedMeter({
    seed: Date.now() % SEEDS,
    now: () => performance.now(),
    sleep: (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds)),
  });
  return connect(meter, { kind: 'scpi' }, meter);
}
