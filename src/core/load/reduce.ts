import type { Recording } from './recording';

/** So many samples tell the figures of a signal; more of them only take time. */
const ENOUGH = 60_000;
/** An edge covers more than this part of the swing within one block. */
const EDGE = 0.3;
/** Where more than this part of the blocks hold an edge, averages would blur what is measured (both: own choice). */
const MOST_EDGES = 0.02;
/** A signal with so many edges has its periods within so many blocks. */
const BLOCKS_OF_FAST = 1000;

/**
 * A long recording made short for its figures: averages of neighbours where the signal is slow against them, else its first part,
 * which then holds many periods.
 */
export function shortened(recording: Recording): Recording {
  const { t, v } = recording;
  const block = Math.ceil(t.length / ENOUGH);
  if (block < 2) return recording;
  if (shareOfEdges(v, block) <= MOST_EDGES) return { t: averages(t, block), v: averages(v, block) };
  const most = Math.max(ENOUGH, BLOCKS_OF_FAST * block);
  return { t: t.slice(0, most), v: v.slice(0, most) };
}

function averages(values: Float64Array, block: number): Float64Array {
  const out = new Float64Array(Math.floor(values.length / block));
  for (let k = 0; k < out.length; k++) {
    let sum = 0;
    for (let i = k * block; i < (k + 1) * block; i++) sum += values[i]!;
    out[k] = sum / block;
  }
  return out;
}

function shareOfEdges(values: Float64Array, block: number): number {
  const edge = EDGE * swing(values);
  const blocks = Math.floor(values.length / block);
  let edges = 0;
  for (let k = 0; k < blocks; k++) {
    let [least, most] = [Infinity, -Infinity];
    for (let i = k * block; i < (k + 1) * block; i++) {
      least = Math.min(least, values[i]!);
      most = Math.max(most, values[i]!);
    }
    if (most - least > edge) edges++;
  }
  return edges / blocks;
}

/** Swing without the outermost fiftieth on either side: noise and single wild samples count little. */
function swing(values: Float64Array): number {
  const sorted = Float64Array.from(values).sort();
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))]!;
  return at(0.98) - at(0.02);
}

/** A curve of so many points that looks like the whole: of each stretch its least and its most, in their order. */
export function envelope({ t, v }: Recording, points: number): Recording {
  const stretch = Math.ceil((2 * t.length) / points);
  if (stretch < 3) return { t, v };
  const kept: number[] = [];
  for (let from = 0; from < t.length; from += stretch) {
    let [least, most] = [from, from];
    for (let i = from; i < Math.min(from + stretch, t.length); i++) {
      if (v[i]! < v[least]!) least = i;
      if (v[i]! > v[most]!) most = i;
    }
    kept.push(...(least === most ? [least] : [Math.min(least, most), Math.max(least, most)]));
  }
  return { t: Float64Array.from(kept, (i) => t[i]!), v: Float64Array.from(kept, (i) => v[i]!) };
}
