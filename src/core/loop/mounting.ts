import { deriveTray, type KitState, type Line, type Ref } from '../kit';
import { whereabouts } from '../place';
import { print } from '../quantity';
import { factsOf, packageOf } from '../vocabulary';

/** From so many watts on a resistor stands off the board (common practice, no source). */
const STANDS_OFF = 1;
const BY_TAB = new Set(['to220', 'to126']);

/** How a part is mounted: which piece, how far its leads are bent apart, its height over the board, how hot it may get (common practice, no source). */
export function mountingRemarks(kit: KitState, line: Line, refs: readonly Ref[]): string[] {
  return [...places(kit, refs), ...piecesFor(kit, line, refs), ...spacing(kit, line, refs), ...standoff(line), ...heat(line)];
}

/** More places than this are looked up on the map. */
const MOST_PLACES = 4;

/** Where each goes, as one would tell somebody at the bench. */
function places(kit: KitState, refs: readonly Ref[]): string[] {
  const told = refs.slice(0, MOST_PLACES).flatMap((ref) => {
    const w = whereabouts(kit.sheet, ref);
    const words = w
      ? [w.beside && `${w.beside.side} ${w.beside.ref}`, w.edge && `near the ${w.edge} edge`, w.copperSide && 'on the copper side'].filter(Boolean)
      : [];
    return words.length === 0 ? [] : [`${refs.length > 1 ? `${ref} ` : ''}${words.join(', ')}`];
  });
  return told.length === 0 ? [] : [`Where: ${told.join('; ')}.`];
}

/** The pieces that were measured for exactly these positions. */
function piecesFor(kit: KitState, line: Line, refs: readonly Ref[]): string[] {
  const { unit } = factsOf(line.kind);
  const pieces = deriveTray(kit).find((c) => c.line.id === line.id)?.pieces ?? [];
  const told = pieces.flatMap((p) =>
    p.ref !== null && refs.includes(p.ref) && p.reckoning ? [`${p.ref} the one that measured ${print(p.reckoning.corrected, unit, 3)}`] : [],
  );
  return told.length === 0 ? [] : [`Which piece: ${told.join(', ')}.`];
}

/** Holes of the board where a file told them, else of the usual body. */
function spacing(kit: KitState, line: Line, refs: readonly Ref[]): string[] {
  const body = packageOf(line);
  if (body.pads.length !== 2 || !body.shape.startsWith('axial')) return [];
  const spans = refs.map((ref) => {
    const [a, b] = kit.sheet.pads.filter((p) => p.ref === ref);
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : null;
  });
  const known = spans.filter((s) => s !== null);
  const [least, most] = [Math.min(...known), Math.max(...known)];
  if (known.length === 0) return [`Leads: bent at the holes of the board, no nearer than 2 mm to the body; usually ${span(body.pads)} mm apart.`];
  return [
    most - least < 0.5
      ? `Leads: bent ${least.toFixed(1)} mm apart, as its holes are.`
      : `Leads: its holes are ${least.toFixed(1)} to ${most.toFixed(1)} mm apart: bend each to fit its own.`,
  ];
}

const span = ([a, b]: ReturnType<typeof packageOf>['pads']) => Math.hypot(a!.x - b!.x, a!.y - b!.y).toFixed(1);

function standoff(line: Line): string[] {
  const { shape } = packageOf(line);
  const watts = line.rating?.watts ?? 0;
  if (['resistor', 'zener', 'diode'].includes(line.kind) && watts >= STANDS_OFF) return ['Height: 3 to 5 mm above the board, so that the air gets beneath it.'];
  if (BY_TAB.has(shape)) return ['Height: screw it to its sink first, then solder: the joints must not carry it.'];
  if (line.kind === 'led') return ['Height: as the case needs it; both leads the same, cut after soldering.'];
  if (line.kind === 'crystal') return ['Height: a millimetre above the board: its can may touch tracks.'];
  if (line.kind === 'electrolytic' || line.kind === 'tantalum') return ['Height: flat on the board; a can that is pulled up tears its leads.'];
  return [];
}

function heat(line: Line): string[] {
  if (/\b(?:germanium|1N34|OA\d{2}|AC1\d\d)\b/i.test(`${line.label} ${line.type ?? ''}`))
    return ['Heat destroys germanium. Hold the lead with pliers between joint and body, two seconds a joint.'];
  if (line.kind === 'led' || packageOf(line).shape === 'film') return ['Heat: three seconds a joint at most, then let it cool.'];
  if (line.kind === 'connector' || line.kind === 'switch' || line.kind === 'relay')
    return ['Heat: plastic gives way. Solder one pin, see that it sits straight, then do the others.'];
  return [];
}
