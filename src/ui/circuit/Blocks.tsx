import { Form } from 'antd';
import { useMemo, useState } from 'react';
import { type Block, BLOCK_GROUPS, BLOCKS, type BlockText, type Circuit, netsOf } from '@/core/circuit';
import type { Line } from '@/core/kit';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { FieldItem, initialText, nameRule, readFields, type Texts } from './blockFields';

interface Props {
  readonly lines: readonly Line[];
  readonly circuit: Circuit | null;
  readonly insert: (block: BlockText) => void;
}

/** Building blocks: refs and nets go in, a correct piece of circuit comes out. */
export function Blocks(props: Props) {
  const [block, setBlock] = useState<Block>(BLOCKS[0]!);
  return (
    <>
      <Form layout="vertical" component="div">
        <Form.Item label="Block" htmlFor="block">
          <Choose
            id="block"

            value={block.id}
            options={BLOCK_GROUPS.map((group) => ({ label: group.title, options: group.blocks.map((b) => ({ value: b.id, label: b.title })) }))}
            onChange={(id) => {
              setBlock(BLOCKS.find((b) => b.id === id)!);
            }}
          />
        </Form.Item>
      </Form>
      <p>{block.about}</p>
      <BlockForm key={block.id} block={block} {...props} />
    </>
  );
}

function BlockForm({ block, lines, circuit, insert }: Props & { readonly block: Block }) {
  const initial = useMemo(() => initialTexts(block, circuit), [block, circuit]);
  const [form] = Form.useForm<Texts>();
  const taken = new Set(circuit?.parts.map((p) => p.name.toLowerCase()));
  const refs = lines.flatMap((l) => l.refs);
  const nets = circuit ? netsOf(circuit) : ['0'];
  const refRule = nameRule((name) => (taken.has(name) || taken.has(`x${name}`) ? 'In the circuit already: choose another ref.' : null));
  const netRule = nameRule(() => null);
  const add = (texts: Texts) => {
    insert(block.build(readFields(block.fields, texts)));
  };
  return (
    <InlineForm<Texts> name="block" form={form} submit="Add it to the circuit" initial={initial} done={add}>
      {block.fields.map((f) => (
        <FieldItem key={f.key} field={f} names={f.type === 'net' ? nets : refs} rule={f.type === 'ref' ? refRule : netRule} />
      ))}
    </InlineForm>
  );
}

/** What a form starts with: refs that are still free, nets and values as the block proposes them. */
function initialTexts(block: Block, circuit: Circuit | null): Texts {
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
