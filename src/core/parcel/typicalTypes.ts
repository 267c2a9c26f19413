import { LED_FORWARD, ledForward, typeReadings } from '../vocabulary';

/** What a type or colour reads like: diode test volts, current gain. */
interface TypeFigures {
  readonly vf?: readonly [number, number] | undefined;
  readonly hfe?: readonly [number, number] | undefined;
  readonly polarity?: 'NPN' | 'PNP' | undefined;
}

/** What most pieces of a type, or LEDs of a colour, read on a handheld; null for types nobody knows. */
export function typicalFigures(type: string): TypeFigures | null {
  const known = typeReadings(type);
  if (known) return { vf: known.forward?.usual, hfe: known.gain?.usual, polarity: known.polarity ?? undefined };
  const led = ledForward(type);
  // A green one may be of either chemistry: its colour alone does not say which.
  return led && { vf: type.trim().toLowerCase() === 'green' ? [led.usual[0], LED_FORWARD['pure green'].usual[1]] : led.usual };
}
