import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { Problem } from '../http/problem.ts';
import { MOST_MS } from './requests.ts';
import type { Answer, Task } from './worker.ts';

const THREADS = 2;
const QUEUE = 6;
/** Past its own limit a request gets this long to check its input and to write down the best it found. */
const GRACE_MS = 15_000;

/** Two threads behind a short queue. Health, jobs and events never come here. */
export class ComputePool {
  readonly #pool = new Piscina({
    filename: workerFile(),
    minThreads: 1,
    maxThreads: THREADS,
    resourceLimits: { maxOldGenerationSizeMb: 2048 },
  });

  #inHand = 0;

  /** @throws Problem 503 when the queue is full, 422 for what can't be computed, or not in time */
  async run(task: Task, limitMs: number): Promise<unknown> {
    if (this.#inHand >= THREADS + QUEUE) {
      throw new Problem(503, 'Both compute threads are busy and the queue is full.', [], { 'retry-after': '2' });
    }
    this.#inHand++;
    // a request's own time runs from its turn; those before it may take theirs
    const waitingTurns = 1 + Math.floor(this.#inHand / THREADS);
    const deadline = AbortSignal.timeout((Math.min(limitMs, MOST_MS) + GRACE_MS) * waitingTurns);
    let answer: Answer;
    try {
      answer = (await this.#pool.run(task, { signal: deadline })) as Answer;
    } catch (error) {
      if (deadline.aborted) throw new Problem(422, 'This takes longer than a request may. Send a smaller one.');
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new Problem(422, 'This takes more memory than a request may. Send a smaller one.');
      }
      throw error;
    } finally {
      this.#inHand--;
    }
    if ('refused' in answer) throw new Problem(422, answer.refused, answer.errors);
    return answer.value;
  }

  async close(): Promise<void> {
    await this.#pool.destroy();
  }
}

/** The worker runs as a built file, also where the server runs from source. */
function workerFile(): string {
  const beside = import.meta.url.endsWith('.ts') ? '../../dist/worker.js' : './worker.js';
  return fileURLToPath(new URL(beside, import.meta.url));
}
