import { expectationOf, type KitState, type Line, listedType } from '../kit';
import { print } from '../quantity';
import { LED_FORWARD, typeReadings } from '../vocabulary';
import { lineTitle } from './lineWords';

/** Junctions that are not what the list says (handbook figures; common practice, no source). */
const SCHOTTKY = { from: 0.1, to: 0.42 };
const SILICON = { from: 0.45, to: 0.85 };
const LED_FROM = 1.4;
/** A gain below this is no gain: legs in the wrong holes, or the other polarity's socket. */
const NO_GAIN = 10;
const DARLINGTON = 1000;
const GRADES = ['A', 'B', 'C'] as const;

/** What to do with a piece that measured outside its line's limits: another line that it fits, what it reads like, and what that means. */
export function outAdvice(kit: KitState, line: Line, value: number): string {
  const expected = expectationOf(line);
  if (expected?.mode === 'diode') return `${likeJunction(line, value)} ${apart(kit)}`;
  if (expected?.mode === 'hfe') return likeGain(kit, line, value);
  const other = kit.sheet.lines.find((l) => l.id !== line.id && sameBody(l, line) && isInside(l, value));
  if (other) return `It fits the ${lineTitle(other)} line. Put it there and look for the right one.`;
  const ratio = line.value !== null && line.value > 0 ? value / line.value : 0;
  if (ratio > 0 && Math.abs(Math.log10(ratio)) > 0.95 && Math.abs(Math.log10(ratio) % 1) < 0.04)
    return `${ratio > 1 ? 'Ten times or more too large' : 'A tenth or less'}: a wrong multiplier, a wrong value in the bag. Do not fit it.`;
  return apart(kit);
}

/** Without a circuit nobody can say what a deviation does at its place. */
const apart = (kit: KitState) =>
  kit.sheet.circuit
    ? 'Keep it apart until you know what it does at its place.'
    : 'Out of range. Whether that matters depends on its place: keep it apart, take another.';

/** Pieces that look alike: only they can have been packed for each other. */
const sameBody = (a: Line, b: Line) => a.kind === b.kind && (a.package ?? '') === (b.package ?? '');

function isInside(line: Line, value: number): boolean {
  const x = expectationOf(line);
  return x !== null && value >= x.nominal * (1 + x.tolerance[0]) && value <= x.nominal * (1 + x.tolerance[1]);
}

function likeJunction(line: Line, volts: number): string {
  if (line.kind === 'led') {
    if (volts < LED_FROM && volts > LED_FORWARD.infrared.limits[1]) return 'Too low for a visible LED.';
    if (volts >= SILICON.from && volts <= SILICON.to) return 'It reads like a plain diode.';
    const colours = Object.keys(LED_FORWARD).filter((c) => within(volts, LED_FORWARD[c as keyof typeof LED_FORWARD].usual));
    return colours.length > 0 ? `It reads like ${colours.slice(0, 3).join(' or ')}: look at its light.` : '';
  }
  if (volts >= LED_FROM) return 'It reads like an LED: look at its body, and whether it glows.';
  if (volts >= SCHOTTKY.from && volts <= SCHOTTKY.to) return 'It reads like a Schottky or germanium diode: read its print with a lens.';
  if (volts >= SILICON.from && volts <= SILICON.to) return 'It reads like a plain silicon diode: read its print with a lens.';
  return volts < SCHOTTKY.from ? 'Nearly a short: measure both ways round.' : '';
}

function likeGain(kit: KitState, line: Line, gain: number): string {
  const other = line.kind === 'pnp' ? 'NPN' : 'PNP';
  if (gain < NO_GAIN) return `No gain: legs in the wrong holes, or it is a ${other}. Turn it, then try the ${other} socket.`;
  if (gain >= DARLINGTON) return 'Only a Darlington has so much gain, or the legs are in the wrong holes.';
  const type = typeReadings(listedType(line));
  const grade = type?.type === type?.family ? undefined : GRADES.find((g) => within(gain, typeReadings(`${type?.family ?? ''}${g}`)?.gain?.limits));
  const [low, high] = grade === undefined ? [0, 0] : typeReadings(`${type!.family}${grade}`)!.gain!.limits;
  return grade === undefined
    ? apart(kit)
    : `It reads like grade ${grade} (${print(low, 'ratio')} to ${print(high, 'ratio')}): read its print, then decide by its place.`;
}

const within = (x: number, range: readonly [number, number] | undefined) => range !== undefined && x >= range[0] && x <= range[1];
