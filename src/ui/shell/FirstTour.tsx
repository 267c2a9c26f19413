import { Tour, type TourProps } from 'antd';
import { setComfort } from '../theme/comfort';

const at = (name: string) => () => document.querySelector<HTMLElement>(`[data-tour="${name}"]`) ?? document.body;

const STEPS: NonNullable<TourProps['steps']> = [
  {
    title: 'The probe bar asks for one thing at a time',
    description: 'Shows the part, the meter setting and the expected value. Type what the meter shows, press Enter: the verdict appears on the right.',
    target: at('probe'),
    placement: 'top',
  },
  {
    title: 'The tray fills as you count and measure',
    description: 'One compartment a line. A square means out of range, a diamond borderline, a disc OK. Choose any compartment to measure it next.',
    target: at('tray'),
    placement: 'center',
  },
  {
    title: 'Why, and what to do next',
    description: 'What a deviation does to your board, what is missing, what to write to the seller.',
    target: at('why'),
    placement: 'left',
  },
  {
    title: 'Everything has a key',
    description:
      'Ctrl K goes to any part, net, check or view; ? lists all keys; Ctrl Z takes the last entry back. Text size and the dim bench are in the menu.',
    target: at('tools'),
    placement: 'bottomRight',
  },
];

/** Around the bench in four steps, once. */
export function FirstTour({ close }: { close: () => void }) {
  const done = () => {
    setComfort({ toured: true });
    close();
  };
  return <Tour open mask={false} steps={STEPS} onClose={done} onFinish={done} />;
}
