import { QuestionCircleOutlined } from '@ant-design/icons';
import { Button, Flex, Form, Popover } from 'antd';
import { type EntryOf, figuresOf, judgeFigure, type KitState, type PartFigure } from '@/core/kit';
import { figureHelp } from '@/core/loop';
import { print } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { VerdictMark } from '../drawn/VerdictMark';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { displayRule, readDisplay, required } from '../form/rules';
import type { Loop } from '../probe/useLoop';
import zones from '../shell/zones.module.css';
import styles from './Figures.module.css';

/** By what else the piece in hand is told good: each figure with how to take it, its limits and its verdict. */
export function Figures({ kit, loop }: { kit: KitState; loop: Loop }) {
  const target = loop.target?.kind === 'piece' ? loop.target : null;
  const figures = target ? figuresOf(target.line) : [];
  if (!target || figures.length === 0) return null;
  const taken = kit.tallies.get(target.line.id)?.figures.get(target.piece);
  return (
    <section aria-label="Further figures">
      <h2 className={`${zones.label} ${zones.section}`}>Further checks for this part</h2>
      {figures.map((f) => (
        <FigureRow key={`${target.id}-${f.id}`} kit={kit} figure={f} target={target} entry={taken?.get(f.id) ?? null} />
      ))}
    </section>
  );
}

type PieceTarget = Extract<NonNullable<Loop['target']>, { kind: 'piece' }>;

function FigureRow({ kit, figure, target, entry }: { kit: KitState; figure: PartFigure; target: PieceTarget; entry: EntryOf<'figured'> | null }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<{ reading?: string }>();
  const help = figureHelp(figure, target.line);
  const write = (reading: number | 'over' | null, good?: boolean) => {
    void append({
      kind: 'figured',
      line: target.line.id,
      piece: target.piece,
      ...(target.ref ? { ref: target.ref } : {}),
      figure: figure.id,
      reading,
      ...(good === undefined ? {} : { good }),
      meter: kit.settings.meter,
    });
  };
  const verdict = entry ? judgeFigure(figure, entry) : 'none';
  return (
    <div className={styles.figure}>
      <Flex gap="small" align="center" wrap>
        <VerdictMark verdict={verdict} size={15} />
        <b>{help.title}</b>
        <span className="num">
          {entry?.reading === undefined || entry.reading === null ? '' : entry.reading === 'over' ? 'OL' : print(entry.reading, figure.unit)}
        </span>
        <small className="soft">{limitsText(figure)}</small>
        <Popover trigger="click" placement="left" title={help.title} content={<How help={help} />} styles={{ root: { maxWidth: '22rem' } }}>
          <Button size="small" type="text" icon={<QuestionCircleOutlined />} aria-label={`How to take it: ${help.title}`} />
        </Popover>
      </Flex>
      {figure.unit === null ? (
        <Flex gap="small">
          <Button
            size="small"
            aria-label={`${help.title}: good`}
            onClick={() => {
              write(null, true);
            }}
          >
            good
          </Button>
          <Button
            size="small"
            aria-label={`${help.title}: not so`}
            onClick={() => {
              write(null, false);
            }}
          >
            not so
          </Button>
        </Flex>
      ) : (
        <InlineForm<{ reading?: string }>
          name={`figure-${figure.id}`}
          form={form}
          submit="Keep"
          done={({ reading }) => {
            const read = readDisplay(reading, figure.unit!);
            if (read === null) return;
            write(read);
            form.resetFields();
          }}
        >
          <TextItem name="reading" label={`Reading, ${help.title}`} wide="s" rules={[required('Type what it reads.'), displayRule(figure.unit)]} />
        </InlineForm>
      )}
    </div>
  );
}

function How({ help }: { help: ReturnType<typeof figureHelp> }) {
  return (
    <>
      <p>{help.how}</p>
      {help.tester && <p>With a component tester: {help.tester}</p>}
      <p className="soft">Limits: {help.from}.</p>
    </>
  );
}

function limitsText({ limits, unit }: PartFigure): string {
  if (!limits) return '';
  const { low, high } = limits;
  if (low === null) return high === null ? '' : `at most ${print(high, unit, 3)}`;
  return high === null ? `at least ${print(low, unit, 3)}` : `${print(low, unit, 3)} to ${print(high, unit, 3)}`;
}
