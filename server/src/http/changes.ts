import { EventEmitter } from 'node:events';

/** Something that has changed on the disk: a job, the workshop, a device map, each with its new revision. */
export interface Change {
  readonly what: 'job' | 'shop' | 'map';
  readonly id: string;
  readonly revision: number;
}

/** More windows than this are not told by themselves; they ask. */
const MOST_LISTENERS = 64;

/** Tells every open window what has changed, so that none has to ask for whole lists again and again. */
export class Changes {
  readonly #emitter = new EventEmitter().setMaxListeners(MOST_LISTENERS + 1);
  #closed = false;

  tell(change: Change): void {
    this.#emitter.emit('change', change);
  }

  get isFull(): boolean {
    return this.#closed || this.#emitter.listenerCount('change') >= MOST_LISTENERS;
  }

  /** @returns how to stop listening */
  listen(onChange: (change: Change) => void, onClose: () => void): () => void {
    this.#emitter.on('change', onChange).on('close', onClose);
    return () => this.#emitter.off('change', onChange).off('close', onClose);
  }

  /** Streams end, so that a server can. */
  close(): void {
    this.#closed = true;
    this.#emitter.emit('close');
  }
}
