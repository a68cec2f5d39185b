import Joi from 'joi';
import type { Ahead } from '@nibrel/core/bench/in-hand';
import { type EventData } from '@nibrel/core/job/events';
import { heldParts, isDrying, isPrepared, targetsForNow } from '@nibrel/core/job/rules';
import { chosenPart, isAccepted } from '@nibrel/core/workshop/parts';
import { isForSealing } from '@nibrel/core/after/kit';
import { partName, plural } from '@nibrel/core/planner/words';
import { settled } from '@nibrel/core/model/policy';
import { type BenchItem, benchItems } from '@nibrel/core/workshop/prepare';
import { useState } from 'react';
import type { ShopNow } from '@nibrel/core/api';
import { useKeys } from '../app/keys.ts';
import type { OpenJob } from '../job/job-frame.tsx';
import { Button } from '../ui/button.tsx';
import { Caution } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { chargeAsked } from './charge-asked.ts';
import { GateSection, type Spread } from './gate-section.tsx';
import { kitOf } from './kit-section.tsx';
import { note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ reason: string }>({ reason: note(1000) });

interface BenchSectionProps {
  readonly job: OpenJob;
  readonly ahead: Ahead;
  readonly shop: ShopNow | undefined;
  readonly spread: Spread;
  onPrepared(prepared: EventData['prepared']): void;
}

/** The bench as it has to be; what is not so is left out with a reason. One press says that all of it is. */
export function BenchSection({ job, ahead, shop, spread, onPrepared }: BenchSectionProps) {
  const { map, mechanism, state } = job;
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const { field, sent, typed } = useFields(schema, { reason: '' });
  const done = isPrepared(mechanism, state);
  const kit = kitOf({ map, plan: ahead.plan, shop });
  // what nobody ever counted may be there
  const spent = kit?.supplies.filter((each) => !each.advised && !each.enough && each.left !== null) ?? [];
  const items = benchItems(
    map,
    targetsForNow(mechanism, state),
    { ...settled(map, state.policy).policy, ...state.limits },
    ahead.ops,
    // a seal that the shelf has not is asked about by its own name
  ).filter(({ id }) => id !== 'seals' || !spent.some(isForSealing));
  const gaps = [
    ...(kit?.tools.filter((each) => !each.owned) ?? []).map((each) => each.tool),
    ...spent.map(({ name }) => `${name}, none left`),
    ...notThere(job).map((each) => `an accepted new ${partName(map, each)}`),
  ];
  const missing = [...gaps, ...items.filter((each) => left.has(each.id)).map((each) => each.title)];
  const before = ahead.ops.filter((op) => op.name === 'agree' || op.name === 'run-down' || op.name === 'charge-up');
  const charge = state.charges.at(-1)?.charge;
  const isDecided = !isDrying(state) || chargeAsked(ahead, state) === null;
  const held = isDrying(state) ? [] : heldParts(mechanism, state);
  const isReady =
    held.length === 0 && isDecided && before.length === 0 && (missing.length === 0 || typed('reason').trim() !== '');
  const confirmed = sent(({ reason }) => {
    if (!isReady || done) return;
    onPrepared({
      items: items.filter((each) => !left.has(each.id)).map((each) => each.id),
      skipped: [...gaps, ...items.filter((each) => left.has(each.id)).map((each) => each.id)].map((item) => ({
        item: item.slice(0, 200),
        reason,
      })),
      ...(charge === undefined ? {} : { charge }),
      ...(state.agreed ? { told: state.agreed.items } : {}),
    });
  });
  const confirm = () => void confirmed();
  useKeys(
    { ' ': confirm, PageDown: confirm },
    !done && held.length === 0 && isDecided && before.length === 0 && spread.open && spread.takesKeys,
  );
  const toggle = ({ id }: BenchItem) =>
    setLeft(left.has(id) ? new Set([...left].filter((each) => each !== id)) : new Set([...left, id]));
  const said = done
    ? state.prepared && state.prepared.skipped.length > 0
      ? `prepared, ${state.prepared.skipped.length} left out with a reason`
      : 'prepared'
    : before.length > 0
      ? `after ${before.map((op) => WAITS[op.name!]).join(' and ')}`
      : isDecided
        ? plural(items.length, 'thing')
        : 'after somebody has decided about the charge';
  return (
    <GateSection spread={spread} title="The bench" said={said} done={done}>
      {map.cautions?.map((each) => (
        <div key={each} className="mb-2">
          <Caution>{each}</Caution>
        </div>
      ))}
      <ul>
        {items.map((each) => (
          <li key={each.id} className="border-b border-hair">
            <button
              type="button"
              aria-pressed={!left.has(each.id)}
              onClick={() => toggle(each)}
              className="grid min-h-12 w-full grid-cols-[2rem_minmax(0,18rem)_1fr] items-center gap-x-3 text-left"
            >
              <span aria-hidden="true" className={`text-lead ${left.has(each.id) ? 'text-now' : 'text-done'}`}>
                {left.has(each.id) ? '–' : '✓'}
              </span>
              <span className={`text-body font-bold ${left.has(each.id) ? 'line-through' : ''}`}>{each.title}</span>
              <span className="text-note text-care">{each.harm}</span>
            </button>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-note text-quiet">
        Press what is not so. Local rules and your lead decide where they say more.
      </p>
      {held.length > 0 && (
        <p className="mt-2 text-body font-bold text-now">
          Not opened for {held.map((id) => partName(map, id)).join(', ')}: the new one is not accepted. Parts desk, or
          close up without it.
        </p>
      )}
      <form onSubmit={confirmed} className="mt-2 flex flex-wrap items-end gap-3">
        {missing.length > 0 && (
          <div className="min-w-80 grow">
            <Field label={`Why it goes on without: ${missing.join('; ')}`} {...field('reason')} maxLength={1000} />
          </div>
        )}
        <Button weight="loud" type="submit" keyName="Space" disabled={!isReady}>
          {missing.length > 0 ? 'Go on without' : 'All of it is so'}
        </Button>
      </form>
    </GateSection>
  );
}

const WAITS: Readonly<Record<string, string>> = {
  agree: 'the owner has agreed',
  'run-down': 'the battery is down',
  'charge-up': 'it is charged',
};

/** New parts that did not come, or that nobody accepted. */
function notThere({ state }: OpenJob): string[] {
  // a wet device has its battery taken off before anybody knows what it needs
  const wanted = isDrying(state) ? [] : state.targets.flatMap((each) => ('replace' in each ? [each.replace] : []));
  return wanted.filter((mapPart) => {
    const part = chosenPart(state.parts, mapPart);
    return !part || !isAccepted(part);
  });
}
