import { plural } from '@nibrel/core/planner/words';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import { ProblemShown } from '../ui/problem-shown.tsx';
import { outbox, useOutbox } from './index.ts';
import type { Letter } from './shelf.ts';

/** The server does not answer, or nobody is signed in: what waits for that, which is shown nowhere as done. */
export function Waiting() {
  const isUnreachable = useOutbox(({ unreachable }) => unreachable);
  const isSignedOut = useOutbox(({ signedOut }) => signedOut);
  const count = useOutbox(({ waiting }) => waiting.length);
  if (!isUnreachable && !isSignedOut) return null;
  return (
    <Trouble title={isSignedOut ? 'Sign in again' : 'The server does not answer'}>
      <p>Nothing more is shown as done until {isSignedOut ? 'you have' : 'it does. Trying again by itself'}.</p>
      {count > 0 && (
        <p>{plural(count, 'entry', 'entries')} not saved yet, waiting: kept in this browser, and sent then.</p>
      )}
    </Trouble>
  );
}

/** What was pressed while the server was away, here or in a window that is gone, and was not taken then. @param job of this one only */
export function Returned({ job }: { readonly job?: string }) {
  const returned = useOutbox((state) => state.returned);
  return returned
    .filter(({ letter }) => job === undefined || letter.to === job)
    .map(({ letter, problem }) => {
      const written = textOf(letter.event);
      return (
        <Trouble key={letter.id} title="Not taken, from before">
          <p>
            <ProblemShown {...problem} />
          </p>
          {written && <p className="mt-1">You wrote: “{written}”</p>}
          <Button onClick={() => outbox.understood(letter.id)}>Understood</Button>
        </Trouble>
      );
    });
}

/** What somebody wrote by hand: it is shown again, so that it can be sent again. */
export function textOf({ data }: Letter['event']): string {
  const said = 'text' in data ? data.text : 'anyway' in data ? data.anyway : '';
  return typeof said === 'string' ? said.trim() : '';
}
