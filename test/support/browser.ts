/** What the storage needs of a browser. A test process is one tab: a channel to others would keep it alive for ever. */
import 'fake-indexeddb/auto';

Reflect.deleteProperty(globalThis, 'BroadcastChannel');
