import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';
import type { Session } from './session.ts';

/** What went wrong with the last thing that was sent, or that nobody answers. */
export function NotTaken({ bench }: { readonly bench: Session }) {
  return (
    <>
      {bench.unreachable && (
        <Trouble title="The server does not answer">
          <p>Nothing more is shown as done until it does. Trying again by itself.</p>
        </Trouble>
      )}
      {bench.refusal && (
        <Trouble title="Not taken">
          <p>{bench.refusal.problem}</p>
          <Button className="mt-2" onClick={bench.dismiss}>
            Understood
          </Button>
        </Trouble>
      )}
    </>
  );
}
