import { benchUnit } from '../../app/units.ts';
import { stopText } from '@nibrel/core/job/rules';
import { type EventData, STOP_REASONS, type StopReason } from '@nibrel/core/job/events';
import { type Stop } from '@nibrel/core/job/state';
import { useQuery } from '@tanstack/react-query';
import Joi from 'joi';
import { useState } from 'react';
import { shopQuery } from '../../app/queries.ts';
import { Button } from '../../ui/button.tsx';
import { Caution } from '../../ui/caution.tsx';
import { Field } from '../../ui/field.tsx';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { SelectField } from '../../ui/select-field.tsx';
import { note, picked, properName, words } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

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

const stopSchema = Joi.object<{ reason: StopReason; text: string }>({ reason: picked(), text: note() });
const leadSchema = Joi.object<{ name: string; text: string }>({
  name: properName('Who decides: the lead’s own name'),
  text: words('Why: it is recorded'),
});

interface StopPanelProps extends Closing {
  readonly first?: StopReason;
  onStop(stop: EventData['stop']): void;
}

/** From any moment: what is safe first, then it is isolated and handed to the lead. */
export function StopPanel({ open, onClose, first = 'smoke', onStop }: StopPanelProps) {
  const { field, pick, sent } = useFields(stopSchema, { reason: first, text: '' });
  return (
    <Panel title="Stop now" open={open} onClose={onClose}>
      <form
        onSubmit={sent((stop) => {
          onStop(stop);
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
          {...pick('reason')}
          options={STOP_REASONS.map((each) => ({ value: each, label: STOPS[each] }))}
          autoFocus
        />
        <Field label="Note" {...field('text')} maxLength={2000} />
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
  const { field, sent, setValue } = useFields(leadSchema, { name: '', text: '' });
  const [chosen, setChosen] = useState('');
  const stop = stops.find(({ id }) => id === chosen) ?? stops[0];
  const decided = (act: (text: string, lead: string) => Promise<boolean>) =>
    sent(async ({ name, text }) => {
      if (await act(text, name)) setValue('text', '');
      onClose();
    });
  const clear = decided((text, lead) => onClear({ text, ...(stop ? { stop: stop.id } : {}) }, lead));
  const end = decided((text, lead) => onEnd({ text }, lead));
  return (
    <Panel
      title="The lead decides"
      said="Say who decided, and why it is safe to go on, or why it ends here. It is recorded under the lead’s own name."
      open={open}
      onClose={onClose}
    >
      <form onSubmit={clear} className="flex flex-col gap-4">
        {stops.length > 1 && (
          <SelectField
            id="lead-stop"
            label={`Which of ${stops.length} stops`}
            value={stop?.id ?? ''}
            options={stops.map((each) => {
              const why = stopText(each, benchUnit());
              return { value: each.id, label: why ? `${each.reason}: ${why}` : each.reason };
            })}
            onChange={setChosen}
          />
        )}
        <Field
          label="Lead"
          {...field('name')}
          {...(leads.length > 0
            ? {}
            : { hint: 'Nobody leads this workshop yet: name a lead under Who is at the bench' })}
          autoFocus
          maxLength={60}
        />
        <div className="flex flex-wrap gap-2">
          {leads.map((each) => (
            <Button key={each} onClick={() => setValue('name', each, { shouldValidate: true })}>
              {each}
            </Button>
          ))}
        </div>
        <Field label="Reason" {...field('text')} maxLength={1000} />
        <Button weight="loud" type="submit" keyName="Enter">
          {stops.length > 1 ? 'Clear this one' : 'Clear it, the repair goes on'}
        </Button>
        <Button onClick={() => void end()}>End it here</Button>
      </form>
    </Panel>
  );
}
