import type { Waveform } from './netlist';

/** Level of a source at a time in seconds. */
export function levelAt(wave: Waveform, time: number): number {
  switch (wave.shape) {
    case 'sin': {
      const t = Math.max(0, time - wave.delay);
      const phase = (wave.phase * Math.PI) / 180;
      return wave.offset + wave.amplitude * Math.exp(-t * wave.damping) * Math.sin(2 * Math.PI * wave.frequency * t + phase);
    }
    case 'pulse':
      return pulseLevel(wave, time);
    case 'pwl':
      return pwlLevel(wave.times, wave.levels, time);
  }
}

function pulseLevel(wave: Extract<Waveform, { shape: 'pulse' }>, time: number): number {
  if (time < wave.delay) return wave.low;
  const since = time - wave.delay;
  const t = Number.isFinite(wave.period) && wave.period > 0 ? since % wave.period : since;
  if (t < wave.rise) return wave.low + ((wave.high - wave.low) * t) / wave.rise;
  if (t <= wave.rise + wave.width) return wave.high;
  const down = t - wave.rise - wave.width;
  return down < wave.fall ? wave.high + ((wave.low - wave.high) * down) / wave.fall : wave.low;
}

function pwlLevel(times: readonly number[], levels: readonly number[], time: number): number {
  const next = times.findIndex((t) => t > time);
  if (next === 0) return levels[0] ?? 0;
  if (next < 0) return levels[levels.length - 1] ?? 0;
  const share = (time - times[next - 1]!) / (times[next]! - times[next - 1]!);
  return levels[next - 1]! + share * (levels[next]! - levels[next - 1]!);
}

/** Moments up to `stop` at which a source's slope jumps; a step must end on each. At most `most` of them. */
export function breakTimes(wave: Waveform, stop: number, most: number): number[] {
  const found: number[] = [];
  if (wave.shape === 'sin') return wave.delay > 0 && wave.delay < stop ? [wave.delay] : [];
  if (wave.shape === 'pwl') return wave.times.filter((t) => t > 0 && t < stop);
  const corners = [0, wave.rise, wave.rise + wave.width, wave.rise + wave.width + wave.fall].filter(Number.isFinite);
  const period = Number.isFinite(wave.period) && wave.period > 0 ? wave.period : Infinity;
  for (let start = wave.delay; start < stop && found.length < most; start += period) {
    for (const c of corners) if (start + c > 0 && start + c < stop) found.push(start + c);
    if (period === Infinity) break;
  }
  return found;
}

/** Longest step that still draws a source's curve well, seconds. */
export function longestStep(wave: Waveform): number {
  if (wave.shape === 'sin') return wave.frequency > 0 ? 1 / wave.frequency / 80 : Infinity;
  return wave.shape === 'pulse' && Number.isFinite(wave.period) && wave.period > 0 ? wave.period / 20 : Infinity;
}
