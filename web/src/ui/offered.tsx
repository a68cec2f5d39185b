import type { ReactNode } from 'react';
import { Button } from './button.tsx';

interface OfferedProps {
  /** as it would stand in the form */
  readonly said: string;
  onTake(): void;
  /** how to stay with what was typed */
  readonly children?: ReactNode;
}

/** Another window said something while this form was being filled in: nothing that was typed is lost for it. */
export function Offered({ said, onTake, children }: OfferedProps) {
  return (
    <div role="status" className="text-body">
      <p>Changed elsewhere: “{said}”.</p>
      <div className="mt-1 flex flex-wrap gap-2">
        <Button onClick={onTake}>Take that</Button>
        {children}
      </div>
    </div>
  );
}
