import { type Ahead, doneStep, followed } from '@nibrel/core/in-hand';
import {
  type BenchEvent,
  type EventData,
  type EventType,
  foldJob,
  type Job,
  type JobState,
  lastToUndo,
  undoProblem,
  withEvent,
} from '@nibrel/core/job';
import type { DeviceMap } from '@nibrel/core/device-map';
import { type Mechanism, mechanismOf } from '@nibrel/core/holds';
import type { Op } from '@nibrel/core/drafts';
import { UNNAMED } from '@nibrel/core/shop';
import { createStore, type StoreApi } from 'zustand';
import { onChange } from '../app/changes.ts';
import { api, type BeforeThis, jobOf, Refused, Unreachable } from '../app/client.ts';
import { useSettings } from '../app/settings.ts';
import { Planner } from './planner.ts';

/** A job open at this bench. What is shown as done has been acknowledged by the server, and so is on its disk. */
export interface Session {
  readonly phase: 'loading' | 'ready' | 'failed';
  readonly failure: string | null;
  readonly job: Job | null;
  readonly map: DeviceMap | null;
  readonly mechanism: Mechanism | null;
  readonly state: JobState | null;
  /** the last repair of this device, where it was stopped */
  readonly before: BeforeThis | null;
  /** what is still to be done from this state, in order; null while that is being found out, and where it can't be */
  readonly ahead: Ahead | null;
  /** the plan before, while that of this state is being found out: what needs no step in hand may show it */
  readonly lastAhead: Ahead | null;
  readonly planning: boolean;
  readonly planProblem: string | null;
  /** the event that waits for the server; what is asked for meanwhile waits its turn */
  readonly unsaved: BenchEvent | null;
  /** how much has been asked for and is not on the server's disk yet */
  readonly unsavedCount: number;
  readonly unreachable: boolean;
  /** why the last thing asked for was refused, and what was asked */
  readonly refusal: { readonly problem: string; readonly asked: BenchEvent | null } | null;

  load(): Promise<void>;
  /** fetches what other windows have added */
  refresh(): Promise<void>;
  /** @param by who says it, where that is not who is at the bench: a lead who decides */
  send<Type extends EventType>(type: Type, data: EventData[Type], by?: string): Promise<boolean>;
  step(op: Op): Promise<boolean>;
  undo(): Promise<boolean>;
  /** plans again from here, where that failed */
  planAgain(): void;
  dismiss(): void;
  close(): void;
}

const RETRY_MS = 1500;
/** The server tells by itself what has changed; this is for when its stream is gone. */
const REFRESH_MS = 15_000;

/** @param plans false where nothing is shown of the plan, so that nothing is computed for it */
export function openSession(id: string, plans: boolean): StoreApi<Session> {
  let closed = false;
  let planner: Planner | null = null;
  let timer: ReturnType<typeof setInterval> | undefined;
  let unlisten = () => {};

  const store = createStore<Session>()((set, get) => {
    /** A state with the plan that belongs to it: the rest of the one before, or one that is made. */
    const show = (state: JobState, ahead: Ahead | null) => {
      set({ state, ahead, planning: false, planProblem: null, ...(ahead ? { lastAhead: ahead } : {}) });
      if (ahead) planner?.settled();
      else planner?.want(state);
    };

    const fold = (events: readonly BenchEvent[]) => {
      const { mechanism, job } = get();
      show(foldJob(mechanism!, job!, events), null);
    };

    /** What other windows have added; one step of the plan is followed like one's own. */
    const take = (before: JobState, more: readonly BenchEvent[]) => {
      const { mechanism, job, ahead } = get();
      const state = foldJob(mechanism!, job!, [...before.events, ...more]);
      const [only] = more;
      show(state, more.length === 1 && only && ahead ? followed(ahead, only, state) : null);
    };

    /** Waits for the acknowledgement, however long the server is away. */
    const acknowledged = async (event: BenchEvent) => {
      for (;;) {
        try {
          const answer = await api.append(id, [event]);
          set({ unreachable: false });
          return answer;
        } catch (error) {
          if (error instanceof Refused && error.status < 500) {
            return { accepted: [], duplicate: [], rejected: [{ id: event.id, problem: error.message }], revision: -1 };
          }
          set({ unreachable: true });
          await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
          if (closed) return null;
        }
      }
    };

    let turn: Promise<unknown> = Promise.resolve();
    const waiting = new Set<string>();

    /** Nothing that is asked for while something is being saved is lost: it waits. The same asked twice counts once. */
    const inTurn = (asked: string, act: () => Promise<boolean>): Promise<boolean> => {
      if (waiting.has(asked)) return Promise.resolve(false);
      waiting.add(asked);
      set({ unsavedCount: waiting.size });
      const taken = turn.then(act).finally(() => {
        waiting.delete(asked);
        set({ unsavedCount: waiting.size });
      });
      turn = taken.catch(() => undefined);
      return taken;
    };

    const send: Session['send'] = (type, data, by) =>
      inTurn(JSON.stringify([type, data, by]), () => sendNow(type, data, by));

    const sendNow: Session['send'] = async (type, data, said) => {
      const { state, mechanism, ahead } = get();
      if (!state || !mechanism) return false;
      const by = said ?? (useSettings.getState().person || UNNAMED);
      const event = { id: crypto.randomUUID(), type, at: new Date().toISOString(), by, data } as unknown as BenchEvent;
      const outcome = withEvent(mechanism, state, event);
      if ('problem' in outcome) {
        set({ refusal: { problem: outcome.problem, asked: event } });
        return false;
      }
      set({ unsaved: event, refusal: null });
      const answer = await acknowledged(event);
      set({ unsaved: null });
      if (!answer) return false;
      const rejected = answer.rejected[0];
      if (rejected) {
        set({ refusal: { problem: rejected.problem, asked: event } });
        await get().refresh();
        return false;
      }
      if (get().state !== state) await get().refresh();
      else show(outcome.state, ahead && followed(ahead, event, outcome.state));
      if (answer.revision !== get().state!.events.length) await get().refresh();
      return true;
    };

    return {
      phase: 'loading',
      failure: null,
      job: null,
      map: null,
      mechanism: null,
      state: null,
      before: null,
      ahead: null,
      lastAhead: null,
      planning: false,
      planProblem: null,
      unsaved: null,
      unsavedCount: 0,
      unreachable: false,
      refusal: null,

      load: async () => {
        try {
          const line = await api.job(id);
          if (line.unreadable) throw new Error(line.unreadable);
          const [map, { events }] = await Promise.all([api.map(line.map, line.mapRevision), api.events(id)]);
          if (closed) return;
          const job = jobOf(line);
          set({ job, map, mechanism: mechanismOf(map), before: line.before });
          planner?.close();
          planner = plans
            ? new Planner(map, job, ({ ahead, planning, problem }) =>
                set({ ahead, planning, planProblem: problem, ...(ahead ? { lastAhead: ahead } : {}) }),
              )
            : null;
          fold(events);
          set({ phase: 'ready', failure: null });
          clearInterval(timer);
          timer = setInterval(() => void get().refresh(), REFRESH_MS);
          unlisten();
          unlisten = onChange((change) => {
            const isNews = change.what === 'job' && change.id === id && change.revision > get().state!.events.length;
            // what is being saved here will be answered with its own revision
            if (isNews && !get().unsaved) void get().refresh();
          });
        } catch (error) {
          set({ phase: 'failed', failure: (error as Error).message });
        }
      },

      refresh: async () => {
        const { state, unsaved } = get();
        if (!state || unsaved || closed) return;
        try {
          const { events: more, revision } = await api.events(id, state.events.length);
          set({ unreachable: false });
          // something was acknowledged meanwhile: what was fetched is behind it
          if (get().state !== state || get().unsaved) return;
          if (more.length > 0) take(state, more);
          else if (revision < state.events.length) fold((await api.events(id)).events);
        } catch (error) {
          if (error instanceof Unreachable) set({ unreachable: true });
        }
      },

      send,
      step: (op) => send('did', { steps: [doneStep(op)] }),
      undo: () =>
        inTurn('undo', async () => {
          const { standing } = get().state ?? { standing: [] };
          const last = lastToUndo(standing);
          if (last) return sendNow('undo', { event: last.id });
          set({ refusal: { problem: undoProblem(standing, '') ?? 'There is nothing to undo.', asked: null } });
          return false;
        }),
      planAgain: () => {
        const { state } = get();
        if (state) planner?.want(state);
      },
      dismiss: () => set({ refusal: null }),
      close: () => {
        closed = true;
        planner?.close();
        unlisten();
        clearInterval(timer);
      },
    };
  });
  return store;
}
