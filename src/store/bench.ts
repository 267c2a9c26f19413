import { create } from 'zustand';
import { type Findings, investigationKey } from '@/core/bench/investigation';
import { type SortedPile } from '@/core/bench/pile';
import { type Windows } from '@/core/bench/stages';
import { type Influence } from '@/core/bench/targets';
import { type ConsequenceText, type Spare, type Supposed, type Supposition } from '@/core/consequence';
import {
  append,
  deriveStrangers,
  deriveTray,
  type EntryBody,
  type KitDocument,
  type KitSettings,
  lastStanding,
  type Sheet,
  type Stamp,
  withSheet,
} from '@/core/kit';
import { Cancelled, Lane, proxy } from '@/workers/client';
import { loadKit, saveKit } from './storage';

/** The open kit and what the workers have computed for it. Screens read this and append entries: nothing else. */
export interface BenchState {
  readonly status: 'closed' | 'loading' | 'open' | 'missing';
  readonly kit: KitDocument | null;
  /** Message that must not be missed: storage full, damaged kit, failed computation. */
  readonly alarm: string | null;
  readonly windows: Windows;
  readonly windowsBusy: boolean;
  readonly findings: Findings | null;
  /** Length of the log that the findings were computed for: an older one asks for a reading that may have been taken. */
  readonly findingsFor: number;
  readonly findingsBusy: boolean;
  /** Where the loose pieces go; null while none is there. */
  readonly pile: SortedPile | null;
  /** How much each ref matters; empty until it is known. */
  readonly influence: Influence;
  /** What pieces that are out or doubtful would do where they are meant to go, by target id. */
  readonly consequences: Readonly<Record<string, ConsequenceText>>;
  /** 0..1 while the suspects are worked out. */
  readonly progress: number;
  open: (id: string) => Promise<void>;
  append: (body: EntryBody) => void;
  undo: () => void;
  changeSheet: (change: Partial<Omit<Sheet, 'revision'>>) => void;
  /** Sheets as they were before each change, since this kit was opened; the last is what `takeBackSheet` brings back. */
  readonly sheetsBefore: readonly Sheet[];
  takeBackSheet: () => void;
  changeSettings: (change: Partial<KitSettings>) => void;
  findSuspects: () => void;
  cancelSuspects: () => void;
  dismissAlarm: () => void;
}

const windowsLane = new Lane();
const MOST_SHEETS = 50;
const suspectsLane = new Lane();
/** What each fault would show does not depend on the readings: a further reading waits for the work in hand, and does not start it anew. */
/** Share of a first ranking that goes into the rough predictions; the rest looks closely at those in question. */
const PREDICTING = 0.6;
let predictions: { readonly key: string; readonly done: Promise<unknown>; ranked: boolean } | null = null;
let ranking: Promise<void> = Promise.resolve();
const meterLane = new Lane();
const pileLane = new Lane();
const consequenceLane = new Lane();
const tabs = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('zesty-bench');

/** Clock and ids live here, outside the core. */
export function stamp(): Stamp {
  return { id: crypto.randomUUID(), at: new Date().toISOString() };
}

export const useBench = create<BenchState>((set, get) => {
  const store = (kit: KitDocument) => {
    saveKit(kit).then(
      (united) => {
        if (get().kit?.id === united.id && united.log.length > (get().kit?.log.length ?? 0)) set({ kit: united });
        tabs?.postMessage(united.id);
      },
      () => {
        set({
          alarm:
            'The browser’s storage is full or refused: this entry is only on the screen. Export the kit to a file now (Logbook), then clear old kits from the shelf.',
        });
      },
    );
  };

  const change = (kit: KitDocument) => {
    set({ kit });
    store(kit);
    computeWindows();
    computePile();
  };

  let windowsKey = '';
  let influenceFor = -1;
  const computeWindows = () => {
    const { kit } = get();
    if (!kit) return;
    const key = windowInputs(kit);
    if (key === windowsKey) return;
    windowsKey = key;
    set({ windowsBusy: true });
    windowsLane
      .run((api) => api.windows(kit))
      .then((windows) => {
        set({ windows, windowsBusy: false });
        computeConsequences();
      })
      .catch((error: unknown) => {
        if (error instanceof Cancelled) return;
        set({ windowsBusy: false, alarm: `The expected voltages could not be computed: ${(error as Error).message}` });
      });
  };

  /** What matters, and what deviating pieces do: both follow from the windows. */
  const computeConsequences = () => {
    const { kit, windows } = get();
    if (!kit?.sheet.circuit) return;
    consequenceLane
      .run(async (api) => {
        // Once per sheet: an order that changes after every reading would only confuse.
        if (influenceFor !== kit.sheet.revision) {
          const influence = await api.influences(kit, windows);
          influenceFor = kit.sheet.revision;
          if (influence.ok) set({ influence: influence.value });
        }
        return api.consequences(kit, windows, deviations(kit));
      })
      .then((consequences) => {
        set({ consequences });
      })
      .catch((error: unknown) => {
        if (!(error instanceof Cancelled)) set({ alarm: `The consequences could not be computed: ${(error as Error).message}` });
      });
  };

  const computePile = () => {
    const { kit } = get();
    if (!kit?.log.some((e) => e.kind === 'loose')) {
      if (get().pile) set({ pile: null });
      return;
    }
    pileLane
      .run((api) => api.sortPile(kit))
      .then((pile) => {
        set({ pile });
      })
      .catch((error: unknown) => {
        if (!(error instanceof Cancelled)) set({ alarm: `The loose pieces could not be sorted: ${(error as Error).message}` });
      });
  };

  tabs?.addEventListener('message', (event) => {
    const { kit } = get();
    if (!kit || event.data !== kit.id) return;
    void loadKit(kit.id).then((stored) => {
      if (stored?.ok && get().kit?.id === stored.kit.id && stored.kit.log.length > get().kit!.log.length) set({ kit: stored.kit });
    });
  });

  return {
    status: 'closed',
    kit: null,
    alarm: null,
    windows: {},
    windowsBusy: false,
    findings: null,
    findingsFor: -1,
    findingsBusy: false,
    pile: null,
    influence: {},
    consequences: {},
    sheetsBefore: [],
    progress: 0,
    async open(id) {
      set({ status: 'loading', kit: null, windows: {}, findings: null, alarm: null, pile: null, influence: {}, consequences: {}, sheetsBefore: [] });
      windowsKey = '';
      influenceFor = -1;
      const opened = await loadKit(id);
      if (!opened) {
        set({ status: 'missing' });
        return;
      }
      if (!opened.ok) {
        set({ status: 'missing', alarm: opened.message });
        return;
      }
      set({ status: 'open', kit: opened.kit });
      computeWindows();
      computePile();
    },
    append(body) {
      const { kit } = get();
      if (kit) change(append(kit, body, stamp()));
    },
    undo() {
      const { kit } = get();
      const last = kit && lastStanding(kit.log);
      if (kit && last) change(append(kit, { kind: 'withdrawn', entry: last.id }, stamp()));
    },
    changeSheet(sheetChange) {
      const { kit, sheetsBefore } = get();
      if (!kit) return;
      set({ sheetsBefore: [...sheetsBefore, kit.sheet].slice(-MOST_SHEETS) });
      change(withSheet(kit, sheetChange));
    },
    takeBackSheet() {
      const { kit, sheetsBefore } = get();
      const last = sheetsBefore[sheetsBefore.length - 1];
      if (!kit || !last) return;
      set({ sheetsBefore: sheetsBefore.slice(0, -1) });
      change(withSheet(kit, last));
    },
    changeSettings(settings) {
      const { kit } = get();
      if (kit) change({ ...kit, settings: { ...kit.settings, ...settings } });
    },
    findSuspects() {
      const { kit } = get();
      if (!kit) return;
      const key = investigationKey(kit);
      /** Tells the screen how far it is: one part of the work goes from one share to another. */
      const between = (from: number, to: number) =>
        proxy((part: number) => {
          set({ progress: from + (to - from) * part });
        });
      if (predictions?.key !== key) {
        set({ progress: 0 });
        const done = suspectsLane.run((api) => api.predict(kit, between(0, PREDICTING)));
        predictions = { key, done, ranked: false };
      }
      const mine = predictions;
      set({ findingsBusy: true });
      ranking = ranking
        .then(() => mine.done)
        .then(async () => {
          if (get().kit !== kit || predictions !== mine) return;
          const findings = await suspectsLane.run((api) => api.suspects(kit, between(mine.ranked ? 0 : PREDICTING, 1)));
          mine.ranked = true;
          set({ findings, findingsFor: kit.log.length, findingsBusy: false, progress: 1 });
        })
        .catch((error: unknown) => {
          if (predictions === mine) predictions = null;
          if (error instanceof Cancelled) return;
          set({ findingsBusy: false, alarm: `The suspects could not be computed: ${(error as Error).message}` });
        });
    },
    cancelSuspects() {
      suspectsLane.stop();
      predictions = null;
      set({ findingsBusy: false });
    },
    dismissAlarm() {
      set({ alarm: null });
    },
  };
});

export { Cancelled };
export { type Course } from '@/workers/engine';

/** Pieces that deviate, as suppositions about the place they are meant for; keyed like their targets. */
function deviations(kit: KitDocument): Record<string, Supposed> {
  return { ...deviatingPieces(kit), ...offers(kit) };
}

/** Every stranger of the pile in place of every missing resistor: keyed `offer:<piece>:<line>`. */
function offers(kit: KitDocument): Record<string, Supposed> {
  const short = deriveTray(kit).filter((c) => c.counted !== null && c.counted < c.line.quantity && c.line.kind === 'resistor');
  const strangers = deriveStrangers(kit).filter((e) => e.part === 'R' && typeof e.reading === 'number');
  return Object.fromEntries(
    short.flatMap(({ line, counted }) => {
      const ref = line.refs[counted ?? 0];
      return ref ? strangers.map((e) => [`offer:${e.id}:${line.id}`, { [ref]: e.reading as number }] as const) : [];
    }),
  );
}

function deviatingPieces(kit: KitDocument): Record<string, Supposed> {
  return Object.fromEntries(
    deriveTray(kit).flatMap(({ line, pieces }) =>
      pieces.flatMap((p) =>
        p.ref && p.reckoning && p.entry?.mode === 'ohms' && (p.verdict === 'out' || p.verdict === 'doubtful')
          ? [[`piece:${line.id}:${p.index}`, { [p.ref]: p.reckoning.corrected }] as const]
          : [],
      ),
    ),
  );
}

/** Everything that the windows depend on: other entries leave them as they are. */
function windowInputs(kit: KitDocument): string {
  const entries = kit.log.filter((e) =>
    ['measured', 'fitted', 'removed', 'set', 'modified', 'withdrawn', 'counted', 'sorted', 'meter-checked'].includes(e.kind),
  );
  return JSON.stringify([kit.id, kit.sheet.revision, kit.settings.meter, kit.settings.school, entries.map((e) => e.id)]);
}

const askLane = new Lane();

/** Questions about the circuit that a screen asks and whose answer nobody else needs. */
export const circuitQuestions = {
  whatIf: (kit: KitDocument, windows: Windows, supposition: Supposition) => askLane.run((api) => api.whatIf(kit, windows, supposition)),
  sweep: (kit: KitDocument, ref: string, values: readonly number[]) => askLane.run((api) => api.sweep(kit, ref, values)),
  substitutes: (kit: KitDocument, windows: Windows, ref: string, spares: readonly Spare[]) => askLane.run((api) => api.substitutes(kit, windows, ref, spares)),
  overloads: (kit: KitDocument) => askLane.run((api) => api.overloads(kit)),
  netVolts: (kit: KitDocument, stage: string | null) => askLane.run((api) => api.netVolts(kit, stage)),
  course: (deck: string, net: string, seconds: number, progress: (done: number) => void) =>
    askLane.run((api) => api.course(deck, net, seconds, proxy(progress))),
  cancel: () => {
    askLane.stop();
  },
};

/** The simulated meter, for practice kits. */
export const standInMeter = {
  drawLoose: (kit: KitDocument, number: number) => meterLane.run((api) => api.looseFromBag(kit, number)),
  countPieces: (kit: KitDocument, line: string) => meterLane.run((api) => api.countPieces(kit, line)),
  readPiece: (kit: KitDocument, line: string, piece: number) => meterLane.run((api) => api.readPiece(kit, line, piece, kit.log.length)),
  readBoard: (kit: KitDocument, stage: string, observable: string) => meterLane.run((api) => api.readBoard(kit, stage, observable, kit.log.length)),
  watchBoard: (kit: KitDocument, stage: string, check: string) => meterLane.run((api) => api.watchBoard(kit, stage, check)),
};
