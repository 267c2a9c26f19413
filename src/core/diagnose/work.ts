import { faultKey } from '../fault';
import {
  deriveAbsent,
  deriveExchanged,
  deriveMeasuredValues,
  deriveStrangers,
  deriveTraced,
  deriveTray,
  type KitState,
  type Line,
  type LineKind,
  type Ref,
  stands,
} from '../kit';
import { packageOf, type Shape } from '../vocabulary';

/** What the work on the board told besides its readings, as plain data. */
export interface WorkEvidence {
  /** Looks by what was looked at: whether it was good. */
  readonly looked: Readonly<Record<string, boolean>>;
  /** Pairs of nets, as `a~b` in alphabetical order, that were silent under the tester, or beeped though nothing joins them. */
  readonly silent: readonly string[];
  readonly joined: readonly string[];
  /** Positions that were not ticked while others were. */
  readonly unticked: readonly Ref[];
  /** What is known of the piece at a place before it was fitted, and when that was. */
  readonly pieces: Readonly<Record<Ref, readonly PieceFact[]>>;
  /** Places whose pieces were measured as each other's values. */
  readonly exchanged: readonly (readonly [Ref, Ref])[];
  /** Values of pieces that no line wants. */
  readonly strangers: readonly number[];
  /** Symptoms of the whole board that were answered: whether they are seen. */
  readonly symptoms: Readonly<Record<string, boolean>>;
  /** Faults, by their keys, that somebody looked for on the board as it is, and did not find. */
  readonly ruledOut: readonly string[];
}

/** What speaks for or against the piece at a place. */
export type PieceFact = 'measured' | 'unmeasured' | 'unreadable' | 'lot-out' | 'fine' | 'bent' | 'late';

/** Part of the positions up to which those that were not ticked count as forgotten (own figure). */
const FORGOTTEN = 0.2;

/** A drawing calls the circuit's net 0 by a name. */
const netOf = (name: string) => (/^(?:gnd|ground)$/i.test(name) ? '0' : name.toLowerCase());
export const pairOf = (nets: readonly [string, string]) => nets.map(netOf).sort().join('~');

export function workOf(kit: KitState): WorkEvidence {
  const across = deriveTraced(kit).flatMap(({ entry: { nets, drawn, beep } }) =>
    nets === undefined || netOf(nets[0]) === netOf(nets[1]) || (beep && drawn !== false) ? [] : [{ pair: pairOf(nets), beep }],
  );
  const absent = deriveAbsent(kit);
  const wanted = kit.sheet.lines.flatMap((l) => l.refs.filter((r) => !absent.has(r)));
  const open = wanted.filter((r) => !kit.board.fitted.has(r));
  const pairs = (beep: boolean) => [...new Set(across.filter((x) => x.beep === beep).map((x) => x.pair))].sort();
  return {
    looked: Object.fromEntries([...kit.inspected].map(([item, { entry }]) => [item, entry.good])),
    silent: pairs(false),
    joined: pairs(true),
    pieces: pieceFacts(kit),
    exchanged: deriveExchanged(kit).map(([a, b]) => [a.ref, b.ref] as const),
    strangers: deriveStrangers(kit).flatMap(({ entry }) => (typeof entry.reading === 'number' ? [entry.reading] : [])),
    symptoms: Object.fromEntries(kit.symptoms),
    ruledOut: kit.ruledOut.filter((r) => r.at > (kit.change?.at ?? -1)).map((r) => faultKey(r.entry.fault)),
    // Who ticks only now and then forgot no part.
    unticked: open.length <= FORGOTTEN * wanted.length ? open : [],
  };
}

/** Kinds whose print is no help to the eye, or missing (common practice, no source). */
const HARD_TO_READ: readonly LineKind[] = ['trimmer', 'potentiometer', 'thermistor', 'zener', 'diode'];
/** Bodies whose legs lie so close that solder runs across. */
const FINE: readonly Shape[] = ['so', 'sot23', 'chip', 'chip-diode', 'led-chip'];

function pieceFacts(kit: KitState): Record<Ref, PieceFact[]> {
  const tray = deriveTray(kit);
  const anyMeasured = tray.some((c) => c.pieces.some((p) => p.entry !== null));
  const late = fittedLast(kit);
  // A diode test says nothing of a zener's voltage, nor a reading in the hand of what turns or warms.
  const values = deriveMeasuredValues(kit, kit.board);
  const facts: Record<Ref, PieceFact[]> = {};
  for (const { line, pieces, markings } of tray) {
    const fine = FINE.includes(packageOf(line).shape);
    const out = pieces.some((p) => p.verdict === 'out');
    line.refs.forEach((ref, i) => {
      const piece = pieces[i];
      const unknown = piece?.entry == null || piece.at <= (kit.board.renewed.get(ref) ?? -1);
      const found: (PieceFact | false)[] = [
        values.has(ref) && 'measured',
        unknown && anyMeasured && 'unmeasured',
        unknown && anyMeasured && HARD_TO_READ.includes(line.kind) && !markings.has(i) && 'unreadable',
        unknown && out && 'lot-out',
        fine && 'fine',
        isBent(kit, line, ref) && 'bent',
        late.has(ref) && 'late',
      ];
      const told = found.filter((f) => f !== false);
      if (told.length > 0) facts[ref] = told;
    });
  }
  return facts;
}

/** Millimetres by which holes and legs may differ before legs are bent (common practice, no source). */
const AS_IT_COMES = 0.8;

/** Whether the legs of a part that stands had to be bent for holes that the board's file tells. Those of one that lies always are. */
function isBent(kit: KitState, line: Line, ref: Ref): boolean {
  const { shape, pads } = packageOf(line);
  if (shape.startsWith('axial')) return false;
  const holes = kit.sheet.pads.filter((p) => p.ref === ref).sort((a, b) => Number(a.pin) - Number(b.pin));
  if (holes.length !== pads.length || holes.length < 2 || holes.length > 3) return false;
  const apart = (of: readonly { readonly x: number; readonly y: number }[]) => of.slice(1).map((p, i) => Math.hypot(p.x - of[i]!.x, p.y - of[i]!.y));
  const own = apart(pads);
  return apart(holes).some((d, i) => Math.abs(d - own[i]!) > AS_IT_COMES);
}

/** What went in with the stage in hand, where a stage under power was read before it. */
function fittedLast(kit: KitState): ReadonlySet<Ref> {
  const { stages } = kit.sheet;
  const at = stages.findIndex((s) => s.id === kit.lastStage);
  const here = stages[at];
  if (!here) return new Set();
  const read = new Set(
    [...kit.readings.values()]
      .flat()
      .filter((t) => stands(kit, t.entry))
      .map((t) => t.entry.stage),
  );
  const passedBefore = stages.slice(0, at).some((s) => s.supplies.length > 0 && read.has(s.id));
  return new Set(passedBefore ? here.fits : []);
}
