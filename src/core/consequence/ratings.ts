import type { Line } from '../kit';
import type { Setup } from '../stage';
import { cardFor } from '../typecard';

/** What a part stands, as far as the list or a type card tells. Volts, amperes, watts. */
export interface Ratings {
  readonly volts?: number;
  readonly amperes?: number;
  readonly watts?: number;
  /** Brief current at switch-on; a rectifier stands far more than its average. */
  readonly surge?: number;
}

/** Figures of a type card that are limits, and what they limit. */
const FIGURES: Readonly<Record<string, keyof Ratings>> = {
  'reverse voltage': 'volts',
  'collector voltage': 'volts',
  'drain voltage': 'volts',
  'forward current': 'amperes',
  'collector current': 'amperes',
  'drain current': 'amperes',
  power: 'watts',
  'surge current': 'surge',
};

/** Ratings of a line's parts: what the list prints goes before what the card of its type says. */
export function ratingsOf(setup: Setup, line: Line): Ratings {
  const card =
    line.kind === 'resistor' || line.kind === 'capacitor' || line.kind === 'electrolytic' || line.kind === 'tantalum'
      ? null
      : cardFor(line, setup.sheet.typeCards);
  const carded = (card?.figures ?? []).flatMap((f) => (FIGURES[f.name] ? [[FIGURES[f.name], f.value] as const] : []));
  const { volts, watts, amperes } = line.rating ?? {};
  const printed = Object.entries({ volts, watts, amperes }).filter(([, v]) => v !== undefined);
  return Object.fromEntries([...carded, ...printed]) as Ratings;
}
