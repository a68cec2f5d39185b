import { Button } from './button.tsx';

interface OfferedProps {
  /** as it would stand in the form */
  readonly said: string;
  onTake(): void;
}

/** Another window said something while this form was being filled in: nothing that was typed is lost for it. */
export function Offered({ said, onTake }: OfferedProps) {
  return (
    <p role="status" className="flex flex-wrap items-center gap-3 text-body">
      <span>Changed elsewhere: “{said}”.</span>
      <Button onClick={onTake}>Take that</Button>
    </p>
  );
}
