import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { type Beside, type Draft, NOTHING_BESIDE, suggestedNets, suppliesIn, withNeeds } from '@/core/draft';
import type { Need } from '@/core/kit';
import type { Columns, Correction, Settled } from '@/core/partslist';
import { readListFile } from '@/store/listText';
import { askFree, Cancelled, stopAsking } from '@/store/results';
import { createKit } from '@/store/shelf';
import { type Begun, loadBegun, saveBegun } from '@/store/storage';
import { useAnswer } from '../results/useResult';

export const MOST_CHARACTERS = 2_000_000;
const MOST_TITLE = 120;

const NOTHING_READ: Draft = {
  lines: [],
  list: { title: null, lines: [], needs: [], options: [], remarks: [], entries: [], way: 'free', columns: [], cells: [], heading: -1 },
  circuit: null,
  deckRemarks: [],
  nets: [],
  mismatches: [],
  unsolvable: null,
};

const NOTHING_SAID: Settled = {};
const NOTHING_BEGUN: Begun = {
  title: '',
  list: '',
  settled: NOTHING_SAID,
  deck: '',
  way: 'none',
  step: 0,
  built: false,
  nets: null,
  beside: NOTHING_BESIDE,
  feeds: {},
};

/** What has been given so far, how it was understood, and the kit that comes of it. All of it outlives a reload. */
export function useNewKit(open: (id: string, built: boolean) => void) {
  const { begun, change, forget, restored } = useBegun();
  const { title, list, settled, deck, nets: chosen, beside } = begun;
  const [message, setMessage] = useState<string | null>(null);
  const [note, setNote] = useState('');
  /** How much of the ladder is worked out while the kit is made, 0..1; null when none is. */
  const [making, setMaking] = useState<number | null>(null);
  const slowList = useDeferredValue(list);
  const slowDeck = useDeferredValue(deck);
  const asked = useMemo(() => ({ list: slowList, deck: slowDeck, settled }), [slowList, slowDeck, settled]);
  const answer = useAnswer('readDraft', asked);
  const draft = answer.value ?? NOTHING_READ;
  const say = (e: unknown) => {
    setMessage((e as Error).message);
  };
  const set = (part: Partial<Begun>) => {
    change(part);
    setMessage(null);
  };
  return {
    begun,
    set,
    restored,
    draft,
    asked,
    reading: answer.state === 'working',
    nets: chosen ?? suggestedNets(draft),
    setColumns: (columns: Columns | null) => {
      set({ settled: { columns } });
    },
    correct: (corrections: Readonly<Record<string, Correction>>) => {
      set({ settled: { ...settled, corrections: { ...settled.corrections, ...corrections } } });
    },
    message,
    note,
    setList: (text: string) => {
      // A field that was filled from a file reports a change once more when it loses the focus.
      if (text === list) return;
      set({ list: text, settled: NOTHING_SAID });
      setNote('');
    },
    /** Another circuit: which nets can be reached is asked anew where it lost some. */
    setDeck: (text: string, more: Beside | null = null) => {
      set({
        deck: text,
        nets: null,
        // What a circuit brought along goes with it.
        ...(text.trim() === '' ? { beside: NOTHING_BESIDE } : {}),
        ...(more ? { beside: { where: { ...beside.where, ...more.where }, looks: [...beside.looks, ...more.looks] } } : {}),
      });
    },
    takeFile: (file: File) => {
      readListFile(file).then(({ text, encoding }) => {
        set({ list: text.slice(0, MOST_CHARACTERS).replace(/\r\n?/g, '\n'), settled: NOTHING_SAID });
        setNote(`${file.name}, read as ${encoding}.`);
      }, say);
    },
    anew: () => {
      forget();
      setNote('');
      setMessage(null);
    },
    making,
    stopMaking: () => {
      stopAsking('draftStages');
    },
    make: () => {
      if (making !== null) return;
      setMaking(0);
      askFree('readDraft', { list, deck, settled })
        .then(async (found) => {
          const blocked = problemOf(found, list, deck);
          if (blocked !== null) throw new Error(blocked);
          const reach = chosen ?? suggestedNets(found);
          const nets = found.nets.filter((n) => reach.includes(n));
          const needs = needsOf(deck, begun.feeds);
          const read = withNeeds(found, needs);
          const stages = await askFree('draftStages', { list, deck, settled, nets, beside, built: begun.built, needs }, setMaking);
          return createKit({
            title: title.trim() || read.list.title?.slice(0, MOST_TITLE) || read.circuit?.title || 'My kit',
            draft: read,
            deck,
            nets,
            beside,
            built: begun.built,
            stages,
          });
        })
        .then(
          (id) => {
            forget();
            open(id, begun.built);
          },
          (e: unknown) => {
            setMaking(null);
            if (!(e instanceof Cancelled)) say(e);
          },
        );
    },
  };
}

/** What a supply is, as a need of the kit: limits follow from it. */
export function needsOf(deck: string, feeds: Begun['feeds']): Need[] {
  return suppliesIn(deck).flatMap((s): Need[] => {
    const kind = feeds[s.ref];
    if (kind === undefined || kind === 'adapter' || s.kind === 'winding') return [];
    return [
      {
        id: `feed-${s.ref.toLowerCase()}`,
        kind: kind === 'battery' ? 'battery' : 'supply',
        text: kind === 'battery' ? `${s.volts} V battery` : `USB, ${s.volts} V`,
        volts: s.volts,
      },
    ];
  });
}

/** The kit that is being made, kept as it grows and found again after a reload. */
function useBegun() {
  const [begun, setBegun] = useState(NOTHING_BEGUN);
  const [restored, setRestored] = useState(false);
  const typed = useRef(false);
  useEffect(() => {
    let gone = false;
    loadBegun().then(
      (held) => {
        // Whoever has typed already goes on with that.
        if (gone || held === null || typed.current) return;
        // A kit begun in an earlier version has fields missing.
        setBegun({ ...NOTHING_BEGUN, ...held });
        setRestored(true);
      },
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, []);
  return {
    begun,
    restored,
    change: (part: Partial<Begun>) => {
      typed.current = true;
      setBegun((now) => {
        const next = { ...now, ...part };
        // A full storage costs the way back to this page, not what stands on it.
        saveBegun(next).catch(() => undefined);
        return next;
      });
    },
    forget: () => {
      setBegun(NOTHING_BEGUN);
      setRestored(false);
      saveBegun(null).catch(() => undefined);
    },
  };
}

/** Why no kit can be made of this yet; null when it can. */
function problemOf(draft: Draft, list: string, deck: string): string | null {
  if (list.trim() === '' && deck.trim() === '') return 'Give a parts list or a circuit first.';
  if (draft.deckRemarks.some((d) => d.severity === 'error'))
    return 'The circuit has errors: correct the lines named in the step Circuit, or choose “Nothing yet” there to make a kit without one.';
  if (draft.unsolvable !== null) return draft.unsolvable;
  if (list.trim() !== '' && draft.lines.length === 0) return 'No line of the list was understood: see the remarks in the step List.';
  const open = draft.list.entries.filter((e) => e.doubts.length > 0).length;
  if (open > 0)
    return `${open === 1 ? 'One line of the list is' : `${open} lines of the list are`} unclear. Answer the questions in the step List, or keep all as read there.`;
  return null;
}
