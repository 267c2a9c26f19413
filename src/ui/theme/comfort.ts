import { useSyncExternalStore } from 'react';
import { COMFORT_KEY, DARK_WANTED } from './boot';

/** How one likes to look at the bench; kept in this browser, common to all kits. */
export interface Comfort {
  readonly theme: 'system' | 'light' | 'dim';
  /** Size of text, percent. */
  readonly text: number;
  /** Motion only where it is needed, whatever the system says. */
  readonly calm: boolean;
  /** Single letters act while the entry field is empty (WCAG 2.1.4 wants them to be switchable). */
  readonly singleKeys: boolean;
  /** Verdict and next target are spoken. */
  readonly speak: boolean;
  /** A tone for each verdict. */
  readonly tones: boolean;
  /** The screen stays on while a kit is open. */
  readonly awake: boolean;
  /** Target, figure and verdict large enough for two metres. */
  readonly far: boolean;
  /** The first-run tour was seen or declined. */
  readonly toured: boolean;
}

export const TEXT_SIZES: readonly number[] = [100, 115, 130, 150, 175, 200];
const DEFAULT: Comfort = { theme: 'system', text: 100, calm: false, singleKeys: true, speak: false, tones: false, awake: false, far: false, toured: false };

let held: Comfort | null = null;
const heard = new Set<() => void>();

function read(): Comfort {
  try {
    const stored = JSON.parse(localStorage.getItem(COMFORT_KEY) ?? '{}') as Partial<Comfort>;
    return { ...DEFAULT, ...stored, text: TEXT_SIZES.includes(stored.text ?? 0) ? stored.text! : DEFAULT.text };
  } catch {
    return DEFAULT;
  }
}

const current = () => (held ??= read());
const subscribe = (hear: () => void) => {
  heard.add(hear);
  return () => {
    heard.delete(hear);
  };
};

export const useComfort = (): Comfort => useSyncExternalStore(subscribe, current, () => DEFAULT);

export function setComfort(change: Partial<Comfort>): void {
  held = { ...current(), ...change };
  try {
    localStorage.setItem(COMFORT_KEY, JSON.stringify(held));
  } catch {
    // A browser that stores nothing: it holds for this tab.
  }
  for (const hear of heard) hear();
}

/** What the system asks for; `served` until the program runs. */
function useSystem(query: string, served: boolean): boolean {
  return useSyncExternalStore(
    (hear) => {
      const list = matchMedia(query);
      list.addEventListener('change', hear);
      return () => {
        list.removeEventListener('change', hear);
      };
    },
    () => matchMedia(query).matches,
    () => served,
  );
}

/** Whether the bench is dim, by choice or by the system's. */
export function useDim(): boolean {
  const { theme } = useComfort();
  const system = useSystem(DARK_WANTED, false);
  return theme === 'system' ? system : theme === 'dim';
}

/**
 * Whether nothing moves, by choice or by the system's. The page is served calm: the library builds its tree anew when motion is
 * taken away later, and a click that falls in between would be lost.
 */
export function useCalm(): boolean {
  const system = useSystem('(prefers-reduced-motion: reduce)', true);
  return useComfort().calm || system;
}
