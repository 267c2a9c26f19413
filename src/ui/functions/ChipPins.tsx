import { useState } from 'react';
import { LIBRARY } from '@/core/logic';
import { Choose } from '../form/Choose';

/** The chips that the program knows by their cards, with the names of their pins. */
export function ChipPins() {
  const [name, setName] = useState<string | null>(null);
  const pins = LIBRARY.find((c) => c.name === name)?.pins ?? [];
  return (
    <>
      <p>Chips with a card, and what their pins are called:</p>
      <Choose
        aria-label="Chips with a card"
        placeholder="Choose a chip"
        value={name}
        options={LIBRARY.map((c) => ({ value: c.name, label: c.printed }))}
        onChange={setName}
      />
      {pins.length > 0 && <p className="num">{pins.map((pin, i) => `${i + 1} ${pin || '–'}`).join(' · ')}</p>}
      <p className="soft">Any other chip is written as a programmed one, with what the instructions say of it.</p>
    </>
  );
}
