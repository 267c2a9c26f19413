import type { LineTransport, Protocol } from '@/core/instrument';
import { type Fed, NO_SUPPLY, type Probes, useLink, useSupply } from './instrument';

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

export function disconnectSupply(said = ''): void {
  const { session } = useSupply.getState();
  useSupply.setState({ ...NO_SUPPLY, said });
  void session?.close().catch(() => undefined);
}

export function supplyBroke(e: unknown): void {
  disconnectSupply(`The line to the supply broke: ${(e as Error).message} Switch it off at its own switch.`);
}

/**
 * Connects a bench supply at the end of a line.
 * @returns what went wrong, in words; null when it answers.
 */
export async function connectSupply(line: LineTransport, simulated: Fed | null = null): Promise<string | null> {
  const { SupplySession: Session } = await import('@/core/instrument');
  const session = new Session(line);
  const name = await session.identify();
  if (name === null) {
    await session.close();
    return 'Nothing answered. Check speed, cable and whether the supply listens to commands.';
  }
  useSupply.setState({ ...NO_SUPPLY, session, simulated, name });
  return null;
}

export async function connectSimulatedSupply(): Promise<string | null> {
  const { SimulatedSupply } = await import('@/stand-in/simulatedSupply');
  const supply = new SimulatedSupply({ seed: Date.now() % SEEDS, sleep: (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds)) });
  return connectSupply(supply, supply);
}
