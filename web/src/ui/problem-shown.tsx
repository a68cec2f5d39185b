import type { Problem } from '@nibrel/core/model/refusal';

/** What is wrong, and what to do about it, which stands out. */
export function ProblemShown({ message, cure }: Pick<Problem, 'message' | 'cure'>) {
  return (
    <>
      {message} {cure && <strong>{cure}</strong>}
    </>
  );
}
