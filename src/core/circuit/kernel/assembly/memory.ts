/**
 * Where everything lies in the kernel's memory. One circuit is in it at a time, and one elimination order for it. The host
 * writes `numbers` and `places` in the order in which they stand here, each block of devices with the strides below.
 */
import { BIPOLAR_NUMBERS, BIPOLAR_PLACES, DIODE_NUMBERS, DIODE_PLACES, JFET_NUMBERS, JFET_PLACES, MOSFET_NUMBERS, MOSFET_PLACES } from '../shared';

export let size: i32 = 0;
export let nodes: i32 = 0;
export let entries: i32 = 0;
export let conductances: i32 = 0;
export let stamps: i32 = 0;
export let diodes: i32 = 0;
export let bipolars: i32 = 0;
export let mosfets: i32 = 0;
export let jfets: i32 = 0;
export let slots: i32 = 0;

/** Unknowns; residual and step; voltages that a shunt pulls to. One more than `size`: the last is ground. */
export let x: usize = 0;
export let f: usize = 0;
export let anchor: usize = 0;
/** Entries of the Jacobian. */
export let matrix: usize = 0;

/** Of every device the junction voltages at which it was last taken. */
export let diodeState: usize = 0;
export let bipolarState: usize = 0;
export let mosfetState: usize = 0;
export let jfetState: usize = 0;

/** What the host writes: f64. */
export let numbers: usize = 0;
export let linear: usize = 0;
export let right: usize = 0;
export let siemens: usize = 0;
export let stampValue: usize = 0;
export let diodeNumbers: usize = 0;
export let bipolarNumbers: usize = 0;
export let mosfetNumbers: usize = 0;
export let jfetNumbers: usize = 0;

/** What the host writes: i32. */
export let places: usize = 0;
export let diagonal: usize = 0;
export let ends: usize = 0;
export let stampAt: usize = 0;
export let diodePlaces: usize = 0;
export let bipolarPlaces: usize = 0;
export let mosfetPlaces: usize = 0;
export let jfetPlaces: usize = 0;

/** The elimination order, written by the host in this order: i32 (see `EliminationOrder`). */
export let order: usize = 0;
export let pivotRow: usize = 0;
export let pivotColumn: usize = 0;
export let pivotSlot: usize = 0;
export let lowerStart: usize = 0;
export let upperStart: usize = 0;
export let lowerRow: usize = 0;
export let lowerSlot: usize = 0;
export let upperColumn: usize = 0;
export let upperSlot: usize = 0;
export let target: usize = 0;

/** Factors: where the matrix has entries, then fill-ins; inverse pivots; the right-hand side step by step. */
export let values: usize = 0;
export let inverse: usize = 0;
export let steps: usize = 0;

let top: usize = 0;

function reserve(count: i32, bytes: usize): usize {
  const at = top;
  top += <usize>count * bytes;
  return at;
}

function align(): void {
  top = (top + 7) & ~(<usize>7);
}

function ensure(): void {
  const missing = <i32>((top + 0xffff) >>> 16) - memory.size();
  if (missing > 0) memory.grow(missing);
}

/** Lays out one circuit. */
export function openSystem(
  newSize: i32,
  newNodes: i32,
  newEntries: i32,
  newConductances: i32,
  newStamps: i32,
  newDiodes: i32,
  newBipolars: i32,
  newMosfets: i32,
  newJfets: i32,
): void {
  size = newSize;
  nodes = newNodes;
  entries = newEntries;
  conductances = newConductances;
  stamps = newStamps;
  diodes = newDiodes;
  bipolars = newBipolars;
  mosfets = newMosfets;
  jfets = newJfets;
  top = __heap_base;
  align();
  x = reserve(size + 1, 8);
  f = reserve(size + 1, 8);
  anchor = reserve(size + 1, 8);
  matrix = reserve(entries, 8);
  diodeState = reserve(diodes, 8);
  bipolarState = reserve(2 * bipolars, 8);
  mosfetState = reserve(3 * mosfets, 8);
  jfetState = reserve(2 * jfets, 8);
  numbers = top;
  linear = reserve(entries, 8);
  right = reserve(size + 1, 8);
  siemens = reserve(conductances, 8);
  stampValue = reserve(stamps, 8);
  diodeNumbers = reserve(DIODE_NUMBERS * diodes, 8);
  bipolarNumbers = reserve(BIPOLAR_NUMBERS * bipolars, 8);
  mosfetNumbers = reserve(MOSFET_NUMBERS * mosfets, 8);
  jfetNumbers = reserve(JFET_NUMBERS * jfets, 8);
  places = top;
  diagonal = reserve(nodes, 4);
  ends = reserve(2 * conductances, 4);
  stampAt = reserve(2 * stamps, 4);
  diodePlaces = reserve(DIODE_PLACES * diodes, 4);
  bipolarPlaces = reserve(BIPOLAR_PLACES * bipolars, 4);
  mosfetPlaces = reserve(MOSFET_PLACES * mosfets, 4);
  jfetPlaces = reserve(JFET_PLACES * jfets, 4);
  align();
  order = top;
  ensure();
}

/** Lays out one elimination order behind the circuit. */
export function openOrder(newSlots: i32, lower: i32, upper: i32, targets: i32): void {
  slots = newSlots;
  top = order;
  pivotRow = reserve(size, 4);
  pivotColumn = reserve(size, 4);
  pivotSlot = reserve(size, 4);
  lowerStart = reserve(size + 1, 4);
  upperStart = reserve(size + 1, 4);
  lowerRow = reserve(lower, 4);
  lowerSlot = reserve(lower, 4);
  upperColumn = reserve(upper, 4);
  upperSlot = reserve(upper, 4);
  target = reserve(targets, 4);
  align();
  values = reserve(slots, 8);
  inverse = reserve(size, 8);
  steps = reserve(size, 8);
  ensure();
}

export function number(base: usize, index: i32): f64 {
  return load<f64>(base + ((<usize>index) << 3));
}

export function put(base: usize, index: i32, value: f64): void {
  store<f64>(base + ((<usize>index) << 3), value);
}

export function add(base: usize, index: i32, value: f64): void {
  const at = base + ((<usize>index) << 3);
  store<f64>(at, load<f64>(at) + value);
}

export function place(base: usize, index: i32): i32 {
  return load<i32>(base + ((<usize>index) << 2));
}

/** Where the numbers of device `i` begin, each of its kind having so many; the same for places. */
export function numbersOf(base: usize, each: i32, i: i32): usize {
  return base + ((<usize>(each * i)) << 3);
}

export function placesOf(base: usize, each: i32, i: i32): usize {
  return base + ((<usize>(each * i)) << 2);
}
