import { lazy, Suspense } from 'react';
import { useStore } from 'zustand';
import { leadAsked } from './asked.ts';

// the form, and the schema that checks it, come when a lead is first asked
const SecretPanel = lazy(() => import('./secret-panel.tsx'));

/** Wherever it is: where others work here too, what only a lead may say is confirmed with the lead's own secret. */
export function LeadConfirms() {
  const asked = useStore(leadAsked, (state) => state.asked[0]);
  if (!asked) return null;
  return (
    <Suspense>
      <SecretPanel key={asked.person} person={asked.person} onAnswer={asked.answer} />
    </Suspense>
  );
}
