import type { JobState } from '@nibrel/core/bench';
import { clock } from '../app/format.ts';
import { Button } from '../ui/button.tsx';

interface StoppedProps {
  readonly state: JobState;
  onLead(): void;
}

/** What is safe now, and who decides. Nothing of the plan can be done meanwhile. */
export function Stopped({ state, onLead }: StoppedProps) {
  const { stopped, ended } = state;
  if (ended) {
    return (
      <section aria-label="Ended" className="flex flex-col gap-4 border-l-8 border-now p-6">
        <h1 className="text-loud leading-tight font-bold text-now">Ended by the lead</h1>
        <p className="text-lead">
          {ended.lead}, {clock(ended.at)}: {ended.text}
        </p>
        <p className="text-lead">Only notes are taken. Local rules for lithium waste and transport decide.</p>
      </section>
    );
  }
  if (!stopped) return null;
  return (
    <section aria-label="Stopped" className="flex flex-col gap-4 border-l-8 border-now p-6">
      <h1 className="text-loud leading-tight font-bold text-now">Stopped: {stopped.reason}</h1>
      <p className="text-lead">
        Hands off the cell, heat and charger off. Isolated in the sand, outdoors if it can be carried safely. Local
        rules for lithium waste and transport decide. {stopped.by} stopped it{stopped.text ? `: ${stopped.text}` : '.'}
      </p>
      <p className="text-lead">The lead decides whether it goes on or ends here.</p>
      <Button onClick={onLead} className="self-start">
        The lead decides
      </Button>
    </section>
  );
}
