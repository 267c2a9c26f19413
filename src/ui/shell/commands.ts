import type { Phase, WorkPhase } from '@/core/loop';

/** Where a key acts: `always`; `beside` a field that is being typed in; in the `loop`, with no dialog open; on an `answer` that needs no typing. */
type Reach = 'always' | 'beside' | 'loop' | 'answer';

interface CommandFacts {
  readonly title: string;
  /** As the key package reads it; none where the key belongs to the entry field. */
  readonly keys?: readonly string[];
  /** As it stands on the keyboard. */
  readonly shown: string;
  readonly reach: Reach;
  /** A single letter or sign: it can be switched off (WCAG 2.1.4). */
  readonly single?: true;
  /** Not offered in the command box: it means the reading being typed. */
  readonly entryOnly?: true;
}

/** Every command of the bench, told once: bindings, the `?` sheet, tooltips and the command box read this. */
export const COMMANDS = {
  take: { title: 'Take the reading, or count as listed', shown: 'Enter', reach: 'loop', entryOnly: true },
  confirm: { title: 'Confirm: as expected, fitted', keys: ['Enter'], shown: 'Enter', reach: 'answer', entryOnly: true },
  deny: { title: 'Not as expected', keys: ['n'], shown: 'N', reach: 'answer', single: true },
  over: { title: 'Over-range', keys: ['o'], shown: 'O', reach: 'loop', single: true, entryOnly: true },
  skip: { title: 'Skip, or ask for the next best reading', keys: ['s'], shown: 'S', reach: 'loop', single: true },
  meter: { title: 'Read from the simulated meter', keys: ['m'], shown: 'M', reach: 'loop', single: true },
  marking: { title: 'Read the bands or the code on the part', keys: ['b'], shown: 'B', reach: 'loop', single: true },
  tap: { title: 'Tap at each blink or beep: they are counted', keys: ['t'], shown: 'T', reach: 'loop', single: true, entryOnly: true },
  pile: { title: 'Loose pile, or back to counting packets', keys: ['l'], shown: 'L', reach: 'loop', single: true },
  jump: { title: 'Jump: type a ref behind it, such as /r9', shown: '/', reach: 'loop', single: true, entryOnly: true },
  modify: { title: 'Change the board', keys: ['Alt+KeyB'], shown: 'Alt B', reach: 'always' },
  wait: { title: 'Wait for something: a timer, a delivery', keys: ['Alt+KeyW'], shown: 'Alt W', reach: 'always' },
  next: { title: 'Target after', keys: ['ArrowDown'], shown: '↓', reach: 'loop' },
  previous: { title: 'Target before', keys: ['ArrowUp'], shown: '↑', reach: 'loop' },
  clear: { title: 'Empty the entry field', shown: 'Esc', reach: 'loop', entryOnly: true },
  undo: { title: 'Undo the last entry', keys: ['$mod+z'], shown: 'Ctrl Z', reach: 'beside' },
  redo: { title: 'Redo', keys: ['$mod+Shift+z'], shown: 'Ctrl Shift Z', reach: 'beside' },
  box: { title: 'Go anywhere, run anything', keys: ['$mod+k'], shown: 'Ctrl K', reach: 'always' },
  help: { title: 'All keys', keys: ['?', 'Shift+?'], shown: '?', reach: 'loop', single: true },
  unpack: { title: 'Unpack', keys: ['Alt+Digit1'], shown: 'Alt 1', reach: 'always' },
  check: { title: 'Check', keys: ['Alt+Digit2'], shown: 'Alt 2', reach: 'always' },
  fit: { title: 'Fit', keys: ['Alt+Digit3'], shown: 'Alt 3', reach: 'always' },
  power: { title: 'Power up', keys: ['Alt+Digit4'], shown: 'Alt 4', reach: 'always' },
  fault: { title: 'Find fault', keys: ['Alt+Digit5'], shown: 'Alt 5', reach: 'always' },
  log: { title: 'Logbook', keys: ['Alt+Digit6'], shown: 'Alt 6', reach: 'always' },
  sheet: { title: 'Sheet', keys: ['Alt+Digit7'], shown: 'Alt 7', reach: 'always' },
  circuit: { title: 'Circuit', keys: ['Alt+Digit8'], shown: 'Alt 8', reach: 'always' },
  functions: { title: 'Functions', keys: ['Alt+KeyU'], shown: 'Alt U', reach: 'always' },
  instruments: { title: 'Instruments', keys: ['Alt+Digit9'], shown: 'Alt 9', reach: 'always' },
  practice: { title: 'Practice', keys: ['Alt+Digit0'], shown: 'Alt 0', reach: 'always' },
  shelf: { title: 'Back to the shelf', shown: '', reach: 'always' },
  theme: { title: 'Light or dim', shown: '', reach: 'always' },
  larger: { title: 'Larger text', shown: '', reach: 'always' },
  smaller: { title: 'Smaller text', shown: '', reach: 'always' },
  letters: { title: 'Single-letter keys on or off', shown: '', reach: 'always' },
  tour: { title: 'Show me around', shown: '', reach: 'always' },
} as const satisfies Readonly<Record<string, CommandFacts>>;

export type CommandId = keyof typeof COMMANDS;
/** What each command does now; null or left out where it does nothing. */
export type Actions = Readonly<Partial<Record<CommandId, (() => void) | null>>>;

export const factsOfCommand = (id: CommandId): CommandFacts => COMMANDS[id];
export const COMMAND_IDS = Object.keys(COMMANDS) as readonly CommandId[];

/** What stands beside the work. */
export const BESIDE = ['sheet', 'circuit', 'functions', 'instruments', 'practice'] as const satisfies readonly Phase[];
export const titleOf = (view: Phase | WorkPhase): string => COMMANDS[view].title;
