import { MOST_MS } from '@nibrel/core/api';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { Problem } from '../http/problem.ts';
import type { Answer, Task } from './worker.ts';

interface PoolSize {
  readonly threads: number;
  readonly queue: number;
  /** its threads take the cores that nobody else needs */
  readonly isPatient: boolean;
}

/** For what is asked to be computed: long, and none of it is needed for the work in hand. */
const COMPUTE: PoolSize = { threads: 2, queue: 6, isPatient: true };
/** For what is checked and drawn: short, and part of recording. Computing never keeps it waiting. */
export const DESK: PoolSize = { threads: 1, queue: 40, isPatient: false };
/** Past its own limit a request gets this long to check its input and to write down the best it found. */
const GRACE_MS = 15_000;

/**
 * The pool first tries to `require` the worker, which is a module. Where Node allows that, and the thread is ended while
 * it does, Node 20 ends the whole process (*v8::Module::IsGraphAsync*). Without it the worker is imported, which is safe.
 */
const NO_REQUIRE_OF_MODULES = (process.features as { require_module?: boolean }).require_module
  ? ['--no-experimental-require-module']
  : [];

/** Threads behind a short queue. Health, jobs and single events never come here. */
export class ComputePool {
  readonly #pool;
  readonly #size: PoolSize;
  #inHand = 0;

  constructor(size: PoolSize = COMPUTE) {
    this.#size = size;
    this.#pool = new Piscina<Task, Answer>({
      filename: workerFile(),
      minThreads: 1,
      maxThreads: size.threads,
      workerData: { isPatient: size.isPatient },
      resourceLimits: { maxOldGenerationSizeMb: 2048 },
      execArgv: NO_REQUIRE_OF_MODULES,
    });
  }

  /** Is a thread free for what nobody waits for? */
  get isIdle(): boolean {
    return this.#inHand === 0;
  }

  /** @throws Problem 503 when the queue is full, 422 for what can't be computed, or not in time */
  async run(task: Task, limitMs: number): Promise<unknown> {
    const { threads, queue } = this.#size;
    if (this.#inHand >= threads + queue) {
      throw new Problem(503, 'All compute threads are busy and the queue is full.', [], { 'retry-after': '2' });
    }
    this.#inHand++;
    // a request's own time runs from its turn; those before it may take theirs
    const waitingTurns = 1 + Math.floor(this.#inHand / threads);
    const deadline = AbortSignal.timeout((Math.min(limitMs, MOST_MS) + GRACE_MS) * waitingTurns);
    let answer: Answer;
    try {
      answer = await this.#pool.run(task, { signal: deadline });
    } catch (error) {
      if (deadline.aborted)
        throw new Problem(422, 'This takes longer than a request may. Send a smaller one.', [TOO_MUCH]);
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw new Problem(422, 'This takes more memory than a request may. Send a smaller one.', [TOO_MUCH]);
      }
      throw error;
    } finally {
      this.#inHand--;
    }
    if ('refused' in answer) throw new Problem(answer.status ?? 422, answer.refused, answer.errors);
    return answer.value;
  }

  /** The answer as the bytes of its JSON: a thread writes them, and nobody waits for that. */
  async answer(task: Task, limitMs: number): Promise<Uint8Array<ArrayBuffer>> {
    return (await this.run({ ...task, asText: true }, limitMs)) as Uint8Array<ArrayBuffer>;
  }

  async close(): Promise<void> {
    await this.#pool.destroy();
  }
}

const TOO_MUCH = { path: 'body', message: 'Send less in one request.' };

/** The worker runs as a built file, also where the server runs from source. */
function workerFile(): string {
  const beside = import.meta.url.endsWith('.ts') ? '../../dist/worker.js' : './worker.js';
  return fileURLToPath(new URL(beside, import.meta.url));
}
