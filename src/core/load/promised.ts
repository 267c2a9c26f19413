import type { RecordOf } from '../kit';
import { print } from '../quantity';
import { frequencyClaim, powerClaim, rangeClaim } from './claims';

/** What a claim amounts to, with what it depends on. */
export type ClaimMeans = NonNullable<RecordOf<'claims'>['means']>;

/** Whether a claim can be true at all, and what is the most that can be. */
export interface Judged {
  readonly possible: boolean;
  readonly text: string;
}

/** Printed figures are rounded: what a claim promises is met within this part (own figure, as `claims.ts`). */
const ROUNDED = 1.05;

/** Judges a claim by what it depends on, before anything is built. */
export function judgeClaim(m: ClaimMeans): Judged {
  switch (m.kind) {
    case 'power': {
      const { mostWatts, possible } = powerClaim(m);
      return { possible, text: `at most ${print(mostWatts, 'W', 3)} of sine power` };
    }
    case 'range': {
      const r = rangeClaim(m);
      return { possible: r.possible, text: `it reaches ${print(r.low, 'V', 3)} to ${print(r.high, 'V', 3)}` };
    }
    case 'frequency': {
      const r = frequencyClaim(m.of, m.stages, m.claimed);
      return { possible: r.possible, text: `it runs from ${print(r.low, 'Hz', 3)} to ${print(r.high, 'Hz', 3)}` };
    }
    case 'current': {
      const watts = (m.inputVolts - m.volts) * m.amps;
      const junction = m.ambient + watts * m.junctionToAmbient;
      return {
        possible: watts >= 0 && junction <= m.junction,
        text:
          watts < 0
            ? 'the input is below the output'
            : `${print(watts, 'W', 3)} of heat bring its junction to ${junction.toFixed(0)} °C, ${m.junction.toFixed(0)} °C are allowed`,
      };
    }
    case 'dropout': {
      const left = m.inputVolts - m.volts;
      return {
        possible: ROUNDED * left >= m.dropout,
        text: `${print(left, 'V', 3)} are left between input and output, the type needs ${print(m.dropout, 'V', 3)}`,
      };
    }
  }
}

/** A claim as the box would print it. */
export function claimWords(m: ClaimMeans): string {
  switch (m.kind) {
    case 'power':
      return `${print(m.claimedWatts, 'W', 3)}${m.claimedAs === 'peak' ? ' peak' : ''} into ${print(m.loadOhms, 'ohm', 2)}`;
    case 'range':
      return `output ${print(m.claimed[0], 'V', 3)} to ${print(m.claimed[1], 'V', 3)}`;
    case 'frequency':
      return `${print(m.claimed[0], 'Hz', 3)} to ${print(m.claimed[1], 'Hz', 3)}`;
    case 'current':
      return `${print(m.amps, 'A', 3)} at ${print(m.volts, 'V', 3)}`;
    case 'dropout':
      return `${print(m.volts, 'V', 3)} from ${print(m.inputVolts, 'V', 3)} in`;
  }
}

/** A reading that proves a claim: what is set, what is read, and between which limits it must lie. */
export interface ProvedBy {
  readonly title: string;
  readonly note: string;
  readonly mode: 'dcv' | 'acv' | 'frequency';
  readonly low: number | null;
  readonly high: number | null;
}

/** The readings that prove a claim on the finished board. */
export function provedBy(m: ClaimMeans): readonly ProvedBy[] {
  switch (m.kind) {
    case 'power': {
      const sine = m.claimedAs === 'peak' ? m.claimedWatts / 2 : m.claimedWatts;
      return [
        {
          title: `Claimed power into ${print(m.loadOhms, 'ohm', 2)}`,
          note: `Sine of 1 kHz, ${print(m.loadOhms, 'ohm', 2)} of ${print(2 * sine, 'W', 1)} or more as the load, turned up until it just does not clip. Volts across the load.`,
          mode: 'acv',
          low: Math.sqrt((sine / ROUNDED) * m.loadOhms),
          high: null,
        },
      ];
    }
    case 'range':
      return [
        {
          title: 'Lowest output',
          note: `Control at its lower end, input ${print(m.inputVolts, 'V', 3)}.`,
          mode: 'dcv',
          low: null,
          high: ROUNDED * m.claimed[0],
        },
        {
          title: 'Highest output',
          note: `Control at its upper end, input ${print(m.inputVolts, 'V', 3)}.`,
          mode: 'dcv',
          low: m.claimed[1] / ROUNDED,
          high: null,
        },
      ];
    case 'frequency': {
      const [low, high] = m.claimed;
      const fixed = high <= ROUNDED * low;
      return fixed
        ? [{ title: 'Frequency', note: 'As it is set by its parts.', mode: 'frequency', low: low / ROUNDED, high: high * ROUNDED }]
        : [
            { title: 'Lowest frequency', note: 'Control at its slow end.', mode: 'frequency', low: null, high: ROUNDED * low },
            { title: 'Highest frequency', note: 'Control at its fast end.', mode: 'frequency', low: high / ROUNDED, high: null },
          ];
    }
    case 'current':
      return [
        {
          title: `Output at ${print(m.amps, 'A', 3)}`,
          note: `Load of ${print(m.volts / m.amps, 'ohm', 3)} and ${print(2 * m.volts * m.amps, 'W', 1)} or more, input ${print(m.inputVolts, 'V', 3)}. Keep a finger near the switch: the sink gets hot.`,
          mode: 'dcv',
          low: m.volts / ROUNDED,
          high: m.volts * ROUNDED,
        },
      ];
    case 'dropout':
      return [
        {
          title: `Output at ${print(m.inputVolts, 'V', 3)} in`,
          note: `Input turned down to ${print(m.inputVolts, 'V', 3)}, the load as usual.`,
          mode: 'dcv',
          low: m.volts / ROUNDED,
          high: m.volts * ROUNDED,
        },
      ];
  }
}
