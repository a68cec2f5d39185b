import type { BenchEvent } from '@nibrel/core/job';
import { plural } from '@nibrel/core/words';
import type { ReactNode } from 'react';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import type { Session } from './session.ts';
import { inUnits } from '../app/units.ts';

interface NotTakenProps {
  readonly bench: Session;
  /** other ways out than to have understood it */
  readonly children?: ReactNode;
}

/** What went wrong with the last thing that was sent, or that nobody answers. What was written is not lost. */
export function NotTaken({ bench, children }: NotTakenProps) {
  const { refusal } = bench;
  const written = refusal?.asked && textOf(refusal.asked);
  return (
    <>
      {bench.unreachable && (
        <Trouble title="The server does not answer">
          <p>Nothing more is shown as done until it does. Trying again by itself.</p>
          {bench.unsavedCount > 0 && (
            <p>{plural(bench.unsavedCount, 'entry', 'entries')} not saved yet: leave this page open.</p>
          )}
        </Trouble>
      )}
      {refusal && (
        <Trouble title="Not taken">
          <p>{inUnits(refusal.problem)}</p>
          {written && <p className="mt-1">You wrote: “{written}”</p>}
          <div className="mt-2 flex gap-2">
            {children}
            <Button onClick={bench.dismiss}>Understood</Button>
          </div>
        </Trouble>
      )}
    </>
  );
}

/** What somebody wrote by hand: it is shown again, so that it can be sent again. */
function textOf({ data }: BenchEvent): string {
  const said = 'text' in data ? data.text : 'anyway' in data ? data.anyway : '';
  return typeof said === 'string' ? said.trim() : '';
}
