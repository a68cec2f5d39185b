import { setImmediate } from 'node:timers/promises';
import { eventOf, type StoredEvent } from '../store/event-rows.ts';

/**
 * `{events, revision}` as a stream, page by page: a long job is never in memory whole, and keeps nobody waiting. An event
 * whose data can't be read is answered with empty data and marked.
 */
export function eventPages(pages: Generator<StoredEvent[]>, revision: number): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  // read before anything is answered: a disk that does not give it is a problem like any other
  let next = pages.next();
  let isFirst = true;
  return new ReadableStream({
    start: (controller) => controller.enqueue(encoder.encode('{"events":[')),
    pull: async (controller) => {
      await setImmediate();
      const { value: page, done } = next;
      if (done) {
        controller.enqueue(encoder.encode(`],"revision":${revision}}`));
        return controller.close();
      }
      const text = page.map((row) => JSON.stringify(eventOf(row))).join(',');
      controller.enqueue(encoder.encode(isFirst ? text : `,${text}`));
      isFirst = false;
      next = pages.next();
    },
  });
}
