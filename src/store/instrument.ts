import { create } from 'zustand';
import type { InstrumentSession, LineFormat, LineTransport, Polled, Protocol, Shown, SupplyReading, SupplySession } from '@/core/instrument';
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

/** A board that the simulated supply feeds: so many amperes at so many volts. */
export interface Fed {
  connect: (load: { readonly amps: number; readonly at: number } | null) => void;
}

/** The bench supply at the end of another line, while this page is open. Nothing of it is kept. */
export interface SupplyLink {
  readonly session: SupplySession | null;
  readonly simulated: Fed | null;
  readonly name: string;
  /** What it was set to last, by its own word. */
  readonly set: { readonly volts: number; readonly limit: number } | null;
  readonly reading: SupplyReading | null;
  /** Source of the kit that it feeds, where a stage has several; null: the first. */
  readonly feeds: string | null;
  /** What went wrong; empty while all is well. */
  readonly said: string;
}

const NO_SUPPLY: SupplyLink = { session: null, simulated: null, name: '', set: null, reading: null, feeds: null, said: '' };
export const useSupply = create<SupplyLink>(() => NO_SUPPLY);

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
