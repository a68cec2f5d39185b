import { withNewScrews } from '@nibrel/core/bench/in-hand';
import { type JobState, ONLY_BENCH } from '@nibrel/core/job/state';
import { isSameName } from '@nibrel/core/model/names';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { useQuery } from '@tanstack/react-query';
import { shopQuery } from '../app/queries.ts';
import { atBench } from '../app/settings.ts';
import { NotTaken } from '../job/not-taken.tsx';
import type { Session } from '../job/session.ts';
import { Button } from '../ui/button.tsx';
import { Trouble } from '../ui/caution.tsx';

interface BenchRefusalsProps {
  readonly bench: Session;
  readonly mechanism: Mechanism;
  readonly state: JobState;
  onTarget(): void;
}

/** What was not taken at the bench, or can't be planned, with the ways out that the bench has. */
export function BenchRefusals({ bench, mechanism, state, onTarget }: BenchRefusalsProps) {
  // somebody else's solvent counts here as well, and whoever heats next airs it
  const here = atBench().bench ?? ONLY_BENCH;
  const isUnaired = useQuery(shopQuery).data?.benches.some(
    (each) => isSameName(each.bench, here) && each.use.drops.length > 0,
  );
  const refused = bench.refusal?.asked;
  const steps = refused?.type === 'did' ? withNewScrews(mechanism, state, refused.data.steps) : [];
  return (
    <>
      <NotTaken bench={bench}>
        {steps.some(({ freshScrews }) => freshScrews) && (
          <Button onClick={() => void bench.send('did', { steps })}>Put in new screws</Button>
        )}
        {refused?.type === 'heat-on' && isUnaired && (
          <Button onClick={() => void bench.send('aired', { step: 'vent:bench', ...atBench() })}>
            The bench was aired
          </Button>
        )}
      </NotTaken>
      {bench.planProblem && (
        <Trouble title="No plan from here">
          <p>{bench.planProblem}</p>
          <div className="mt-2 flex flex-wrap gap-2">
            <Button keyName="G" onClick={onTarget}>
              Change the job
            </Button>
            <Button onClick={bench.planAgain}>Plan again</Button>
          </div>
        </Trouble>
      )}
    </>
  );
}
