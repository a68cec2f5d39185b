import type { BenchEvent, EventData, EventType } from '@nibrel/core/job/events';
import { useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import { shopQuery } from '../app/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface LeadSaysProps {
  /** what was refused */
  readonly asked: BenchEvent;
  say<Type extends EventType>(type: Type, data: EventData[Type], by: string): Promise<boolean>;
}

/** What was refused to somebody and a lead may say: the same, under the lead's own name. */
export function LeadSays({ asked, say }: LeadSaysProps) {
  const leads = useLeads();
  return (
    <div className="flex flex-wrap gap-2">
      {leads.map((lead) => (
        <Button key={lead} onClick={() => void say(asked.type, asked.data, lead)}>
          {lead} says so
        </Button>
      ))}
      {leads.length === 0 && <p className="text-body">Nobody leads this workshop yet: name a lead first.</p>}
    </div>
  );
}

const schema = Joi.object<{ text: string }>({ text: words('Why the air is clear') });

/** A bench that would have to be aired for longer: a lead who has looked clears it, with the reason. */
export function LeadClearsBench({ asked, say }: LeadSaysProps & { readonly asked: BenchEvent & { type: 'aired' } }) {
  const leads = useLeads();
  const { field, sent } = useFields(schema, { text: '' });
  return (
    <form className="flex flex-wrap items-end gap-2" onSubmit={(event) => event.preventDefault()}>
      <div className="grow">
        <Field label="A lead has looked: why the air is clear" {...field('text')} maxLength={1000} />
      </div>
      {leads.map((lead) => (
        <Button
          key={lead}
          onClick={() => void sent(({ text }) => say('aired', { ...asked.data, anyway: text }, lead))()}
        >
          {lead} clears the bench
        </Button>
      ))}
    </form>
  );
}

function useLeads(): readonly string[] {
  const people = useQuery(shopQuery).data?.people ?? [];
  return people.flatMap(({ name, role }) => (role === 'lead' ? [name] : []));
}
