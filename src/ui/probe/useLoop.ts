'use client';
import { dequal } from 'dequal';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import {
  answerOf,
  badPieces,
  cardOf,
  checkTargets,
  countTargets,
  currentTarget,
  entryOf,
  everythingFitted,
  faultTargets,
  findTarget,
  looseTargets,
  observableOfTarget,
  type Phase,
  pieceTargets,
  postponed,
  skippedAfter,
  type Target,
  type TargetCard,
  type TargetState,
} from '@/core/loop';
import type { EntryBody, KitState } from '@/core/kit';
import type { LooseKind } from '@/core/parcel';
import { useBench } from '@/store/bench';
import { Cancelled } from '@/store/results';
import { loadDraft, saveDraft } from '@/store/storage';
import { useInfluence } from '../results/useConsequences';
import { useSuspects } from '../results/useSuspects';
import { useWindows } from '../results/useWindows';
import { copyText, useCopies } from './useCopies';
import { useEntryField } from './entryField';
import { drawFromBag, readSimulated } from './simulated';

/** The loop of one phase: the target in hand, and what happens on Enter. */
export interface Loop {
  readonly states: readonly TargetState[];
  readonly target: Target | null;
  readonly card: TargetCard | null;
  readonly measuring: boolean;
  setText: (text: string) => void;
  /** Takes a target into the hand: the first of these ids that there is. */
  choose: (...ids: readonly string[]) => void;
  /** Lets the target in hand go: the next that is not dealt with comes. */
  letGo: () => void;
  move: (step: 1 | -1) => void;
  take: () => void;
  confirm: (asExpected: boolean) => void;
  skip: () => void;
  readMeter: () => void;
  /** Kind of the next loose piece; null while known packets are counted. */
  readonly pileKind: LooseKind | null;
  setPileKind: (kind: LooseKind | null) => void;
  /** What is done at the board while it is fitted. */
  readonly fitMode: FitMode;
  setFitMode: (mode: FitMode) => void;
  /** What is asked for at the board beside fitting: it comes with the part of the program that knows it. */
  offer: (states: readonly TargetState[]) => void;
}

/** Looking at the bare board, fitting, looking again, tracing with a tester. */
export type FitMode = 'bare' | 'fit' | 'look' | 'trace';

/** Targets asked for by hand, the first that there is; good until the log holds more entries than this. */
interface Wanted {
  readonly ids: readonly string[];
  readonly until: number;
}
const NO_STATES: readonly TargetState[] = [];
const NOTHING_SKIPPED: readonly string[] = [];
const NOTHING_WANTED: Wanted = { ids: [], until: Infinity };

interface LoopInputs {
  readonly windows: Parameters<typeof cardOf>[2];
  readonly influence: Parameters<typeof pieceTargets>[1];
  readonly nextReading: string | null;
  readonly pileKind: LooseKind | null;
  readonly fitMode: FitMode;
  readonly offered: readonly TargetState[];
  readonly asked: readonly string[];
}

function statesOf(phase: Phase, kit: KitState, { windows, influence, nextReading, pileKind, fitMode, offered, asked }: LoopInputs): readonly TargetState[] {
  switch (phase) {
    case 'unpack':
      return pileKind ? looseTargets(kit, pileKind) : countTargets(kit);
    case 'check':
      return pieceTargets(kit, influence);
    case 'fit':
      return fitMode === 'fit' ? everythingFitted(kit) : offered;
    case 'power':
      return checkTargets(kit, windows, asked);
    case 'fault':
      return faultTargets(kit, nextReading, asked);
    default:
      return [];
  }
}

const setError = (error: string | null) => {
  useEntryField.setState({ error });
};

export function useLoop(kit: KitState, phase: Phase): Loop {
  const windows = useWindows(kit);
  const { result } = useSuspects(kit, phase === 'fault');
  // An older answer asks for a reading that may have been taken.
  const next = result.state === 'fresh' ? (result.value?.again ?? result.value?.next?.id ?? null) : null;
  const influence = useInfluence(kit);
  const append = useBench((s) => s.append);
  const [pileKind, setPileKindState] = useState<LooseKind | null>(null);
  const [fitMode, setFitModeState] = useState<FitMode>('fit');
  const [offered, offer] = useState<readonly TargetState[]>(NO_STATES);
  const [wanted, setWanted] = useState<Wanted>(NOTHING_WANTED);
  const [measuring, setMeasuring] = useState(false);
  const [skipped, setSkipped] = useState<readonly string[]>(NOTHING_SKIPPED);
  const asked = kit.log.length > wanted.until ? NOTHING_WANTED.ids : wanted.ids;
  const states = useMemo(
    () => postponed(statesOf(phase, kit, { windows, influence, nextReading: next, pileKind, fitMode, offered, asked }), skipped),
    [phase, kit, windows, influence, next, pileKind, fitMode, offered, asked, skipped],
  );
  // What is in the hand stays there: an order that is computed late holds from the next entry on.
  const [inHand, setInHand] = useState({ phase, entries: kit.log.length, id: '' });
  const held = phase === 'check' && inHand.phase === phase && inHand.entries === kit.log.length ? [inHand.id] : [];
  const target = currentTarget(states, [...asked, ...held].find((id) => states.some((s) => s.target.id === id)) ?? null);
  const shown = { phase, entries: kit.log.length, id: target?.id ?? '' };
  if (!dequal(shown, inHand)) setInHand(shown);
  const copies = useCopies(kit);
  const card = useMemo(() => (target ? cardOf(kit, target, windows) : null), [kit, target, windows]);
  const targetId = target?.id ?? '';
  useDraft(kit.id, targetId, states, setWanted);

  // What acts on a key or on a late answer looks at the bench as it then is.
  const now = useRef({ kit, phase, states, target, card, targetId, measuring, wanted, copies });
  useEffect(() => {
    now.current = { kit, phase, states, target, card, targetId, measuring, wanted, copies };
  });

  const setText = useCallback((text: string) => {
    useEntryField.setState({ text, error: null });
    const { kit: k, targetId: id } = now.current;
    // What is being typed belongs to this target, even if the order of the others changes meanwhile.
    if (text !== '') setWanted((w) => (w.ids[0] === id && w.until === Infinity ? w : { ids: [id], until: Infinity }));
    void saveDraft(k.id, { target: id, text }).catch(() => undefined);
  }, []);

  const writing = useRef(false);
  const done = useCallback(
    (body: EntryBody) => {
      // One entry at a time: what follows is asked for when this one is on disk. A held key enters once.
      if (writing.current) return;
      writing.current = true;
      setText('');
      // The next target comes with the entry: what was asked for holds until the log has grown.
      const until = now.current.kit.log.length;
      // What was asked for behind it: the first check of a stage that had to be made ready.
      const { ids, until: good } = now.current.wanted;
      const rest = now.current.target?.kind === 'prepare' && good === Infinity ? ids.slice(ids.indexOf(now.current.targetId) + 1) : [];
      setWanted((w) => (w.until === Infinity && w.ids.length > 0 ? { ...w, until } : w));
      void append(body).finally(() => {
        writing.current = false;
        if (rest.length > 0) setWanted({ ids: rest, until: Infinity });
      });
    },
    [append, setText],
  );

  const readAgain = useRef(false);
  const readMeter = useCallback(() => {
    const { kit: k, target: t, measuring: busy } = now.current;
    if (!t || busy) return;
    const answered = async () => {
      if (t.kind === 'loose') {
        const drawn = await drawFromBag(k, t.number);
        if (drawn === null) setError('The simulated bag is empty: every piece was drawn.');
        else setText(drawn);
        return;
      }
      const shown = await readSimulated(k, t);
      // The last entry was still on its way to the disk: what is in the hand now is meant.
      if (now.current.targetId !== t.id) readAgain.current = true;
      else if (shown === null) setError('The simulated meter cannot measure this. Type what you see.');
      else if (typeof shown === 'boolean') done(answerOf(t, shown)!);
      else setText(shown === 'over' ? 'OL' : String(shown));
    };
    setMeasuring(true);
    answered()
      .catch((e: unknown) => {
        if (!(e instanceof Cancelled)) setError((e as Error).message);
      })
      .finally(() => {
        setMeasuring(false);
      });
  }, [done, setText]);
  useEffect(() => {
    if (measuring || !readAgain.current) return;
    readAgain.current = false;
    readMeter();
  }, [measuring, readMeter]);

  const acts = useMemo(
    () => ({
      choose: (...ids: readonly string[]) => {
        setWanted({ ids, until: Infinity });
        useEntryField.setState({ text: '', error: null });
      },
      letGo: () => {
        setWanted(NOTHING_WANTED);
      },
      move: (step: 1 | -1) => {
        const { states: all, targetId: id } = now.current;
        const other = all[all.findIndex((s) => s.target.id === id) + step];
        if (!other) return;
        setWanted({ ids: [other.target.id], until: Infinity });
        setText('');
      },
      setFitMode: (mode: FitMode) => {
        setFitModeState(mode);
        offer(NO_STATES);
        setWanted(NOTHING_WANTED);
      },
      setPileKind: (kind: LooseKind | null) => {
        setPileKindState(kind);
        setWanted(NOTHING_WANTED);
      },
    }),
    [setText],
  );

  const answers = useMemo(
    () => ({
      take: () => {
        const { text } = useEntryField.getState();
        const { kit: k, states: all, target: t, card: c } = now.current;
        if (text.startsWith('/')) {
          const found = findTarget(all, text.slice(1));
          if (found) acts.choose(found.id);
          else setError(`Nothing here is called "${text.slice(1)}". Try a ref such as /r9.`);
          return;
        }
        if (!t || !c) return;
        const body = entryOf(k, t, c, text);
        if (typeof body === 'string') {
          setError(body);
          return;
        }
        if (body.kind === 'loose' && body.part !== 'X') acts.setPileKind(body.part);
        done(body);
      },
      confirm: (asExpected: boolean) => {
        const { kit: k, target: t } = now.current;
        // A piece that was called out or doubtful is asked about once more.
        const doubts =
          t?.kind === 'fit' ? [...badPieces(k, t.refs).map((d) => d.text), ...now.current.copies.filter((r) => t.refs.includes(r)).map(copyText)] : [];
        const warning = `${doubts.join(' ')} Take another piece, or press Enter again to fit it all the same.`;
        if (doubts.length > 0 && useEntryField.getState().error !== warning) {
          setError(warning);
          return;
        }
        // What is in already is not ticked once more.
        if (t?.kind === 'fit' && now.current.states.some((s) => s.target.id === t.id && s.done)) {
          acts.letGo();
          return;
        }
        const body = t && answerOf(t, asExpected);
        if (body) done(body);
      },
      skip: () => {
        const { phase: p, target: t } = now.current;
        if (!t) return;
        const observable = observableOfTarget(t);
        if (p === 'fault' && observable) done({ kind: 'skipped', target: observable, reason: 'out of reach' });
        else if (t.kind === 'piece') done({ kind: 'skipped', target: t.id });
        else {
          setSkipped((s) => skippedAfter(s, t.id));
          acts.letGo();
          setText('');
        }
      },
    }),
    [acts, done, setText],
  );

  return useMemo(
    () => ({ states, target, card, measuring, setText, ...acts, ...answers, readMeter, pileKind, fitMode, offer }),
    [states, target, card, measuring, setText, acts, answers, readMeter, pileKind, fitMode],
  );
}

/** A reload in mid-entry: what stood in the field comes back, for the same target. */
function useDraft(kit: string, targetId: string, states: readonly TargetState[], setWanted: (wanted: Wanted) => void): void {
  const restored = useRef('');
  useEffect(() => {
    if (restored.current === kit || targetId === '') return;
    restored.current = kit;
    useEntryField.setState({ text: '', error: null });
    void loadDraft(kit).then((draft) => {
      if (!draft?.text || !states.some((s) => s.target.id === draft.target)) return;
      setWanted({ ids: [draft.target], until: Infinity });
      useEntryField.setState({ text: draft.text, error: null });
    });
  }, [kit, targetId, states, setWanted]);
}
