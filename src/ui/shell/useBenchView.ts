import { useRouter } from 'next/navigation';
import { type RefObject, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { firstOpenPhase, type Phase, type PhaseProgress, phaseProgress, type Place, type WorkPhase } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { useBench } from '@/store/bench';
import { useEntryField } from '../probe/entryField';
import { canTap, tap, tappedText } from '../probe/taps';
import { type Loop, useLoop } from '../probe/useLoop';
import { useWindows } from '../results/useWindows';
import { setComfort, TEXT_SIZES, useComfort, useDim } from '../theme/comfort';
import { type Actions, BESIDE, type CommandId, titleOf } from './commands';
import { useCommands } from './useCommands';

/** A net that was asked for: a new one each time, so that the same name leads there again. */
export interface AskedNet {
  readonly name: string;
}

type Dialog = 'help' | 'box' | 'marking' | 'tour' | 'modify' | 'wait' | null;

/** What the frame shows of an open kit, and what every command does there. */
export interface BenchView {
  readonly phase: Phase;
  readonly progress: Readonly<Record<WorkPhase, PhaseProgress>>;
  readonly loop: Loop;
  readonly fieldRef: RefObject<HTMLInputElement | null>;
  readonly dialog: Dialog;
  readonly close: () => void;
  readonly actions: Actions;
  /** Runs a command as it is now; the function stays the same. */
  readonly run: (id: CommandId) => void;
  readonly go: (phase: Phase) => void;
  readonly goTo: (place: Place) => void;
  /** Net that the circuit view stands around, when one was asked for. */
  readonly net: AskedNet | null;
  readonly nothing: string;
  readonly back: { readonly text: string; readonly go: () => void } | null;
}

/** A rate that was tapped in counts as empty: the next tap betters it. */
const isFieldEmpty = () => ['', tappedText()].includes(useEntryField.getState().text);

const VIEWS: readonly Phase[] = ['unpack', 'check', 'fit', 'power', 'fault', 'log', ...BESIDE];
const isBeside = (phase: Phase) => phase === 'log' || (BESIDE as readonly Phase[]).includes(phase);

/** A reload stays where one was. */
const phaseFromHash = (): Phase | null => (typeof location === 'undefined' ? null : (VIEWS.find((p) => p === location.hash.slice(1)) ?? null));

/** Targets that are a part in the hand, with something printed on it. */
const readable = (loop: Loop) => ['piece', 'count', 'loose'].includes(loop.target?.kind ?? '');

export function useBenchView(kit: KitState): BenchView {
  const router = useRouter();
  const windows = useWindows(kit);
  const [phase, setPhase] = useState<Phase>(() => phaseFromHash() ?? firstOpenPhase(kit, windows));
  const [work, setWork] = useState<Phase | null>(() => (isBeside(phase) ? null : phase));
  const [net, setNet] = useState<AskedNet | null>(null);
  const comfort = useComfort();
  const dim = useDim();
  const [dialog, setDialog] = useState<Dialog>(() => (comfort.toured ? null : 'tour'));
  const fieldRef = useRef<HTMLInputElement>(null);
  const loop = useLoop(kit, phase);
  // The verdict is painted first; what is left in each phase follows.
  const later = useDeferredValue(kit);
  const progress = useMemo(() => phaseProgress(later, windows), [later, windows]);

  const go = useCallback((next: Phase) => {
    setPhase(next);
    if (!isBeside(next)) setWork(next);
    history.replaceState(null, '', `${location.pathname}${location.search}#${next}`);
  }, []);
  const { choose } = loop;
  const goTo = useCallback(
    (place: Place) => {
      go(place.phase);
      setNet(place.net === null ? null : { name: place.net });
      if (place.targets.length > 0) choose(...place.targets);
    },
    [go, choose],
  );
  const close = useCallback(() => {
    setDialog(null);
    fieldRef.current?.focus({ preventScroll: true });
  }, []);

  const marking = readable(loop);
  const actions = useMemo((): Actions => {
    const open = (which: Dialog) => () => {
      setDialog(which);
    };
    const step = (by: 1 | -1) => () => {
      setComfort({ text: TEXT_SIZES[TEXT_SIZES.indexOf(comfort.text) + by] ?? comfort.text });
    };
    const { undo, redo } = useBench.getState();
    const reading = loop.card?.entry === 'reading';
    return {
      ...Object.fromEntries(
        VIEWS.map((v) => [
          v,
          () => {
            go(v);
          },
        ]),
      ),
      confirm: () => {
        loop.confirm(true);
      },
      deny: () => {
        loop.confirm(false);
      },
      over: reading
        ? () => {
            loop.setText('OL');
          }
        : null,
      skip: loop.target && loop.target.kind !== 'loose' ? loop.skip : null,
      meter: kit.settings.standIn !== null && loop.target && loop.target.kind !== 'fit' ? loop.readMeter : null,
      tap: canTap(loop.target)
        ? () => {
            tap(loop.target!.id, reading ? loop.setText : null);
          }
        : null,
      marking: marking ? open('marking') : null,
      pile:
        phase === 'unpack'
          ? () => {
              loop.setPileKind(loop.pileKind ? null : 'R');
            }
          : null,
      next: () => {
        loop.move(1);
      },
      previous: () => {
        loop.move(-1);
      },
      undo: () => void undo(),
      redo: () => void redo(),
      modify: open('modify'),
      wait: open('wait'),
      box: open('box'),
      help: open('help'),
      tour: open('tour'),
      shelf: () => {
        router.push('/');
      },
      theme: () => {
        setComfort({ theme: dim ? 'light' : 'dim' });
      },
      larger: step(1),
      smaller: step(-1),
      letters: () => {
        setComfort({ singleKeys: !comfort.singleKeys });
      },
    };
  }, [loop, kit.settings.standIn, marking, phase, comfort, dim, go, router]);

  const latest = useRef(actions);
  useEffect(() => {
    latest.current = actions;
  });
  const run = useCallback((id: CommandId) => latest.current[id]?.(), []);
  useCommands({ actions, fieldRef, isFieldEmpty, covered: dialog !== null && dialog !== 'tour', answering: loop.card?.entry === 'confirm' });
  useEffect(() => {
    document.title = `${kit.sheet.title}: ${titleOf(phase)} · Zesty Bench`;
  }, [kit.sheet.title, phase]);

  const allPassed = progress.power.state === 'done';
  const backTo = work ?? firstOpenPhase(kit, windows);
  return {
    phase,
    progress,
    loop,
    fieldRef,
    dialog,
    close,
    actions,
    run,
    go,
    goTo,
    net,
    nothing: nothingLeft(phase, allPassed, windows === null, kit),
    back: isBeside(phase)
      ? {
          text: `Back to ${titleOf(backTo)}`,
          go: () => {
            go(backTo);
          },
        }
      : null,
  };
}

function nothingLeft(phase: Phase, allPassed: boolean, computing: boolean, kit: KitState): string {
  switch (phase) {
    case 'unpack':
      return kit.sheet.lines.length === 0 ? 'No parts list yet: the Sheet takes lines.' : 'Every line is counted. Check comes next.';
    case 'check':
      return 'Every piece that can be measured has been. Fit comes next.';
    case 'fit':
      return 'Everything on the list is fitted. Power up comes next.';
    case 'power':
      if (kit.sheet.stages.length === 0) return 'No stages are planned.';
      if (computing) return 'Working out the limits…';
      return allPassed ? 'All stages have passed.' : 'Nothing left to read in this stage.';
    case 'fault':
      return 'No reading is asked for at the moment.';
    case 'functions':
      return 'Functions are tried above: Enter takes what is seen.';
    default:
      return 'Nothing is asked for here.';
  }
}
