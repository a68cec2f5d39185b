/** Something that has changed on the server's disk, with its new revision. */
interface Change {
  readonly what: 'job' | 'shop' | 'map';
  readonly id: string;
  readonly revision: number;
}

type Listener = (change: Change) => void;

const listeners = new Set<Listener>();
let started = false;

/** Told of every change; the first listener opens the stream. @returns how to stop */
export function onChange(listener: Listener): () => void {
  listeners.add(listener);
  if (!started) start();
  return () => listeners.delete(listener);
}

/**
 * One window of a browser holds the stream and tells the others: a browser opens few connections to one server, and
 * every window would keep one for good.
 */
function start(): void {
  started = true;
  const tell = (change: Change) => listeners.forEach((listener) => listener(change));
  if (!('EventSource' in globalThis)) return;
  if (!navigator.locks || !('BroadcastChannel' in globalThis)) return void listen(tell);
  const channel = new BroadcastChannel('nibrel.changes');
  channel.addEventListener('message', ({ data }) => tell(data as Change));
  void navigator.locks.request('nibrel.changes', () => {
    listen((change) => {
      tell(change);
      // to the windows of this browser, all of this server: a channel has no other
      channel.postMessage(change); // oxlint-disable-line unicorn/require-post-message-target-origin
    });
    // held until the window is gone
    return new Promise(() => undefined);
  });
}

function listen(tell: Listener): void {
  const stream = new EventSource('/api/v1/changes');
  stream.addEventListener('change', ({ data }) => tell(JSON.parse(data as string) as Change));
}
