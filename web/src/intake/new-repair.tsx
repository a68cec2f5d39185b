import { addressOf, type Ask, askedForNew, fullBut, partOf, targetsIn, withAsked } from '@nibrel/core/asking/taking-in';
import { type Answer, type Gives, nextAsked, type Sheet, type Turn } from '@nibrel/core/asking/question';
import type { Policy } from '@nibrel/core/model/policy';
import type { Target } from '@nibrel/core/planner/search';
import { about } from '../app/format.ts';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import Joi from 'joi';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api } from '../app/client.ts';
import { useKeys } from '../app/keys.ts';
import { mapQuery, mapsQuery, shopQuery } from '../app/queries.ts';
import { FirstMap } from '../devices/first-map.tsx';
import { AnswerBar } from '../frame/answer-bar.tsx';
import { Asked, FieldAsked } from '../frame/asked.tsx';
import { Frame } from '../frame/frame.tsx';
import { StageList } from '../frame/stage-list.tsx';
import { useAnswers } from '../frame/use-answers.ts';
import { Waiting } from '../outbox/waiting.tsx';
import { PlanSchools } from '../schools/plan-schools.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { Panel } from '../ui/panel.tsx';
import { note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';
import { PickDrawing } from './pick-drawing.tsx';
import { PlanLanes } from './plan-lanes.tsx';
import { PlanNeeds } from './plan-needs.tsx';
import { usePlan } from './use-plan.ts';

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

/** Which device, which part, whose; the plan is made meanwhile. */
export function NewRepair() {
  const [search, setSearch] = useSearchParams();
  const known = useQuery(mapsQuery).data;
  const maps = known ?? [];
  const isEmpty = known?.length === 0;
  const mapId = search.get('map') ?? undefined;
  const map = useQuery(mapQuery(mapId)).data;
  const targets = targetsIn(search);
  const shop = useQuery(shopQuery).data;
  const [chosen, setChosen] = useState<Partial<Policy>>({});
  // the workshop's schools, and what was chosen for this job
  const policy = { ...shop?.schools, ...chosen };
  const { field, sent } = useFields(ownerSchema, { title: '', owner: '', serial: '', colour: '' });
  const [flipped, setFlipped] = useState(false);
  const [ask, setAsk] = useState<Ask>('part');
  const [isMore, setMore] = useState(false);
  const [find, setFind] = useState('');
  const [jumped, setJumped] = useState<string | null>(null);
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const plan = usePlan(map, targets, policy);
  const navigate = useNavigate();
  const queries = useQueryClient();

  const goOn = () => {
    setFind('');
    setJumped(null);
    setProblem(null);
  };
  const choose = (next: readonly Target[], more = false) => {
    setSearch(addressOf(mapId!, next), { replace: true });
    setMore(more);
    goOn();
  };
  const pickPart = (id: string) => {
    const full = targets.find((each) => 'full' in each);
    if (full && 'full' in full) return choose([fullBut([...(full.keep ?? []), id])], true);
    // another pick is instead of the last one, unless one more is asked for
    choose(withAsked(isMore ? targets : targets.slice(0, -1), ask, id));
  };
  const takeIn = sent(async (owner) => {
    if (!map || targets.length === 0) return;
    // what was left to the plan is settled with the job, so that it does not change its mind half way
    const settled = plan.value ? { ...policy, display: plan.value.display } : policy;
    try {
      const job = await api.addJob({ map: map.id, targets, policy: settled, ...owner });
      await queries.invalidateQueries({ queryKey: ['jobs'] });
      void navigate(`/jobs/${job.id}/intake`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  });

  const give = (gives: Gives) => {
    if (gives.kind === 'ask') return setSheet(gives.about);
    if (gives.kind !== 'pick') return undefined;
    switch (gives.pick) {
      case 'device':
        if (gives.id !== mapId) setSearch({ map: gives.id }, { replace: true });
        setMore(false);
        return goOn();
      case 'unmapped':
        return void navigate('/unmapped');
      case 'part':
        return pickPart(gives.id);
      case 'full':
        return choose([fullBut([])], true);
      case 'ask':
        return setAsk(gives.id as Ask);
      case 'drop':
        return choose(targets.filter((_, at) => at !== Number(gives.id)));
      case 'more':
        setMore(gives.id !== '');
        return goOn();
      case 'take-in':
        return void takeIn();
    }
  };
  const turns = askedForNew({ maps, map: map ?? null, targets, ask, isMore, find });
  const turn: Turn = nextAsked(turns, jumped)!;
  const { question } = turn;
  const answer = (given: Answer) => give(given.gives);
  /** the first that is called so; with nothing typed the main answer, where there is one */
  const enter = () => {
    const main = question.answers.find(({ weight }) => weight === 'main');
    const wanted = find.trim() === '' ? main : question.list[0];
    if (wanted?.gives) give(wanted.gives);
  };
  useAnswers(question.answers, answer);
  useKeys({ f: () => setFlipped(!flipped) });
  const part = partOf(targets.at(-1));
  return (
    <Frame
      askedId={question.id}
      head={
        <header className="flex items-baseline gap-x-6 border-b border-ink px-6 py-3">
          <p className="text-lead leading-tight font-bold">
            <Link to="/" aria-label="Bench" className="mr-2 no-underline">
              ‹
            </Link>
            New repair
          </p>
          <p className="text-body text-quiet">{map?.name}</p>
        </header>
      }
      asked={
        <>
          <Waiting />
          {problem && <Trouble title={problem} />}
          {plan.problem && <Trouble title="No plan for this part">{plan.problem}</Trouble>}
          <Asked
            question={question}
            name={turn.name}
            isAhead={`New repair · ${turns.indexOf(turn) + 1} of 3`}
            field={
              question.field && (
                <FieldAsked
                  key={`${question.id} ${targets.length}`}
                  field={question.field}
                  value={find}
                  problem={find !== '' && question.list.length === 0 ? 'Nothing is called that.' : null}
                  isWanted
                  offered={null}
                  onValue={setFind}
                  onEnter={enter}
                />
              )
            }
            onLine={({ gives }) => gives && give(gives)}
            why={
              <StageList
                turns={turns}
                turn={turn}
                onJump={(id) => {
                  goOn();
                  setJumped(id);
                }}
              />
            }
          >
            {question.id === 'number' && (
              <form className="grid grid-cols-2 gap-x-4 gap-y-2" onSubmit={takeIn}>
                <Field label="Job number" {...field('title')} maxLength={120} autoFocus />
                <Field label="Owner" {...field('owner')} maxLength={120} />
                <Field label="Serial" {...field('serial')} maxLength={120} />
                <Field label="Colour" {...field('colour')} maxLength={120} />
                <button type="submit" hidden aria-hidden="true" tabIndex={-1} />
              </form>
            )}
            {plan.value && question.id === 'number' && <InBrief plan={plan.value} />}
          </Asked>
        </>
      }
      where={
        map ? (
          <PickDrawing map={map} part={part} flipped={flipped} onFlip={() => setFlipped(!flipped)} onPart={pickPart} />
        ) : (
          <div className="p-8">{isEmpty ? <FirstMap /> : null}</div>
        )
      }
      bar={
        <>
          <AnswerBar answers={question.answers} always={[]} onGive={answer} />
          <Panel
            title="What it takes, and ways of working"
            open={sheet === 'what-it-takes'}
            onClose={() => setSheet(null)}
          >
            {map && plan.value && (
              <div className="flex flex-col gap-4">
                <PlanSchools
                  map={map}
                  targets={targets}
                  policy={policy}
                  {...(shop ? { limits: shop.limits } : {})}
                  plan={plan.value}
                  onPolicy={(change) => setChosen({ ...chosen, ...change })}
                />
                <PlanNeeds map={map} plan={plan.value} />
                <PlanLanes map={map} plan={plan.value} />
              </div>
            )}
          </Panel>
        </>
      }
    />
  );
}

/** How long it takes, and what of it is waiting. */
function InBrief({ plan }: { readonly plan: NonNullable<ReturnType<typeof usePlan>['value']> }) {
  const { strip, rebuild, waiting } = plan.seconds;
  return (
    <section aria-label="Plan" className="text-body text-quiet">
      {about(strip + rebuild, strip + rebuild)} hands-on{waiting > 0 ? `, ${about(waiting, waiting)} waiting` : ''}
    </section>
  );
}
