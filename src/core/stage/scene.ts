import { type Circuit, findNet, findPart, GROUND } from '../circuit';
import type { StageObservable, StageScene } from '../specimen';
import type { MeasureCheck, ProbePoint, Stage } from '../kit';
import { checkObservableId, probeObservableId } from '../vocabulary';
import { circuitAt, fittedAt } from './circuitAt';
import { elementsOf, netAtPin } from './elements';
import type { Setup } from './setup';
import type { NoWindow } from './windowResult';

type Place = { readonly net: string } | NoWindow;

/** The net that a probe touches, as the circuit spells it; or why the circuit has no such place at this stage. */
function placeOf({ sheet }: Setup, whole: Circuit, circuit: Circuit, present: ReadonlySet<string>, point: ProbePoint): Place {
  if ('ref' in point) {
    const net = netAtPin(sheet, circuit, point.ref, point.pin);
    if (net !== null) return { net };
    if (elementsOf(sheet, whole, point.ref).length === 0)
      return { none: `${point.ref} has no model in the circuit. Give it one there (its supply pins and what its outputs do), or type limits.` };
    if (netAtPin(sheet, whole, point.ref, point.pin) === null) return { none: `${point.ref} has no pin ${point.pin} in the circuit. Choose another pin.` };
    return {
      none: `${point.ref} is not on the board at this stage${present.has(point.ref) ? '' : ': it is not fitted yet'}. Move the check to a later stage.`,
    };
  }
  const name = 'net' in point ? point.net : sheet.testPoints.find((t) => t.id === point.testPoint)?.net;
  if (name === undefined)
    return { none: `The test point ${(point as { testPoint: string }).testPoint} is not on the sheet. Add it there, or choose another place.` };
  const net = findNet(circuit, name);
  if (net !== undefined) return { net };
  if (findNet(whole, name) === undefined) return { none: `The circuit has no net called ${name}. Correct its name, or add the net to the circuit.` };
  return { none: `Nothing that is fitted at this stage touches the net ${name}. Move the check to a later stage.` };
}

/** What a check reads, as the core computes it; or why it cannot. */
function observableOf(setup: Setup, whole: Circuit, circuit: Circuit, stage: Stage, check: MeasureCheck): StageObservable | NoWindow {
  const id = checkObservableId(stage.id, check.id);
  if (check.mode === 'temp') return { none: 'A circuit says nothing about heat. Type limits, such as “below 60 °C”.' };
  if (check.mode === 'dca') {
    const source = check.source ?? stage.supplies[0]?.source;
    if (source === undefined) return { none: 'This stage has no supply whose display could be read. Give the stage a supply.' };
    const part = findPart(circuit, source);
    return part ? { id, mode: 'dca', source: part.name } : { none: `The circuit has no supply called ${source}. Choose one that it has.` };
  }
  const present = fittedAt(setup, stage);
  const red = placeOf(setup, whole, circuit, present, check.red);
  if ('none' in red) return red;
  const black = placeOf(setup, whole, circuit, present, check.black);
  if ('none' in black) return black;
  if (check.mode !== 'frequency' && check.mode !== 'duty') return { id, mode: check.mode, red: red.net, black: black.net };
  return black.net === GROUND ? { id, mode: check.mode, net: red.net } : { none: 'Periods are counted against ground. Put the black probe there.' };
}

/** A stage with what only some of its checks want set, one for each such state; the first is the stage as it is. */
export function statesOf(stage: Stage): Stage[] {
  const own = new Map<string, Stage['checks'][number][]>();
  for (const check of stage.checks) {
    const key = JSON.stringify(check.settings ?? []);
    own.set(key, [...(own.get(key) ?? []), check]);
  }
  const plain = { ...stage, checks: own.get('[]') ?? [] };
  const others = [...own].filter(([key]) => key !== '[]');
  return [plain, ...others.map(([, checks]) => ({ ...stage, checks, settings: [...(stage.settings ?? []), ...(checks[0]!.settings ?? [])] }))];
}

/** A stage as a scene: its circuit, its checks and, where it is powered, every test point. */
export function sceneOf(setup: Setup, whole: Circuit, stage: Stage): StageScene {
  const { sheet } = setup;
  const circuit = circuitAt(setup, whole, stage);
  const observables: StageObservable[] = [];
  for (const check of stage.checks) {
    const o = check.what === 'measure' ? observableOf(setup, whole, circuit, stage, check) : null;
    if (o && !('none' in o)) observables.push(o);
  }
  if (stage.supplies.length > 0) {
    for (const point of sheet.testPoints) {
      const net = findNet(circuit, point.net);
      const read = observables.some((o) => o.mode === 'dcv' && o.red === net && o.black === GROUND);
      if (net !== undefined && net !== GROUND && !read) observables.push({ id: probeObservableId(stage.id, point.id), mode: 'dcv', red: net, black: GROUND });
    }
  }
  return { circuit, observables, ...(stage.supplies.length === 0 && stage.power === 'off' ? { supplies: 'off' as const } : {}) };
}

/** Why checks of a stage have no place in its circuit, by observable. */
export function refusalsAt(setup: Setup, whole: Circuit, stage: Stage): Map<string, NoWindow> {
  const circuit = circuitAt(setup, whole, stage);
  return new Map(
    stage.checks.flatMap((check): [string, NoWindow][] => {
      const o = check.what === 'measure' ? observableOf(setup, whole, circuit, stage, check) : null;
      return o && 'none' in o ? [[checkObservableId(stage.id, check.id), o]] : [];
    }),
  );
}
