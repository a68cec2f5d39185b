import { Hono } from 'hono';
import { streamSSE } from 'hono/streaming';
import type { Change, Changes } from '../http/changes.ts';
import { HttpProblem } from '../http/http-problem.ts';
import { type Network, onSignedOut } from '../network/sign-in.ts';

/** A silent connection is closed by what lies between; so often it says that it is there. */
const BEAT_ms = 15_000;

/** One stream of server-sent events for all that changes, each with its revision. */
export function changeRoutes(changes: Changes, network: Network | null): Hono {
  const routes = new Hono();
  routes.get('/', (context) => {
    if (changes.isFull) {
      throw new HttpProblem(503, 'Too many windows listen already. Ask now and then instead.', [], {
        'retry-after': '15',
      });
    }
    return streamSSE(context, async (stream) => {
      const waiting: Change[] = [];
      let wake = () => {};
      let open = true;
      const end = () => {
        open = false;
        wake();
      };
      const stop = changes.listen((change) => {
        waiting.push(change);
        wake();
      }, end);
      const forget = onSignedOut(context, network, end);
      stream.onAbort(end);
      try {
        await stream.writeSSE({ event: 'hello', data: '{}' });
        while (open) {
          for (const change of waiting.splice(0))
            await stream.writeSSE({ event: 'change', data: JSON.stringify(change) });
          if (waiting.length > 0 || !open) continue;
          const beat = await new Promise<boolean>((resolve) => {
            const timer = setTimeout(() => resolve(true), BEAT_ms);
            wake = () => {
              clearTimeout(timer);
              resolve(false);
            };
          });
          if (beat && open) await stream.write(': here\n\n');
        }
      } finally {
        forget();
        stop();
      }
    });
  });
  return routes;
}
