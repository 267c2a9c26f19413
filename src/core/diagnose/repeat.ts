/** From this belief on a reading is taken again before another one is. */
const WORTH_REPEATING = 0.3;
/** While there are few readings, and another point still tells much, a second place doubts as well as the same one again. */
const WORTH_REPEATING_EARLY = 0.65;
const EARLY = 4;
const TELLS_MUCH = 0.3;
/** Where so much is unexplained the most doubtful reading is taken again, whatever its own doubt. */
const DOMINATED = 0.5;

interface Doubted {
  /** Readings that were taken once, by their names, in their order. */
  readonly once: readonly string[];
  /** How many readings there are, those taken twice included. */
  readonly readings: number;
  readonly badReadings: readonly { readonly id: string; readonly probability: number }[];
  readonly unexplained: number;
  /** What the best reading of another point tells. */
  readonly bits: number;
}

/** The reading to take again: one that is probably wrong; where nothing explains them the most doubtful one. Each is repeated once. */
export function readingToRepeat({ once, readings, badReadings, unexplained, bits }: Doubted): string | null {
  // A single reading is doubted by a second place first: repeating it tells nothing about the board.
  if (readings < 2) return null;
  const doubt = (id: string) => badReadings.find((b) => b.id === id)?.probability ?? 0;
  const [worst] = [...once].sort((a, b) => doubt(b) - doubt(a));
  const worth = readings <= EARLY && bits >= TELLS_MUCH ? WORTH_REPEATING_EARLY : WORTH_REPEATING;
  return worst !== undefined && (doubt(worst) >= worth || unexplained >= DOMINATED) ? worst : null;
}
