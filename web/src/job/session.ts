import { type Problem, wrong } from '@nibrel/core/model/refusal';
import { type Ahead, followed, type Said } from '@nibrel/core/bench/in-hand';
import {
  type BenchEvent,
  type EventData,
  type EventType,
  type Job,
  lastToUndo,
  rowOf,
  undoProblem,
} from '@nibrel/core/job/events';
import { type Going, goingOf, goingOn, withEvent } from '@nibrel/core/job/fold';
import { isPrepared } from '@nibrel/core/job/rules';
import { type JobState, UNKNOWN } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { UNNAMED } from '@nibrel/core/workshop/shop';
import { createStore, type StoreApi } from 'zustand';
import { onChange } from '../app/changes.ts';
import type { ShopNow, StoppedBefore } from '@nibrel/core/api';
import { api, jobOf } from '../app/client.ts';
import { outbox } from '../outbox/index.ts';
import { sound } from '../app/feedback.ts';
import { useSettings } from '../app/settings.ts';
import { benchUnit } from '../app/units.ts';
import { Planner } from './planner.ts';

interface Refusal {
  readonly problem: Problem;
  readonly asked: BenchEvent | null;
  /** a lead may say it */
  readonly needs?: 'lead' | 'secret';
}

/** A job open at this bench. What is shown as done has been acknowledged by the server, and so is on its disk. */
export interface Session {
  readonly phase: 'loading' | 'ready' | 'failed';
  readonly failure: string | null;
  readonly job: Job | null;
  /** the map that it was taken in with: a device without one has the map that its own events tell, in its mechanism */
  readonly base: DeviceMap | null;
  readonly mechanism: Mechanism | null;
  readonly state: JobState | null;
  /** the last repair of this device, where it was stopped */
  readonly before: StoppedBefore | null;
  /** what is still to be done from this state, in order; null while that is being found out, and where it can't be */
  readonly ahead: Ahead | null;
  /** the plan before, while that of this state is being found out: what needs no step in hand may show it */
  readonly lastAhead: Ahead | null;
  readonly planning: boolean;
  readonly planProblem: string | null;
  /** what was asked for and not answered yet, readings aside */
  readonly asked: number;
  /** the event that waits for the server; what is asked for meanwhile waits its turn in the outbox */
  readonly unsaved: BenchEvent | null;
  /** why the last thing asked for was refused, and what was asked */
  readonly refusal: Refusal | null;

  load(): Promise<void>;
  /** fetches what other windows have added */
  refresh(): Promise<void>;
  /** @param by who says it, where that is not who is at the bench: a lead who decides */
  send<Type extends EventType>(type: Type, data: EventData[Type], by?: string): Promise<boolean>;
  say(said: Said, by?: string): Promise<boolean>;
  undo(): Promise<boolean>;
  /** plans again from here, where that failed */
  planAgain(): void;
  dismiss(): void;
  close(): void;
}

/** The server tells by itself what has changed; this is for when its stream is gone. */
const REFRESH_MS = 15_000;

function newEvent<Type extends EventType>(type: Type, data: EventData[Type], said?: string): BenchEvent {
  const by = said ?? (useSettings.getState().person || UNNAMED);
  return { id: crypto.randomUUID(), type, at: new Date().toISOString(), by, data } as unknown as BenchEvent;
}

function ownTimes({ times }: ShopNow): ShopNow['times'] {
  return times;
}

interface Judged {
  readonly before: Going;
  readonly after: Going;
}

/** So much later an event counts from when it was received, ms: less is the way to the server and back. */
const ON_ITS_WAY_ms = 2000;

/** The state after an event as the server has it: heat, solvent and what came late count from when it was received. */
function asReceived({ before, after }: Judged, told: BenchEvent, receivedAt: string): Going {
  const isLate = Date.parse(receivedAt) - Date.parse(told.at) > ON_ITS_WAY_ms;
  if (!isLate && rowOf(told.type)?.undo !== 'stops-at') return after;
  const outcome = withEvent(before.mechanism, before.state, { ...told, receivedAt });
  return 'state' in outcome ? { ...after, state: outcome.state } : after;
}

/** @param plans false where nothing is shown of the plan, so that nothing is computed for it */
export function openSession(id: string, plans: boolean): StoreApi<Session> {
  let closed = false;
  let planner: Planner | null = null;
  let timer: ReturnType<typeof setInterval> | undefined;
  let unlisten = () => {};

  const store = createStore<Session>()((set, get) => {
    /** A state with the plan that belongs to it: the rest of the one before, or one that is made. */
    const show = ({ mechanism, state }: Going, ahead: Ahead | null) => {
      const { mechanism: before, lastAhead } = get();
      const isOther = before !== mechanism;
      if (isOther) planner?.goBy(mechanism.map);
      const last = ahead ?? (isOther ? null : lastAhead);
      set({ mechanism, state, ahead, lastAhead: last, planning: false, planProblem: null });
      // nothing is planned while it is told what comes off; what its bench needs is, before that
      const isTold = state.teardown === 'on' && isPrepared(mechanism, state);
      if (ahead || isTold) planner?.settled();
      else planner?.want(state);
    };

    const going = (): Going => {
      const { base, mechanism, state } = get();
      return { base: base!, mechanism: mechanism!, state: state! };
    };

    const fold = (events: readonly BenchEvent[]) => {
      const { base, job } = get();
      show(goingOf(base!, job!, events), null);
    };

    /** What other windows have added; one step of the plan is followed like one's own. */
    const take = (before: JobState, more: readonly BenchEvent[]) => {
      const { base, job, ahead } = get();
      const next = goingOf(base!, job!, [...before.events, ...more]);
      const [only] = more;
      show(next, more.length === 1 && only && ahead ? followed(ahead, only, next.state) : null);
    };

    const asked = new Set<string>();

    /** The same asked twice, while the first is on its way, counts once. */
    const once = async (what: string, send: () => Promise<boolean>): Promise<boolean> => {
      if (asked.has(what)) return false;
      asked.add(what);
      return send().finally(() => asked.delete(what));
    };

    /** Judged when its turn comes, by what was taken until then; shown as done once the server has it on its disk. */
    const posted = async (event: BenchEvent): Promise<boolean> => {
      const count = event.type === 'heat-reading' ? 0 : 1;
      set(({ asked: before }) => ({ asked: before + count }));
      return delivered(event).finally(() => set(({ asked: before }) => ({ asked: before - count })));
    };

    const delivered = async (event: BenchEvent): Promise<boolean> => {
      let judged: (Judged & { readonly ahead: Ahead | null }) | null = null;
      const answer = await outbox.send(id, event, {
        judge: () => {
          const { state, ahead } = get();
          // nobody looks at it any more: the server judges
          if (closed || !state) return null;
          const before = going();
          const outcome = goingOn(before, event, { ...UNKNOWN, unit: benchUnit() });
          if ('problem' in outcome) return outcome.problem;
          judged = { before, after: outcome, ahead };
          set({ unsaved: event, refusal: null });
          return null;
        },
        settle: async (settled, hadToWait) => {
          set({ unsaved: null });
          if ('problem' in settled) {
            const { problem, needs } = settled;
            // what had to wait stays in sight by itself, whatever is pressed next
            if (!hadToWait) set({ refusal: { problem, asked: event, ...(needs ? { needs } : {}) } });
            if (judged) await get().refresh();
            return;
          }
          if (!judged) return;
          const { before, ahead } = judged;
          const after = asReceived(judged, event, settled.receivedAt);
          if (get().state !== before.state) await get().refresh();
          else show(after, ahead && followed(ahead, event, after.state));
          if (settled.revision !== get().state!.events.length) await get().refresh();
        },
      });
      return answer !== null && 'revision' in answer;
    };

    const send: Session['send'] = (type, data, by) =>
      once(JSON.stringify([type, data, by]), () => posted(newEvent(type, data, by)));

    return {
      phase: 'loading',
      failure: null,
      job: null,
      base: null,
      mechanism: null,
      state: null,
      before: null,
      ahead: null,
      lastAhead: null,
      planning: false,
      planProblem: null,
      asked: 0,
      unsaved: null,
      refusal: null,

      load: async () => {
        try {
          const line = await api.job(id);
          if (line.unreadable) throw new Error(line.unreadable);
          const [map, { events }, times] = await Promise.all([
            api.map(line.map, line.mapRevision),
            api.events(id),
            // the work goes by guesses where they can't be had
            plans ? api.shop().then(ownTimes, () => []) : [],
          ]);
          if (closed) return;
          const job = jobOf(line);
          set({ job, base: map, before: line.before });
          planner?.close();
          planner = plans
            ? new Planner(map, job, times, ({ ahead, planning, problem }) =>
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
        // what is acknowledged while this is on its way is ahead of what it fetches
        const isBehind = () => get().state !== state || get().unsaved !== null;
        try {
          const { events: more, revision } = await api.events(id, state.events.length);
          if (isBehind()) return;
          if (more.length > 0) return take(state, more);
          if (revision >= state.events.length) return;
          const { events } = await api.events(id);
          if (!isBehind()) fold(events);
        } catch {
          // nothing is lost: it is asked for again every so often, and at the next change that the server tells of
        }
      },

      send,
      say: ({ type, data }, by) => send(type, data, by),
      undo: () =>
        once('undo', async () => {
          const onTheirWay = outbox.state.getState().waiting.flatMap(({ to, event }) => (to === id ? [event] : []));
          const inForce = [...(get().state?.inForce ?? []), ...(onTheirWay as BenchEvent[])];
          const last = lastToUndo(inForce);
          if (last) return posted(newEvent('undo', { event: last.id }));
          set({
            refusal: { problem: undoProblem(inForce, '') ?? wrong('', 'There is nothing to undo.'), asked: null },
          });
          sound('refused');
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
