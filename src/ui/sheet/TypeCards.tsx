import { Form } from 'antd';
import { useEffect, useState } from 'react';
import { type KitState, put, type TypeCard } from '@/core/kit';
import { cardFor, COMMON_CARDS, comparePins } from '@/core/typecard';
import { useBench } from '@/store/bench';
import { listCards, saveCard } from '@/store/storage';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { required } from '../form/rules';
import zones from '../shell/zones.module.css';
import { RoomList } from './records/RoomList';
import { TYPE_CARDS } from './records/specs';
import { TypeCardText } from './TypeCardText';
import styles from './TypeCards.module.css';

interface Values {
  readonly type?: string;
  readonly body?: string;
  readonly pins?: string;
  readonly figures?: string;
  readonly seen?: string;
}

/** Cards of the types on this kit's list, one's own collection, and a form for a new one. */
export function TypeCards({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [own, setOwn] = useState<readonly TypeCard[]>([]);
  const [form] = Form.useForm<Values>();
  const { type = '', seen = '' } = (Form.useWatch((values: Values) => values, form) as Values | undefined) ?? {};
  const [said, setSaid] = useState('');
  const refresh = () => {
    listCards().then(setOwn, () => {
      setOwn([]);
    });
  };
  useEffect(refresh, []);
  const wanted = kit.sheet.lines.flatMap((l) => cardFor(l, kit.sheet.typeCards, own) ?? []);
  const used = [...new Map(wanted.map((c) => [c.type, c])).values()];
  const looked = [...own, ...COMMON_CARDS].find((c) => c.type.toLowerCase() === type.trim().toLowerCase());
  const save = (values: Values) => {
    const card = cardOf(values);
    saveCard(card).then(
      () => {
        // A kit takes along the cards of its own types: they rate its parts and go with its file.
        if (kit.sheet.lines.some((l) => cardFor(l, [card]) === card)) void append((k) => put(k, 'typeCards', card));
        setSaid(`${card.type} is in your collection, for every kit.`);
        refresh();
      },
      () => {
        setSaid('The browser refused to store the card.');
      },
    );
  };
  return (
    <>
      <h2 className={`${zones.label} ${zones.section}`}>Type cards</h2>
      {used.length === 0 && <p className="soft">No type of this list has a card yet.</p>}
      <div className={styles.row}>
        {used.map((c) => (
          <TypeCardText key={c.type} card={c} />
        ))}
      </div>
      {kit.sheet.typeCards.length > 0 && <RoomList kit={kit} spec={TYPE_CARDS} />}
      <InlineForm<Values> name="type-card" form={form} submit="Keep the card" done={save} said={said} initial={{ body: 'TO-92' }}>
        <TextItem name="type" label="Type" hint="BC547" rules={[required('A card needs a type number.')]} />
        <TextItem name="body" label="Body" wide="s" />
        <TextItem name="pins" label="Pins from the left" hint="C B E" />
        <TextItem
          name="figures"
          label="Figures: name value unit; …"
          hint="collector voltage 45 V; power 0.5 W"
          wide="l"
          rules={[
            {
              validator: (_, text: string | undefined) => {
                const read = readFigures(text ?? '');
                return typeof read === 'string' ? Promise.reject(new Error(read)) : Promise.resolve();
              },
            },
          ]}
        />
        {looked && <TextItem name="seen" label="The tester shows the pins" hint="E B C" />}
      </InlineForm>
      {looked && seen.trim() !== '' && <p role="status">{comparePins(looked, seen) ?? `Agrees with the card of ${looked.type}.`}</p>}
    </>
  );
}

/** Figures from what was typed, or what is wrong with the first bad one. */
function readFigures(text: string): TypeCard['figures'] | string {
  const read = [];
  for (const part of text
    .split(';')
    .map((t) => t.trim())
    .filter(Boolean)) {
    const match = /^(.+?)\s+([-+\d.,]+)\s*(\S+)?$/.exec(part);
    const value = match ? Number(match[2]!.replace(',', '.')) : NaN;
    if (!match || !Number.isFinite(value)) return `"${part}" is no figure. Write: name, value, unit, such as: collector voltage 45 V.`;
    read.push({ name: match[1]!, value, unit: match[3] ?? 'ratio', source: 'typed from the data sheet' });
  }
  return read;
}

function cardOf({ type = '', body = '', pins = '', figures = '' }: Values): TypeCard {
  const names = pins
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean);
  const read = readFigures(figures);
  return { type: type.trim(), pins: names.length > 0 ? { [body.trim() || 'body']: names } : {}, figures: typeof read === 'string' ? [] : read };
}
