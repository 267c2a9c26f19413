import { MenuOutlined, QuestionCircleOutlined, SearchOutlined } from '@ant-design/icons';
import { Button, Tooltip } from 'antd';
import Link from 'next/link';
import { lazy, memo, Suspense, useState } from 'react';
import type { Phase, PhaseProgress, WorkPhase } from '@/core/loop';
import styles from './Bench.module.css';
import { BESIDE, type CommandId, COMMANDS, titleOf } from './commands';
import { PhasePath } from './PhasePath';

interface Props {
  readonly title: string;
  readonly origin: string;
  /** Name of the meter in use. */
  readonly meter: string;
  readonly phase: Phase;
  readonly progress: Readonly<Record<WorkPhase, PhaseProgress>>;
  readonly go: (phase: Phase) => void;
  readonly run: (id: CommandId) => void;
}

/** The top of the bench: the kit, the path of the work, what stands beside it. */
export const Frame = memo(function Frame({ title, origin, meter, phase, progress, go, run }: Props) {
  return (
    <header className={styles.header}>
      <Link href="/" className={styles.kitName} title="Back to the shelf">
        {title}
        <small>{origin}</small>
      </Link>
      <PhasePath phase={phase} progress={progress} go={go} />
      <nav className={styles.beside} aria-label="Beside the work">
        {BESIDE.map((p) => (
          <Tooltip key={p} title={p === 'instruments' ? `In use: ${meter} · ${COMMANDS[p].shown}` : COMMANDS[p].shown}>
            <Button
              size="small"
              type="text"
              className={p === phase ? (styles.here ?? '') : ''}
              aria-current={p === phase ? 'page' : undefined}
              onClick={() => {
                go(p);
              }}
            >
              {titleOf(p)}
            </Button>
          </Tooltip>
        ))}
      </nav>
      <span className={styles.tools} data-tour="tools">
        <Tooltip title={`${COMMANDS.box.title} · ${COMMANDS.box.shown}`}>
          <Button
            type="text"
            icon={<SearchOutlined />}
            aria-label="Go to"
            onClick={() => {
              run('box');
            }}
          />
        </Tooltip>
        <Tooltip title={`${COMMANDS.help.title} · ${COMMANDS.help.shown}`}>
          <Button
            type="text"
            icon={<QuestionCircleOutlined />}
            aria-label="Keys"
            onClick={() => {
              run('help');
            }}
          />
        </Tooltip>
        <ComfortButton run={run} go={go} />
      </span>
    </header>
  );
});

const MENU = { type: 'text', icon: <MenuOutlined />, 'aria-label': 'Comfort and more' } as const;
/** The menu is fetched when a hand reaches for it. */
const ComfortMenu = lazy(() => import('./ComfortMenu').then((m) => ({ default: m.ComfortMenu })));

const ComfortButton = memo(function ComfortButton({ run, go }: Pick<Props, 'run' | 'go'>) {
  const [wanted, setWanted] = useState(false);
  return wanted ? (
    <Suspense fallback={<Button {...MENU} />}>
      <ComfortMenu run={run} go={go}>
        <Button {...MENU} />
      </ComfortMenu>
    </Suspense>
  ) : (
    <Button
      {...MENU}
      onClick={() => {
        setWanted(true);
      }}
    />
  );
});
