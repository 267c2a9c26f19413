import { useEffect, useState } from 'react';
import { type KitState, put, type TypeCard } from '@/core/kit';
import { cardFor, COMMON_CARDS, comparePins } from '@/core/typecard';
import { print, type Unit } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { listCards, saveCard } from '@/store/storage';
import { TextField } from './Field';

const UNITS: readonly string[] = ['V', 'A', 'ohm', 'F', 'H', 'W', 'Hz', 'percent', 'ratio'];
const shown = (value: number, unit: string) => (UNITS.includes(unit) ? print(value, unit as Unit, 3) : `${value} ${unit}`);

/** One card as it is read beside the part. */
export function TypeCardText({ card }: { card: TypeCard }) {
  return (
    <div className="type-card">
      <b>{card.type}</b>
      {Object.entries(card.pins).map(([body, pins]) => (
        <p key={body} className="num">
          {body}: {pins.map((p, i) => `${i + 1} ${p}`).join(', ')}
        </p>
      ))}
      <ul className="plain-list">
        {card.figures.map((f) => (
          <li key={f.name}>
            {f.name} <span className="num">{shown(f.value, f.unit)}</span> <small className="soft">{f.source}</small>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** Cards of the types on this kit's list, one's own collection, and a form for a new one. */
export function TypeCards({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [own, setOwn] = useState<readonly TypeCard[]>([]);
  const [type, setType] = useState('');
  const [body, setBody] = useState('TO-92');
  const [pins, setPins] = useState('');
  const [figures, setFigures] = useState('');
  const [seen, setSeen] = useState('');
  const [message, setMessage] = useState('');
  const refresh = () => {
    listCards().then(setOwn, () => {
      setOwn([]);
    });
  };
  useEffect(refresh, []);
  const wanted = kit.sheet.lines.flatMap((l) => cardFor(l, kit.sheet.typeCards, own) ?? []);
  const used = [...new Map(wanted.map((c) => [c.type, c])).values()];
  const looked = [...own, ...COMMON_CARDS].find((c) => c.type.toLowerCase() === type.trim().toLowerCase());
  const save = () => {
    const card = readCard(type, body, pins, figures);
    if (typeof card === 'string') {
      setMessage(card);
      return;
    }
    saveCard(card).then(
      () => {
        // A kit takes along the cards of its own types: they rate its parts and go with its file.
        if (kit.sheet.lines.some((l) => cardFor(l, [card]) === card)) void append((k) => put(k, 'typeCards', card));
        setMessage(`${card.type} is in your collection, for every kit.`);
        refresh();
      },
      () => {
        setMessage('The browser refused to store the card.');
      },
    );
  };
  return (
    <>
      <h2 className="label" style={{ marginTop: 14 }}>
        Type cards
      </h2>
      {used.length === 0 && <p className="soft">No type of this list has a card yet.</p>}
      <div className="card-row">
        {used.map((c) => (
          <TypeCardText key={c.type} card={c} />
        ))}
      </div>
      <form
        className="inline-form"
        onSubmit={(e) => {
          e.preventDefault();
          save();
        }}
      >
        <TextField label="Type" value={type} change={setType} hint="BC547" width={110} />
        <TextField label="Body" value={body} change={setBody} width={90} />
        <TextField label="Pins from the left" value={pins} change={setPins} hint="C B E" width={130} />
        <TextField label="Figures: name value unit; …" value={figures} change={setFigures} hint="collector voltage 45 V; power 0.5 W" width={260} />
        <button type="submit" className="plain">
          Keep the card
        </button>
        {looked && <TextField label="The tester shows the pins" value={seen} change={setSeen} hint="E B C" width={160} />}
      </form>
      {looked && seen.trim() !== '' && <p role="status">{comparePins(looked, seen) ?? `Agrees with the card of ${looked.type}.`}</p>}
      <p className="soft" role="status">
        {message}
      </p>
    </>
  );
}

/** A card from what was typed, or what is wrong with it. */
function readCard(type: string, body: string, pins: string, figures: string): TypeCard | string {
  if (type.trim() === '') return 'A card needs a type number.';
  const names = pins
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean);
  const read = [];
  for (const text of figures
    .split(';')
    .map((t) => t.trim())
    .filter(Boolean)) {
    const match = /^(.+?)\s+([-+\d.,]+)\s*(\S+)?$/.exec(text);
    if (!match) return `"${text}" is no figure. Write: name, value, unit, such as: collector voltage 45 V.`;
    read.push({ name: match[1]!, value: Number(match[2]!.replace(',', '.')), unit: match[3] ?? 'ratio', source: 'typed from the data sheet' });
  }
  if (read.some((f) => !Number.isFinite(f.value))) return 'A figure has no number.';
  return { type: type.trim(), pins: names.length > 0 ? { [body.trim() || 'body']: names } : {}, figures: read };
}
