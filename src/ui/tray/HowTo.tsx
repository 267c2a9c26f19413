import { QuestionCircleOutlined } from '@ant-design/icons';
import { Button, Popover } from 'antd';
import type { PartMode } from '@/core/vocabulary';

/** What a figure is and how it is taken (handbook knowledge; common practice, no source). */
const HELP: Readonly<Record<PartMode, { readonly title: string; readonly text: string }>> = {
  ohms: {
    title: 'Ohms out of circuit',
    text: 'Supply off, the part alone in the hand. Touch one leg only: your fingers are a resistor of some hundred kilohms. Below 10 Ω subtract what the leads show when they touch.',
  },
  capacitance: {
    title: 'Capacitance',
    text: 'Discharge the part first. Small values: press the meter’s zero key with the leads where they will be: the leads alone have some picofarads.',
  },
  inductance: { title: 'Inductance', text: 'The reading depends on the tester’s frequency. Compare small coils with a known one.' },
  diode: {
    title: 'Diode test',
    text: 'The meter sends about a milliampere and shows the volts that the junction drops: red on the anode. About 0.6 V silicon, 0.3 V Schottky or germanium, 1.6 to 3 V an LED, which then glows faintly. The other way round it shows OL.',
  },
  hfe: {
    title: 'hFE, the gain of a transistor',
    text: 'How many times the collector current is the base current. The socket of the meter measures it at a small current: order of legs as printed beside the socket. It may differ twofold between good pieces of one type; what tells is a value near zero or none.',
  },
};

/** Help beside the thing: what is this figure, and how is it measured? */
export function HowTo({ mode }: { mode: PartMode }) {
  const { title, text } = HELP[mode];
  return (
    <Popover trigger="click" placement="left" title={title} content={<p>{text}</p>} styles={{ root: { maxWidth: '22rem' } }}>
      <Button size="small" type="text" icon={<QuestionCircleOutlined />}>
        {title}: how to take it
      </Button>
    </Popover>
  );
}
