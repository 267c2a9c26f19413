import { Select } from 'antd';
import { type KeyboardEvent, useState } from 'react';

interface Props {
  readonly options: readonly string[];
  readonly placeholder?: string;
  /** Handed through by the form. */
  readonly id?: string;
  readonly value?: readonly string[];
  readonly onChange?: (names: readonly string[]) => void;
}

/**
 * Several names, typed or chosen. Enter takes what was typed, in the spelling that is known (R1 for `r1`, never R10 for it); a
 * proposal is taken when an arrow led to it. Leaving the field takes what was typed and nothing else.
 */
export function Names({ options, value = [], onChange, ...props }: Props) {
  const [typed, setTyped] = useState('');
  const [led, setLed] = useState(false);
  const keys = (e: KeyboardEvent) => {
    if (e.key === 'ArrowDown' || e.key === 'ArrowUp') setLed(true);
    const name = typed.trim();
    if (e.key !== 'Enter' || e.repeat || led || name === '') return;
    const known = options.find((o) => o.toLowerCase() === name.toLowerCase()) ?? name;
    setTyped('');
    if (!value.includes(known)) onChange?.([...value, known]);
  };
  return (
    <Select
      mode="tags"
      defaultActiveFirstOption={false}
      tokenSeparators={[',', ' ', ';']}
      options={options.map((name) => ({ value: name }))}
      value={[...value]}
      onChange={(names) => {
        setTyped('');
        onChange?.(names);
      }}
      showSearch={{
        searchValue: typed,
        onSearch: (text) => {
          setTyped(text);
          setLed(false);
        },
      }}
      onInputKeyDown={keys}
      {...props}
    />
  );
}
