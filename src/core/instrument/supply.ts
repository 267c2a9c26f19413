import { ASK_IDENTITY, identityOf, readingOfAnswer } from './scpi';
import { asked, type LineTransport } from './session';

/** What became of a command to a bench supply. */
export type SupplyTold =
  | { readonly state: 'done' }
  /** It names an error of its own. */
  | { readonly state: 'refused'; readonly said: string }
  /** It took something else than it was told: out of its range, or another channel. */
  | { readonly state: 'differs'; readonly volts: number; readonly limit: number }
  | { readonly state: 'silent' };

/** What a bench supply reads back at its terminals, SI. */
export interface SupplyReading {
  readonly on: boolean;
  readonly volts: number;
  readonly amps: number;
  /** It gives its current limit, and fewer volts than it is set to. */
  readonly limiting: boolean;
}

/** Settings read back agree within this share, or so many volts and amperes: coarse supplies set to whole steps (own choice). */
const SET_SHARE = 0.01;
const SET_VOLTS = 0.02;
const SET_AMPS = 2e-3;
/** A display is never off by so much. */
const LATE_SHARE = 0.1;
/** In its limit: this share of it flows, and this share of the volts is missing (own choice, wider than a display's error). */
const AT_LIMIT = 0.97;
const SAGGED = 0.97;

const NO_ERROR = /^[+-]?0\b/;

/**
 * A bench supply at the end of a line (SCPI-99, SOURce, OUTPut and MEASure subsystems; from memory). It is never believed to have
 * done what it was told before it says so itself.
 */
export class SupplySession {
  private set: { readonly volts: number; readonly limit: number } | null = null;

  constructor(private readonly line: LineTransport) {}

  /** Who is there; null when nobody answers. */
  async identify(): Promise<string | null> {
    const answer = await asked(this.line, ASK_IDENTITY);
    return answer === null ? null : identityOf(answer);
  }

  /** Sets the limit first, then the volts: a board is never offered more current than it may take. Volts and amperes. */
  async adjust(volts: number, limit: number): Promise<SupplyTold> {
    this.set = null;
    await this.line.send(`SOUR:CURR ${limit.toFixed(4)}`);
    await this.line.send(`SOUR:VOLT ${volts.toFixed(3)}`);
    const refused = await this.refusal();
    if (refused !== null) return refused;
    const [setVolts, setLimit] = [await this.number('SOUR:VOLT?'), await this.number('SOUR:CURR?')];
    if (setVolts === null || setLimit === null) return { state: 'silent' };
    if (!near(setVolts, volts, SET_VOLTS) || !near(setLimit, limit, SET_AMPS)) return { state: 'differs', volts: setVolts, limit: setLimit };
    this.set = { volts: setVolts, limit: setLimit };
    return { state: 'done' };
  }

  /** Switches the output; on only after it was set. */
  async output(on: boolean): Promise<SupplyTold> {
    if (on && this.set === null) return { state: 'refused', said: 'set it first' };
    await this.line.send(on ? 'OUTP ON' : 'OUTP OFF');
    const is = await this.switchedOn();
    if (is === null) return { state: 'silent' };
    return is === on ? { state: 'done' } : { state: 'refused', said: `its output stays ${is ? 'on' : 'off'}` };
  }

  /** What it reads back; null when an answer was missing or no number. */
  async read(): Promise<SupplyReading | null> {
    const on = await this.switchedOn();
    const volts = await this.number('MEAS:VOLT?');
    const amps = await this.number('MEAS:CURR?');
    if (on === null || volts === null || amps === null) return null;
    const { set } = this;
    // More than its limit cannot flow: that was a late answer to another question.
    if (set !== null && amps > set.limit + Math.max(SET_AMPS, LATE_SHARE * set.limit)) return null;
    return { on, volts, amps, limiting: on && set !== null && amps >= AT_LIMIT * set.limit && volts < SAGGED * set.volts };
  }

  close(): Promise<void> {
    return this.line.close();
  }

  private async refusal(): Promise<SupplyTold | null> {
    const said = await asked(this.line, 'SYST:ERR?');
    if (said === null) return { state: 'silent' };
    return NO_ERROR.test(said.trim()) ? null : { state: 'refused', said: said.trim() };
  }

  private async switchedOn(): Promise<boolean | null> {
    const answer = (await asked(this.line, 'OUTP?'))?.trim().toUpperCase();
    return answer === '1' || answer === 'ON' ? true : answer === '0' || answer === 'OFF' ? false : null;
  }

  private async number(question: string): Promise<number | null> {
    const answer = await asked(this.line, question);
    const value = answer === null ? null : readingOfAnswer(answer);
    return typeof value === 'number' ? value : null;
  }
}

const near = (is: number, wanted: number, step: number) => Math.abs(is - wanted) <= Math.max(step, SET_SHARE * wanted);
