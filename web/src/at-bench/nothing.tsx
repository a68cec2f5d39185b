import { Button } from '../ui/button.tsx';

interface NothingProps {
  readonly planning: boolean;
  readonly finished: boolean;
  readonly drying: boolean;
  onStep(): void;
}

/** No operation is left, or none is known yet. */
export function Nothing({ planning, finished, drying, onStep }: NothingProps) {
  if (planning) return <p className="p-6 text-far text-quiet">Planning from here</p>;
  return (
    <section aria-label="Operation" className="flex flex-col gap-4 p-6">
      <h1 className="text-loud leading-tight font-bold">
        {drying ? 'Washed, dried and tried' : finished ? 'Finished' : 'Everything is back and tried'}
      </h1>
      <Button weight="loud" keyName="Space" data-step="" onClick={onStep} className="min-h-18 text-lead">
        {drying ? 'Decide about the board' : finished ? 'To the record' : 'Finish, to the record'}
      </Button>
    </section>
  );
}
