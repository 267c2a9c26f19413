import type { MeterMode } from '../vocabulary';
import type { LineFormat } from './ownLine';
import { readOwnLine } from './ownLine';
import { ASK_IDENTITY, ASK_MODE, ASK_READING, configureCommand, identityOf, modeOfAnswer, readingOfAnswer, serves, type Shown } from './scpi';

/** A line to an instrument: a serial port, or a simulated one. */
export interface LineTransport {
  send: (line: string) => Promise<void>;
  /** The next line; null when none came in time. */
  receive: (milliseconds: number) => Promise<string | null>;
  close: () => Promise<void>;
}

/** How an instrument talks: it is asked, or it sends lines of its own accord. */
export type Protocol = { readonly kind: 'scpi' } | { readonly kind: 'lines'; readonly format: LineFormat };

export type Polled =
  | { readonly state: 'reading'; readonly value: Shown; readonly mode: MeterMode }
  /** It reads something else than what is asked for: never taken. */
  | { readonly state: 'other-mode'; readonly mode: MeterMode | null }
  /** It cannot measure what is asked for. */
  | { readonly state: 'cannot' }
  /** Its answer was no number: left out. */
  | { readonly state: 'garbled' }
  | { readonly state: 'silent' };

const PATIENCE = 1500;
/** Answers that came too late for an earlier question are thrown away before the next one. */
const LATE = 1;

/** The answer to a question; null when none came in time. */
export async function asked(line: LineTransport, question: string): Promise<string | null> {
  while ((await line.receive(LATE)) !== null);
  await line.send(question);
  return line.receive(PATIENCE);
}

/** One instrument at the end of a line: knows which mode it was told, and believes it only when it says so itself. */
export class InstrumentSession {
  private confirmed: MeterMode | null = null;

  constructor(
    private readonly line: LineTransport,
    private readonly protocol: Protocol,
  ) {}

  /** Who is there; null when nobody answers. A meter that only talks has no name. */
  async identify(): Promise<string | null> {
    if (this.protocol.kind === 'lines') return (await this.line.receive(2 * PATIENCE)) === null ? null : 'meter that sends lines';
    const answer = await asked(this.line, ASK_IDENTITY);
    return answer === null ? null : identityOf(answer);
  }

  /** One reading for a target of this mode. */
  async poll(wanted: MeterMode): Promise<Polled> {
    if (this.protocol.kind === 'lines') return this.listen(wanted, this.protocol.format);
    if (this.confirmed !== wanted) {
      const command = configureCommand(wanted);
      if (command === null) return { state: 'cannot' };
      await this.line.send(command);
      const said = await asked(this.line, ASK_MODE);
      if (said === null) return { state: 'silent' };
      const mode = modeOfAnswer(said);
      if (!serves(mode, wanted)) return { state: 'other-mode', mode };
      this.confirmed = wanted;
    }
    const answer = await asked(this.line, ASK_READING);
    if (answer === null) {
      // What happened to it meanwhile nobody knows: its mode is asked for again.
      this.confirmed = null;
      return { state: 'silent' };
    }
    const value = readingOfAnswer(answer);
    if (value === null) {
      this.confirmed = null;
      return { state: 'garbled' };
    }
    return { state: 'reading', value, mode: wanted };
  }

  close(): Promise<void> {
    return this.line.close();
  }

  private async listen(wanted: MeterMode, format: LineFormat): Promise<Polled> {
    const line = await this.line.receive(PATIENCE);
    if (line === null) return { state: 'silent' };
    const read = readOwnLine(line, format);
    if (!read) return { state: 'garbled' };
    return serves(read.mode, wanted) ? { state: 'reading', ...read } : { state: 'other-mode', mode: read.mode };
  }
}
