'use client';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import {
  cardOf,
  checkTargets,
  countTargets,
  currentTarget,
  findTarget,
  fitTargets,
  looseTargets,
  observableOfTarget,
  type Phase,
  pieceTargets,
  readPileEntry,
  type Target,
  type TargetCard,
  targetOfObservable,
  type TargetState,
} from '@/core/loop';
import { type EntryBody, type KitState, type ReadingValue } from '@/core/kit';
import { type LooseKind } from '@/core/parcel';
import { parseDisplay } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { ask, Cancelled } from '@/store/results';
import { loadDraft, saveDraft } from '@/store/storage';
import { useInfluence } from './useConsequences';
import { useSuspects } from './useSuspects';
import { useWindows } from './useWindows';

/** The loop of one phase: the target in hand, the entry field, and what happens on Enter. */
export interface Loop {
  readonly states: readonly TargetState[];
  readonly target: Target | null;
  readonly card: TargetCard | null;
  readonly text: string;
  readonly error: string | null;
  readonly measuring: boolean;
  setText: (text: string) => void;
  choose: (id: string) => void;
  move: (step: 1 | -1) => void;
  take: () => void;
  confirm: (asExpected: boolean) => void;
  skip: () => void;
  readMeter: () => void;
  /** Kind of the next loose piece; null while known packets are counted. */
  readonly pileKind: LooseKind | null;
  setPileKind: (kind: LooseKind | null) => void;
}

interface LoopInputs {
  readonly windows: Parameters<typeof cardOf>[2];
  readonly influence: Parameters<typeof pieceTargets>[1];
  readonly nextReading: string | null;
  readonly pileKind: LooseKind | null;
}

function statesOf(phase: Phase, kit: KitState, { windows, influence, nextReading, pileKind }: LoopInputs): TargetState[] {
  switch (phase) {
    case 'unpack':
      return pileKind ? looseTargets(kit, pileKind) : countTargets(kit);
    case 'check':
      return pieceTargets(kit, influence);
    case 'fit':
      return fitTargets(kit);
    case 'power':
      return checkTargets(kit, windows);
    case 'fault': {
      const target = nextReading === null ? null : targetOfObservable(kit, nextReading);
      return target ? [{ target, done: false }] : [];
    }
    case 'log':
    case 'sheet':
    case 'circuit':
    case 'instruments':
      return [];
  }
}

export function useLoop(kit: KitState, phase: Phase): Loop {
  const windows = useWindows(kit);
  const { result } = useSuspects(kit, phase === 'fault');
  // An older answer asks for a reading that may have been taken.
  const next = result.state === 'fresh' ? (result.value?.next?.id ?? null) : null;
  const influence = useInfluence(kit);
  const append = useBench((s) => s.append);
  const [pileKind, setPileKind] = useState<LooseKind | null>(null);
  const [wanted, setWanted] = useState<string | null>(null);
  const [text, setTextState] = useState('');
  const [error, setError] = useState<string | null>(null);
  const [measuring, setMeasuring] = useState(false);
  const states = useMemo(() => statesOf(phase, kit, { windows, influence, nextReading: next, pileKind }), [phase, kit, windows, influence, next, pileKind]);
  const target = currentTarget(states, wanted);
  const card = useMemo(() => (target ? cardOf(kit, target, windows) : null), [kit, target, windows]);
  const targetId = target?.id ?? '';

  // A reload in mid-entry: what stood in the field comes back, for the same target.
  const restored = useRef('');
  useEffect(() => {
    if (restored.current === kit.id || targetId === '') return;
    restored.current = kit.id;
    void loadDraft(kit.id).then((draft) => {
      if (draft?.text && states.some((s) => s.target.id === draft.target)) {
        setWanted(draft.target);
        setTextState(draft.text);
      }
    });
  }, [kit.id, targetId, states]);

  const setText = useCallback(
    (value: string) => {
      setTextState(value);
      setError(null);
      // What is being typed belongs to this target, even if the order of the others changes meanwhile.
      if (value !== '') setWanted(targetId);
      void saveDraft(kit.id, { target: targetId, text: value }).catch(() => undefined);
    },
    [kit.id, targetId],
  );

  const writing = useRef(false);
  const done = useCallback(
    (body: EntryBody) => {
      // One entry at a time: what follows is asked for when this one is on disk. A held key enters once.
      if (writing.current) return;
      writing.current = true;
      setText('');
      void append(body).finally(() => {
        writing.current = false;
        setWanted(null);
      });
    },
    [append, setText],
  );

  const take = () => {
    if (text.startsWith('/')) {
      const found = findTarget(states, text.slice(1));
      if (!found) {
        setError(`Nothing here is called "${text.slice(1)}". Try a ref such as /r9.`);
        return;
      }
      setWanted(found.id);
      setText('');
      return;
    }
    if (!target || !card) return;
    const result = entryFor(kit, target, card, text);
    if (typeof result === 'string') {
      setError(result);
      return;
    }
    if (result.kind === 'loose') setPileKind(result.part);
    done(result);
  };

  const inHand = useRef(targetId);
  useEffect(() => {
    inHand.current = targetId;
  }, [targetId]);

  const readAgain = useRef(false);
  const readMeter = () => {
    if (!target || measuring) return;
    setMeasuring(true);
    if (target.kind === 'loose') {
      void drawFromBag(kit, target.number, setText, setError).finally(() => {
        setMeasuring(false);
      });
      return;
    }
    simulated(kit, target)
      .then((result) => {
        // The last entry was still on its way to the disk: what is in the hand now is meant.
        if (inHand.current !== target.id) {
          readAgain.current = true;
          return;
        }
        if (result === null) setError('The simulated meter cannot measure this. Type what you see.');
        else if (typeof result === 'boolean') done(observedBody(target, result)!);
        else setText(result === 'over' ? 'OL' : String(result));
      })
      .catch((e: unknown) => {
        if (!(e instanceof Cancelled)) setError((e as Error).message);
      })
      .finally(() => {
        setMeasuring(false);
      });
  };

  useEffect(() => {
    if (measuring || !readAgain.current) return;
    readAgain.current = false;
    readMeter();
  });

  const move = (step: 1 | -1) => {
    const at = states.findIndex((s) => s.target.id === targetId);
    const other = states[at + step];
    if (other) {
      setWanted(other.target.id);
      setText('');
    }
  };

  return {
    states,
    target,
    card,
    text,
    error,
    measuring,
    setText,
    choose: (id) => {
      setWanted(id);
      setText('');
    },
    move,
    take,
    confirm: (asExpected) => {
      const body = target && (target.kind === 'fit' ? ({ kind: 'fitted', refs: target.refs } as const) : observedBody(target, asExpected));
      if (body) done(body);
    },
    skip: () => {
      if (!target) return;
      const observable = observableOfTarget(target);
      if (phase === 'fault' && observable) done({ kind: 'skipped', target: observable, reason: 'out of reach' });
      else if (target.kind === 'piece') done({ kind: 'skipped', target: target.id });
      else move(1);
    },
    readMeter,
    pileKind,
    setPileKind: (kind) => {
      setPileKind(kind);
      setWanted(null);
    },
  };
}

function observedBody(target: Target, asExpected: boolean): EntryBody | null {
  if (target.kind !== 'check' || target.check.what !== 'observe') return null;
  const base = { kind: 'observed', stage: target.stage.id, check: target.check.id, asExpected } as const;
  return target.channel ? { ...base, channel: target.channel } : base;
}

/** The log entry for what was typed, or a message about what is wrong with it. */
function entryFor(kit: KitState, target: Target, card: TargetCard, text: string): EntryBody | string {
  if (target.kind === 'count') return countEntry(target, text);
  if (target.kind === 'loose') {
    const read = readPileEntry(text, target.part);
    return read.ok ? { kind: 'loose', ...read.body, meter: kit.settings.meter } : `${read.message}.`;
  }
  if (!card.unit) return 'Press Enter when it is done.';
  const parsed = parseDisplay(text, card.unit);
  if (!parsed.ok) return `${parsed.message} (character ${parsed.at + 1}).`;
  const reading: ReadingValue = parsed.kind === 'over' ? 'over' : parsed.value;
  const { meter } = kit.settings;
  switch (target.kind) {
    case 'piece':
      return {
        kind: 'measured',
        line: target.line.id,
        piece: target.piece,
        ...(target.ref ? { ref: target.ref } : {}),
        mode: target.expected.mode,
        reading,
        meter,
      };
    case 'check':
      return { kind: 'read', stage: target.stage.id, check: target.check.id, reading, meter };
    case 'probe':
      return { kind: 'probed', stage: target.stage.id, testPoint: target.testPoint.id, reading, meter };
    case 'fit':
      return 'Press Enter when it is fitted.';
  }
}

/** The next piece of the simulated bag as somebody would type it: print, then reading. */
async function drawFromBag(kit: KitState, number: number, setText: (text: string) => void, setError: (text: string) => void): Promise<void> {
  try {
    const piece = await ask('drawLoose', kit, number);
    if (!piece) {
      setError('The simulated bag is empty: every piece was drawn.');
      return;
    }
    const marking = typeof piece.marking === 'string' ? piece.marking.replace(/\s+(?=[µn]?F|V\b)/g, '') : '';
    const unit = { R: '', C: 'F', L: 'H', D: 'V', LED: 'V', Q: '' }[piece.part];
    const reading = piece.reading === null ? '' : piece.reading === 'over' ? 'OL' : `${String(piece.reading)}${unit}`;
    setText([piece.part.toLowerCase(), marking, piece.polarity ?? '', reading].filter(Boolean).join(' '));
  } catch (e) {
    if (!(e instanceof Cancelled)) setError((e as Error).message);
  }
}

/** An empty field means "as listed". */
function countEntry(target: Extract<Target, { kind: 'count' }>, text: string): EntryBody | string {
  const quantity = text.trim() === '' ? target.line.quantity : Number(text.trim());
  if (!Number.isInteger(quantity) || quantity < 0 || quantity > 10000) return `"${text}" is no count. Type a whole number, 0 if there is none.`;
  return { kind: 'counted', line: target.line.id, quantity };
}

async function simulated(kit: KitState, target: Target): Promise<ReadingValue | boolean | null> {
  switch (target.kind) {
    case 'count':
      return ask('countPieces', kit, target.line.id);
    case 'piece':
      return ask('readPiece', kit, { line: target.line.id, piece: target.piece });
    case 'fit':
    case 'loose':
      return null;
    default: {
      const observable = observableOfTarget(target);
      if (observable) return ask('readBoard', kit, { stage: target.stage.id, observable });
      return target.kind === 'check' ? ask('watchBoard', kit, { stage: target.stage.id, check: target.check.id }) : null;
    }
  }
}
