import { App, Button, Flex } from 'antd';
import { useEffect, useRef } from 'react';
import { isOfMaking, type KitState, stands } from '@/core/kit';
import { entryText } from '@/core/loop';
import { useBench } from '@/store/bench';

/** Entries of the loop: their verdict stands in the probe bar, with the way back beside it. */
const SAID_ELSEWHERE = new Set([
  'counted',
  'measured',
  'read',
  'probed',
  'observed',
  'fitted',
  'loose',
  'marked',
  'skipped',
  'withdrawn',
  'prepared',
  'inspected',
  'traced',
]);
const SECONDS = 6;
const KEY = 'changed';

/** After every change that the probe bar does not tell: what was done, and the way back. */
export function useUndoMessages(kit: KitState): void {
  const { message } = App.useApp();
  const written = useBench((s) => s.written);
  const told = useRef(written);
  useEffect(() => {
    if (told.current === written) return;
    told.current = written;
    const [first] = written;
    if (!first || SAID_ELSEWHERE.has(first.kind) || isOfMaking(kit, first) || !stands(kit, first)) return;
    const text = entryText(kit, first);
    const more = written.length > 1 ? ` and ${written.length - 1} more` : '';
    void message.open({
      key: KEY,
      duration: SECONDS,
      content: (
        <Flex gap="small" align="center" component="span">
          <span>
            {text.length > 90 ? `${text.slice(0, 88)}…` : text}
            {more}
          </span>
          <Button
            size="small"
            onClick={() => {
              message.destroy(KEY);
              void useBench.getState().undo();
            }}
          >
            Undo
          </Button>
        </Flex>
      ),
    });
  }, [written, kit, message]);
}
