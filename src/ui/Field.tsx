import { useId, useState } from 'react';
import { parseQuantity, printNominal, type Unit } from '@/core/quantity';

interface TextProps {
  readonly label: string;
  readonly value: string;
  readonly change: (value: string) => void;
  readonly hint?: string;
  readonly width?: number;
}

/** A labelled line of text. */
export function TextField({ label, value, change, hint, width }: TextProps) {
  const id = useId();
  return (
    <span className="field" style={width ? { width } : {}}>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        type="text"
        value={value}
        placeholder={hint}
        maxLength={200}
        spellCheck={false}
        onChange={(e) => {
          change(e.target.value);
        }}
      />
    </span>
  );
}

interface QuantityProps {
  readonly label: string;
  readonly unit: Unit | null;
  readonly value: number | null;
  readonly change: (value: number | null) => void;
  readonly hint?: string;
  readonly width?: number;
}

/** A labelled quantity as people write it; an unreadable one is answered below and changes nothing. */
export function QuantityField({ label, unit, value, change, hint, width }: QuantityProps) {
  const id = useId();
  const [text, setText] = useState(value === null ? '' : printNominal(value, unit));
  const parsed = text.trim() === '' ? null : parseQuantity(text, unit);
  const error = parsed && !parsed.ok ? parsed.message : null;
  return (
    <span className="field" style={width ? { width } : {}}>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        type="text"
        value={text}
        placeholder={hint}
        maxLength={40}
        spellCheck={false}
        aria-invalid={error !== null}
        aria-describedby={`${id}-error`}
        onChange={(e) => {
          setText(e.target.value);
          const next = e.target.value.trim() === '' ? null : parseQuantity(e.target.value, unit);
          if (next === null) change(null);
          else if (next.ok) change(next.value);
        }}
      />
      <span id={`${id}-error`} className="field-error">
        {error}
      </span>
    </span>
  );
}
