import { Form } from 'antd';
import { useState } from 'react';
import { type KitState, type Line, type Need, put } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { readList } from '@/core/partslist';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';

interface Values {
  readonly text: string;
  readonly slip?: string;
}

/** What a typed line is taken for: the same reader as for whole lists. */
type Read = { readonly need: Need } | { readonly line: Line };

function readLine(kit: KitState, text: string): Read | string {
  const { lines, needs } = readList(text, null);
  const [need] = needs;
  if (need) return { need: { ...need, id: `need-${newId().slice(0, 8)}` } };
  const [line] = lines;
  if (!line) return 'Write what it is, its value and its positions, such as: Resistor 10k R30. Or: links LK1-LK3.';
  const taken = line.refs.filter((r) => kit.sheet.lines.some((l) => l.refs.includes(r)));
  if (taken.length > 0) return `${taken.join(', ')} is on another line already. Remove it there first.`;
  // Links are bent from cut-off legs: they have positions and no pieces in the bag.
  return { line: { ...line, id: `line-${newId().slice(0, 8)}`, ...(line.kind === 'link' ? { quantity: 0 } : {}) } };
}

/** A line typed as sellers print it; a slip that amends the list, wire links and needs go in here as well. */
export function AddLine({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Values>();
  const [said, setSaid] = useState('');
  const add = ({ text, slip = '' }: Values) => {
    const read = readLine(kit, text);
    if (typeof read === 'string') return;
    if ('need' in read) {
      void append((k) => put(k, 'needs', read.need));
      setSaid(`Added to the needs: ${read.need.text}`);
    } else {
      void append((k) => put(k, 'lines', { ...read.line, ...(slip.trim() ? { amendment: slip.trim() } : {}) }));
      setSaid(`Added ${lineTitle(read.line)}.`);
    }
    form.setFieldValue('text', '');
  };
  return (
    <InlineForm<Values> name="add-line" form={form} submit="Add" done={add} said={said}>
      <TextItem
        name="text"
        label="Add a line"
        hint="Resistor 10k 1% R30, or: links LK1-LK3"
        wide="l"
        rules={[
          {
            validateTrigger: 'onSubmit',
            validator: (_, text: string | undefined) => {
              const read = readLine(kit, text ?? '');
              return typeof read === 'string' ? Promise.reject(new Error(read)) : Promise.resolve();
            },
          },
        ]}
      />
      <TextItem name="slip" label="From a slip that amends the list" hint="a resistor is missing on the board" wide="l" />
    </InlineForm>
  );
}
