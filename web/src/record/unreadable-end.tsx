import { problemText } from '@nibrel/core/model/refusal';
import { useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import { api } from '../app/client.ts';
import { shopQuery } from '../app/queries.ts';
import { outbox } from '../outbox/index.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ text: string }>({ text: words('Why it ends here') });

/** A repair whose map can't be read goes no further: a lead ends it, so that nothing waits for it for ever. */
export function UnreadableEnd({ id, onEnded }: { readonly id: string; onEnded(): void }) {
  const line = useQuery({ queryKey: ['line', id], queryFn: () => api.job(id) });
  const people = useQuery(shopQuery).data?.people ?? [];
  const { field, sent, setError } = useFields(schema, { text: '' });
  if (!line.data?.unreadable || line.data.ended) return null;
  const end = (lead: string) =>
    sent(async ({ text }) => {
      const event = {
        id: crypto.randomUUID(),
        type: 'end',
        at: new Date().toISOString(),
        by: lead,
        data: { text },
      } as const;
      const answer = await outbox.send(id, event);
      if (answer && 'problem' in answer) setError('text', { message: problemText(answer.problem) });
      await line.refetch();
      onEnded();
    });
  return (
    <form className="mt-2 flex flex-wrap items-end gap-2" onSubmit={(event) => event.preventDefault()}>
      <div className="min-w-72 grow">
        <Field label="A lead ends it: why" {...field('text')} maxLength={1000} />
      </div>
      {people
        .filter(({ role }) => role === 'lead')
        .map(({ name }) => (
          <Button key={name} onClick={() => void end(name)()}>
            {name} ends it here
          </Button>
        ))}
    </form>
  );
}
