import type { LineTransport } from '@/core/instrument';
import { randomStream } from '@/core/statistics';

/** What the simulated board draws from the supply: so many amperes at so many volts, and in proportion at others. */
export interface Drawn {
  readonly amps: number;
  readonly at: number;
}

export interface SimulatedSupplyOptions {
  readonly seed: number;
  /** Waits; replaced in tests. */
  readonly sleep: (milliseconds: number) => Promise<void>;
  /** Share of answers that are garbled, or left out: a hostile bench. */
  readonly garbled?: number;
  readonly silent?: number;
}

const ANSWERS = 20;
/** It goes so far, volts and amperes; beyond that it names an error and changes nothing. */
const MOST_VOLTS = 31;
const MOST_AMPS = 3.1;
/** Noise of its display, volts and amperes. */
const TREMBLES = { volts: 2e-3, amps: 5e-5 };
/** Less than this is no short, ohms. */
const LEAST_OHMS = 1e-3;

/** A bench supply that answers SCPI lines: settings, output, limit and readback, and where asked for late and broken answers. */
export class SimulatedSupply implements LineTransport {
  private volts = 0;
  private limit = 0.1;
  private on = false;
  private load: Drawn | null = null;
  private plugged = true;
  private answers: string[] = [];
  private errors: string[] = [];
  private readonly random: () => number;

  constructor(private readonly options: SimulatedSupplyOptions) {
    this.random = randomStream(options.seed);
  }

  /** Connects a board; null: nothing hangs on it. */
  connect(load: Drawn | null): void {
    this.load = load;
  }

  unplug(): void {
    this.plugged = false;
  }

  async send(line: string): Promise<void> {
    if (!this.plugged) throw new Error('The supply was unplugged.');
    await this.options.sleep(ANSWERS);
    const answer = this.answerTo(line.trim().toUpperCase());
    if (answer === null || this.random() < (this.options.silent ?? 0)) return;
    this.answers.push(this.random() < (this.options.garbled ?? 0) ? `${answer.slice(0, 1)}#` : answer);
  }

  async receive(milliseconds: number): Promise<string | null> {
    if (!this.plugged) throw new Error('The supply was unplugged.');
    const next = this.answers.shift();
    if (next !== undefined) return next;
    await this.options.sleep(Math.min(milliseconds, ANSWERS));
    return this.answers.shift() ?? null;
  }

  close(): Promise<void> {
    this.answers = [];
    return Promise.resolve();
  }

  private answerTo(line: string): string | null {
    const [command = '', argument = ''] = line.split(' ');
    switch (command) {
      case '*IDN?':
        return 'Simulated,bench supply,0,1.0';
      case 'SYST:ERR?':
        return this.errors.shift() ?? '+0,"No error"';
      case 'SOUR:VOLT':
        this.volts = this.taken(Number(argument), MOST_VOLTS, this.volts);
        return null;
      case 'SOUR:CURR':
        this.limit = this.taken(Number(argument), MOST_AMPS, this.limit);
        return null;
      case 'SOUR:VOLT?':
        return this.volts.toFixed(3);
      case 'SOUR:CURR?':
        return this.limit.toFixed(4);
      case 'OUTP':
        this.on = argument === 'ON' || argument === '1';
        return null;
      case 'OUTP?':
        return this.on ? '1' : '0';
      case 'MEAS:VOLT?':
        return this.shown(this.terminals().volts, TREMBLES.volts, 3);
      case 'MEAS:CURR?':
        return this.shown(this.terminals().amps, TREMBLES.amps, 4);
      default:
        this.errors.push('-113,"Undefined header"');
        return command.endsWith('?') ? '' : null;
    }
  }

  private taken(value: number, most: number, now: number): number {
    if (Number.isFinite(value) && value >= 0 && value <= most) return value;
    this.errors.push('-222,"Data out of range"');
    return now;
  }

  /** Volts and amperes at its terminals: as set, or in its limit what the load then leaves. */
  private terminals(): { readonly volts: number; readonly amps: number } {
    if (!this.on) return { volts: 0, amps: 0 };
    if (this.load === null || this.load.amps <= 0) return { volts: this.volts, amps: 0 };
    const ohms = Math.max(LEAST_OHMS, this.load.at / this.load.amps);
    const amps = this.volts / ohms;
    return amps <= this.limit ? { volts: this.volts, amps } : { volts: this.limit * ohms, amps: this.limit };
  }

  private shown(value: number, trembles: number, places: number): string {
    return Math.max(0, value + (value === 0 ? 0 : (this.random() - 0.5) * 2 * trembles)).toFixed(places);
  }
}
