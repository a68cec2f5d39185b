import {
  type Ahead,
  type BenchEvent,
  doneStep,
  type EventData,
  type EventType,
  foldJob,
  isUndoable,
  type Job,
  type JobState,
  withEvent,
} from '@nibrel/core/bench';
import type { DeviceMap } from '@nibrel/core/device-map';
import { type Mechanism, mechanismOf } from '@nibrel/core/holds';
import type { Op } from '@nibrel/core/plan';
import { createStore, type StoreApi } from 'zustand';
import { api, jobOf, Refused, Unreachable } from '../app/client.ts';
import { useSettings } from '../app/settings.ts';
import { computeLater, computeNow } from '../workers/compute.ts';

/** A job open at this bench. What is shown as done has been acknowledged by the server, and so is on its disk. */
export interface Session {
  readonly phase: 'loading' | 'ready' | 'failed';
  readonly failure: string | null;
  readonly job: Job | null;
  readonly map: DeviceMap | null;
  readonly mechanism: Mechanism | null;
  readonly state: JobState | null;
  /** what is still to be done, in order; null while it is being computed for the first time */
  readonly ahead: Ahead | null;
  readonly planning: boolean;
  readonly planProblem: string | null;
  /** the event that waits for the server; what is asked for meanwhile waits its turn */
  readonly unsaved: BenchEvent | null;
  /** how much has been asked for and is not on the server's disk yet */
  readonly unsavedCount: number;
  readonly unreachable: boolean;
  /** why the last thing asked for was refused, and what was asked */
  readonly refusal: { readonly problem: string; readonly asked: BenchEvent } | null;

  load(): Promise<void>;
  /** fetches what other windows have added */
  refresh(): Promise<void>;
  send<Type extends EventType>(type: Type, data: EventData[Type]): Promise<boolean>;
  step(op: Op): Promise<boolean>;
  undo(): Promise<boolean>;
  dismiss(): void;
  close(): void;
}

const QUICK_MS = 250;
const PROOF_MS = 6000;
const RETRY_MS = 1500;
const REFRESH_MS = 4000;

/** @param plans false where nothing is shown of the plan, so that nothing is computed for it */
export function openSession(id: string, plans: boolean): StoreApi<Session> {
  let closed = false;
  let timer: ReturnType<typeof setInterval> | undefined;

  const store = createStore<Session>()((set, get) => {
    /** Plans anew from where the job stands: quickly first, then with the proof, unless the job has moved on. */
    const plan = async () => {
      const { map, job, state } = get();
      if (!plans || !map || !job || !state) return;
      const revision = state.events.length;
      set({ planning: true });
      const isCurrent = () => !closed && get().state?.events.length === revision;
      const quick = await computeNow().ahead(map, job, state.events, QUICK_MS);
      if (!isCurrent()) return;
      if ('problem' in quick) return set({ planning: false, planProblem: quick.problem, ahead: null });
      set({ ahead: quick.value, planning: false, planProblem: null });
      if (quick.value.plan.optimal) return;
      const proven = await computeLater().ahead(map, job, state.events, PROOF_MS);
      if (isCurrent() && 'value' in proven && cheaper(proven.value, quick.value)) set({ ahead: proven.value });
    };

    const fold = (events: readonly BenchEvent[]) => {
      const { mechanism, job } = get();
      set({ state: foldJob(mechanism!, job!, events) });
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

    const send: Session['send'] = (type, data) => inTurn(JSON.stringify([type, data]), () => sendNow(type, data));

    const sendNow: Session['send'] = async (type, data) => {
      const { state, mechanism, ahead } = get();
      if (!state || !mechanism) return false;
      const by = useSettings.getState().person || 'unnamed';
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
      const next = outcome.state;
      set({ state: next });
      if (answer.revision !== next.events.length) await get().refresh();
      else if (!followsPlan(event, ahead)) void plan();
      else set({ ahead: ahead && { ...ahead, ops: withoutDone(event, ahead, next) } });
      return true;
    };

    return {
      phase: 'loading',
      failure: null,
      job: null,
      map: null,
      mechanism: null,
      state: null,
      ahead: null,
      planning: false,
      planProblem: null,
      unsaved: null,
      unsavedCount: 0,
      unreachable: false,
      refusal: null,

      load: async () => {
        try {
          const line = await api.job(id);
          const [map, { events }] = await Promise.all([api.map(line.map, line.mapRevision), api.events(id)]);
          set({ job: jobOf(line), map, mechanism: mechanismOf(map) });
          fold(events);
          set({ phase: 'ready' });
          void plan();
          timer = setInterval(() => void get().refresh(), REFRESH_MS);
        } catch (error) {
          set({ phase: 'failed', failure: (error as Error).message });
        }
      },

      refresh: async () => {
        const { state, unsaved } = get();
        if (!state || unsaved || closed || document.hidden) return;
        try {
          const { revision } = await api.job(id);
          set({ unreachable: false });
          if (revision === get().state?.events.length || get().unsaved) return;
          const { events } = await api.events(id);
          fold(events);
          void plan();
        } catch (error) {
          if (error instanceof Unreachable) set({ unreachable: true });
        }
      },

      send,
      step: (op) => send('did', { steps: [doneStep(op)] }),
      undo: () =>
        inTurn('undo', async () => {
          const last = get().state?.standing.findLast(isUndoable);
          return last ? sendNow('undo', { event: last.id }) : false;
        }),
      dismiss: () => set({ refusal: null }),
      close: () => {
        closed = true;
        clearInterval(timer);
      },
    };
  });
  return store;
}

function cheaper(a: Ahead, b: Ahead): boolean {
  const cost = ({ plan }: Ahead) => plan.seconds.strip + plan.seconds.rebuild;
  return a.plan.optimal || cost(a) < cost(b);
}

/** What changes nothing of the plan. */
const ASIDE: readonly EventType[] = [
  'note',
  'timer',
  'pause',
  'resume',
  'stop',
  'clear',
  'end',
  'found',
  'finish',
  'screw',
  'words',
  'photo',
  'measure',
  'part-number',
  'part-asked',
  'part-sent-back',
  'heat-on',
  'heat-reading',
  'placeholder',
  'edge',
];

/** Done as the plan says, the next operation or a run of the next ones: then the rest of the plan stands. */
function followsPlan(event: BenchEvent, ahead: Ahead | null): boolean {
  if (ASIDE.includes(event.type)) return true;
  // what did not work when it came in is told to the owner, and so is part of the plan
  if (event.type === 'test') return event.data.stage !== 'intake';
  if (event.type === 'decision') return event.data.about === 'missing-screw' || event.data.about === 'other';
  if (event.type === 'heat-off') return true;
  if (event.type === 'aired') return ahead?.ops[0]?.id === event.data.step;
  if (event.type !== 'did' || !ahead || event.data.anyway) return false;
  return event.data.steps.every((step, index) => ahead.ops[index]?.id === step.id);
}

const BIT_BY_BIT: readonly EventType[] = ['screw', 'edge', 'heat-off'];

function isDone(state: JobState, op: Op | undefined): boolean {
  return op !== undefined && state.steps.has(op.id) && !state.added.some(({ step }) => step === op.id);
}

function withoutDone(event: BenchEvent, ahead: Ahead, state: JobState): readonly Op[] {
  if (event.type === 'did') return ahead.ops.slice(event.data.steps.length);
  if (event.type === 'aired') return ahead.ops.slice(1);
  // the last screw of a joint, the last edge of a bond, the last zone that is warmed: with it the operation is done
  const released = BIT_BY_BIT.includes(event.type) && isDone(state, ahead.ops[0]);
  return released ? ahead.ops.slice(1) : ahead.ops;
}
