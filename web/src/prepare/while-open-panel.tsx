import Joi from 'joi';
import type { Plan } from '@nibrel/core/planner/plan';
import { partName, plural, duration } from '@nibrel/core/planner/words';
import type { WhileOpen } from '@nibrel/core/workshop/prepare';
import { useEffect, useState } from 'react';
import type { OpenJob } from '../job/job-frame.tsx';
import { Button } from '../ui/button.tsx';
import type { Closing } from '../ui/form.ts';
import { Field } from '../ui/field.tsx';
import { Panel } from '../ui/panel.tsx';
import { computeLater } from '../workers/compute.ts';
import { note } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface WhileOpenPanelProps extends Closing {
  readonly job: OpenJob;
  readonly plan: Plan;
}

/** What every other part would cost while it is open, against a job of its own later: decided once, with the owner. */
export function WhileOpenPanel({ job, plan, open, onClose }: WhileOpenPanelProps) {
  return (
    <Panel
      title="While it is open"
      said="What replacing one more part costs now, and as a job of its own later. The difference of two plans, with seals and delicate steps; times are guesses."
      open={open}
      onClose={onClose}
    >
      {open && <Offers job={job} plan={plan} onDone={onClose} />}
    </Panel>
  );
}

const schema = Joi.object<{ text: string }>({ text: note(1000) });

function Offers({ job, plan, onDone }: { readonly job: OpenJob; readonly plan: Plan; onDone(): void }) {
  const { bench, map, state } = job;
  const { offers, left } = useOffers(job, plan);
  const { field, sent } = useFields(schema, { text: '' });
  const saved = (each: WhileOpen) => each.later.seconds - each.now.seconds;
  const add = (part: string) =>
    void bench.send('targets', { targets: [...state.targets, { replace: part }], text: 'while it is open' });
  const decide = sent(({ text }) => {
    void bench.send('decision', { about: 'while-open', text: text || 'nothing else' });
    onDone();
  });
  return (
    <>
      <table className="w-full border-collapse text-body">
        <thead>
          <tr className="border-b border-ink text-left text-note text-quiet">
            <th className="py-1 font-normal">Part</th>
            <th className="py-1 font-normal">Now</th>
            <th className="py-1 font-normal">Later, on its own</th>
            <th className="py-1 font-normal">
              <span className="sr-only">Add</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {offers
            .toSorted((a, b) => saved(b) - saved(a))
            .map((each) => (
              <tr key={each.part} className="border-b border-hair">
                <td className="py-1 pr-3 font-bold">{partName(map, each.part)}</td>
                <td className="py-1 pr-3">
                  {duration(each.now.seconds)}
                  <span className="text-quiet">{riskWords(each.now)}</span>
                </td>
                <td className="py-1 pr-3">
                  {duration(each.later.seconds)}
                  <span className="text-quiet">{riskWords(each.later)}</span>
                </td>
                <td className="py-1 text-right">
                  <Button className="whitespace-nowrap" onClick={() => add(each.part)}>
                    Add it
                  </Button>
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {left > 0 && (
        <p role="status" className="py-2 text-quiet">
          Comparing, {plural(left, 'part')} to go
        </p>
      )}
      <form onSubmit={decide} className="mt-4 flex items-end gap-3">
        <div className="grow">
          <Field label="Decided with the owner" {...field('text')} maxLength={1000} />
        </div>
        <Button weight="loud" type="submit">
          That is decided
        </Button>
      </form>
    </>
  );
}

function riskWords({ seals, delicate }: WhileOpen['now']): string {
  const words = [...(seals > 0 ? [plural(seals, 'seal')] : []), ...(delicate > 0 ? [`${delicate} delicate`] : [])];
  return words.length > 0 ? ` · ${words.join(' · ')}` : '';
}

const LIMIT_MS = 60;

/** One part after the other, in a thread of their own; shown as they come. */
function useOffers({ map, state }: OpenJob, plan: Plan): { offers: readonly WhileOpen[]; left: number } {
  const [found, setFound] = useState<{ offers: readonly WhileOpen[]; tried: number }>({ offers: [], tried: 0 });
  const wanted = new Set(state.targets.flatMap((each) => ('replace' in each ? [each.replace] : [])));
  const parts = map.parts.filter((each) => !each.base && !wanted.has(each.id)).map((each) => each.id);
  const key = parts.join();
  useEffect(() => {
    let over = false;
    const compare = async () => {
      setFound({ offers: [], tried: 0 });
      const policy = { ...state.policy, display: plan.display };
      for (const part of key.split(',')) {
        const offer = await computeLater().whileOpen(map, state.targets, policy, plan, part, LIMIT_MS);
        if (over) return;
        setFound(({ offers, tried }) => ({ offers: offer ? [...offers, offer] : offers, tried: tried + 1 }));
      }
    };
    void compare();
    return () => {
      over = true;
    };
  }, [key, map, plan, state.targets, state.policy]);
  return { offers: found.offers, left: parts.length - found.tried };
}
