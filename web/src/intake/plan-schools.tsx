import type { DeviceMap } from '@nibrel/core/device-map';
import { DEFAULT_POLICY, type Plan, type Policy } from '@nibrel/core/plan';
import { useQuery } from '@tanstack/react-query';
import { duration } from '../app/format.ts';
import { Choice } from '../ui/choice.tsx';
import { computeLater } from '../workers/compute.ts';
import { costs, type Question, questionsFor } from './schools.ts';

interface PlanSchoolsProps {
  readonly map: DeviceMap;
  readonly part: string;
  readonly policy: Partial<Policy>;
  readonly plan: Plan;
  onPolicy(change: Partial<Policy>): void;
}

/** The plan's figures, and each school as a switch that says what it costs and risks on this device. */
export function PlanSchools({ map, part, policy, plan, onPolicy }: PlanSchoolsProps) {
  const { strip, rebuild, waiting } = plan.seconds;
  const screws = plan.screws.reduce((sum, each) => sum + each.count, 0);
  const school = (question: Question) => (
    <School
      key={question.key}
      map={map}
      part={part}
      policy={policy}
      plan={plan}
      question={question}
      onPolicy={onPolicy}
    />
  );
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
      <div className="flex flex-col">
        {questionsFor(map)
          .filter((question) => !question.minor)
          .map(school)}
      </div>
      <details>
        <summary className="min-h-12 cursor-pointer py-3 text-body">More schools</summary>
        {questionsFor(map)
          .filter((question) => question.minor)
          .map(school)}
      </details>
      <p className="text-note text-quiet">
        Times are guesses until the shop’s own replace them. {plan.toolChanges} tool changes, {plan.flips} flips
        {plan.optimal ? ': proven least.' : `; no order takes less than ${duration(plan.lowerBoundSeconds)} hands-on.`}
      </p>
    </>
  );
}

function Figure({ value, label }: { readonly value: string; readonly label: string }) {
  return (
    <div>
      <dd className="text-loud leading-none font-bold">{value}</dd>
      <dt className="mt-1 text-body text-quiet">{label}</dt>
    </div>
  );
}

function School({ map, part, policy, plan, question, onPolicy }: PlanSchoolsProps & { readonly question: Question }) {
  const { key, label, options } = question;
  const value = (policy[key] ?? DEFAULT_POLICY[key] ?? 'map') as string;
  const others = options.filter((each) => each.value !== value);
  const compared = useQuery({
    queryKey: ['school', map.id, part, policy, key],
    staleTime: Infinity,
    queryFn: () =>
      Promise.all(
        others.map(async (other) => {
          const changed = { ...DEFAULT_POLICY, ...policy, [key]: other.value === 'map' ? null : other.value };
          const found = await computeLater().plan({ map, targets: [{ replace: part }], policy: changed }, 300);
          return { other, plan: 'value' in found ? found.value : null };
        }),
      ),
  });
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
          {compared.data
            ? compared.data.map(({ other, plan: instead }) => costs(other, plan, instead)).join(' ')
            : 'Comparing'}
        </p>
      </div>
    </div>
  );
}
