import { useQuery } from '@tanstack/react-query';
import { lazy, type ReactNode, Suspense, useEffect } from 'react';
import { sessionQuery } from './app/queries.ts';
import { useSettings } from './app/settings.ts';

const SignInForm = lazy(() => import('./sign-in-form.tsx'));

/** Over a network the password of the workshop comes first; on the server's own machine nothing is asked. */
export function SignInFirst({ children }: { readonly children: ReactNode }) {
  const session = useQuery(sessionQuery).data;
  const setPerson = useSettings((settings) => settings.setPerson);
  const person = session?.person;
  useEffect(() => {
    if (person) setPerson(person);
  }, [person, setPerson]);
  return session?.needed && !person ? (
    <Suspense>
      <SignInForm />
    </Suspense>
  ) : (
    children
  );
}
