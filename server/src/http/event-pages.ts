import { setImmediate } from 'node:timers/promises';
import type { StoredEvent } from '../store/event-rows.ts';

/**
 * `{events, revision}` as a stream, page by page: a long job is never in memory whole, and keeps nobody waiting. An event
 * whose data can't be read is answered with empty data and marked.
 */
export function eventPages(pages: Generator<StoredEvent[]>, revision: number): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  let isFirst = true;
  return new ReadableStream({
    start: (controller) => controller.enqueue(encoder.encode('{"events":[')),
    pull: async (controller) => {
      await setImmediate();
      const { value: page, done } = pages.next();
      if (done) {
        controller.enqueue(encoder.encode(`],"revision":${revision}}`));
        return controller.close();
      }
      const text = page.map(textOf).join(',');
      controller.enqueue(encoder.encode(isFirst ? text : `,${text}`));
      isFirst = false;
    },
  });
}

function textOf({ id, type, at, by, data }: StoredEvent): string {
  const envelope = JSON.stringify({ id, type, at, by }).slice(0, -1);
  return isJson(data) ? `${envelope},"data":${data}}` : `${envelope},"data":{},"unreadable":true}`;
}

function isJson(text: string): boolean {
  try {
    return typeof JSON.parse(text) === 'object';
  } catch {
    return false;
  }
}
