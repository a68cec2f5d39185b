import Joi from 'joi';
import { type EventData } from '@nibrel/core/job/events';
import { type JobState, UNKNOWN } from '@nibrel/core/job/state';
import { leftOpen, type LeftOpen } from '@nibrel/core/job/rules';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ reason: string }>({ reason: words('Say why: it is recorded') });

interface NothingProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  /** is it known that no operation is left? */
  readonly known: boolean;
  readonly planning: boolean;
  readonly drying: boolean;
  /** of its button */
  readonly label: string;
  onStep(): void;
  onDecision(what: string, text: string): Promise<boolean>;
  onTest(test: EventData['test']): void;
  onEnd(text: string): Promise<boolean>;
}

/** No operation is left, or none is known yet. */
export function Nothing({ mechanism, state, known, planning, drying, label, onStep, onEnd, ...rest }: NothingProps) {
  if (!known) {
    return <p className="p-6 text-far text-quiet">{planning ? 'Planning from here' : '\u00a0'}</p>;
  }
  const open = drying || state.finished ? [] : leftOpen(mechanism, state, UNKNOWN);
  if (open.length > 0) return <StillOpen {...rest} open={open} />;
  const untouched = !drying && !state.finished && state.done.length === 0;
  if (untouched) return <Untouched onEnd={onEnd} />;
  return (
    <section aria-label="Operation" className="flex flex-col gap-4 p-6">
      <h1 className="text-loud leading-tight font-bold">
        {drying ? 'Washed, dried and tried' : state.finished ? 'Finished' : 'Everything is back and tried'}
      </h1>
      <Button weight="loud" keyName="Space" data-step="" onClick={onStep} className="min-h-18 text-lead">
        {label}
      </Button>
    </section>
  );
}

/** What keeps it from being finished: each is done, or decided about with a reason. */
function StillOpen({
  open,
  onDecision,
  onTest,
}: Pick<NothingProps, 'onDecision' | 'onTest'> & { readonly open: readonly LeftOpen[] }) {
  const { field, sent, empty } = useFields(schema, { reason: '' });
  const decide = (what: string) =>
    sent(async ({ reason }) => {
      if (await onDecision(what, reason)) empty();
    });
  return (
    <section aria-label="Still open" className="flex flex-col gap-3 p-6">
      <h1 className="text-loud leading-tight font-bold">Not finished yet</h1>
      <p className="text-body text-quiet">Do what is left, or say why it stays so.</p>
      <Field label="Why it stays so" {...field('reason')} maxLength={1000} />
      <ul className="border-t border-ink">
        {open.map(({ what, text, isFixed }) => (
          <li
            key={what}
            className="flex min-h-14 flex-wrap items-center justify-between gap-3 border-b border-hair py-1"
          >
            <span className="text-body">{text}</span>
            {what.startsWith('test:') && (
              <span className="flex gap-2">
                {(['works', 'fails'] as const).map((result) => (
                  <Button
                    key={result}
                    onClick={() => onTest({ function: what.slice('test:'.length), result, stage: 'after' })}
                  >
                    {result}
                  </Button>
                ))}
              </span>
            )}
            {!isFixed && <Button onClick={() => void decide(what)()}>It stays so</Button>}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A repair in which nothing was done has nothing to finish. */
function Untouched({ onEnd }: Pick<NothingProps, 'onEnd'>) {
  const { field, sent } = useFields(schema, { reason: '' });
  return (
    <section aria-label="Nothing done" className="flex flex-col gap-3 p-6">
      <h1 className="text-loud leading-tight font-bold">Nothing is to be done</h1>
      <p className="text-body text-quiet">Change the target, or end this repair with the reason.</p>
      <form onSubmit={sent(({ reason }) => onEnd(reason))} className="flex flex-col gap-3">
        <Field label="Why it ends" {...field('reason')} maxLength={1000} />
        <Button type="submit">End this repair</Button>
      </form>
    </section>
  );
}
