import { Radio } from 'antd';
import { suppliesIn, type WalkSupply, withSupply, withSupplyVolts } from '@/core/draft';
import type { FeedKind } from '@/store/storage';
import { readQuantity, required } from '../form/rules';
import { InlineForm } from '../form/InlineForm';
import { QuantityItem, TextItem } from '../form/Items';
import zones from '../shell/zones.module.css';
import styles from './NewKit.module.css';
import type { useNewKit } from './useNewKit';

type Kit = ReturnType<typeof useNewKit>;

/** How the board is powered. */
export function PowerStep({ kit }: { kit: Kit }) {
  const { begun, draft } = kit;
  const supplies = suppliesIn(begun.deck);
  return (
    <>
      <p className={styles.buys}>
        How is it powered? From this come the limit at first power, the supply current that is expected, and the volts at every point. Above 50 V AC or 120 V DC
        this is work for somebody licensed; local codes decide.
      </p>
      {draft.list.needs.length > 0 && (
        <>
          <h2 className={zones.label}>What the list says you need</h2>
          <ul>
            {draft.list.needs.map((n) => (
              <li key={n.id}>{n.text}</li>
            ))}
          </ul>
        </>
      )}
      {begun.deck.trim() === '' && <p>Without a circuit nothing more is needed: the stages ask for the rails that the list names.</p>}
      {supplies.map((s) => (
        <div key={s.ref}>
          <SupplyForm supply={s} kit={kit} />
          {s.kind === 'dc' && <FeedKindChoice supply={s} kit={kit} />}
        </div>
      ))}
      {begun.deck.trim() !== '' && supplies.length === 0 && <NewSupply kit={kit} />}
    </>
  );
}

function SupplyForm({ supply, kit }: { supply: WalkSupply; kit: Kit }) {
  const winding = supply.kind === 'winding';
  return (
    <InlineForm<{ volts: string }>
      name={`supply-${supply.ref}`}
      submit={`Set ${supply.ref}`}
      initial={{ volts: `${supply.volts} V` }}
      done={({ volts }) => {
        const read = readQuantity(volts, 'V');
        if (read !== null) kit.setDeck(withSupplyVolts(kit.begun.deck, supply, read));
      }}
    >
      <QuantityItem
        name="volts"
        label={`${supply.ref}, ${winding ? 'winding, volts AC' : 'battery or DC supply'}`}
        unit="V"
        wide="m"
        rules={[required('How many volts?')]}
      />
    </InlineForm>
  );
}

const FEED_KINDS: readonly { readonly value: FeedKind; readonly label: string }[] = [
  { value: 'adapter', label: 'Bench supply or adapter' },
  { value: 'battery', label: 'Battery' },
  { value: 'usb', label: 'USB' },
];

/** A new battery gives up to an eighth more than it says, an adapter its volts: the limits follow from what it is. */
function FeedKindChoice({ supply, kit }: { supply: WalkSupply; kit: Kit }) {
  const { feeds } = kit.begun;
  return (
    <Radio.Group
      aria-label={`What ${supply.ref} is`}
      optionType="button"
      options={[...FEED_KINDS]}
      value={feeds[supply.ref] ?? 'adapter'}
      onChange={(e) => {
        kit.set({ feeds: { ...feeds, [supply.ref]: e.target.value as FeedKind } });
      }}
    />
  );
}

/** The circuit has no supply: one is put across a net and ground. */
function NewSupply({ kit }: { kit: Kit }) {
  return (
    <InlineForm<{ net: string; volts: string }>
      name="new-supply"
      submit="Add the supply"
      initial={{ net: kit.draft.nets[0] ?? '', volts: '9 V' }}
      done={({ net, volts }) => {
        const read = readQuantity(volts, 'V');
        if (read !== null) kit.setDeck(withSupply(kit.begun.deck, { ref: 'V1', volts: read, kind: 'dc' }, [net.replace(/\s/g, ''), '0']));
      }}
      said="The circuit has no supply yet: without one nothing carries a voltage."
    >
      <TextItem name="net" label="Plus goes to the net" rules={[required('Which net?')]} />
      <QuantityItem name="volts" label="Volts" unit="V" wide="m" rules={[required('How many volts?')]} />
    </InlineForm>
  );
}
