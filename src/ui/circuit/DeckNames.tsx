import { useMemo } from 'react';
import { type Circuit, connectionsOf, ownerOf } from '@/core/circuit';
import { type KitState, patch, type Ref } from '@/core/kit';
import { elementsOf, sharedNames } from '@/core/stage';
import { factsOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';
import zones from '../shell/zones.module.css';

const NO_NAMES: Readonly<Record<Ref, string>> = {};

/** Parts of the list that the deck calls otherwise: which element stands for which position. */
export function DeckNames({ kit, circuit }: { kit: KitState; circuit: Circuit }) {
  const append = useBench((s) => s.append);
  const named = kit.sheet.circuit?.elements ?? NO_NAMES;
  const { asked, free } = useMemo(() => {
    const refs = kit.sheet.lines.flatMap((l) => (factsOf(l.kind).board === null || l.notFitted ? [] : l.refs));
    const standFor = (ref: Ref) => elementsOf(kit.sheet, circuit, ref);
    const taken = new Set(refs.flatMap(standFor).map((e) => ownerOf(e).toLowerCase()));
    // From the deck, not the circuit: a chip of which only the pins are known has nothing inside.
    const owners = connectionsOf(kit.sheet.circuit?.deck ?? '').flatMap((c) => (/^[VI]/i.test(c.name) ? [] : [c.name]));
    const left = owners.filter((o) => !taken.has(o.toLowerCase()));
    // The elements of a network or control are named together.
    const together = sharedNames(circuit).filter(({ elements }) => elements.every((e) => left.includes(e)));
    const inOne = new Set(together.flatMap(({ elements }) => elements));
    const free = [...together.map(({ name }) => name), ...left.filter((o) => !inOne.has(o))];
    // Few decks hold their switches and links: they are asked for while an element is left over.
    const contacts = new Set(kit.sheet.lines.flatMap((l) => (factsOf(l.kind).board === 'contact' ? l.refs : [])));
    const isAsked = (r: Ref) => named[r] !== undefined || (standFor(r).length === 0 && (free.length > 0 || !contacts.has(r)));
    return { asked: refs.filter(isAsked), free };
  }, [kit.sheet, circuit, named]);
  if (asked.length === 0) return null;
  const say = (ref: Ref, element: string | null) => {
    // From the kit as it is when it is written: what is shown may lie one choice behind.
    void append((k) => {
      const { [ref]: _, ...others } = k.sheet.circuit?.elements ?? NO_NAMES;
      return patch(k, 'circuit', 'circuit', { elements: element === null ? others : { ...others, [ref]: element } }) ?? [];
    });
  };
  return (
    <section aria-label="Other names in the deck" className={zones.section}>
      <h3 className={zones.label}>Parts with another name in the deck</h3>
      {asked.map((ref) => (
        <div key={ref} className={zones.row}>
          <b>{ref}</b> is
          <Choose<string | null>
            aria-label={`Name of ${ref} in the deck`}
            placeholder="not in the circuit"
            allowClear
            value={named[ref] ?? null}
            options={[...(named[ref] === undefined ? [] : [named[ref]]), ...free].map((value) => ({ value, label: value }))}
            onChange={(element) => {
              say(ref, element ?? null);
            }}
          />
        </div>
      ))}
    </section>
  );
}
