import type { Line } from '../kit';
import { type Package, packageOf, type Shape } from '../vocabulary';

/** How a body stands on the board and how long it takes to put it there. */
interface Body {
  /** Height above the board, millimetres (own figures, after common bodies). */
  readonly height: number;
  /** Minutes to form, insert, solder and clip one (handbook figures, common practice, no source). */
  readonly minutes: number;
  /** Minutes more for each pin. */
  readonly perPin?: number;
  /** Sinks, screws and weight decide where it sits. */
  readonly heavy?: true;
  /** Soldered on the side where it lies, before leads stand in the way. */
  readonly surface?: true;
}

const BODIES: Readonly<Record<Shape, Body>> = {
  link: { height: 0.5, minutes: 0.4 },
  chip: { height: 0.6, minutes: 0.8, surface: true },
  'led-chip': { height: 0.8, minutes: 0.8, surface: true },
  'chip-diode': { height: 1.1, minutes: 0.8, surface: true },
  sot23: { height: 1.1, minutes: 1.2, surface: true },
  so: { height: 1.7, minutes: 4, perPin: 0.05, surface: true },
  'axial-glass': { height: 1.9, minutes: 0.5 },
  axial: { height: 2.5, minutes: 0.5 },
  'axial-plastic': { height: 2.7, minutes: 0.5 },
  dip: { height: 3.5, minutes: 0.4, perPin: 0.1 },
  socket: { height: 4, minutes: 0.4, perPin: 0.1 },
  crystal: { height: 4, minutes: 0.6 },
  bead: { height: 4.5, minutes: 0.5 },
  disc: { height: 4.5, minutes: 0.5 },
  ldr: { height: 5, minutes: 0.6 },
  trimmer: { height: 5, minutes: 0.8 },
  sil: { height: 5.5, minutes: 0.3, perPin: 0.08 },
  lamp: { height: 6, minutes: 0.7 },
  key: { height: 6, minutes: 0.8 },
  film: { height: 6.5, minutes: 0.5 },
  'coin-clip': { height: 6.5, minutes: 1 },
  to92: { height: 8, minutes: 0.8 },
  header: { height: 8.5, minutes: 0.3, perPin: 0.08 },
  led: { height: 9, minutes: 0.7 },
  drop: { height: 8, minutes: 0.5 },
  bridge: { height: 7, minutes: 0.8 },
  microphone: { height: 7, minutes: 0.6 },
  display: { height: 8, minutes: 0.3, perPin: 0.08 },
  module: { height: 10, minutes: 1, perPin: 0.08 },
  transformer: { height: 18, minutes: 2, heavy: true },
  sink: { height: 20, minutes: 5, heavy: true },
  slide: { height: 9, minutes: 0.8 },
  buzzer: { height: 9.5, minutes: 0.8 },
  can: { height: 10, minutes: 0.6 },
  'trimmer-multiturn': { height: 10, minutes: 0.8 },
  terminal: { height: 10.5, minutes: 1, heavy: true },
  drum: { height: 11, minutes: 0.8 },
  fuse: { height: 11, minutes: 0.8 },
  to126: { height: 11, minutes: 2 },
  jack: { height: 11.5, minutes: 1, heavy: true },
  toggle: { height: 12, minutes: 0.8 },
  relay: { height: 15, minutes: 2, heavy: true },
  to220: { height: 16, minutes: 5, heavy: true },
  control: { height: 18, minutes: 3 },
  loudspeaker: { height: 20, minutes: 3, heavy: true },
  battery: { height: 20, minutes: 1, heavy: true },
  screw: { height: 25, minutes: 0.5 },
  unknown: { height: 8, minutes: 1 },
};

/** Leads this close together are fine work: a bridge nearly always, and a flat empty board helps. Millimetres. */
const FINE_PITCH = 1.3;

export interface FittingFacts extends Required<Pick<Body, 'height'>> {
  readonly minutes: number;
  readonly heavy: boolean;
  readonly surface: boolean;
  readonly finePitch: boolean;
}

const pitchOf = ({ pads }: Package): number => Math.min(Infinity, ...pads.slice(1).map((p, i) => Math.hypot(p.x - pads[i]!.x, p.y - pads[i]!.y)));

const known = new WeakMap<Line, FittingFacts>();

/** What is known of a line's parts for their order. */
export function fittingFacts(line: Line): FittingFacts {
  const found = known.get(line) ?? factsOf(line);
  known.set(line, found);
  return found;
}

function factsOf(line: Line): FittingFacts {
  const body = packageOf(line);
  const { height, minutes, perPin = 0, heavy = false, surface = false } = BODIES[body.shape];
  return { height, minutes: minutes + perPin * body.pads.length, heavy, surface, finePitch: surface && body.pads.length > 3 && pitchOf(body) < FINE_PITCH };
}
