import { type LineTransport, modeOfAnswer, type Shown } from '@/core/instrument';
import { randomStream } from '@/core/statistics';
import type { MeterMode } from '@/core/vocabulary';

/** What the simulated meter's probes touch: its mode and what it would show there; null where they touch nothing. */
export interface Touched {
  readonly mode: MeterMode;
  readonly value: Shown;
}

export interface SimulatedMeterOptions {
  readonly seed: number;
  /** Milliseconds, of any clock. */
  readonly now: () => number;
  /** Waits; replaced in tests. */
  readonly sleep: (milliseconds: number) => Promise<void>;
  /** Share of answers that are garbled, left out, or come from another range: a hostile bench. */
  readonly garbled?: number;
  readonly silent?: number;
}

/** It reaches a new value with this time constant, milliseconds, and answers after this long. */
const SETTLES = 180;
const ANSWERS = 25;
/** Noise of a reading, as a share of it, and in SI units where it is near nothing. */
const NOISE = 2e-4;
const FLOOR = 1e-4;
const INFINITE = '+9.90000000E+37';

/** Mode of a configuring command as the meter answers it. */
const FUNCTION: Readonly<Partial<Record<MeterMode, string>>> = {
  dcv: 'VOLT',
  acv: 'VOLT:AC',
  dca: 'CURR',
  ohms: 'RES',
  diode: 'DIOD',
  capacitance: 'CAP',
  frequency: 'FREQ',
  temp: 'TEMP',
};

/** A meter that answers SCPI lines like one of metal: settling, noise, over-range, and where asked for late and broken answers. */
export class SimulatedMeter implements LineTransport {
  private mode: MeterMode = 'dcv';
  private touched: Touched | null = null;
  private since = -Infinity;
  private from = 0;
  private answers: string[] = [];
  private plugged = true;
  private errors: string[] = [];
  private readonly random: () => number;

  constructor(private readonly options: SimulatedMeterOptions) {
    this.random = randomStream(options.seed);
  }

  /** Puts the probes to a point, or (null) lifts them. */
  touch(touched: Touched | null): void {
    if (touched === this.touched) return;
    this.from = this.level();
    this.touched = touched;
    this.since = this.options.now();
  }

  unplug(): void {
    this.plugged = false;
  }

  async send(line: string): Promise<void> {
    if (!this.plugged) throw new Error('The meter was unplugged.');
    await this.options.sleep(ANSWERS);
    const answer = this.answerTo(line.trim().toUpperCase());
    if (answer === null) return;
    if (this.random() < (this.options.silent ?? 0)) return;
    this.answers.push(this.random() < (this.options.garbled ?? 0) ? answer.slice(0, Math.floor(answer.length / 2)).replace(/^[+-]?\d/, '#') : answer);
  }

  async receive(milliseconds: number): Promise<string | null> {
    if (!this.plugged) throw new Error('The meter was unplugged.');
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
    if (line === '*IDN?') return 'Simulated,bench meter,0,1.0';
    if (line === 'CONF?') return `"${FUNCTION[this.mode]!} +1.00000000E+01,+3.00000000E-06"`;
    if (line === 'READ?') return this.reading();
    if (line === 'SYST:ERR?') return this.errors.shift() ?? '+0,"No error"';
    if (line.startsWith('CONF:')) {
      const mode = modeOfAnswer(line.slice('CONF:'.length));
      if (mode === null || FUNCTION[mode] === undefined) this.errors.push('-113,"Undefined header"');
      else if (mode !== this.mode) {
        this.mode = mode;
        this.from = 0;
        this.since = this.options.now();
      }
      return null;
    }
    this.errors.push('-113,"Undefined header"');
    return line.endsWith('?') ? '' : null;
  }

  /** What the display stands at now, without noise: it comes nearer and nearer to what is touched. */
  private level(): number {
    const aim = this.touched?.mode === this.mode && this.touched.value !== 'over' ? this.touched.value : 0;
    return aim + (this.from - aim) * Math.exp(-(this.options.now() - this.since) / SETTLES);
  }

  private reading(): string {
    const open = this.mode === 'ohms' || this.mode === 'diode';
    if (this.touched === null ? open : this.touched.mode !== this.mode ? open : this.touched.value === 'over') return INFINITE;
    const level = this.level();
    // Volts near nothing tremble by a fraction of a millivolt; farads by their last figure only.
    const noise = (this.random() - 0.5) * 2 * Math.max(NOISE * Math.abs(level), this.mode === 'capacitance' ? 1e-13 : FLOOR);
    return (level + noise)
      .toExponential(8)
      .toUpperCase()
      .replace(/^(?!-)/, '+')
      .replace(/E([+-])(\d)$/, 'E$10$2');
  }
}
