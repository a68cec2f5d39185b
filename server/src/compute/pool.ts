import { wrong } from '@nibrel/core/model/refusal';
import { MOST_MS } from '@nibrel/core/api';
import { fileURLToPath } from 'node:url';
import { Piscina } from 'piscina';
import { HttpProblem } from '../http/http-problem.ts';
import type { Answer, Task } from './worker.ts';

interface PoolSize {
  readonly threads: number;
  /** so many threads wait for work from the start; the others come with it, and go when there was none for a while */
  readonly waiting: number;
  readonly queue: number;
  /** its threads take the cores that nobody else needs */
  readonly isPatient: boolean;
  /** past its own limit a request gets this long to check its input and to write down the best it found */
  readonly grace_ms: number;
}

/** For what is asked to be computed: long, and none of it is needed for the work in hand. */
const COMPUTE: PoolSize = { threads: 2, waiting: 1, queue: 6, isPatient: true, grace_ms: 15_000 };
/** For what is checked: short, and part of recording. Nothing else keeps it waiting. */
export const DESK: PoolSize = { threads: 1, waiting: 1, queue: 40, isPatient: false, grace_ms: 15_000 };
/** For pictures as they come in: one that takes longer is none. */
export const PICTURES: PoolSize = { threads: 1, waiting: 0, queue: 20, isPatient: false, grace_ms: 3000 };
/** For what is printed: a long report is not in a hurry, and holds up nothing but the next one. */
export const PRESS: PoolSize = { threads: 1, waiting: 0, queue: 8, isPatient: true, grace_ms: 30_000 };

/**
 * The pool first tries to `require` the worker, which is a module. Where Node allows that, and the thread is ended while
 * it does, Node 20 ends the whole process (*v8::Module::IsGraphAsync*). Without it the worker is imported, which is safe.
 */
const NO_REQUIRE_OF_MODULES = (process.features as { require_module?: boolean }).require_module
  ? ['--no-experimental-require-module']
  : [];

/** A thread that has had nothing to do for so long is ended. */
const IDLE_ms = 60_000;

/** Threads behind a short queue. Health, jobs and single events never come here. */
export class ComputePool {
  readonly #pool;
  readonly #size: PoolSize;
  #inHand = 0;

  constructor(size: PoolSize = COMPUTE) {
    this.#size = size;
    this.#pool = new Piscina<Task, Answer>({
      filename: workerFile(),
      minThreads: size.waiting,
      idleTimeout: IDLE_ms,
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

  /** @throws HttpProblem 503 when the queue is full, 422 for what can't be computed, or not in time */
  async run(task: Task, limitMs: number): Promise<unknown> {
    const { threads, queue, grace_ms } = this.#size;
    if (this.#inHand >= threads + queue) {
      throw new HttpProblem(503, 'Too much of this is asked for at once.', [], { 'retry-after': '2' });
    }
    this.#inHand++;
    // a request's own time runs from its turn; those before it may take theirs
    const waitingTurns = 1 + Math.floor(this.#inHand / threads);
    const deadline = AbortSignal.timeout((Math.min(limitMs, MOST_MS) + grace_ms) * waitingTurns);
    let answer: Answer;
    try {
      answer = await this.#pool.run(task, { signal: deadline });
    } catch (error) {
      if (deadline.aborted) throw HttpProblem.at(422, wrong('', 'This takes longer than a request may.', SMALLER));
      if ((error as { code?: string }).code === 'ERR_WORKER_OUT_OF_MEMORY') {
        throw HttpProblem.at(422, wrong('', 'This takes more memory than a request may.', SMALLER));
      }
      throw error;
    } finally {
      this.#inHand--;
    }
    if ('refused' in answer) throw new HttpProblem(answer.status ?? 422, answer.refused, answer.errors);
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

const SMALLER = 'Send a smaller one.';

/** The worker runs as a built file, also where the server runs from source. */
function workerFile(): string {
  const beside = import.meta.url.endsWith('.ts') ? '../../dist/worker.js' : './worker.js';
  return fileURLToPath(new URL(beside, import.meta.url));
}
