import { useStore } from 'zustand';
import { api } from '../app/client.ts';
import { sound } from '../app/feedback.ts';
import { confirmedByLead } from '../lead/index.ts';
import { Outbox, type OutboxState } from './outbox.ts';
import { openShelf, SHOP } from './shelf.ts';

export { SHOP } from './shelf.ts';

/** What is read off an instrument comes by itself, and is not sounded. */
const SILENT: ReadonlySet<string> = new Set(['heat-reading']);

const thisWindow = crypto.randomUUID();
/** A window holds the lock of its name for as long as it is there. */
const lockOf = (window: string) => `nibrel.window.${window}`;

/** The outbox of this window. */
export const outbox = new Outbox({
  shelf: openShelf(),
  window: thisWindow,
  post: (to, event) => (to === SHOP ? api.tellShop([event as never]) : api.append(to, [event as never])),
  confirm: confirmedByLead,
  onAnswer: ({ event }, answer) => {
    if (!SILENT.has(event.type)) sound('problem' in answer ? 'refused' : 'step');
  },
});

export function useOutbox<T>(select: (state: OutboxState) => T): T {
  return useStore(outbox.state, select);
}

/** Takes up what windows of this browser have left behind that are gone: closed, killed, crashed. */
export async function resumeLetters(): Promise<void> {
  if (!navigator.locks) return outbox.resume(() => false);
  void navigator.locks.request(lockOf(thisWindow), () => new Promise(() => undefined));
  const { held = [] } = await navigator.locks.query();
  const open = new Set(held.map(({ name }) => name));
  return outbox.resume((window) => open.has(lockOf(window)));
}
