import Joi from 'joi';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { api } from './app/client.ts';
import { sessionQuery } from './app/queries.ts';
import { useSettings } from './app/settings.ts';
import { Button } from './ui/button.tsx';
import { Trouble } from './ui/caution.tsx';
import { Field } from './ui/field.tsx';
import { properName } from './ui/typed.ts';
import { useFields } from './ui/use-fields.ts';

interface SignInFields {
  readonly name: string;
  readonly password: string;
}

const schema = Joi.object<SignInFields>({
  name: properName('Your own name'),
  password: Joi.string().max(200).required().messages({ 'string.empty': 'The password of the workshop' }),
});

/** The password of the workshop, and one's own name. */
export default function SignInForm() {
  const queries = useQueryClient();
  const before = useSettings((settings) => settings.person);
  const { field, sent } = useFields(schema, { name: before, password: '' });
  const enter = useMutation({
    mutationFn: ({ name, password }: SignInFields) => api.signIn(name, password),
    onSuccess: (session) => {
      queries.setQueryData(sessionQuery.queryKey, session);
      void queries.invalidateQueries();
    },
  });
  return (
    <main className="mx-auto max-w-xl px-6 py-12">
      <h1 className="text-loud leading-tight font-bold">Nibrel</h1>
      <p className="mt-2 text-lead">This server is reached over a network. Sign in under your own name.</p>
      <form onSubmit={sent((said) => enter.mutate(said))} className="mt-6 flex flex-col gap-4">
        {enter.error && (
          <Trouble title="Not signed in">
            <p>{enter.error.message}</p>
          </Trouble>
        )}
        <Field label="Name" {...field('name')} maxLength={60} />
        <Field
          label="Password of the workshop"
          type="password"
          autoComplete="current-password"
          {...field('password')}
          maxLength={200}
        />
        <Button weight="loud" type="submit" keyName="Enter" disabled={enter.isPending}>
          Sign in
        </Button>
      </form>
    </main>
  );
}
