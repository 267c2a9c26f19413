import type { StageScene } from '../specimen';
import { boardOf } from './boardOf';
import { circuitOf } from './elements';
import { refusalsAt, sceneOf, statesOf } from './scene';
import type { Setup } from './setup';
import { windowsOf } from './windows';
import type { WindowResult } from './windowResult';
import type { WindowInputs, Windows } from './windowInputs';

/** One result per different argument, compared by content. */
function memo<A, R>(compute: (a: A) => R): (a: A) => R {
  const known = new Map<string, R>();
  return (a) => {
    const key = JSON.stringify(a);
    const found = known.get(key) ?? compute(a);
    known.set(key, found);
    return found;
  };
}

/** Told how much of a longer work is done, 0..1. */
type Progress = (done: number) => void;

/** All windows of a kit. */
export function allWindows({ now, past }: WindowInputs, progress: Progress = () => undefined): Windows {
  const whole = circuitOf(now.sheet);
  const all: Record<string, WindowResult> = {};
  if (whole.parts.length === 0) return all;
  const windows = memo((asked: { readonly scene: StageScene; readonly board: ReturnType<typeof boardOf>; readonly meter: Setup['meter'] }) =>
    windowsOf(asked.scene, asked.board, asked.meter),
  );
  const at = (setup: Setup, stage: Setup['sheet']['stages'][number]) =>
    new Map<string, WindowResult>(
      statesOf(stage).flatMap((state) => [
        ...windows({ scene: sceneOf(setup, whole, state), board: boardOf(setup, whole), meter: setup.meter }),
        ...refusalsAt(setup, whole, state),
      ]),
    );
  const steps = now.sheet.stages.length + past.length;
  now.sheet.stages.forEach((stage, i) => {
    for (const [id, window] of at(now, stage)) all[id] = window;
    progress((i + 1) / steps);
  });
  past.forEach(({ entry, stage, observable, setup }, i) => {
    const found = now.sheet.stages.find((s) => s.id === stage);
    const window = found && at(setup, found).get(observable);
    if (window) all[entry] = window;
    progress((now.sheet.stages.length + i + 1) / steps);
  });
  return all;
}
