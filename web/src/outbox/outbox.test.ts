import { wrong } from '@nibrel/core/model/refusal';
import 'fake-indexeddb/auto';
import type { BenchEvent } from '@nibrel/core/job/events';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Appended } from '@nibrel/core/api';
import { Refused, Unreachable } from '../app/client.ts';
import { type Answer, Outbox } from './outbox.ts';
import { memoryShelf, openShelf, type Shelf } from './shelf.ts';

const note = (id: string) =>
  ({ id, type: 'note', at: '2026-11-28T08:00:00Z', by: 'Ines', data: { text: id } }) as BenchEvent;

/** A server that is away until it is said to be there, and takes every event once. */
class Server {
  isThere = true;
  readonly events: string[] = [];
  readonly refuses = new Map<string, Refused>();

  readonly post = async (_to: string, { id }: { readonly id: string }): Promise<Appended> => {
    if (!this.isThere) throw new Unreachable();
    const refusal = this.refuses.get(id);
    if (refusal) throw refusal;
    const isNew = !this.events.includes(id);
    if (isNew) this.events.push(id);
    return {
      accepted: isNew ? [id] : [],
      duplicate: isNew ? [] : [id],
      rejected: [],
      revision: this.events.length,
      receivedAt: '2026-11-28T08:00:00Z',
    };
  };
}

let server: Server;
let shelf: Shelf;
const answers: (readonly [string, Answer])[] = [];
const open = (window: string) =>
  new Outbox({ shelf, window, post: server.post, onAnswer: ({ id }, answer) => answers.push([id, answer]) });

beforeEach(() => {
  vi.useFakeTimers();
  server = new Server();
  shelf = memoryShelf();
  answers.length = 0;
});
afterEach(() => vi.useRealTimers());

describe('the outbox', () => {
  it('sends in the order of the presses, and says nothing is done before it is answered', async () => {
    server.isThere = false;
    const outbox = open('a');
    const sent = ['1', '2', '3'].map((id) => outbox.send('j', note(id)));
    await vi.advanceTimersByTimeAsync(4000);
    expect(outbox.state.getState()).toMatchObject({
      unreachable: true,
      waiting: [{ id: '1' }, { id: '2' }, { id: '3' }],
    });
    expect(answers).toEqual([]);
    server.isThere = true;
    await vi.advanceTimersByTimeAsync(4000);
    expect(await Promise.all(sent)).toMatchObject([{ revision: 1 }, { revision: 2 }, { revision: 3 }]);
    expect(server.events).toEqual(['1', '2', '3']);
    expect(outbox.state.getState()).toMatchObject({ unreachable: false, waiting: [] });
    expect(await shelf.all()).toEqual([]);
  });

  it('keeps what is unanswered when its window is killed, and the next window sends it once', async () => {
    server.isThere = false;
    const killed = open('killed');
    void killed.send('j', note('1'));
    void killed.send('shop', note('2'));
    await vi.advanceTimersByTimeAsync(10);
    killed.close();
    expect((await shelf.all()).map(({ id }) => id)).toEqual(['1', '2']);
    server.isThere = true;
    // it had come through: only its answer was lost
    server.events.push('1');
    const next = open('next');
    await next.resume(() => false);
    await vi.advanceTimersByTimeAsync(2000);
    expect(server.events).toEqual(['1', '2']);
    expect(await shelf.all()).toEqual([]);
  });

  it('leaves alone what a window sends that is still there', async () => {
    server.isThere = false;
    void open('other').send('j', note('1'));
    await vi.advanceTimersByTimeAsync(10);
    const next = open('next');
    await next.resume((window) => window === 'other');
    expect(next.state.getState().waiting).toEqual([]);
  });

  it('shows what came back refused from a window that is gone, until that is understood', async () => {
    server.isThere = false;
    const killed = open('killed');
    void killed.send('j', note('1'));
    await vi.advanceTimersByTimeAsync(10);
    killed.close();
    server.isThere = true;
    server.refuses.set('1', new Refused(422, 'This is done already.', []));
    const next = open('next');
    await next.resume(() => false);
    await vi.advanceTimersByTimeAsync(10);
    expect(next.state.getState().returned).toMatchObject([
      { letter: { id: '1' }, problem: wrong('', 'This is done already.') },
    ]);
    next.understood('1');
    expect(next.state.getState().returned).toEqual([]);
    await vi.advanceTimersByTimeAsync(10);
    expect(await shelf.all()).toEqual([]);
  });

  it('keeps in sight what was pressed while the server was away and is refused, in this window and the next', async () => {
    server.isThere = false;
    const outbox = open('a');
    const first = outbox.send('j', note('1'));
    await vi.advanceTimersByTimeAsync(10);
    const second = outbox.send('j', note('2'));
    server.refuses.set('1', new Refused(422, 'This is done already.', []));
    server.isThere = true;
    await vi.advanceTimersByTimeAsync(4000);
    expect(await first).toEqual({ problem: wrong('', 'This is done already.') });
    expect(await second).toMatchObject({ revision: 1 });
    // what is pressed next does not put it away
    await outbox.send('j', note('3'));
    expect(outbox.state.getState().returned).toMatchObject([
      { letter: { id: '1' }, problem: wrong('', 'This is done already.') },
    ]);
    outbox.close();
    const next = open('b');
    await next.resume(() => false);
    expect(next.state.getState().returned).toMatchObject([{ letter: { id: '1' } }]);
    next.understood('1');
    await vi.advanceTimersByTimeAsync(10);
    expect(await shelf.all()).toEqual([]);
  });

  it('leaves to its sender what was refused at once', async () => {
    const outbox = open('a');
    server.refuses.set('1', new Refused(422, 'This is done already.', []));
    expect(await outbox.send('j', note('1'))).toEqual({ problem: wrong('', 'This is done already.') });
    expect(outbox.state.getState().returned).toEqual([]);
  });

  it('asks a lead for the secret where that is all that is lacking, and sends it again', async () => {
    const asked: string[] = [];
    let isShown = false;
    const post = async (to: string, event: { readonly id: string }): Promise<Appended> => {
      const taken = await server.post(to, event);
      if (isShown) return taken;
      return {
        ...taken,
        accepted: [],
        rejected: [{ id: event.id, problem: 'a secret', ...wrong('by', 'a secret'), needs: 'secret' }],
      };
    };
    const confirm = async (person: string) => {
      asked.push(person);
      isShown = asked.length > 1;
      return isShown;
    };
    const outbox = new Outbox({ shelf, window: 'a', post, confirm });
    expect(await outbox.send('j', note('1'))).toEqual({ problem: wrong('by', 'a secret'), needs: 'secret' });
    expect(await outbox.send('j', note('2'))).toMatchObject({ revision: 2 });
    expect(asked).toEqual(['Ines', 'Ines']);
  });

  it('asks again where nobody is signed in or the server is full, and not where it is refused', async () => {
    const outbox = open('a');
    for (const status of [401, 429, 503]) {
      server.refuses.set('1', new Refused(status, 'later', []));
      const sent = outbox.send('j', note('1'));
      await vi.advanceTimersByTimeAsync(5000);
      const { waiting, signedOut, unreachable } = outbox.state.getState();
      expect([waiting.length, signedOut, unreachable]).toEqual([1, status === 401, status !== 401]);
      server.refuses.clear();
      await vi.advanceTimersByTimeAsync(2000);
      expect(await sent).toMatchObject({ revision: 1 });
    }
    server.refuses.set('2', new Refused(404, 'There is no such job.', []));
    expect(await outbox.send('j', note('2'))).toEqual({ problem: wrong('', 'There is no such job.') });
  });

  it('judges each in its turn, by what was taken until then, and settles before the next', async () => {
    const outbox = open('a');
    const seen: string[] = [];
    const first = outbox.send('j', note('1'), { settle: () => void seen.push('settled 1') });
    const second = outbox.send('j', note('2'), {
      judge: () => {
        seen.push('judged 2');
        return wrong('', 'Not yet.');
      },
    });
    await vi.advanceTimersByTimeAsync(10);
    expect(await first).toMatchObject({ revision: 1 });
    expect(await second).toEqual({ problem: wrong('', 'Not yet.') });
    expect(seen).toEqual(['settled 1', 'judged 2']);
    expect(server.events).toEqual(['1']);
    expect(answers.map(([id]) => id)).toEqual(['1', '2']);
  });

  it('has its shelf in the browser, where another window finds it', async () => {
    vi.useRealTimers();
    const letter = { id: '1', to: 'j', event: note('1'), window: 'a', order: 2 };
    await openShelf().put(letter);
    await openShelf().put({ ...letter, id: '0', order: 1 });
    expect((await openShelf().all()).map(({ id }) => id)).toEqual(['0', '1']);
    await openShelf().drop('0');
    expect(await openShelf().all()).toEqual([letter]);
  });
});
