import { readFileSync } from 'node:fs';
import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { DEFAULT_LIMITS } from '@nibrel/core/model/limits';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { api } from '../app/client.ts';
import { outbox } from '../outbox/index.ts';
import * as threads from '../workers/compute.ts';
import { type Planned, Planner } from './planner.ts';
import { openSession } from './session.ts';

const map = JSON.parse(
  readFileSync(new URL('../../../docs/examples/sample.json', import.meta.url), 'utf8'),
) as DeviceMap;

/** A server that answers when it is told to. */
class SlowServer {
  readonly events: BenchEvent[] = [];
  readonly #answers: (() => void)[] = [];

  readonly append = (_id: string, [event]: readonly BenchEvent[]) =>
    new Promise<Awaited<ReturnType<typeof api.append>>>((resolve) => {
      this.#answers.push(() => {
        this.events.push(event!);
        resolve({
          accepted: [event!.id],
          duplicate: [],
          rejected: [],
          receivedAt: '2026-11-28T08:00:00Z',
          revision: this.events.length,
        });
      });
    });

  /** Answers what has come in, and what that lets come in, until nothing more does. */
  async answerAll() {
    do {
      this.#answers.shift()?.();
      await vi.advanceTimersByTimeAsync(1);
    } while (this.#answers.length > 0);
  }
}

let server: SlowServer;
let session: ReturnType<ReturnType<typeof openSession>['getState']>;
let state: () => ReturnType<ReturnType<typeof openSession>['getState']>;

beforeEach(async () => {
  vi.useFakeTimers();
  server = new SlowServer();
  const job = { id: 'j', map: map.id, mapRevision: 1, targets: [{ remove: map.parts[0]!.id }], policy: {}, title: 'T' };
  vi.spyOn(api, 'job').mockResolvedValue({
    ...job,
    limits: DEFAULT_LIMITS,
    createdAt: '2026-11-25T08:00:00Z',
  } as never);
  vi.spyOn(api, 'map').mockResolvedValue(map);
  vi.spyOn(api, 'events').mockImplementation(async () => ({ events: server.events, revision: server.events.length }));
  vi.spyOn(api, 'append').mockImplementation(server.append);
  const store = openSession('j', false);
  state = store.getState;
  session = store.getState();
  await session.load();
});

afterEach(() => {
  session.close();
  vi.restoreAllMocks();
  vi.useRealTimers();
});

const waiting = () => outbox.state.getState().waiting.length;
const texts = () => state().state!.inForce.map(({ data }) => (data as { text?: string }).text);

describe('a job open at this bench', () => {
  it('shows nothing as done before the server has said so', async () => {
    const sent = session.send('note', { text: 'dry' });
    await vi.advanceTimersByTimeAsync(1);
    expect(state().unsaved?.type).toBe('note');
    expect(texts()).toEqual([]);
    await server.answerAll();
    expect(await sent).toBe(true);
    expect(state().unsaved).toBeNull();
    expect(texts()).toEqual(['dry']);
  });

  it('lets what is asked for meanwhile wait its turn', async () => {
    const sent = [
      session.send('words', { text: 'fell down' }),
      session.send('measure', { thickness_mm: 8.4 }),
      session.send('note', { text: 'dry' }),
    ];
    expect(waiting()).toBe(3);
    await server.answerAll();
    expect(await Promise.all(sent)).toEqual([true, true, true]);
    expect(waiting()).toBe(0);
    expect(server.events.map(({ type }) => type)).toEqual(['words', 'measure', 'note']);
  });

  it('counts the same asked twice once', async () => {
    const sent = [session.send('note', { text: 'dry' }), session.send('note', { text: 'dry' })];
    await server.answerAll();
    expect(await Promise.all(sent)).toEqual([true, false]);
    expect(texts()).toEqual(['dry']);
  });

  it('takes back what was being saved, not what was before it', async () => {
    const first = session.send('words', { text: 'first' });
    await server.answerAll();
    await first;
    const sent = [session.send('words', { text: 'second' }), session.undo(), session.undo()];
    await server.answerAll();
    expect(await Promise.all(sent)).toEqual([true, true, false]);
    expect(texts()).toEqual(['first']);
  });

  it('goes on after a refusal, which says what was asked', async () => {
    const sent = [session.send('undo', { event: 'nothing' }), session.send('note', { text: 'dry' })];
    await server.answerAll();
    expect(await Promise.all(sent)).toEqual([false, true]);
    expect(texts()).toEqual(['dry']);
  });

  it('does not hide what was acknowledged while an older list was on its way', async () => {
    let answer: (all: Awaited<ReturnType<typeof api.events>>) => void = () => undefined;
    const first = session.send('words', { text: 'first' });
    await server.answerAll();
    await first;
    // the server seems to have fewer: it is asked for all, and takes its time
    vi.mocked(api.events)
      .mockResolvedValueOnce({ events: [], revision: 0 })
      .mockReturnValueOnce(new Promise((resolve) => (answer = resolve)));
    const refreshed = session.refresh();
    await vi.advanceTimersByTimeAsync(1);
    const sent = session.send('note', { text: 'dry' });
    await server.answerAll();
    expect(await sent).toBe(true);
    answer({ events: server.events.slice(0, 1), revision: 1 });
    await refreshed;
    expect(texts()).toEqual(['first', 'dry']);
  });

  it('asks nothing more once it was closed, also while it was loading', async () => {
    const other = openSession('j', false).getState();
    const loading = other.load();
    other.close();
    session.close();
    await loading;
    vi.mocked(api.events).mockClear();
    await vi.advanceTimersByTimeAsync(120_000);
    expect(api.events).not.toHaveBeenCalled();
  });
});

describe('the plan of a job', () => {
  it('is not made for ever where the thread fails: that is said, and nothing is planning', async () => {
    const said: Planned[] = [];
    vi.spyOn(threads, 'computeNow').mockReturnValue({ ahead: () => Promise.reject(new Error('gone')) } as never);
    const planner = new Planner(map, state().job!, [], (planned) => said.push(planned));
    planner.want(state().state!);
    await vi.advanceTimersByTimeAsync(500);
    expect(said.at(-1)).toEqual({ ahead: null, planning: false, problem: 'The plan could not be made: gone' });
  });
});
