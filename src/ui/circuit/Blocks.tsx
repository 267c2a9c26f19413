import { useState } from 'react';
import { type Block, BLOCK_GROUPS, type BlockField, BLOCKS, type BlockText, type Circuit, type FieldType, netsOf } from '@/core/circuit';
import { type KitState } from '@/core/kit';
import { parseQuantity, printNominal, type Unit } from '@/core/quantity';

const UNIT: Readonly<Partial<Record<FieldType, Unit>>> = { ohm: 'ohm', F: 'F', H: 'H', V: 'V', A: 'A', Hz: 'Hz' };
const COLOURS = ['red', 'green', 'yellow', 'orange', 'blue', 'white', 'infrared'];
const STATES: Readonly<Record<string, readonly string[]>> = { closed: ['closed', 'open'], open: ['open', 'closed'], high: ['high', 'low'] };

/** Building blocks: refs and nets go in, a correct piece of circuit comes out. */
export function Blocks({ kit, circuit, insert }: { kit: KitState; circuit: Circuit | null; insert: (block: BlockText) => void }) {
  const [block, setBlock] = useState<Block>(BLOCKS[0]!);
  return (
    <>
      <span className="field" style={{ width: '100%' }}>
        <label htmlFor="block">Block</label>
        <select
          id="block"
          value={block.id}
          onChange={(e) => {
            setBlock(BLOCKS.find((b) => b.id === e.target.value)!);
          }}
        >
          {BLOCK_GROUPS.map((group) => (
            <optgroup key={group.title} label={group.title}>
              {group.blocks.map((b) => (
                <option key={b.id} value={b.id}>
                  {b.title}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
      </span>
      <p style={{ margin: '8px 0' }}>{block.about}</p>
      <BlockForm key={block.id} block={block} kit={kit} circuit={circuit} insert={insert} />
    </>
  );
}

function BlockForm({ block, kit, circuit, insert }: { block: Block; kit: KitState; circuit: Circuit | null; insert: (block: BlockText) => void }) {
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>(() => initialTexts(block, circuit));
  const values = readFields(block, texts);
  const taken = new Set(circuit?.parts.map((p) => p.name.toLowerCase()));
  const clash = block.fields.filter((f) => f.type === 'ref' && (taken.has(texts[f.key]!.toLowerCase()) || taken.has(`x${texts[f.key]!.toLowerCase()}`)));
  const refs = kit.sheet.lines.flatMap((l) => l.refs);
  const nets = circuit ? netsOf(circuit) : ['0'];
  const error =
    typeof values === 'string'
      ? values
      : clash.length > 0
        ? `${clash.map((f) => texts[f.key]!).join(', ')} is in the circuit already: choose another ref.`
        : null;
  return (
    <form
      className="inline-form"
      onSubmit={(e) => {
        e.preventDefault();
        if (error === null && typeof values !== 'string') insert(block.build(values));
      }}
    >
      <datalist id="block-refs">
        {refs.map((r) => (
          <option key={r} value={r} />
        ))}
      </datalist>
      <datalist id="block-nets">
        {nets.map((net) => (
          <option key={net} value={net} />
        ))}
      </datalist>
      {block.fields.map((f) => (
        <Field
          key={f.key}
          f={f}
          text={texts[f.key]!}
          set={(text) => {
            setTexts((t) => ({ ...t, [f.key]: text }));
          }}
        />
      ))}
      <button type="submit" className="plain" disabled={error !== null}>
        Add it to the circuit
      </button>
      <p className="field-error" role="status" style={{ flexBasis: '100%' }}>
        {error}
      </p>
    </form>
  );
}

/** What a form starts with: refs that are still free, nets and values as the block proposes them. */
function initialTexts(block: Block, circuit: Circuit | null): Record<string, string> {
  const taken = new Set(circuit?.parts.map((p) => p.name.split('.')[0]!.toLowerCase()));
  const free = (wanted: string) => {
    const letters = wanted.replace(/\d+$/, '');
    let number = Number(/\d+$/.exec(wanted)?.[0] ?? 1);
    const used = () => ['', 'x', 'd', 'r', 'q', 'm'].some((prefix) => taken.has(`${prefix}${letters}${number}`.toLowerCase()));
    while (used()) number++;
    taken.add(`${letters}${number}`.toLowerCase());
    return `${letters}${number}`;
  };
  return Object.fromEntries(block.fields.map((f) => [f.key, f.type === 'ref' ? free(String(f.initial)) : initialText(f)]));
}

const initialText = (f: BlockField) => (typeof f.initial === 'string' ? f.initial : printNominal(f.initial, UNIT[f.type] ?? null));

function Field({ f, text, set }: { f: BlockField; text: string; set: (text: string) => void }) {
  const options = f.type === 'colour' ? COLOURS : f.type === 'state' ? STATES[String(f.initial)] : undefined;
  const id = `block-${f.key}`;
  return (
    <span className="field" style={{ width: f.type === 'ref' ? 84 : 124 }}>
      <label htmlFor={id}>{f.label}</label>
      {options ? (
        <select
          id={id}
          value={text}
          onChange={(e) => {
            set(e.target.value);
          }}
        >
          {options.map((o) => (
            <option key={o}>{o}</option>
          ))}
        </select>
      ) : (
        <input
          id={id}
          type="text"
          value={text}
          maxLength={40}
          list={f.type === 'net' ? 'block-nets' : f.type === 'ref' ? 'block-refs' : undefined}
          onChange={(e) => {
            set(e.target.value);
          }}
        />
      )}
    </span>
  );
}

/** Values of all fields, or what is wrong with the first bad one. */
function readFields(block: Block, texts: Readonly<Record<string, string>>): Record<string, string | number> | string {
  const values: Record<string, string | number> = {};
  for (const f of block.fields) {
    const text = texts[f.key]!.trim();
    if (f.type === 'ref' || f.type === 'net') {
      if (!/^[A-Za-z0-9_+-]+$/.test(text)) return `${f.label}: a name has letters and digits, nothing else.`;
      values[f.key] = text;
    } else if (f.type === 'colour' || f.type === 'state') values[f.key] = text;
    else {
      const parsed = parseQuantity(text, UNIT[f.type] ?? null);
      if (!parsed.ok) return `${f.label}: ${parsed.message}.`;
      values[f.key] = parsed.value;
    }
  }
  return values;
}
