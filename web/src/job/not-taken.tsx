import type { ReactNode } from 'react';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { ProblemShown } from '../ui/problem-shown.tsx';
import { Returned, textOf, Waiting } from '../outbox/waiting.tsx';
import { LeadClearsBench, LeadSays } from '../lead/lead-says.tsx';
import type { Session } from './session.ts';

interface NotTakenProps {
  readonly bench: Session;
  /** other ways out than to have understood it */
  readonly children?: ReactNode;
}

/** What went wrong with the last thing that was sent, or that nobody answers. What was written is not lost. */
export function NotTaken({ bench, children }: NotTakenProps) {
  const { refusal } = bench;
  const asked = refusal?.asked;
  const written = asked && textOf(asked);
  return (
    <>
      <Waiting />
      {refusal && (
        <Trouble title="Not taken">
          <p>
            <ProblemShown {...refusal.problem} />
          </p>
          {written && <p className="mt-1">You wrote: “{written}”</p>}
          <div className="mt-2 flex flex-wrap gap-2">
            {children}
            {asked && refusal.needs === 'lead' && <LeadSays asked={asked} say={bench.send} />}
            <Button onClick={bench.dismiss}>Understood</Button>
          </div>
          {asked?.type === 'aired' && <LeadClearsBench asked={asked} say={bench.send} />}
        </Trouble>
      )}
      <Returned job={bench.job?.id} />
    </>
  );
}
