import { BgColorsOutlined, CheckOutlined, FontSizeOutlined, SoundOutlined } from '@ant-design/icons';
import { Dropdown, type MenuProps } from 'antd';
import { type ReactElement, useState } from 'react';
import type { Phase } from '@/core/loop';
import { setComfort, TEXT_SIZES, useComfort } from '../theme/comfort';
import styles from './Bench.module.css';
import { BESIDE, type CommandId, factsOfCommand, titleOf } from './commands';

interface Props {
  readonly run: (id: CommandId) => void;
  readonly go: (phase: Phase) => void;
  /** What opens it. */
  readonly children: ReactElement;
}

/** How one likes the bench, and on a small screen also what stands beside the work. */
export function ComfortMenu({ run, go, children }: Props) {
  const [open, setOpen] = useState(true);
  const { theme, text, singleKeys, calm, speak, tones, awake, far } = useComfort();
  const items: MenuProps['items'] = [
    ...BESIDE.map((p) => ({
      key: p,
      label: titleOf(p),
      className: styles.onlySmall ?? '',
      onClick: () => {
        go(p);
      },
    })),
    {
      key: 'theme',
      icon: <BgColorsOutlined />,
      label: 'Light or dim',
      children: (
        [
          ['light', 'Light'],
          ['dim', 'Dim'],
          ['system', 'As the system'],
        ] as const
      ).map(([value, label]) => ({
        key: `theme-${value}`,
        label,
        ...(theme === value ? { extra: <CheckOutlined aria-label="chosen" /> } : {}),
        onClick: () => {
          setComfort({ theme: value });
        },
      })),
    },
    {
      key: 'text',
      icon: <FontSizeOutlined />,
      label: `Size of text, ${text} %`,
      children: TEXT_SIZES.map((size) => ({
        key: `text-${size}`,
        label: `${size} %`,
        ...(size === text ? { extra: <CheckOutlined aria-label="chosen" /> } : {}),
        onClick: () => {
          setComfort({ text: size });
        },
      })),
    },
    {
      key: 'letters',
      label: singleKeys ? 'Switch single-letter keys off' : 'Switch single-letter keys on',
      onClick: () => {
        setComfort({ singleKeys: !singleKeys });
      },
    },
    {
      key: 'calm',
      label: calm ? 'Allow motion' : 'No motion',
      onClick: () => {
        setComfort({ calm: !calm });
      },
    },
    {
      key: 'hands',
      icon: <SoundOutlined />,
      label: 'Hands free',
      children: (
        [
          ['speak', 'Speak verdict and next target', speak],
          ['tones', 'A tone for each verdict', tones],
          ['far', 'Large figures, for two metres', far],
          ['awake', 'Keep the screen on', awake],
        ] as const
      ).map(([key, label, on]) => ({
        key: `hands-${key}`,
        label,
        ...(on ? { extra: <CheckOutlined aria-label="on" /> } : {}),
        onClick: () => {
          setComfort({ [key]: !on });
        },
      })),
    },
    {
      key: 'tour',
      label: factsOfCommand('tour').title,
      onClick: () => {
        run('tour');
      },
    },
  ];
  return (
    <Dropdown trigger={['click']} menu={{ items }} open={open} onOpenChange={setOpen}>
      {children}
    </Dropdown>
  );
}
