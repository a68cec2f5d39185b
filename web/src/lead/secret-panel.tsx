import { LEAST_SECRET } from '@nibrel/core/api';
import { useMutation, useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import { api } from '../app/client.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { Field } from '../ui/field.tsx';
import { Panel } from '../ui/panel.tsx';
import { useFields } from '../ui/use-fields.ts';

interface Fields {
  readonly secret: string;
}

const said = `At least ${LEAST_SECRET} characters`;
const schema = Joi.object<Fields>({
  secret: Joi.string()
    .min(LEAST_SECRET)
    .max(200)
    .required()
    .messages({ 'string.empty': 'The lead’s own secret', 'string.min': said }),
});

interface SecretPanelProps {
  readonly person: string;
  onAnswer(isConfirmed: boolean): void;
}

/** A lead shows their own secret, or chooses it the first time. */
export default function SecretPanel({ person, onAnswer }: SecretPanelProps) {
  const leads = useQuery({ queryKey: ['leads'], queryFn: api.leads, staleTime: 0 }).data?.leads;
  const lead = leads?.find((each) => each.person === person);
  const isNew = lead !== undefined && !lead.hasSecret;
  const { field, sent } = useFields(schema, { secret: '' });
  const confirm = useMutation({
    mutationFn: ({ secret }: Fields) => api.confirmLead({ person, secret, ...(isNew ? { isNew } : {}) }),
    onSuccess: () => onAnswer(true),
  });
  return (
    <Panel
      title={isNew ? `${person}: choose a secret of your own` : `${person} confirms`}
      said={
        isNew
          ? 'Others work here too. From now on it is asked wherever only a lead may decide. It is kept as a hash; nobody can read it again.'
          : 'Only a lead may say this, and others work here too. It holds for a minute in this browser.'
      }
      open
      isAbove
      onClose={() => onAnswer(false)}
    >
      <form onSubmit={sent((fields) => confirm.mutate(fields))} className="flex flex-col gap-4">
        {confirm.error && (
          <Trouble title="Not confirmed">
            <p>{confirm.error.message}</p>
          </Trouble>
        )}
        <Field
          label={`Secret of ${person}`}
          type="password"
          autoComplete={isNew ? 'new-password' : 'current-password'}
          autoFocus
          {...(isNew ? { hint: said } : lead?.shown ? { hint: `In the demonstration it is: ${lead.shown}` } : {})}
          {...field('secret')}
          maxLength={200}
        />
        <div className="flex flex-wrap gap-3">
          <Button weight="loud" type="submit" keyName="Enter" disabled={!leads || confirm.isPending}>
            {isNew ? 'Keep it, and confirm' : 'Confirm'}
          </Button>
          <Button onClick={() => onAnswer(false)}>Not now</Button>
        </div>
      </form>
    </Panel>
  );
}
