import { create } from 'zustand';
import type { InstrumentSession, LineFormat, Polled, Shown, SupplyReading, SupplySession } from '@/core/instrument';
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

export const NO_SUPPLY: SupplyLink = { session: null, simulated: null, name: '', set: null, reading: null, feeds: null, said: '' };
export const useSupply = create<SupplyLink>(() => NO_SUPPLY);
