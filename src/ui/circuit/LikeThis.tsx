import { Form, Table, type TableProps } from 'antd';
import { useMemo, useState } from 'react';
import { connectionsOf } from '@/core/circuit';
import { type Beside, matchRoles, placeTemplate, type Role, rolesOf, type Template, TEMPLATE_GROUPS, TEMPLATES } from '@/core/draft';
import type { Line } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { printNominal } from '@/core/quantity';
import { factsOf } from '@/core/vocabulary';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { FieldItem, initialText, nameRule, readFields, type Texts } from './blockFields';
import styles from './Circuit.module.css';

const OWN = '~own';
const ABSENT = '~absent';

interface Props {
  readonly lines: readonly Line[];
  readonly deck: string;
  readonly insert: (deck: string, beside: Beside) => void;
}

/** A circuit like this one: a textbook circuit whose parts are matched to one's own list. */
export function LikeThis(props: Props) {
  const [template, setTemplate] = useState<Template>(TEMPLATES[0]!);
  const [said, setSaid] = useState<string | null>(null);
  return (
    <>
      <Form layout="vertical" component="div">
        <Form.Item label="Circuit" htmlFor="template">
          <Choose
            id="template"
            value={template.id}
            options={TEMPLATE_GROUPS.map((g) => ({ label: g.title, options: g.templates.map((t) => ({ value: t.id, label: t.title })) }))}
            onChange={(id) => {
              setTemplate(TEMPLATES.find((t) => t.id === id)!);
              setSaid(null);
            }}
          />
        </Form.Item>
      </Form>
      <p>{template.about}</p>
      <TemplateForm key={template.id} template={template} say={setSaid} {...props} />
      {said !== null && (
        <p role="status" className="soft">
          {said}
        </p>
      )}
    </>
  );
}

type Choices = Readonly<Record<string, string>>;

function TemplateForm({ template, lines, deck, insert, say }: Props & { readonly template: Template; readonly say: (text: string) => void }) {
  const initial = useMemo((): Texts => Object.fromEntries(template.fields.map((f) => [f.key, initialText(f)])), [template]);
  const [texts, setTexts] = useState(initial);
  const [chosen, setChosen] = useState<Choices>({});
  const text = useMemo(() => template.build(readFields(template.fields, texts)), [template, texts]);
  const roles = useMemo(() => rolesOf(text), [text]);
  const there = useMemo(() => connectionsOf(deck), [deck]);
  const nets = [...new Set(there.flatMap((c) => c.pins.map((p) => p.net)))];
  const proposed = useMemo(() => {
    const names = new Set(there.map((c) => c.name.toLowerCase()));
    const refs = lines.flatMap((l) => l.refs).filter((r) => ['', 'x', 'r', 'c', 'd', 'q', 'm', 'l'].some((letter) => names.has(`${letter}${r.toLowerCase()}`)));
    return matchRoles(roles, lines, new Set(refs));
  }, [roles, lines, there]);
  const absent = new Set(roles.map((r) => r.ref).filter((ref) => chosen[ref] === ABSENT));
  const filled = Object.fromEntries(
    roles.map(({ ref }) => [ref, chosen[ref] === OWN || absent.has(ref) ? null : (chosen[ref] ?? proposed[ref] ?? null)] as const),
  );
  const twice = Object.values(filled).filter((ref, i, all) => ref !== null && all.indexOf(ref) !== i);
  const done = (now: Texts) => {
    const values = readFields(template.fields, now);
    const shared = new Set(template.fields.filter((f) => f.type === 'net').map((f) => String(values[f.key]).toLowerCase()));
    const placed = placeTemplate(deck, template.build(values), lines, { filled, absent, shared });
    insert(placed.deck, { where: placed.points, looks: placed.looks });
    setChosen({});
    say(
      placed.beyond.length === 0
        ? `${template.title}: in the circuit.`
        : `${template.title}: in the circuit. The list has ${placed.beyond.length} parts beyond it: ${placed.beyond.slice(0, 12).join(', ')}${placed.beyond.length > 12 ? '…' : ''}. Add another circuit, or walk the drawing for the rest.`,
    );
  };
  return (
    <>
      <Table<Role>
        className={styles.roles ?? ''}
        size="small"
        rowKey="ref"
        pagination={false}
        columns={columnsOf(lines, filled, chosen, (role, ref) => {
          setChosen({ ...chosen, [role]: ref });
        })}
        dataSource={roles}
        aria-label="Parts of the circuit"
      />
      <InlineForm<Texts>
        name="template"
        submit="Put it into the circuit"
        initial={initial}
        changed={setTexts}
        disabled={twice.length > 0}
        done={done}
        said={twice.length > 0 ? `${twice.join(', ')} is used twice: choose another part for one of them.` : undefined}
      >
        {template.fields.map((f) => (
          <FieldItem key={f.key} field={f} names={nets} rule={nameRule(() => null)} />
        ))}
      </InlineForm>
    </>
  );
}

function columnsOf(
  lines: readonly Line[],
  filled: Readonly<Record<string, string | null>>,
  chosen: Choices,
  choose: (role: string, ref: string) => void,
): NonNullable<TableProps<Role>['columns']> {
  return [
    {
      title: 'in the template',
      key: 'job',
      rowScope: 'row',
      render: (_, r) => `${r.job}${r.value === null ? '' : `, ${printNominal(r.value, unitOfRole(r))}`}`,
    },
    {
      title: 'your part',
      key: 'part',
      width: 240,
      render: (_, r) => {
        const fitting = lines.filter((l) => r.kinds.includes(l.kind)).flatMap((l) => l.refs.map((ref) => ({ value: ref, label: `${ref} ${lineTitle(l)}` })));
        return (
          <Choose
            className={styles.pickWide ?? ''}
            aria-label={`Part for ${r.job} ${r.ref}`}
            value={chosen[r.ref] === ABSENT ? ABSENT : (filled[r.ref] ?? OWN)}
            options={[...fitting, { value: OWN, label: 'a part as in the template' }, { value: ABSENT, label: 'not on this board' }]}
            onChange={(ref) => {
              choose(r.ref, ref);
            }}
          />
        );
      },
    },
  ];
}

const unitOfRole = (r: Role) => factsOf(r.kinds[0]!).unit;
