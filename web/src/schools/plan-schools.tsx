import { useSettings } from '../app/settings.ts';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { type Policy, usualPolicy } from '@nibrel/core/model/policy';
import type { OwnTime, Plan } from '@nibrel/core/planner/plan';
import { shopQuery } from '../app/queries.ts';
import type { Target } from '@nibrel/core/planner/search';
import { costWords, type Question, questionsFor } from '@nibrel/core/workshop/schools';
import { DEFAULT_LIMITS, type Limits } from '@nibrel/core/model/limits';
import { plural, duration } from '@nibrel/core/planner/words';
import { useQuery } from '@tanstack/react-query';
import { mapKey } from '../app/map-key.ts';
import { Choice } from '../ui/choice.tsx';
import { computeLater } from '../workers/compute.ts';

export interface SchoolsProps {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  readonly policy: Partial<Policy>;
  readonly limits?: Limits;
  /** 0 to 1, where it was read */
  readonly charge?: number | null;
  onPolicy(change: Partial<Policy>): void;
}

/** The plan's figures, and each school as a switch that says what it costs and risks on this device. */
export function PlanSchools({ plan, ...schools }: SchoolsProps & { readonly plan: Plan }) {
  const { strip, rebuild, waiting } = plan.seconds;
  const screws = plan.screws.reduce((sum, each) => sum + each.count, 0);
  return (
    <>
      <dl className="grid grid-cols-3 gap-4 border-b border-ink pb-3">
        <Figure value={duration(strip + rebuild)} label="hands-on" />
        <Figure value={duration(waiting)} label="waiting" />
        <Figure
          value={String(screws)}
          label={`screws out, ${plan.screws.length === 1 ? '1 kind' : `${plan.screws.length} kinds`}`}
        />
      </dl>
      <Schools {...schools} />
      <p className="text-note text-quiet">
        {timesWords([...plan.strip, ...plan.rebuild])} {plural(plan.toolChanges, 'tool change')},{' '}
        {plural(plan.flips, 'flip')}
        {plan.optimal
          ? '; no order takes less.'
          : `; no order takes less than ${duration(plan.lowerBoundSeconds)} hands-on.`}
      </p>
    </>
  );
}

/** The questions that mean something here; those asked less often are folded away. */
export function Schools(props: SchoolsProps) {
  const replaced = props.targets.flatMap((each) => ('replace' in each ? [each.replace] : []));
  const questions = questionsFor(props.map, replaced);
  const school = (question: Question) => <School key={question.key} {...props} question={question} />;
  return (
    <>
      <div className="flex flex-col">{questions.filter((each) => !each.minor).map(school)}</div>
      <details>
        <summary className="min-h-12 cursor-pointer py-3 text-body">More ways of working</summary>
        {questions.filter((each) => each.minor).map(school)}
      </details>
    </>
  );
}

/** Where the times of a plan come from. */
function timesWords(ops: Plan['strip']): string {
  const own = ops.filter(({ timesFrom }) => timesFrom !== undefined).length;
  if (own === 0) return 'Times are guesses until the shop’s own replace them.';
  return `Times of ${own} of ${ops.length} steps are from the shop’s own work; the others are guesses.`;
}

function Figure({ value, label }: { readonly value: string; readonly label: string }) {
  return (
    <div>
      <dd className="text-loud leading-none font-bold">{value}</dd>
      <dt className="mt-1 text-body text-quiet">{label}</dt>
    </div>
  );
}

const NO_TIMES: readonly OwnTime[] = [];

function School({
  map,
  targets,
  policy,
  limits = DEFAULT_LIMITS,
  charge = null,
  question,
  onPolicy,
}: SchoolsProps & { readonly question: Question }) {
  const { key, label, options } = question;
  const value = (policy[key] ?? usualPolicy(map)[key] ?? 'map') as string;
  const values = options.map((each) => each.value);
  const times = useQuery(shopQuery).data?.times ?? NO_TIMES;
  const unit = useSettings(({ temperature }) => temperature);
  const figures = useQuery({
    queryKey: ['school', mapKey(map), targets, policy, key, limits, charge, times, unit],
    staleTime: Infinity,
    queryFn: () => computeLater().figures({ map, targets, policy, key, values, limits, charge, times, unit }, 300),
  });
  const chosen = figures.data?.[value] ?? null;
  const others = options.filter((each) => each.value !== value);
  return (
    <div className="grid items-start gap-x-4 gap-y-1 border-b border-hair py-2 md:grid-cols-[6.5rem_1fr]">
      <span className="pt-3 text-body">{label}</span>
      <div>
        <Choice
          label={label}
          value={value}
          options={options}
          onChange={(next) => onPolicy({ [key]: next === 'map' ? null : next } as Partial<Policy>)}
        />
        <p className="mt-1 text-note text-quiet">
          {!figures.data && 'Comparing'}
          {chosen?.risk && <span className="text-ink">So: {chosen.risk}. </span>}
          {figures.data &&
            others.map((each) => costWords(each.label, chosen, figures.data[each.value] ?? null)).join(' ')}
        </p>
      </div>
    </div>
  );
}
