import Joi from 'joi';
import { mapQuery, mapsQuery, shopQuery } from '../app/queries.ts';
import { type DeviceMap, partById } from '@nibrel/core/model/device-map';
import { type Policy } from '@nibrel/core/model/policy';
import type { OwnTime, Plan } from '@nibrel/core/planner/plan';
import type { Target } from '@nibrel/core/planner/search';
import { capital, partName } from '@nibrel/core/planner/words';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api } from '../app/client.ts';
import { useKeys } from '../app/keys.ts';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { fromTheTop, mainSide, type Side } from '../drawing/geometry.ts';

import { mapKey } from '../app/map-key.ts';
import { PlanSchools } from '../schools/plan-schools.tsx';

import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { computeNow } from '../workers/compute.ts';
import type { Computed } from '../workers/compute.worker.ts';
import {
  addressOf,
  type Ask,
  ASKS,
  fullBut,
  partOf,
  targetLine,
  targetsIn,
  thingsFor,
  withAsked,
} from './job-targets.ts';
import { PlanLanes } from './plan-lanes.tsx';
import { PlanNeeds } from './plan-needs.tsx';
import { note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface OwnerFields {
  readonly title: string;
  readonly owner: string;
  readonly serial: string;
  readonly colour: string;
}

const ownerSchema = Joi.object<OwnerFields>({
  title: note(120),
  owner: note(120),
  serial: note(120),
  colour: note(120),
});

/** Device, owner and part; the plan is there at once, and every school shows what it costs on this device. */
export function NewRepair() {
  const [search, setSearch] = useSearchParams();
  const maps = useQuery(mapsQuery);
  const mapId = search.get('map') ?? maps.data?.[0]?.id;
  const map = useQuery(mapQuery(mapId)).data;
  const targets = targetsIn(search);
  const part = partOf(targets.at(-1));
  const shop = useQuery(shopQuery).data;
  const [chosen, setChosen] = useState<Partial<Policy>>({});
  // the workshop's schools, and what was chosen for this job
  const policy = { ...shop?.schools, ...chosen };
  const { field, sent } = useFields(ownerSchema, { title: '', owner: '', serial: '', colour: '' });
  const [flipped, setFlipped] = useState(false);
  const [ask, setAsk] = useState<Ask>('part');
  const [isMore, setMore] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const plan = usePlan(map, targets, policy);
  const navigate = useNavigate();
  const queries = useQueryClient();

  const choose = (next: readonly Target[]) => {
    setSearch(addressOf(mapId!, next), { replace: true });
    setMore(false);
    setProblem(null);
  };
  // another pick is instead of the last one, unless one more is asked for
  const pick = (next: string) => choose(withAsked(isMore ? targets : targets.slice(0, -1), ask, next));
  const askFor = (next: Ask) => {
    setAsk(next);
    if (part === null || isMore || !map) return;
    // a plug is reached, and nothing else
    const isThere = thingsFor(map, next).some(({ id }) => id === part);
    choose(isThere ? withAsked(targets.slice(0, -1), next, part) : targets.slice(0, -1));
  };
  const takeIn = sent(async (owner) => {
    if (!map || targets.length === 0)
      return setProblem('Pick the part that it is about: on the drawing, or by its name.');
    // what was left to the plan is settled with the job, so that it does not change its mind half way
    const settled = plan.value ? { ...policy, display: plan.value.display } : policy;
    try {
      const job = await api.addJob({
        map: map.id,
        targets,
        policy: settled,
        ...owner,
      });
      await queries.invalidateQueries({ queryKey: ['jobs'] });
      void navigate(`/jobs/${job.id}/intake`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  });
  useKeys({ f: () => setFlipped(!flipped) });
  const side = map ? sideFor(map, part, flipped) : 'front';
  const parts = map?.parts ?? [];

  return (
    <main className="flex min-h-0 grow flex-col lg:h-[calc(100dvh-3.6rem)] lg:grow-0">
      <form className="grid min-h-0 grow lg:grid-cols-[18rem_minmax(0,1fr)_20rem]" onSubmit={takeIn}>
        <section
          aria-label="Device and target"
          className="flex min-h-0 flex-col gap-3 overflow-y-auto border-ink px-6 py-4 lg:border-r"
        >
          <h1 className="sr-only">New repair</h1>
          <div>
            <label htmlFor="device" className="block text-note text-quiet">
              Device
            </label>
            <select
              id="device"
              className="min-h-12 w-full border-b-2 border-ink bg-paper text-lead font-bold"
              value={mapId ?? ''}
              onChange={(event) => setSearch({ map: event.target.value }, { replace: true })}
            >
              {maps.data?.map((each) => (
                <option key={each.id} value={each.id}>
                  {each.name}
                </option>
              ))}
            </select>
          </div>
          <div>
            <select
              aria-label="What is done"
              className="min-h-9 w-full bg-paper text-note text-quiet"
              value={ask}
              onChange={(event) => askFor(event.target.value as Ask)}
            >
              {Object.entries(ASKS).map(([value, label]) => (
                <option key={value} value={value}>
                  {capital(label)}
                </option>
              ))}
            </select>
            <select
              id="target"
              aria-label={ASK_LABELS[ask]}
              className="min-h-12 w-full border-b-2 border-now bg-paper text-lead font-bold text-now"
              value={isMore ? '' : (part ?? '')}
              onChange={(event) => pick(event.target.value)}
            >
              <option value="" disabled>
                which part
              </option>
              {map &&
                thingsFor(map, ask).map(({ id, label }) => (
                  <option key={id} value={id}>
                    {label}
                  </option>
                ))}
            </select>
          </div>
          {map && (
            <Asked
              map={map}
              targets={targets}
              isMore={isMore}
              onMore={() => setMore(!isMore)}
              onFull={(keep) => choose([fullBut(keep)])}
              onDrop={(target) => choose(targets.filter((each) => each !== target))}
            />
          )}
          {map && (
            <div className="h-[40dvh] grow lg:h-auto lg:min-h-44">
              <DeviceDrawing
                map={map}
                side={side}
                selected={part}
                peeled={peeledFor(map, side, part)}
                marked={jointsOf(map, part)}
                label={`${map.name}, ${side}`}
                onPress={(thing) => parts.some((each) => each.id === thing) && pick(thing)}
              />
            </div>
          )}
        </section>
        <section aria-label="Plan" className="flex min-h-0 flex-col gap-3 overflow-y-auto px-6 py-4">
          {problem && <Trouble title={problem} />}
          {plan.problem && <Trouble title="No plan for this part">{plan.problem}</Trouble>}
          {targets.length === 0 && (
            <p className="text-far text-quiet">Pick the part on the drawing or by its name. The plan follows.</p>
          )}
          {map && plan.value && (
            <PlanSchools
              map={map}
              targets={targets}
              policy={policy}
              limits={shop?.limits}
              plan={plan.value}
              onPolicy={(change) => setChosen({ ...chosen, ...change })}
            />
          )}
        </section>
        <section
          aria-label="Needs and owner"
          className="flex min-h-0 flex-col gap-4 overflow-y-auto border-ink bg-sheet px-6 py-4 lg:border-l"
        >
          <div className="grid grid-cols-2 gap-x-4 gap-y-2">
            <Field label="Job number" {...field('title')} maxLength={120} />
            <Field label="Owner" {...field('owner')} maxLength={120} />
            <Field label="Serial" {...field('serial')} maxLength={120} />
            <Field label="Colour" {...field('colour')} maxLength={120} />
          </div>
          <Button weight="loud" type="submit" keyName="Enter" className="min-h-16 text-lead">
            Take it in
          </Button>
          {map && plan.value && <PlanNeeds map={map} plan={plan.value} />}
        </section>
      </form>
      {map && plan.value && <PlanLanes map={map} plan={plan.value} />}
    </main>
  );
}

const ASK_LABELS: Readonly<Record<Ask, string>> = { part: 'Replace', out: 'Take out', reach: 'Reach' };

interface AskedProps {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  readonly isMore: boolean;
  onMore(): void;
  onFull(keep: readonly string[]): void;
  onDrop(target: Target): void;
}

/** What it is taken in for, where that is more than one part; and what else can be asked for. */
function Asked({ map, targets, isMore, onMore, onFull, onDrop }: AskedProps) {
  const full = targets.find((each) => 'full' in each);
  const isFull = full !== undefined;
  const kept = full && 'full' in full ? (full.keep ?? []) : [];
  return (
    <div className="flex flex-col gap-2">
      {(targets.length > 1 || isFull) && (
        <ul aria-label="What is asked for" className="text-body">
          {targets.map((target) => (
            <li key={targetLine(map, target)} className="flex items-center justify-between border-b border-hair">
              <span>{targetLine(map, target)}</span>
              <button
                type="button"
                aria-label={`Not ${targetLine(map, target)}`}
                className="min-h-9 min-w-9 text-quiet"
                onClick={() => onDrop(target)}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
      {isFull ? (
        <select
          aria-label="All of it apart but keep"
          className="min-h-12 w-full border-b-2 border-ink bg-paper text-body"
          value=""
          onChange={(event) => onFull([...kept.filter((each) => each !== event.target.value), event.target.value])}
        >
          <option value="" disabled>
            but keep
          </option>
          {map.parts
            .filter(({ id, base }) => !base && !kept.includes(id))
            .map(({ id }) => (
              <option key={id} value={id}>
                {partName(map, id)}
              </option>
            ))}
        </select>
      ) : (
        <div className="grid grid-cols-2 gap-2">
          <Button className="px-2! text-note" aria-pressed={isMore} disabled={targets.length === 0} onClick={onMore}>
            {isMore ? 'Which one?' : 'And another'}
          </Button>
          <Button className="px-2! text-note" onClick={() => onFull([])}>
            All of it apart
          </Button>
        </div>
      )}
    </div>
  );
}

const NO_TIMES: readonly OwnTime[] = [];

function usePlan(
  map: DeviceMap | undefined,
  targets: readonly Target[],
  policy: Partial<Policy>,
): { value: Plan | null; problem: string | null } {
  const times = useQuery(shopQuery).data?.times ?? NO_TIMES;
  const query = useQuery({
    queryKey: ['plan', map && mapKey(map), targets, policy, times],
    enabled: map !== undefined && targets.length > 0,
    staleTime: Infinity,
    placeholderData: (previous) => previous,
    queryFn: async (): Promise<Computed<Plan>> => computeNow().plan({ map: map!, targets, policy, times }, 600),
  });
  if (!query.data || targets.length === 0) return { value: null, problem: null };
  return 'value' in query.data
    ? { value: query.data.value, problem: null }
    : { value: null, problem: query.data.problem };
}

/** The side that the part is worked on from, or the other one. */
function sideFor(map: DeviceMap, part: string | null, flipped: boolean): Side {
  const face = partById(map, part)?.face;
  const up = face === 'front' || face === 'back' ? face : mainSide(map);
  return flipped ? (up === 'front' ? 'back' : 'front') : up;
}

/** The drawing is peeled down to the part that is picked. */
function peeledFor(map: DeviceMap, side: Side, part: string | null): number {
  return Math.max(
    0,
    fromTheTop(map, side).findIndex((each) => each.id === part),
  );
}

function jointsOf(map: DeviceMap, part: string | null): ReadonlySet<string> {
  return new Set(map.joints.filter((each) => part !== null && each.holds.includes(part)).map((each) => each.id));
}
