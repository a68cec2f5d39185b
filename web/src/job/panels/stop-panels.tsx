import { type EventData, type Stop, STOP_REASONS, type StopReason } from '@nibrel/core/job';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { shopQuery } from '../../app/queries.ts';
import { Button } from '../../ui/button.tsx';
import { Caution } from '../../ui/caution.tsx';
import { Field } from '../../ui/field.tsx';
import { type Closing, submitted } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';

const STOPS: Readonly<Record<StopReason, string>> = {
  swelling: 'The cell swells',
  smoke: 'Smoke',
  smell: 'Sweet or burnt smell',
  leak: 'Something leaks',
  puncture: 'A cell is punctured or cut',
  dent: 'A cell is dented',
  burnt: 'Something is burnt or melted',
  heat: 'It gets hot by itself',
  other: 'Something else',
};

interface StopPanelProps extends Closing {
  readonly first?: StopReason;
  onStop(stop: EventData['stop']): void;
}

/** From any moment: what is safe first, then it is isolated and handed to the lead. */
export function StopPanel({ open, onClose, first = 'smoke', onStop }: StopPanelProps) {
  const [reason, setReason] = useState<StopReason>(first);
  const [text, setText] = useState('');
  return (
    <Panel title="Stop now" open={open} onClose={onClose}>
      <form
        onSubmit={submitted(() => {
          onStop({ reason, text: text.trim() });
          onClose();
        })}
        className="flex flex-col gap-4"
      >
        <Caution>
          Hands off the cell. Heat and charger off. If it can be moved safely, into the sand, outdoors, away from what
          burns; if it smokes, leave it and leave the room. Fire service and local rules come before this screen.
        </Caution>
        <SelectField
          id="stop-reason"
          label="What is it"
          value={reason}
          options={STOP_REASONS.map((each) => ({ value: each, label: STOPS[each] }))}
          onChange={setReason}
          autoFocus
        />
        <Field label="Note" value={text} onChange={(event) => setText(event.target.value)} maxLength={2000} />
        <Button weight="loud" type="submit" keyName="Enter">
          Stop this repair
        </Button>
      </form>
    </Panel>
  );
}

interface LeadPanelProps extends Closing {
  readonly stops: readonly Stop[];
  /** said under the lead's own name; @returns was it taken? */
  onClear(clear: EventData['clear'], lead: string): Promise<boolean>;
  onEnd(end: EventData['end'], lead: string): Promise<boolean>;
}

/** The lead clears a stop, one by one, or ends the job where it stands; either with a reason. */
export function LeadPanel({ stops, open, onClose, onClear, onEnd }: LeadPanelProps) {
  const people = useQuery(shopQuery).data?.people ?? [];
  const leads = people.filter(({ role }) => role === 'lead').map((each) => each.name);
  const [name, setName] = useState('');
  const [text, setText] = useState('');
  const [chosen, setChosen] = useState('');
  const stop = stops.find(({ id }) => id === chosen) ?? stops[0];
  const said = { text: text.trim() };
  const isSaid = name.trim() !== '' && said.text !== '';
  const decide = async (act: () => Promise<boolean>) => {
    if (!isSaid) return;
    if (await act()) setText('');
    onClose();
  };
  const clear = () => decide(() => onClear({ ...said, ...(stop ? { stop: stop.id } : {}) }, name.trim()));
  return (
    <Panel
      title="The lead decides"
      said="Say who decided, and why it is safe to go on, or why it ends here. It is recorded under the lead’s own name."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={submitted(() => void clear())} className="flex flex-col gap-4">
        {stops.length > 1 && (
          <SelectField
            id="lead-stop"
            label={`Which of ${stops.length} stops`}
            value={stop?.id ?? ''}
            options={stops.map(({ id, reason, text: why }) => ({
              value: id,
              label: why ? `${reason}: ${why}` : reason,
            }))}
            onChange={setChosen}
          />
        )}
        <Field
          label="Lead"
          value={name}
          onChange={(event) => setName(event.target.value)}
          {...(leads.length > 0
            ? {}
            : { hint: 'Nobody leads this workshop yet: name a lead under Who is at the bench' })}
          required
          autoFocus
          maxLength={60}
        />
        <div className="flex flex-wrap gap-2">
          {leads.map((each) => (
            <Button key={each} onClick={() => setName(each)}>
              {each}
            </Button>
          ))}
        </div>
        <Field
          label="Reason"
          value={text}
          onChange={(event) => setText(event.target.value)}
          required
          maxLength={1000}
        />
        <Button weight="loud" type="submit" keyName="Enter">
          {stops.length > 1 ? 'Clear this one' : 'Clear it, the repair goes on'}
        </Button>
        <Button disabled={!isSaid} onClick={() => void decide(() => onEnd(said, name.trim()))}>
          End it here
        </Button>
      </form>
    </Panel>
  );
}
