import { Button, Tooltip } from 'antd';
import { useComfort } from '../theme/comfort';
import { type CommandId, factsOfCommand } from '../shell/commands';
import styles from './ProbeBar.module.css';

/** A command with its key, where it acts. */
export function KeyButton({ command, text, run }: { command: CommandId; text: string; run: () => void }) {
  const { singleKeys } = useComfort();
  const { shown, title, single } = factsOfCommand(command);
  return (
    <Tooltip title={title}>
      <Button type="text" size="small" className={styles.key ?? ''} onClick={run}>
        {(!single || singleKeys) && <kbd>{shown}</kbd>} {text}
      </Button>
    </Tooltip>
  );
}
