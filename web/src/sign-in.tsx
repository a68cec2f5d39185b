import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState } from 'react';
import { api } from './app/client.ts';
import { sessionQuery } from './app/queries.ts';
import { useSettings } from './app/settings.ts';
import { Button } from './ui/button.tsx';
import { Trouble } from './ui/caution.tsx';
import { Field } from './ui/field.tsx';
import { submitted } from './ui/form.ts';

/** Over a network the password of the workshop comes first; on the server's own machine nothing is asked. */
export function SignInFirst({ children }: { readonly children: ReactNode }) {
  const session = useQuery(sessionQuery).data;
  const setPerson = useSettings((settings) => settings.setPerson);
  const person = session?.person;
  useEffect(() => {
    if (person) setPerson(person);
  }, [person, setPerson]);
  return session?.needed && !person ? <SignIn /> : children;
}

function SignIn() {
  const queries = useQueryClient();
  const before = useSettings((settings) => settings.person);
  const [name, setName] = useState(before);
  const [password, setPassword] = useState('');
  const enter = useMutation({
    mutationFn: () => api.signIn(name.trim(), password),
    onSuccess: (session) => {
      queries.setQueryData(sessionQuery.queryKey, session);
      void queries.invalidateQueries();
    },
  });
  return (
    <main className="mx-auto max-w-xl px-6 py-12">
      <h1 className="text-loud leading-tight font-bold">Nibrel</h1>
      <p className="mt-2 text-lead">This server is reached over a network. Sign in under your own name.</p>
      <form onSubmit={submitted(() => enter.mutate())} className="mt-6 flex flex-col gap-4">
        {enter.error && (
          <Trouble title="Not signed in">
            <p>{enter.error.message}</p>
          </Trouble>
        )}
        <Field label="Name" value={name} maxLength={60} required onChange={(event) => setName(event.target.value)} />
        <Field
          label="Password of the workshop"
          type="password"
          autoComplete="current-password"
          value={password}
          maxLength={200}
          required
          onChange={(event) => setPassword(event.target.value)}
        />
        <Button weight="loud" type="submit" keyName="Enter" disabled={enter.isPending}>
          Sign in
        </Button>
      </form>
    </main>
  );
}
