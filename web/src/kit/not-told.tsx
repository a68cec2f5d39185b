import { Trouble } from '../ui/caution.tsx';

/** Why the workshop's log did not take what it was told. */
export function NotTold({ error }: { readonly error: Error | null }) {
  return (
    error && (
      <Trouble title="Not taken">
        <p>{error.message}</p>
      </Trouble>
    )
  );
}
