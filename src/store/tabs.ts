import type { Entry, UnknownEntry } from '@/core/kit';

/** What tabs tell each other: the entries themselves. */
export interface TabMessage {
  readonly kit: string;
  readonly entries: readonly (Entry | UnknownEntry)[];
}

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('zesty-bench-4');

export const tellTabs = (message: TabMessage): void => channel?.postMessage(message);
export const onTabs = (hear: (message: TabMessage) => void): void => {
  channel?.addEventListener('message', (event: MessageEvent<TabMessage>) => {
    hear(event.data);
  });
};
